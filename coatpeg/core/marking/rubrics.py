"""Rubrics: criteria with weights, levels with points; what was judged, and the score that it makes.

Source: the product's *Marks*; the score itself is ``scoring.rubric_score``. Decided here:

* All criteria of a rubric have the same levels, each with words of its own for a level, or none. Levels stand in one
  order, from the most points to the fewest or the other way round; no two have the same points.
* Where half levels are allowed a criterion may lie between two neighbouring levels: it has the mean of their points.
* A level may be a range: from its least points (``low``) to its points. Chosen as it is it counts its points, the most
  of the range; the marker may say which points in it, in steps of a hundredth. Ranges do not meet, and there are no
  half levels where a level is a range.
* What was judged is named by keys. Where a rubric has changed since, what still fits stands and the rest is open.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from itertools import pairwise
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.scoring import Criterion, earned, to_step

LEVELS = range(2, 9)
MOST_CRITERIA = 30
LONGEST_TITLE = 80
LONGEST_WORDS = 600
MOST = Decimal(1000)
"""Points of a level, and weight of a criterion."""

Judged = Mapping[str, Sequence[str]]
"""By criterion: the level, the two neighbouring levels that it lies between, or nothing where it is not judged.

Of a level that is a range, the points in it may stand behind it: ``["good", "=7.5"]``. A criterion that is not in it is
open.
"""
EXACT = "="
"""Before the points within a range."""
FINEST = Decimal("0.01")


@dataclass(frozen=True, slots=True)
class Level:
    """A level with its points; as a range from its least points to these."""

    key: str
    title: str
    points: Decimal
    low: Decimal | None = None


@dataclass(frozen=True, slots=True)
class Row:
    """A criterion with its weight, and what each level means for it, in their order; empty: nothing said."""

    key: str
    title: str
    weight: Decimal
    says: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Rubric:
    """What work is judged by."""

    levels: tuple[Level, ...]
    rows: tuple[Row, ...]
    halves: bool = False
    by_student: bool = False
    """Whether students are asked to judge themselves by it before they hand in; they may leave it."""

    def checked(self) -> Rubric:
        """The same, tidied; ``Invalid`` names what is wrong and where."""
        levels = tuple(Level(one.key, _tidy(one.title), one.points, one.low) for one in self.levels)
        rows = tuple(
            Row(one.key, _tidy(one.title), one.weight, tuple(_tidy(of) for of in one.says)) for one in self.rows
        )
        _check_levels(levels)
        _check_ranges(levels, halves=self.halves)
        _check_rows(rows, len(levels))
        return Rubric(levels, rows, self.halves, self.by_student)

    def fitting(self, judged: Judged) -> dict[str, list[str]]:
        """What of an earlier judgement still fits; the rest is open."""
        return {
            row.key: list(judged[row.key])
            for row in self.rows
            if row.key in judged and self._points(judged[row.key]) is not None
        }

    def refuse_unknown(self, judged: Judged) -> None:
        """``Invalid`` where a judgement names what is not in the rubric."""
        if self.fitting(judged) != {key: list(levels) for key, levels in judged.items()}:
            raise Invalid(
                "A level that was chosen is not in the rubric.",
                where="rubric",
                fix="The rubric has changed: look at the levels once more.",
            )

    def open_rows(self, judged: Judged) -> list[Row]:
        """The criteria that are neither judged nor said to be not judged."""
        return [row for row in self.rows if row.key not in judged]

    def score(self, judged: Judged, points: Decimal, step: Decimal) -> Decimal | None:
        """The score out of ``points``, rounded once to ``step``; None where nothing is judged.

        ``Invalid`` where a criterion is open.
        """
        found = self.earned(judged, points)
        return None if found is None else to_step(found, step)

    def earned(self, judged: Judged, points: Decimal) -> Decimal | None:
        """The same before it is rounded."""
        highest = max(level.points for level in self.levels)
        criteria = [
            Criterion(
                row.title,
                row.weight,
                highest,
                self._points(judged[row.key]) if judged.get(row.key) else None,
                not_judged=row.key in judged and not judged[row.key],
            )
            for row in self.rows
        ]
        return earned(points, criteria)

    def _points(self, chosen: Sequence[str]) -> Decimal | None:
        """The points of a level, or between two; 0 of nothing. None where that is not in the rubric."""
        places = {level.key: place for place, level in enumerate(self.levels)}
        if len(chosen) == 2 and chosen[1].startswith(EXACT):
            return _within(self.levels[places[chosen[0]]], chosen[1]) if chosen[0] in places else None
        if len(chosen) > 1 + self.halves or not set(chosen) <= places.keys():
            return None
        at = [places[one] for one in chosen]
        if len(at) == 2 and abs(at[0] - at[1]) != 1:
            return None
        return sum((self.levels[one].points for one in at), Decimal(0)) / max(len(at), 1)


def _check_levels(levels: Sequence[Level]) -> None:
    if len(levels) not in LEVELS:
        raise Invalid(
            f"A rubric has {LEVELS[0]} to {LEVELS[-1]} levels, not {len(levels)}.",
            where="rubric",
            fix="Add a level, or take one away.",
        )
    _check_titles("level", [(one.key, one.title) for one in levels])
    for one in levels:
        if not one.points.is_finite() or not 0 <= one.points <= MOST:
            raise Invalid(
                f"The points of “{one.title}” are not between 0 and {MOST}.", where="rubric", fix="Give a number."
            )
    steps = [later.points - earlier.points for earlier, later in pairwise(levels)]
    if not (all(one > 0 for one in steps) or all(one < 0 for one in steps)):
        raise Invalid(
            "The levels do not go one way in their points.",
            where="rubric",
            fix="Put them in order, from the most points to the fewest or the other way round, no two the same.",
        )


def _check_ranges(levels: Sequence[Level], *, halves: bool) -> None:
    ranges = [one for one in levels if one.low is not None]
    if ranges and halves:
        raise Invalid(
            "Half levels and levels that are ranges do not go together.",
            where="rubric",
            fix="Leave the half levels away: any points of a range can be given.",
        )
    rising = sorted(levels, key=lambda one: one.points)
    for one in ranges:
        below = max((other.points for other in rising if other.points < one.points), default=None)
        if one.low is None or not one.low.is_finite() or not 0 <= one.low < one.points:
            raise Invalid(
                f"The range of “{one.title}” does not go from fewer points to {_plain(one.points)}.",
                where="rubric",
                fix="Give fewer points where it begins, or leave that empty.",
            )
        if below is not None and one.low <= below:
            raise Invalid(
                f"The range of “{one.title}” reaches into the level below it.",
                where="rubric",
                fix=f"Let it begin above {_plain(below)}.",
            )


def _within(level: Level, said: str) -> Decimal | None:
    """The points that are said of a level that is a range; None where they do not lie in it."""
    text = said.removeprefix(EXACT)
    try:
        found = Decimal(text)
    except InvalidOperation:
        return None
    if level.low is None or not found.is_finite() or not level.low <= found <= level.points or found % FINEST:
        return None
    return found


def _check_rows(rows: Sequence[Row], levels: int) -> None:
    if not 1 <= len(rows) <= MOST_CRITERIA:
        raise Invalid(
            f"A rubric has 1 to {MOST_CRITERIA} criteria, not {len(rows)}.",
            where="rubric",
            fix="Add one, or leave the rubric away.",
        )
    _check_titles("criterion", [(one.key, one.title) for one in rows])
    for one in rows:
        if len(one.says) != levels or any(len(of) > LONGEST_WORDS for of in one.says):
            raise Invalid(
                f"What the levels mean for “{one.title}” does not fit.",
                where="rubric",
                fix=f"Say it in at most {LONGEST_WORDS} characters a level.",
            )
        if not one.weight.is_finite() or not 0 <= one.weight <= MOST:
            raise Invalid(
                f"The weight of “{one.title}” is not between 0 and {MOST}.", where="rubric", fix="Give a number."
            )
    if not any(one.weight for one in rows):
        raise Invalid("The weights sum to nothing.", where="rubric", fix="Give a criterion a weight above 0.")


def _check_titles(what: str, named: Collection[tuple[str, str]]) -> None:
    if len({key for key, _ in named}) < len(named) or any(not key for key, _ in named):
        raise Invalid(f"Each {what} needs a key of its own.", where="rubric", fix="Load the form again.")
    for place, (_, title) in enumerate(named, start=1):
        if not title or len(title) > LONGEST_TITLE:
            raise Invalid(
                f"The name of {what} {place} is missing or longer than {LONGEST_TITLE} characters.",
                where="rubric",
                fix="Give it a short name.",
            )
    seen = [title.casefold() for _, title in named]
    twice = next((title for _, title in named if seen.count(title.casefold()) > 1), None)
    if twice is not None:
        raise Invalid(f"“{twice}” stands twice.", where="rubric", fix="Give each a name of its own.")


def _tidy(text: str) -> str:
    return " ".join(text.split())


def rubric_from_data(data: Mapping[str, Any]) -> Rubric | None:
    """A rubric as it is kept; None of an empty mapping."""
    if not data:
        return None
    return Rubric(
        tuple(
            Level(
                one["key"],
                one["title"],
                Decimal(str(one["points"])),
                None if one.get("low") is None else Decimal(str(one["low"])),
            )
            for one in data["levels"]
        ),
        tuple(
            Row(one["key"], one["title"], Decimal(str(one["weight"])), tuple(one["says"])) for one in data["criteria"]
        ),
        data["halves"],
        data.get("by_student", False),
    )


def rubric_to_data(rubric: Rubric | None) -> dict[str, Any]:
    """The same as JSON; numbers as text, so that none of them is rounded."""
    if rubric is None:
        return {}
    return {
        "levels": [
            {
                "key": one.key,
                "title": one.title,
                "points": _plain(one.points),
                **({} if one.low is None else {"low": _plain(one.low)}),
            }
            for one in rubric.levels
        ],
        "criteria": [
            {"key": one.key, "title": one.title, "weight": _plain(one.weight), "says": list(one.says)}
            for one in rubric.rows
        ],
        "halves": rubric.halves,
        **({"by_student": True} if rubric.by_student else {}),
    }


def _plain(number: Decimal) -> str:
    """``2``, ``1.5``: without an exponent and without noughts behind."""
    text = f"{number:f}"
    return text.rstrip("0").rstrip(".") if "." in text else text
