"""Who people are, for notices; and the ids of a class's staff and of a student, as audiences."""

from __future__ import annotations

from collections.abc import Iterable
from zoneinfo import ZoneInfo

from django.utils import timezone

from coatpeg.core.policy import Role
from coatpeg.notices import addressees
from coatpeg.notices.addressees import Addressee
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, Person, StaffRole


def people(ids: Iterable[int]) -> dict[int, Addressee]:
    """People by id who may sign in: one query."""
    rows = Person.objects.filter(pk__in=list(ids), is_active=True).values_list("pk", "given_name", "email", "is_staff")
    return {pk: Addressee(given, email, staff) for pk, given, email, staff in rows}


def zone() -> ZoneInfo:
    """The school's time zone."""
    return school_calendar().zoneinfo


def staff_of(group_id: int, *roles: Role) -> list[int]:
    """The people who are one of these in a class today."""
    today = school_calendar().local_day(timezone.now())
    rows = StaffRole.objects.on(today).filter(group_id=group_id, role__in=[role.value for role in roles])
    return list(rows.values_list("person_id", flat=True))


def student_of(enrolment_id: int) -> list[int]:
    """The student of an enrolment, as an audience of one."""
    return list(Enrolment.objects.filter(pk=enrolment_id).values_list("person_id", flat=True))


def register() -> None:
    """Say who knows the people."""
    addressees.register(addressees.Directory(people, zone))
