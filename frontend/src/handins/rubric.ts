/** A rubric as it is typed, and as the server takes it. */
import type { Schema } from "../api/client";

type Rubric = Schema["RubricShape"];

export interface RubricForm {
  levels: { key: string; title: string; points: string; low: string }[];
  criteria: { key: string; title: string; weight: string; says: string[] }[];
  halves: boolean;
  /** Whether students are asked to judge themselves by it first. */
  by_student: boolean;
}

export function rubricFields(rubric: Rubric | null | undefined): RubricForm | null {
  if (!rubric) return null;
  return {
    levels: rubric.levels.map((one) => ({ ...one, points: String(one.points), low: one.low === null || one.low === undefined ? "" : String(one.low) })),
    criteria: rubric.criteria.map((one) => ({ ...one, weight: String(one.weight) })),
    halves: rubric.halves,
    by_student: rubric.by_student,
  };
}

export function rubricOf(fields: RubricForm | null): Rubric | null {
  if (!fields) return null;
  return {
    levels: fields.levels.map((one) => ({ ...one, points: numberOf(one.points), low: one.low.trim() ? numberOf(one.low) : null })),
    criteria: fields.criteria.map((one) => ({ ...one, weight: numberOf(one.weight) })),
    halves: fields.halves,
    by_student: fields.by_student,
  };
}

/** What is no number is sent as one that the server refuses by the name it stands beside. */
function numberOf(typed: string): number {
  const number = Number(typed.trim().replace(",", "."));
  return typed.trim() && Number.isFinite(number) ? number : -1;
}
