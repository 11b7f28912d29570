"""Two markers, their agreement, a sample to moderate, and what is open where."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router

from coatpeg.core.policy import Action
from coatpeg.marking.two import desks, figures, marks, ruling, shapes
from coatpeg.people.requests import for_action, now, person_of

router = Router(tags=["marking"])
MARK = for_action(Action.MARK)
SEE = for_action(Action.SEE_AGREEMENT)


@router.get(
    "/groups/{group_id}/handins/{handin_id}/marking",
    response=shapes.HowMarkedShape,
    operation_id="see_how_marked",
    openapi_extra=SEE,
)
def see_how_marked(request: HttpRequest, group_id: int, handin_id: int) -> Any:
    """How a hand-in is marked, and how far its markers agree."""
    return figures.figures(person_of(request), group_id, handin_id)


@router.put(
    "/groups/{group_id}/handins/{handin_id}/marking",
    response=shapes.RuledShape,
    operation_id="say_how_marked",
    openapi_extra=for_action(Action.SET_HANDIN),
)
def say_how_marked(request: HttpRequest, group_id: int, handin_id: int, body: shapes.HowMarkedIn) -> Any:
    """Say how a hand-in is marked: by two independently, blind."""
    person = person_of(request)
    return ruling.rule(person, group_id, handin_id, body.version, now(), two=body.two, blind=body.blind)


@router.get(
    "/groups/{group_id}/handins/{handin_id}/sample",
    response=list[shapes.SampledShape],
    operation_id="see_sample",
    openapi_extra=SEE,
)
def see_sample(
    request: HttpRequest,
    group_id: int,
    handin_id: int,
    size: int = 8,
    seed: int = 1,
) -> Any:
    """A sample of marked work to moderate; the same by the same seed."""
    return figures.to_moderate(person_of(request), group_id, handin_id, size, seed, now())


@router.post(
    "/submissions/{submission_id}/draft/done",
    response=shapes.MarkDoneShape,
    operation_id="say_mark_done",
    openapi_extra=MARK,
)
def say_mark_done(request: HttpRequest, submission_id: int, body: shapes.MarkDoneIn) -> Any:
    """Say that one's own independent mark is done, or take it up again."""
    draft = marks.set_done(person_of(request), submission_id, body.version, now(), done=body.done)
    return {"done": draft.done_at is not None}


@router.put("/groups/{group_id}/desks", response=list[shapes.OpenShape], operation_id="say_open", openapi_extra=MARK)
def say_open(request: HttpRequest, group_id: int, body: shapes.OpenIn) -> Any:
    """Say what one has open at the desk, and hear what others have."""
    return desks.say_open(person_of(request), group_id, body.submission, now())
