"""What a pocket asks for, what is met, and how far a portfolio is filled.

Source: the product's *Filled*. Units: *n* artefacts are *n*; "a reflection on each" adds *n*; a page
is one; *n* links are *n*. Decided here: where more artefacts lie in a pocket than it asks for, the
reflections that are met count first, so an extra piece never makes a full pocket unfull; the chip of
a reflection still wanted names the first artefact that lacks one.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache
from typing import NamedTuple

from coatpeg.core.texts import Counts, Length, within


class PocketKind(StrEnum):
    """What a pocket holds."""

    EVIDENCE = "evidence"
    PAGE = "page"
    LINKS = "links"


NO_COUNTS = Counts()


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


class Piece(NamedTuple):
    """One evidence as the rules see it: its artefact's title and its text's counts.

    ``unchanged`` says that the text still is the starter's. A page has one piece without a title.
    """

    counts: Counts = NO_COUNTS
    title: str = ""
    unchanged: bool = False

    def met(self, asked: Length | None) -> bool:
        """Whether its text counts."""
        return not self.unchanged and within(self.counts, asked)


@dataclass(frozen=True, slots=True)
class Chip:
    """One thing wanted, as the student sees it: ``done`` of ``wanted`` units."""

    what: str
    """artefacts, links, reflection or page."""
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
    if wanted.kind is PocketKind.PAGE:
        piece = pieces[0] if pieces else Piece()
        return (Chip("page", int(piece.met(wanted.length)), 1, "", wanted.length, piece.counts),)
    if not wanted.artefacts:
        return ()
    what = "links" if wanted.kind is PocketKind.LINKS else "artefacts"
    first = Chip(what, min(len(pieces), wanted.artefacts), wanted.artefacts)
    if not wanted.reflection_on_each:
        return (first,)
    return (first, *_reflection_chips(wanted, pieces))


def _reflection_chips(wanted: Wanted, pieces: tuple[Piece, ...]) -> Iterable[Chip]:
    """One chip for each reflection wanted; those met are taken first, then in the pocket's order."""
    by_merit = sorted(range(len(pieces)), key=lambda place: (not pieces[place].met(wanted.length), place))
    for place in sorted(by_merit[: wanted.artefacts]):
        piece = pieces[place]
        yield Chip(
            "reflection", int(piece.met(wanted.length)), 1, piece.title or f"{place + 1}", wanted.length, piece.counts
        )
    for _ in range(wanted.artefacts - len(pieces)):
        yield Chip("reflection", 0, 1, "", wanted.length)


def filled(wanted: Wanted, pieces: tuple[Piece, ...]) -> Filled:
    """Units met and wanted of one pocket: the sums of its chips, without making them."""
    if wanted.excused:
        return Filled()
    if wanted.kind is PocketKind.PAGE:
        return Filled(int(any(piece.met(wanted.length) for piece in pieces[:1])), 1)
    number = wanted.artefacts
    met = min(len(pieces), number)
    if not wanted.reflection_on_each or not number:
        return Filled(met, number)
    return Filled(met + min(sum(piece.met(wanted.length) for piece in pieces), number), 2 * number)


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

    @property
    def filled(self) -> Filled:
        """Units of this pocket; a locked one is judged by what was wanted when it was handed in."""
        return filled(self.wanted_when_locked or self.wanted, self.pieces)


def portfolio_filled(states: Iterable[PocketState], *, whole: bool) -> Filled:
    """Filled over the pockets that count and are not retired: as of today, or over the whole template."""
    met = wanted = 0
    for now_wanted, pieces, when_locked, counts, retired, is_open in states:
        if counts and not retired and (whole or is_open):
            units = _filled_again(when_locked or now_wanted, pieces)
            met, wanted = met + units.met, wanted + units.wanted
    return Filled(met, wanted)


def has_work(kind: PocketKind, pieces: tuple[Piece, ...]) -> bool:
    """Whether a pocket holds student work that differs from its starter."""
    if kind is PocketKind.PAGE:
        return any(piece.counts.words and not piece.unchanged for piece in pieces)
    return bool(pieces)
