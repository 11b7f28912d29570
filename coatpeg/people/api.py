"""The staff of a class, the school's staff accounts, what was agreed for a student, how a person likes to read."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Status
from pydantic import Field

from coatpeg.core.policy import Action, Role
from coatpeg.people import adjustments, reading, staffing, student_accounts
from coatpeg.people.access import require_account
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import AdjustmentShape, Day, KindWord, ReadingShape, Shape

router = Router(tags=["staff"])
StaffWord = Literal["lead", "co_teacher", "marker", "observer"]


class StaffLine(Shape):
    """A member of staff in a class; ``me`` marks the person who asks, who may make them one of ``may_become``."""

    person: int
    name: str
    email: str
    role: StaffWord
    first: date | None
    last: date | None
    """From when to when they are in it, where it is not for good."""
    me: bool
    may_become: list[StaffWord]
    may_take_out: bool


class RoleLine(Shape):
    """A role and what it may do, in words."""

    role: StaffWord
    may: str


class StaffShape(Shape):
    """The staff of a class."""

    staff: list[StaffLine]
    roles: list[RoleLine]
    may_hand_over: bool
    may_add: list[StaffWord]
    """The roles in which this person may add somebody."""


class FoundStaff(Shape):
    """A staff account that may be added."""

    person: int
    name: str
    email: str


class RoleIn(Shape):
    """The role to have, for good or on some days; None takes out of the class."""

    role: StaffWord | None
    first: Day | None = None
    last: Day | None = None


class HandOverIn(Shape):
    """Who leads the class from now on, and what the lead of before stays as."""

    person: int
    stays: Literal["co_teacher", "marker", "observer"] | None = None


class AccountShape(Shape):
    """An account of the staff, or of a student."""

    person: int
    name: str
    username: str
    email: str
    active: bool
    administrator: bool
    classes: list[str]


class AccountIn(Shape):
    """A new staff account."""

    family: str = Field(default="", max_length=100)
    given: str = Field(default="", max_length=100)
    email: str = Field(default="", max_length=200)
    administrator: bool = False


class NewAccountShape(Shape):
    """A user name and the first password, shown this once."""

    person: int
    username: str
    password: str


class ActiveIn(Shape):
    """Whether the account is open."""

    active: bool


@router.get(
    "/groups/{group_id}/staff",
    response=StaffShape,
    operation_id="see_staff",
    openapi_extra=for_action(Action.SEE_STAFF),
)
def see_staff(request: HttpRequest, group_id: int) -> Any:
    """The staff of a class."""
    return staffing.staff_of(person_of(request), group_id)


@router.get(
    "/groups/{group_id}/staff/find",
    response=list[FoundStaff],
    operation_id="find_staff",
    openapi_extra=for_action(Action.KEEP_STAFF),
)
def find_staff(request: HttpRequest, group_id: int, text: str) -> Any:
    """Staff accounts by a part of a name or address."""
    return staffing.find_staff(person_of(request), group_id, text)


@router.put(
    "/groups/{group_id}/staff/{person_id}",
    response={204: None},
    operation_id="set_role",
    openapi_extra=for_action(Action.KEEP_STAFF),
)
def set_role(request: HttpRequest, group_id: int, person_id: int, body: RoleIn) -> Any:
    """Give a role, change it, or take somebody out of the class."""
    role = Role(body.role) if body.role else None
    days = staffing.Days(body.first, body.last)
    staffing.set_role(person_of(request), group_id, person_id, role, now(), days)
    return Status(204, None)


@router.post(
    "/groups/{group_id}/hand-over",
    response={204: None},
    operation_id="hand_over",
    openapi_extra=for_action(Action.KEEP_CLASS),
)
def hand_over(request: HttpRequest, group_id: int, body: HandOverIn) -> Any:
    """Hand a class over to somebody else, who leads it from now on."""
    stays = Role(body.stays) if body.stays else None
    staffing.hand_over(person_of(request), group_id, body.person, stays, now())
    return Status(204, None)


@router.get(
    "/accounts",
    response=list[AccountShape],
    operation_id="see_accounts",
    openapi_extra=for_action(Action.KEEP_ACCOUNTS),
)
def see_accounts(request: HttpRequest) -> Any:
    """All staff accounts."""
    return staffing.accounts(person_of(request))


@router.get(
    "/accounts/students",
    response=list[AccountShape],
    operation_id="find_students",
    openapi_extra=for_action(Action.KEEP_ACCOUNTS),
)
def find_students(request: HttpRequest, text: str) -> Any:
    """Students' accounts by a part of a name, user name or number."""
    return student_accounts.find(person_of(request), text)


