"""What a student sees first, and the coat a pocket wears.

Decided here: *to hand in* is in a calm order: sent back first, then overdue, then by due moment, those
without one last. A pocket that several hand-ins collect wears the coat of the one that needs the
student most; where none needs anything, of the one whose turn was last. A hand-in that opens later does
not dress it yet.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import UTC, date, datetime

from coatpeg.core.handins.standing import Standing, Status

QUIET_AFTER = 7
"""Days without any work after which a student shows under *quiet for a week*."""

_FAR = datetime.max.replace(tzinfo=UTC)
_OPEN = (Status.SENT_BACK, Status.WORKING, Status.EMPTY)
_SETTLED = (Status.EXCUSED, Status.ACCEPTED, Status.HANDED_IN)


def to_do(standing: Standing) -> bool:
    """Whether the student still has to hand this in."""
    return standing.status in _OPEN


def urgency(standing: Standing, due: datetime | None) -> tuple[bool, bool, datetime]:
    """A key that sorts what is to do: sent back, overdue, next due."""
    return standing.status is not Status.SENT_BACK, not standing.overdue, due or _FAR


def pocket_coat(candidates: Iterable[tuple[Standing, datetime | None]]) -> Standing | None:
    """The standing whose coat a pocket wears, of the hand-ins that collect it; None where none asks for it."""
    asked = [one for one in candidates if one[0].status not in (Status.NOT_ASKED, Status.NOT_OPEN)]
    pressing = [one for one in asked if to_do(one[0])]
    if pressing:
        return min(pressing, key=lambda one: urgency(*one))[0]
    if not asked:
        return None
    return max(asked, key=lambda one: (_SETTLED.index(one[0].status), one[1] or _FAR))[0]


def quiet_days(last_work: date | None, since: date, today: date) -> int:
    """For how many local days nothing has come from a student, counted from when they could begin (``since``).

    By days, not moments: who worked on a Thursday is quiet for a week from the next Thursday's first minute on, so
    that the answer changes at midnight only.
    """
    return max(0, (today - max(last_work or since, since)).days)
