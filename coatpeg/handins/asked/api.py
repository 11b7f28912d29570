"""Setting a hand-in."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date
from typing import Any

from django.http import HttpRequest
from ninja import File, Status, UploadedFile

from coatpeg.core.errors import Invalid
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.series import Repeat
from coatpeg.core.policy import Action
from coatpeg.handins.asked import files, series, setting, shapes, taking_back
from coatpeg.handins.router import router
from coatpeg.outlines.given_files import file_data
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.portfolios.shapes import GivenFileShape


def plan_in(body: shapes.PlanIn) -> setting.Plan:
    """A plan as it came."""
    return setting.Plan(
        title=body.title,
        pockets=tuple(body.pockets),
        opens=body.opens,
        follows=body.follows,
        since_last=body.since_last,
        anything=body.anything,
        due=Due(body.due.day, body.due.at) if body.due else None,
        period_dues={one.period: Due(one.due.day, one.due.at) for one in body.periods if one.due},
        periods=None if body.for_everyone else frozenset(one.period for one in body.periods if one.asked),
        points=body.points,
        step=body.step,
        rubric=body.rubric.taken() if body.rubric else None,
        closes=Due(body.closes.day, body.closes.at) if body.closes else None,
        directions=body.directions,
        files=tuple(sorted(set(body.files))),
        model_answer=body.model_answer,
        model_from=body.model_from,
        opens_again=body.opens_again,
        again=body.again,
        take_back=body.take_back,
        draft=body.draft,
        closing=body.closing,
        whom=body.whom,
        groups=frozenset(body.groups) if body.whom == "groups" else frozenset(),
        students=frozenset(body.students) if body.whom in ("students", "but") else frozenset(),
    )


@router.post(
    "/groups/{group_id}/handins/preview",
    response=shapes.PreviewShape,
    operation_id="preview_handin",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def preview_handin(request: HttpRequest, group_id: int, body: shapes.PlanIn) -> Any:
    """Who would get a hand-in and when; of a series also each of its days."""
    plan = plan_in(body)
    found = asdict(setting.preview(person_of(request), group_id, plan, now()))
    repeat = _repeat(body)
    lines = series.plans(group_id, plan, repeat) if repeat else []
    return {
        **found,
        "series": [{"number": one.number, "opens": of.opens, "due": one.day, "moved": one.moved} for one, of in lines],
    }


def _repeat(body: shapes.PlanIn) -> Repeat | None:
    if body.repeat is None:
        return None
    if body.repeat.every and body.repeat.until is None:
        raise Invalid("It is not said until when the series goes on.", where="until", fix="Give its last day.")
    return Repeat(body.repeat.every, body.repeat.until or date.max)


@router.post(
    "/groups/{group_id}/handins",
    response={201: shapes.SetShape},
    operation_id="set_handin",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def set_handin(request: HttpRequest, group_id: int, body: shapes.PlanIn) -> Any:
    """Set a hand-in, or a series of them."""
    person, plan, repeat = person_of(request), plan_in(body), _repeat(body)
    if repeat:
        all_of_them = series.set_series(person, group_id, plan, repeat, now(), key=body.key)
    else:
        all_of_them = [setting.set_handin(person, group_id, plan, now(), key=body.key)]
    made = all_of_them[0]
    return Status(201, {"id": made.pk, "title": made.title, "series": made.series, "count": len(all_of_them)})


@router.post(
    "/groups/{group_id}/handins/files",
    response={201: GivenFileShape},
    operation_id="add_handin_file",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def add_handin_file(request: HttpRequest, group_id: int, file: File[UploadedFile]) -> Any:
    """Keep a picture or file for a hand-in that is being filled in, which names it as it is set."""
    return Status(201, file_data(files.add(person_of(request), group_id, file, file.name or "", now())))


@router.delete(
    "/groups/{group_id}/handins/{handin_id}",
    response={204: None},
    operation_id="take_back_handin",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def take_back_handin(request: HttpRequest, group_id: int, handin_id: int) -> Any:
    """Take back a hand-in for which nobody has done anything yet."""
    taking_back.take_back_handin(person_of(request), group_id, handin_id, now())
    return Status(204, None)


@router.delete(
    "/groups/{group_id}/series/{name}",
    response=shapes.SeriesBackShape,
    operation_id="take_back_series",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def take_back_series(request: HttpRequest, group_id: int, name: str) -> Any:
    """Take back a series that was just set, but for what somebody has done something for."""
    taken, left = series.take_series_back(person_of(request), group_id, name, now())
    return {"taken": taken, "left": left}
