"""Starting a class."""

from __future__ import annotations

from collections import Counter
from dataclasses import asdict, replace
from datetime import date, datetime
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Status
from pydantic import Field

from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.people.roster_table import Column
from coatpeg.core.policy import Action, Role
from coatpeg.people import staffing
from coatpeg.people.api import FoundStaff, StaffWord
from coatpeg.people.models import TeachingGroup
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Day, KindWord, Named, Shape
from coatpeg.setup.class_start import ClassPlan, Like, PastedList, choices, look, look_at_list, start_class
from coatpeg.setup.deleting import delete_class
from coatpeg.setup.roster.api import ColumnWord, LineShape, line_data
from coatpeg.setup.starting import bring_back, change_class, class_facts, put_away
from coatpeg.setup.template.gallery_api import SectionsIn, ShownTemplate
from coatpeg.setup.template.outline_api import OutlineNote
from coatpeg.setup.template.shapes import PocketSettings

router = Router(tags=["templates"])


class LikeIn(SectionsIn):
    """What a class begins like: a gallery template or a class, by id.

    Of a class its ``handins``, and what its ``cupboard`` holds, come as well.
    """

    source: Literal["gallery", "class"]
    id: int
    handins: bool = False
    cupboard: bool = False

    def like(self) -> Like:
        """The same as the command takes it."""
        return Like(self.source, self.id, self.handins, self.wanted(), self.cupboard)


class StaffIn(Shape):
    """A colleague and the role that they have in the class."""

    person: int
    role: StaffWord


class PastedListIn(Shape):
    """A pasted class list: what its columns hold (none said: guessed), which lines are somebody new after all."""

    text: str = Field(max_length=2_000_000)
    columns: list[ColumnWord] | None = Field(default=None, max_length=40)
    as_new: list[int] = Field(default_factory=list, max_length=5_000)
    family_first: bool = False
    """Its names are written family name first."""

    def pasted(self) -> PastedList:
        """The same as the commands take it."""
        columns = tuple(Column(one) for one in self.columns) if self.columns else None
        return PastedList(self.text, columns, frozenset(self.as_new), self.family_first)


class StudentsIn(PastedListIn):
    """The same with the preview that was seen."""

    seen: str = Field(max_length=64)


class GroupLook(Shape):
    """A class as it is laid out; ``outline`` has sections and pockets of its own."""

    name: str = Field(default="", max_length=200)
    kind: Literal["class", "cohort", "caseload"] = "class"
    first: Day
    last: Day
    like: LikeIn | None = None
    outline: str = Field(default="", max_length=200_000)
    unsaid: KindWord = "evidence"

    def plan(self) -> ClassPlan:
        """The same as the command takes it."""
        return ClassPlan(
            self.name,
            TeachingGroup.Kind(self.kind),
            self.first,
            self.last,
            like=self.like.like() if self.like else None,
            outline=self.outline,
            kind_unsaid=PocketKind(self.unsaid),
        )


class GroupIn(GroupLook):
    """A class, caseload or cohort to start; ``lead`` is another person's id, for administrators.

    ``by_itself``: its list comes from the school's system and is applied by itself.
    """

    lead: int | None = None
    staff: list[StaffIn] = Field(default_factory=list, max_length=100)
    students: StudentsIn | None = None
    by_itself: bool = False


class StartedShape(Named):
    """The class that was started, with how many pockets, hand-ins and students; ``asked`` are requests."""

    pockets: int
    handins: int
    students: int
    asked: int


class BeginningHandIn(Shape):
    """A hand-in that comes along."""

    title: str
    due_day: date | None
    draft: bool


class BeginningSection(Shape):
    """A section of the portfolio that every student has then."""

    title: str
    repeats: bool
    pockets: list[PocketSettings]


class LookedShape(Shape):
    """How a class would begin."""

    sections: list[BeginningSection]
    handins: list[BeginningHandIn]
    notes: list[OutlineNote]
    problems: list[OutlineNote]


class LookedListShape(Shape):
    """A pasted list as read: its columns, what each line would do, how many lines of each kind."""

    heading: list[str]
    columns: list[ColumnWord]
    first_rows: list[list[str]]
    counts: dict[str, int]
    lines: list[LineShape]
    """Those that say more than a new name, at most two hundred."""
    seen: str


class LikeSection(Shape):
    """A section of a class that another can be like."""

    key: str
    title: str
    pockets: int


class LikeClass(Shape):
    """A class that another can be like."""

    id: int
    name: str
    sections: list[LikeSection]
    handins: int
    items: int
    """How many things lie in its cupboard."""


class TermShape(Shape):
    """A term of the school."""

    name: str
    first: date
    last: date


