"""Taking away what nobody used of a template, and undo for it.

A section or pocket that is taken away is kept as the rows it was, for thirty days, and comes back as itself: under the
same number, in its place, with its files and the versions that were dealt. What a lay-out brought (a template adopted
or another class carried over, with its hand-ins) goes as a whole or, once anybody began in it, not at all.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Sequence
from datetime import datetime

from django.core import serializers
from django.db import models
from django.db.models import Q

from coatpeg.core.errors import Gone, Invalid, Stale
from coatpeg.cupboard import lending
from coatpeg.events.models import Event
from coatpeg.events.recording import Deed
from coatpeg.handins.asked.taking_back import take_back
from coatpeg.outlines import dealing, editing
from coatpeg.outlines.models import FIRST_SECTION, GivenFile, Pocket, Section, TakenAway, Template, VariantDeal
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios.writing import RESTORABLE
from coatpeg.setup.template import effects
from coatpeg.setup.template.changing import editing_template

BROUGHT = ("template_adopted", "template_carried_over", "outline_laid")


def remove_section(person: Person, group_id: int, section_id: int, now: datetime) -> int:
    """Take away an empty section; returns what ``restore`` brings back."""
    with editing_template(person, group_id, now) as (template, doing):
        section = editing.section_of(template, section_id)
        editing.refuse_laid_section(section)
        kept = _kept(template, [section], now)
        editing.remove_section(section)
        doing.record("section_removed", group_id, section=section_id)
        return kept


def remove_pocket(person: Person, group_id: int, pocket_id: int, now: datetime) -> int:
    """Take away a pocket in which nobody ever put anything and that no hand-in names; returns what ``restore`` takes.

    Of a pattern's pocket, those laid out from it go too; brought back, it is laid out anew.
    """
    with editing_template(person, group_id, now) as (template, doing):
        pocket = editing.pocket_of(template, pocket_id)
        editing.refuse_laid(pocket)
        laid = list(pocket.laid.all())
        if any(effects.used(one) for one in (pocket, *laid)):
            raise Invalid(
                f"“{pocket.title}” holds work or belongs to a hand-in.",
                where=pocket.title,
                fix="Retire it: it stays readable and is asked for no more.",
            )
        kept = _kept(template, [pocket, *pocket.files.all(), *pocket.deals.all()], now)
        doing.record("pocket_removed", group_id, pocket=pocket_id)
        for one in (*laid, pocket):
            effects.take_away(one)
        return kept


def _kept(template: Template, rows: Sequence[models.Model], now: datetime) -> int:
    TakenAway.objects.filter(template=template, at__lt=now - RESTORABLE).delete()
    return TakenAway.objects.create(template=template, rows=json.loads(serializers.serialize("json", rows)), at=now).pk


def restore(person: Person, group_id: int, taken_away_id: int, now: datetime) -> None:
    """Bring back a section or pocket that was taken away; ``Gone`` where its section has gone too, or long after."""
    with editing_template(person, group_id, now) as (template, doing):
        kept = TakenAway.objects.filter(pk=taken_away_id, template=template, at__gte=now - RESTORABLE).first()
        if kept is None:
            raise Gone("There is nothing to bring back.", fix="It is back already, or was taken away too long ago.")
        rows = [one.object for one in serializers.deserialize("python", kept.rows, ignorenonexistent=True)]
        kept.delete()
        for one in rows:
            if isinstance(one, Section):
                _bring_back_section(doing, group_id, one)
            elif isinstance(one, Pocket):
                _bring_back_pocket(doing, template, one, rows)


def _bring_back_section(doing: Deed, group_id: int, section: Section) -> None:
    models.Model.save_base(section, raw=True, force_insert=True)
    doing.record("section_added", group_id, section=section.pk)


def _bring_back_pocket(doing: Deed, template: Template, pocket: Pocket, rows: Iterable[models.Model]) -> None:
    home = Section.objects.filter(pk=pocket.section_id, template=template).first()
    if home is None:
        raise Gone(
            f"The section of “{pocket.title}” has been taken away too.", fix="Bring the section back, or add it anew."
        )
    group_id = template.group_id
    assert group_id is not None, "only a class's template is changed"
    models.Model.save_base(pocket, raw=True, force_insert=True)
    there = set(Enrolment.objects.filter(group_id=group_id).values_list("pk", flat=True))
    for one in rows:
        if isinstance(one, GivenFile) or (isinstance(one, VariantDeal) and one.enrolment_id in there):
            models.Model.save_base(one, raw=True, force_insert=True)
    editing.check_size(template.pk)
    dealing.deal_missing(group_id, school_calendar().local_day(doing.now))
    doing.record("pocket_restored", group_id, pocket=pocket.pk)
    if home.repeats:
        effects.relay(doing, group_id, home)


def undo_brought(
    person: Person, group_id: int, sections: Sequence[int], now: datetime, added: Sequence[int] = ()
) -> None:
    """Take away all that the last lay-out brought: ``sections`` it said it had made, ``added`` pockets elsewhere."""
    with editing_template(person, group_id, now) as (template, doing):
        last = Event.objects.filter(group_id=group_id, verb__in=BROUGHT).order_by("-number").first()
        if last is None or not (sections or added) or _brought_by(last) != (sorted(sections), sorted(added)):
            raise Stale("Something else has been brought in since.", fix="Load the page again and look.")
        made = list(Section.objects.filter(template=template, pk__in=sections))
        extra = Pocket.objects.filter(section__template=template, pk__in=added)
        if not made and not extra:
            raise Gone("What was brought in is not here any more.", fix="Load the page again.")
        for handin_id in last.data["handins"]:
            take_back(doing, group_id, handin_id)
        of_units = Section.objects.filter(unit__pattern__in=made)
        inside = Q(section__in=[*made, *of_units]) | Q(pk__in=extra) | Q(pattern__in=extra)
        pockets = list(Pocket.objects.filter(inside).order_by("-pattern_id"))  # those laid out first
        for pocket in pockets:
            if effects.used(pocket):
                raise Invalid(
                    f"Somebody has begun in “{pocket.title}”, or a hand-in collects it.",
                    where=pocket.title,
                    fix="Take away what nobody uses by hand, and retire the rest.",
                )
        for pocket in pockets:
            effects.take_away(pocket)
        for section in (*of_units, *made):
            section.delete()
        lending.take_back(doing, group_id, last.data.get("items", ()))
        template.adopted_id = last.data["adopted"]
        template.save(update_fields=["adopted"])
        if not template.sections.exists():
            editing.add_section(template, FIRST_SECTION)
        doing.record("brought_undone", group_id, sections=sorted(sections))


def _brought_by(event: Event) -> tuple[list[int], list[int]]:
    return sorted(event.data.get("sections", ())), sorted(event.data.get("pockets", ()))
