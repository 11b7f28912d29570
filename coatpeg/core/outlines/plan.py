"""A pocket as a teacher lays it out, checked before it is taken; and what a change of it means for students.

Decided here: the kind of a pocket that holds student work stays (the work would no longer fit); a page wants no
artefacts, a pocket of links no reflections and no other kind of artefact; a length is asked only where there is text;
a log has columns and wants rows, over all or each week, and nothing else has those.
"Filled" of a pocket is all its wanted units met; a student of whom nothing is wanted there counts as filled.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import date
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import Company, Filled, Piece, PocketKind, Shared, Wanted, filled
from coatpeg.core.outlines.versions import VariantPlan
from coatpeg.core.portfolios.log_columns import LogPlan
from coatpeg.core.portfolios.texts import Length, Measure

LONGEST_TITLE = 200
LONGEST_PROMPT = 300
LONGEST_DIRECTIONS = 10_000
LONGEST_STARTER = 40_000
"""Characters with its tables and headings."""
MOST_ARTEFACTS = 50
MOST_WORDS = 5_000
MOST_ROWS = 500
MOST_ROWS_PER_WEEK = 20
NO_LOG = LogPlan()
TAKES = ("picture", "recording", "file", "link", "text")
"""Kinds of artefact a pocket of evidence may be kept to."""


@dataclass(frozen=True, slots=True)
class PocketPlan:
    """A pocket's settings as a person fills them in."""

    title: str
    kind: PocketKind
    directions: str = ""
    prompt: str = ""
    artefacts: int = 0
    reflection_on_each: bool = False
    length: Length | None = None
    takes: tuple[str, ...] = ()
    starter: str = ""
    counts: bool = True
    opens: date | None = None
    rows: int = 0
    rows_per_week: int = 0
    log: LogPlan = NO_LOG
    each_question: bool = False
    """In a section that repeats: once for each question of a unit."""
    variants: VariantPlan | None = None
    """Versions of directions and starter; None: one for everybody."""
    spoken: bool = False
    """A recording may stand in place of a reflection, or of the page's text."""
    shared: Shared = Shared.NOBODY
    """Who fills it together."""
    group_set: str = ""
    """The set (by its name) whose groups fill it; empty: the first of the class."""
    own_part: bool = False
    """What is asked is asked of each student's own words in it, not of all of it."""

    @property
    def company(self) -> Company:
        """Who fills it together."""
        return Company(self.shared, self.group_set)

    @property
    def wanted(self) -> Wanted:
        """What it asks for."""
        return Wanted(
            self.kind,
            self.artefacts,
            self.reflection_on_each,
            self.length,
            spoken=self.spoken,
            rows=self.rows,
            rows_per_week=self.rows_per_week,
        )

    def checked(self) -> PocketPlan:
        """The same, made consistent with its kind; ``Invalid`` names the field and the fix."""
        title = " ".join(self.title.split())
        if not title or len(title) > LONGEST_TITLE:
            raise Invalid(
                "The pocket has no name." if not title else f"Its name has {len(title)} characters.",
                where="title",
                fix=f"Give it a name of at most {LONGEST_TITLE} characters.",
            )
        for where, text, most in (
            ("prompt", self.prompt, LONGEST_PROMPT),
            ("directions", self.directions, LONGEST_DIRECTIONS),
            ("starter", self.starter, LONGEST_STARTER),
        ):
            if len(text) > most:
                raise Invalid(f"There are {len(text)} characters; {most} is the most.", where=where, fix="Shorten it.")
        for where, number, highest in (
            ("artefacts", self.artefacts, MOST_ARTEFACTS),
            ("rows", self.rows, MOST_ROWS),
            ("rows_per_week", self.rows_per_week, MOST_ROWS_PER_WEEK),
        ):
            if not 0 <= number <= highest:
                raise Invalid(f"{number} is not between 0 and {highest}.", where=where, fix="Ask for fewer.")
        wrong = set(self.takes) - set(TAKES)
        if wrong:
            raise Invalid(f"“{min(wrong)}” is no kind of artefact.", where="takes", fix="Choose from the list.")
        _check_length(self.length)
        variants = self.variants.checked(LONGEST_DIRECTIONS, LONGEST_STARTER) if self.variants else None
        return replace(self._for_its_kind(title), variants=variants)

    def _for_its_kind(self, title: str) -> PocketPlan:
        """Without what its kind has no use for."""
        page, evidence = self.kind is PocketKind.PAGE, self.kind is PocketKind.EVIDENCE
        if self.kind is PocketKind.LOG:
            return self._as_log(title)
        on_each = evidence and self.reflection_on_each
        takes = tuple(one for one in TAKES if one in self.takes) if evidence else ()
        return replace(
            self,
            title=title,
            directions=self.directions.strip(),
            prompt=self.prompt.strip(),
            artefacts=0 if page else self.artefacts,
            reflection_on_each=on_each,
            length=self.length if page or on_each else None,
            takes=() if set(takes) == set(TAKES) else takes,
            starter=self.starter if page and not self.shared else "",
            spoken=self.spoken and ((page and not self.shared) or on_each),
            **self._together(),
            rows=0,
            rows_per_week=0,
            log=NO_LOG,
        )

    def _as_log(self, title: str) -> PocketPlan:
        log = self.log.checked()
        if self.rows_per_week and log.date_column is None:
            raise Invalid(
                "Rows each week need a date in the row.", where="rows_per_week", fix="Add a column of type date."
            )
        return PocketPlan(
            title=title,
            kind=self.kind,
            directions=self.directions.strip(),
            prompt=self.prompt.strip(),
            counts=self.counts,
            opens=self.opens,
            rows=0 if self.rows_per_week else self.rows,
            rows_per_week=self.rows_per_week,
            log=log,
            each_question=self.each_question,
            **self._together(),
        )

    def _together(self) -> dict[str, Any]:
        """Who fills it, without what has no use where it is one student's own."""
        return {
            "shared": self.shared,
            "group_set": self.group_set if self.shared is Shared.GROUP else "",
            "own_part": self.own_part and self.shared is not Shared.NOBODY,
        }


