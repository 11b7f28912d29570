"""What an adjustment changes about what is wanted of a student.

Source: the product's *Adjustment* and *Filled* ("an adjustment changes what is wanted of that student from its first
day"). Decided here:

* Of several adjustments that hold on a day each point is taken where it helps most: the most artefacts fewer, the
  shortest length; a longer length counts only where none is shorter.
* At least one artefact stays wanted where any was: whoever is to hand in nothing is excused from the kind of pocket.
* A shorter length lowers the least only, so that whoever writes more is not punished; a longer one raises both ends.
  Lengths are rounded half up to whole words or sentences, at least one.
* Excused from a kind of pocket, nothing is wanted there; what the student puts in all the same stays theirs.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import date

from coatpeg.core.calendar.school_days import Span
from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind, Wanted
from coatpeg.core.portfolios.texts import Length

MOST_DAYS = 60
"""Extra school days: a term. More is another due date, not an adjustment."""
MOST_FEWER = 20
PERCENTS = range(10, 301)
"""Length asked, in percent of everybody's."""


@dataclass(frozen=True, slots=True)
class WantedChange:
    """What one adjustment changes about what is wanted, while its span lasts. ``percent`` is of the asked length."""

    span: Span
    fewer_artefacts: int = 0
    percent: int = 100
    spoken: bool = False
    """A recording may stand in place of a text."""
    without: frozenset[PocketKind] = frozenset()

    @property
    def changes_anything(self) -> bool:
        """Whether it says anything about what is wanted."""
        return bool(self.fewer_artefacts or self.percent != 100 or self.spoken or self.without)


def adjusted(wanted: Wanted, changes: Iterable[WantedChange], today: date) -> Wanted:
    """What is wanted of a student with these adjustments on a day."""
    now = [one for one in changes if one.span.holds(today)]
    if not now:
        return wanted
    if any(wanted.kind in one.without for one in now):
        return replace(wanted, artefacts=0, reflection_on_each=False, excused=True)
    fewer = max(one.fewer_artefacts for one in now)
    artefacts = max(wanted.artefacts - fewer, 1) if wanted.artefacts else 0
    length = _scaled(wanted.length, _percent([one.percent for one in now]))
    return replace(wanted, artefacts=artefacts, length=length, spoken=wanted.spoken or any(one.spoken for one in now))


def _percent(percents: list[int]) -> int:
    shortest = min(percents)
    return shortest if shortest < 100 else max(percents)


def _scaled(length: Length | None, percent: int) -> Length | None:
    if length is None or percent == 100:
        return length
    most = length.most
    if percent > 100 and most is not None:
        most = _rounded(most * percent)
    return replace(length, least=_rounded(length.least * percent), most=most)


def _rounded(hundredths: int) -> int:
    """Half up to a whole number, at least one."""
    return max((hundredths + 50) // 100, 1)


def check(extra_days: int, change: WantedChange) -> None:
    """Refuse an adjustment that says nothing or cannot be meant."""
    if not extra_days and not change.changes_anything:
        raise Invalid(
            "This adjustment changes nothing.", where="extra_days", fix="Say what is different for the student."
        )
    for where, number, most in (
        ("extra_days", extra_days, MOST_DAYS),
        ("fewer_artefacts", change.fewer_artefacts, MOST_FEWER),
    ):
        if not 0 <= number <= most:
            raise Invalid(f"{number} is not between 0 and {most}.", where=where, fix=f"Give 0 to {most}.")
    if change.percent not in PERCENTS:
        raise Invalid(
            f"{change.percent} % is not between {PERCENTS[0]} and {PERCENTS[-1]} %.",
            where="percent",
            fix="Give the length in percent of everybody's: 50 is half.",
        )
    if change.span.last is not None and change.span.last < change.span.first:
        raise Invalid("It would end before it begins.", where="last", fix="Change one of the two days.")
