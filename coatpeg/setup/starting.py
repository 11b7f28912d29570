"""Starting a class, caseload or cohort: the group, its lead, an empty template."""

from __future__ import annotations

from datetime import date, datetime

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.people.person_names import tidy
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.outlines.models import FIRST_SECTION, Section, Template
from coatpeg.people import staffing
from coatpeg.people.access import require_in_school
from coatpeg.people.models import Person, TeachingGroup

LONGEST_NAME = 100
LONGEST_YEARS = 10


def start_group(
    person: Person,
    name: str,
    kind: TeachingGroup.Kind,
    first: date,
    last: date,
    now: datetime,
    lead_id: int | None = None,
) -> TeachingGroup:
    """Start a teaching group; the person is its lead, unless an administrator names somebody else."""
    caseload = kind == TeachingGroup.Kind.CASELOAD
    require_in_school(person, Action.START_CASELOAD if caseload else Action.START_CLASS)
    name = tidy(name)
    if not name or len(name) > LONGEST_NAME:
        raise Invalid(
            "The class has no name." if not name else f"The name has {len(name)} characters.",
            where="name",
            fix=f"Give it a name of at most {LONGEST_NAME} characters that students know.",
        )
    if last < first or (last - first).days > 366 * LONGEST_YEARS:
        raise Invalid(
            f"It would run from {first:%a %-d %b %Y} to {last:%a %-d %b %Y}.",
            where="last",
            fix=f"Let it end after it begins, within {LONGEST_YEARS} years.",
        )
    if caseload and lead_id in (None, person.pk):
        raise Refused(
            "Nobody gives themselves a caseload: its lead sees students' work in all their classes.",
            where="lead",
            fix="Name the coordinator who is to lead it.",
        )
    lead = person
    if lead_id is not None and lead_id != person.pk:
        require_in_school(person, Action.KEEP_ACCOUNTS)
        found = Person.objects.filter(pk=lead_id, is_staff=True, is_active=True).first()
        if found is None:
            raise Gone("There is no such member of staff.", fix="Choose somebody from the list.")
        lead = found
    with deed(person.pk, now) as doing:
        group = TeachingGroup.objects.create(name=name, kind=kind, first=first, last=last)
        staffing.started(doing, group, lead)
        if not caseload:
            template = Template.objects.create(group=group, title=name)
            Section.objects.create(template=template, title=FIRST_SECTION)
        return group
