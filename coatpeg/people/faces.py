"""How staff see a student in a list."""

from __future__ import annotations

from typing import Any

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
