/** Everything handed in for a hand-in as one file: put together in the background, its progress shown, then taken along. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { useEffect } from "react";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { sizeWords } from "../viewer/files";
import { PACK } from "./texts";

const EVERY = 700;
/** Milliseconds between two looks at how far it is. */

interface Props {
  one: Pick<Schema["ColumnShape"], "id" | "title">;
  groupId: number;
  /** A folder for each student, or one PDF to print. */
  form: Form;
  onClose: () => void;
}

/** Asked for as it opens, then looked at until it is ready or has failed. */
function usePack(groupId: number, handin_id: number, form: Form) {
  const { mutate, data: asked, error } = useMutation({
    mutationFn: () => answer(client.POST("/api/groups/{group_id}/handins/{handin_id}/packs", { params: { path: { group_id: groupId, handin_id } }, body: { form } })),
  });
  useEffect(() => mutate(), [mutate]);
  const key = asked?.key ?? "";
  const found = useQuery({
    queryKey: ["pack", key],
    enabled: key !== "",
    queryFn: () => answer(client.GET("/api/packs/{key}", { params: { path: { key } } })),
    refetchInterval: (query) => (query.state.data?.ready_at || query.state.data?.problem ? false : EVERY),
  });
  return { pack: found.data ?? asked, problem: [error, found.error].find((each) => each instanceof Problem) };
}

type Form = Schema["PackShape"]["form"];

const BEGUN = { done: 0, total: 0, ready_at: null, problem: "", size: 0, key: "" };

export function PackDialog({ one, groupId, form, onClose }: Props) {
  const { pack: found, problem } = usePack(groupId, one.id, form);
  const pack = found ?? BEGUN;
  return (
    <Modal narrow title={PACK.title({ title: one.title })} onClose={onClose}>
      <p className="text-ink-soft">{PACK.what[form]}</p>
      <div role="status">
        {pack.ready_at ? (
          <p className="font-bold">{PACK.ready({ students: pack.total, size: sizeWords(pack.size) })}</p>
        ) : (
          <label className="block font-bold">
            {PACK.progress({ done: pack.done, total: pack.total })}
            <progress className="mt-1 block h-2 w-full accent-ink" max={Math.max(1, pack.total)} value={pack.done} />
          </label>
        )}
      </div>
      {problem && <Notice title={problem.title} fix={problem.fix} />}
      {pack.problem && <Notice title={PACK.failed} fix={PACK.failedFix} />}
      <div className="flex flex-wrap justify-end gap-2">
        <Button big onClick={onClose}>
          {PACK.close}
        </Button>
        {pack.ready_at && (
          <a href={`/api/packs/${pack.key}/file`} className="inline-flex min-h-11 items-center gap-2 rounded-md bg-copper px-5 font-semibold text-paper hover:bg-copper-deep">
            <Download aria-hidden size={18} />
            {PACK.save}
          </a>
        )}
      </div>
    </Modal>
  );
}
