"""The pegs as a table to take along: exactly the students and hand-ins that were shown, in their order.

Decided here: a cell says the status in words with the day it came and how late; dates are ISO 8601, so that a
spreadsheet in any language reads them; what is not asked is empty. Who or what is gone meanwhile is left out.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from coatpeg.core.handins.standing import NOTHING, Standing, Status
from coatpeg.core.policy import Action
from coatpeg.files.tables import Cell, Format, written
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person, TeachingGroup
from coatpeg.people.rosters import Member

WORDS = {
    Status.NOT_ASKED: "",
    Status.EXCUSED: "excused",
    Status.ACCEPTED: "accepted",
    Status.SENT_BACK: "sent back",
    Status.HANDED_IN: "handed in",
    Status.NOT_OPEN: "opens later",
    Status.WORKING: "being worked on",
    Status.EMPTY: "nothing yet",
}
HEAD = ("Family name", "Given name", "Period", "Groups", "Filled, %", "Last work")


def table(
    person: Person, group_id: int, students: Sequence[int], handins: Sequence[int], how: Format, now: datetime
) -> tuple[bytes, str]:
    """The table as a file, and the name of the class."""
    require_in_group(person, Action.SEE_BOARD, group_id)
    view = situation(group_id, now)
    members = {one.enrolment_id: one for one in view.members}
    columns = {one.id: one for one in view.handins}
    shown = [columns[one] for one in dict.fromkeys(handins) if one in columns]
    rows: list[list[Cell]] = [[*HEAD, *(_title(one) for one in shown)]]
    rows += [_row(view, members[one], shown) for one in dict.fromkeys(students) if one in members]
    return written(rows, how), TeachingGroup.objects.values_list("name", flat=True).get(pk=group_id)


def _title(handin: AskedHandIn) -> str:
    earliest = handin.asked.earliest
    return f"{handin.title} (due {earliest.isoformat()})" if earliest else handin.title


def _row(view: Situation, member: Member, shown: Sequence[AskedHandIn]) -> list[Cell]:
    filled, last = view.filled(member, whole=False), view.last_work(member)
    return [
        member.family_name,
        member.given_name,
        member.period or "",
        ", ".join(member.groups),
        round(100 * filled.met / filled.wanted) if filled.wanted else None,
        view.calendar.local_day(last).isoformat() if last else "",
        *(_words(view, member, one) for one in shown),
    ]


def _words(view: Situation, member: Member, handin: AskedHandIn) -> str:
    cell = (member.enrolment_id, handin.id)
    standing: Standing = view.standings[cell]
    at = view.facts.get(cell, NOTHING).newest_at
    parts = [WORDS[standing.status]]
    if at and standing.status in (Status.HANDED_IN, Status.ACCEPTED, Status.SENT_BACK):
        parts[0] += f" {at.astimezone(view.calendar.zoneinfo):%Y-%m-%d %H:%M}"
    if standing.late:
        days = standing.late_days
        parts.append(f"{days} school day{'' if days == 1 else 's'} late" if days else "late")
    if standing.overdue:
        parts.append("overdue")
    return ", ".join(parts)
