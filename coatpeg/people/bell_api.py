"""The bell, how one is told by mail, and which mail was sent."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Status
from pydantic import Field

from coatpeg.core.policy import Action
from coatpeg.notices import bell, choosing, envelopes
from coatpeg.people.access import require_account, require_in_school
from coatpeg.people.directory import people
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.people.shapes import Shape

router = Router(tags=["notices"])
USE = for_action(Action.USE_ACCOUNT)
CHANGE = for_action(Action.CHANGE_ACCOUNT)
MAIL = for_action(Action.SEE_MAIL)
HowWord = Literal["at_once", "daily", "never"]


class NoticeLine(Shape):
    """Something new: what happened, to what by title (where it has one), and the path it leads to.

    ``count`` notices that are alike are one line; ``id`` is the newest of them.
    """

    id: int
    what: Literal[
        "accepted",
        "annotated",
        "answered",
        "class_noted",
        "commented",
        "copy_renewed",
        "given_out",
        "page_together",
        "group_to_choose",
        "handed_in",
        "handed_in_for",
        "handin_moved",
        "handin_set",
        "join_requested",
        "join_settled",
        "list_arrived",
        "mail_bounced",
        "own_due_set",
        "pages_missing",
        "picture_unreadable",
        "receipt",
        "reminded",
        "sent_back",
        "show_page_opened",
    ]
    at: datetime
    title: str
    path: str
    count: int
    new: bool


class BellShape(Shape):
    """What is new to a person, newest first, and how many lines were not seen.

    ``mail`` is how they are told by mail; none where they have no address.
    """

    unseen: int
    lines: list[NoticeLine]
    mail: HowWord | None
    receipts: bool | None
    """Whether a student's receipts come by mail too; none where there is no such choice."""


class SeenIn(Shape):
    """The newest notice that was seen."""

    id: int = Field(ge=0, le=2**62)


class MailChoiceIn(Shape):
    """How to be told by mail, and whether receipts come by mail too (left out: as before)."""

    how: HowWord
    receipts: bool | None = None


class MailLine(Shape):
    """The envelope of a mail."""

    id: int
    to: str
    subject: str
    state: Literal["sent", "bounced"]
    why: str
    at: datetime


class MailShape(MailLine):
    """A mail; its text is there in the demo only."""

    text: str


@router.get("/notices", response=BellShape, operation_id="see_notices", openapi_extra=USE)
def see_notices(request: HttpRequest) -> Any:
    """What is new to this person."""
    person = person_of(request)
    who = people([person.pk]) if person.only_in is None else {}
    how = choosing.choices_of(who).get(person.pk)
    asked = how is not None and not who[person.pk].staff
    receipts = choosing.wants_receipts(person.pk) if asked else None
    return {**bell.bell(person.pk, now(), only_in=person.only_in), "mail": how, "receipts": receipts}


@router.post("/notices/seen", response={204: None}, operation_id="notices_seen", openapi_extra=USE)
def notices_seen(request: HttpRequest, body: SeenIn) -> Any:
    """Say that what is new was seen, up to a notice."""
    person = person_of(request)
    bell.seen(person.pk, body.id, now(), only_in=person.only_in)
    return Status(204, None)


@router.put("/notices/mail", response={204: None}, operation_id="choose_mail", openapi_extra=CHANGE)
def choose_mail(request: HttpRequest, body: MailChoiceIn) -> Any:
    """Choose how to be told by mail."""
    person = person_of(request)
    require_account(person, Action.CHANGE_ACCOUNT)
    choosing.choose(person.pk, choosing.How(body.how), receipts=body.receipts)
    return Status(204, None)


@router.get("/mails", response=list[MailLine], operation_id="see_mails", openapi_extra=MAIL)
def see_mails(request: HttpRequest) -> Any:
    """The envelopes of the mail that was sent, newest first."""
    require_in_school(person_of(request), Action.SEE_MAIL)
    return envelopes.newest()


@router.get("/mails/{mail_id}", response=MailShape, operation_id="read_mail", openapi_extra=MAIL)
def read_mail(request: HttpRequest, mail_id: int) -> Any:
    """One mail; its text in the demo only."""
    require_in_school(person_of(request), Action.SEE_MAIL)
    return envelopes.opened(mail_id)
