/** Who will get a hand-in and when, or what a change of it means, by the server's own rules. */
import { useQuery } from "@tanstack/react-query";
import { client, data as answer } from "../api/client";
import type { Schema } from "../api/client";
import { Problem } from "../api/problem";
import { loadQuery } from "../api/queries";
import { isDay } from "../ui/days/parseDay";
import { day, due, mondayOf } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { useSettled } from "../ui/useSettled";
import { planOf } from "./plan";
import type { Fields } from "./plan";
import { IMPACT, SERIES, TEXTS, WHOM } from "./texts";

type Impact = Schema["HandInImpact"];
type Meant = { preview: Schema["PreviewShape"]; impact: Impact | null };

/** What has to be filled in before it can be said who gets it; null where nothing is missing. */
function missingOf({ whom, groups, students, title, pockets, anything, opens }: Schema["PlanIn"]): string | null {
  const picked = whom === "groups" ? groups : students;
  if (whom !== "all" && !picked?.length) return WHOM.chooseFirst;
  return (pockets.length > 0 || anything) && title.trim() !== "" && opens !== "" ? null : TEXTS.giveItATitleAnd;
}

/** ``changing`` is the hand-in that is changed; null for a new one. */
export function WhoGetsIt({ fields, groupId, changing }: { fields: Fields; groupId: number; changing: number | null }) {
  const asked = useSettled(planOf(fields));
  const missing = missingOf(asked);
  const ready = missing === null;
  const preview = useQuery({
    queryKey: ["group", groupId, "preview", changing, asked],
    enabled: ready,
    placeholderData: (old: Meant | undefined) => old,
    queryFn: async (): Promise<Meant> => {
      if (changing === null) {
        const path = { params: { path: { group_id: groupId } } };
        return { preview: await answer(client.POST("/api/groups/{group_id}/handins/preview", { ...path, body: asked })), impact: null };
      }
      const path = { params: { path: { group_id: groupId, handin_id: changing } } };
      const impact = await answer(client.POST("/api/groups/{group_id}/handins/{handin_id}/preview", { ...path, body: asked }));
      return { preview: impact.preview, impact };
    },
  });
  if (missing) return <p className="text-quiet">{missing}</p>;
  if (preview.error instanceof Problem) return <Notice title={preview.error.title} fix={preview.error.fix} />;
  if (!preview.data) return null;
  return (
    <section aria-label={TEXTS.whoWillGetIt} aria-live="polite" className="rounded-md bg-in-soft p-3">
      {preview.data.impact && <Means impact={preview.data.impact} />}
      <Gets preview={preview.data.preview} />
      <Load day={fields.day} groupId={groupId} />
    </section>
  );
}

/** How full the week of the due date is for these students already, over all their classes. */
function Load({ day: on, groupId }: { day: string; groupId: number }) {
  const load = useQuery(loadQuery(groupId));
  const week = isDay(on) ? load.data?.weeks.find((one) => one.monday === mondayOf(on)) : undefined;
  if (!week || !load.data) return null;
  return <p className={`mt-1 ${week.heavy > 0 ? "text-copper" : "text-ink-soft"}`}>{IMPACT.load({ most: week.most, heavy: week.heavy, limit: load.data.limit })}</p>;
}

/** What a change means, a line for each thing that moves. */
export function meant({ moves, added, removed, scored, judged }: Impact): string[] {
  const lines = [
    [moves.newly_asked, IMPACT.newlyAsked],
    [moves.no_longer_asked, IMPACT.noLongerAsked],
    [moves.dues_moved, IMPACT.duesMoved],
    [moves.no_longer_overdue, IMPACT.noLongerOverdue],
    [moves.now_overdue, IMPACT.nowOverdue],
    [moves.no_longer_late, IMPACT.noLongerLate],
    [moves.now_late, IMPACT.nowLate],
  ] as const;
  return [
    ...lines.filter(([count]) => count > 0).map(([count, words]) => words({ count })),
    ...(added.length > 0 && moves.kept > 0 ? [IMPACT.added({ pockets: added.join(", "), count: moves.kept })] : []),
    ...(removed.length > 0 ? [IMPACT.removed({ pockets: removed.join(", ") })] : []),
    ...(scored > 0 ? [IMPACT.scored({ count: scored })] : []),
    ...(judged.open.length > 0 ? [IMPACT.draftsOpen(some(judged.open))] : []),
    ...(judged.moves.length > 0 ? [IMPACT.draftsMove(some(judged.moves))] : []),
    ...(judged.released.length > 0 ? [IMPACT.releasedOther(some(judged.released))] : []),
  ];
}

const NAMED = 5;

/** So many, the first of them by name. */
function some(names: string[]): { count: number; names: string; more: number } {
  return { count: names.length, names: names.slice(0, NAMED).join("; "), more: Math.max(0, names.length - NAMED) };
}

function Means({ impact }: { impact: Impact }) {
  const lines = meant(impact);
  return (
    <div className="mb-2 border-b border-line pb-2">
      {lines.length === 0 ? <p>{IMPACT.nothingMoves}</p> : <ul className="list-disc pl-5 font-semibold">{lines.map((line) => <li key={line}>{line}</li>)}</ul>}
      {impact.moves.kept > 0 && <p className="mt-1">{IMPACT.kept({ count: impact.moves.kept })}</p>}
      {impact.own_earlier.length > 0 && (
        <p className="mt-1 text-overdue">{IMPACT.ownEarlier({ count: impact.own_earlier.length, names: impact.own_earlier.map((one) => IMPACT.ownDate({ name: one.name, day: day(one.day) })).join("; ") })}</p>
      )}
    </div>
  );
}

function Gets({ preview }: { preview: Schema["PreviewShape"] }) {
  const { asked: number, not_asked, dues, moved, without_due, warnings, series } = preview;
  return (
    <>
      <p className="font-bold">
        {TEXTS.studentsWillBeAsked({ number, not_asked, not_askedIs: not_asked > 0 })}
      </p>
      {series.length > 0 && (
        <details className="mb-2" open>
          <summary className="font-semibold">{SERIES.days({ count: series.length })}</summary>
          <ol className="mt-1">
            {series.map((one) => (
              <li key={one.number} className="figures flex flex-wrap justify-between gap-x-3">
                <span>{day(one.due)}</span>
                {one.moved && <span className="text-copper">{SERIES.moved}</span>}
              </li>
            ))}
          </ol>
        </details>
      )}
      <ul>
        {dues.map((line) => (
          <li key={`${line.day ?? ""} ${line.at ?? ""}`} className="figures flex justify-between gap-3">
            <span>{line.day ? due(line.day, line.at) : TEXTS.noDueDate}</span>
            <span>{line.students}</span>
          </li>
        ))}
      </ul>
      {moved.length > 0 && (
        <details className="mt-2">
          <summary className="font-semibold">{TEXTS.studentsWithExtraDays({ count: moved.length })}</summary>
          <ul>
            {moved.map((one) => (
              <li key={one.name}>
                {TEXTS.nameDaySchoolDaysAdded({ name: one.name, day: day(one.day), extra_days: one.extra_days })}
              </li>
            ))}
          </ul>
        </details>
      )}
      {without_due.length > 0 && <p className="mt-2 text-overdue">{TEXTS.inNoPeriodSoWithout({ without_due: without_due.join("; ") })}</p>}
      {warnings.map((warning) => (
        <p key={warning} className="mt-2 rounded-sm bg-today p-2">
          {warning}
        </p>
      ))}
    </>
  );
}
