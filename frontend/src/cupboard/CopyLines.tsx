/** Whose copies there are, and how far each has come; a name leads to the copy in its pocket. */
import { Link } from "react-router";
import type { Schema } from "../api/client";
import { moment } from "../ui/dates";
import { ListedName } from "../ui/people/ListedName";
import { CUPBOARD } from "./texts";
import { GIVEN } from "./farTexts";

interface Props {
  lines: Schema["CopyLine"][];
  groupId: number;
  label: string;
  /** They are of different things: which each has is said. */
  versions?: boolean;
}

export function CopyLines({ lines, groupId, label, versions = false }: Props) {
  return (
    <ul aria-label={label} className="max-h-80 divide-y divide-line overflow-y-auto border-t border-line">
      {lines.map((one) => (
        <li key={one.id} className="px-3 py-1.5">
          <Link to={`/g/${groupId}/portfolio/${one.portfolio}/${one.pocket.id}`} className="font-semibold text-in hover:underline">
            <ListedName person={one.student} />
          </Link>
          <span className={`block text-sm break-words ${one.progress === "not_opened" ? "text-copper" : "text-quiet"}`}>
            {[...(versions ? [one.title] : []), GIVEN.progress[one.progress], one.pocket.title, `${one.given === null ? CUPBOARD.took : CUPBOARD.given} ${moment(one.at)}`].join(" · ")}
          </span>
        </li>
      ))}
    </ul>
  );
}
