"""The school's late rule: read, set, ended; and how late a submission is by it.

Decided here: the rule is the school's, and an administrator sets it. It holds for what is released from then on; what
was released stays as it was. A hand-in without points knows nothing of it.
"""

from __future__ import annotations

from datetime import datetime
from decimal import Decimal
from typing import Any

from coatpeg.core.errors import Stale
from coatpeg.core.marking.scoring import LateRule, check_late_rule
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import deed
from coatpeg.handins.board.situation import situation
from coatpeg.handins.models import Submission
from coatpeg.marking.models import LateRuling
from coatpeg.people.access import require_in_school
from coatpeg.people.models import Person, School, TeachingGroup


def late_rule() -> LateRule | None:
    """The school's late rule, where it has one: one query."""
    row = LateRuling.objects.order_by("-pk").first()
    return LateRule(row.per_day, row.floor) if row and row.per_day is not None else None


def late_rule_data(person: Person) -> dict[str, Any]:
    """The rule as the school's settings show it."""
    standings = require_in_school(person, Action.SEE_CALENDAR)
    row = LateRuling.objects.select_related("person").order_by("-pk").first()
    return {
        "per_day": float(row.per_day) if row and row.per_day is not None else None,
        "floor": float(row.floor) if row else 0.0,
        "by": row.person.full_name if row else "",
        "changed_at": row.changed_at if row else None,
        "version": row.pk if row else 0,
        "may_change": decide(Action.KEEP_LATE_RULE, standings).allowed,
    }


def set_late_rule(person: Person, per_day: Decimal | None, floor: Decimal, version: int, now: datetime) -> None:
    """Set the school's rule, or end it; ``version`` names the one that was seen."""
    require_in_school(person, Action.KEEP_LATE_RULE)
    rule = None if per_day is None else LateRule(per_day, floor)
    if rule is not None:
        check_late_rule(rule)
    with deed(person.pk, now) as doing:
        School.objects.select_for_update().order_by("pk").first()
        seen = LateRuling.objects.order_by("-pk").first()
        if (seen.pk if seen else 0) != version:
            raise Stale("Somebody changed the late rule meanwhile.", where="per_day", fix="Load it again.")
        LateRuling.objects.create(
            per_day=rule.per_day if rule else None,
            floor=rule.floor if rule else Decimal(0),
            person=person,
            changed_at=now,
        )
        takes, leaves = (str(rule.per_day), str(rule.floor)) if rule else (None, None)
        for group_id in TeachingGroup.objects.order_by("pk").values_list("pk", flat=True):
            doing.record("late_rule_set", group_id, per_day=takes, floor=leaves)


def late_days(submission: Submission, now: datetime) -> int:
    """How many whole school days late the student was for this hand-in."""
    view = situation(submission.handin.group_id, now, enrolments=(submission.enrolment_id,))
    standing = view.standings.get((submission.enrolment_id, submission.handin_id))
    return standing.late_days if standing else 0