def _check_length(length: Length | None) -> None:
    if length is None:
        return
    if not 1 <= length.least <= MOST_WORDS or (length.most is not None and length.most > MOST_WORDS):
        raise Invalid(
            f"A length lies between 1 and {MOST_WORDS} {length.measure.value}.", where="least", fix="Change the number."
        )
    if length.most is not None and length.most < length.least:
        raise Invalid(
            f"From {length.least} to {length.most} is no length.", where="most", fix="Let the second not be smaller."
        )


def length_of(measure: str, least: int, most: int | None) -> Length | None:
    """An asked length from plain values; no measure, no length."""
    return Length(Measure(measure), least, most) if measure else None


def refuse_other_kind(title: str, before: PocketKind, after: PocketKind, students_with_work: int) -> None:
    """Refuse another kind for a pocket that holds student work."""
    if before is not after and students_with_work:
        raise Invalid(
            f"{students_with_work} student{'s have' if students_with_work > 1 else ' has'} work in “{title}”.",
            where="kind",
            fix="Retire this pocket and add one of the other kind: nothing of theirs is lost.",
        )


def refuse_other_sharing(title: str, before: Company, after: Company, students_with_work: int) -> None:
    """Refuse that a pocket with work in it is filled together from now on, by others, or no longer.

    Decided here: one student's page and a page of many do not become each other, since whose words would stand where
    could not be told afterwards.
    """
    if before != after and students_with_work:
        raise Invalid(
            f"{students_with_work} student{'s have' if students_with_work > 1 else ' has'} work in “{title}”.",
            where="shared",
            fix="Retire this pocket and add one that is filled as you want it: nothing of theirs is lost.",
        )


@dataclass(frozen=True, slots=True)
class StudentPocket:
    """One student towards a changed pocket: what is wanted of them before and after, and what lies in it.

    Of a locked pocket before and after are the same: what was wanted when it was handed in.
    """

    student: int
    before: Wanted
    after: Wanted
    pieces: tuple[Piece, ...] = ()


@dataclass(frozen=True, slots=True)
class Impact:
    """What a change means: of how many more or fewer units are wanted, and who goes to filled or away from it."""

    reached: int
    """Students of whom something else is wanted."""
    units: int
    """The greatest change of wanted units of one student."""
    to_open: tuple[int, ...]
    to_filled: tuple[int, ...]


def impact(seats: Iterable[StudentPocket]) -> Impact:
    """What a change of pockets means for its students: of several seats of one student, all together."""
    changed: dict[int, list[StudentPocket]] = defaultdict(list)
    for seat in seats:
        if seat.before != seat.after:
            changed[seat.student].append(seat)
    units = 0
    to_open: list[int] = []
    to_filled: list[int] = []
    for student, of in changed.items():
        before = _sum(filled(seat.before, seat.pieces) for seat in of)
        after = _sum(filled(seat.after, seat.pieces) for seat in of)
        if abs(after.wanted - before.wanted) > abs(units):
            units = after.wanted - before.wanted
        was, is_now = before.met >= before.wanted, after.met >= after.wanted
        if was and not is_now:
            to_open.append(student)
        elif is_now and not was:
            to_filled.append(student)
    return Impact(len(changed), units, tuple(to_open), tuple(to_filled))


def _sum(units: Iterable[Filled]) -> Filled:
    found = list(units)
    return Filled(sum(one.met for one in found), sum(one.wanted for one in found))
