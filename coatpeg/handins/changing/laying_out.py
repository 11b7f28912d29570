"""The hand-ins of another class, last year's for one, laid on the weeks of this one: as drafts, in one deed.

Decided here: each lies on the same school week of this class's term, with the pockets and periods that it has a
counterpart for here (``reading.like``). Left out, and told, is what has no pocket here, what stands here already under
the same title, and what would lie outside the class's days. Each stands alone here, also what was one of a series. They
are drafts: nobody is asked until somebody looks at one and sets it. Undone as one, as far as nobody has set or
changed one since.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date, datetime
from uuid import uuid4

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.policy import Action
from coatpeg.events.models import Event
from coatpeg.events.recording import deed
from coatpeg.handins.asked import setting
from coatpeg.handins.asked.setting import Plan
from coatpeg.handins.changing.reading import plan_in_class
from coatpeg.handins.models import HandIn
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person, TeachingGroup


@dataclass(frozen=True, slots=True)
class LaidLine:
    """One hand-in of the other class; ``why`` it is left out, empty where it is laid out."""

    title: str
    opens: date
    due: date | None
    why: str


@dataclass(frozen=True, slots=True)
class LaidOut:
    """What is laid out and what is left out, in due order; ``deed`` names it for the undo."""

    lines: list[LaidLine]
    deed: str

    @property
    def laid(self) -> int:
        """How many are laid out."""
        return sum(1 for one in self.lines if not one.why)


def lay_out(person: Person, group_id: int, source_id: int, now: datetime, *, only_look: bool = False) -> LaidOut:
    """Lay out the hand-ins of another class here, as drafts; with ``only_look`` it is said what would be."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    require_in_group(person, Action.SEE_HANDINS, source_id)
    if only_look:
        return LaidOut([line for line, _ in _plans(group_id, source_id)], "")
    name = str(uuid4())
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        made, lines = [], []
        for line, plan in _plans(group_id, source_id):
            lines.append(line)
            if plan is not None:
                handin = HandIn(group_id=group_id)
                setting.write(handin, plan)
                made.append(handin.pk)
        if made:
            doing.record("handins_laid_out", group_id, source=source_id, handins=made, deed=name)
        return LaidOut(lines, name)


def _plans(group_id: int, source_id: int) -> Iterator[tuple[LaidLine, Plan | None]]:
    """Each hand-in of the other class with its plan here; None where it is left out."""
    here = set(HandIn.objects.filter(group_id=group_id, taken_away_at=None).values_list("title", flat=True))
    rows = HandIn.objects.filter(group_id=source_id, taken_away_at=None).prefetch_related("pockets", "periods")
    plans = [replace(plan_in_class(one, group_id), draft=True) for one in rows]
    for plan in sorted(plans, key=lambda one: (min(one.days, default=date.max), one.title)):
        why = _why_not(plan, group_id, here)
        here.add(plan.title)
        line = LaidLine(plan.title, plan.opens, min(plan.days, default=None), why)
        yield line, None if why else plan


def _why_not(plan: Plan, group_id: int, here: set[str]) -> str:
    if not plan.pockets and not plan.anything:
        return "no_pocket"
    if plan.title in here:
        return "here"
    try:
        setting.check(group_id, plan)
    except Invalid:
        return "days"
    return ""


@dataclass(frozen=True, slots=True)
class TakenUp:
    """So many drafts are gone again; so many were set or changed since and stay."""

    drafts: int
    left: int


def take_up(person: Person, group_id: int, name: str, now: datetime) -> TakenUp:
    """Undo a laying out: its drafts go, but for those that were set or changed since."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    laid = Event.objects.filter(verb="handins_laid_out", group_id=group_id, data__deed=name).first()
    if laid is None:
        raise Gone("There is nothing of that to undo.", fix="Load the page again and look at how it stands.")
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        named = HandIn.objects.filter(pk__in=laid.data["handins"], group_id=group_id)
        going = list(named.filter(draft=True, version=1, taken_away_at=None).select_for_update())
        left = named.count() - len(going)
        for one in going:
            doing.record("handin_taken_back", group_id, handin_id=one.pk)
            one.delete()
        return TakenUp(len(going), left)
