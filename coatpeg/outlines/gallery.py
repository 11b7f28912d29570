"""The gallery: publishing a class's template, finding and adopting one, what changed since, bringing changes in."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.gallery import (
    Document,
    KeyedPocket,
    KeyedSection,
    News,
    Novelty,
    changes,
    from_data,
    only,
    pocket_in,
    section_in,
    to_data,
    with_own_days,
)
from coatpeg.core.outlines.plan import LONGEST_TITLE, PocketPlan
from coatpeg.core.outlines.versions import for_a_copy
from coatpeg.core.people.names import search_key
from coatpeg.core.policy import Action
from coatpeg.outlines import editing, repeating
from coatpeg.outlines.models import FIRST_SECTION, GalleryTemplate, GalleryVersion, Pocket, Section, Template
from coatpeg.outlines.rich_text import clean, clean_starter
from coatpeg.people.access import require_in_school
from coatpeg.people.models import Person

LONGEST_DESCRIPTION = 1_000
MOST_SHOWN = 60


def document_of(template: Template) -> Document:
    """A class's template as a document; retired pockets stay behind, and what patterns lay out is laid out anew."""
    sections = template.sections.filter(was_unit=False).prefetch_related("pockets", "units")
    return tuple(
        KeyedSection(
            section.key,
            section.title,
            tuple(KeyedPocket(one.key, editing.plan_of(one)) for one in section.pockets.all() if not one.retired_at),
            section.repeats,
            repeating.units_of(section) if section.repeats else (),
        )
        for section in sections
    )


def shown(person: Person, text: str = "") -> list[dict[str, Any]]:
    """Templates of the gallery whose title, description or author has all the words, by title."""
    require_in_school(person, Action.SEE_GALLERY)
    words = search_key(text).split()
    rows = GalleryTemplate.objects.filter(withdrawn_at=None).select_related("author").prefetch_related("versions")
    found = [_line(one) for one in rows]
    found = [one for one in found if all(word in _found_by(one) for word in words)]
    return sorted(found, key=lambda one: search_key(one["title"]))[:MOST_SHOWN]


def _found_by(line: dict[str, Any]) -> str:
    return search_key(f"{line['title']} {line['description']} {line['by']}")


def _line(one: GalleryTemplate) -> dict[str, Any]:
    newest = list(one.versions.all())[-1]
    document = from_data(newest.document)
    return {
        "id": one.pk,
        "title": one.title,
        "description": one.description,
        "by": one.author.full_name if one.author else "",
        "version": newest.number,
        "at": newest.at,
        "sections": [
            {"key": section.key, "title": section.title, "pockets": [pocket.plan.title for pocket in section.pockets]}
            for section in document
        ],
    }


def newest_of(gallery_id: int) -> GalleryVersion:
    """The newest version of a template in the gallery."""
    found = (
        GalleryVersion.objects.filter(template_id=gallery_id, template__withdrawn_at=None)
        .select_related("template")
        .order_by("number")
        .last()
    )
    if found is None:
        raise Gone("There is no such template in the gallery.", fix="Choose another one.")
    return found


def publish(person: Person, template: Template, title: str, description: str, now: datetime) -> GalleryVersion:
    """Publish a template, or a new version of it. Call within a deed, with the template locked."""
    title, description = " ".join(title.split()), description.strip()
    if not title or len(title) > LONGEST_TITLE:
        raise Invalid("The template has no name.", where="title", fix="Give it a name that colleagues will find.")
    if len(description) > LONGEST_DESCRIPTION:
        raise Invalid(
            f"The description has {len(description)} characters; {LONGEST_DESCRIPTION} is the most.",
            where="description",
            fix="Shorten it.",
        )
    document = document_of(template)
    if not any(section.pockets for section in document):
        raise Invalid("This template has no pockets.", where="template", fix="Add some first.")
    if template.published is None:
        template.published = GalleryTemplate.objects.create(title=title, description=description, author=person)
        template.save(update_fields=["published"])
    else:
        template.published.title, template.published.description = title, description
        template.published.withdrawn_at = None
        template.published.save()
    last = template.published.versions.order_by("number").last()
    number = last.number + 1 if last else 1
    return GalleryVersion.objects.create(template=template.published, number=number, document=to_data(document), at=now)


