/** Setting up a class: its list, its staff, and the school's calendar. */
import { NavLink, useParams } from "react-router";
import { useGroup } from "../api/session";
import { CalendarPart } from "./CalendarPart";
import { ClassPart } from "./ClassPart";
import { GroupsPart } from "./GroupsPart";
import { ListPart } from "./ListPart";
import { StaffPart } from "./StaffPart";
import { PARTS, TEXTS } from "./texts";
import type { Part } from "./texts";

export function SetupView() {
  const { part = "list" } = useParams();
  const group = useGroup();
  if (!group) return null;
  const chosen: Part = part in PARTS ? (part as Part) : "list";
  return (
    <div className="flex min-h-0 flex-1 max-md:flex-col">
      <nav aria-label={TEXTS.parts} className="flex w-44 shrink-0 flex-col border-r border-line bg-paper py-3 max-md:w-full max-md:flex-row max-md:flex-wrap max-md:border-b max-md:py-0">
        {(Object.keys(PARTS) as Part[]).map((one) => (
          <NavLink
            key={one}
            to={`/g/${group.id}/setup/${one}`}
            aria-current={one === chosen ? "page" : undefined}
            className={`flex min-h-10 items-center border-l-4 px-4 font-semibold max-md:border-b-3 max-md:border-l-0 ${
              one === chosen ? "border-copper bg-today text-ink" : "border-transparent text-ink-soft hover:text-ink"
            }`}
          >
            {PARTS[one]}
          </NavLink>
        ))}
      </nav>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        {chosen === "list" && <ListPart groupId={group.id} />}
        {chosen === "groups" && <GroupsPart groupId={group.id} />}
        {chosen === "class" && <ClassPart groupId={group.id} />}
        {chosen === "staff" && <StaffPart groupId={group.id} />}
        {chosen === "calendar" && <CalendarPart />}
      </div>
    </div>
  );
}
