"""What a pocket asks for, what is met, and how far a portfolio is filled.

Source: the product's *Filled*. Units: *n* artefacts are *n*; "a reflection on each" adds *n*; a page
is one; *n* links are *n*; *n* log rows are *n*, or so many per school week. Decided here: where more
artefacts lie in a pocket than it asks for, the reflections that are met count first, so an extra piece
never makes a full pocket unfull; the chip of a reflection still wanted names the first artefact that
lacks one. Where many fill a pocket together and each one's own is counted, what the others put in adds nothing. Of a
log's rows only complete ones are met; rows so many a week are asked for each school week
from the day the pocket opens (or the student joins) on, a week from its first school day, and more rows
in one week make up for no other.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from enum import StrEnum
from functools import lru_cache
from typing import NamedTuple

from coatpeg.core.calendar.school_days import Week
from coatpeg.core.portfolios.texts import Counts, Length, within


class PocketKind(StrEnum):
    """What a pocket holds."""

    EVIDENCE = "evidence"
    PAGE = "page"
    LINKS = "links"
    LOG = "log"


class Shared(StrEnum):
    """Who fills a pocket together: nobody (each student their own), a working group, a period, the whole class."""

    NOBODY = ""
    GROUP = "group"
    PERIOD = "period"
    CLASS = "class"


class Company(NamedTuple):
    """Who fills a pocket together: of a group, the set it is one of (empty: the first of the class)."""

    shared: Shared
    group_set: str = ""


NO_COUNTS = Counts()
LAST_OF_WEEK = timedelta(days=6)


@dataclass(frozen=True, slots=True)
class Wanted:
    """What a pocket asks for. ``artefacts`` counts links in a pocket of links and is unused on a page."""

    kind: PocketKind
    artefacts: int = 0
    reflection_on_each: bool = False
    length: Length | None = None
    excused: bool = False
    """Nothing is wanted of this student here."""
    spoken: bool = False
    """A recording may stand in place of a text."""
    rows: int = 0
    """Rows wanted in a log over all; unused where they are wanted each week."""
    rows_per_week: int = 0
    weeks: tuple[int, ...] = ()
    """The school weeks that rows are wanted in, by the ordinal of their Monday."""


class Piece(NamedTuple):
    """One evidence as the rules see it: its artefact's title and its text's counts.

    ``unchanged`` says that the text, or the file, still is the starter's. A page has one piece that is its text, and
    one for each artefact ``beside`` it. A log's row counts one word when it is complete and none before; ``week`` is
    the ordinal of its Monday (0: undated).
    """

    counts: Counts = NO_COUNTS
    title: str = ""
    unchanged: bool = False
    week: int = 0
    said: bool = False
    """There is a recording of it."""
    beside: bool = False
    """It lies beside the text of a page: it is work, and adds nothing to what is met."""
    theirs: bool = False
    """Somebody else put it in, where each one's own is counted: it is no work of this student."""

    def met(self, wanted: Wanted) -> bool:
        """Whether its text counts, or what was said where that may stand in its place."""
        return (wanted.spoken and self.said) or (not self.unchanged and within(self.counts, wanted.length))


@dataclass(frozen=True, slots=True)
class Chip:
    """One thing wanted, as the student sees it: ``done`` of ``wanted`` units."""

    what: str
    """artefacts, links, reflection, page, rows, or weekly rows."""
    done: int
    wanted: int
    on: str = ""
    """The artefact a reflection is on; empty while there is none."""
    length: Length | None = None
    counts: Counts = NO_COUNTS

    @property
    def met(self) -> bool:
        """Whether nothing is missing here."""
        return self.done >= self.wanted


class Filled(NamedTuple):
    """Units met and wanted. ``share`` is None where nothing is wanted."""

    met: int = 0
    wanted: int = 0

    @property
    def share(self) -> float | None:
        """Met ÷ wanted, or None: "nothing wanted" is not 100 %."""
        return self.met / self.wanted if self.wanted else None


def chips(wanted: Wanted, pieces: tuple[Piece, ...]) -> tuple[Chip, ...]:
    """Everything wanted in a pocket, in the order to show it."""
    if wanted.excused:
        return ()
    pieces = _own_of(pieces)
    if wanted.kind is PocketKind.PAGE:
        piece = _text_of(pieces)
        return (Chip("page", int(piece.met(wanted)), 1, "", wanted.length, piece.counts),)
    if wanted.kind is PocketKind.LOG:
        return _row_chips(wanted, pieces)
    if not wanted.artefacts:
        return ()
    what = "links" if wanted.kind is PocketKind.LINKS else "artefacts"
    first = Chip(what, min(sum(not piece.unchanged for piece in pieces), wanted.artefacts), wanted.artefacts)
    if not wanted.reflection_on_each:
        return (first,)
    return (first, *_reflection_chips(wanted, pieces))


