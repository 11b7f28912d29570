"""The cupboard: what lies there, taking a copy, giving copies out."""

from __future__ import annotations

from datetime import time
from typing import Any

from django.http import HttpRequest
from ninja import File, Form, Router, Status
from ninja.files import UploadedFile

from coatpeg.core.calendar.school_days import moment_of
from coatpeg.core.cupboard.items import ItemKind
from coatpeg.core.policy import Action
from coatpeg.cupboard import giving, keeping, lending, reading, shapes, taking, versions
from coatpeg.people.calendars import school_calendar
from coatpeg.people.requests import for_action, now, person_of

router = Router(tags=["cupboard"])
SEE = for_action(Action.SEE_CUPBOARD)
KEEP = for_action(Action.KEEP_CUPBOARD)
GIVE = for_action(Action.GIVE_OUT)
COPIES = for_action(Action.SEE_COPIES)
FILL = for_action(Action.FILL_POCKET)


def _line(item: Any) -> dict[str, Any]:
    return reading.item_data(item, school_calendar().local_day(now()))


def _plan(body: shapes.ItemIn) -> keeping.ItemPlan:
    return keeping.ItemPlan(
        body.title,
        body.heading,
        body.html,
        body.link,
        body.staff_only,
        body.opens,
        tuple(body.periods),
        tuple(body.groups),
    )


def _giving(item_id: int, body: shapes.GiveIn) -> giving.Giving:
    to = giving.Audience(frozenset(body.students), frozenset(body.periods), frozenset(body.groups))
    of = body.versions
    if of is None:
        return giving.Giving(item_id, body.pocket, to)
    plan = versions.plan_from(of.by, of.seed, [one.model_dump() for one in of.versions])
    return giving.Giving(item_id, body.pocket, to, plan, of.hand)


@router.get(
    "/groups/{group_id}/cupboard", response=shapes.CupboardShape, operation_id="see_cupboard", openapi_extra=SEE
)
def see_cupboard(request: HttpRequest, group_id: int) -> Any:
    """What lies in the cupboard of a class, as this person is shown it."""
    return reading.cupboard(person_of(request), group_id, now())


@router.post(
    "/groups/{group_id}/cupboard",
    response={201: shapes.ItemShape},
    operation_id="put_in_cupboard",
    openapi_extra=KEEP,
)
def put_in_cupboard(request: HttpRequest, group_id: int, body: shapes.NewItemIn) -> Any:
    """Put a page or a link in."""
    made = keeping.put_in(person_of(request), group_id, ItemKind(body.kind), _plan(body), now())
    return Status(201, _line(made))


@router.post(
    "/groups/{group_id}/cupboard/files",
    response={201: shapes.ItemShape},
    operation_id="put_file_in_cupboard",
    openapi_extra=KEEP,
)
def put_file_in_cupboard(request: HttpRequest, group_id: int, file: File[UploadedFile], heading: Form[str] = "") -> Any:
    """Put a file in: for staff only until it is shown."""
    made = keeping.put_file_in(person_of(request), group_id, file, file.name or "", now(), heading=heading)
    return Status(201, _line(made))


@router.get("/cupboard/{item_id}", response=shapes.OpenedItem, operation_id="see_item", openapi_extra=SEE)
def see_item(request: HttpRequest, item_id: int) -> Any:
    """A thing in the cupboard with what is in it."""
    return reading.opened(person_of(request), item_id, now())


@router.post("/cupboard/{item_id}/read", response={204: None}, operation_id="read_item", openapi_extra=SEE)
def read_item(request: HttpRequest, item_id: int) -> Any:
    """Say that a student has opened it."""
    reading.mark_read(person_of(request), item_id, now())
    return Status(204, None)


@router.put("/cupboard/{item_id}", response=shapes.ItemShape, operation_id="change_item", openapi_extra=KEEP)
def change_item(request: HttpRequest, item_id: int, body: shapes.ChangedItemIn) -> Any:
    """Change a thing in the cupboard; copies of what was in it are renewed."""
    return _line(keeping.change(person_of(request), item_id, body.version, _plan(body), now()))


@router.post(
    "/cupboard/{item_id}/newer", response=shapes.ItemShape, operation_id="change_item_file", openapi_extra=KEEP
)
def change_item_file(request: HttpRequest, item_id: int, file: File[UploadedFile], version: Form[int]) -> Any:
    """Put a newer file in the place of the one before."""
    return _line(keeping.change_file(person_of(request), item_id, version, file, file.name or "", now()))


