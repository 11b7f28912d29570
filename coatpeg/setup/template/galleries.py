"""Publishing and adopting templates for a class, bringing in what changed since, carrying over from another class."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import date, datetime
from typing import Any

from coatpeg.core.calendar.school_days import SchoolCalendar, Term
from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.gallery import News, from_data, moved_by_week, pocket_in, section_in, with_own_days
from coatpeg.core.policy import Action
from coatpeg.cupboard import lending
from coatpeg.handins.asked.setting import bind, plan_of, tell_of
from coatpeg.handins.changing.reading import whom_in
from coatpeg.handins.models import HandIn, HandInPeriod, HandInStudent
from coatpeg.outlines import dealing, editing, gallery, given_files, repeating
from coatpeg.outlines.models import GalleryVersion, Pocket, Section, Template, Unit
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar, term_of_class
from coatpeg.people.models import Period, Person, TeachingGroup
from coatpeg.portfolios import counting
from coatpeg.setup.template import effects
from coatpeg.setup.template.changing import editing_template, take_settings


def publish(person: Person, group_id: int, title: str, description: str, now: datetime) -> GalleryVersion:
    """Publish a class's template, or a new version of it."""
    with editing_template(person, group_id, now) as (template, doing):
        version = gallery.publish(person, template, title, description, now)
        version.files = given_files.as_document(template)
        version.save(update_fields=["files"])
        doing.record("template_published", group_id, gallery=version.template_id, version=version.number)
        return version


def withdraw(person: Person, group_id: int, now: datetime) -> None:
    """Take a class's template out of the gallery; copies that were adopted stay."""
    with editing_template(person, group_id, now) as (template, doing):
        if template.published is None:
            raise Gone("This template is not in the gallery.", fix="Load it again.")
        template.published.withdrawn_at = now
        template.published.save(update_fields=["withdrawn_at"])
        doing.record("template_withdrawn", group_id, gallery=template.published.pk)


@dataclass(frozen=True, slots=True)
class Brought:
    """How much came into a class, the sections it made, pockets ``added`` to others: with them it is undone."""

    pockets: int
    handins: int
    sections: list[int]
    added: list[int] = field(default_factory=list)
    items: int = 0
    """How many things came into the cupboard."""


def adopt(
    person: Person, group_id: int, gallery_id: int, now: datetime, wanted: Mapping[str, str] | None = None
) -> Brought:
    """Make a copy of one's own of a gallery template in a class, of all its sections or of those ``wanted``."""
    with editing_template(person, group_id, now) as (template, doing):
        before, there = template.adopted_id, _sections(template)
        version = gallery.newest_of(gallery_id)
        made = gallery.adopt(template, version, wanted)
        given_files.copy(version.files, made, now)
        _deal(made, group_id, now)
        sections = [one for one in _sections(template) if one not in there]
        doing.record(
            "template_adopted",
            group_id,
            gallery=gallery_id,
            version=version.number,
            sections=sections,
            handins=[],
            adopted=before,
        )
        return Brought(len(made), 0, sections)


def _sections(template: Template) -> list[int]:
    """The sections that staff lay out themselves: those of units follow their pattern."""
    return list(Section.objects.filter(template=template, unit=None).values_list("pk", flat=True))


def _deal(made: list[Pocket], group_id: int, now: datetime) -> None:
    """Deal the versions of pockets that came from elsewhere."""
    for pocket in made:
        if pocket.variants:
            dealing.deal(pocket, group_id, school_calendar().local_day(now), counting.at_work(pocket))


def state(person: Person, group_id: int) -> dict[str, Any]:
    """Where a class's template stands towards the gallery: published as what, adopted from what, what is new there."""
    require_in_group(person, Action.SEE_TEMPLATE, group_id)
    template = Template.objects.select_related("adopted__template", "published").filter(group_id=group_id).first()
    if template is None:
        return {"published": None, "adopted": None, "news": [], "newest": None}
    newest, found = gallery.news(template)
    published = template.published if template.published and not template.published.withdrawn_at else None
    return {
        "published": {"title": published.title, "description": published.description} if published else None,
        "adopted": template.adopted.template.title if template.adopted else None,
        "newest": newest.number if newest else None,
        "news": [
            {"what": one.what.value, "key": one.key, "title": one.title, "section": one.section, "fields": one.fields}
            for one in found
        ],
    }


