"""The template of a running class: seeing it, what a change would mean, changing, retiring.

Every change names the version of the pocket it saw, runs in one deed and reaches all portfolios at once. A pocket with
student work is never deleted, only retired: still readable by its owner and staff.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Any

from django.core.files.base import File
from django.db import transaction
from django.db.models import Count

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.filling import Company, PocketKind, Shared, Wanted, weekly
from coatpeg.core.outlines.plan import (
    Impact,
    PocketPlan,
    StudentPocket,
    impact,
    refuse_other_kind,
    refuse_other_sharing,
)
from coatpeg.core.outlines.settings import plan_to_data
from coatpeg.core.outlines.versions import nowhere, variants_to_data
from coatpeg.core.policy import Action, decide
from coatpeg.core.portfolios.log_columns import log_from_data, refuse_other_types
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.changing.following import follow
from coatpeg.handins.models import HandIn
from coatpeg.outlines import dealing, editing, given_files, repeating
from coatpeg.outlines.models import GivenFile, Pocket, Section, Template
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import GroupSet, Period, Person, WorkingGroup
from coatpeg.people.rosters import Member, members
from coatpeg.portfolios import counting
from coatpeg.portfolios.logs import rows as logs
from coatpeg.portfolios.models import PocketContent
from coatpeg.setup.template import effects
from coatpeg.sharing.models import SharedPage

MOST_NAMED = 200
"""Students named in one answer; the number is told in full."""


@dataclass(frozen=True, slots=True)
class ImpactReport:
    """What a change means, with the students' names."""

    students: int
    impact: Impact
    to_open: tuple[str, ...]
    to_filled: tuple[str, ...]
    wanted: Wanted
    versions: Mapping[str, list[Member]] = field(default_factory=dict)
    """Who has which version, by its key."""
    nowhere: tuple[str, ...] = ()
    """Students in no period or group that a version names."""


