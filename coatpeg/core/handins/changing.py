"""What a change of a hand-in means: each student's answer and standing before and after, counted.

Source: the product's *A hand-in changed after submissions*. Snapshots, outcomes and released scores stay as they are;
only what is judged when it is read moves: who is asked, when it is due, what is late and overdue.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from coatpeg.core.handins.asking import Due, EffectiveDue
from coatpeg.core.handins.standing import Standing, Status

ASKED_NOT = (Status.NOT_ASKED,)
IN = (Status.HANDED_IN, Status.ACCEPTED, Status.SENT_BACK)


@dataclass(frozen=True, slots=True)
class Moves:
    """How many students a change moves, and where. ``kept`` have handed in: what they gave stays as it was."""

    newly_asked: int = 0
    no_longer_asked: int = 0
    dues_moved: int = 0
    now_overdue: int = 0
    no_longer_overdue: int = 0
    now_late: int = 0
    no_longer_late: int = 0
    kept: int = 0


def moves(pairs: Iterable[tuple[tuple[Standing, EffectiveDue], tuple[Standing, EffectiveDue]]]) -> Moves:
    """Count over students, each as (before, after), each of these as (standing, due)."""
    newly = no_longer = dues = overdue = not_overdue = late = not_late = kept = 0
    for (was, old), (then, new) in pairs:
        asked, asked_then = was.status not in ASKED_NOT, then.status not in ASKED_NOT
        newly += asked_then and not asked
        no_longer += asked and not asked_then
        dues += asked and asked_then and old.moment != new.moment
        overdue += then.overdue and not was.overdue
        not_overdue += was.overdue and not then.overdue
        late += then.late and not was.late
        not_late += was.late and not then.late
        kept += then.status in IN
    return Moves(newly, no_longer, dues, overdue, not_overdue, late, not_late, kept)


def earlier_than_class(own: Due, unmoved: Due | None) -> bool:
    """Whether a date that staff gave one student is now earlier than what everybody else has."""
    return unmoved is not None and own.day < unmoved.day
