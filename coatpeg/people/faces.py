"""How staff see a student in a list, and how students see each other."""

from __future__ import annotations

from typing import Any

from coatpeg.core.people import names
from coatpeg.people.models import Enrolment
from coatpeg.people.rosters import Member


def face(member: Member) -> dict[str, Any]:
    """How staff see a student in a list."""
    return {
        "id": member.enrolment_id,
        "family_name": member.family_name,
        "given_name": member.given_name,
        "family_first": member.family_first,
        "picture": member.picture,
        "tint": member.tint,
        "period": member.period,
    }


def mate(enrolment: Enrolment) -> dict[str, Any]:
    """How students see each other (``MateShape``); the person is loaded."""
    return {
        "name": names.short(enrolment.person.family_name, enrolment.person.given_name),
        "picture": enrolment.picture,
        "tint": enrolment.tint,
    }
