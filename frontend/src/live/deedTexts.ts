/** The words of deeds on one or many. */
import { catalogue, message } from "../language/catalogue";

export const DEED = catalogue("deeds", {
  cancel: "Cancel",
  looking: "Looking at whom it touches …",
  touches: message<{ cells: number; students: number }>("{cells, plural, =0 {Nothing can be done here.} one {# peg} other {# pegs}}{cells, plural, =0 {} other {{students, plural, one { of # student.} other { of # students.}}}}"),
  leftAlone: message<{ cells: number; why: string; names: string; named: number; more: number }>("{cells, plural, one {# is left alone} other {# are left alone}}: {why}{named, plural, =0 {} other { ({names}{more, plural, =0 {} one { and one more} other { and # more}})}}"),
  why: {
    gone: "taken away meanwhile",
    changed: "changed meanwhile, so look again",
    not_asked: "not asked",
    excused: "excused",
    not_excused: "not excused",
    no_due: "no due date to move",
    before_opening: "before it opens",
    already: "so already",
    not_open: "not open yet",
    not_decided: "nothing is decided yet",
    by_rubric: "judged by a rubric, at the desk",
    by_two: "marked by two, who agree at the desk",
    not_handed_in: "not handed in, or decided already",
  },
  undone: message<{ students: number; left: number }>("{students, plural, one {# student is} other {# students are}} as before.{left, plural, =0 {} one { # is left: something has happened since.} other { # are left: something has happened since.}}"),
});

/** Locking pockets and opening them. */
export const LOCK = catalogue("deeds.lock", {
  title: "Lock or open",
  titleOf: message<{ pocket: string }>("Lock or open “{pocket}”"),
  lock: "Lock: it can be read, and not changed",
  open: "Open: work goes on",
  why: "Why",
  whyHint: "(may stay empty; the student reads it)",
  touchesPockets: message<{ cells: number; students: number }>("{cells, plural, =0 {Nothing can be done here.} other {{students, plural, one {# student} other {# students}}}}"),
  handedIn: message<{ count: number }>("{count, plural, one {One of these was handed in. It stays handed in as it was, and the student can go on working.} other {# of these were handed in. They stay handed in as they were, and the students can go on working.}}"),
  stays: "It stays locked until you open it, also when work is sent back.",
  lockThem: message<{ cells: number }>("{cells, plural, =0 {Lock} one {Lock} other {Lock all #}}"),
  openThem: message<{ cells: number }>("{cells, plural, =0 {Open} one {Open} other {Open all #}}"),
  locked: message<{ students: number }>("Locked for {students, plural, one {# student} other {# students}}."),
  opened: message<{ students: number }>("Open for {students, plural, one {# student} other {# students}}."),
});
