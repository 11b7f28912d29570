/** Who of the staff handed it in for the student, and how the work came. */
import type { Schema } from "../api/client";
import { moment } from "../ui/dates";
import { TEXTS } from "./texts";

export function ForThem({ one }: { one: Pick<Schema["SubmissionLine"], "for_them"> | undefined }) {
  if (!one?.for_them) return null;
  const { by, at, how } = one.for_them;
  return <p className="break-words text-ink-soft">{TEXTS.forThem({ by, how, at: moment(at) })}</p>;
}
