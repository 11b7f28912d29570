"""The class list: seeing it, reading, previewing and applying a new one, undoing, pegs."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Router, Status
from ninja.files import UploadedFile
from pydantic import Field

from coatpeg.core.people.csv_text import to_csv
from coatpeg.core.people.roster_plan import Line, RosterPlan
from coatpeg.core.people.roster_table import Column, Table, guess
from coatpeg.core.policy import Action
from coatpeg.people import cards
from coatpeg.people.models import RosterDrop
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Day, Shape
from coatpeg.setup.roster import (
    class_lists,
    enrolling,
    join_requests,
    joining,
    memberships,
    moving,
    paper,
    roster_folder,
)
from coatpeg.setup.roster.roster_files import MOST_BYTES

router = Router(tags=["class list"])
SEE = for_action(Action.SEE_ROSTER)
KEEP = for_action(Action.KEEP_ROSTER)
ColumnWord = Literal["name", "given", "family", "email", "number", "period", "group", "ignore"]
VerdictWord = Literal["new", "here", "joins", "back", "asked", "changed", "twice", "incomplete", "unreadable"]


class ListedGroup(Shape):
    """A teaching group with its days."""

    id: int
    name: str
    kind: str
    first: date
    last: date


class ListedStudent(Shape):
    """A student of the list."""

    id: int
    family_name: str
    given_name: str
    family_first: bool
    picture: str
    tint: int
    period: str
    groups: list[str]
    username: str
    email: str
    number: str
    to_complete: bool
    """The name was made from an address."""
    first: date
    last: date | None
    left: bool
    find: str
    card: datetime | None
    """When the card that signs them in was made."""
    may_give_password: bool


class RosterShape(Shape):
    """The class list."""

    group: ListedGroup
    today: date
    may_change: bool
    students: list[ListedStudent]


class FileClass(Shape):
    """A class in a file of many."""

    id: str
    title: str
    students: int


class TableShape(Shape):
    """A list as read, with what each column seems to hold."""

    heading: list[str]
    rows: list[list[str]]
    columns: list[ColumnWord]
    classes: list[FileClass] = Field(default_factory=list)
    """Where the file has several classes: all of them."""
    chosen: str = ""
    """The id of the class whose list this is."""
    first: date | None = None
    """The day the class's term begins, where the file says so."""


class LeaverShape(Shape):
    """A student of the class whom the list does not name."""

    id: int
    name: str


class DropShape(Shape):
    """A list that came through the roster folder; ``change`` undoes it once it is applied.

    ``missing``: applied by itself, it did not name these students, who are still in the class.
    """

    id: int
    name: str
    at: datetime
    state: Literal["pending", "applied", "aside"]
    message: str
    change: int | None
    missing: list[LeaverShape]


class DropsShape(Shape):
    """What came for a class; ``by_itself``: lists are applied without anybody looking at them first."""

    by_itself: bool
    drops: list[DropShape]


class ByItselfIn(Shape):
    """Whether lists from the roster folder are applied by themselves."""

    by_itself: bool


class PastedIn(Shape):
    """A pasted text."""

    text: str


class ListIn(Shape):
    """A list as the person has it before them."""

    heading: list[str] = Field(default_factory=list, max_length=40)
    rows: list[list[str]] = Field(max_length=5_000)
    columns: list[ColumnWord] = Field(max_length=40)
    as_new: list[int] = Field(default_factory=list)
    family_first: bool = False
    """Its names are written family name first, but in the lines that are ``turned``."""
    turned: list[int] = Field(default_factory=list, max_length=5_000)
    drop: int | None = None
    """The pending list of the school's system that this one came as."""

    def list_(self) -> class_lists.ClassList:
        """The same as the commands take it."""
        rows, columns = tuple(tuple(row) for row in self.rows), tuple(Column(one) for one in self.columns)
        order = (self.family_first, frozenset(self.turned))
        return class_lists.ClassList(rows, columns, frozenset(self.as_new), self.drop, *order)


class ApplyIn(ListIn):
    """The same with the students to mark as left, the day on which the others join, and the preview that was seen."""

    leave: list[int] = Field(default_factory=list)
    first: Day | None = None
    seen: str = Field(max_length=64)


class ChangeShape(Shape):
    """A field that the list would change."""

    field: str
    old: str
    new: str


