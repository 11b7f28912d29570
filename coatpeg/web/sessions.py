"""Signing in, what a person is here for, following changes."""

from __future__ import annotations

from datetime import date, datetime
from typing import Any, Literal

from django.conf import settings
from django.contrib.auth import logout
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router, Status
from ninja.errors import HttpError
from ninja.utils import check_csrf
from pydantic import Field

from coatpeg.core import intake, texts
from coatpeg.core.names import full
from coatpeg.core.policy import Action, Role
from coatpeg.events.changes import changes_after
from coatpeg.handins import feeds
from coatpeg.people import accounts, cards, reading
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Enrolment, FeedAddress, Person, School
from coatpeg.people.requests import now, person_of
from coatpeg.people.schemas import Shape
from coatpeg.portfolios.models import Portfolio
from coatpeg.web.demo import SIGN_INS

router = Router(tags=["session"])
USE = {"x-action": Action.USE_ACCOUNT.name}


class SignIn(Shape):
    """User name and password."""

    username: str
    password: str


class GroupLine(Shape):
    """A teaching group of this person, and as what they are in it."""

    id: int
    name: str
    kind: str
    role: str
    portfolio: int | None
    enrolment: int | None


class ReadingShape(Shape):
    """How a person likes to read; ``size`` and the ``pace`` of reading aloud in percent of the usual."""

    face: Literal["hyperlegible", "lexend"]
    size: Literal[100, 115, 130, 150]
    spacing: Literal["usual", "wide", "wider"]
    tint: Literal["none", "cream", "mint", "sky", "rose"]
    ruler: bool
    pace: Literal[60, 80, 100, 120]


class Me(Shape):
    """The signed-in person."""

    id: int
    full_name: str
    initials: str
    staff: bool
    administrator: bool
    reading: ReadingShape


class DemoSignIn(Shape):
    """A sign-in of the demo, offered in demo mode only."""

    username: str
    password: str
    name: str
    what: str


class TermLine(Shape):
    """Where in the term we are; ``week`` is None outside it."""

    name: str
    week: int | None
    weeks: int


class SessionShape(Shape):
    """Everything the interface needs to begin. Sizes in bytes, lengths in characters."""

    person: Me | None
    school: str
    zone: str
    today: date
    term: TermLine | None
    groups: list[GroupLine]
    demo: list[DemoSignIn]
    upload_limit: int
    text_limit: int
    title_limit: int


class ChangeLine(Shape):
    """One change of a class."""

    number: int
    verb: str
    enrolment_id: int | None
    handin_id: int | None


class ChangesShape(Shape):
    """What came after a cursor."""

    cursor: int
    all_changed: bool
    changes: list[ChangeLine]


@router.get("/session", response=SessionShape, auth=None, operation_id="see_session", openapi_extra=USE)
def see_session(request: HttpRequest) -> Any:
    """Who is signed in and what they are here for; also sets the CSRF cookie."""
    get_token(request)
    return _session(request.user if isinstance(request.user, Person) else None)


@router.post("/session", response=SessionShape, auth=None, operation_id="sign_in", openapi_extra=USE)
def sign_in(request: HttpRequest, body: SignIn) -> Any:
    """Sign in. Without a valid token nobody can be signed in from another site, not even as somebody else."""
    if check_csrf(request) is not None:
        raise HttpError(403, "CSRF check failed")
    return _session(accounts.sign_in(request, body.username, body.password))


class CardIn(Shape):
    """The secret of a sign-in card."""

    secret: str = Field(max_length=100)


@router.post("/session/card", response=SessionShape, auth=None, operation_id="sign_in_by_card", openapi_extra=USE)
def sign_in_by_card(request: HttpRequest, body: CardIn) -> Any:
    """Sign a student in by their card."""
    if check_csrf(request) is not None:
        raise HttpError(403, "CSRF check failed")
    return _session(cards.sign_in(request, body.secret))


