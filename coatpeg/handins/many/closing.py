"""What a hand-in does by itself once it has closed: nothing, lock, or take in what stands.

Source: the product's *Locking*. Decided here: it is carried out once, by a worker, seconds after it closed; what is
taken in as it stands counts from the moment of closing, is marked as such, is never of a student whose pockets hold no
work, and never the next one of what was sent back. A lock for all is of everybody who is asked and not excused.
Moved to a later day, or closing no more, the hand-in lets go of the holds that its closing took (``changing``).
"""

from __future__ import annotations

from datetime import datetime, timedelta
from uuid import uuid4

from django.db.models import QuerySet
from django.utils import timezone

from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.standing import Status
from coatpeg.events.recording import deed
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.handing.holding import Held, handed_in, take
from coatpeg.handins.many.choosing import Chosen
from coatpeg.handins.many.handing_for import submit
from coatpeg.handins.many.holds import hold
from coatpeg.handins.models import Closing, HandIn
from coatpeg.jobs.kinds import Kind, job
from coatpeg.people.calendars import school_calendar
from coatpeg.portfolios.writing import lock_portfolios

ONE_SECOND = timedelta(seconds=1)
_LOCKED = {Status.WORKING, Status.EMPTY, Status.SENT_BACK, Status.HANDED_IN, Status.ACCEPTED, Status.NOT_OPEN}


def _waiting(now: datetime) -> QuerySet[HandIn]:
    """Hand-ins whose closing may have to be carried out: closed today or before."""
    found = HandIn.objects.filter(closed_at=None, taken_away_at=None, draft=False).exclude(closing=Closing.NOTHING)
    return found.filter(closes_day__lte=school_calendar().local_day(now))


def closes_at(handin: HandIn) -> datetime | None:
    """The moment from which it takes nothing more; None where it never closes."""
    if handin.closes_day is None:
        return None
    return Due(handin.closes_day, handin.closes_time).moment(school_calendar()) + ONE_SECOND


def is_due() -> bool:
    """Whether any hand-in has closed and what it does then is not done."""
    now = timezone.now()
    return any((closes_at(one) or now) <= now for one in _waiting(now))


@job(Kind("what hand-ins do when they close"))
def close_all() -> int:
    """Carry out every closing whose time has come; returns how many."""
    now = timezone.now()
    return sum(close(pk, now) for pk in list(_waiting(now).values_list("pk", flat=True)))


def close(handin_id: int, now: datetime) -> bool:
    """Carry out one closing, in a transaction of its own; False where there is nothing to do any more."""
    group_id = HandIn.objects.values_list("group_id", flat=True).get(pk=handin_id)
    with deed(None, now) as doing:
        lock_portfolios(group_id)
        handin = _waiting(now).select_for_update().filter(pk=handin_id).first()
        at = closes_at(handin) if handin else None
        if handin is None or at is None or at > now:
            return False
        handin.closed_at = now
        handin.save(update_fields=["closed_at"])
        view = situation(group_id, now, handin=handin_id)
        taken: list[Held] = []
        if handin.closing == Closing.AS_IT_STANDS:
            cells = _cells(view, handin, {Status.WORKING})
            if cells:
                submit(doing, None, handin, cells, view, at - ONE_SECOND, Closing.AS_IT_STANDS, str(uuid4()))
        else:
            pockets = {one.pk for one in handin.pockets.all()}
            taken = take(handin, handed_in(handin, pockets), now)
            if handin.closing == Closing.LOCK_ALL:
                cells = _cells(view, handin, _LOCKED)
                places = [(one.member.enrolment_id, pocket) for one in cells for pocket in one.handin.pockets]
                taken += hold(view, places, now, handin=handin)
        doing.record("handin_closed", group_id, handin_id=handin.pk, taken=taken)
        return True


def _cells(view: Situation, handin: HandIn, statuses: set[Status]) -> list[Chosen]:
    column = next(one for one in view.handins if one.id == handin.pk)
    return [
        Chosen(column, one, status, view.dues[one.enrolment_id, handin.pk].due)
        for one in view.members
        if (status := view.standings[one.enrolment_id, handin.pk].status) in statuses
    ]
