"""The sheet as it stands, under the rule that is kept or another one that is only looked at.

Decided here: the hand-ins are those of the pegs that have points, in their order. Who reads marks reads it all; drafts
are nobody's business here either. A weight of a hand-in that was taken away is kept, and counts again when it is back.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from typing import Any

from coatpeg.core.handins.patterns import quartiles
from coatpeg.core.marking.rubrics import Judged as Levels
from coatpeg.core.marking.rubrics import Rubric, rubric_from_data
from coatpeg.core.marking.sheet import Kind, Result, Rule, Total, bars, result_of, total
from coatpeg.core.policy import Action
from coatpeg.files.tables import Cell, Format, written
from coatpeg.handins.asked.asking import AskedHandIn
from coatpeg.handins.board.situation import Situation, situation
from coatpeg.handins.models import HandIn
from coatpeg.marking.models import ReleasedMark, SheetRule
from coatpeg.marking.rubrics.changing import counted
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person, TeachingGroup
from coatpeg.people.rosters import Member

WORDS = {
    Kind.NOT_MARKED: "not marked",
    Kind.SENT_BACK: "sent back",
    Kind.MISSING: "missing",
    Kind.NOT_DUE: "",
    Kind.EXCUSED: "excused",
    Kind.NOT_ASKED: "",
}
"""What a table says where there is no score; a score is a number there."""


NO_MARK: tuple[None, None, Levels] = (None, None, {})


@dataclass(frozen=True)
class Sheet:
    """A class's results by student and hand-in."""

    view: Situation
    columns: Sequence[AskedHandIn]
    points: Mapping[int, Decimal]
    results: Mapping[int, Mapping[int, Result]]
    judged: Mapping[int, Sequence[Levels]]
    """By hand-in, how each scored student was judged by its rubric."""

    def totals(self, rule: Rule) -> dict[int, Total]:
        """Each student's total, by enrolment."""
        return {enrolment: total(of, self.points, rule) for enrolment, of in self.results.items()}


def read(person: Person, group_id: int, now: datetime) -> Sheet:
    """Everything of the sheet but the totals; a fixed number of queries."""
    require_in_group(person, Action.SEE_SUBMISSION, group_id)
    view = situation(group_id, now)
    columns = [one for one in view.handins if one.points]
    marks = ReleasedMark.objects.filter(outcome__voided_at=None, outcome__submission__handin__group_id=group_id)
    rows = marks.values_list("outcome__submission_id", "score", "points", "levels")
    scores = {of: (score, out_of, levels) for of, score, out_of, levels in rows}
    judged: dict[int, list[Levels]] = defaultdict(list)
    results = {}
    for member in view.members:
        mine = {}
        for handin in columns:
            cell = (member.enrolment_id, handin.id)
            facts = view.facts.get(cell)
            score, out_of, levels = scores.get(facts.newest or 0, NO_MARK) if facts else NO_MARK
            mine[handin.id] = found = result_of(view.standings[cell], score, out_of)
            if levels and found.kind is Kind.SCORED:
                judged[handin.id].append(levels)
        results[member.enrolment_id] = mine
    return Sheet(view, columns, {one.id: one.points for one in columns if one.points}, results, judged)


def kept_rule(group_id: int) -> tuple[Rule, int]:
    """The rule of a class, and its version; that of all points where none was kept."""
    kept = SheetRule.objects.filter(group_id=group_id).first()
    return (rule_of(kept), kept.version) if kept else (Rule(), 0)


def rule_of(kept: SheetRule) -> Rule:
    """A kept rule."""
    weights = {int(handin): Decimal(weight) for handin, weight in kept.weights.items()}
    return Rule(weights, kept.best, kept.missing_is_zero)


def sheet(person: Person, group_id: int, now: datetime, tried: Rule | None = None) -> dict[str, Any]:
    """The sheet under the rule that is kept, or under one that is ``tried``."""
    found = read(person, group_id, now)
    rule, version = kept_rule(group_id)
    if tried is not None:
        tried.check(found.points)
        rule = tried
    totals = found.totals(rule)
    kept = HandIn.objects.filter(pk__in=found.judged).values_list("pk", "rubric")
    rubrics = {pk: rubric for pk, data in kept if (rubric := rubric_from_data(data))}
    return {
        "handins": [_column(found, one, rule, rubrics.get(one.id)) for one in found.columns],
        "rows": [_row(found, member, totals[member.enrolment_id]) for member in found.view.members],
        "best": rule.best,
        "missing_is_zero": rule.missing_is_zero,
        "version": version,
    }


def _column(found: Sheet, handin: AskedHandIn, rule: Rule, rubric: Rubric | None) -> dict[str, Any]:
    shares = [share for of in found.results.values() if (share := of[handin.id].share) is not None]
    spread = quartiles([float(100 * one) for one in shares])
    return {
        "id": handin.id,
        "title": handin.title,
        "points": float(found.points[handin.id]),
        "weight": float(rule.weight(handin.id, found.points[handin.id])),
        "own_weight": handin.id in rule.weights,
        "scored": len(shares),
        "bars": bars(shares),
        "low": spread and spread.low,
        "middle": spread and spread.middle,
        "high": spread and spread.high,
        "levels": [one.title for one in rubric.levels] if rubric else [],
        "criteria": [
            {"title": title, "counts": counts, "not_judged": skipped}
            for title, counts, skipped in (counted(rubric, found.judged[handin.id]) if rubric else ())
        ],
    }


def _row(found: Sheet, member: Member, of: Total) -> dict[str, Any]:
    results = [found.results[member.enrolment_id][one.id] for one in found.columns]
    return {
        "id": member.enrolment_id,
        "kinds": [one.kind.value for one in results],
        "scores": [float(one.score) if one.score is not None else None for one in results],
        "total": float(of.value) if of.value is not None else None,
        "counted": [one.id in of.counted for one in found.columns],
    }


def table(
    person: Person, group_id: int, students: Sequence[int], handins: Sequence[int], how: Format, now: datetime
) -> tuple[bytes, str]:
    """What is shown of the sheet as a file, and the name of the class; totals are those of all hand-ins."""
    found = read(person, group_id, now)
    totals = found.totals(kept_rule(group_id)[0])
    members = {one.enrolment_id: one for one in found.view.members}
    columns = {one.id: one for one in found.columns}
    shown = [columns[one] for one in dict.fromkeys(handins) if one in columns]
    head: list[Cell] = ["Family name", "Given name", "Period"]
    head += [f"{one.title} (of {_number(found.points[one.id])})" for one in shown]
    rows: list[list[Cell]] = [[*head, "Total, %"]]
    for one in dict.fromkeys(students):
        if one in members:
            member, results = members[one], found.results[one]
            cells = [_cell(results[of.id]) for of in shown]
            rows.append([member.family_name, member.given_name, member.period or "", *cells, totals[one].value])
    return written(rows, how), TeachingGroup.objects.values_list("name", flat=True).get(pk=group_id)


def _cell(result: Result) -> Cell:
    return result.score if result.kind is Kind.SCORED else WORDS[result.kind]


def _number(value: Decimal) -> str:
    return f"{value.normalize():f}"
