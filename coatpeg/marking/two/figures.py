"""How far the markers of a hand-in agree, and a sample of it to moderate.

Decided here: what is compared are marks that their markers said are done, of submissions that were not taken back. Of a
rubric each criterion is compared by the order of its levels, halves between them; a criterion that somebody did not
judge is missing there. The whole is compared by the score, in steps of the hand-in, with the interval difference.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import asdict
from datetime import datetime
from decimal import Decimal
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.agreement import agreement
from coatpeg.core.marking.moderating import Marked, sample
from coatpeg.core.marking.rubrics import Rubric, rubric_from_data
from coatpeg.core.policy import Action
from coatpeg.handins.board.situation import situation
from coatpeg.handins.lines import standing_data
from coatpeg.handins.models import HandIn
from coatpeg.marking.models import DraftMark, ReleasedMark
from coatpeg.marking.two.marks import rule_of
from coatpeg.marking.two.ruling import handin_in
from coatpeg.people.faces import face
from coatpeg.people.models import Person

MOST_SAMPLE = 200
MOST_SEED = 1_000_000


def figures(person: Person, group_id: int, handin_id: int) -> dict[str, Any]:
    """The rule of a hand-in, and how far its markers agree: three queries beside the policy's."""
    handin = handin_in(person, Action.SEE_AGREEMENT, group_id, handin_id)
    rule = rule_of(handin_id)
    done = _done(handin)
    markers = {one.person_id: one.person.full_name for one in done}
    rubric = rubric_from_data(handin.rubric)
    return {
        "handin": {"id": handin.pk, "title": handin.title},
        "two": rule.two if rule else False,
        "blind": rule.blind if rule else False,
        "version": rule.version if rule else 0,
        "markers": sorted(markers.values()),
        "criteria": [
            {"title": row.title, **asdict(agreement(_units(done, rubric, row.key), seed=handin.pk))}
            for row in (rubric.rows if rubric else ())
        ],
        "whole": asdict(agreement(_scores(done, handin.step), "interval", seed=handin.pk)) if handin.points else None,
    }


def _done(handin: HandIn) -> list[DraftMark]:
    rows = DraftMark.objects.filter(submission__handin=handin, submission__voided_at=None, done_at__isnull=False)
    return list(rows.select_related("person").order_by("submission_id", "pk"))


def _units(done: list[DraftMark], rubric: Rubric | None, key: str) -> list[dict[int, int]]:
    """By submission the place of the level that each marker gave: twice its index, one more between two."""
    assert rubric is not None
    places = {level.key: 2 * at for at, level in enumerate(rubric.levels)}
    units: dict[int, dict[int, int]] = defaultdict(dict)
    for one in done:
        chosen = [places[level] for level in one.levels.get(key, ()) if level in places]
        if chosen:
            units[one.submission_id][one.person_id] = sum(chosen) // len(chosen)
    halves = any(value % 2 for unit in units.values() for value in unit.values())
    # Without halves neighbours are one place apart.
    return [{who: value if halves else value // 2 for who, value in unit.items()} for unit in units.values()]


def _scores(done: list[DraftMark], step: Decimal) -> list[dict[int, int]]:
    units: dict[int, dict[int, int]] = defaultdict(dict)
    for one in done:
        if one.score is not None:
            units[one.submission_id][one.person_id] = int(one.score / step)
    return list(units.values())


def _share(one: ReleasedMark) -> float:
    return float(one.score / one.points) if one.score is not None and one.points else 0.0


def to_moderate(
    person: Person, group_id: int, handin_id: int, size: int, seed: int, now: datetime
) -> list[dict[str, Any]]:
    """A sample of what was accepted with a score, each with its line in a pile of its own; queries are few."""
    handin = handin_in(person, Action.SEE_AGREEMENT, group_id, handin_id)
    if not 1 <= size <= MOST_SAMPLE or not 0 <= seed <= MOST_SEED:
        raise Invalid(
            f"A sample has 1 to {MOST_SAMPLE} submissions, and its draw a number from 0 to {MOST_SEED}.",
            where="size",
            fix="Give numbers between these.",
        )
    released = ReleasedMark.objects.filter(
        outcome__submission__handin=handin, outcome__voided_at=None, outcome__submission__voided_at=None
    ).exclude(score=None)
    rows = {
        one.outcome.submission_id: one
        for one in released.select_related("outcome__person", "outcome__submission__enrolment__person")
    }
    marked = [
        Marked(
            pk, float(one.score / one.points) if one.score is not None and one.points else 0.0, one.outcome.person_id
        )
        for pk, one in rows.items()
    ]
    drawn = sample(marked, size, seed)
    if not drawn:
        return []
    of = [rows[pk].outcome.submission for pk, _ in drawn]
    view = situation(group_id, now, enrolments=frozenset(one.enrolment_id for one in of))
    faces = {one.enrolment_id: face(one) for one in view.members}
    lines = {
        one.pk: {
            "submission": one.pk,
            "at": one.at,
            "count": one.number,
            "group": group_id,
            "class_name": "",
            "handin": {"id": handin.pk, "title": handin.title},
            "student": faces[one.enrolment_id],
            "agree": False,
            **standing_data(view.standings[one.enrolment_id, handin.pk]),
        }
        for one in of
    }
    return [
        {
            "submission": pk,
            "line": lines[pk],
            "why": why.value,
            "student": rows[pk].outcome.submission.enrolment.person.listed,
            "score": float(rows[pk].score or 0),
            "points": float(rows[pk].points or 0),
            "by": rows[pk].outcome.person.full_name,
        }
        for pk, why in drawn
    ]
