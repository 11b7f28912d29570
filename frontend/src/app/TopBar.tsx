/** Mark, class switcher, where in the term we are, account. */
import { Listbox, ListboxButton, ListboxOption, ListboxOptions, Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { useQueryClient } from "@tanstack/react-query";
import { BookOpenText, CalendarDays, Check, ChevronDown, LogOut, Plus, School } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Link, useNavigate } from "react-router";
import { client, data } from "../api/client";
import { sessionQuery } from "../api/queries";
import { FindStudent } from "./FindStudent";
import { Mark } from "./Mark";
import { forgetPeople, landing } from "./session";
import type { Group, Session } from "./session";
import { READING, TEXTS } from "./texts";

// Few start a class, and not every day.
const NewClass = lazy(() => import("./NewClass").then((view) => ({ default: view.NewClass })));

// Students only.
const NewsBell = lazy(() => import("./NewsBell").then((view) => ({ default: view.NewsBell })));
const ReadingDialog = lazy(() => import("./ReadingDialog").then((view) => ({ default: view.ReadingDialog })));

const FeedDialog = lazy(() => import("./FeedDialog").then((view) => ({ default: view.FeedDialog })));

const ROLES: Record<string, string> = {
  lead: "lead",
  co_teacher: "co-teacher",
  marker: "marker",
  observer: "observer",
  student: "student",
};

export function TopBar({ session, group }: { session: Session; group: Group | null }) {
  return (
    <header className="on-bar flex h-12 shrink-0 items-center gap-3 bg-bar px-3 text-paper sm:gap-4 sm:px-5">
      <Link to="/" className="flex items-center gap-2 text-base font-bold">
        <Mark />
        <span className="max-sm:sr-only">{TEXTS.name}</span>
      </Link>
      <ClassSwitcher groups={session.groups} group={group} />
      {session.term && (
        <span className="text-bar-text max-md:hidden">
          {session.term.name}
          {session.term.week && ` · week ${session.term.week} of ${session.term.weeks}`}
        </span>
      )}
      {group && group.role !== "student" && group.kind !== "caseload" && <FindStudent groupId={group.id} />}
      <div className={`flex items-center gap-1 ${group && group.role !== "student" && group.kind !== "caseload" ? "max-md:ml-auto" : "ml-auto"}`}>
        {group?.role === "student" && group.portfolio !== null && (
          <Suspense>
            <NewsBell groupId={group.id} portfolio={group.portfolio} />
          </Suspense>
        )}
        <Account session={session} />
      </div>
    </header>
  );
}

function ClassSwitcher({ groups, group }: { groups: Group[]; group: Group | null }) {
  const navigate = useNavigate();
  const open = groups.filter((one) => landing(one) !== "/");
  if (open.length === 0) return null;
  if (open.length === 1 && group) {
    return <span className="min-w-0 truncate font-semibold">{group.name}</span>;
  }
  return (
    <Listbox value={group} onChange={(chosen) => chosen && void navigate(landing(chosen))} by="id">
      <ListboxButton
        aria-label={group ? `${TEXTS.chooseClass}: ${group.name}` : TEXTS.chooseClass}
        className="flex min-h-8 min-w-0 items-center gap-2 rounded-md bg-bar-soft px-3 font-semibold"
      >
        <span className="truncate">{group?.name ?? TEXTS.chooseClass}</span>
        <ChevronDown aria-hidden size={16} className="shrink-0" />
      </ListboxButton>
      <ListboxOptions
        anchor="bottom start"
        className="z-40 mt-1 max-w-[90vw] rounded-md border border-edge bg-paper py-1 text-ink shadow-lg"
      >
        {open.map((one) => (
          <ListboxOption
            key={one.id}
            value={one}
            className="flex min-h-11 cursor-pointer items-center gap-3 px-4 data-focus:bg-today"
          >
            <Check aria-hidden size={16} className={one.id === group?.id ? "text-copper" : "invisible"} />
            <span className="font-semibold">{one.name}</span>
            <span className="ml-auto pl-6 text-quiet">{ROLES[one.role]}</span>
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}

function Account({ session }: { session: Session }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const leave = async () => {
    await data(client.DELETE("/api/session"));
    const fresh = await queries.query({ ...sessionQuery, staleTime: 0 });
    forgetPeople(queries);
    queries.setQueryData(sessionQuery.queryKey, fresh);
    await navigate("/");
  };
  const [starting, setStarting] = useState(false);
  const [feeding, setFeeding] = useState(false);
  const [reading, setReading] = useState(false);
  if (!session.person) return null;
  return (
    <>
    {reading && (
      <Suspense>
        <ReadingDialog onClose={() => setReading(false)} />
      </Suspense>
    )}
    {feeding && (
      <Suspense>
        <FeedDialog onClose={() => setFeeding(false)} />
      </Suspense>
    )}
    {starting && (
      <Suspense>
        <NewClass open onClose={() => setStarting(false)} />
      </Suspense>
    )}
    <Menu>
      <MenuButton
        aria-label={`${session.person.initials}, account of ${session.person.full_name}`}
        className="flex size-9 items-center justify-center rounded-full bg-brass text-sm font-bold text-ink"
      >
        {session.person.initials}
      </MenuButton>
      <MenuItems
        anchor="bottom end"
        className="z-40 mt-1 min-w-52 rounded-md border border-edge bg-paper py-1 text-ink shadow-lg"
      >
        <div className="border-b border-line px-4 py-2">
          <p className="font-semibold">{session.person.full_name}</p>
          <p className="text-quiet">{session.school}</p>
        </div>
        <MenuItem>
          <button type="button" className="flex min-h-11 w-full items-center gap-2 px-4 text-left data-focus:bg-today" onClick={() => setReading(true)}>
            <BookOpenText aria-hidden size={16} />
            {READING.open}
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className="flex min-h-11 w-full items-center gap-2 px-4 text-left data-focus:bg-today" onClick={() => setFeeding(true)}>
            <CalendarDays aria-hidden size={16} />
            {TEXTS.feed}
          </button>
        </MenuItem>
        {session.person.staff && (
          <MenuItem>
            <button type="button" className="flex min-h-11 w-full items-center gap-2 px-4 text-left data-focus:bg-today" onClick={() => setStarting(true)}>
              <Plus aria-hidden size={16} />
              {TEXTS.newClass}
            </button>
          </MenuItem>
        )}
        {session.person.administrator && (
          <MenuItem>
            <Link to="/school" className="flex min-h-11 items-center gap-2 px-4 data-focus:bg-today">
              <School aria-hidden size={16} />
              {TEXTS.school}
            </Link>
          </MenuItem>
        )}
        <MenuItem>
          <button
            type="button"
            className="flex min-h-11 w-full items-center gap-2 px-4 text-left data-focus:bg-today"
            onClick={() => void leave()}
          >
            <LogOut aria-hidden size={16} />
            {TEXTS.signOut}
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
    </>
  );
}
