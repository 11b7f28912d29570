"""Signing in and out; what a person is here for."""

from __future__ import annotations

from datetime import date
from typing import Any

from django.conf import settings
from django.contrib.auth import logout
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router
from ninja.errors import HttpError
from ninja.utils import check_csrf
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.core.portfolios import incoming, texts
from coatpeg.handins.student.to_hand_in import most_urgent
from coatpeg.people import accounts, cards, reading
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person, School, TeachingGroup
from coatpeg.people.requests import for_action, now
from coatpeg.people.shapes import MayWord, ReadingShape, Shape, may_words
from coatpeg.portfolios.models import Portfolio
from coatpeg.web.demo import SIGN_INS

router = Router(tags=["session"])
USE = for_action(Action.USE_ACCOUNT)
CHANGE = for_action(Action.CHANGE_ACCOUNT)


class SignIn(Shape):
    """User name and password."""

    username: str = Field(max_length=200)
    password: str = Field(max_length=4_000)


class GroupLine(Shape):
    """A teaching group of this person, as what they are in it, and what they may do there."""

    id: int
    name: str
    kind: str
    role: str
    may: list[MayWord]
    portfolio: int | None
    enrolment: int | None
    landing: str | None
    """The view that this person's work here begins with, as an address; None where there is none yet."""
    put_away: bool
    """It is read only, and stands apart."""


class Me(Shape):
    """The signed-in person."""

    id: int
    full_name: str
    initials: str
    staff: bool
    administrator: bool
    card: bool
    """Whether a sign-in card opened this session: one class, nothing of the account's settings."""
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
    home: str | None
    """Where this person's day begins, as an address; None where there is nothing yet."""
    demo: list[DemoSignIn]
    upload_limit: int
    text_limit: int
    title_limit: int


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
    instead: bool = False
    """Whoever is signed in here is to be signed out."""


@router.post("/session/card", response=SessionShape, auth=None, operation_id="sign_in_by_card", openapi_extra=USE)
def sign_in_by_card(request: HttpRequest, body: CardIn) -> Any:
    """Sign a student in by their card."""
    if check_csrf(request) is not None:
        raise HttpError(403, "CSRF check failed")
    return _session(cards.sign_in(request, body.secret, instead=body.instead))


class PasswordIn(Shape):
    """The password as it is, and the one to have."""

    current: str = Field(max_length=4_000)
    new: str = Field(max_length=4_000)


@router.put("/session/password", response={204: None}, operation_id="change_password", openapi_extra=CHANGE)
def change_password(request: HttpRequest, body: PasswordIn) -> Any:
    """Change one's own password; every other session of the account is over."""
    accounts.change_password(request, body.current, body.new)
    return HttpResponse(status=204)


@router.post("/session/everywhere", response={204: None}, operation_id="sign_out_everywhere", openapi_extra=CHANGE)
def sign_out_everywhere(request: HttpRequest) -> Any:
    """End every session of the account, this one too."""
    accounts.sign_out_everywhere(request)
    return HttpResponse(status=204)


@router.delete("/session", response={204: None}, operation_id="sign_out", openapi_extra=USE)
def sign_out(request: HttpRequest) -> Any:
    """Sign out; the browser is told to forget what it cached."""
    logout(request)
    response = HttpResponse(status=204)
    response["Clear-Site-Data"] = '"cache"'
    return response


def _session(person: Person | None) -> dict[str, Any]:
    calendar = school_calendar()
    today = calendar.local_day(now())
    term = calendar.term_at(today)
    weeks = calendar.weeks(term) if term else ()
    week = next((one.number for one in weeks if 0 <= (today - one.monday).days < 7), None)
    school = School.objects.first()
    groups = groups_of(person) if person else []
    return {
        "person": _me(person) if person else None,
        "school": school.name if school else "",
        "zone": calendar.zone,
        "today": today,
        "term": {"name": term.name, "week": week, "weeks": len(weeks)} if term else None,
        "groups": groups,
        "home": home_of(person, groups) if person else None,
        "demo": SIGN_INS if settings.DEMO and not person else [],
        "upload_limit": settings.UPLOAD_LIMIT,
        "text_limit": texts.LONGEST_TEXT,
        "title_limit": incoming.LONGEST_TITLE,
    }


def _me(person: Person) -> dict[str, Any]:
    initials = f"{person.given_name[:1]}{person.family_name[:1]}".upper()
    return {
        "id": person.pk,
        "full_name": person.full_name,
        "initials": initials,
        "staff": person.is_staff,
        "administrator": person.is_administrator,
        "card": person.only_in is not None,
        "reading": reading.reading_of(person),
    }


def groups_of(person: Person) -> list[dict[str, Any]]:
    """What this person is here for, as ``GroupLine`` has it."""
    found = accounts.memberships(person)
    own = [one.enrolment_id for one in found if one.enrolment_id]
    portfolios = dict(Portfolio.objects.filter(enrolment_id__in=own).values_list("enrolment_id", "pk"))
    return [
        {
            "id": one.group_id,
            "name": one.name,
            "kind": one.kind,
            "role": one.role,
            "may": may_words(one.may),
            "enrolment": one.enrolment_id,
            "portfolio": portfolios.get(one.enrolment_id) if one.enrolment_id else None,
            "landing": _landing(one, portfolios),
            "put_away": one.put_away,
        }
        for one in found
    ]


def home_of(person: Person, groups: list[dict[str, Any]]) -> str | None:
    """Where somebody's day begins: with several classes to look after, over all of them; as a student of several, where
    something is to be handed in first; else in the first one.
    """
    groups = [one for one in groups if not one["put_away"]] or groups
    boards = [one for one in groups if "see_board" in one["may"]]
    if len(boards) > 1:
        return "/classes"
    if not boards and sum(1 for one in groups if one["portfolio"]) > 1:
        first = most_urgent(person, now())
        groups = sorted(groups, key=lambda one: one["id"] != first)
    return next((one["landing"] for one in groups if one["landing"]), None)


def _landing(one: accounts.Membership, portfolios: dict[int, int]) -> str | None:
    if one.kind == TeachingGroup.Kind.CASELOAD:
        return f"/g/{one.group_id}/{'caseload' if Action.SEE_CASELOAD in one.may else 'setup'}"
    if Action.SEE_BOARD in one.may:
        return f"/g/{one.group_id}/pegs"
    portfolio = portfolios.get(one.enrolment_id) if one.enrolment_id else None
    return f"/g/{one.group_id}/portfolio/{portfolio}" if portfolio else None
