"""Pockets that were left open since one may hand in again: locked once it is due, by a worker, seconds after.

Decided here: when that will be is kept with each submission and worked out anew once a minute, since a due moment moves
with the hand-in, a date of one's own, an adjustment, the calendar and the period; a hand-in that does not let students
hand in again any more locks within that minute. All of a class that lock at once are one event a hand-in.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, field
from datetime import datetime

from django.db.models import QuerySet
from django.utils import timezone

from coatpeg.core.handins.again import has_come_due, locks_when_due
from coatpeg.events.recording import deed
from coatpeg.handins.board.situation import facts_in, situation
from coatpeg.handins.handing.holding import Held, take
from coatpeg.handins.models import HandIn, Submission
from coatpeg.jobs.kinds import Kind, job
from coatpeg.portfolios.writing import lock_portfolios


def _left_open() -> QuerySet[Submission]:
    return Submission.objects.filter(left_open=True, voided_at=None, handin__taken_away_at=None)


def is_due() -> bool:
    """Whether any that was left open has come due, as far as was worked out last."""
    return _left_open().filter(open_until__lt=timezone.now()).exists()


def is_any() -> bool:
    """Whether anything is left open at all."""
    return _left_open().exists()


@job(Kind("what locks once it is due"))
def lock_all() -> int:
    """Lock whatever has come due and work out anew when the rest does; returns how many pockets were locked."""
    now = timezone.now()
    groups = sorted(set(_left_open().values_list("handin__group_id", flat=True)))
    return sum(lock(group_id, now) for group_id in groups)


@dataclass
class _Found:
    """What was left open in a class: whose moment is another one now, what is over, and what of that locks."""

    later: list[Submission] = field(default_factory=list)
    over: list[int] = field(default_factory=list)
    locking: dict[HandIn, list[Submission]] = field(default_factory=lambda: defaultdict(list))


def _look(group_id: int, now: datetime) -> _Found:
    rows = list(_left_open().filter(handin__group_id=group_id).select_related("handin").defer("snapshot"))
    view = situation(group_id, now, enrolments={one.enrolment_id for one in rows})
    found = _Found()
    for one in rows:
        due = view.dues.get((one.enrolment_id, one.handin_id))
        moment = due.moment if due else None
        if one.handin.again and not has_come_due(moment, now):
            if one.open_until != moment:
                one.open_until = moment
                found.later.append(one)
            continue
        found.over.append(one.pk)
        facts = facts_in(view, one.enrolment_id, one.handin_id)
        if locks_when_due(facts, one.pk, opens_again=one.handin.opens_again):
            found.locking[one.handin].append(one)
    return found


def lock(group_id: int, now: datetime) -> int:
    """The same for one class, in a transaction of its own; nobody waits for it where there is nothing to do."""
    seen = _look(group_id, now)
    if not seen.later and not seen.over:
        return 0
    with deed(None, now) as doing:
        lock_portfolios(group_id)
        found = _look(group_id, now)
        Submission.objects.bulk_update(found.later, ["open_until"], batch_size=500)
        Submission.objects.filter(pk__in=found.over).update(left_open=False, open_until=None)
        count = 0
        for handin, of in sorted(found.locking.items(), key=lambda one: one[0].pk):
            pockets = sorted(handin.pockets.values_list("pk", flat=True))
            held: list[Held] = [(one.enrolment_id, pocket) for one in of for pocket in pockets]
            taken = take(handin, held, now)
            count += len(taken)
            doing.record("handin_came_due", group_id, handin_id=handin.pk, taken=taken)
        return count
