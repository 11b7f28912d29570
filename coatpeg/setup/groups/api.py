"""Sets of groups: seeing and forming them, drawing, and choosing one's group."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router, Status

from coatpeg.core.people.grouping import Mixing
from coatpeg.core.policy import Action
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.setup.groups import choosing, drawing, sets, shapes

router = Router(tags=["groups"])
SEE = for_action(Action.SEE_ROSTER)
KEEP = for_action(Action.KEEP_ROSTER)
CHOOSE = for_action(Action.CHOOSE_GROUP)


@router.get("/groups/{group_id}/sets", response=shapes.GroupSetsShape, operation_id="see_sets", openapi_extra=SEE)
def see_sets(request: HttpRequest, group_id: int) -> Any:
    """The sets of groups of a class."""
    return sets.shown(person_of(request), group_id, now())


@router.post("/groups/{group_id}/sets", response={201: shapes.MadeGroup}, operation_id="make_set", openapi_extra=KEEP)
def make_set(request: HttpRequest, group_id: int, body: shapes.GroupNameIn) -> Any:
    """Begin a set of groups."""
    return Status(201, sets.make_set(person_of(request), group_id, body.name, now()))


@router.patch("/sets/{set_id}", response={204: None}, operation_id="rename_set", openapi_extra=KEEP)
def rename_set(request: HttpRequest, set_id: int, body: shapes.GroupNameIn) -> Any:
    """Call a set otherwise."""
    sets.rename_set(person_of(request), set_id, body.name, now())
    return Status(204, None)


@router.delete("/sets/{set_id}", response={204: None}, operation_id="remove_set", openapi_extra=KEEP)
def remove_set(request: HttpRequest, set_id: int) -> Any:
    """Take a set away whose groups are empty."""
    sets.remove_set(person_of(request), set_id, now())
    return Status(204, None)


@router.post("/sets/{set_id}/groups", response={201: shapes.MadeGroup}, operation_id="make_group", openapi_extra=KEEP)
def make_group(request: HttpRequest, set_id: int, body: shapes.GroupNameIn) -> Any:
    """Make a group."""
    return Status(201, sets.make_group(person_of(request), set_id, body.name, now()))


@router.patch(
    "/working-groups/{working_group_id}", response={204: None}, operation_id="rename_group", openapi_extra=KEEP
)
def rename_group(request: HttpRequest, working_group_id: int, body: shapes.GroupNameIn) -> Any:
    """Call a group otherwise."""
    sets.rename_group(person_of(request), working_group_id, body.name, now())
    return Status(204, None)


@router.delete(
    "/working-groups/{working_group_id}", response={204: None}, operation_id="remove_group", openapi_extra=KEEP
)
def remove_group(request: HttpRequest, working_group_id: int) -> Any:
    """Take an empty group away."""
    sets.remove_group(person_of(request), working_group_id, now())
    return Status(204, None)


@router.post("/sets/{set_id}/move", response=shapes.GroupsChanged, operation_id="move_into_group", openapi_extra=KEEP)
def move_into_group(request: HttpRequest, set_id: int, body: shapes.MoveIntoGroupIn) -> Any:
    """Put students into a group, or out of all of them."""
    return {"change": sets.move(person_of(request), set_id, body.students, body.group, now())}


@router.put("/sets/{set_id}/wishes", response={204: None}, operation_id="keep_wishes", openapi_extra=KEEP)
def keep_wishes(request: HttpRequest, set_id: int, body: shapes.WishesIn) -> Any:
    """Say who is never, and who is always, drawn into one group."""
    sets.wish(person_of(request), set_id, body.apart, body.together, now())
    return Status(204, None)


@router.post("/sets/{set_id}/draw", response=shapes.DrawnShape, operation_id="draw_groups", openapi_extra=KEEP)
def draw_groups(request: HttpRequest, set_id: int, body: shapes.DrawIn) -> Any:
    """The groups that a draw makes; nothing is written."""
    found = drawing.preview(person_of(request), set_id, _asked(body), now())
    groups = [{"name": name, "members": students} for name, students in found.groups]
    return {"seed": found.seed, "groups": groups, "seen": found.seen}


@router.post("/sets/{set_id}/form", response=shapes.GroupsChanged, operation_id="form_groups", openapi_extra=KEEP)
def form_groups(request: HttpRequest, set_id: int, body: shapes.FormIn) -> Any:
    """Form the groups of a draw that was shown."""
    return {"change": drawing.form(person_of(request), set_id, _asked(body), body.seen, now())}


def _asked(body: shapes.DrawIn) -> drawing.Asked:
    return drawing.Asked(body.size, Mixing(body.mixing), body.seed)


@router.put("/sets/{set_id}/choice", response={204: None}, operation_id="open_choice", openapi_extra=KEEP)
def open_choice(request: HttpRequest, set_id: int, body: shapes.LetChooseIn) -> Any:
    """Let students choose their groups until a day, or no longer."""
    choosing.open_choice(person_of(request), set_id, body.until, body.most, now())
    return Status(204, None)


@router.put("/sets/{set_id}/mine", response={204: None}, operation_id="choose_group", openapi_extra=CHOOSE)
def choose_group(request: HttpRequest, set_id: int, body: shapes.ChosenIn) -> Any:
    """Go into a group of a set, or out of it."""
    choosing.choose(person_of(request), set_id, body.group, now())
    return Status(204, None)