def template_data(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """The whole template of a class, how many have work in each pocket, which hand-ins collect it."""
    standings = require_in_group(person, Action.SEE_TEMPLATE, group_id)
    whole = ("sections__pockets", "sections__unit", "sections__units")
    template = Template.objects.filter(group_id=group_id).prefetch_related(*whole).first()
    working = _working(group_id)
    given = given_files.of_group(group_id)
    collected: dict[int, list[str]] = {}
    for pocket, title in (
        HandIn.objects.filter(group_id=group_id, taken_away_at=None).order_by("pk").values_list("pockets", "title")
    ):
        collected.setdefault(pocket, []).append(title)
    return {
        "title": template.title if template else "",
        "periods": list(Period.objects.filter(group_id=group_id).values("id", "name")),
        "groups": list(WorkingGroup.objects.filter(group_id=group_id).order_by("name").values("id", "name")),
        "sets": list(GroupSet.objects.filter(group_id=group_id).order_by("pk").values_list("name", flat=True)),
        "may_change": template is not None and decide(Action.EDIT_TEMPLATE, standings).allowed,
        "sections": [
            {
                "id": section.pk,
                "title": section.title,
                "repeats": section.repeats,
                "of": section.unit.pattern_id if section.unit else None,
                "version": section.version,
                "units": repeating.units_as_data(repeating.units_of(section)) if section.repeats else [],
                "pockets": [
                    {
                        **pocket_data(pocket),
                        "files": [given_files.file_data(one) for one in given.get(pocket.pk, ())],
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
        **plan_to_data(editing.plan_of(pocket)),
        "id": pocket.pk,
        "retired": pocket.retired_at is not None,
        "version": pocket.version,
        "laid": pocket.pattern_id is not None,
    }


def _working(group_id: int) -> dict[int, int]:
    """How many students have work in each pocket."""
    rows = PocketContent.objects.filter(has_work=True, portfolio__enrolment__group_id=group_id)
    return dict(rows.values_list("pocket").annotate(number=Count("pk")))


def preview(
    person: Person,
    group_id: int,
    pocket_id: int,
    plan: PocketPlan,
    now: datetime,
    by_hand: Mapping[int, str] | None = None,
) -> ImpactReport:
    """What changed settings of a pocket would mean; ``Invalid`` where they cannot be taken."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    pocket = editing.pocket_of(editing.template_of(group_id), pocket_id)
    checked = _checked(group_id, pocket, plan)
    if pocket.section.repeats:
        return _report_units(person, group_id, pocket, checked, now)
    return _report(group_id, pocket, checked, now, by_hand)


def _checked(group_id: int, pocket: Pocket, plan: PocketPlan) -> PocketPlan:
    editing.refuse_laid(pocket)
    working = _working(group_id)
    laid_out = (pocket, *(pocket.laid.all() if pocket.section.repeats else ()))
    with_work = max(working.get(one.pk, 0) for one in laid_out)
    refuse_other_kind(pocket.title, PocketKind(pocket.kind), plan.kind, with_work)
    before_it = Company(Shared(pocket.shared), pocket.group_set)
    if plan.company != before_it and not with_work:
        # What was written together a moment ago lies in no portfolio yet.
        with_work = SharedPage.objects.filter(pocket__in=laid_out, number__gt=0).count()
    refuse_other_sharing(pocket.title, before_it, plan.company, with_work)
    checked, before = plan.checked(), log_from_data(pocket.log)
    keys = [one.key for one in before.columns]
    written = frozenset(key for one in laid_out for key in logs.used_columns(one, keys))
    refuse_other_types(before, checked.log, written)
    return for_its_section(pocket.section, checked)


def for_its_section(section: Section, plan: PocketPlan) -> PocketPlan:
    """Once for each question only in a pattern; versions only outside of one."""
    if not section.repeats:
        return replace(plan, each_question=False)
    if plan.variants:
        raise Invalid(
            "A pocket of a pattern has one version.", where="variants", fix="Let the units or questions differ."
        )
    return plan


def _report_units(person: Person, group_id: int, pocket: Pocket, plan: PocketPlan, now: datetime) -> ImpactReport:
    """The impact of a changed pattern, over all that it lays out."""

    def change() -> None:
        editing.write_plan(pocket, plan)
        pocket.save()
        effects.relay(Deed(person.pk, now), group_id, pocket.section)

    view, found = effects.meaning(group_id, now, change)
    return ImpactReport(
        sum(1 for _ in effects.present(view)),
        found,
        effects.names_of(view, found.to_open[:MOST_NAMED]),
        effects.names_of(view, found.to_filled[:MOST_NAMED]),
        plan.wanted,
    )


def _report(
    group_id: int, pocket: Pocket, plan: PocketPlan, now: datetime, by_hand: Mapping[int, str] | None = None
) -> ImpactReport:
    """The impact on everybody who is in the class today."""
    view = situation(group_id, now, with_weeks=bool(plan.rows_per_week))
    found = impact(_student_pockets(view, pocket, plan))
    versions: dict[str, list[Member]] = {}
    nobodys: tuple[int, ...] = ()
    if plan.variants:
        here = list(effects.present(view))
        whose = dealing.planned(pocket, plan.variants, group_id, here, by_hand, counting.at_work(pocket))
        versions = {one.key: [] for one in plan.variants.versions}
        for member in here:
            versions[whose[member.enrolment_id]].append(member)
        nobodys = nowhere(plan.variants, dealing.holders(group_id, here))
    return ImpactReport(
        sum(1 for _ in effects.present(view)),
        found,
        effects.names_of(view, found.to_open[:MOST_NAMED]),
        effects.names_of(view, found.to_filled[:MOST_NAMED]),
        weekly(plan.wanted, view.weeks, pocket.opens or view.today, view.today),
        versions,
        effects.names_of(view, nobodys[:MOST_NAMED]),
    )


def _student_pockets(view: Situation, pocket: Pocket, plan: PocketPlan) -> Iterator[StudentPocket]:
    """Every student of today towards the changed pocket."""
    outlined = next((one for one in view.outline if one.id == pocket.pk), None)
    if outlined is None:  # taken away, or a lay-out undone, in this moment
        raise Gone(f"“{pocket.title}” is not in the template any more.", fix="Load the template again.")
    for member in effects.present(view):
        key = (member.enrolment_id, pocket.pk)
        before = view.wanted(member, outlined)
        after = view.frozen.get(key) or view.asked(member, outlined, plan.wanted)
        yield StudentPocket(member.enrolment_id, before, after, view.contents.get(key, counting.NO_CONTENT).pieces)


_UNDER_WAY: ContextVar[tuple[int, Template, Deed] | None] = ContextVar("_UNDER_WAY", default=None)
"""The class, its template and the deed of several changes that are made as one."""


@contextmanager
def editing_template(person: Person, group_id: int, now: datetime) -> Iterator[tuple[Template, Deed]]:
    """A deed on a class's template, locked with the work in it, by somebody who may change it.

    Among several changes that are made as one, it is their deed.
    """
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    under_way = _UNDER_WAY.get()
    if under_way is not None and under_way[0] == group_id:
        yield under_way[1:]
        return
    with deed(person.pk, now) as doing:
        yield effects.locked_with_work(group_id), doing
        follow(doing, group_id)


@contextmanager
def as_one(person: Person, group_id: int, now: datetime) -> Iterator[None]:
    """Every change of the template that is made within this is part of one deed, told and followed at its end."""
    with editing_template(person, group_id, now) as (template, doing), _under_way(group_id, template, doing):
        yield


@contextmanager
def tried(person: Person, group_id: int, now: datetime) -> Iterator[None]:
    """The same within a transaction that is rolled back: nothing is told, so that nobody waits for its number."""
    doing = Deed(person.pk, now)
    with _under_way(group_id, effects.locked_with_work(group_id), doing):
        yield
    follow(doing, group_id)


@contextmanager
def _under_way(group_id: int, template: Template, doing: Deed) -> Iterator[None]:
    token = _UNDER_WAY.set((group_id, template, doing))
    try:
        yield
    finally:
        _UNDER_WAY.reset(token)


def change_pocket(
    person: Person,
    group_id: int,
    pocket_id: int,
    plan: PocketPlan,
    version: int,
    now: datetime,
    by_hand: Mapping[int, str] | None = None,
) -> tuple[Pocket, ImpactReport]:
    """Take changed settings of a pocket; returns it and what the change meant.

    ``by_hand`` gives versions (by key) to students (by enrolment) where they are dealt by hand.
    """
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        editing.check_version(pocket, version)
        report = take_settings(doing, person, group_id, pocket, plan, by_hand)
        doing.record("pocket_changed", group_id, pocket=pocket.pk, version=pocket.version)
        return pocket, report


def set_pocket(
    person: Person,
    group_id: int,
    pocket_id: int,
    plan: PocketPlan,
    now: datetime,
    by_hand: Mapping[int, str] | None = None,
) -> None:
    """Take changed settings of a pocket whatever its version; what they mean is worked out elsewhere."""
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        write_settings(doing, group_id, pocket, plan, by_hand)
        doing.record("pocket_changed", group_id, pocket=pocket.pk, version=pocket.version)


def here(group_id: int, now: datetime) -> list[Member]:
    """Everybody who is in the class today or will be."""
    today = school_calendar().local_day(now)
    return [
        one
        for one in members(group_id, today)
        if one.student.enrolled.last is None or one.student.enrolled.last >= today
    ]


def wanted_now(group_id: int, pocket: Pocket, plan: PocketPlan, now: datetime) -> Wanted:
    """What a pocket asks for as of today, of somebody without an adjustment."""
    if not plan.rows_per_week:
        return plan.wanted
    view = situation(group_id, now, with_weeks=True)
    return weekly(plan.wanted, view.weeks, pocket.opens or view.today, view.today)


def take_settings(
    doing: Deed,
    person: Person,
    group_id: int,
    pocket: Pocket,
    plan: PocketPlan,
    by_hand: Mapping[int, str] | None = None,
) -> ImpactReport:
    """Give a pocket other settings, after every check of what they would do to work in it, and count that anew.

    Wherever they come from: a form, or a newer version in the gallery. Within a deed, the template locked.
    """
    checked = _checked(group_id, pocket, plan)
    if pocket.section.repeats:
        report = _report_units(person, group_id, pocket, checked, doing.now)
        pocket.refresh_from_db()
    else:
        report = _report(group_id, pocket, checked, doing.now, by_hand)
    _write(doing, group_id, pocket, checked, by_hand)
    return report


def write_settings(
    doing: Deed, group_id: int, pocket: Pocket, plan: PocketPlan, by_hand: Mapping[int, str] | None = None
) -> None:
    """The same where what it means is worked out elsewhere."""
    _write(doing, group_id, pocket, _checked(group_id, pocket, plan), by_hand)


def _write(doing: Deed, group_id: int, pocket: Pocket, checked: PocketPlan, by_hand: Mapping[int, str] | None) -> None:
    starters, log, variants = editing.starters_of(pocket), pocket.log, pocket.variants
    if checked.variants is not None and (variants_to_data(checked.variants) != variants or by_hand):
        here = members(group_id, school_calendar().local_day(doing.now))
        at_work = counting.at_work(pocket)
        dealing.keep(pocket, dealing.planned(pocket, checked.variants, group_id, here, by_hand, at_work))
    editing.write_plan(pocket, checked)
    pocket.version += 1
    pocket.save()
    effects.recount(pocket, starters, log, doing.now)
    if pocket.section.repeats:
        effects.relay(doing, group_id, pocket.section)


def add_file(
    person: Person,
    group_id: int,
    pocket_id: int,
    content: File[Any],
    name: str,
    role: given_files.Role,
    now: datetime,
    version: str = "",
) -> GivenFile:
    """Give a picture or file with a pocket or a version of it; its bytes are safe before anything is written."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    kept, title = given_files.keep(content, name)
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        editing.refuse_laid(pocket)
        made = given_files.add(pocket, kept, title, role, now, version)
        if role == "starter":
            effects.recount_files(pocket, now)
        doing.record("pocket_file_added", group_id, pocket=pocket_id, file=made.pk, kept=kept.stored.sha256)
        return made


def add_waiting_file(
    person: Person, group_id: int, content: File[Any], name: str, role: given_files.Role, now: datetime, version: str
) -> GivenFile:
    """Keep a picture or file for a pocket that only a draft has yet; the draft's ``GiveFile`` names it."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    kept, title = given_files.keep(content, name)
    with transaction.atomic():
        return given_files.wait(editing.locked_template(group_id), kept, title, role, now, version)


def give_waiting_file(person: Person, group_id: int, pocket_id: int, file_id: int, now: datetime) -> None:
    """Give it with the pocket, now that there is one."""
    with editing_template(person, group_id, now) as (template, doing):
        made = given_files.give_waiting(template, editing.pocket_of(template, pocket_id), file_id)
        doing.record("pocket_file_added", group_id, pocket=pocket_id, file=made.pk, kept=made.stored.sha256)


def set_file_removed(person: Person, group_id: int, file_id: int, now: datetime, *, removed: bool) -> None:
    """Take a file away from its pocket, or bring it back."""
    with editing_template(person, group_id, now) as (template, doing):
        given_files.set_removed(template, file_id, now if removed else None)
        doing.record("pocket_file_removed" if removed else "pocket_file_restored", group_id, file=file_id)


def add_section(person: Person, group_id: int, title: str, now: datetime, *, repeats: bool = False) -> int:
    """Add a section (or a pattern that repeats for units); returns its id."""
    with editing_template(person, group_id, now) as (template, doing):
        section = editing.add_section(template, title, repeats=repeats)
        doing.record("section_added", group_id, section=section.pk)
        return section.pk


def change_section(person: Person, group_id: int, section_id: int, title: str, now: datetime) -> None:
    """Rename a section."""
    with editing_template(person, group_id, now) as (template, doing):
        section = editing.section_of(template, section_id)
        editing.refuse_laid_section(section)
        editing.rename_section(section, title)
        doing.record("section_changed", group_id, section=section_id)


def move_section(person: Person, group_id: int, section_id: int, before: int | None, now: datetime) -> None:
    """Put a section before another one, or at the end."""
    with editing_template(person, group_id, now) as (template, doing):
        editing.move_section(editing.section_of(template, section_id), before)
        doing.record("section_moved", group_id, section=section_id)


def add_pocket(person: Person, group_id: int, section_id: int, plan: PocketPlan, now: datetime) -> Pocket:
    """Add a pocket at the end of a section; every portfolio has it at once."""
    with editing_template(person, group_id, now) as (template, doing):
        section = editing.section_of(template, section_id)
        pocket = editing.add_pocket(section, for_its_section(section, plan))
        dealing.deal(pocket, group_id, school_calendar().local_day(now), counting.at_work(pocket))
        doing.record("pocket_added", group_id, pocket=pocket.pk)
        if section.repeats:
            effects.relay(doing, group_id, section)
        return pocket


def move_pocket(
    person: Person, group_id: int, pocket_id: int, section_id: int, before: int | None, now: datetime
) -> None:
    """Put a pocket before another one of a section, or at its end."""
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        editing.refuse_laid(pocket)
        home = pocket.section
        editing.move_pocket(pocket, editing.section_of(template, section_id), before)
        doing.record("pocket_moved", group_id, pocket=pocket_id)
        for section in {home, pocket.section}:
            if section.repeats:
                effects.relay(doing, group_id, section)


def set_retired(person: Person, group_id: int, pocket_id: int, now: datetime, *, retired: bool) -> None:
    """Retire a pocket or bring it back. Refused where a hand-in that is still under way collects it alone."""
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        if (pocket.retired_at is not None) == retired:
            return
        editing.refuse_laid(pocket)
        if retired:
            effects.refuse_collected_alone(group_id, pocket, now)
        editing.set_retired(pocket, now if retired else None)
        doing.record("pocket_retired" if retired else "pocket_restored", group_id, pocket=pocket_id)
        if pocket.section.repeats:
            effects.relay(doing, group_id, pocket.section)
