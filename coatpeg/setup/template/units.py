"""The units of a section that repeats: what a changed list would mean, and taking it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from coatpeg.core.errors import Stale
from coatpeg.core.outlines.plan import Impact
from coatpeg.core.outlines.repeat import Unit, checked_units
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed
from coatpeg.outlines import editing, repeating
from coatpeg.outlines.models import Section, Template
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.setup.template import effects
from coatpeg.setup.template.changing import MOST_NAMED, editing_template


@dataclass(frozen=True, slots=True)
class UnitsMeaning:
    """What a list of units means: pockets by title, and what it is for the students."""

    students: int
    added: tuple[str, ...]
    changed: tuple[str, ...]
    retired: tuple[str, ...]
    removed: tuple[str, ...]
    impact: Impact
    to_open: tuple[str, ...]
    to_filled: tuple[str, ...]


def preview(person: Person, group_id: int, section_id: int, units: Sequence[Unit], now: datetime) -> UnitsMeaning:
    """What a list of units would mean; nothing is written."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    pattern = editing.section_of(editing.template_of(group_id), section_id)
    checked = checked_units(units)
    lines: list[tuple[str, ...]] = []

    def change() -> None:
        repeating.write_units(pattern, checked)
        lines.extend(_changes(group_id, Deed(person.pk, now), pattern))

    view, found = effects.meaning(group_id, now, change)
    added, changed, retired, removed = lines
    return UnitsMeaning(
        sum(1 for _ in effects.present(view)),
        added,
        changed,
        retired,
        removed,
        found,
        effects.names_of(view, found.to_open[:MOST_NAMED]),
        effects.names_of(view, found.to_filled[:MOST_NAMED]),
    )


def _changes(group_id: int, doing: Deed, pattern: Section) -> list[tuple[str, ...]]:
    """Lay out; the titles of pockets added (or back), changed, retired and removed."""
    laid_out = effects.relay(doing, group_id, pattern)
    kept = [one for one in laid_out.surplus if one.pk is not None]
    return [
        tuple(one.title for one in (*laid_out.added, *laid_out.restored)),
        tuple(one.pocket.title for one in laid_out.rewritten),
        tuple(one.title for one in kept),
        tuple(one.title for one in laid_out.surplus if one.pk is None),
    ]


def set_units(
    person: Person, group_id: int, section_id: int, units: Sequence[Unit], version: int, now: datetime
) -> int:
    """Take a list of units over the version seen; returns the new version. Every portfolio has them at once."""
    with editing_template(person, group_id, now) as (template, doing):
        pattern = _seen(template, section_id, version)
        repeating.write_units(pattern, checked_units(units))
        pattern.version += 1
        pattern.save(update_fields=["version"])
        effects.relay(doing, group_id, pattern)
        return pattern.version


def _seen(template: Template, section_id: int, version: int) -> Section:
    pattern = editing.section_of(template, section_id)
    if pattern.version != version:
        raise Stale(
            f"The units of “{pattern.title}” were changed by somebody else meanwhile.",
            where=pattern.title,
            fix="Load them again; then make your change once more.",
            more={"version": pattern.version},
        )
    return pattern
