"""Laying out a class's template from typed or pasted lines: shown before, laid out as one, undone as one.

What the lines mean is the core's to say (``core.outlines.typed``). Decided here: sections of an outline are new ones,
at the end; pockets of no section go to the section that is asked for, else to the last one that is neither a pattern
nor a unit's; an empty first section that nobody has named makes room.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.typed.headings import read_columns
from coatpeg.core.outlines.typed.outline import Note, Outline, OutlinedSection, read_outline
from coatpeg.core.outlines.typed.units import TypedUnit, read_units
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.log_columns import Column, LogPlan
from coatpeg.events.recording import Deed
from coatpeg.outlines import editing
from coatpeg.outlines.models import FIRST_SECTION, Pocket, Section, Template
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.setup.template import effects
from coatpeg.setup.template.changing import editing_template, for_its_section
from coatpeg.setup.template.galleries import Brought


@dataclass(frozen=True, slots=True)
class Understood:
    """An outline as understood for a class; ``into`` is the section that pockets of no section go to."""

    outline: Outline
    into: str


def understand(person: Person, group_id: int, text: str, kind: PocketKind, section_id: int | None) -> Understood:
    """What an outline would lay out in a class; nothing is written."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    template = editing.template_of(group_id)
    outline = _with_size(template, read_outline(text, kind)) if text.strip() else Outline(())
    into = _target(template, section_id)
    return Understood(outline, into.title if into else FIRST_SECTION)


def columns_in(person: Person, group_id: int, text: str) -> LogPlan:
    """The columns that a line of headings names."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    columns: tuple[Column, ...] = read_columns(text)
    return LogPlan(columns).checked()


def units_in(person: Person, group_id: int, text: str) -> tuple[TypedUnit, ...]:
    """The units that a text names."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    return read_units(text)


def lay_out_outline(
    person: Person,
    group_id: int,
    text: str,
    kind: PocketKind,
    section_id: int | None,
    now: datetime,
    *,
    of_sections: bool = False,
) -> Brought:
    """Lay out an outline in a class's template; every portfolio has it at once."""
    with editing_template(person, group_id, now) as (template, doing):
        outline = _with_size(template, read_outline(text, kind, of_sections=of_sections))
        if outline.problems:
            first = outline.problems[0]
            raise Invalid(first.what, where=f"Line {first.line}", fix=first.fix)
        if not outline.sections:
            raise Invalid("There is nothing in the outline.", where="text", fix="Write one pocket on each line.")
        laid = write_outline(template, outline, section_id)
        for pattern in Section.objects.filter(pk__in=laid.sections, repeats=True):
            effects.relay(doing, group_id, pattern)
        _relay_added(doing, group_id, laid.added)
        doing.record(
            "outline_laid",
            group_id,
            sections=laid.sections,
            pockets=laid.added,
            handins=[],
            adopted=template.adopted_id,
        )
        return laid


def _relay_added(doing: Deed, group_id: int, added: list[int]) -> None:
    """Units follow their pattern where pockets went into one."""
    for pattern in Section.objects.filter(pockets__in=added, repeats=True).distinct():
        effects.relay(doing, group_id, pattern)


def write_outline(template: Template, outline: Outline, section_id: int | None = None) -> Brought:
    """Write an outline's sections and pockets. Within a deed, the template locked."""
    homeless = any(not one.title for one in outline.sections)
    target = _target(template, section_id) if homeless else None
    if target is None:
        template.sections.filter(title=FIRST_SECTION, pockets=None, repeats=False, unit=None).delete()
    laid = Brought(outline.pockets, 0, [])
    if homeless and target is None:
        target = editing.add_section(template, FIRST_SECTION)
        laid.sections.append(target.pk)
    for section in outline.sections:
        if not section.title and target is not None:
            made = _write_pockets(target, section)
            if target.pk not in laid.sections:
                laid.added.extend(one.pk for one in made)
            continue
        row = editing.add_section(template, section.title, repeats=section.repeats)
        laid.sections.append(row.pk)
        _write_pockets(row, section)
    return laid


def _write_pockets(row: Section, section: OutlinedSection) -> list[Pocket]:
    return [editing.add_pocket(row, for_its_section(row, one.plan)) for one in section.pockets]


def _target(template: Template, section_id: int | None) -> Section | None:
    """Where pockets of no section go; None where there is no section yet."""
    if section_id is not None:
        section = editing.section_of(template, section_id)
        editing.refuse_laid_section(section)
        return section
    return template.sections.filter(repeats=False, unit=None, was_unit=False).order_by("position", "pk").last()


def _with_size(template: Template, outline: Outline) -> Outline:
    """With a problem told where the template would have more than it can."""
    pockets = Pocket.objects.filter(section__template=template).count() + outline.pockets
    sections = template.sections.filter(was_unit=False).count() + sum(1 for one in outline.sections if one.title)
    problems = list(outline.problems)
    for number, most, what in (
        (pockets, editing.MOST_POCKETS, "pockets"),
        (sections, editing.MOST_SECTIONS, "sections"),
    ):
        if number > most:
            told = f"The template would have {number} {what}; {most} is the most."
            problems.append(Note(1, told, "Leave some lines out."))
    return replace(outline, problems=tuple(problems))
