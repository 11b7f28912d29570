"""What a change of a hand-in would mean, before it is made."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime

from coatpeg.core.errors import Gone
from coatpeg.core.handins.asking import effective_due
from coatpeg.core.handins.changing import Moves, earlier_than_class, moves
from coatpeg.core.handins.standing import NOT_ASKED, Status
from coatpeg.core.policy import Action
from coatpeg.handins.asked import files, setting
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.asked.overlapping import overlaps
from coatpeg.handins.asked.setting import Plan, Preview
from coatpeg.handins.board.situation import Situation, as_if, situation
from coatpeg.handins.changing.judged import Judged, by_change
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person


@dataclass(frozen=True, slots=True)
class OwnDate:
    """A student whose own date is now earlier than the class's."""

    name: str
    day: date


@dataclass(frozen=True, slots=True)
class Impact:
    """What a change means. ``scored`` were reviewed: their released scores stay as they are out of the old points."""

    preview: Preview
    moves: Moves
    own_earlier: list[OwnDate]
    added: list[str]
    removed: list[str]
    scored: int
    judged: Judged
    """What another rubric does to drafts and released marks."""


def wanted_handin(group_id: int, handin_id: int, *, lock: bool = False) -> HandIn:
    """A hand-in of this class that is not taken away; ``Gone`` otherwise."""
    rows = HandIn.objects.select_for_update() if lock else HandIn.objects
    handin = rows.filter(pk=handin_id, group_id=group_id).first()
    if handin is None:
        raise Gone("There is no such hand-in in this class.", fix="Go back to the hand-ins.")
    if handin.taken_away_at is not None:
        raise Gone(f"“{handin.title}” was taken away.", fix="Bring it back under Hand-ins first.")
    return handin


def preview_change(person: Person, group_id: int, handin_id: int, plan: Plan, now: datetime) -> Impact:
    """What this change would mean for whom; raises ``Invalid`` for what cannot be set."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    files.check(person, plan.files)
    return impact(wanted_handin(group_id, handin_id), plan, now)


def impact(handin: HandIn, plan: Plan, now: datetime) -> Impact:
    """The same of a hand-in at hand."""
    before = setting.plan_of(handin)
    setting.check(handin.group_id, plan, before.pockets)
    view = situation(handin.group_id, now, handin=handin.pk)
    old = next((one for one in view.handins if one.id == handin.pk), None)
    new = setting.asked_by(plan, handin.pk, old.own if old else {})
    column = as_if(view, new)
    pairs = []
    for member, answer, then in zip(view.members, column.answers, column.standings, strict=True):
        cell = (member.enrolment_id, handin.pk)
        # A draft asks nobody yet.
        was = (view.standings[cell], view.dues[cell]) if old else (NOT_ASKED, answer.due)
        pairs.append((was, (then, answer.due)))
    titles = dict(Pocket.objects.filter(pk__in={*before.pockets, *plan.pockets}).values_list("pk", "title"))
    worth = (before.points, before.step) != (plan.points, plan.step)
    accepted = sum(1 for one in column.standings if one.status is Status.ACCEPTED)
    answers = list(zip(view.members, column.answers, strict=True))
    beside = overlaps(handin.group_id, new, answers, view.calendar)
    return Impact(
        preview=setting.told(plan, answers, view.calendar, now, beside),
        moves=moves(pairs),
        own_earlier=list(_own_earlier(view, new)),
        added=[titles[one] for one in plan.pockets if one not in before.pockets],
        removed=[titles[one] for one in before.pockets if one not in plan.pockets],
        scored=accepted if worth and before.points is not None else 0,
        judged=by_change(handin, plan.rubric and plan.rubric.checked()),
    )


def _own_earlier(view: Situation, new: AskedHandIn) -> Iterator[OwnDate]:
    for member in view.members:
        own = new.own.get(member.enrolment_id)
        if own is not None:
            for_all = effective_due(new.asked, member.student, None, view.calendar)
            if earlier_than_class(own, for_all.due):
                yield OwnDate(member.listed, own.day)