def bring_in(person: Person, group_id: int, key: str, now: datetime) -> None:
    """Bring in one change of the gallery's newest version."""
    with editing_template(person, group_id, now) as (template, doing):
        newest, found = gallery.news(template)
        novelty = next((one for one in found if one.key == key), None)
        if newest is None or novelty is None:
            raise Gone("This change is in the class already.", fix="Load the template again.")
        section = section_in(from_data(newest.document), key)
        if section is not None:
            row = gallery.place_for(template, section)
            repeating.write_units(row, with_own_days(section.units, repeating.units_of(row)))
            row.version += 1
            row.save(update_fields=["version"])
            effects.relay(doing, group_id, row)
            doing.record("change_brought_in", group_id, section=row.pk)
            return
        pocket = Pocket.objects.filter(section__template=template, key=key).first()
        named = pocket_in(from_data(newest.document), key)
        if novelty.what is News.GONE and pocket is not None:
            effects.refuse_collected_alone(group_id, pocket, now)
            editing.set_retired(pocket, now)
        elif named is not None and pocket is None:
            pocket = gallery.add_keyed(gallery.place_for(template, named[0]), named[1])
        elif named is not None and pocket is not None:
            take_settings(doing, person, group_id, pocket, replace(named[1].plan, opens=pocket.opens))
        if pocket is not None:
            dealing.deal(pocket, group_id, school_calendar().local_day(now), counting.at_work(pocket))
        if pocket is not None and pocket.section.repeats:
            effects.relay(doing, group_id, pocket.section)
        doing.record("change_brought_in", group_id, pocket=pocket.pk if pocket else None)


def look_through(person: Person, group_id: int, now: datetime) -> None:
    """Say that the rest of what is new is not wanted; the next version is told anew."""
    with editing_template(person, group_id, now) as (template, doing):
        newest, _ = gallery.news(template)
        if newest is not None:
            gallery.seen(template, newest)
            doing.record("template_looked_through", group_id, version=newest.number)


def carry_over(
    person: Person,
    group_id: int,
    source_id: int,
    now: datetime,
    *,
    handins: bool,
    wanted: Mapping[str, str] | None = None,
    cupboard: bool = False,
) -> Brought:
    """Bring the structure of another class; if wanted its hand-ins, moved by school week, and what its cupboard holds.

    Of some sections only (``wanted``, titles by key), the hand-ins that collect nothing of them stay behind.
    """
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    require_in_group(person, Action.SEE_TEMPLATE, source_id)
    if cupboard:
        require_in_group(person, Action.KEEP_CUPBOARD, group_id)
        require_in_group(person, Action.SEE_COPIES, source_id)  # what is for staff only comes as well
    if source_id == group_id:
        raise Invalid("This is the class itself.", where="source", fix="Choose another class.")
    source = Template.objects.filter(group_id=source_id).first()
    if source is None:
        raise Gone("That class has no template.", fix="Choose another class.")
    with editing_template(person, group_id, now) as (template, doing):
        there = _sections(template)
        move = _Move.between(source_id, group_id)
        made = gallery.lay_out(template, gallery.chosen(source, wanted))
        given_files.copy(given_files.as_document(source), made, now)
        opened = dict(Pocket.objects.filter(section__template=source).values_list("key", "opens"))
        for pocket in made:
            if opened.get(pocket.key):
                pocket.opens = move.day(opened[pocket.key])
                pocket.save(update_fields=["opens"])
        for unit in Unit.objects.filter(pattern__template=template, opens__isnull=False):
            unit.opens = move.day(unit.opens)
            unit.save(update_fields=["opens"])
        _deal(made, group_id, now)
        of_key = {pocket.key: pocket for pocket in made}
        come = [one for one in _handins(source_id) if wanted is None or _collects(one, of_key)] if handins else []
        copied = [_copied(one, group_id, of_key, move) for one in come]
        for handin in copied:
            doing.record("handin_set", group_id, handin_id=handin.pk, pockets=[one.pk for one in handin.pockets.all()])
            tell_of(doing, handin)
        sections = [one for one in _sections(template) if one not in there]
        items = lending.bring_along(doing, person, source_id, group_id, move.day) if cupboard else []
        doing.record(
            "template_carried_over",
            group_id,
            source=source_id,
            sections=sections,
            handins=[one.pk for one in copied],
            adopted=template.adopted_id,
            items=items,
        )
        return Brought(len(made), len(copied), sections, items=len(items))


