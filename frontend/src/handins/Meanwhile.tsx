/** A hand-in that somebody else changed while it was being changed: what differs, and whose words stand. */
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { due } from "../ui/dates";
import { Notice } from "../ui/Notice";
import { plainOf } from "../ui/reading/RichText";
import type { Fields } from "./plan";
import { CHANGE, TEXTS, WHOM } from "./texts";

interface Props {
  theirs: Fields;
  /** Null where nothing was filled in yet. */
  mine: Fields | null;
  data: Schema["HandInsShape"];
  onTheirs: () => void;
  onMine: () => void;
}

function whomWords({ whom, groups, students }: Fields, data: Props["data"]): string {
  if (whom === "all") return WHOM.all;
  if (whom === "groups") return data.all_groups.filter((one) => groups.includes(one.id)).map((one) => one.name).join(", ");
  return WHOM.these({ what: WHOM[whom], count: students.length });
}

/** What a form says, by field as it is labelled. */
function said(fields: Fields, data: Props["data"]): Record<string, string> {
  const titles = new Map(data.pockets.map((one) => [one.id, one.title]));
  const moment = (day: string, time: string) => (day ? due(day, time || null) : "–");
  return {
    [TEXTS.title]: fields.title,
    [TEXTS.pocketsItCollects]: fields.pockets.map((id) => titles.get(id) ?? "").join(", "),
    [TEXTS.opens]: moment(fields.opens, ""),
    [TEXTS.due]: moment(fields.day, fields.time),
    [TEXTS.periods]: fields.forEveryone
      ? TEXTS.forEveryoneInTheClass
      : fields.periods
          .filter((one) => one.asked)
          .map((one) => one.name)
          .join(", "),
    [WHOM.title]: whomWords(fields, data),
    [TEXTS.points]: fields.points || "–",
    [TEXTS.closes]: moment(fields.closes, fields.closesTime),
    [TEXTS.directions]: plainOf(fields.directions) || "–",
    [TEXTS.files]: fields.files.map((one) => one.title).join(", ") || "–",
    [TEXTS.modelAnswer]: plainOf(fields.modelAnswer) || "–",
  };
}

export function Meanwhile({ theirs, mine, data, onTheirs, onMine }: Props) {
  const now = said(theirs, data);
  const differing = mine ? Object.entries(said(mine, data)).filter(([label, words]) => now[label] !== words) : [];
  return (
    <Notice look="info" title={mine ? CHANGE.meanwhile : CHANGE.meanwhileOnly}>
      <dl className="mt-1">
        {differing.map(([label, words]) => (
          <div key={label}>
            <dt className="font-semibold">{label}</dt>
            <dd>{CHANGE.theirsAndMine({ theirs: now[label] ?? "", mine: words })}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-2 flex flex-wrap gap-2">
        {mine && <Button onClick={onMine}>{CHANGE.keepMine}</Button>}
        <Button onClick={onTheirs}>{CHANGE.takeTheirs}</Button>
      </div>
    </Notice>
  );
}