class ChoicesShape(Shape):
    """What a class can begin with; ``term`` runs or comes next, ``last_of_calendar`` is the last day of all terms."""

    today: date
    term: TermShape | None
    last_of_calendar: date | None
    gallery: list[ShownTemplate]
    classes: list[LikeClass]


START = for_action(Action.START_CLASS)
MOST_LINES_SHOWN = 200
PLAIN = ("new", "joins", "asked")


@router.get("/start", response=ChoicesShape, operation_id="see_start", openapi_extra=START)
def see_start(request: HttpRequest) -> Any:
    """What a class can begin with."""
    return choices(person_of(request), now())


@router.get("/start/staff", response=list[FoundStaff], operation_id="find_colleagues", openapi_extra=START)
def find_colleagues(request: HttpRequest, text: str) -> Any:
    """Staff accounts by a part of a name or address."""
    return staffing.find_colleagues(person_of(request), text)


@router.post("/start/look", response=LookedShape, operation_id="look_start", openapi_extra=START)
def look_start(request: HttpRequest, body: GroupLook) -> Any:
    """How a class would begin; nothing is written."""
    return asdict(look(person_of(request), body.plan(), now()))


@router.post("/start/list", response=LookedListShape, operation_id="look_start_list", openapi_extra=START)
def look_start_list(request: HttpRequest, body: PastedListIn) -> Any:
    """What a pasted list would do in a class that begins; nothing is written."""
    found = look_at_list(person_of(request), body.pasted(), now())
    telling = [one for one in found.plan.lines if one.verdict.value != "new" or one.why]
    return {
        "heading": found.table.heading,
        "columns": [one.value for one in found.of.columns],
        "first_rows": found.table.rows[:4],
        "counts": Counter(one.verdict.value for one in found.plan.lines),
        "lines": [line_data(one) for one in telling[:MOST_LINES_SHOWN]],
        "seen": found.seen,
    }


@router.post("/groups", response={201: StartedShape}, operation_id="start_class", openapi_extra=START)
def start_class_(request: HttpRequest, body: GroupIn) -> Any:
    """Start a class."""
    person, moment = person_of(request), now()
    plan = replace(
        body.plan(),
        lead_id=body.lead,
        staff=tuple((one.person, Role(one.role)) for one in body.staff),
        by_itself=body.by_itself,
    )
    if body.students is not None and body.students.text.strip():
        looked = body.students.pasted().read()
        plan = replace(plan, students=looked, seen=body.students.seen)
    made = start_class(person, plan, moment)
    shown = {name: getattr(made, name) for name in ("pockets", "handins", "students", "asked")}
    return Status(201, {"id": made.group.pk, "title": made.group.name, **shown})


class ClassIn(Shape):
    """What a class is called and from when to when it runs."""

    name: str = Field(max_length=200)
    first: Day
    last: Day


class ClassShape(Shape):
    """The same as it stands.

    ``outside`` are hand-ins due on other days, by title; ``put_away``: since when; ``begun``: a student has put
    something in, so that it cannot be deleted.
    """

    title: str
    first: date
    last: date
    may_change: bool
    outside: list[str]
    put_away: datetime | None
    may_bring_back: bool
    begun: bool


ONE = "/groups/{group_id}"


@router.get(ONE, response=ClassShape, operation_id="see_class", openapi_extra=for_action(Action.SEE_STAFF))
def see_class(request: HttpRequest, group_id: int) -> Any:
    """What a class is called and when it runs."""
    return asdict(class_facts(person_of(request), group_id))


@router.put(ONE, response=ClassShape, operation_id="change_class", openapi_extra=for_action(Action.KEEP_CLASS))
def change_class_(request: HttpRequest, group_id: int, body: ClassIn) -> Any:
    """Rename a class, move its days."""
    return asdict(change_class(person_of(request), group_id, body.name, body.first, body.last, now()))


@router.delete(ONE, response={204: None}, operation_id="delete_class", openapi_extra=for_action(Action.KEEP_CLASS))
def delete_class_(request: HttpRequest, group_id: int) -> Any:
    """Delete a class in which nobody has begun."""
    delete_class(person_of(request), group_id, now())
    return Status(204, None)


@router.put(
    ONE + "/put-away", response={204: None}, operation_id="put_class_away", openapi_extra=for_action(Action.KEEP_CLASS)
)
def put_class_away(request: HttpRequest, group_id: int) -> Any:
    """Put a class away: read by those who are in it, changed by nobody."""
    put_away(person_of(request), group_id, now())
    return Status(204, None)


@router.delete(
    ONE + "/put-away",
    response={204: None},
    operation_id="bring_class_back",
    openapi_extra=for_action(Action.KEEP_CLASS),
)
def bring_class_back(request: HttpRequest, group_id: int) -> Any:
    """Bring a class back that was put away."""
    bring_back(person_of(request), group_id, now())
    return Status(204, None)
