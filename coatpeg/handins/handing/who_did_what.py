"""Who did what: each of those who hand something in together says what their part was, and confirms what all say.

Decided here: nobody has to; it is written until the own submission stands, and again once that is sent back. A change
by one makes the others confirm anew. What all said is frozen with each submission; who has not confirmed by then still
can. After handing in it is about those who handed in together, whatever groups there are later.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from datetime import datetime
from typing import Any

from django.db.models import Q

from coatpeg.core.errors import Gone, Invalid, Refused, Stale
from coatpeg.core.handins.snapshots import digest
from coatpeg.core.handins.standing import Status
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.texts import tidy_text
from coatpeg.events.recording import deed
from coatpeg.handins.handing.records import facts_now
from coatpeg.handins.handing.together import pages_for
from coatpeg.handins.models import HandIn, OwnPart, PartsConfirmed, Submission
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import mate
from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import Portfolio
from coatpeg.portfolios.writing import locked_portfolio
from coatpeg.sharing.finding import members_of

LONGEST_PART = 600


def shown(person: Person, portfolio_id: int, handin_id: int, now: datetime) -> dict[str, Any]:
    """What each of them says, as students see each other, and who has confirmed it."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_WORKLIST)
    handin = _of_class(handin_id, portfolio)
    everybody = _company(handin, portfolio, now)
    written = _written(handin, everybody)
    seal = _seal(written)
    confirmed = _confirmed(handin.pk, seal)
    own = OwnPart.objects.filter(handin=handin, enrolment=portfolio.enrolment).first()
    return {
        "mine": own.text if own else "",
        "version": own.version if own else 0,
        "may_write": _may_write(handin, portfolio),
        "seal": seal,
        "parts": [
            {
                **mate(one),
                "mine": one.pk == portfolio.enrolment_id,
                "text": written.get(one.pk, ""),
                "confirmed": bool(written) and one.pk in confirmed,
            }
            for one in everybody
        ],
    }


def write(person: Person, portfolio_id: int, handin_id: int, text: str, version: int, now: datetime) -> None:
    """Say what one's own part was; ``version`` is the one that was seen (0: none)."""
    portfolio_for(person, portfolio_id, Action.HAND_IN)
    tidy = tidy_text(text).strip()
    if len(tidy) > LONGEST_PART:
        raise Invalid(f"There are {len(tidy)} characters; {LONGEST_PART} is the most.", where="text", fix="Shorten it.")
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        handin = _of_class(handin_id, portfolio)
        _company(handin, portfolio, now)
        if not _may_write(handin, portfolio):
            raise Refused("It is handed in.", where=handin.title, fix="It can be changed when it is sent back.")
        own = OwnPart.objects.filter(handin=handin, enrolment=portfolio.enrolment).first()
        if own is None:
            own = OwnPart(handin=handin, enrolment=portfolio.enrolment)
        if own.version != version:
            raise Stale(
                "You changed this in another window.", where="text", fix="Load it again.", more={"text": own.text}
            )
        if own.text == tidy:
            return
        own.text, own.version, own.changed_at = tidy, own.version + 1, now
        own.save()
        doing.record(
            "part_said", portfolio.enrolment.group_id, enrolment_id=portfolio.enrolment_id, handin_id=handin.pk
        )


def confirm(person: Person, portfolio_id: int, handin_id: int, seal: str, now: datetime) -> None:
    """Say that what all of them say is right; ``seal`` names what was seen."""
    portfolio_for(person, portfolio_id, Action.HAND_IN)
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        handin = _of_class(handin_id, portfolio)
        written = _written(handin, _company(handin, portfolio, now))
        if not written:
            raise Invalid("Nobody has said what they did.", where="seal", fix="Say what your part was first.")
        if seal != _seal(written):
            raise Stale("One of you has changed it meanwhile.", where="seal", fix="Read it again, then confirm it.")
        PartsConfirmed.objects.update_or_create(
            handin=handin, enrolment=portfolio.enrolment, defaults={"seal": seal, "at": now}
        )
        doing.record(
            "parts_confirmed", portfolio.enrolment.group_id, enrolment_id=portfolio.enrolment_id, handin_id=handin.pk
        )


def frozen(handin: HandIn, everybody: Collection[Portfolio]) -> dict[str, Any]:
    """What is frozen of it with each submission; nothing where nobody said anything."""
    written = _written(handin, [one.enrolment for one in everybody]) if len(everybody) > 1 else {}
    return {"parts": [{"enrolment": one, "text": written[one]} for one in sorted(written)]} if written else {}


def at_desk(submission: Submission) -> list[dict[str, Any]]:
    """What was frozen with a submission, with full names, and who has confirmed just that."""
    parts = submission.snapshot.get("parts", [])
    if not parts:
        return []
    written = {one["enrolment"]: one["text"] for one in parts}
    confirmed = _confirmed(submission.handin_id, _seal(written))
    together = Submission.objects.filter(_same_press(submission)).values("enrolment")
    rows = Enrolment.objects.filter(Q(pk__in=written) | Q(pk__in=together)).select_related("person").order_by("pk")
    return [
        {"name": one.person.full_name, "text": written.get(one.pk, ""), "confirmed": one.pk in confirmed}
        for one in rows
    ]


def _of_class(handin_id: int, portfolio: Portfolio) -> HandIn:
    found = HandIn.objects.filter(
        pk=handin_id, group_id=portfolio.enrolment.group_id, taken_away_at=None, draft=False
    ).first()
    if found is None:
        raise Gone("There is no such hand-in.", fix="Go back to what is to hand in.")
    return found


def _company(handin: HandIn, portfolio: Portfolio, now: datetime) -> list[Enrolment]:
    """Those who hand it in together, by enrolment: those who did, else those who fill it now. ``Gone`` where alone."""
    newest = facts_now(portfolio.enrolment_id, handin.pk).newest
    submission = Submission.objects.filter(pk=newest).first() if newest else None
    if submission is not None:
        found = Enrolment.objects.filter(pk__in=Submission.objects.filter(_same_press(submission)).values("enrolment"))
    else:
        pages = pages_for(handin.pk, portfolio.pk, now)
        found = members_of(pages[0], school_calendar().local_day(now)) if pages else Enrolment.objects.none()
    everybody = list(found.select_related("person").order_by("pk"))
    if len(everybody) < 2:
        raise Gone("You hand this in alone.", where=handin.title, fix="There is nothing to say here.")
    return everybody


def _same_press(submission: Submission) -> Q:
    first = submission.along_id or submission.pk
    return Q(pk=first) | Q(along=first)


def _written(handin: HandIn, everybody: Iterable[Enrolment]) -> dict[int, str]:
    rows = OwnPart.objects.filter(handin=handin, enrolment__in=list(everybody)).exclude(text="")
    return dict(rows.values_list("enrolment", "text"))


def _seal(written: dict[int, str]) -> str:
    """Names just what all of them say."""
    return digest([[one, written[one]] for one in sorted(written)])


def _confirmed(handin_id: int, seal: str) -> set[int]:
    return set(PartsConfirmed.objects.filter(handin_id=handin_id, seal=seal).values_list("enrolment", flat=True))


def _may_write(handin: HandIn, portfolio: Portfolio) -> bool:
    facts = facts_now(portfolio.enrolment_id, handin.pk)
    return facts.newest is None or facts.outcome is Status.SENT_BACK
