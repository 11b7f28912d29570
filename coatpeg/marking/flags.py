"""What staff should look at in what came in: an unchanged starter, the same file as somebody else's, nothing at all.

Decided here: it goes by the newest submission that stands. *Unchanged* and *empty* are as it was frozen. *The same
file* compares the very bytes that came, over the collected pockets of the class, with those of other students who have
such a file in one of their pockets; a file that staff gave out as a starter is nobody's.
"""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime
from typing import Any

from django.db.models import Count

from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.models import Submission
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Artefact, Evidence

Cell = tuple[int, int]
"""(hand-in id, enrolment id)"""
IN = (Status.HANDED_IN, Status.ACCEPTED, Status.SENT_BACK)


def flags(person: Person, group_id: int, now: datetime) -> list[dict[str, Any]]:
    """Each flagged peg with its flags; a fixed number of queries."""
    require_in_group(person, Action.SEE_SUBMISSION, group_id)
    view = situation(group_id, now)
    newest = {facts.newest: cell for cell, facts in view.facts.items() if facts.newest}
    stands = {(handin, enrolment) for (enrolment, handin), standing in view.standings.items() if standing.status in IN}
    found: dict[Cell, dict[str, bool]] = {}

    def flag(cell: Cell, name: str) -> None:
        if cell in stands:
            found.setdefault(cell, {})[name] = True

    frozen = Submission.objects.filter(handin__group_id=group_id, voided_at=None)
    marked = frozen.exclude(empty=False, unchanged=False).values_list("pk", "empty", "unchanged")
    for pk, empty, unchanged in marked:
        if pk in newest:
            enrolment, handin = newest[pk]
            if empty:
                flag((handin, enrolment), "empty")
            if unchanged:
                flag((handin, enrolment), "starter")
    for cell in _same_files(view, group_id):
        flag(cell, "same")
    return [{"handin": cell[0], "enrolment": cell[1], "flags": sorted(of)} for cell, of in sorted(found.items())]


def _same_files(view: Situation, group_id: int) -> Iterator[Cell]:
    """The pegs whose collected pockets hold a file that came from another student of the class as well.

    A copy from the cupboard came from nobody of them.
    """
    of_class = Artefact.objects.filter(portfolio__enrolment__group_id=group_id, given=False).exclude(came_sha256="")
    twice = of_class.values("came_sha256").annotate(owners=Count("portfolio", distinct=True)).filter(owners__gt=1)
    shared = [one["came_sha256"] for one in twice.order_by()]
    if not shared:
        return
    lying = Evidence.objects.filter(
        removed_at=None,
        portfolio__enrolment__group_id=group_id,
        artefact__came_sha256__in=shared,
        artefact__given=False,
    ).values_list("portfolio__enrolment_id", "pocket_id", "artefact__came_sha256", "pocket__starter_hashes")
    collecting: dict[int, list[int]] = {}
    for handin in view.handins:
        for pocket in handin.pockets:
            collecting.setdefault(pocket, []).append(handin.id)
    for enrolment, pocket, came, starters in lying:
        if came not in starters:
            yield from ((handin, enrolment) for handin in collecting.get(pocket, ()))
