/** What was given out in a class, beside what is asked: how far how many have come, and each by name. */
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { ReactNode } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schema } from "../api/client";
import { may, useGroup } from "../api/session";
import { Button } from "../ui/Button";
import { moment } from "../ui/dates";
import { CopyLines } from "./CopyLines";
import { givenQuery, givenToQuery } from "./queries";
import { useTakeBack } from "./takingBack";
import { GIVING } from "./texts";
import { FAR, GIVEN } from "./farTexts";

/** Where it lies, whose it is, and when it was given out or is to be. */
function lineOf(one: Schema["GivenLine"]): string {
  const places = [...one.periods, ...one.groups].join(", ");
  const to = one.whole ? GIVING.to.whole : places ? GIVING.toSome({ places }) : GIVING.to.students;
  const said = { pocket: one.pocket.title, to, who: one.who };
  const line = one.waits_for ? GIVING.waitsLine({ ...said, at: moment(one.waits_for) }) : GIVING.line({ ...said, at: moment(one.at) });
  return one.versions.length > 0 ? [line, GIVING.inVersions({ titles: one.versions.join(", ") })].join(" · ") : line;
}

export function GivenPart({ groupId }: { groupId: number }) {
  const group = useGroup();
  const given = useQuery({ ...givenQuery(groupId), enabled: may(group, "see_copies") });
  const takeBack = useTakeBack(groupId);
  const [address] = useSearchParams();
  const shown = Number(address.get("given"));
  if (!given.data?.length) return null;
  return (
    <section aria-labelledby="given-out" className="rounded-md border border-edge bg-paper">
      <h2 id="given-out" className="border-b border-line px-4 py-2 text-base">
        {GIVING.part}
      </h2>
      <ul className="divide-y divide-line">
        {given.data.map((one) => (
          <Line key={one.id} shown={one.id === shown}>
            <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
              <div className="min-w-48 flex-1">
                <p className="font-semibold break-words">{one.item.title}</p>
                <p className="text-sm break-words text-quiet">
                  {lineOf(one)}
                </p>
              </div>
              <p className="figures text-sm text-ink-soft">
                {one.taken_back_at && `${GIVING.wasTakenBack({ at: moment(one.taken_back_at) })} · `}
                {FAR.filter((far) => one[far] > 0)
                  .map((far) => GIVEN.count({ what: GIVEN.progress[far], count: one[far] }))
                  .join(" · ")}
              </p>
              <Link to={`/g/${groupId}/look/${one.pocket.id}`} aria-label={GIVING.lookInOf(one.pocket)} className="inline-flex min-h-8 items-center rounded-md border border-edge bg-paper px-3 text-sm font-semibold hover:border-control">
                {GIVING.lookIn}
              </Link>
              {may(group, "give_out") && !one.taken_back_at && (
                <Button aria-label={one.waits_for ? GIVING.notGive(one.item) : GIVING.takeBack(one.item)} onClick={() => takeBack(one.id)}>
                  {one.waits_for ? GIVING.notAfterAll : GIVING.takeBackShort}
                </Button>
              )}
            </div>
            <ByName groupId={groupId} given={one.id} title={one.item.title} versions={one.versions.length > 0} />
          </Line>
        ))}
      </ul>
    </section>
  );
}

/** A line; the one that the address names is gone to. */
function Line({ shown, children }: { shown: boolean; children: ReactNode }) {
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (!shown) return;
    line.current?.scrollIntoView({ block: "center" });
    line.current?.focus({ preventScroll: true });
  }, [shown]);
  return (
    <li ref={line} tabIndex={shown ? -1 : undefined} className={`px-4 py-2 ${shown ? "bg-today" : ""}`}>
      {children}
    </li>
  );
}

function ByName({ groupId, given, title, versions }: { groupId: number; given: number; title: string; versions: boolean }) {
  const [open, setOpen] = useState(false);
  const lines = useQuery({ ...givenToQuery(groupId, given), enabled: open });
  return (
    <details open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-8 cursor-pointer py-1 text-sm text-in">{GIVING.byName({ title })}</summary>
      {lines.data && <CopyLines lines={lines.data} groupId={groupId} label={GIVING.byName({ title })} versions={versions} />}
    </details>
  );
}
