/** What is said on the work that lies in a pocket, where its student mends it. */
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { annotationsOnWorkQuery } from "../../api/queries";
import { SaidContext } from "./said";
import type { Annotation, Said } from "./said";
import { SaidCard } from "./SaidCard";
import { SAID } from "./saidTexts";

interface Props {
  groupId: number;
  portfolio: number;
  pocket: number;
  /** Whether this is the student's own work. */
  mends: boolean;
}

const nothing = () => undefined;

export function OnTheWork({ groupId, portfolio, pocket, mends }: Props) {
  const found = useQuery(annotationsOnWorkQuery(groupId, portfolio));
  const here = (found.data ?? []).filter((one) => one.target.pocket === pocket && (one.kind !== "highlight" || one.text));
  const mendable = here.filter((one) => one.kind === "comment" || one.kind === "suggestion");
  const open = mendable.filter((one) => one.done_at === null && one.choice === "" && one.settled_at === null).length;
  if (here.length === 0) return null;
  return (
    <section aria-label={SAID.toMend} className="flex flex-col gap-2 rounded-lg border border-edge bg-in-soft p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-lg">{SAID.toMend}</h2>
        {here.some((one) => one.target.spot ?? one.kind === "ink") && (
          <Link to={`/g/${groupId}/portfolio/${portfolio}/submission/${here.at(-1)?.submission ?? ""}`} className="inline-flex min-h-8 items-center font-semibold text-in underline">
            {SAID.seeOnWork}
          </Link>
        )}
      </div>
      {mends && mendable.length > 0 && (
        <p role="status" className="text-quiet">
          {SAID.openCount({ open, count: mendable.length })}
        </p>
      )}
      <ol className="flex flex-col gap-2">
        {here.map((one) => (
          <One key={one.id} one={one} groupId={groupId} mends={mends} />
        ))}
      </ol>
    </section>
  );
}

function One({ one, groupId, mends }: { one: Annotation; groupId: number; mends: boolean }) {
  const said: Said = { submission: one.submission, groupId, list: [one], writes: false, criteria: [], mends, active: null, choose: nothing, tool: "look", setTool: nothing, colour: "rust", setColour: nothing, composing: null, compose: nothing, undoable: nothing, undo: nothing };
  return (
    <SaidContext value={said}>
      <SaidCard said={said} one={one} number={undefined} />
    </SaidContext>
  );
}
