/** The words of a rubric while it is set. */
import { catalogue, message } from "../language/catalogue";

export const RUBRIC = catalogue("handins.rubric", {
  title: "Rubric",
  mayStayAway: "(may be left away)",
  add: "Add a rubric",
  count: message<{ count: number }>("{count, plural, one {# criterion} other {# criteria}}"),
  hint: "Students see it from the start. The score comes from its levels, out of the points above. A mark that is released keeps the rubric it was made by.",
  levels: "Levels",
  levelsHint: "name and points",
  level: "Level",
  levelAt: message<{ at: number }>("Level {at, number}"),
  pointsOf: message<{ at: number }>("Points of level {at, number}"),
  withoutLevel: message<{ at: number }>("Take away level {at, number}"),
  criteria: "Criteria",
  criteriaHint: "name and weight; what each level means may be left away",
  criterion: "Criterion",
  criterionAt: message<{ at: number }>("Criterion {at, number}"),
  weightOf: message<{ at: number }>("Weight of criterion {at, number}"),
  withoutCriterion: message<{ at: number }>("Take away criterion {at, number}"),
  says: "what it means",
  halves: "Half levels: work may lie between two levels",
  takeAway: "Take the rubric away",
  firstLevels: ["not yet", "partly", "mostly", "fully"],
});
