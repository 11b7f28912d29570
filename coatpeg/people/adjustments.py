"""Adjustments: what learning support agreed for a student, in every class they are in.

Only the lead and co-teachers of a caseload the student is in change them; they and the leads of the student's classes
read them, the reason included. An adjustment that was ended or taken away stops counting at once; what was handed in
before keeps what was wanted then.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from coatpeg.core.calendar.school_days import Span
from coatpeg.core.errors import Gone, Invalid, Stale
from coatpeg.core.outlines.adjusting import WantedChange, check
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import Deed, deed
from coatpeg.people.access import require, to_student
from coatpeg.people.models import Adjustment, Enrolment, Person

LONGEST_REASON = 2_000


@dataclass(frozen=True, slots=True)
class Agreed:
    """An adjustment as a person fills it in."""

    extra_days: int
    change: WantedChange
    reason: str = ""

    def fields(self) -> dict[str, Any]:
        """The columns of its row; ``Invalid`` where it cannot be meant."""
        check(self.extra_days, self.change)
        if len(self.reason) > LONGEST_REASON:
            raise Invalid(
                f"The reason has {len(self.reason)} characters; {LONGEST_REASON} is the most.",
                where="reason",
                fix="Shorten it.",
            )
        return {
            "extra_days": self.extra_days,
            "fewer_artefacts": self.change.fewer_artefacts,
            "percent": self.change.percent,
            "spoken": self.change.spoken,
            "without": sorted(kind.value for kind in self.change.without),
            "first": self.change.span.first,
            "last": self.change.span.last,
            "reason": self.reason.strip(),
        }


def agreed(extra_days: int, first: date, last: date | None, reason: str = "", **wanted: Any) -> Agreed:
    """An adjustment from plain values; ``wanted`` as ``WantedChange`` names them."""
    kinds = frozenset(PocketKind(kind) for kind in wanted.pop("without", ()))
    return Agreed(extra_days, WantedChange(Span(first, last), without=kinds, **wanted), reason)


def _enrolment(enrolment_id: int) -> Enrolment:
    found = Enrolment.objects.select_related("person", "group").filter(pk=enrolment_id).first()
    if found is None:
        raise Gone("There is no such student.", fix="Go back to the list.")
    return found


def of_student(person: Person, enrolment_id: int) -> dict[str, Any]:
    """All adjustments of a student, newest first, for those who may read them."""
    enrolment = _enrolment(enrolment_id)
    standings = to_student(person, enrolment)
    require(Action.SEE_ADJUSTMENTS, standings)
    rows = Adjustment.objects.filter(person=enrolment.person).select_related("agreed_by").order_by("-first", "-pk")
    return {
        "may_change": decide(Action.KEEP_ADJUSTMENTS, standings).allowed,
        "name": enrolment.person.full_name,
        "adjustments": [adjustment_data(one) for one in rows],
    }


def adjustment_data(one: Adjustment) -> dict[str, Any]:
    """An adjustment as plain data."""
    by = one.agreed_by
    return {
        "id": one.pk,
        "extra_days": one.extra_days,
        "fewer_artefacts": one.fewer_artefacts,
        "percent": one.percent,
        "spoken": one.spoken,
        "without": one.without,
        "first": one.first,
        "last": one.last,
        "reason": one.reason,
        "by": by.full_name if by else "",
        "version": one.version,
    }


def agree(person: Person, enrolment_id: int, of: Agreed, now: datetime) -> Adjustment:
    """Write a new adjustment; it counts from its first day in every class of the student."""
    enrolment = _enrolment(enrolment_id)
    require(Action.KEEP_ADJUSTMENTS, to_student(person, enrolment))
    with deed(person.pk, now) as doing:
        made = Adjustment.objects.create(person=enrolment.person, agreed_by=person, **of.fields())
        _record(doing, "adjustment_agreed", made)
        return made


def _kept(person: Person, adjustment_id: int) -> Adjustment:
    """An adjustment that this person may change, its row locked."""
    found = Adjustment.objects.select_for_update().filter(pk=adjustment_id).first()
    if found is None:
        raise Gone("There is no such adjustment.", fix="Load the list again.")
    for enrolment in Enrolment.objects.filter(person_id=found.person_id).select_related("person"):
        if decide(Action.KEEP_ADJUSTMENTS, to_student(person, enrolment)).allowed:
            return found
    # Somebody who may only read it is told so; to anybody else it does not exist.
    enrolments = list(Enrolment.objects.filter(person_id=found.person_id))
    standings = frozenset().union(*(to_student(person, one) for one in enrolments))
    require(Action.KEEP_ADJUSTMENTS, standings)
    return found


def change(person: Person, adjustment_id: int, of: Agreed, version: int, now: datetime) -> Adjustment:
    """Change an adjustment; ``version`` is the one the person saw."""
    with deed(person.pk, now) as doing:
        kept = _kept(person, adjustment_id)
        if kept.version != version:
            raise Stale(
                "Somebody else changed this adjustment meanwhile.", where="adjustment", fix="Look at it again first."
            )
        for name, value in of.fields().items():
            setattr(kept, name, value)
        kept.version, kept.agreed_by = kept.version + 1, person
        kept.save()
        _record(doing, "adjustment_changed", kept)
        return kept


def remove(person: Person, adjustment_id: int, now: datetime) -> None:
    """Take an adjustment away; it can be agreed anew."""
    with deed(person.pk, now) as doing:
        kept = _kept(person, adjustment_id)
        _record(doing, "adjustment_removed", kept)
        kept.delete()


def _record(doing: Deed, verb: str, of: Adjustment) -> None:
    """Tell every group the student is in: statuses there may move. Events carry no reason."""
    for pk, group_id in Enrolment.objects.filter(person_id=of.person_id).values_list("pk", "group_id"):
        doing.record(verb, group_id, enrolment_id=pk, adjustment=of.pk)
