/** Mark, class switcher, where in the term we are, account. */
import { BookOpenText, CalendarDays, Check, ChevronDown, Keyboard, KeyRound, LogOut, Plus, School } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link, useNavigate } from "react-router";
import { patiently } from "../api/patiently";
import { FindStudent } from "./FindStudent";
import { SHOW_KEYS } from "./Keys";
import { Mark } from "./Mark";
import { NewsBell } from "./NewsBell";
import { landing, may } from "../api/session";
import type { Group, Session } from "../api/session";
import { OnFirstUse } from "../ui/OnFirstUse";
import { ROLES, TEXTS } from "./texts";

const ReadingDialog = lazy(() => patiently(() => import("./ReadingDialog")).then((view) => ({ default: view.ReadingDialog })));

const AccountDialog = lazy(() => patiently(() => import("./AccountDialog")).then((view) => ({ default: view.AccountDialog })));
const leaveDialog = () => patiently(() => import("./LeaveDialog"));
const LeaveDialog = lazy(() => leaveDialog().then((view) => ({ default: view.LeaveDialog })));
const FeedDialog = lazy(() => patiently(() => import("./FeedDialog")).then((view) => ({ default: view.FeedDialog })));

export function TopBar({ session, group }: { session: Session; group: Group | null }) {
  return (
    <header className="on-bar flex min-h-12 shrink-0 items-center max-sm:flex-wrap gap-3 bg-bar px-3 text-bar-ink sm:gap-4 sm:px-5">
      <Link to="/" className="flex shrink-0 items-center gap-2 text-base font-bold">
        <Mark />
        <span className="whitespace-nowrap max-sm:sr-only">{TEXTS.name}</span>
      </Link>
      <ClassSwitcher groups={session.groups} group={group} staff={session.person?.staff ?? false} />
      {session.term && (
        <span className="min-w-0 flex-1 truncate text-bar-text max-lg:hidden">
          {session.term.name}
          {session.term.week && TEXTS.weekWeekOfWeeks({ week: session.term.week, weeks: session.term.weeks })}
        </span>
      )}
      {may(group, "see_board") && group && <FindStudent groupId={group.id} />}
      <div className={`flex items-center gap-1 ${may(group, "see_board") ? "max-sm:ml-auto" : "ml-auto"}`}>
        <NewsBell />
        <Account session={session} />
      </div>
    </header>
  );
}

/** What stands for starting a class among the classes. */
const START = "start";

function ClassSwitcher({ groups, group, staff }: { groups: Group[]; group: Group | null; staff: boolean }) {
  const navigate = useNavigate();
  const open = groups.filter((one) => landing(one) !== "/" && (!one.put_away || one.id === group?.id));
  if (open.length === 0) return null;
  if (open.length === 1 && group && !staff) {
    return <span className="min-w-0 truncate font-semibold">{group.name}</span>;
  }
  return (
    <OnFirstUse
      kind="Choices"
      face={{
        label: group ? TEXTS.chooseClassNow({ name: group.name }) : TEXTS.chooseClass,
        className: "flex min-h-8 min-w-0 items-center gap-2 rounded-md bg-bar-soft px-3 font-semibold",
        content: (
          <>
            <span className="truncate">{group?.name ?? TEXTS.chooseClass}</span>
            <ChevronDown aria-hidden size={16} className="shrink-0" />
          </>
        ),
      }}
      value={String(group?.id ?? "")}
      options={optionsOf(open, group, staff)}
      onChange={(id) => {
        if (id === START) void navigate("/start");
        const chosen = open.find((one) => String(one.id) === id);
        if (chosen) void navigate(landing(chosen));
      }}
    />
  );
}

/** The classes; for staff, starting one behind them. */
function optionsOf(open: Group[], group: Group | null, staff: boolean) {
  return [
    ...open.map((one) => ({
      value: String(one.id),
      shown: (
        <>
          <Check aria-hidden size={16} className={one.id === group?.id ? "text-copper" : "invisible"} />
          <span className="font-semibold">{one.name}</span>
          <span className="ml-auto pl-6 text-quiet">{ROLES[one.role]}</span>
        </>
      ),
    })),
    ...(staff
      ? [
          {
            value: START,
            shown: (
              <>
                <Plus aria-hidden size={16} />
                <span className="font-semibold">{TEXTS.newClass}</span>
              </>
            ),
          },
        ]
      : []),
  ];
}

const ITEM = "flex min-h-11 w-full items-center gap-2 px-4 text-left data-focus:bg-today";

function Account({ session }: { session: Session }) {
  const [feeding, setFeeding] = useState(false);
  const [reading, setReading] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const [account, setAccount] = useState(false);
  if (!session.person) return null;
  const lines = [
    ...(session.person.card
      ? []
      : ([
          [TEXTS.howILike, BookOpenText, setReading],
          [TEXTS.feed, CalendarDays, setFeeding],
          [TEXTS.account, KeyRound, setAccount],
        ] as const)),
  ];
  return (
    <>
    {reading && (
      <Suspense>
        <ReadingDialog onClose={() => setReading(false)} />
      </Suspense>
    )}
    {leaving && (
      <Suspense>
        <LeaveDialog person={session.person} onClose={() => setLeaving(false)} />
      </Suspense>
    )}
    {account && (
      <Suspense>
        <AccountDialog onClose={() => setAccount(false)} />
      </Suspense>
    )}
    {feeding && (
      <Suspense>
        <FeedDialog onClose={() => setFeeding(false)} />
      </Suspense>
    )}
    <OnFirstUse
      kind="Actions"
      face={{
        label: TEXTS.initialsAccountOfFullName({ initials: session.person.initials, full_name: session.person.full_name }),
        className: "flex size-9 items-center justify-center rounded-full bg-brass text-sm font-bold text-brass-ink",
        content: session.person.initials,
        // Signing out must say how it went, also when the connection is lost by then.
        onNear: () => void leaveDialog(),
      }}
      anchor="bottom end"
      className="mt-1 min-w-52 py-1"
      head={
        <div className="border-b border-line px-4 py-2">
          <p className="font-semibold">{session.person.full_name}</p>
          <p className="text-quiet">{session.school}</p>
        </div>
      }
      items={[
        ...lines.map(([title, Icon, open]) => (
          <button key={title} type="button" className={ITEM} onClick={() => open(true)}>
            <Icon aria-hidden size={16} />
            {title}
          </button>
        )),
        ...(session.person.staff
          ? [
              <Link key="start" to="/start" className={ITEM}>
                <Plus aria-hidden size={16} />
                {TEXTS.newClass}
              </Link>,
            ]
          : []),
        ...(session.person.administrator
          ? [
              <Link key="school" to="/school" className={ITEM}>
                <School aria-hidden size={16} />
                {TEXTS.school}
              </Link>,
            ]
          : []),
        <button key="keys" type="button" className={ITEM} onClick={() => document.dispatchEvent(new Event(SHOW_KEYS))}>
          <Keyboard aria-hidden size={16} />
          {TEXTS.keys}
        </button>,
        <button key="out" type="button" className={ITEM} onClick={() => setLeaving(true)}>
          <LogOut aria-hidden size={16} />
          {TEXTS.signOut}
        </button>,
      ]}
    />
    </>
  );
}