class LineShape(Shape):
    """What a line would do."""

    number: int
    name: str
    family_first: bool
    verdict: VerdictWord
    changes: list[ChangeShape]
    why: str
    fix: str


class RosterPreview(Shape):
    """What a list would do, line by line; ``seen`` names it when the list is applied."""

    lines: list[LineShape]
    missing: list[LeaverShape]
    seen: str


class AppliedShape(Shape):
    """What a list did; ``change`` undoes it."""

    change: int | None
    counts: dict[str, int]
    left: int


class ListChange(Shape):
    """A change of the class list that stands; ``newest`` is the one that can be undone now. ``file``: it came so."""

    id: int
    at: datetime
    by: str
    file: str
    added: int
    changed: int
    placed: int
    left: int
    newest: bool


class OwnRequest(Shape):
    """A request of a class for a student known from elsewhere, in the words of its list."""

    id: int
    name: str
    asked_at: datetime
    lapses: date


class JoinRequestShape(OwnRequest):
    """A request that waits for this person's word: for which student, into which class, by whom."""

    into: str
    kind: str
    asked_by: str


class SettleIn(Shape):
    """Whether the student comes in."""

    confirm: bool


class LeaveIn(Shape):
    """Enrolments that end today."""

    students: list[int] = Field(max_length=5_000)


class CardsIn(LeaveIn):
    """Enrolments to print cards for; ``passwords``: each with a new password."""

    passwords: bool = False


class PlaceIn(LeaveIn):
    """Enrolments to put into a period or working group; it is made where there is none of that name."""

    where: Literal["period", "group"]
    name: str


class PlacedShape(Shape):
    """The change that undoes it."""

    change: int


class KnownStudent(Shape):
    """A student whom this person may bring in, with those of their classes that this person knows."""

    person: int
    name: str
    family: str
    given: str
    number: str
    email: str
    classes: list[str]


class MoveStudentIn(Shape):
    """The class that a student moves to."""

    into: int


class ListOfClass(Shape):
    """A change of the list of a class."""

    group: int
    change: int


class MovedStudentShape(Shape):
    """What moving a student did: ``changes`` undo it, in this order; how much of their work came along.

    ``left_behind``: the titles of pockets that are not in the other class.
    """

    changes: list[ListOfClass]
    pieces: int
    left_behind: list[str]


class SwapIn(Shape):
    """Two enrolments that change pegs."""

    one: int
    other: int


def _table(table: Table) -> dict[str, Any]:
    return {"heading": table.heading, "rows": table.rows, "columns": [one.value for one in guess(table)]}


@router.get("/groups/{group_id}/roster", response=RosterShape, operation_id="see_roster", openapi_extra=SEE)
def see_roster(request: HttpRequest, group_id: int) -> Any:
    """The class list."""
    return class_lists.roster(person_of(request), group_id, now())


@router.get(
    "/groups/{group_id}/roster/find",
    response=list[KnownStudent],
    operation_id="find_known_students",
    openapi_extra=KEEP,
)
def find_known_students(request: HttpRequest, group_id: int, text: str) -> Any:
    """Students by a part of their name whom this person may bring in."""
    return class_lists.find_known(person_of(request), group_id, text, now())


@router.post("/groups/{group_id}/roster/read", response=TableShape, operation_id="read_pasted_list", openapi_extra=KEEP)
def read_pasted_list(request: HttpRequest, group_id: int, body: PastedIn) -> Any:
    """The table in a pasted text; nothing is written."""
    return _table(class_lists.read_pasted(person_of(request), group_id, body.text))


@router.post("/groups/{group_id}/roster/files", response=TableShape, operation_id="read_list_file", openapi_extra=KEEP)
def read_list_file(request: HttpRequest, group_id: int, file: File[UploadedFile], chosen: Form[str] = "") -> Any:
    """The table in a CSV, XLSX or OneRoster file; nothing is written. ``chosen``: a class by its id."""
    data = file.read(MOST_BYTES + 1)
    found = class_lists.read_file(person_of(request), group_id, data, file.name or "the file", now(), chosen)
    return {
        **_table(found.table),
        "classes": [{"id": one.id, "title": one.title, "students": len(one.lines)} for one in found.classes],
        "chosen": found.chosen,
        "first": found.first,
    }


@router.get("/groups/{group_id}/roster/drops", response=DropsShape, operation_id="see_drops", openapi_extra=KEEP)
def see_drops(request: HttpRequest, group_id: int) -> Any:
    """Lists that came through the roster folder."""
    return roster_folder.shown(person_of(request), group_id, now())


