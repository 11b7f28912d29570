"""Reminding students of what they owe: one reminder each, however many pegs of theirs were chosen."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from coatpeg.core.handins.asking import is_closed
from coatpeg.core.handins.reminding import Owed, WhyNot, check, filled_in, reminded_today, why_not
from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.models import Reminder
from coatpeg.notices.putting import put_many
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person, TeachingGroup
from coatpeg.people.rosters import Member

Cell = tuple[int, int]
"""(enrolment id, hand-in id)"""


@dataclass(frozen=True, slots=True)
class Message:
    """What one student is told, of how many things; ``last`` is when they were reminded before."""

    enrolment: int
    name: str
    text: str
    handins: list[int]
    last: datetime | None


@dataclass(frozen=True, slots=True)
class Left:
    """Pegs that are nothing to remind of, or students who were reminded today; some of them by name."""

    why: WhyNot
    cells: int
    names: list[str]


@dataclass(frozen=True, slots=True)
class Reminded:
    """Who is told what, by the order of the class list, and who is not."""

    messages: list[Message]
    left: list[Left]


def remind(
    person: Person,
    group_id: int,
    cells: Sequence[Cell],
    words: str,
    now: datetime,
    *,
    again: bool = False,
    only_look: bool = False,
) -> Reminded:
    """Remind the students of these pegs; with ``again`` also those who were reminded in this school day."""
    require_in_group(person, Action.REMIND, group_id)
    words = check(words)
    if only_look:
        return _written(group_id, cells, words, now, again=again)
    with deed(person.pk, now) as doing:
        # Two members of staff at once: the second finds what the first has sent.
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        found = _written(group_id, cells, words, now, again=again)
        Reminder.objects.bulk_create(
            [
                Reminder(
                    group_id=group_id,
                    enrolment_id=one.enrolment,
                    person=person,
                    at=now,
                    text=one.text,
                    handins=one.handins,
                )
                for one in found.messages
            ],
            batch_size=500,
        )
        for one in found.messages:
            doing.record("reminded", group_id, enrolment_id=one.enrolment, handins=one.handins)
        made = Reminder.objects.filter(group_id=group_id, at=now, person=person).order_by("pk")
        about = [{"enrolment": one.enrolment_id, "reminder": one.pk} for one in made]
        put_many(doing, "reminded", group_id, about)
        return found


def _written(group_id: int, cells: Sequence[Cell], words: str, now: datetime, *, again: bool) -> Reminded:
    view = situation(group_id, now)
    left: dict[WhyNot, list[str]] = defaultdict(list)
    owing = _owing(view, cells, left)
    last = last_reminders(group_id)
    messages = []
    for member in view.members:
        handins = owing.get(member.enrolment_id)
        if not handins:
            continue
        before = last.get(member.enrolment_id)
        if not again and reminded_today(before, now, view.calendar):
            left[WhyNot.REMINDED] += [member.listed] * len(handins)
            continue
        messages.append(_message(view, member, handins, words, before))
    return Reminded(messages, [Left(why, len(names), sorted(set(names) - {""})) for why, names in left.items()])


def _owing(view: Situation, cells: Sequence[Cell], left: dict[WhyNot, list[str]]) -> dict[int, list[int]]:
    """By enrolment the hand-ins to remind of, in due order; what is none goes to ``left``."""
    members = {one.enrolment_id: one for one in view.members}
    closed = {one.id: is_closed(one.asked, view.calendar, view.now) for one in view.handins}
    found: dict[int, list[int]] = defaultdict(list)
    for enrolment, handin in dict.fromkeys(cells):
        member = members.get(enrolment)
        if member is None or handin not in closed:
            left[WhyNot.GONE].append(member.listed if member else "")
            continue
        last = member.student.enrolled.last
        gone = last is not None and last < view.today
        # Whoever has left writes nothing any more.
        why = WhyNot.LEFT if gone else why_not(view.standings[enrolment, handin], closed=closed[handin])
        if why is None:
            found[enrolment].append(handin)
        else:
            left[why].append(member.listed)
    places = {one.id: place for place, one in enumerate(view.handins)}
    return {enrolment: sorted(of, key=places.__getitem__) for enrolment, of in found.items()}


def _message(view: Situation, member: Member, handins: list[int], words: str, last: datetime | None) -> Message:
    titles = {one.id: one.title for one in view.handins}
    owed = []
    for handin in handins:
        cell = (member.enrolment_id, handin)
        standing = view.standings[cell]
        back = standing.status is Status.SENT_BACK
        owed.append(Owed(titles[handin], view.dues[cell].due, back, standing.overdue))
    text = filled_in(words, member.given_name, owed)
    return Message(member.enrolment_id, member.listed, text, handins, last)


def last_reminders(group_id: int) -> dict[int, datetime]:
    """When each student of a class was reminded last: one query."""
    return dict(Reminder.objects.filter(group_id=group_id).order_by("at").values_list("enrolment_id", "at"))
