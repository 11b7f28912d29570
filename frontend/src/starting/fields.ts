/** A class that is being started, as its form holds it; and what of it goes to the server. */
import type { Schema } from "../api/client";
import { isDay } from "../ui/days/parseDay";
import { TEXTS } from "./texts";

export type Choices = Schema["ChoicesShape"];
export type Colleague = Schema["FoundStaff"];
export type Role = Schema["StaffIn"]["role"];
type Kind = Schema["GroupIn"]["kind"];

export interface Fields {
  name: string;
  kind: Kind;
  first: string;
  last: string;
  lead: string;
  /** ``gallery 3``, ``class 5``, or empty. */
  like: string;
  handins: boolean;
  cupboard: boolean;
  /** Sections of what it is like that do not come, and other titles of those that do, by key. */
  without: string[];
  titles: Record<string, string>;
  own: string;
  staff: { person: number; name: string; role: Role }[];
  list: string;
  columns: Schema["LookedListShape"]["columns"] | null;
  asNew: number[];
  /** The list's names are written family name first. */
  familyFirst: boolean;
  bySystem: boolean;
}

export function emptyFields({ today, term }: Choices): Fields {
  return {
    name: "",
    kind: "class",
    first: term?.first ?? today,
    last: term?.last ?? "",
    lead: "",
    like: "",
    handins: true,
    cupboard: true,
    without: [],
    titles: {},
    own: "",
    staff: [],
    list: "",
    columns: null,
    asNew: [],
    familyFirst: false,
    bySystem: false,
  };
}

export interface Section {
  key: string;
  title: string;
  pockets: number;
}

/** The sections of what the class is like, and how many hand-ins and things of the cupboard could come along. */
export function likeOf(fields: Fields, choices: Choices): { sections: Section[]; handins: number; items: number } {
  const [source, id] = fields.like.split(" ");
  if (source === "class") return choices.classes.find((one) => one.id === Number(id)) ?? { sections: [], handins: 0, items: 0 };
  const found = choices.gallery.find((one) => one.id === Number(id))?.sections ?? [];
  return { sections: found.map((one) => ({ ...one, pockets: one.pockets.length })), handins: 0, items: 0 };
}

/** How the class is laid out, for looking at it. */
export function lookBody(fields: Fields, choices: Choices): Schema["GroupLook"] {
  const [source = "", id] = fields.like.split(" ");
  const sections = likeOf(fields, choices)
    .sections.filter((one) => !fields.without.includes(one.key))
    .map((one) => ({ key: one.key, title: fields.titles[one.key]?.trim() ?? "" }));
  const like: Schema["GroupLook"]["like"] = source === "class" || source === "gallery" ? { source, id: Number(id), handins: source === "class" && fields.handins, cupboard: source === "class" && fields.cupboard, sections } : null;
  return {
    name: fields.name,
    kind: fields.kind,
    first: fields.first,
    last: fields.last,
    like: like && sections.length > 0 ? like : null,
    outline: fields.kind === "caseload" ? "" : fields.own,
    unsaid: "evidence",
  };
}

/** All of it, as it is started. */
export function startBody(fields: Fields, choices: Choices, seen: string | null): Schema["GroupIn"] {
  const look = lookBody(fields, choices);
  if (fields.kind === "caseload") return { ...look, like: null, lead: Number(fields.lead) || null, by_itself: false };
  return {
    ...look,
    lead: null,
    staff: fields.staff.map(({ person, role }) => ({ person, role })),
    students: fields.list.trim() && seen !== null ? { text: fields.list, columns: fields.columns, as_new: fields.asNew, family_first: fields.familyFirst, seen } : null,
    by_itself: fields.bySystem,
  };
}

/** Everything that is missing, each by the name of its field; all at once. */
export function missing(fields: Fields, problems: Schema["OutlineNote"][]): string[] {
  const days = [
    isDay(fields.first) ? "" : TEXTS.missing({ field: TEXTS.first, what: TEXTS.noDay }),
    isDay(fields.last) ? "" : TEXTS.missing({ field: TEXTS.last, what: TEXTS.noDay }),
    isDay(fields.first) && isDay(fields.last) && fields.last < fields.first ? TEXTS.missing({ field: TEXTS.last, what: TEXTS.endsBefore }) : "",
  ];
  return [
    fields.name.trim() ? "" : TEXTS.missing({ field: TEXTS.name, what: TEXTS.noName }),
    ...days,
    fields.kind === "caseload" && !fields.lead ? TEXTS.missing({ field: TEXTS.lead, what: TEXTS.noLead }) : "",
    ...problems.map((one) => TEXTS.missing({ field: TEXTS.own, what: TEXTS.wrongLine({ line: one.line, what: one.what }) })),
  ].filter(Boolean);
}