@router.delete("/session", response={204: None}, operation_id="sign_out", openapi_extra=USE)
def sign_out(request: HttpRequest) -> Any:
    """Sign out; the browser is told to forget what it cached."""
    logout(request)
    response = HttpResponse(status=204)
    response["Clear-Site-Data"] = '"cache"'
    return response


@router.get(
    "/groups/{group_id}/changes",
    response=ChangesShape,
    operation_id="follow_changes",
    openapi_extra={"x-action": Action.FOLLOW_CHANGES.name},
)
def follow_changes(request: HttpRequest, group_id: int, after: int | None = None) -> Any:
    """What was committed after a cursor; a student sees their own and the class's, nobody else's."""
    person = person_of(request)
    standings = require_in_group(person, Action.FOLLOW_CHANGES, group_id)
    own = None
    if all(role is Role.STUDENT for role, _ in standings):
        own = Enrolment.objects.values_list("pk", flat=True).get(person=person, group_id=group_id)
    return changes_after(group_id, after, only_enrolment=own)


def _session(person: Person | None) -> dict[str, Any]:
    calendar = school_calendar()
    today = calendar.local_day(now())
    term = calendar.term_at(today)
    weeks = calendar.weeks(term) if term else ()
    week = next((one.number for one in weeks if 0 <= (today - one.monday).days < 7), None)
    school = School.objects.first()
    return {
        "person": _me(person) if person else None,
        "school": school.name if school else "",
        "zone": calendar.zone,
        "today": today,
        "term": {"name": term.name, "week": week, "weeks": len(weeks)} if term else None,
        "groups": _groups(person) if person else [],
        "demo": SIGN_INS if settings.DEMO and not person else [],
        "upload_limit": settings.UPLOAD_LIMIT,
        "text_limit": texts.LONGEST_TEXT,
        "title_limit": intake.LONGEST_TITLE,
    }


def _me(person: Person) -> dict[str, Any]:
    initials = f"{person.given_name[:1]}{person.family_name[:1]}".upper()
    return {
        "id": person.pk,
        "full_name": full(person.family_name, person.given_name),
        "initials": initials,
        "staff": person.is_staff,
        "administrator": person.is_administrator,
        "reading": reading.reading_of(person),
    }


def _groups(person: Person) -> list[dict[str, Any]]:
    found = accounts.memberships(person)
    own = [one.enrolment_id for one in found if one.enrolment_id]
    portfolios = dict(Portfolio.objects.filter(enrolment_id__in=own).values_list("enrolment_id", "pk"))
    return [
        {
            "id": one.group_id,
            "name": one.name,
            "kind": one.kind,
            "role": one.role,
            "enrolment": one.enrolment_id,
            "portfolio": portfolios.get(one.enrolment_id) if one.enrolment_id else None,
        }
        for one in found
    ]


@router.put("/reading", response=ReadingShape, operation_id="set_reading", openapi_extra=USE)
def set_reading(request: HttpRequest, body: ReadingShape) -> Any:
    """Keep how this person likes to read."""
    return reading.set_reading(person_of(request), body.model_dump())


class FeedShape(Shape):
    """A calendar address: whole once, when it is made; later only since when it works."""

    address: str | None
    since: datetime | None


@router.get("/feed", response=FeedShape, operation_id="see_feed", openapi_extra=USE)
def see_feed(request: HttpRequest) -> Any:
    """Whether this person has a calendar address."""
    kept = FeedAddress.objects.filter(person=person_of(request)).first()
    return {"address": None, "since": kept.made_at if kept else None}


@router.post("/feed", response=FeedShape, operation_id="make_feed", openapi_extra=USE)
def make_feed(request: HttpRequest) -> Any:
    """Make a new calendar address; an older one no longer works."""
    moment = now()
    secret = feeds.new_address(person_of(request), moment)
    return {"address": request.build_absolute_uri(f"/calendar/{secret}.ics"), "since": moment}


@router.delete("/feed", response={204: None}, operation_id="revoke_feed", openapi_extra=USE)
def revoke_feed(request: HttpRequest) -> Any:
    """Make the calendar address void."""
    feeds.revoke(person_of(request), now())
    return Status(204, None)
