"""The show page: a chosen few of a student's artefacts, arranged, for the class to see once a member of staff has
opened it.

Decided here: artefacts of a pocket only, at most twelve, each with a line of the student's own; texts are shown, links
are named by their title and their address; no reflection, mark, comment or date is on it, and the student's name is the
given name and the last initial. What others wrote of a passage is left out. Whatever the student changes closes it
again, so that nobody shows the class what no member of staff has seen.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from django.db.models import Prefetch, QuerySet

from coatpeg.core.errors import Gone, Invalid, Stale
from coatpeg.core.people.names import short
from coatpeg.core.policy import Action
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.core.portfolios.texts import tidy_text
from coatpeg.core.sharing.quoting import Quoted, own_html
from coatpeg.events.recording import deed
from coatpeg.notices.putting import put
from coatpeg.people.access import require_for_student, require_in_group
from coatpeg.people.models import Person
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import Artefact, Evidence, Portfolio, ShownArtefact, ShowPage
from coatpeg.portfolios.own.arranging import arranging
from coatpeg.portfolios.writing import locked_portfolio

MOST = 12
"""A page that is looked at whole."""
LONGEST_TITLE = 120
LONGEST_CAPTION = 300


@dataclass(frozen=True, slots=True)
class Choice:
    """An artefact chosen for the page, by its evidence, with the student's line; ``wide``: over the whole width."""

    evidence: int
    caption: str = ""
    wide: bool = False


def arrange(
    person: Person, portfolio_id: int, title: str, chosen: Sequence[Choice], version: int, now: datetime
) -> ShowPage:
    """Arrange one's show page anew; it is closed again where it had been opened."""
    named = " ".join(tidy_text(title).split())
    lines = [" ".join(tidy_text(one.caption).split()) for one in chosen]
    if len(named) > LONGEST_TITLE or any(len(line) > LONGEST_CAPTION for line in lines):
        raise Invalid(
            "The title or a line is too long.",
            where="title",
            fix=f"A title has at most {LONGEST_TITLE} characters, a line {LONGEST_CAPTION}.",
        )
    if len(chosen) > MOST or len({one.evidence for one in chosen}) != len(chosen):
        raise Invalid(
            f"There are {len(chosen)} artefacts chosen.", where="shown", fix=f"Choose up to {MOST}, each once."
        )
    with arranging(person, portfolio_id, now) as (portfolio, doing):
        page, _ = ShowPage.objects.select_for_update().get_or_create(portfolio=portfolio)
        if page.version != version:
            raise Stale("Your show page was changed somewhere else meanwhile.", where="shown", fix="Load it again.")
        lying = portfolio.evidence.filter(
            pk__in=[one.evidence for one in chosen], removed_at=None, artefact__isnull=False, of=None
        )
        here = set(lying.values_list("pk", flat=True))
        if len(here) != len(chosen):
            raise Gone("Something that you chose was taken out of its pocket.", where="shown", fix="Choose again.")
        _refuse_others_words(lying)
        page.title, page.version = named, page.version + 1
        was_open = page.opened_at is not None
        page.opened_at = page.opened_by = None
        page.save()
        page.shown.all().delete()
        ShownArtefact.objects.bulk_create(
            ShownArtefact(show_page=page, evidence_id=one.evidence, caption=line, wide=one.wide, position=at)
            for at, (one, line) in enumerate(zip(chosen, lines, strict=True), 1)
        )
        of = portfolio.enrolment
        if was_open:
            doing.record("shows_changed", of.group_id)
        doing.record("show_page_arranged", of.group_id, enrolment_id=of.pk, version=page.version, shown=sorted(here))
        return page


def set_opened(person: Person, portfolio_id: int, version: int, now: datetime, *, opened: bool) -> ShowPage:
    """Open a student's show page to the class, as it was seen, or close it."""
    with deed(person.pk, now) as doing:
        portfolio = locked_portfolio(portfolio_id)
        require_for_student(person, Action.OPEN_SHOW_PAGE, portfolio.enrolment)
        page = ShowPage.objects.filter(portfolio=portfolio).first()
        if page is None or not page.shown.exists():
            raise Gone("There is nothing on this show page yet.", fix="Ask the student to choose something.")
        if opened and page.version != version:
            raise Stale("The student has changed this page since you saw it.", where="shown", fix="Look at it again.")
        if (page.opened_at is not None) != opened:
            page.opened_at, page.opened_by = (now, person) if opened else (None, None)
            page.save()
            of = portfolio.enrolment
            doing.record("shows_changed", of.group_id)  # of the class as a whole, so that all who follow it hear of it
            doing.record("show_page_opened" if opened else "show_page_closed", of.group_id, enrolment_id=of.pk)
            if opened:
                put(doing, "show_page_opened", of.group_id, enrolment=of.pk)
        return page


