/** How the totals are made: said in a line, changed in its place, with what it would do said before. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Scale } from "lucide-react";
import { useState } from "react";
import { client, data } from "../api/client";
import { hold } from "../api/hold";
import { Problem } from "../api/problem";
import { Button } from "../ui/Button";
import { useSay } from "../ui/Toasts";
import { movedBy, ruleOf, sheetQuery, typedOf } from "./sheet";
import type { Rule, Sheet, Typed } from "./sheet";
import { SHEET } from "./sheetTexts";

interface Props {
  groupId: number;
  sheet: Sheet;
  tried: Sheet | undefined;
  problem: Error | null;
  typed: Typed | null;
  onType: (typed: Typed | null) => void;
  /** Null where one may only read. */
  onWeigh: (() => void) | null;
}

export function SheetRule({ groupId, sheet, tried, problem, typed, onType, onWeigh }: Props) {
  return (
    <div className="flex min-h-12 flex-wrap items-center gap-x-4 gap-y-2 border-b border-edge bg-ground px-4 py-2">
      <h2 className="font-bold">{SHEET.title}</h2>
      {typed ? (
        <Weighing groupId={groupId} sheet={sheet} tried={tried} problem={problem} typed={typed} onType={onType} />
      ) : (
        <>
          <p className="text-ink-soft">{ruleWords(sheet)}</p>
          {onWeigh && (
            <Button className="ml-auto" icon={<Scale aria-hidden size={15} />} onClick={onWeigh}>
              {SHEET.weigh}
            </Button>
          )}
        </>
      )}
    </div>
  );
}

function ruleWords(sheet: Sheet): string {
  const own = sheet.handins.some((one) => one.own_weight);
  const best = typeof sheet.best === "number" ? SHEET.best({ best: sheet.best }) : "";
  const left = sheet.missing_is_zero ? `${SHEET.missingIsZero} ${SHEET.notMarkedLeftOut}` : SHEET.missingLeftOut;
  return [own ? SHEET.byWeights : SHEET.byPoints, best, left].filter(Boolean).join(" ");
}

type WeighingProps = Omit<Props, "onWeigh" | "typed"> & { typed: Typed };

function Weighing({ groupId, sheet, tried, problem, typed, onType }: WeighingProps) {
  const { keep, wrong } = useKeeping(groupId, sheet, typed, () => onType(null));
  const told = wrong ?? (problem instanceof Problem ? problem : null);
  return (
    <form
      className="contents"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <label className="flex items-center gap-2">
        {SHEET.bestOf}
        <input inputMode="numeric" autoComplete="off" value={typed.best} onChange={(event) => onType({ ...typed, best: event.target.value })} className="figures min-h-8 w-14 rounded-md border border-control bg-paper px-2 text-center" />
      </label>
      <label className="flex min-h-8 items-center gap-2">
        <input type="checkbox" className="size-4 accent-ink" checked={typed.missing_is_zero} onChange={(event) => onType({ ...typed, missing_is_zero: event.target.checked })} />
        {SHEET.zero}
      </label>
      <p role="status" className={`figures ${told ? "font-semibold text-overdue" : "text-ink-soft"}`}>
        {told ? `${told.title} ${told.fix}` : tried && SHEET.moves(movedBy(sheet, tried))}
      </p>
      <span className="ml-auto flex gap-2">
        <Button onClick={() => onType(null)}>{SHEET.cancel}</Button>
        <Button look="main" type="submit">
          {SHEET.keep}
        </Button>
      </span>
    </form>
  );
}

/** Keeping the weights, with an undo. */
function useKeeping(groupId: number, sheet: Sheet, typed: Typed, onKept: () => void) {
  const queries = useQueryClient();
  const say = useSay();
  // That of when the weighing began, or of what was told since: news that come by themselves are nothing one has seen.
  const [version, setVersion] = useState(sheet.version);
  const put = (rule: Rule, seen: number) => data(client.PUT("/api/groups/{group_id}/sheet", { params: { path: { group_id: groupId } }, body: { ...rule, version: seen } }));
  const show = (now: Sheet) => hold(queries, sheetQuery(groupId).queryKey, now);
  const back = useMutation({
    mutationFn: ({ rule, version }: { rule: Rule; version: number }) => put(rule, version),
    onSuccess: async (now) => {
      await show(now);
      say(SHEET.back);
    },
    onError: (error) => {
      if (error instanceof Problem) say(`${error.title} ${error.fix}`);
    },
  });
  const change = useMutation({
    mutationFn: async (tried: Typed) => put(ruleOf(tried), version),
    onSuccess: async (now) => {
      const before = ruleOf(typedOf(sheet));
      await show(now);
      say(SHEET.kept, () => back.mutate({ rule: before, version: now.version }));
      onKept();
    },
    onError: async (error) => {
      if (!(error instanceof Problem && error.kind === "stale")) return;
      await queries.invalidateQueries({ queryKey: sheetQuery(groupId).queryKey, exact: true });
      setVersion(queries.getQueryData(sheetQuery(groupId).queryKey)?.version ?? version);
    },
  });
  return {
    keep: () => (change.isPending ? undefined : change.mutate(typed)),
    // Of what was tried to keep; once something else is typed it says nothing any more.
    wrong: change.error instanceof Problem && change.variables === typed ? change.error : null,
  };
}
