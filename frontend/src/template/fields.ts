/** The form of a pocket, and what of it goes to the server. */
import type { Schema } from "../api/client";
import type { Kind, Laid } from "./texts";

export interface Fields {
  title: string;
  kind: Kind;
  directions: string;
  prompt: string;
  artefacts: string;
  reflection: boolean;
  measure: "" | "words" | "sentences";
  least: string;
  most: string;
  takes: Record<"picture" | "file" | "link", boolean>;
  starter: string;
  counts: boolean;
  opens: string;
}

/** A pocket as the form holds it. */
export function fieldsOf(pocket: Laid): Fields {
  const takes = pocket.takes ?? [];
  return {
    title: pocket.title,
    kind: pocket.kind,
    directions: pocket.directions,
    prompt: pocket.prompt,
    artefacts: String(pocket.artefacts),
    reflection: pocket.reflection_on_each,
    measure: pocket.measure,
    least: String(pocket.least),
    most: pocket.most ? String(pocket.most) : "",
    takes: { picture: takes.includes("picture"), file: takes.includes("file"), link: takes.includes("link") },
    starter: pocket.starter,
    counts: pocket.counts,
    opens: pocket.opens ?? "",
  };
}

/** The settings as the server takes them. */
export function bodyOf(fields: Fields, version: number): Schema["PocketIn"] {
  const kinds = ["picture", "file", "link"] as const;
  return {
    title: fields.title,
    kind: fields.kind,
    directions: fields.directions,
    prompt: fields.prompt,
    artefacts: Number(fields.artefacts || 0),
    reflection_on_each: fields.reflection,
    measure: fields.measure,
    least: Number(fields.least || 1),
    most: fields.most ? Number(fields.most) : null,
    takes: kinds.filter((kind) => fields.takes[kind]),
    starter: fields.starter,
    counts: fields.counts,
    opens: fields.opens || null,
    version,
  };
}