@router.delete("/cupboard/{item_id}", response=shapes.ItemShape, operation_id="remove_item", openapi_extra=KEEP)
def remove_item(request: HttpRequest, item_id: int) -> Any:
    """Take a thing out of the cupboard; copies stay."""
    return _line(keeping.set_removed(person_of(request), item_id, now(), removed=True))


@router.post("/cupboard/{item_id}/restore", response=shapes.ItemShape, operation_id="restore_item", openapi_extra=KEEP)
def restore_item(request: HttpRequest, item_id: int) -> Any:
    """Fetch it back."""
    return _line(keeping.set_removed(person_of(request), item_id, now(), removed=False))


@router.put("/cupboard/{item_id}/lent", response=shapes.ItemShape, operation_id="lend_item", openapi_extra=KEEP)
def lend_item(request: HttpRequest, item_id: int, body: shapes.LentIn) -> Any:
    """Lend it to just these classes of those whose cupboard this person keeps."""
    return _line(lending.lend(person_of(request), item_id, body.classes, now()))


@router.get(
    "/cupboard/{item_id}/copies", response=list[shapes.CopyLine], operation_id="see_copies", openapi_extra=COPIES
)
def see_copies(request: HttpRequest, item_id: int) -> Any:
    """Who has a copy, and how far each has come."""
    return reading.copies_of_item(person_of(request), item_id, now())


@router.post(
    "/portfolios/{portfolio_id}/cupboard/{item_id}",
    response={201: shapes.TakenCopy},
    operation_id="take_copy",
    openapi_extra=FILL,
)
def take_copy(request: HttpRequest, portfolio_id: int, item_id: int, body: shapes.TakeIn) -> Any:
    """Take a copy into a pocket of one's own."""
    made = taking.take(person_of(request), portfolio_id, body.pocket, item_id, now())
    return Status(201, taking.copy_data(made))


@router.delete("/copies/{copy_id}", response={204: None}, operation_id="put_copy_back", openapi_extra=FILL)
def put_copy_back(request: HttpRequest, copy_id: int) -> Any:
    """Put a copy back that is as it came."""
    taking.put_back(person_of(request), copy_id, now())
    return Status(204, None)


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/copies",
    response=shapes.OpenedCopies,
    operation_id="open_copies",
    openapi_extra=FILL,
)
def open_copies(request: HttpRequest, portfolio_id: int, pocket_id: int) -> Any:
    """Say that a student has opened a pocket in which copies lie; what waited to be renewed is."""
    return {"touched": taking.open_pocket(person_of(request), portfolio_id, pocket_id, now())}


@router.post(
    "/cupboard/{item_id}/giving", response=shapes.GivingImpact, operation_id="look_at_giving", openapi_extra=GIVE
)
def look_at_giving(request: HttpRequest, item_id: int, body: shapes.GiveIn) -> Any:
    """What giving copies out would do, by name; nothing is written."""
    return giving.look(person_of(request), _giving(item_id, body), now())


@router.post("/cupboard/{item_id}/give", response={201: shapes.GivenShape}, operation_id="give_out", openapi_extra=GIVE)
def give_out(request: HttpRequest, item_id: int, body: shapes.GiveNowIn) -> Any:
    """Give copies out, at once or at a moment."""
    later = moment_of(body.day, body.time or time(), school_calendar().zoneinfo) if body.day else None
    made = giving.give(person_of(request), _giving(item_id, body), body.key, now(), later)
    return Status(201, giving.given_data(made))


@router.get(
    "/groups/{group_id}/given", response=list[shapes.GivenLine], operation_id="see_given_out", openapi_extra=COPIES
)
def see_given_out(request: HttpRequest, group_id: int) -> Any:
    """What was given out in a class, newest first."""
    return giving.of_class(person_of(request), group_id, now())


@router.get(
    "/given/{given_id}/students", response=list[shapes.CopyLine], operation_id="see_given_to", openapi_extra=COPIES
)
def see_given_to(request: HttpRequest, given_id: int) -> Any:
    """How far each has come with what was given out."""
    return giving.students(person_of(request), given_id, now())


@router.delete("/given/{given_id}", response=list[shapes.CopyLine], operation_id="take_given_back", openapi_extra=GIVE)
def take_given_back(request: HttpRequest, given_id: int) -> Any:
    """Take it back from everybody who has not begun; the answer names those who have."""
    return giving.take_back(person_of(request), given_id, now())


@router.post("/given/{given_id}/restore", response=shapes.GivenShape, operation_id="give_again", openapi_extra=GIVE)
def give_again(request: HttpRequest, given_id: int) -> Any:
    """Undo taking it back."""
    return giving.given_data(giving.give_again(person_of(request), given_id, now()))
