"""Laying out a template: sections and pockets, their order, their settings. Call these within a deed.

Everything here writes the structure only. What depends on student work (impact, retiring, another kind) is asked
higher up (``setup.template.changing``). A change reaches every portfolio at once, because portfolios point at pockets.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from datetime import datetime

from coatpeg.core.errors import Gone, Invalid, Stale
from coatpeg.core.outlines.plan import LONGEST_TITLE, PocketPlan
from coatpeg.core.outlines.settings import FIELDS, plan_from_data, plan_to_data
from coatpeg.outlines.models import Pocket, Section, Template
from coatpeg.outlines.rich_text import clean, clean_starter

MOST_SECTIONS = 40
MOST_POCKETS = 200
"""In one template. A leavers' plan over four years has about eighty."""


def template_of(group_id: int) -> Template:
    """A class's template, for reading."""
    found = Template.objects.filter(group_id=group_id).first()
    if found is None:
        raise _no_template()
    return found


def _no_template() -> Gone:
    return Gone("This class has no template.", fix="A caseload has none: its students work in their classes.")


def locked_template(group_id: int) -> Template:
    """A class's template with its row locked: the first step of every change of it."""
    found = Template.objects.select_for_update().filter(group_id=group_id).first()
    if found is None:
        raise _no_template()
    return found


def pocket_of(template: Template, pocket_id: int) -> Pocket:
    """A pocket of a template."""
    found = Pocket.objects.filter(pk=pocket_id, section__template=template).select_related("section").first()
    if found is None:
        raise Gone("There is no such pocket in this template.", fix="Load the template again.")
    return found


def section_of(template: Template, section_id: int) -> Section:
    """A section of a template."""
    found = template.sections.filter(pk=section_id).first()
    if found is None:
        raise Gone("There is no such section in this template.", fix="Load the template again.")
    return found


def plan_of(pocket: Pocket) -> PocketPlan:
    """A pocket's settings as they stand."""
    return plan_from_data({name: getattr(pocket, name) for name in FIELDS})


def write_plan(pocket: Pocket, plan: PocketPlan) -> None:
    """Put checked settings into a pocket's row; a starter that goes is remembered, so that it never counts as work."""
    before = starters_of(pocket)
    for name, value in plan_to_data(plan).items():
        setattr(pocket, name, value)
    pocket.directions = clean(plan.directions)
    pocket.starter = clean_starter(plan.starter)
    pocket.log = pocket.log if plan.log.columns else {}
    pocket.variants = pocket.variants or {}
    for version in pocket.variants.get("versions", []):
        version["directions"] = clean(version["directions"])
        version["starter"] = clean_starter(version["starter"])
    gone = [one for one in before if one not in starters_of(pocket) and one not in pocket.old_starters]
    pocket.old_starters = [*pocket.old_starters, *gone]


def starters_of(pocket: Pocket) -> list[str]:
    """Every starter that a pocket gives to anybody now."""
    versions = pocket.variants.get("versions", []) if pocket.variants else []
    return [text for text in (pocket.starter, *(one["starter"] for one in versions)) if text]


def check_version(pocket: Pocket, version: int) -> None:
    """``Stale`` where somebody changed the pocket since it was seen."""
    if pocket.version != version:
        raise Stale(
            f"“{pocket.title}” was changed by somebody else meanwhile.",
            where=pocket.title,
            fix="Load it again; then make your change once more.",
            more={"version": pocket.version},
        )


def add_section(template: Template, title: str, *, repeats: bool = False) -> Section:
    """A new section at the end; ``repeats`` makes it a pattern for units."""
    if template.sections.filter(was_unit=False).count() >= MOST_SECTIONS:
        raise Invalid(
            f"A template has at most {MOST_SECTIONS} sections.", where="section", fix="Use one that is there."
        )
    last = template.sections.order_by("position").values_list("position", flat=True).last()
    return Section.objects.create(
        template=template, title=section_title(title), position=(last or 0) + 1, repeats=repeats
    )


def section_title(title: str) -> str:
    """A section's title, tidied."""
    tidy = " ".join(title.split())
    if not tidy or len(tidy) > LONGEST_TITLE:
        raise Invalid(
            "The section has no name." if not tidy else f"Its name has {len(tidy)} characters.",
            where="title",
            fix=f"Give it a name of at most {LONGEST_TITLE} characters.",
        )
    return tidy