def _refuse_others_words(lying: QuerySet[Evidence]) -> None:
    """A passage in which nothing is the student's own has nothing to show."""
    alone = lying.filter(artefact__written_text__words=0).exclude(artefact__written_text__quoted=[])
    first = alone.select_related("artefact").first()
    if first is not None and first.artefact is not None:
        raise Invalid(
            f"“{first.artefact.title}” has no words of your own.",
            where="shown",
            fix="A show page leaves the words of others out. Choose something else.",
        )


_SHOWN = Prefetch(
    "shown",
    ShownArtefact.objects.filter(evidence__removed_at=None).select_related(
        "evidence__artefact__stored", "evidence__artefact__written_text", "evidence__artefact__portfolio__enrolment"
    ),
)


def page_of(person: Person, portfolio_id: int) -> dict[str, Any]:
    """A student's show page for themselves and their staff."""
    portfolio = portfolio_for(person, portfolio_id, Action.SEE_PORTFOLIO)
    page = ShowPage.objects.filter(portfolio=portfolio).prefetch_related(_SHOWN).first()
    return _data(page or ShowPage(portfolio=portfolio), portfolio)


def of_class(person: Person, group_id: int, today: date) -> list[dict[str, Any]]:
    """The show pages that are open to the class, by name: of those who are in it today. Two queries."""
    require_in_group(person, Action.SEE_SHOW_PAGES, group_id)
    pages = ShowPage.objects.filter(portfolio__enrolment__group_id=group_id, opened_at__isnull=False)
    found = pages.select_related("portfolio__enrolment__person").prefetch_related(_SHOWN)
    there = [one for one in found if (last := one.portfolio.enrolment.last) is None or last >= today]
    return sorted((_data(one, one.portfolio) for one in there), key=lambda one: str(one["name"]))


def _data(page: ShowPage, portfolio: Portfolio) -> dict[str, Any]:
    of = portfolio.enrolment
    return {
        "portfolio": portfolio.pk,
        "name": short(of.person.family_name, of.person.given_name),
        "picture": of.picture,
        "tint": of.tint,
        "title": page.title,
        "version": page.version,
        "opened_at": page.opened_at,
        "shown": [_shown_data(one) for one in page.shown.all()] if page.pk else [],
    }


def _shown_data(one: ShownArtefact) -> dict[str, Any]:
    assert one.evidence.artefact is not None
    return {
        "id": one.pk,
        "evidence": one.evidence_id,
        "caption": one.caption,
        "wide": one.wide,
        "artefact": {**artefact_data(one.evidence.artefact), **_own_of(one.evidence.artefact)},
    }


def _own_of(artefact: Artefact) -> dict[str, Any]:
    """Of a passage that several wrote the student's own words alone."""
    if artefact.kind != ArtefactKind.TEXT or not artefact.written_text.quoted:
        return {}
    runs = [Quoted(*one) for one in artefact.written_text.quoted]
    return {"html": own_html(runs, artefact.portfolio.enrolment.person_id)}


def shown_artefact(person: Person, shown_id: int) -> Artefact:
    """An artefact on a show page: for its class once it is open, for its owner and their staff always."""
    found = (
        ShownArtefact.objects.filter(pk=shown_id, evidence__removed_at=None)
        .select_related("evidence__artefact__stored", "show_page__portfolio__enrolment")
        .first()
    )
    if found is None:
        raise Gone("This is not on a show page any more.", fix="Load the page again.")
    artefact = found.evidence.artefact
    assert artefact is not None
    of = found.show_page.portfolio.enrolment
    if found.show_page.opened_at is not None and of.person_id != person.pk:
        require_in_group(person, Action.SEE_SHOW_PAGES, of.group_id)
    else:
        require_for_student(person, Action.SEE_PORTFOLIO, of)
    return artefact
