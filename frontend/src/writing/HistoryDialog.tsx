/** The history of a text: who wrote when; any two compared; one brought back. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { RotateCcw } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import { Problem } from "../api/problem";
import { historyQuery, revisionQuery } from "../api/queries";
import type { TextKind } from "../api/queries";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Modal } from "../ui/Modal";
import { Notice } from "../ui/Notice";
import { Differing } from "../ui/reading/Differing";
import { RichText } from "../ui/reading/RichText";
import { Failed, Waiting } from "../ui/Waiting";
import { HISTORY } from "./texts";
import { COUNTED } from "../ui/texts";

interface Props {
  kind: TextKind;
  id: number;
  may: boolean;
  onBack: () => Promise<void>;
  onClose: () => void;
}

// eslint-disable-next-line complexity -- one branch for each state: loading, wrong, one chosen, two compared
export function HistoryDialog({ kind, id, may, onBack, onClose }: Props) {
  const lines = useQuery(historyQuery(kind, id));
  const [chosen, setChosen] = useState<number | null>(null);
  const [since, setSince] = useState<number | null>(null);
  const all = lines.data ?? [];
  const newest = all[0];
  const back = useMutation({
    mutationFn: async (revision: number) => {
      await data(client.POST("/api/revisions/{revision_id}/bring-back", { params: { path: { revision_id: revision } }, body: { version: newest?.version ?? 0 } }));
      await onBack();
      onClose();
    },
  });
  const shown = chosen ?? newest?.id ?? null;
  return (
    <Modal title={HISTORY.title} onClose={onClose} wide>
      {lines.isPending && <Waiting />}
      {lines.isError && <Failed error={lines.error} again={() => void lines.refetch()} />}
      {lines.data && all.length === 0 && <p>{HISTORY.none}</p>}
      {newest && shown !== null && (
        <div className="grid gap-6 md:grid-cols-[18rem_minmax(0,1fr)]">
          <ol aria-label={HISTORY.revisions} className="flex flex-col">
            {all.map((one) => (
              <li key={one.id} className="border-b border-line">
                <button type="button" aria-pressed={one.id === shown} onClick={() => setChosen(one.id)} className={`min-h-11 w-full px-2 py-1 text-left ${one.id === shown ? "bg-today" : "hover:bg-ground"}`}>
                  <span className="block font-semibold">{moment(one.saved_at)}</span>
                  <span className="text-quiet">
                    {one.mine ? HISTORY.me : one.who}, {COUNTED.words({ count: one.words })}
                    {one.id === newest.id && ` · ${HISTORY.now}`}
                  </span>
                </button>
              </li>
            ))}
          </ol>
          <div className="flex min-w-0 flex-col gap-3">
            <label className="flex flex-wrap items-center gap-2">
              {HISTORY.compare}
              <select value={since ?? ""} onChange={(event) => setSince(event.target.value ? Number(event.target.value) : null)} className="min-h-11 rounded-md border border-control bg-paper px-2">
                <option value="">{HISTORY.nothing}</option>
                {all
                  .filter((one) => one.id !== shown)
                  .map((one) => (
                    <option key={one.id} value={one.id}>
                      {moment(one.saved_at)}
                    </option>
                  ))}
              </select>
            </label>
            <Revision id={shown} since={since === shown ? null : since} />
            {back.error instanceof Problem && <Notice title={back.error.title} fix={back.error.fix} />}
            {may && shown !== newest.id && (
              <Button big icon={<RotateCcw aria-hidden size={18} />} disabled={back.isPending} onClick={() => back.mutate(shown)} className="self-start">
                {HISTORY.back}
              </Button>
            )}
          </div>
        </div>
      )}
    </Modal>
  );
}

function Revision({ id, since }: { id: number; since: number | null }) {
  const found = useQuery(revisionQuery(id, since));
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  if (!found.data) return <Waiting />;
  const { parts, html, text } = found.data;
  if (parts.length === 0) {
    return html ? <RichText html={html} className="reading rounded-md border border-edge p-4" /> : <p className="reading rounded-md border border-edge p-4 break-words whitespace-pre-wrap">{text || HISTORY.empty}</p>;
  }
  return <Differing parts={parts} className="reading rounded-md border border-edge p-4" />;
}
