"""Laying a repeating section out: one section per unit, with the pockets its pattern makes. Call within a deed.

Nothing here is decided about student work: what is laid out no more is returned as ``surplus``, and a room higher
retires or takes away.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines import repeat
from coatpeg.outlines import editing
from coatpeg.outlines.models import Pocket, Section, Unit


@dataclass
class Rewritten:
    """A laid pocket that was written anew, and what of its old settings the counting depends on."""

    pocket: Pocket
    starters: list[str]
    log: dict[str, Any]


@dataclass
class LaidOut:
    """What laying out did, and the pockets that are laid out no more."""

    added: list[Pocket] = field(default_factory=list)
    restored: list[Pocket] = field(default_factory=list)
    rewritten: list[Rewritten] = field(default_factory=list)
    surplus: list[Pocket] = field(default_factory=list)


def units_of(pattern: Section) -> tuple[repeat.Unit, ...]:
    """A section's units as the core takes them."""
    return tuple(_unit(one) for one in pattern.units.all())


def _unit(row: Unit) -> repeat.Unit:
    questions = tuple(repeat.Question(one["key"], one["text"]) for one in row.questions)
    return repeat.Unit(row.key, row.title, questions, row.opens)


def units_as_data(units: Sequence[repeat.Unit]) -> list[dict[str, Any]]:
    """Units as plain data."""
    return [
        {
            "key": one.key,
            "title": one.title,
            "opens": one.opens,
            "questions": [{"key": of.key, "text": of.text} for of in one.questions],
        }
        for one in units
    ]


def write_units(pattern: Section, units: Sequence[repeat.Unit]) -> None:
    """Keep checked units; the sections of those that go stay for the work in them."""
    if not pattern.repeats:
        raise Invalid(f"“{pattern.title}” does not repeat.", where=pattern.title, fix="Let it repeat first.")
    kept = {one.key: one for one in pattern.units.all()}
    for position, unit in enumerate(units):
        row = kept.pop(unit.key, None) or Unit(pattern=pattern, key=unit.key)
        row.title, row.opens, row.position = unit.title, unit.opens, position
        row.questions = [{"key": one.key, "text": one.text} for one in unit.questions]
        row.save()
    for gone in kept.values():
        gone.delete()


def lay(pattern: Section) -> LaidOut:
    """Make the laid sections and pockets what the pattern and its units say, in their order."""
    laid_out = LaidOut()
    patterns = [(one, editing.plan_of(one)) for one in pattern.pockets.filter(retired_at=None)]
    there = {
        one.key: one for one in Pocket.objects.filter(pattern__section=pattern).select_related("section", "pattern")
    }
    for row in pattern.units.all():
        section, _ = Section.objects.get_or_create(
            unit=row, defaults={"template_id": pattern.template_id, "title": row.title}
        )
        if section.title != row.title:
            section.title = row.title
            section.save(update_fields=["title"])
        wanted = [(pocket, one) for pocket, plan in patterns for one in repeat.laid(pocket.key, plan, _unit(row))]
        for position, (pocket, one) in enumerate(wanted):
            _place(laid_out, there.pop(one.key, None), pocket, one, section, position)
    laid_out.surplus = [one for one in there.values() if one.retired_at is None]
    editing.check_size(pattern.template_id)
    sweep(pattern.template_id)
    editing.renumber(pattern.template_id)
    return laid_out


def _place(
    laid_out: LaidOut, row: Pocket | None, pattern: Pocket, one: repeat.LaidPocket, section: Section, position: int
) -> None:
    """Put one laid pocket where it belongs, as its pattern says."""
    if row is None:
        row = Pocket(pattern=pattern, key=one.key, question=one.question, section=section, position=position)
        editing.write_plan(row, one.plan)
        row.save()
        laid_out.added.append(row)
        return
    before = Rewritten(row, editing.starters_of(row), row.log)
    changed = editing.plan_of(row) != one.plan
    moved = (row.section_id, row.position) != (section.pk, position)
    if row.retired_at is not None:
        row.retired_at = None
        laid_out.restored.append(row)
    elif not changed and not moved:
        return
    row.section, row.position = section, position
    if changed:
        editing.write_plan(row, one.plan)
        row.version += 1
        laid_out.rewritten.append(before)
    row.save()


def sweep(template_id: int) -> None:
    """Take away sections whose unit is gone and in which nothing is left."""
    Section.objects.filter(template_id=template_id, unit=None, was_unit=True, pockets=None).delete()