def _own_of(pieces: tuple[Piece, ...]) -> tuple[Piece, ...]:
    """Without what is counted as somebody else's."""
    return tuple(one for one in pieces if not one.theirs) if any(one.theirs for one in pieces) else pieces


def _text_of(pieces: tuple[Piece, ...]) -> Piece:
    """The text of a page; without a word where there is none yet."""
    return next((piece for piece in pieces if not piece.beside), Piece())


def _row_chips(wanted: Wanted, pieces: tuple[Piece, ...]) -> tuple[Chip, ...]:
    units = filled(wanted, pieces)
    if not units.wanted:
        return ()
    return (Chip("weekly" if wanted.rows_per_week else "rows", units.met, units.wanted),)


def _reflection_chips(wanted: Wanted, pieces: tuple[Piece, ...]) -> Iterable[Chip]:
    """One chip for each reflection wanted; those met are taken first, then in the pocket's order."""
    by_merit = sorted(range(len(pieces)), key=lambda place: (not pieces[place].met(wanted), place))
    for place in sorted(by_merit[: wanted.artefacts]):
        piece = pieces[place]
        yield Chip("reflection", int(piece.met(wanted)), 1, piece.title or f"{place + 1}", wanted.length, piece.counts)
    for _ in range(wanted.artefacts - len(pieces)):
        yield Chip("reflection", 0, 1, "", wanted.length)


def filled(wanted: Wanted, pieces: tuple[Piece, ...]) -> Filled:
    """Units met and wanted of one pocket: the sums of its chips, without making them."""
    if wanted.excused:
        return Filled()
    pieces = _own_of(pieces)
    if wanted.kind is PocketKind.PAGE:
        return Filled(int(_text_of(pieces).met(wanted)), 1)
    if wanted.kind is PocketKind.LOG:
        return _filled_log(wanted, pieces)
    number = wanted.artefacts
    met = min(sum(not piece.unchanged for piece in pieces), number)
    if not wanted.reflection_on_each or not number:
        return Filled(met, number)
    return Filled(met + min(sum(piece.met(wanted) for piece in pieces), number), 2 * number)


def _filled_log(wanted: Wanted, pieces: tuple[Piece, ...]) -> Filled:
    complete = [piece.week for piece in pieces if piece.counts.words]
    if not wanted.rows_per_week:
        return Filled(min(len(complete), wanted.rows), wanted.rows)
    of_week = Counter(complete)
    met = sum(min(of_week[week], wanted.rows_per_week) for week in wanted.weeks)
    return Filled(met, wanted.rows_per_week * len(wanted.weeks))


def weekly(wanted: Wanted, weeks: Sequence[Week], since: date, until: date | None) -> Wanted:
    """What a log wants row by row each week: from the week of ``since`` on, up to ``until`` (None: all weeks).

    ``weeks`` are those of the class's time; one without school asks for nothing. Other wants stay as they are.
    """
    if not wanted.rows_per_week:
        return wanted
    asked = [
        week.monday.toordinal()
        for week in weeks
        if week.school_days and week.monday + LAST_OF_WEEK >= since and (until is None or week.monday <= until)
    ]
    return replace(wanted, weeks=tuple(asked))


_filled_again = lru_cache(maxsize=20_000)(filled)
"""A board asks the same thousands of times: of a class's pockets most hold the same few counts."""


class PocketState(NamedTuple):
    """A pocket in one portfolio: what is wanted now, what was wanted when it was locked, what lies in it."""

    wanted: Wanted
    pieces: tuple[Piece, ...] = ()
    wanted_when_locked: Wanted | None = None
    counts: bool = True
    retired: bool = False
    open: bool = True
    whole: Wanted | None = None
    """What is wanted over all the class's time, where that is more than by now."""

    @property
    def filled(self) -> Filled:
        """Units of this pocket; a locked one is judged by what was wanted when it was handed in."""
        return filled(self.wanted_when_locked or self.wanted, self.pieces)


def portfolio_filled(states: Iterable[PocketState], *, whole: bool) -> Filled:
    """Filled over the pockets that count and are not retired: as of today, or over the whole template."""
    met = wanted = 0
    for now_wanted, pieces, when_locked, counts, retired, is_open, in_all in states:
        if counts and not retired and (whole or is_open):
            asked = in_all if whole and in_all else now_wanted
            units = _filled_again(when_locked or asked, pieces)
            met, wanted = met + units.met, wanted + units.wanted
    return Filled(met, wanted)


def has_work(kind: PocketKind, pieces: tuple[Piece, ...]) -> bool:
    """Whether a pocket holds student work that differs from its starter."""
    pieces = _own_of(pieces)
    if kind is PocketKind.PAGE:
        text = _text_of(pieces)
        beside = any(piece.beside and not piece.unchanged for piece in pieces)
        return beside or text.said or bool(text.counts.words and not text.unchanged)
    return any(not piece.unchanged for piece in pieces)
