"""What staff say to a student about an artefact, a pocket or a loose page, without any hand-in.

Decided here: the student and the staff of the class (and of their caseload) read it; whoever wrote it can take it
back; it locks and changes nothing of the student's.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.texts import tidy_text
from coatpeg.events.recording import deed
from coatpeg.notices.putting import put
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Comment, Evidence, LoosePage, Portfolio
from coatpeg.portfolios.writing import RESTORABLE, locked_portfolio

LONGEST = 4_000
"""Characters; a full page. What is longer is a review."""


def leave(
    person: Person,
    portfolio_id: int,
    text: str,
    now: datetime,
    *,
    pocket: int | None = None,
    evidence: int | None = None,
    page: int | None = None,
) -> Comment:
    """Leave a comment on an evidence, a pocket or a loose page of a portfolio."""
    said = tidy_text(text).strip()
    if not said or len(said) > LONGEST:
        raise Invalid(
            f"The comment has {len(said)} characters." if said else "There is nothing in the comment yet.",
            where="text",
            fix=f"Write 1 to {LONGEST} characters.",
        )
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        require_for_student(person, Action.COMMENT, portfolio.enrolment)
        about = _about(portfolio, pocket, evidence, page)
        made = Comment.objects.create(portfolio=portfolio, person=person, text=said, at=now, **about)
        doing.record(
            "commented",
            portfolio.enrolment.group_id,
            enrolment_id=portfolio.enrolment_id,
            comment=made.pk,
            text=text_digest(said),
        )
        of = portfolio.enrolment
        put(doing, "commented", of.group_id, enrolment=of.pk, comment=made.pk)
        return made


def _about(portfolio: Portfolio, pocket: int | None, evidence: int | None, page: int | None) -> dict[str, Any]:
    """The columns of what is commented on, which must be one thing of this portfolio."""
    if evidence is not None:
        found = Evidence.objects.filter(pk=evidence, portfolio=portfolio, removed_at=None).first()
        if found is not None:
            return {"pocket_id": found.pocket_id, "evidence": found}
    elif page is not None:
        loose = LoosePage.objects.filter(pk=page, portfolio=portfolio, removed_at=None).first()
        if loose is not None:
            return {"page": loose}
    elif pocket is not None and pockets_of(portfolio.enrolment.group_id).filter(pk=pocket).exists():
        return {"pocket_id": pocket}
    raise Gone("What you want to comment on is not in this portfolio any more.", fix="Load the portfolio again.")


def set_removed(person: Person, comment_id: int, now: datetime, *, removed: bool) -> Comment:
    """Take one's own comment back, or let it stand again."""
    named = Comment.objects.filter(pk=comment_id).first()
    if named is None:
        raise Gone("There is no such comment.", fix="Load the portfolio again.")
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(named.portfolio_id)
        require_for_student(person, Action.COMMENT, portfolio.enrolment)
        comment = Comment.objects.get(pk=comment_id)
        if comment.person_id != person.pk:
            raise Refused("Only whoever wrote a comment takes it back.", fix="Ask them to.")
        if comment.removed_at is not None and now - comment.removed_at > RESTORABLE:
            raise Gone("This comment was taken back long ago.", fix="Write it once more.")
        if (comment.removed_at is not None) != removed:
            comment.removed_at = now if removed else None
            comment.save(update_fields=["removed_at"])
            verb = "comment_removed" if removed else "comment_restored"
            of = portfolio.enrolment
            doing.record(verb, of.group_id, enrolment_id=of.pk, comment=comment_id)
        return comment


def comment_data(comments: Iterable[Comment], person: Person) -> list[dict[str, Any]]:
    """Comments (with their writers loaded) as plain data."""
    return [
        {
            "id": one.pk,
            "evidence": one.evidence_id,
            "who": one.person.full_name,
            "mine": one.person_id == person.pk,
            "at": one.at,
            "text": one.text,
        }
        for one in comments
    ]


def of_pocket(portfolio: Portfolio, pocket_id: int) -> list[Comment]:
    """The comments on a pocket and what lies in it, oldest first: one query."""
    return list(portfolio.comments.filter(pocket_id=pocket_id, removed_at=None).select_related("person"))


def of_page(page: LoosePage) -> list[Comment]:
    """The comments on a loose page."""
    return list(page.comments.filter(removed_at=None).select_related("person"))
