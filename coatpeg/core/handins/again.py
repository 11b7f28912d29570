"""Handing in again until it is due, and taking back.

Source: the product's *Locking*: where a hand-in lets students hand in again until it is due, its pockets lock at the
due moment instead, and *late* follows the newest submission (``standing.by_newest``). Decided here:

* It is each student's own due moment. Without one it may be handed in again until it is reviewed or has closed.
* What was reviewed is not handed in again by oneself: *sent back* opens it, *accepted* ends it. Its pockets stay open
  till the due moment all the same, and lock then, unless they open again once it is accepted.
* What comes after the due moment, and what staff hand in for a student, locks at once.
* Whoever is excused and asked again after all, or whose outcome is reopened, finds the pockets locked as usual; and a
  due moment that is moved to a later day opens nothing that has locked. *Sent back* opens it.
* Just what stands already is not handed in a second time.
* Where the hand-in lets them, students take back what they handed in until it is due for them, or has closed; without a
  due moment until it is reviewed. What comes late, or once more after *sent back*, stands at once: staff can send it
  back. What a group handed in together is taken back for all by the due moment of whoever
  does it.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.handins.standing import ONE_SECOND, Facts, Status


def has_come_due(due: datetime | None, now: datetime) -> bool:
    """Whether the due second has passed; never where there is none. Both are UTC moments."""
    return due is not None and now >= due + ONE_SECOND


def again_until_due(allowed: bool, facts: Facts, due: datetime | None, now: datetime) -> bool:
    """Whether a student may hand in once more what stands handed in; ``allowed``: its pockets were left open."""
    stands = facts.newest is not None and facts.outcome is None and not facts.excused
    return allowed and stands and not has_come_due(due, now)


def may_take_back(allowed: bool, due: datetime | None, now: datetime, *, closed: bool) -> bool:
    """Whether what a student handed in, and nobody has reviewed, may be taken back by them now."""
    return allowed and not closed and not has_come_due(due, now)


def locks_when_due(facts: Facts, submission: int, *, opens_again: bool) -> bool:
    """Whether pockets that a submission left open are to be locked once it is due.

    Not of one that another one followed, that was sent back, or whose acceptance lets the pockets open again.
    """
    if facts.newest != submission or facts.excused or facts.outcome is Status.SENT_BACK:
        return False
    return not (facts.outcome is Status.ACCEPTED and opens_again)
