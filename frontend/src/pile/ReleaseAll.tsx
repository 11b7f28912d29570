/** All that one has drafted for a hand-in, accepted at one moment; asked first, undone at once. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { useUndo } from "../live/useUndo";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Waiting } from "../ui/Waiting";
import { RELEASE } from "./releaseTexts";

interface Props {
  groupId: number;
  handin: { id: number; title: string };
}

export function ReleaseAll({ groupId, handin }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="-ml-1 min-h-7 self-start rounded-sm px-1 text-left text-sm text-in underline" onClick={() => setOpen(true)}>
        {RELEASE.open}
      </button>
      {open && <Asking groupId={groupId} handin={handin} onClose={() => setOpen(false)} />}
    </>
  );
}

function Asking({ groupId, handin, onClose }: Props & { onClose: () => void }) {
  const queries = useQueryClient();
  const say = useSay();
  const undo = useUndo(groupId);
  const path = { params: { path: { group_id: groupId, handin_id: handin.id } } };
  const release = (only_look: boolean) => data(client.POST("/api/groups/{group_id}/handins/{handin_id}/released", { ...path, body: { only_look } }));
  const look = useQuery({ queryKey: ["group", groupId, "drafted", handin.id], queryFn: () => release(true), gcTime: 0 });
  const go = useMutation({
    mutationFn: () => release(false),
    onSuccess: async ({ count, deed }) => {
      onClose();
      const back = () => data(client.DELETE("/api/groups/{group_id}/released/{deed}", { params: { path: { group_id: groupId, deed } } }));
      say(RELEASE.done({ count, title: handin.title }), undo(back, RELEASE.undone));
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
    },
  });
  const problem = look.error ?? go.error;
  const count = look.data?.count ?? 0;
  return (
    <Modal narrow title={RELEASE.title({ title: handin.title })} onClose={onClose}>
      {look.isPending && <Waiting />}
      {look.data && <p>{RELEASE.means({ count })}</p>}
      {look.data && look.data.incomplete.length > 0 && <p className="text-ink-soft">{RELEASE.incomplete({ count: look.data.incomplete.length, names: look.data.incomplete.slice(0, NAMED).join("; ") })}</p>}
      {problem instanceof Problem && <Notice title={problem.title} fix={problem.fix} />}
      <div className="flex flex-wrap justify-end gap-2">
        <Button big onClick={onClose}>
          {RELEASE.cancel}
        </Button>
        {count > 0 && (
          <Button big look="main" disabled={go.isPending} onClick={() => go.mutate()}>
            {RELEASE.accept({ count })}
          </Button>
        )}
      </div>
    </Modal>
  );
}

const NAMED = 12;
