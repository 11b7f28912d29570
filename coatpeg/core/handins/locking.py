"""Holds: why a pocket is locked, and what releases it.

Source: the product's *Locking*. A pocket is locked while any hold stands. Decided here: taking a
submission back and excusing release that hand-in's holds only; reopening a *sent back*, or ending an
excuse where a submission stands, takes the hand-in's holds again. A hold of the staff's own (``STAFF``) is let go of
by the staff alone: *sent back* leaves it. Staff who open a pocket let go of whatever holds it, also of what was handed
in: it stays handed in as it was, and work goes on in the pocket.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from coatpeg.core.errors import Invalid, Refused
from coatpeg.core.handins.standing import Verb

STAFF = 0
"""Stands for the hand-in of a hold that staff took themselves."""


@dataclass(frozen=True, slots=True, order=True)
class Hold:
    """A hold on one pocket of one portfolio: a hand-in's, or the staff's own."""

    pocket: int
    handin: int


@dataclass(frozen=True, slots=True)
class HoldHappening:
    """One event that takes or releases holds: of a hand-in, on pockets."""

    verb: Verb
    handin: int
    pockets: frozenset[int]


def after(holds: frozenset[Hold], happening: HoldHappening) -> frozenset[Hold]:
    """The holds that stand after one happening. *Sent back* releases every hand-in's hold on the named pockets."""
    own = frozenset(Hold(pocket, happening.handin) for pocket in happening.pockets)
    if happening.verb in (Verb.HANDED_IN, Verb.REOPENED, Verb.UNEXCUSED):
        return holds | own
    if happening.verb is Verb.SENT_BACK:
        return frozenset(hold for hold in holds if hold.handin == STAFF or hold.pocket not in happening.pockets)
    if happening.verb in (Verb.TAKEN_BACK, Verb.EXCUSED):
        return holds - own
    return holds


def fold_holds(happenings: Iterable[HoldHappening]) -> frozenset[Hold]:
    """The holds that stand after a history of happenings of one portfolio, in order."""
    standing: frozenset[Hold] = frozenset()
    for happening in happenings:
        standing = after(standing, happening)
    return standing


def refuse_if_locked(pocket: str, held_by: Iterable[str], *, by_staff: bool = False) -> None:
    """Raise ``Refused`` where a pocket is held; names the hand-ins (by title) that hold it, or says that staff do."""
    titles = sorted(held_by)
    if not titles and not by_staff:
        return
    why = f"it was handed in for {' and '.join(f'“{title}”' for title in titles)}" if titles else ""
    staff = "your teacher locked it" if by_staff else ""
    raise Refused(
        f"“{pocket}” is locked: {'; '.join(one for one in (staff, why) if one)}.",
        where=pocket,
        fix="You can still read it. "
        + ("Ask your teacher to open it." if by_staff else "It opens again if your teacher sends it back."),
        more={"locked": True},
    )


def pockets_to_send_back(collected: frozenset[int], chosen: frozenset[int]) -> frozenset[int]:
    """The pockets a *sent back* names: all that were collected, unless fewer are chosen."""
    if not chosen:
        return collected
    if not chosen <= collected:
        raise Invalid(
            "A pocket was named that this hand-in did not collect.",
            where="pockets",
            fix="Choose among the pockets of the submission.",
        )
    return chosen
