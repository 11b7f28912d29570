"""What came in, one under the other: for staff who look through it rather than at who is missing.

Decided here: of each student and hand-in the newest submission that stands, excused ones left out; newest first, or
in the order of the students as the pegs show them. Read in pages, since each line opens what was frozen.
"""

from __future__ import annotations

from collections.abc import Collection, Sequence
from datetime import datetime
from typing import Any

from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action, decide
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, facts_in, situation
from coatpeg.handins.lines import due_data, standing_data
from coatpeg.handins.models import Submission
from coatpeg.marking.late.ruling import late_rule
from coatpeg.marking.models import DraftMark
from coatpeg.marking.queries import draft_data
from coatpeg.people.access import require_in_group
from coatpeg.people.faces import face
from coatpeg.people.models import Person
from coatpeg.people.rosters import Member
from coatpeg.portfolios.models import Portfolio

PAGE = 30
"""Lines at a time: two or three windows full."""
PIECES = 8
"""Artefacts of one line; of more it is said how many."""
WORDS = 280
"""Characters of a student's own words."""
CAME_IN = (Status.HANDED_IN, Status.ACCEPTED, Status.SENT_BACK)

Came = tuple[datetime, Member, AskedHandIn]


def arrivals(
    person: Person,
    group_id: int,
    students: Sequence[int],
    handins: Sequence[int],
    start: int,
    now: datetime,
    *,
    newest_first: bool = True,
    statuses: Collection[str] = (),
    late: bool = False,
) -> dict[str, Any]:
    """A page of what came in of these students for these hand-ins, and how much it is in all.

    ``statuses`` and ``late`` leave only what stands so.
    """
    standings = require_in_group(person, Action.SEE_BOARD, group_id)
    marks = decide(Action.MARK, standings).allowed
    view = situation(group_id, now)
    of = frozenset(one for one in CAME_IN if not statuses or one.value in statuses)
    found = _came(view, students, handins, of, late=late)
    if newest_first:
        found.sort(key=lambda one: (one[0], one[1].enrolment_id, one[2].id), reverse=True)
    page = found[start : start + PAGE]
    ids = [facts_in(view, member.enrolment_id, handin.id).newest or 0 for _, member, handin in page]
    submissions = Submission.objects.select_related("handin").in_bulk(ids)
    drafts = {one.submission_id: one for one in DraftMark.objects.filter(submission__in=ids, person=person)}
    books = dict(
        Portfolio.objects.filter(enrolment__in=[member.enrolment_id for _, member, _ in page]).values_list(
            "enrolment_id", "pk"
        )
    )
    rule = late_rule() if marks else None
    lines = []
    for (_, member, handin), pk in zip(page, ids, strict=True):
        # Taken back in this moment: it is no longer what the pegs say.
        if submission := submissions.get(pk):
            line = _line(view, member, handin, submission)
            book = books[member.enrolment_id]
            late_by = view.standings[member.enrolment_id, handin.id].late_days
            draft = draft_data(drafts.get(pk), submission.handin, late_by, rule) if marks else None
            lines.append({**line, "portfolio": book, "draft": draft})
    return {"lines": lines, "total": len(found), "next": start + PAGE if start + PAGE < len(found) else None}


def _came(
    view: Situation, students: Sequence[int], handins: Sequence[int], of: Collection[Status], *, late: bool
) -> list[Came]:
    members = {one.enrolment_id: one for one in view.members}
    columns = [one for one in view.handins if one.id in set(handins)]
    found: list[Came] = []
    for enrolment in dict.fromkeys(students):
        for handin in columns:
            cell = (enrolment, handin.id)
            if enrolment not in members:
                continue
            standing = view.standings[cell]
            if standing.status not in of or (late and not standing.late):
                continue
            at = facts_in(view, *cell).newest_at
            if at is not None:
                found.append((at, members[enrolment], handin))
    return found


def _line(view: Situation, member: Member, handin: AskedHandIn, submission: Submission) -> dict[str, Any]:
    cell = (member.enrolment_id, handin.id)
    evidence = [one for pocket in submission.snapshot["pockets"] for one in pocket["evidence"]]
    artefacts = [one["artefact"] for one in evidence if one["artefact"]]
    words = next((text for one in evidence if (text := " ".join(one["text"].split()))), "")
    return {
        "submission": submission.pk,
        "number": submission.number,
        "at": submission.at,
        "student": face(member),
        "handin": {"id": handin.id, "title": handin.title},
        "points": float(handin.points) if handin.points is not None else None,
        "by_rubric": bool(submission.handin.rubric),
        "pockets": [pocket["title"] for pocket in submission.snapshot["pockets"]],
        **standing_data(view.standings[cell]),
        **due_data(view.dues[cell]),
        "empty": submission.snapshot["empty"],
        "artefacts": artefacts[:PIECES],
        "more": max(0, len(artefacts) - PIECES),
        "words": words if len(words) <= WORDS else words[:WORDS].rsplit(" ", 1)[0] + " …",
    }
