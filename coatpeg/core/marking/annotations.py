"""What is said on a submission: of the whole, or on a place in it.

Kinds: a *comment*; a *highlight* of words; *suggested wording* for words; *ink*, drawn by hand. Decided here:

* A place is named by the pocket, the evidence in it, which part of that (its words, or its artefact), and then by one
  of: words, a spot or a frame on a picture or a page, a row of a log (and a column of it), a moment of a recording.
* Spots and ink are counted in ten-thousandths of the width and height of what they lie on, so that they hold at every
  zoom; of a document the page is named, from 1.
* The ink of one marker on one page is one annotation; up to `MOST_POINTS`.
* What is drawn or highlighted needs no words; everything else does, or a recording of the marker's voice.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from enum import StrEnum
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.quotes import LONGEST as LONGEST_QUOTE
from coatpeg.core.marking.quotes import Quote, find, quote_at

SCALE = 10_000
"""The right and the lower edge of what ink and spots lie on."""
MOST_POINTS = 20_000
"""Points of the ink on one page: an hour of drawing."""
MOST_STROKES = 2_000
LONGEST_TEXT = 4_000
"""Characters of a comment, and of a suggested wording."""
COLOURS = ("rust", "sea", "plum")
LONGEST_VOICE = 180
"""Seconds."""


class Kind(StrEnum):
    """What kind of thing is said."""

    COMMENT = "comment"
    HIGHLIGHT = "highlight"
    SUGGESTION = "suggestion"
    INK = "ink"


class Part(StrEnum):
    """Which part of an evidence: what is written about it (or a page's words), or the artefact."""

    TEXT = "text"
    ARTEFACT = "artefact"


@dataclass(frozen=True, slots=True)
class Spot:
    """A spot (no width, no height) or a frame, in ten-thousandths of what it lies on."""

    x: int
    y: int
    w: int = 0
    h: int = 0


@dataclass(frozen=True, slots=True)
class Target:
    """What an annotation is on; all of it None: the submission as a whole."""

    pocket: int | None = None
    evidence: int | None = None
    part: Part | None = None
    words: Quote | None = None
    spot: Spot | None = None
    page: int | None = None
    row: int | None = None
    column: str | None = None
    at: float | None = None
    until: float | None = None
    """Seconds of a recording, from–to."""


@dataclass(frozen=True, slots=True)
class Stroke:
    """One stroke of a pen: ``points`` are x, y and pressure (0 to 100) in turn; ``width`` as x is counted."""

    colour: str
    width: int
    points: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Surface:
    """One part of a frozen evidence (or a pocket's log) that can be annotated."""

    text: str | None = None
    """Its words, where it has any."""
    drawn: bool = False
    """A picture or pages."""
    runs: bool = False
    """Sound or video."""
    rows: tuple[int, ...] | None = None
    columns: tuple[str, ...] = ()
    """Of a log: the ids of its rows and the keys of its columns, in their order."""


Surfaces = Mapping[tuple[int, int | None, Part | None], Surface]
"""What a submission holds: by pocket, evidence and part; a log by its pocket alone."""


def placed(kind: Kind, target: Target, surfaces: Surfaces) -> Target:
    """The same target, its words with the place where they stand; ``Invalid`` where there is no such place."""
    if target.pocket is None:
        if target != Target():
            raise _nowhere("What is on the submission as a whole names no place in it.")
        _refuse_without_place(kind, target)
        return target
    surface = surfaces.get((target.pocket, target.evidence, target.part))
    if surface is None:
        if (target.pocket, target.evidence) not in {key[:2] for key in surfaces} or target.part is not None:
            raise _nowhere("There is no such place in this submission.")
        surface = Surface()
    _refuse_unfit(target, surface)
    _refuse_without_place(kind, target)
    if target.words is None:
        return target
    assert surface.text is not None
    found = find(surface.text, target.words)
    if found is None or found.changed:
        raise _nowhere("These words do not stand in the submission.", where="words")
    return Target(target.pocket, target.evidence, target.part, quote_at(surface.text, found.start, found.end))


def _nowhere(what: str, where: str = "target") -> Invalid:
    return Invalid(what, where=where, fix="Load the submission again and choose the place once more.")


def _refuse_unfit(target: Target, surface: Surface) -> None:
    """``Invalid`` where a target names what its surface has not."""
    named = [one for one in ("words", "spot", "row", "at") if getattr(target, one) is not None]
    if len(named) > 1:
        raise _nowhere(f"One place is named at a time, not {' and '.join(named)}.")
    if target.words is not None and (surface.text is None or not target.words.exact.strip()):
        raise _nowhere("There are no words in this place.", "words")
    if target.words is not None and len(target.words.exact) > LONGEST_QUOTE:
        raise Invalid(
            f"{len(target.words.exact)} characters are chosen; {LONGEST_QUOTE} is the most.",
            where="words",
            fix="Choose fewer words, or comment on the whole.",
        )
    if (target.spot is not None or target.page is not None) and not surface.drawn:
        raise _nowhere("There is no picture and no page in this place.", "spot")
    if target.row is not None and (surface.rows is None or target.row not in surface.rows):
        raise _nowhere("There is no such row in this log.", "row")
    if target.column is not None and (target.row is None or target.column not in surface.columns):
        raise _nowhere("There is no such column in this row.", "column")
    _refuse_unfit_numbers(target, surface)


def _refuse_unfit_numbers(target: Target, surface: Surface) -> None:
    if target.spot is not None:
        one = target.spot
        if not (0 <= one.x <= one.x + one.w <= SCALE and 0 <= one.y <= one.y + one.h <= SCALE):
            raise _nowhere("This spot lies outside of the picture.", "spot")
    if target.at is not None and not surface.runs:
        raise _nowhere("There is no recording in this place.", "at")
    if target.until is not None and (target.at is None or target.until < target.at):
        raise _nowhere("A part of a recording ends after it begins.", "until")


def _refuse_without_place(kind: Kind, target: Target) -> None:
    """``Invalid`` where a kind needs a place that is not named."""
    if kind in (Kind.HIGHLIGHT, Kind.SUGGESTION) and target.words is None:
        raise Invalid("No words are chosen.", where="words", fix="Choose the words with the mouse or Shift and arrows.")
    if kind is Kind.INK and (target.evidence is None or target.part is not Part.ARTEFACT):
        raise Invalid("Ink lies on a picture or a page.", where="target", fix="Draw on a picture or a page.")


def checked_strokes(strokes: Sequence[Stroke]) -> tuple[Stroke, ...]:
    """The strokes; ``Invalid`` where there are too many or they lie outside."""
    points = sum(len(one.points) for one in strokes) // 3
    if points > MOST_POINTS or len(strokes) > MOST_STROKES:
        raise Invalid(
            f"The ink on this page has {points} points in {len(strokes)} strokes; {MOST_POINTS} in {MOST_STROKES} is "
            "the most.",
            where="strokes",
            fix="Take something away with the eraser, or go on in a comment.",
        )
    for one in strokes:
        if one.colour not in COLOURS or not 1 <= one.width <= SCALE // 10 or not one.points or len(one.points) % 3:
            raise Invalid("A stroke is broken.", where="strokes", fix="Undo it, and draw it once more.")
        if any(not 0 <= at <= SCALE for at in (*one.points[::3], *one.points[1::3])) or any(
            not 0 <= pressure <= 100 for pressure in one.points[2::3]
        ):
            raise Invalid("A stroke lies outside of its page.", where="strokes", fix="Undo it, and draw it once more.")
    return tuple(strokes)


def refuse_empty(kind: Kind, text: str, wording: str | None, strokes: Sequence[Stroke], *, spoken: bool) -> None:
    """``Invalid`` where nothing is said."""
    if kind is Kind.SUGGESTION and wording is None:
        raise Invalid("There is no wording yet.", where="wording", fix="Write how it could read.")
    if kind is Kind.INK and not strokes:
        raise Invalid("Nothing is drawn yet.", where="strokes", fix="Draw something.")
    if kind is Kind.COMMENT and not text and not spoken:
        raise Invalid(
            "There is nothing in the comment yet.", where="text", fix=f"Write 1 to {LONGEST_TEXT} characters."
        )
    for where, one in (("text", text), ("wording", wording or "")):
        if len(one) > LONGEST_TEXT:
            raise Invalid(
                f"This has {len(one)} characters; {LONGEST_TEXT} is the most.", where=where, fix="Shorten it."
            )


def target_to_data(target: Target) -> dict[str, Any]:
    """A target as plain data; what is not named is left out."""
    return {key: value for key, value in asdict(target).items() if value is not None}


def target_from_data(data: Mapping[str, Any]) -> Target:
    """The same back."""
    words, spot, part = data.get("words"), data.get("spot"), data.get("part")
    return Target(
        **{
            **data,
            "part": Part(part) if part else None,
            "words": Quote(**words) if words else None,
            "spot": Spot(**spot) if spot else None,
        }
    )


def strokes_to_data(strokes: Sequence[Stroke]) -> list[list[Any]]:
    """Strokes as plain data, short: there are many."""
    return [[one.colour, one.width, list(one.points)] for one in strokes]


def strokes_from_data(data: Sequence[Sequence[Any]]) -> tuple[Stroke, ...]:
    """The same back."""
    return tuple(Stroke(colour, width, tuple(points)) for colour, width, points in data)
