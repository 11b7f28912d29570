/** Signing out: texts are saved first, files on their way are named and asked about, and nothing of a student's stays here. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { sessionQuery } from "../api/queries";
import { forgetPeople } from "../api/session";
import type { Session } from "../api/session";
import { dropAll, onTheWay, useQueue } from "../taking-in/queue";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { unsaved } from "../writing/autosave";
import { forgetTheme } from "../ui/theme";
import { allDrafts, dropDrafts } from "../writing/drafts";
import { LEAVE } from "./dialogTexts";

interface Left {
  texts: number;
  forms: number;
}

/** What is not up yet, in words. */
function words(left: Left | null, files: string[]): string[] {
  return [
    left && left.texts > 0 ? LEAVE.texts({ count: left.texts }) : "",
    left && left.forms > 0 ? LEAVE.forms({ count: left.forms }) : "",
    files.length > 0 ? LEAVE.files({ names: files.slice(0, 3).join(", "), more: Math.max(files.length - 3, 0) }) : "",
  ].filter(Boolean);
}

// eslint-disable-next-line complexity -- one branch for each thing that may be left, and for a server that is away
export function LeaveDialog({ person, onClose }: { person: NonNullable<Session["person"]>; onClose: () => void }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [left, setLeft] = useState<Left | null>(null);
  // Watched, so that the question goes away by itself when the last file is up.
  useQueue();
  const files = onTheWay(person.id);
  const leave = useMutation({
    mutationFn: async () => {
      await data(client.DELETE("/api/session"));
      // Nothing asks any more in the name of somebody who is gone.
      queries.setQueryData(sessionQuery.queryKey, (old) => old && { ...old, person: null, groups: [] });
      await dropAll(person.id);
      // A class device is passed on; what a member of staff typed half-way waits for them under their account.
      if (!person.staff) await dropDrafts(person.id);
    },
    onSuccess: async () => {
      const fresh = await queries.query({ ...sessionQuery, staleTime: 0 });
      forgetTheme();
      forgetPeople(queries);
      queries.setQueryData(sessionQuery.queryKey, fresh);
      await navigate("/");
    },
  });
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    void (async () => {
      const texts = await unsaved();
      const forms = person.staff ? 0 : (await allDrafts(person.id)).length;
      if (texts === 0 && forms === 0 && onTheWay(person.id).length === 0) leave.mutate();
      else setLeft({ texts, forms: Math.max(forms - texts, 0) });
    })();
  }, [leave, person]);
  if (!left && !leave.error) return null;
  const said = words(left, files);
  const problem = leave.error instanceof Problem ? leave.error : null;
  return (
    <Modal title={LEAVE.title} narrow onClose={onClose}>
      {problem && <Notice title={problem.away ? LEAVE.away : problem.title} fix={problem.away ? LEAVE.awayFix : problem.fix} />}
      {said.map((one) => (
        <p key={one} className="break-words">
          {one}
        </p>
      ))}
      {said.length > 0 && <p className="text-ink-soft">{person.staff && files.length === 0 ? LEAVE.staysHere : LEAVE.gone}</p>}
      <div className="flex flex-wrap justify-end gap-2">
        <Button look="main" big onClick={onClose}>
          {LEAVE.stay}
        </Button>
        <Button big disabled={leave.isPending} onClick={() => leave.mutate()}>
          {said.length > 0 ? LEAVE.anyway : LEAVE.again}
        </Button>
      </div>
    </Modal>
  );
}
