/** What was given out in a week of the rail: each leads to its line among the hand-ins. */
import { useQuery } from "@tanstack/react-query";
import { CopyCheck } from "lucide-react";
import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { localDay, mondayOf } from "../ui/dates";
import { OnFirstUse } from "../ui/OnFirstUse";
import { givenQuery } from "./queries";
import { FAR, GIVEN } from "./farTexts";

type Given = Schema["GivenLine"];

interface Props {
  groupId: number;
  monday: string;
  /** No hand-in hangs in this week: there is room for a title. */
  free: boolean;
}

/** It comes after the rail stands, and takes no room of its own: nothing moves when it does. */
export function GivenInWeek({ groupId, monday, free }: Props) {
  const given = useQuery(givenQuery(groupId));
  const here = (given.data ?? []).filter((one) => !one.taken_back_at && mondayOf(localDay(one.waits_for ?? one.at)) === monday);
  const [first, ...rest] = here;
  if (!first) return null;
  if (free) {
    return (
      <div className="absolute inset-x-0.5 top-[42px] flex gap-0.5">
        <GivenTag given={first} groupId={groupId} />
        {rest.length > 0 && <More label={GIVEN.more({ count: rest.length })} content={`+${rest.length}`} given={rest} groupId={groupId} />}
      </div>
    );
  }
  return (
    <div className="absolute top-4 left-0.5">
      {rest.length === 0 ? (
        <GivenChip given={first} groupId={groupId} />
      ) : (
        <More
          label={GIVEN.all({ count: here.length })}
          content={
            <>
              <CopyCheck aria-hidden size={12} />
              {here.length}
            </>
          }
          given={here}
          groupId={groupId}
        />
      )}
    </div>
  );
}

const CHIP = "flex min-h-6 min-w-6 shrink-0 items-center justify-center gap-1 rounded-full border border-edge bg-paper px-1.5 text-xs font-bold text-ink-soft hover:border-control";

/** Several, behind how many they are. */
function More({ label, content, given, groupId }: { label: string; content: ReactNode; given: Given[]; groupId: number }) {
  return (
    <OnFirstUse
      kind="Actions"
      face={{ label, className: CHIP, content }}
      anchor="bottom"
      className="flex w-56 flex-col gap-1 p-2"
      items={given.map((one) => (
        <GivenTag key={one.id} given={one} groupId={groupId} />
      ))}
    />
  );
}

/** What it is and how far they are, in words. */
function wordsOf(given: Given): string {
  const far = given.waits_for ? GIVEN.toCome : FAR.filter((one) => given[one] > 0).map((one) => GIVEN.count({ what: GIVEN.progress[one], count: given[one] })).join(" · ");
  return GIVEN.onRail({ title: given.item.title, far });
}

function lineOf(groupId: number, given: Given): string {
  return `/g/${groupId}/hand-ins?given=${given.id}`;
}

/** One, on the plank beside the hand-in's string: what it is, is said when somebody comes near. */
function GivenChip({ given, groupId }: { given: Given; groupId: number }) {
  return (
    <Link to={lineOf(groupId, given)} aria-label={wordsOf(given)} title={wordsOf(given)} className={CHIP}>
      <CopyCheck aria-hidden size={12} />
    </Link>
  );
}

function GivenTag({ given, groupId, ...rest }: { given: Given; groupId: number }) {
  return (
    <Link {...rest} to={lineOf(groupId, given)} aria-label={wordsOf(given)} title={wordsOf(given)} className="flex min-h-6 min-w-0 flex-1 items-center gap-1 rounded-md border border-dashed border-edge bg-paper px-1.5 text-left text-xs leading-4 hover:border-control">
      <CopyCheck aria-hidden size={12} className="shrink-0 text-ink-soft" />
      <span className="truncate">{given.item.title}</span>
    </Link>
  );
}