@router.post(
    "/students/{enrolment_id}/password",
    response=NewAccountShape,
    operation_id="give_password",
    openapi_extra=for_action(Action.GIVE_PASSWORD),
)
def give_password(request: HttpRequest, enrolment_id: int) -> Any:
    """Give a student a new password."""
    return _new(student_accounts.give_password(person_of(request), enrolment_id, now()))


@router.post(
    "/accounts",
    response={201: NewAccountShape},
    operation_id="add_account",
    openapi_extra=for_action(Action.KEEP_ACCOUNTS),
)
def add_account(request: HttpRequest, body: AccountIn) -> Any:
    """Make a staff account."""
    made = staffing.add_account(
        person_of(request), body.family, body.given, body.email, now(), administrator=body.administrator
    )
    return Status(201, _new(made))


def _new(made: staffing.NewAccount) -> dict[str, Any]:
    return {"person": made.person.pk, "username": made.person.username or "", "password": made.password}


@router.put(
    "/accounts/{person_id}/active",
    response={204: None},
    operation_id="set_active",
    openapi_extra=for_action(Action.KEEP_ACCOUNTS),
)
def set_active(request: HttpRequest, person_id: int, body: ActiveIn) -> Any:
    """Close or open a staff account."""
    staffing.set_active(person_of(request), person_id, now(), active=body.active)
    return Status(204, None)


@router.post(
    "/accounts/{person_id}/password",
    response=NewAccountShape,
    operation_id="new_password",
    openapi_extra=for_action(Action.KEEP_ACCOUNTS),
)
def new_password(request: HttpRequest, person_id: int) -> Any:
    """Give a staff account a new first password."""
    return _new(staffing.new_password(person_of(request), person_id, now()))


class AdjustmentsShape(Shape):
    """All adjustments of a student."""

    may_change: bool
    name: str
    adjustments: list[AdjustmentShape]


class AdjustmentIn(Shape):
    """An adjustment as a person fills it in; ``version`` is the one they saw (0: new)."""

    extra_days: int = 0
    fewer_artefacts: int = 0
    percent: int = 100
    spoken: bool = False
    without: list[KindWord] = Field(default_factory=list, max_length=4)
    first: Day
    last: Day | None = None
    reason: str = ""
    version: int = 0

    def agreed(self) -> adjustments.Agreed:
        """The same as the commands take it."""
        return adjustments.agreed(**self.model_dump(exclude={"version"}))


@router.get(
    "/students/{enrolment_id}/adjustments",
    response=AdjustmentsShape,
    operation_id="see_adjustments",
    openapi_extra=for_action(Action.SEE_ADJUSTMENTS),
)
def see_adjustments(request: HttpRequest, enrolment_id: int) -> Any:
    """What was agreed for a student."""
    return adjustments.of_student(person_of(request), enrolment_id)


@router.post(
    "/students/{enrolment_id}/adjustments",
    response={201: AdjustmentShape},
    operation_id="agree_adjustment",
    openapi_extra=for_action(Action.KEEP_ADJUSTMENTS),
)
def agree_adjustment(request: HttpRequest, enrolment_id: int, body: AdjustmentIn) -> Any:
    """Agree something for a student."""
    made = adjustments.agree(person_of(request), enrolment_id, body.agreed(), now())
    return Status(201, adjustments.adjustment_data(made))


@router.put(
    "/adjustments/{adjustment_id}",
    response=AdjustmentShape,
    operation_id="change_adjustment",
    openapi_extra=for_action(Action.KEEP_ADJUSTMENTS),
)
def change_adjustment(request: HttpRequest, adjustment_id: int, body: AdjustmentIn) -> Any:
    """Change what was agreed."""
    kept = adjustments.change(person_of(request), adjustment_id, body.agreed(), body.version, now())
    return adjustments.adjustment_data(kept)


@router.delete(
    "/adjustments/{adjustment_id}",
    response={204: None},
    operation_id="remove_adjustment",
    openapi_extra=for_action(Action.KEEP_ADJUSTMENTS),
)
def remove_adjustment(request: HttpRequest, adjustment_id: int) -> Any:
    """Take away what was agreed."""
    adjustments.remove(person_of(request), adjustment_id, now())
    return Status(204, None)


@router.put(
    "/reading", response=ReadingShape, operation_id="set_reading", openapi_extra=for_action(Action.CHANGE_ACCOUNT)
)
def set_reading(request: HttpRequest, body: ReadingShape) -> Any:
    """Keep how this person likes to read."""
    person = person_of(request)
    require_account(person, Action.CHANGE_ACCOUNT)
    return reading.set_reading(person, body.model_dump(exclude_unset=True))
