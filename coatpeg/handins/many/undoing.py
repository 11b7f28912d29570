"""Undoing a deed on many, as far as nothing else has happened since; what has is left alone and counted.

A deed is found by the name that its events carry. Locks: what was locked is opened, what was opened is locked again as
it was, a hand-in's hold only where what it froze still stands. Handed in for students: taken back. Sent back and
accepted: reopened. Reopened: decided again as it was.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from coatpeg.core.errors import Gone
from coatpeg.core.handins.locking import STAFF
from coatpeg.core.handins.standing import Verb
from coatpeg.core.policy import Action
from coatpeg.events.models import Event
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.board.situation import situation
from coatpeg.handins.handing.holding import handed_in, release, take
from coatpeg.handins.many.holds import hold
from coatpeg.handins.many.locks import record
from coatpeg.handins.many.reopening import decide_again, fold, reopen, standing
from coatpeg.handins.models import HandIn, Submission
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.models import StandingHold
from coatpeg.portfolios.writing import lock_portfolios

VERBS = {
    Action.LOCK_POCKETS: ("pockets_locked", "pockets_unlocked"),
    Action.HAND_IN_FOR: (Verb.HANDED_IN.value,),
    Action.MARK: (Verb.SENT_BACK.value, Verb.ACCEPTED.value, Verb.REOPENED.value),
}
"""The events of deeds that can be undone, by who may: whoever may do it may undo it, also for a colleague."""


@dataclass(frozen=True, slots=True)
class Undone:
    """So many students are as before; so many are left, since something has happened since."""

    students: int
    left: int


def undo_deed(person: Person, group_id: int, action: Action, name: str, now: datetime) -> Undone:
    """Undo a deed on many of this action; ``Gone`` where there is none of that name."""
    require_in_group(person, action, group_id)
    events = Event.objects.filter(group_id=group_id, verb__in=VERBS[action], data__deed=name)
    found = list(events.order_by("number"))
    if not found:
        raise Gone("There is nothing of that to undo.", fix="Load the page again and look at how it stands.")
    verb = found[0].verb
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        if verb == "pockets_locked":
            done = _open(doing, found)
        elif verb == "pockets_unlocked":
            done = _lock_again(doing, person, found, now)
        else:
            undoes = {Verb.HANDED_IN.value: _take_back, Verb.REOPENED.value: decide_again}
            done = undoes.get(verb, reopen)(doing, found)
        return Undone(done, len({one.enrolment_id for one in found}) - done)


def _open(doing: Deed, events: Sequence[Event]) -> int:
    places = {(one.enrolment_id or 0, pocket) for one in events for pocket, _ in one.data["holds"]}
    own = StandingHold.objects.filter(
        handin_id=STAFF,
        portfolio__enrolment_id__in={one for one, _ in places},
        pocket_id__in={pocket for _, pocket in places},
        since=events[0].at,
    )
    released = release(own)
    record(doing, events[0].group_id, "pockets_unlocked", [(*one, STAFF) for one in released], "")
    return len({enrolment for enrolment, _ in released})


def _lock_again(doing: Deed, person: Person, events: Sequence[Event], now: datetime) -> int:
    group_id = events[0].group_id
    view = situation(group_id, now)
    present = {one.enrolment_id for one in view.members}
    there = set(
        StandingHold.objects.filter(portfolio__enrolment_id__in={one.enrolment_id for one in events}).values_list(
            "portfolio__enrolment_id", "pocket_id", "handin_id"
        )
    )
    wanted = {
        (one.enrolment_id or 0, pocket, handin)
        for one in events
        for pocket, handin in one.data["holds"]
        if one.enrolment_id in present
    } - there
    own = sorted((enrolment, pocket) for enrolment, pocket, handin in wanted if handin == STAFF)
    taken = [(*one, STAFF) for one in hold(view, own, now, person=person, reason=events[0].data["reason"])]
    for handin in HandIn.objects.filter(pk__in={one for *_, one in wanted}, taken_away_at=None):
        mine = {(enrolment, pocket) for enrolment, pocket, of in wanted if of == handin.pk}
        stands = mine & set(handed_in(handin, {pocket for _, pocket in mine}))
        taken += [(*one, handin.pk) for one in take(handin, sorted(stands), now)]
    record(doing, group_id, "pockets_locked", taken, "")
    return len({enrolment for enrolment, *_ in taken})


def _take_back(doing: Deed, events: Sequence[Event]) -> int:
    done = set()
    for handin_id, of in standing(events, None).items():
        Submission.objects.filter(pk__in=[one.submission_id for one in of]).update(voided_at=doing.now)
        mine = {one.enrolment_id or 0 for one in of}
        released = release(StandingHold.objects.filter(handin_id=handin_id, portfolio__enrolment_id__in=mine))
        fold(doing, handin_id, of, Verb.TAKEN_BACK, released)
        done |= mine
    return len(done)