@router.get(
    "/groups/{group_id}/roster/drops/{drop_id}", response=TableShape, operation_id="open_drop", openapi_extra=KEEP
)
def open_drop(request: HttpRequest, group_id: int, drop_id: int) -> Any:
    """The table of a pending list; previewed and applied like any other."""
    return roster_folder.opened(person_of(request), group_id, drop_id)


@router.delete(
    "/groups/{group_id}/roster/drops/{drop_id}", response={204: None}, operation_id="put_aside", openapi_extra=KEEP
)
def put_aside(request: HttpRequest, group_id: int, drop_id: int) -> Any:
    """Put a pending list aside."""
    roster_folder.put_aside(person_of(request), group_id, drop_id, now())
    return Status(204, None)


@router.put(
    "/groups/{group_id}/roster/by-itself", response={204: None}, operation_id="set_by_itself", openapi_extra=KEEP
)
def set_by_itself(request: HttpRequest, group_id: int, body: ByItselfIn) -> Any:
    """Let lists from the roster folder be applied by themselves, or not."""
    roster_folder.set_by_itself(person_of(request), group_id, now(), by_itself=body.by_itself)
    return Status(204, None)


@router.post(
    "/groups/{group_id}/roster/preview", response=RosterPreview, operation_id="preview_list", openapi_extra=KEEP
)
def preview_list(request: HttpRequest, group_id: int, body: ListIn) -> Any:
    """What a list would do; nothing is written."""
    moment = now()
    plan = class_lists.preview(person_of(request), group_id, body.list_(), moment)
    return _preview(plan, class_lists.listed_names(group_id, plan.missing, moment))


def line_data(line: Line) -> dict[str, Any]:
    """What a line would do, as plain data."""
    return {
        "number": line.number,
        "name": line.entry.listed,
        "family_first": line.entry.family_first,
        "verdict": line.verdict.value,
        "changes": [{"field": one.field, "old": one.old, "new": one.new} for one in line.changes],
        "why": line.why,
        "fix": line.fix,
    }


def _preview(plan: RosterPlan, names: dict[int, str]) -> dict[str, Any]:
    return {
        "lines": [line_data(line) for line in plan.lines],
        "missing": [{"id": one, "name": names[one]} for one in plan.missing],
        "seen": class_lists.digest(plan),
    }


