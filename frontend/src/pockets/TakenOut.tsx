/** What was taken out in the last thirty days, to bring back. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { RotateCcw } from "lucide-react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { takenOutQuery } from "../api/queries";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { useSay } from "../ui/Toasts";
import { Failed, Waiting } from "../ui/Waiting";
import { TEXTS } from "./texts";

type Line = Schema["TakenOutShape"];

function restore(line: Line): Promise<unknown> {
  if (line.what === "artefact") return data(client.POST("/api/evidence/{evidence_id}/restore", { params: { path: { evidence_id: line.id } } }));
  if (line.what === "row") return data(client.POST("/api/rows/{row_id}/restore", { params: { path: { row_id: line.id } } }));
  return data(client.POST("/api/pages/{page_id}/restore", { params: { path: { page_id: line.id } } }));
}

export function TakenOut({ groupId, portfolio }: { groupId: number; portfolio: number }) {
  const queries = useQueryClient();
  const say = useSay();
  const lines = useQuery(takenOutQuery(groupId, portfolio));
  const back = useMutation({
    mutationFn: restore,
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["group", groupId] });
      say(TEXTS.backAgain);
    },
  });
  if (lines.isPending) return <Waiting />;
  if (lines.isError) return <Failed error={lines.error} again={() => void lines.refetch()} />;
  return (
    <article className="mx-auto flex w-full max-w-3xl flex-col gap-4 p-6 max-sm:p-4">
      <h1 className="text-2xl">{TEXTS.takenOut}</h1>
      <p className="text-base text-ink-soft">{TEXTS.takenOutHint}</p>
      {back.error instanceof Problem && <Notice title={back.error.title} fix={back.error.fix} />}
      <ul className="flex flex-col gap-2">
        {lines.data.map((line) => (
          <li key={`${line.what}/${line.id}`} className="flex flex-wrap items-center gap-3 rounded-lg border border-edge bg-paper p-3 text-base">
            <span className="min-w-0 flex-1">
              <span className="block font-semibold break-words">{line.title || TEXTS.empty}</span>
              <span className="text-sm text-quiet">
                {line.pocket ? TEXTS.fromPocket({ pocket: line.pocket }) : TEXTS.aPageOfYourOwn}, {moment(line.at)}
              </span>
            </span>
            <Button big icon={<RotateCcw aria-hidden size={18} />} disabled={back.isPending} aria-label={`${TEXTS.bringBack}: ${line.title}`} onClick={() => back.mutate(line)}>
              {TEXTS.bringBack}
            </Button>
          </li>
        ))}
      </ul>
    </article>
  );
}
