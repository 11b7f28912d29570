"""The template of a running class: seeing it, what a change would mean, changing, retiring.

Every change names the version of the pocket it saw, runs in one deed and reaches all portfolios at once. A pocket with
student work is never deleted, only retired: still readable by its owner and staff.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db.models import Count

from coatpeg.core.errors import Invalid, Refused
from coatpeg.core.filling import PocketKind, Wanted, weekly
from coatpeg.core.log_columns import log_from_data, log_to_data, refuse_other_types
from coatpeg.core.outline_plan import Impact, PocketPlan, Seat, impact, refuse_other_kind
from coatpeg.core.policy import Action, decide
from coatpeg.core.standing import Status
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.models import HandIn
from coatpeg.handins.situation import Situation, situation
from coatpeg.outlines import editing
from coatpeg.outlines.models import Pocket, Template
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios import contents, logs
from coatpeg.portfolios.models import Evidence, LogRow, PocketContent

MOST_NAMED = 200
"""Students named in one answer; the number is told in full."""


@dataclass(frozen=True, slots=True)
class ToldImpact:
    """What a change means, with the students' names."""

    students: int
    impact: Impact
    to_open: tuple[str, ...]
    to_filled: tuple[str, ...]
    wanted: Wanted


def template_data(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The whole template of a class, how many have work in each pocket, which hand-ins collect it."""
    standings = require_in_group(person, Action.SEE_TEMPLATE, group_id)
    template = Template.objects.filter(group_id=group_id).prefetch_related("sections__pockets").first()
    working = _working(group_id)
    collected: dict[int, list[str]] = {}
    for pocket, title in HandIn.objects.filter(group_id=group_id).order_by("pk").values_list("pockets", "title"):
        collected.setdefault(pocket, []).append(title)
    return {
        "title": template.title if template else "",
        "may_change": template is not None and decide(Action.EDIT_TEMPLATE, standings).allowed,
        "sections": [
            {
                "id": section.pk,
                "title": section.title,
                "pockets": [
                    {
                        **pocket_data(pocket),
                        "with_work": working.get(pocket.pk, 0),
                        "handins": collected.get(pocket.pk, []),
                    }
                    for pocket in section.pockets.all()
                ],
            }
            for section in (template.sections.all() if template else ())
        ],
    }


def pocket_data(pocket: Pocket) -> dict[str, Any]:
    """A pocket's settings as plain data."""
    return {
        "id": pocket.pk,
        "title": pocket.title,
        "kind": pocket.kind,
        "directions": pocket.directions,
        "prompt": pocket.prompt,
        "artefacts": pocket.artefacts,
        "reflection_on_each": pocket.reflection_on_each,
        "measure": pocket.measure,
        "least": pocket.least,
        "most": pocket.most,
        "takes": pocket.takes,
        "starter": pocket.starter,
        "counts": pocket.counts,
        "opens": pocket.opens,
        "retired": pocket.retired_at is not None,
        "version": pocket.version,
        "rows": pocket.rows,
        "rows_per_week": pocket.rows_per_week,
        "log": log_to_data(log_from_data(pocket.log)),
    }


def _working(group_id: int) -> dict[int, int]:
    """How many students have work in each pocket."""
    rows = PocketContent.objects.filter(has_work=True, portfolio__enrolment__group_id=group_id)
    return dict(rows.values_list("pocket").annotate(number=Count("pk")))


def preview(person: Person, group_id: int, pocket_id: int, plan: PocketPlan, now: datetime) -> ToldImpact:
    """What changed settings of a pocket would mean; ``Invalid`` where they cannot be taken."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    pocket = editing.pocket_of(editing.template_of(group_id), pocket_id)
    return _told(group_id, pocket, _checked(group_id, pocket, plan), now)


def _checked(group_id: int, pocket: Pocket, plan: PocketPlan) -> PocketPlan:
    refuse_other_kind(pocket.title, PocketKind(pocket.kind), plan.kind, _working(group_id).get(pocket.pk, 0))
    checked, before = plan.checked(), log_from_data(pocket.log)
    refuse_other_types(before, checked.log, logs.used_columns(pocket, [one.key for one in before.columns]))
    return checked


def _told(group_id: int, pocket: Pocket, plan: PocketPlan, now: datetime) -> ToldImpact:
    """The impact on everybody who is in the class today."""
    view = situation(group_id, now, with_weeks=bool(plan.rows_per_week))
    names = {one.enrolment_id: one.listed for one in view.members}
    found = impact(_seats(view, pocket, plan))
    return ToldImpact(
        sum(1 for _ in _present(view)),
        found,
        tuple(names[one] for one in found.to_open[:MOST_NAMED]),
        tuple(names[one] for one in found.to_filled[:MOST_NAMED]),
        weekly(plan.wanted, view.weeks, pocket.opens or view.today, view.today),
    )


def _present(view: Situation) -> Iterator[Any]:
    return (one for one in view.members if one.student.enrolled.last is None or one.student.enrolled.last >= view.today)


def _seats(view: Situation, pocket: Pocket, plan: PocketPlan) -> Iterator[Seat]:
    """Every student of today towards the changed pocket."""
    outlined = next(one for one in view.outline if one.id == pocket.pk)
    for member in _present(view):
        key = (member.enrolment_id, pocket.pk)
        before = view.wanted(member, outlined)
        after = view.frozen.get(key) or view.asked(member, outlined, plan.wanted)
        yield Seat(member.enrolment_id, before, after, view.contents.get(key, contents.NO_CONTENT).pieces)


@contextmanager
def editing_template(person: Person, group_id: int, now: datetime) -> Iterator[tuple[Template, Deed]]:
    """A deed on a class's template, locked, by somebody who may change it."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    with deed(person.pk, now) as doing:
        yield editing.locked_template(group_id), doing


def change_pocket(
    person: Person, group_id: int, pocket_id: int, plan: PocketPlan, version: int, now: datetime
) -> tuple[Pocket, ToldImpact]:
    """Take changed settings of a pocket; returns it and what the change meant."""
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        editing.check_version(pocket, version)
        checked = _checked(group_id, pocket, plan)
        told = _told(group_id, pocket, checked, now)
        starter, log = pocket.starter, pocket.log
        editing.write_plan(pocket, checked)
        pocket.version += 1
        pocket.save()
        if pocket.starter != starter:
            _recount(pocket, now)
        logs.rejudge(pocket, log, now)
        doing.record("pocket_changed", group_id, pocket=pocket.pk, version=pocket.version)
        return pocket, told


def _recount(pocket: Pocket, now: datetime) -> None:
    """Count anew the few texts that read just like the new starter: they are no work now."""
    same = Evidence.objects.filter(pocket=pocket, removed_at=None, text=pocket.starter).select_related("portfolio")
    for one in same:
        contents.refresh(one.portfolio, pocket, now)


def add_section(person: Person, group_id: int, title: str, now: datetime) -> int:
    """Add a section; returns its id."""
    with editing_template(person, group_id, now) as (template, doing):
        section = editing.add_section(template, title)
        doing.record("section_added", group_id, section=section.pk)
        return section.pk


def change_section(person: Person, group_id: int, section_id: int, title: str, now: datetime) -> None:
    """Rename a section."""
    with editing_template(person, group_id, now) as (template, doing):
        editing.rename_section(editing.section_of(template, section_id), title)
        doing.record("section_changed", group_id, section=section_id)


def move_section(person: Person, group_id: int, section_id: int, before: int | None, now: datetime) -> None:
    """Put a section before another one, or at the end."""
    with editing_template(person, group_id, now) as (template, doing):
        editing.move_section(editing.section_of(template, section_id), before)
        doing.record("section_moved", group_id, section=section_id)


def remove_section(person: Person, group_id: int, section_id: int, now: datetime) -> None:
    """Take away an empty section."""
    with editing_template(person, group_id, now) as (template, doing):
        editing.remove_section(editing.section_of(template, section_id))
        doing.record("section_removed", group_id, section=section_id)


def add_pocket(person: Person, group_id: int, section_id: int, plan: PocketPlan, now: datetime) -> Pocket:
    """Add a pocket at the end of a section; every portfolio has it at once."""
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.add_pocket(editing.section_of(template, section_id), plan)
        doing.record("pocket_added", group_id, pocket=pocket.pk)
        return pocket


def move_pocket(
    person: Person, group_id: int, pocket_id: int, section_id: int, before: int | None, now: datetime
) -> None:
    """Put a pocket before another one of a section, or at its end."""
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        editing.move_pocket(pocket, editing.section_of(template, section_id), before)
        doing.record("pocket_moved", group_id, pocket=pocket_id)


def set_retired(person: Person, group_id: int, pocket_id: int, now: datetime, *, retired: bool) -> None:
    """Retire a pocket or bring it back. Refused where a hand-in that is still under way collects it alone."""
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        if (pocket.retired_at is not None) == retired:
            return
        if retired:
            refuse_collected_alone(group_id, pocket, now)
        editing.set_retired(pocket, now if retired else None)
        doing.record("pocket_retired" if retired else "pocket_restored", group_id, pocket=pocket_id)


def refuse_collected_alone(group_id: int, pocket: Pocket, now: datetime) -> None:
    """A hand-in is under way while anybody still has to hand it in."""
    view = situation(group_id, now)
    waiting = (Status.NOT_OPEN, Status.EMPTY, Status.WORKING, Status.SENT_BACK)
    for handin in view.handins:
        others = [one for one in view.outline if one.id in handin.pockets and one.id != pocket.pk and not one.retired]
        open_for = [one for one in _present(view) if view.standings[one.enrolment_id, handin.id].status in waiting]
        if pocket.pk in handin.pockets and not others and open_for:
            raise Refused(
                f"“{handin.title}” collects only this pocket, and {len(open_for)} students still have to hand it in.",
                where=pocket.title,
                fix="Let the hand-in collect another pocket too, or wait until it is done.",
            )


def remove_pocket(person: Person, group_id: int, pocket_id: int, now: datetime) -> None:
    """Take away a pocket in which nobody ever put anything and that no hand-in names."""
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        used = Evidence.objects.filter(pocket=pocket).exists() or LogRow.objects.filter(pocket=pocket).exists()
        if used or HandIn.objects.filter(pockets=pocket).exists():
            raise Invalid(
                f"“{pocket.title}” holds work or belongs to a hand-in.",
                where=pocket.title,
                fix="Retire it: it stays readable and is asked for no more.",
            )
        doing.record("pocket_removed", group_id, pocket=pocket_id)
        PocketContent.objects.filter(pocket=pocket).delete()
        pocket.delete()
