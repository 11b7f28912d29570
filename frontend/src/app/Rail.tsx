/** The rail: the weeks of the term on a plank, each hand-in hanging at its due week, what was given out beside it. */
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useRef } from "react";
import type { ButtonHTMLAttributes, KeyboardEvent, ReactNode } from "react";
import type { Schema } from "../api/client";
import { patiently } from "../api/patiently";
import { loadQuery } from "../api/queries";
import { may, useGroup, useGroupId } from "../api/session";
import { useItemDrop } from "../cupboard/dragging";
import { useOpenFrom } from "../cupboard/openFrom";
import { mondayOf, shortDay } from "../ui/dates";
import { OnFirstUse } from "../ui/OnFirstUse";
import { TEXTS } from "./texts";

const GivenInWeek = lazy(() => patiently(() => import("../cupboard/GivenInWeek")).then((view) => ({ default: view.GivenInWeek })));

type Column = Schema["ColumnShape"];
type Frame = Pick<Schema["BoardShape"], "weeks" | "handins" | "today">;

interface Props {
  frame: Frame;
  selected: number | null;
  onSelect: (handin: number | null) => void;
}

export function Rail({ frame, selected, onSelect }: Props) {
  const list = useRef<HTMLOListElement>(null);
  const hanging = new Map<string, Column[]>();
  for (const handin of frame.handins) {
    if (!handin.due) continue;
    const monday = mondayOf(handin.due);
    hanging.set(monday, [...(hanging.get(monday) ?? []), handin]);
  }
  const never = frame.handins.filter((one) => !one.due);
  const walk = (event: KeyboardEvent) => {
    const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (!step || !list.current) return;
    const tags = [...list.current.querySelectorAll<HTMLButtonElement>("button[data-tag]")];
    const at = tags.indexOf(document.activeElement as HTMLButtonElement);
    const next = tags[at + step];
    if (at < 0 || !next) return;
    event.preventDefault();
    next.focus();
  };
  const thisWeek = mondayOf(frame.today);
  const full = useFullWeeks();
  const group = useGroup();
  const given = may(group, "see_copies");
  return (
    <section aria-label={TEXTS.theTermSWeeksAnd} tabIndex={frame.handins.length === 0 ? 0 : undefined} className="shrink-0 overflow-x-auto border-b border-line bg-paper px-5 print:hidden">
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- arrow keys walk between the buttons inside */}
      <ol ref={list} onKeyDown={walk} className="relative flex min-w-[72rem]">
        <li aria-hidden className="plank absolute inset-x-0 top-[22px] h-3 rounded-sm" />
        {frame.weeks.map((week) => {
          const now = week.monday === thisWeek;
          return (
            <Week key={week.number} monday={week.monday} className={`relative min-w-0 flex-1 px-0.5 pb-2 text-center ${now ? "bg-today" : ""} ${week.school_days ? "" : "hatched"}`}>
              <span className={`figures relative mx-auto block h-[22px] w-fit px-1 pt-0.5 text-xs leading-5 ${now ? "bg-today" : "bg-paper"} ${now ? "font-bold text-ink" : "text-quiet"}`}>
                <span className="sr-only">
                  {TEXTS.weekNumber({ number: week.number, school_daysIs: Boolean(week.school_days), nowIs: now })}{" "}
                </span>
                {shortDay(week.monday)}
              </span>
              <span aria-hidden className="relative mx-auto block size-3 rounded-full bg-peg" />
              <Hanging handins={hanging.get(week.monday) ?? []} selected={selected} onSelect={onSelect} />
              {given && group && (
                <Suspense fallback={null}>
                  <GivenInWeek groupId={group.id} monday={week.monday} free={!hanging.has(week.monday)} />
                </Suspense>
              )}
              <Full words={full.get(week.monday)} />
            </Week>
          );
        })}
        {never.length > 0 && (
          <li className="relative min-w-0 flex-1 px-0.5 pb-2 text-center">
            <span className="relative mx-auto block h-[22px] w-fit bg-paper px-1 pt-0.5 text-xs leading-5 text-quiet">{TEXTS.noDueDate}</span>
            <span aria-hidden className="relative mx-auto block size-3 rounded-full bg-peg" />
            <Hanging handins={never} selected={selected} onSelect={onSelect} />
          </li>
        )}
      </ol>
    </section>
  );
}

