/** What was given out in a week of the rail: each leads to its line among the hand-ins. */
import { useQuery } from "@tanstack/react-query";
import { CopyCheck } from "lucide-react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { localDay, mondayOf } from "../ui/dates";
import { OnFirstUse } from "../ui/OnFirstUse";
import { givenQuery } from "./queries";
import { FAR, GIVEN } from "./farTexts";

type Given = Schema["GivenLine"];

export function GivenInWeek({ groupId, monday }: { groupId: number; monday: string }) {
  const given = useQuery(givenQuery(groupId));
  const here = (given.data ?? []).filter((one) => !one.taken_back_at && mondayOf(localDay(one.waits_for ?? one.at)) === monday);
  const [first, ...rest] = here;
  if (!first) return null;
  return (
    <div className="relative mt-1">
      <GivenTag given={first} groupId={groupId} />
      {rest.length > 0 && (
        <OnFirstUse
          kind="Actions"
          face={{
            label: GIVEN.more({ count: rest.length }),
            className: "absolute -top-1.5 -right-0.5 z-10 min-h-6 min-w-6 rounded-full border border-edge bg-paper px-1 text-xs font-bold",
            content: `+${rest.length}`,
          }}
          anchor="bottom"
          className="flex w-40 flex-col gap-1 p-2"
          items={rest.map((one) => (
            <GivenTag key={one.id} given={one} groupId={groupId} />
          ))}
        />
      )}
    </div>
  );
}

function GivenTag({ given, groupId, ...rest }: { given: Given; groupId: number }) {
  const far = given.waits_for ? GIVEN.toCome : FAR.filter((one) => given[one] > 0).map((one) => GIVEN.count({ what: GIVEN.progress[one], count: given[one] })).join(" · ");
  const words = GIVEN.onRail({ title: given.item.title, far });
  return (
    <Link {...rest} to={`/g/${groupId}/hand-ins?given=${given.id}`} aria-label={words} title={words} className="flex min-h-6 items-center gap-1 rounded-md border border-dashed border-edge bg-paper px-1.5 text-left text-xs leading-4 hover:border-control">
      <CopyCheck aria-hidden size={12} className="shrink-0 text-ink-soft" />
      <span className="truncate">{given.item.title}</span>
    </Link>
  );
}