@router.post("/groups/{group_id}/roster/rejected", response=bytes, operation_id="rejected_lines", openapi_extra=KEEP)
def rejected_lines(request: HttpRequest, group_id: int, body: ListIn) -> HttpResponse:
    """The lines that cannot be taken, as CSV with the reason in a column."""
    of = body.list_()
    plan = class_lists.preview(person_of(request), group_id, of, now())
    text = to_csv(class_lists.rejected(of, body.heading, plan))
    response = HttpResponse("\ufeff" + text, content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="lines-to-mend.csv"'
    return response


@router.post("/groups/{group_id}/roster", response=AppliedShape, operation_id="apply_list", openapi_extra=KEEP)
def apply_list(request: HttpRequest, group_id: int, body: ApplyIn) -> Any:
    """Apply a list without its bad lines."""
    done = enrolling.apply_list(
        person_of(request), group_id, body.list_(), now(), leave=body.leave, first=body.first, seen=body.seen
    )
    if body.drop is not None:
        roster_folder.settle(group_id, body.drop, RosterDrop.State.APPLIED, done.change_id)
    return _applied(done)


def _applied(done: enrolling.Applied) -> dict[str, Any]:
    return {"change": done.change_id, "counts": done.counts, "left": done.left}


@router.post("/groups/{group_id}/roster/leave", response=AppliedShape, operation_id="mark_left", openapi_extra=KEEP)
def mark_left(request: HttpRequest, group_id: int, body: LeaveIn) -> Any:
    """Mark students as left."""
    return _applied(enrolling.mark_left(person_of(request), group_id, set(body.students), now()))


@router.post("/groups/{group_id}/roster/place", response=PlacedShape, operation_id="place_students", openapi_extra=KEEP)
def place_students(request: HttpRequest, group_id: int, body: PlaceIn) -> Any:
    """Put students into a period or a working group by its name."""
    where = {body.where: body.name}
    return {"change": memberships.place(person_of(request), group_id, body.students, now(), **where)}


@router.get(
    "/groups/{group_id}/roster/changes",
    response=list[ListChange],
    operation_id="see_list_changes",
    openapi_extra=KEEP,
)
def see_list_changes(request: HttpRequest, group_id: int) -> Any:
    """What changed the list, newest first."""
    return enrolling.changes_of(person_of(request), group_id)


@router.post(
    "/groups/{group_id}/roster/changes/{change_id}/undo",
    response={204: None},
    operation_id="undo_list",
    openapi_extra=KEEP,
)
def undo_list(request: HttpRequest, group_id: int, change_id: int) -> Any:
    """Take back what a list did."""
    enrolling.undo(person_of(request), group_id, change_id, now())
    return Status(204, None)


@router.post("/groups/{group_id}/roster/pegs", response={204: None}, operation_id="swap_pegs", openapi_extra=KEEP)
def swap_pegs(request: HttpRequest, group_id: int, body: SwapIn) -> Any:
    """Let two students change pegs."""
    class_lists.swap_pegs(person_of(request), group_id, body.one, body.other, now())
    return Status(204, None)


@router.post("/groups/{group_id}/cards", response=bytes, operation_id="print_cards", openapi_extra=KEEP)
def print_cards(request: HttpRequest, group_id: int, body: CardsIn) -> HttpResponse:
    """New sign-in cards as a PDF, eight to a page; older cards (and passwords) of these students are void."""
    moment, address = now(), request.build_absolute_uri("/card")
    paper.refuse_too_many(body.students)
    printed = cards.make(
        person_of(request),
        group_id,
        body.students,
        moment,
        lambda secrets, passwords: paper.cards(group_id, secrets, address, moment, passwords),
        passwords=body.passwords,
    )
    response = HttpResponse(printed, content_type="application/pdf")
    response["Content-Disposition"] = 'attachment; filename="sign-in-cards.pdf"'
    response["Cache-Control"] = "no-store"
    return response


@router.post("/groups/{group_id}/cards/void", response={204: None}, operation_id="void_cards", openapi_extra=KEEP)
def void_cards(request: HttpRequest, group_id: int, body: LeaveIn) -> Any:
    """Make the cards of students void."""
    cards.void(person_of(request), group_id, body.students, now())
    return Status(204, None)


@router.get(
    "/groups/{group_id}/roster/requests",
    response=list[OwnRequest],
    operation_id="see_own_requests",
    openapi_extra=KEEP,
)
def see_own_requests(request: HttpRequest, group_id: int) -> Any:
    """What this class has asked for and waits."""
    return join_requests.asked_by(person_of(request), group_id, now())


@router.delete(
    "/groups/{group_id}/roster/requests/{request_id}",
    response={204: None},
    operation_id="withdraw_request",
    openapi_extra=KEEP,
)
def withdraw_request(request: HttpRequest, group_id: int, request_id: int) -> Any:
    """Take a request back."""
    join_requests.withdraw(person_of(request), group_id, request_id, now())
    return Status(204, None)


@router.get(
    "/join-requests",
    response=list[JoinRequestShape],
    operation_id="see_join_requests",
    openapi_extra=for_action(Action.USE_ACCOUNT),
)
def see_join_requests(request: HttpRequest) -> Any:
    """What waits for this person's word; nothing for whoever has none to give."""
    return join_requests.asked_of(person_of(request), now())


@router.post(
    "/join-requests/{request_id}",
    response={204: None},
    operation_id="settle_join_request",
    openapi_extra=for_action(Action.BRING_IN_KNOWN),
)
def settle_join_request(request: HttpRequest, request_id: int, body: SettleIn) -> Any:
    """Let a student come into another class, or decline."""
    joining.settle(person_of(request), request_id, now(), confirm=body.confirm)
    return Status(204, None)


@router.post(
    "/groups/{group_id}/roster/{enrolment_id}/move",
    response=MovedStudentShape,
    operation_id="move_student",
    openapi_extra=KEEP,
)
def move_student(request: HttpRequest, group_id: int, enrolment_id: int, body: MoveStudentIn) -> Any:
    """Move a student to a parallel class, with their work."""
    done = moving.move_student(person_of(request), group_id, enrolment_id, body.into, now())
    changes = [{"group": group, "change": change} for group, change in done.changes]
    return {"changes": changes, "pieces": done.pieces, "left_behind": done.left_behind}