/** A week; what is dragged out of the cupboard onto it is shown to students from its first day on. */
function Week({ monday, className, children }: { monday: string; className: string; children: ReactNode }) {
  const group = useGroup();
  const openFrom = useOpenFrom(group?.id ?? 0);
  const { over, place } = useItemDrop(may(group, "keep_cupboard") ? (item) => void openFrom(item, monday) : null);
  return (
    <li {...place} className={`${className} ${over ? "outline-3 -outline-offset-3 outline-in" : ""}`}>
      {children}
    </li>
  );
}

/** The weeks in which too much falls together for some students, over all their classes, each in words. */
function useFullWeeks(): Map<string, string> {
  const group = useGroup();
  const load = useQuery({ ...loadQuery(useGroupId()), enabled: may(group, "see_handins") });
  const weeks = load.data?.weeks.filter((one) => one.heavy > 0) ?? [];
  return new Map(weeks.map((one) => [one.monday, TEXTS.fullWeek({ students: one.heavy, limit: load.data?.limit ?? 0 })]));
}

/** The band that marks a week as too full. */
function Full({ words }: { words: string | undefined }) {
  if (!words) return null;
  return (
    <span title={words} className="absolute inset-x-1 bottom-0.5 h-1 rounded-sm bg-copper">
      <span className="sr-only">{words}</span>
    </span>
  );
}

function Hanging({ handins, selected, onSelect }: { handins: Column[] } & Omit<Props, "frame">) {
  const shown = handins.find((one) => one.id === selected) ?? handins[0];
  if (!shown) return <span className="block h-[52px]" />;
  const rest = handins.filter((one) => one !== shown);
  return (
    <>
      <span aria-hidden className="mx-auto block h-2 w-px bg-peg" />
      <div className="relative">
        <Tag handin={shown} chosen={shown.id === selected} onSelect={onSelect} />
        {rest.length > 0 && (
          <OnFirstUse
            kind="Actions"
            face={{
              label: TEXTS.moreHanging({ count: rest.length, due: Boolean(shown.due) }),
              className: "absolute -top-2 -right-0.5 z-10 min-h-6 min-w-6 rounded-full border border-edge bg-ink px-1 text-xs font-bold text-paper",
              content: `+${rest.length}`,
            }}
            anchor="bottom"
            className="flex w-40 flex-col gap-1 p-2"
            items={rest.map((one) => (
              <Tag key={one.id} handin={one} chosen={false} onSelect={onSelect} />
            ))}
          />
        )}
      </div>
    </>
  );
}

interface TagProps extends Omit<ButtonHTMLAttributes<HTMLButtonElement>, "onSelect"> {
  handin: Column;
  chosen: boolean;
  onSelect: Props["onSelect"];
}

function Tag({ handin, chosen, onSelect, onClick, ...rest }: TagProps) {
  const done = handin.asked > 0 && handin.accepted === handin.asked;
  const edge = !handin.open ? "border-t-edge" : done || handin.in === handin.asked ? "border-t-accepted" : "border-t-in";
  const count = handin.open ? TEXTS.inAskedIn({ in: handin.in, asked: handin.asked }) : TEXTS.opensLater;
  return (
    <button
      {...rest}
      type="button"
      data-tag
      aria-pressed={rest.role ? undefined : chosen}
      title={handin.title}
      onClick={(event) => {
        onClick?.(event);
        onSelect(chosen ? null : handin.id);
      }}
      className={`w-full rounded-md border border-t-3 px-1.5 py-0.5 text-left text-xs leading-4 ${
        chosen ? "border-copper bg-today outline-1 outline-copper" : `border-edge bg-paper hover:border-control ${edge}`
      }`}
    >
      <span className="block truncate font-bold">{handin.title}</span>
      <span className="figures block break-words text-quiet">{count}</span>
    </button>
  );
}