def _handins(group_id: int) -> list[HandIn]:
    return list(
        HandIn.objects.filter(group_id=group_id, taken_away_at=None)
        .prefetch_related("pockets", "periods__period")
        .order_by("pk")
    )


def _collects(handin: HandIn, of_key: Mapping[str, Pocket]) -> bool:
    """Whether a hand-in collects anything of what came along."""
    return handin.anything or handin.whole or any(one.key in of_key for one in handin.pockets.all())


@dataclass(frozen=True, slots=True)
class _Move:
    """From the term of one class to the term of another."""

    calendar: SchoolCalendar
    source: Term
    target: Term

    @classmethod
    def between(cls, source_id: int, target_id: int) -> _Move:
        """The terms in which two classes begin; a class outside all terms counts by its own days."""
        calendar = school_calendar()
        groups = TeachingGroup.objects.in_bulk([source_id, target_id])
        terms = [term_of_class(calendar, groups[one]) for one in (source_id, target_id)]
        return cls(calendar, *terms)

    def day(self, day: date | None) -> date | None:
        """A day moved to the same school week; None stays None."""
        return moved_by_week(day, self.source, self.target, self.calendar) if day else None


def _ask_the_same(made: HandIn, handin: HandIn) -> None:
    """Ask groups of the same name and the same people. Where there are none here it stays a draft: not everybody."""
    if handin.whom == "all":
        return
    made.whom, groups, students = whom_in(plan_of(handin), made.group_id)
    made.draft = made.draft or made.whom == "all"
    made.save(update_fields=["whom", "draft"])
    made.groups.set(groups if made.whom == "groups" else ())
    named = sorted(students) if made.whom in ("students", "but") else []
    HandInStudent.objects.bulk_create([HandInStudent(handin=made, enrolment_id=one) for one in named])


def _copied(handin: HandIn, group_id: int, of_key: dict[str, Pocket], move: _Move) -> HandIn:
    """A hand-in in another class, its days moved; periods of the same name keep their own dates."""
    opens, due = move.day(handin.opens) or handin.opens, move.day(handin.due_day)
    made = HandIn.objects.create(
        group_id=group_id,
        title=handin.title,
        opens=min(opens, due) if due else opens,
        due_day=due,
        due_time=handin.due_time if due else None,
        closes_day=move.day(handin.closes_day),
        closes_time=handin.closes_time if handin.closes_day else None,
        directions=handin.directions,
        model_answer=handin.model_answer,
        model_from=move.day(handin.model_from),
        opens_again=handin.opens_again,
        again=handin.again,
        take_back=handin.take_back,
        draft=handin.draft,
        since_last=handin.since_last,
        anything=handin.anything,
        closing=handin.closing,
        for_everyone=handin.for_everyone,
        points=handin.points,
        step=handin.step,
        rubric=handin.rubric,
    )
    made.files.set(handin.files.all())
    made.pockets.set([of_key[one.key] for one in handin.pockets.all() if one.key in of_key])
    bind(made, handin.follows)
    periods = {one.name: one for one in Period.objects.filter(group_id=group_id)}
    rows = [
        HandInPeriod(
            handin=made,
            period=periods[one.period.name],
            asked=one.asked,
            due_day=move.day(one.due_day),
            due_time=one.due_time,
        )
        for one in handin.periods.all()
        if one.period.name in periods
    ]
    HandInPeriod.objects.bulk_create(rows)
    _ask_the_same(made, handin)
    if not handin.for_everyone and not any(row.asked for row in rows):
        made.for_everyone = True  # its periods are not here: better everyone than nobody, and staff see it at once
        made.save(update_fields=["for_everyone"])
    return made
