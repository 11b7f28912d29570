"""What staff of the main class did lately: filters kept, reminders, work from paper, a lock, a closed hand-in."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime, timedelta
from decimal import Decimal

from coatpeg.core.handins.asking import Due
from coatpeg.core.marking.sheet import Rule
from coatpeg.handins.asked.setting import plan_of
from coatpeg.handins.board.situation import situation
from coatpeg.handins.changing import commands as changing
from coatpeg.handins.filters import keeping
from coatpeg.handins.many import closing, handing_for, locks
from coatpeg.handins.many.choosing import Seen
from coatpeg.handins.models import Closing, HandIn, Outcome
from coatpeg.handins.reminding import commands as reminding
from coatpeg.marking import commands as marking
from coatpeg.marking.phrases import keeping as phrases
from coatpeg.marking.sheet.ruling import change_rule
from coatpeg.people.models import Person
from demo.words import NEXT

FILTERS = (
    ("P3 owing", "show=overdue&period=P3", True),
    ("To mark, oldest last", "show=to_mark&order=last", False),
)
PHRASES = (
    ("Well begun, {name}. What would you do differently next time?", True),
    (NEXT[3], True),
    (NEXT[0], True),
    ("Still missing of {handin}: {missing}. Hand it in again once it is there.", False),
)
WORDS = "Hello {name}, these are still missing:\n{missing}\nBring them on Friday, or hand them in from home."


def lately(teacher: Person, group_id: int, now: datetime) -> None:
    """Do all of it, a little before ``now``."""
    for name, address, shared in FILTERS:
        keeping.keep(teacher, group_id, name, address, shared=shared)
    for text, shared in PHRASES:
        phrases.keep(teacher, group_id, text, now, shared=shared)
    _read(group_id, now)
    recipe = HandIn.objects.get(group_id=group_id, title="Recipe card")
    change_rule(teacher, group_id, Rule({recipe.pk: Decimal(40)}), 0, now)
    at = now - timedelta(days=2)
    view = situation(group_id, at)
    owing = [cell for cell, standing in view.standings.items() if standing.overdue and view.facts.get(cell) is None]
    reminding.remind(teacher, group_id, owing, WORDS, at)
    on_paper = [Seen(handin, one, view.standings[one, handin].status) for one, handin in owing[:1]]
    received = handing_for.Received(Due((at - timedelta(days=1)).date()), "paper")
    handing_for.hand_in_for(teacher, group_id, on_paper, received, at + timedelta(hours=3))
    _closed(teacher, group_id, now - timedelta(days=1))
    pocket = next(one for one in view.outline if one.title == "Useful finds")
    shown = locks.Locking(locked=True, reason="On show in the hall until Friday.")
    first = [one.enrolment_id for one in view.members[:2]]
    locks.lock_pocket(teacher, group_id, pocket.id, first, shown, now - timedelta(hours=20))


def _read(group_id: int, now: datetime) -> None:
    """Most of what came back lately was read the day after."""
    standing = Outcome.objects.filter(submission__handin__group_id=group_id, submission__voided_at=None, voided_at=None)
    back = standing.filter(at__lt=now - timedelta(days=2)).select_related("submission__enrolment__person")
    for place, one in enumerate(back.order_by("-at", "pk")[:60]):
        if place % 4:
            marking.have_read(one.submission.enrolment.person, one.submission_id, one.at + timedelta(days=1))


def _closed(teacher: Person, group_id: int, at: datetime) -> None:
    """The first hand-in takes nothing more: what was handed in is locked."""
    first = HandIn.objects.filter(group_id=group_id).order_by("due_day", "pk")[0]
    plan = replace(plan_of(first), closes=Due((at - timedelta(days=1)).date()), closing=Closing.LOCK_HANDED_IN.value)
    changing.change_handin(teacher, group_id, first.pk, plan, first.version, at)
    closing.close(first.pk, at)
