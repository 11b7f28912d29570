"""What is a student's own in their portfolio: its cover, and loose pages beside the wanted pockets.

Nothing here is ever wanted, counted or handed in, so no hold locks it; the wanted pockets stand as the template has
them. Decided here: whoever has left can read it and no longer change it, as with everything else of theirs.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Any

from django.core.files.base import File

from coatpeg.core import intake
from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.pegs import TINTS
from coatpeg.core.policy import Action
from coatpeg.core.snapshots import text_digest
from coatpeg.core.texts import tidy_text
from coatpeg.events.recording import Deed, deed
from coatpeg.people.access import require_for_student
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios import texts
from coatpeg.portfolios.commands import keep_file, locked_portfolio, refuse_long_gone
from coatpeg.portfolios.contents import artefact_data
from coatpeg.portfolios.models import Artefact, LoosePage, Portfolio

LONGEST_TITLE = 120
MOST_PAGES = 100


@contextmanager
def arranging(person: Person, portfolio_id: int, now: datetime) -> Iterator[tuple[Portfolio, Deed]]:
    """A deed on one's own portfolio, its row locked."""
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        require_for_student(person, Action.ARRANGE_PORTFOLIO, portfolio.enrolment)
        refuse_left(portfolio, now)
        yield portfolio, doing


def refuse_left(portfolio: Portfolio, now: datetime) -> None:
    """Whoever has left reads and no longer writes."""
    left = portfolio.enrolment.last
    if left is not None and left < school_calendar().local_day(now):
        raise Refused(f"You left this class on {left:%a %-d %b}.", fix="You can still read everything in it.")


def _record(doing: Deed, portfolio: Portfolio, verb: str, **data: Any) -> None:
    doing.record(verb, portfolio.enrolment.group_id, enrolment_id=portfolio.enrolment_id, **data)


def _title(title: str, *, may_be_empty: bool = False) -> str:
    tidy = " ".join(tidy_text(title).split())
    if len(tidy) > LONGEST_TITLE or not (tidy or may_be_empty):
        raise Invalid(
            f"The title has {len(tidy)} characters." if tidy else "The page has no title.",
            where="title",
            fix=f"Give it a title of at most {LONGEST_TITLE} characters.",
        )
    return tidy


def set_cover(
    person: Person, portfolio_id: int, title: str, tint: int | None, picture: int | None, now: datetime
) -> Portfolio:
    """Give the portfolio a cover: a title, one of the eight tints (None: the peg's), a picture of one's own."""
    with arranging(person, portfolio_id, now) as (portfolio, doing):
        if tint is not None and not 0 <= tint < TINTS:
            raise Invalid(f"There is no colour {tint}.", where="tint", fix="Choose one that is offered.")
        if (
            picture is not None
            and not Artefact.objects.filter(pk=picture, portfolio=portfolio, kind=Artefact.Kind.PICTURE).exists()
        ):
            raise Invalid("This picture is not in your portfolio.", where="picture", fix="Add a picture of your own.")
        portfolio.cover_title = _title(title, may_be_empty=True)
        portfolio.cover_tint, portfolio.cover_picture_id = tint, picture
        portfolio.save(update_fields=["cover_title", "cover_tint", "cover_picture"])
        _record(doing, portfolio, "cover_set")
        return portfolio


def keep_cover_picture(person: Person, portfolio_id: int, content: File[Any], name: str, now: datetime) -> Artefact:
    """Take in a picture for the cover; the cover is set by ``set_cover``."""
    title, _ = intake.tidy_title(name)
    kept = keep_file(person, portfolio_id, content, title)
    if kept.kind != Artefact.Kind.PICTURE:
        raise Invalid(f"“{title}” is not a picture.", where="file", fix="Choose a photo or a drawing.")
    with arranging(person, portfolio_id, now) as (portfolio, doing):
        made = Artefact.objects.create(
            portfolio=portfolio,
            kind=kept.kind,
            title=title,
            stored=kept.stored,
            came_sha256=kept.came_sha256,
            made_at=now,
        )
        _record(doing, portfolio, "cover_picture_kept", artefact=made.pk, kept=kept.stored.sha256)
        return made


def cover_data(portfolio: Portfolio) -> dict[str, Any]:
    """A cover as plain data; ``tint`` None where none was chosen."""
    picture = portfolio.cover_picture
    return {
        "title": portfolio.cover_title,
        "tint": portfolio.cover_tint,
        "picture": artefact_data(picture) if picture else None,
    }


def pages_of(portfolio: Portfolio) -> list[LoosePage]:
    """The loose pages in their order."""
    return list(portfolio.loose_pages.filter(removed_at=None))


def add_page(person: Person, portfolio_id: int, title: str, now: datetime) -> LoosePage:
    """A new loose page at the end."""
    with arranging(person, portfolio_id, now) as (portfolio, doing):
        pages = pages_of(portfolio)
        if len(pages) >= MOST_PAGES:
            raise Invalid(f"A portfolio has at most {MOST_PAGES} loose pages.", where="page", fix="Take one out first.")
        made = LoosePage.objects.create(
            portfolio=portfolio,
            title=_title(title),
            position=max((one.position for one in pages), default=0) + 1,
            changed_at=now,
        )
        _record(doing, portfolio, "page_added", page=made.pk)
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
        named = _title(title)
        renamed, page.title = named != page.title, named
        done = texts.save(portfolio, page, person, texts.Draft(text, version, html, base, anew), now)
        if renamed and not done.changed:
            page.save(update_fields=["title"])
        if done.changed or renamed:
            _record(doing, portfolio, "page_written", page=page.pk, version=page.version, text=text_digest(page.text))
        return page


def set_removed(person: Person, page_id: int, now: datetime, *, removed: bool) -> LoosePage:
    """Take a loose page out, or bring it back to its place."""
    with arranging(person, _named(page_id).portfolio_id, now) as (portfolio, doing):
        page = LoosePage.objects.get(pk=page_id)
        if (page.removed_at is not None) != removed:
            refuse_long_gone(page.removed_at, now)
            page.removed_at = now if removed else None
            page.save(update_fields=["removed_at"])
            _record(doing, portfolio, "page_removed" if removed else "page_restored", page=page.pk)
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
        _record(doing, portfolio, "page_moved", page=page_id)
