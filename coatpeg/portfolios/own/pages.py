"""Loose pages: a student's own, in an order of their own."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.policy import Action
from coatpeg.events.prepared import Prepared
from coatpeg.events.recording import Deed
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios.models import LoosePage, Portfolio
from coatpeg.portfolios.own.arranging import arranging, record, tidy_title
from coatpeg.portfolios.texts import saving
from coatpeg.portfolios.writing import refuse_long_gone

MOST_PAGES = 100


def pages_of(portfolio: Portfolio) -> list[LoosePage]:
    """The loose pages in their order."""
    return list(portfolio.loose_pages.filter(removed_at=None))


_LISTED = Prepared(
    lambda pk: LoosePage.objects.filter(portfolio_id=pk, removed_at=None).values_list(
        "pk", "title", "words", "together"
    )
)


def listed(portfolio: Portfolio) -> list[dict[str, Any]]:
    """The loose pages in their order, without their texts."""
    return [
        {"id": pk, "title": title, "words": words, "together": together is not None}
        for pk, title, words, together in _LISTED.run(portfolio.pk)
    ]


def add_page(person: Person, portfolio_id: int, title: str, now: datetime) -> LoosePage:
    """A new loose page at the end."""
    with arranging(person, portfolio_id, now) as (portfolio, doing):
        pages = pages_of(portfolio)
        if len(pages) >= MOST_PAGES:
            raise Invalid(f"A portfolio has at most {MOST_PAGES} loose pages.", where="page", fix="Take one out first.")
        made = LoosePage.objects.create(
            portfolio=portfolio,
            title=tidy_title(title),
            position=max((one.position for one in pages), default=0) + 1,
            changed_at=now,
        )
        record(doing, portfolio, "page_added", page=made.pk)
        return made


def _named(page_id: int) -> LoosePage:
    found = LoosePage.objects.filter(pk=page_id).first()
    if found is None:
        raise Gone("There is no such page.", fix="Go back to your pockets.")
    return found


def readable_page(person: Person, page_id: int) -> LoosePage:
    """A loose page that this person may read."""
    found = LoosePage.objects.filter(pk=page_id, removed_at=None).select_related("portfolio__enrolment").first()
    if found is None:
        raise Gone("There is no such page.", fix="Go back to the pockets.")
    require_for_student(person, Action.SEE_PORTFOLIO, found.portfolio.enrolment)
    return found


def write_page(
    person: Person,
    page_id: int,
    title: str,
    text: str,
    version: int,
    now: datetime,
    *,
    html: str | None = None,
    base: str | None = None,
    anew: bool = False,
) -> LoosePage:
    """Save a loose page over the version its writer saw; the same again changes nothing."""
    with arranging(person, _named(page_id).portfolio_id, now) as (portfolio, doing):
        page = LoosePage.objects.get(pk=page_id)
        if page.removed_at is not None:
            raise Gone("This page was taken out.", fix="Bring it back to go on writing.")
        named = tidy_title(title)
        renamed, page.title = named != page.title, named
        if page.together is not None:
            return _renamed(doing, portfolio, page, text, renamed=renamed)
        done = saving.save(portfolio, page, person, saving.Draft(text, version, html, base, anew), now)
        if renamed and not done.changed:
            page.save(update_fields=["title"])
        if done.changed or renamed:
            record(doing, portfolio, "page_written", page=page.pk, version=page.version, text=text_digest(page.text))
        return page


def _renamed(doing: Deed, portfolio: Portfolio, page: LoosePage, text: str, *, renamed: bool) -> LoosePage:
    """Another name, in this student's list, of a page that they fill with others; its words are written there."""
    if text != page.text:
        raise Refused(
            f"“{page.title}” is filled together.", where=page.title, fix="Open it and write on the page itself."
        )
    if renamed:
        page.save(update_fields=["title"])
        record(doing, portfolio, "page_written", page=page.pk, version=page.version)
    return page


def set_removed(person: Person, page_id: int, now: datetime, *, removed: bool) -> LoosePage:
    """Take a loose page out, or bring it back to its place."""
    with arranging(person, _named(page_id).portfolio_id, now) as (portfolio, doing):
        page = LoosePage.objects.get(pk=page_id)
        if (page.removed_at is not None) != removed:
            refuse_long_gone(page.removed_at, now)
            page.removed_at = now if removed else None
            page.save(update_fields=["removed_at"])
            record(doing, portfolio, "page_removed" if removed else "page_restored", page=page.pk)
        return page


def move_page(person: Person, page_id: int, before: int | None, now: datetime) -> None:
    """Put a loose page before another one, or at the end."""
    with arranging(person, _named(page_id).portfolio_id, now) as (portfolio, doing):
        order = [one.pk for one in pages_of(portfolio)]
        if page_id not in order or (before is not None and before not in order):
            raise Gone("The page, or the place to move it to, is gone.", fix="Load your portfolio again.")
        order.remove(page_id)
        order.insert(order.index(before) if before in order else len(order), page_id)
        for position, pk in enumerate(order, 1):
            LoosePage.objects.filter(pk=pk).update(position=position)
        record(doing, portfolio, "page_moved", page=page_id)
