/** A student says that they have read what came back; staff see it beside the mark. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Check } from "lucide-react";
import { client, data } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { feedbackQuery } from "../api/queries";
import { may, useGroup } from "../api/session";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { useSay } from "../ui/Toasts";
import { READ } from "./readTexts";

interface Props {
  line: Schema["FeedbackLine"];
  groupId: number;
  portfolio: number;
}

export function HaveRead({ line, groupId, portfolio }: Props) {
  const queries = useQueryClient();
  const say = useSay();
  const mine = may(useGroup(), "hand_in");
  const key = feedbackQuery(groupId, portfolio).queryKey;
  const read = useMutation({
    mutationFn: () => data(client.POST("/api/submissions/{submission_id}/read", { params: { path: { submission_id: line.submission } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: key }),
    onError: (error) => {
      if (error instanceof Problem) say(`${error.title} ${error.fix}`);
      void queries.invalidateQueries({ queryKey: key });
    },
  });
  if (line.read_at) {
    return (
      <p role="status" className="mt-2 flex items-center gap-2 text-ink-soft">
        <Check aria-hidden size={16} className="shrink-0 text-accepted" />
        {READ.mine({ at: moment(line.read_at) })}
      </p>
    );
  }
  if (!mine) return null;
  return (
    <Button big className="mt-2" disabled={read.isPending} onClick={() => read.mutate()}>
      {READ.say}
    </Button>
  );
}

/** The same as staff see it. */
export function IsRead({ line, name }: { line: Schema["OutcomeShape"]; name: string }) {
  if (line.voided_at) return null;
  return <p className="mt-2 text-sm text-ink-soft">{line.read_at ? READ.theirs({ name, at: moment(line.read_at) }) : READ.notYet({ name })}</p>;
}