def rename_section(section: Section, title: str) -> None:
    """Give a section another title."""
    section.title = section_title(title)
    section.save(update_fields=["title"])


def remove_section(section: Section) -> None:
    """Take away a section that has no pockets (retired ones count: their work hangs on them)."""
    if section.pockets.exists():
        raise Invalid(
            f"“{section.title}” still has pockets, retired ones included.",
            where=section.title,
            fix="Move them to another section first.",
        )
    if section.units.exists():
        raise Invalid(f"“{section.title}” still has units.", where=section.title, fix="Take its units away first.")
    section.delete()


def add_pocket(section: Section, plan: PocketPlan) -> Pocket:
    """A new pocket at the end of a section."""
    refuse_laid_section(section)
    last = section.pockets.order_by("position").values_list("position", flat=True).last()
    pocket = Pocket(section=section, position=(last or 0) + 1)
    write_plan(pocket, plan.checked())
    pocket.save()
    check_size(section.template_id)
    return pocket


def check_size(template_id: int) -> None:
    """Refuse more pockets than a template can have, those laid out for units among them."""
    if Pocket.objects.filter(section__template_id=template_id).count() > MOST_POCKETS:
        raise Invalid(f"A template has at most {MOST_POCKETS} pockets.", where="pocket", fix="Use one that is there.")


def refuse_laid_section(section: Section) -> None:
    """Refuse a change of a section that was laid out for a unit."""
    if section.unit_id is not None:
        raise Invalid(
            f"“{section.title}” is laid out from a pattern.",
            where=section.title,
            fix="Change the pattern: every unit follows.",
        )


def refuse_laid(pocket: Pocket) -> None:
    """Refuse a change of a pocket that was laid out for a unit."""
    if pocket.pattern_id is not None:
        raise Invalid(
            f"“{pocket.title}” is laid out from a pattern.",
            where=pocket.title,
            fix="Change the pattern or the unit's questions: every unit follows.",
        )


def move_pocket(pocket: Pocket, section: Section, before: int | None) -> None:
    """Put a pocket into a section, before another pocket or at the end."""
    refuse_laid_section(section)
    if section.repeats != pocket.section.repeats:
        raise Invalid(
            "A pocket of a pattern and one for everybody cannot change places.",
            where=pocket.title,
            fix="Add a pocket there, and retire this one.",
        )
    order = [pk for pk in section.pockets.order_by("position", "pk").values_list("pk", flat=True) if pk != pocket.pk]
    pocket.section = section
    pocket.save(update_fields=["section"])
    _number(Pocket, _placed(order, pocket.pk, before))


def move_section(section: Section, before: int | None) -> None:
    """Put a section before another one or at the end."""
    refuse_laid_section(section)
    everyone = Section.objects.filter(template_id=section.template_id, unit=None).order_by("position", "pk")
    order = [pk for pk in everyone.values_list("pk", flat=True) if pk != section.pk]
    _number(Section, _placed(order, section.pk, before))
    renumber(section.template_id)


def renumber(template_id: int) -> None:
    """Let the sections of units stand behind their pattern, in the order of the units."""
    rows = Section.objects.filter(template_id=template_id).select_related("unit").order_by("position", "pk")
    laid: dict[int, list[Section]] = defaultdict(list)
    for one in rows:
        if one.unit is not None:
            laid[one.unit.pattern_id].append(one)
    order: list[int] = []
    for one in rows:
        if one.unit is None:
            order.append(one.pk)
            order.extend(of.pk for of in sorted(laid[one.pk], key=_unit_position))
    _number(Section, order)


def _unit_position(section: Section) -> tuple[int, int]:
    return (section.unit.position if section.unit else 0, section.pk)


def _placed(order: Sequence[int], moved: int, before: int | None) -> list[int]:
    if before is None:
        return [*order, moved]
    if before not in order:
        raise Gone("The place to move it to is gone.", fix="Load the template again.")
    place = list(order).index(before)
    return [*order[:place], moved, *order[place:]]


def _number(model: type[Pocket] | type[Section], order: Sequence[int]) -> None:
    for position, pk in enumerate(order):
        model._default_manager.filter(pk=pk).update(position=position)


def set_retired(pocket: Pocket, now: datetime | None) -> None:
    """Retire a pocket, or (None) bring it back."""
    pocket.retired_at = now
    pocket.version += 1
    pocket.save(update_fields=["retired_at", "version"])
