"""A hand-in as it was filled in, and a new one laid out like it, in its class or another one."""

from __future__ import annotations

from datetime import date
from typing import Any

from coatpeg.core.errors import Gone
from coatpeg.core.handins.asking import Due
from coatpeg.core.marking.rubrics import rubric_to_data
from coatpeg.core.outlines.gallery import moved_by_week
from coatpeg.core.policy import Action
from coatpeg.handins.asked.files import of_handins
from coatpeg.handins.asked.setting import Plan, bound_to, plan_of
from coatpeg.handins.changing.impact import wanted_handin
from coatpeg.handins.models import HandIn
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar, term_of_class
from coatpeg.people.models import Enrolment, Period, Person, TeachingGroup, WorkingGroup


def handin_plan(person: Person, group_id: int, handin_id: int) -> dict[str, Any]:
    """A hand-in of this class as its form shows it."""
    require_in_group(person, Action.SEE_HANDINS, group_id)
    handin = wanted_handin(group_id, handin_id)
    return _data(handin, plan_of(handin))


def _data(handin: HandIn, plan: Plan) -> dict[str, Any]:
    dues, named = plan.period_dues, plan.periods or frozenset()
    return {
        "id": handin.pk,
        "version": handin.version,
        "title": plan.title,
        "pockets": list(plan.pockets),
        "follows": plan.follows,
        "since_last": plan.since_last,
        "anything": plan.anything,
        "opens": plan.opens,
        "due": plan.due,
        "closes": plan.closes,
        "for_everyone": plan.periods is None,
        "periods": [
            {"period": one, "asked": plan.periods is None or one in named, "due": dues.get(one)}
            for one in sorted({*dues, *named})
        ],
        "points": plan.points,
        "step": plan.step,
        "rubric": rubric_to_data(plan.rubric) or None,
        "directions": plan.directions,
        "files": list(plan.files),
        "given": of_handins([handin.pk]).get(handin.pk, []),
        "model_answer": plan.model_answer,
        "model_from": plan.model_from,
        "opens_again": plan.opens_again,
        "again": plan.again,
        "take_back": plan.take_back,
        "draft": plan.draft,
        "closing": plan.closing,
        "whom": plan.whom,
        "groups": sorted(plan.groups),
        "students": sorted(plan.students),
        "submissions": handin.submissions.count(),
        **_series(handin),
    }


def _series(handin: HandIn) -> dict[str, Any]:
    """Of which series it is one, how many others there are, and how many of them come after it."""
    of = HandIn.objects.filter(group_id=handin.group_id, series=handin.series, taken_away_at=None)
    places = list(of.exclude(pk=handin.pk).values_list("series_place", flat=True)) if handin.series else []
    later = sum(1 for place in places if place > handin.series_place)
    return {"series": handin.series, "series_place": handin.series_place, "others": len(places), "later": later}


def like(person: Person, group_id: int, handin_id: int) -> dict[str, Any]:
    """A plan for this class like a hand-in of a class in which this person sees the hand-ins.

    In another class pockets are found by what they were laid out as, else by their title; periods by their name;
    days are those of the same school week of its term. What has no counterpart is left out. It is not set yet.
    """
    require_in_group(person, Action.SET_HANDIN, group_id)
    handin = HandIn.objects.filter(pk=handin_id).first()
    if handin is None:
        raise Gone("There is no such hand-in.", fix="Go back to the hand-ins.")
    require_in_group(person, Action.SEE_HANDINS, handin.group_id)
    plan = plan_of(handin) if handin.group_id == group_id else plan_in_class(handin, group_id)
    return {**_data(handin, plan), "submissions": 0}


def plan_in_class(handin: HandIn, group_id: int) -> Plan:
    """A hand-in as it would be filled in for another class (``like``)."""
    plan = plan_of(handin)
    calendar = school_calendar()
    classes = TeachingGroup.objects.in_bulk([handin.group_id, group_id])
    source, target = (term_of_class(calendar, classes[one]) for one in (handin.group_id, group_id))

    def moved(due: Due | None) -> Due | None:
        return Due(moved_by_week(due.day, source, target, calendar), due.at) if due else None

    here = list(pockets_of(group_id).filter(retired_at=None))
    of_key, of_title = {one.key: one.pk for one in here}, {one.title.casefold(): one.pk for one in here}
    found = (of_key.get(one.key) or of_title.get(one.title.casefold()) for one in handin.pockets.all())
    names = dict(Period.objects.filter(group_id=handin.group_id).values_list("pk", "name"))
    periods = {name: pk for pk, name in Period.objects.filter(group_id=group_id).values_list("pk", "name")}
    there = {pk: periods[name] for pk, name in names.items() if name in periods}
    asked = None if plan.periods is None else frozenset(there[one] for one in plan.periods if one in there)
    dues = {there[one]: moved(due) for one, due in plan.period_dues.items() if one in there}
    whom, groups, students = whom_in(plan, group_id)
    pockets = () if plan.anything else tuple(dict.fromkeys(one for one in found if one))
    opens: date = moved_by_week(plan.opens, source, target, calendar)
    return Plan(
        title=plan.title,
        pockets=pockets,
        opens=opens,
        follows=plan.follows and bool(bound_to(group_id, pockets)),
        since_last=plan.since_last,
        anything=plan.anything,
        due=moved(plan.due),
        period_dues={one: due for one, due in dues.items() if due},
        periods=asked or None,
        points=plan.points,
        step=plan.step,
        rubric=plan.rubric,
        closes=moved(plan.closes),
        directions=plan.directions,
        files=plan.files,
        model_answer=plan.model_answer,
        model_from=moved_by_week(plan.model_from, source, target, calendar) if plan.model_from else None,
        opens_again=plan.opens_again,
        again=plan.again,
        take_back=plan.take_back,
        closing=plan.closing,
        whom=whom,
        groups=groups,
        students=students,
    )


def whom_in(plan: Plan, group_id: int) -> tuple[str, frozenset[int], frozenset[int]]:
    """Whom a plan picks in another class: groups of the same name, the same people; all where there is none of them."""
    names = WorkingGroup.objects.filter(pk__in=plan.groups).values("name")
    groups = frozenset(WorkingGroup.objects.filter(group_id=group_id, name__in=names).values_list("pk", flat=True))
    people = Enrolment.objects.filter(pk__in=plan.students).values("person_id")
    students = frozenset(Enrolment.objects.filter(group_id=group_id, person__in=people).values_list("pk", flat=True))
    there = {"groups": groups, "students": students, "but": students}.get(plan.whom)
    return (plan.whom, groups, students) if there else ("all", frozenset(), frozenset())
