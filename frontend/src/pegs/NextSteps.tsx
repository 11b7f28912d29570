/** What a class that has just begun still wants: its list, its pockets, its first hand-in. Nothing stands here afterwards. */
import { useQuery } from "@tanstack/react-query";
import { ArrowRight, CircleCheck } from "lucide-react";
import { Link } from "react-router";
import { staffQuery, templateQuery } from "../api/queries";
import { may } from "../api/session";
import type { Group } from "../api/session";
import type { Board } from "../filtering/filters";
import { STEPS } from "./stepTexts";

export function NextSteps({ board, group }: { board: Board; group: Group }) {
  const template = useQuery({ ...templateQuery(group.id), enabled: may(group, "see_template") });
  const staff = useQuery(staffQuery(group.id));
  if (template.isPending || staff.isPending) return null;
  const pockets = template.data?.sections.some((one) => one.pockets.length > 0) ?? true;
  const base = `/g/${group.id}`;
  const steps = [
    { name: STEPS.list, done: board.students.length > 0, to: `${base}/setup/list?bring=1`, mine: may(group, "keep_roster") },
    { name: STEPS.template, done: pockets, to: `${base}/template`, mine: may(group, "edit_template") },
    { name: STEPS.handin, done: board.handins.length > 0, to: `${base}/hand-ins?new=1`, mine: may(group, "set_handin") && pockets },
    { name: STEPS.staff, done: (staff.data?.staff.length ?? 0) > 1, to: `${base}/setup/staff`, mine: may(group, "keep_staff") },
  ];
  return (
    <nav aria-label={STEPS.title} className="mx-5 mb-3 flex flex-wrap items-center gap-x-5 gap-y-1 rounded-md border border-edge bg-in-soft px-4 py-2">
      <strong>{STEPS.title}</strong>
      <ol className="contents">
        {steps.map((one) => (
          <li key={one.name} className="flex items-center gap-1.5">
            {one.done ? <CircleCheck aria-hidden size={16} className="text-accepted" /> : <ArrowRight aria-hidden size={16} className="text-ink-soft" />}
            {one.done || !one.mine ? (
              <span className="text-ink-soft">
                {one.name}
                {one.done && <span className="sr-only"> {STEPS.done}</span>}
              </span>
            ) : (
              <Link to={one.to} className="font-semibold underline decoration-line underline-offset-2 hover:decoration-ink">
                {one.name}
              </Link>
            )}
          </li>
        ))}
      </ol>
    </nav>
  );
}