def lay_out(template: Template, document: Document) -> list[Pocket]:
    """Add a document's sections and pockets to a template, behind what is there; an empty first one makes room.

    Patterns are laid out for their units; returned are all pockets made, those of patterns and units among them.
    """
    spare = template.sections.filter(pockets=None, repeats=False, unit=None)
    # One that nobody has named, or that stands alone: sections that somebody laid out and has not filled yet stay.
    (spare if template.sections.count() == 1 else spare.filter(title=FIRST_SECTION)).delete()
    made = []
    for section in document:
        row = editing.add_section(template, section.title, repeats=section.repeats)
        row.key = section.key
        row.save(update_fields=["key"])
        for pocket in section.pockets:
            made.append(add_keyed(row, pocket))
        if section.repeats:
            repeating.write_units(row, section.units)
            made.extend(repeating.lay(row).added)
    return made


def add_keyed(section: Section, pocket: KeyedPocket) -> Pocket:
    """Add a pocket under its key at the end of a section."""
    variants = pocket.plan.variants
    made = editing.add_pocket(section, replace(pocket.plan, variants=for_a_copy(variants) if variants else None))
    made.key = pocket.key
    made.save(update_fields=["key"])
    return made


def adopt(template: Template, version: GalleryVersion, wanted: Mapping[str, str] | None = None) -> list[Pocket]:
    """Make a copy of one's own of a gallery template in a class. Call within a deed, with the template locked.

    ``wanted`` are the sections that come, by key, with other titles where they are given (None: all).
    """
    document = _not_nothing(only(from_data(version.document), wanted))
    keys = {pocket.key for section in document for pocket in section.pockets}
    if Pocket.objects.filter(section__template=template, key__in=keys).exists():
        raise Invalid(
            "This class has pockets of that template already.", where="template", fix="Bring in its changes instead."
        )
    made = lay_out(template, document)
    template.adopted = version
    template.save(update_fields=["adopted"])
    return made


def _not_nothing(document: Document) -> Document:
    if not document:
        raise Invalid("No section is chosen.", where="sections", fix="Tick those that you want.")
    return document


def chosen(template: Template, wanted: Mapping[str, str] | None) -> Document:
    """A class's template as a document, or the sections that are wanted of it."""
    return _not_nothing(only(document_of(template), wanted))


def news(template: Template) -> tuple[GalleryVersion | None, tuple[Novelty, ...]]:
    """The gallery's newest version of what a class adopted, and what changed since that the class has not yet."""
    if template.adopted is None:
        return None, ()
    newest = GalleryVersion.objects.filter(template=template.adopted.template).order_by("number").last()
    if newest is None or newest.number == template.adopted.number:
        return None, ()
    document = from_data(newest.document)
    found = changes(from_data(template.adopted.document), document)
    return newest, tuple(one for one in found if not _has_it(template, one, document))


def _has_it(template: Template, novelty: Novelty, document: Document) -> bool:
    """Whether a class's template stands as the newer version has it."""
    pocket = Pocket.objects.filter(section__template=template, key=novelty.key).first()
    section = section_in(document, novelty.key)
    if section is not None:
        row = template.sections.filter(key=novelty.key, repeats=True).first()
        return row is not None and repeating.units_of(row) == with_own_days(section.units, repeating.units_of(row))
    if novelty.what is News.GONE:
        return pocket is None or pocket.retired_at is not None
    named = pocket_in(document, novelty.key)
    return pocket is not None and named is not None and _same(editing.plan_of(pocket), named[1])


def _same(plan: PocketPlan, other: KeyedPocket) -> bool:
    """Whether a pocket stands as in a document, but for its class's own days."""
    return replace(plan, opens=None) == _as_kept(other.plan)


def _as_kept(plan: PocketPlan) -> PocketPlan:
    """A document's settings as a pocket keeps them: its texts may be plain."""
    variants = plan.variants and replace(
        plan.variants,
        versions=tuple(
            replace(one, directions=clean(one.directions), starter=clean_starter(one.starter))
            for one in plan.variants.versions
        ),
    )
    return replace(plan, directions=clean(plan.directions), starter=clean_starter(plan.starter), variants=variants)


def seen(template: Template, version: GalleryVersion) -> None:
    """Say that the changes up to a version were looked through."""
    template.adopted = version
    template.save(update_fields=["adopted"])


def place_for(template: Template, section: KeyedSection) -> Section:
    """Where a pocket brought in goes: the section of that key, made where there is none."""
    found = template.sections.filter(key=section.key).first()
    if found is None:
        found = editing.add_section(template, section.title, repeats=section.repeats)
        found.key = section.key
        found.save(update_fields=["key"])
    return found
