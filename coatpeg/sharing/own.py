"""Pages that students begin with classmates whom they choose, where the staff of the class allow it.

Such a page belongs to no pocket: it is never wanted, collected or handed in. In each one's portfolio it stands among
their own pages, with its words as they were settled last. Decided here: whoever begins it chooses once who is with
them, up to twelve; each gives it a name of their own in their list; who puts it into their bin does not take it from
the others; when staff no longer allow such pages, those that are there stay.
"""

from __future__ import annotations

import uuid
from collections.abc import Collection, Iterable, Mapping, Sequence
from datetime import datetime
from typing import Any

from django.db.models import Max, Q

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.people import names
from coatpeg.core.policy import Action
from coatpeg.events.recording import deed
from coatpeg.notices.kinds import Kind, Line, register
from coatpeg.notices.models import Notice
from coatpeg.notices.putting import put
from coatpeg.people.access import require_for_student, require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import mate
from coatpeg.people.models import Enrolment, Person, TeachingGroup
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import LoosePage, Portfolio
from coatpeg.portfolios.own.arranging import record, tidy_title
from coatpeg.portfolios.own.pages import MOST_PAGES, readable_page
from coatpeg.portfolios.writing import locked_of, refuse_left
from coatpeg.sharing import exchanging, finding
from coatpeg.sharing.models import SharedPage

MOST_WITH = 12
BEGUN = "page_together"


def allow(person: Person, group_id: int, now: datetime, *, allowed: bool) -> None:
    """Say whether students of a class may begin pages with classmates."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    with deed(person.pk, now) as doing:
        group = TeachingGroup.objects.select_for_update().get(pk=group_id)
        if group.pages_together != allowed:
            group.pages_together = allowed
            group.save(update_fields=["pages_together"])
            doing.record("pages_together_allowed", group_id, allowed=allowed)


def classmates(person: Person, portfolio_id: int, now: datetime) -> list[dict[str, Any]]:
    """With whom a student may begin a page, as students see each other; nobody where it is not allowed."""
    portfolio = portfolio_for(person, portfolio_id, Action.ARRANGE_PORTFOLIO)
    if not portfolio.enrolment.group.pages_together:
        return []
    others = _present(portfolio.enrolment.group_id, now).exclude(pk=portfolio.enrolment_id).select_related("person")
    order = sorted(others, key=lambda one: names.sort_key(one.person.given_name, one.person.family_name, one.pk))
    return [{"id": one.pk, **mate(one)} for one in order]


def _present(group_id: int, now: datetime) -> Any:
    """Who is in a class on the day of a moment, with a portfolio."""
    today = school_calendar().local_day(now)
    there = Enrolment.objects.filter(group_id=group_id, first__lte=today, portfolio__isnull=False)
    return there.filter(Q(last=None) | Q(last__gte=today))


def begin(person: Person, portfolio_id: int, title: str, others: Collection[int], now: datetime) -> LoosePage:
    """Begin a page with some classmates (enrolments); it stands in the portfolio of each of them at once."""
    own = portfolio_for(person, portfolio_id, Action.ARRANGE_PORTFOLIO)
    group = own.enrolment.group
    if not group.pages_together:
        raise Refused(
            "In this class nobody begins pages with others.",
            where=group.name,
            fix="Ask your teacher, or make a page of your own.",
        )
    chosen = set(others) - {own.enrolment_id}
    if not 1 <= len(chosen) <= MOST_WITH:
        raise Invalid(
            f"{len(chosen)} classmates are chosen." if chosen else "Nobody is chosen yet.",
            where="others",
            fix=f"Choose 1 to {MOST_WITH} of them.",
        )
    if _present(group.pk, now).filter(pk__in=chosen).count() != len(chosen):
        raise Gone("Somebody whom you chose is not in the class.", where="others", fix="Choose once more.")
    named = tidy_title(title)
    with deed(person.pk, now) as doing:
        portfolios = locked_of(own.enrolment_id, *chosen)
        mine = portfolios[own.enrolment_id]
        require_for_student(person, Action.ARRANGE_PORTFOLIO, mine.enrolment)
        refuse_left(mine, now)
        if LoosePage.objects.filter(portfolio=mine, removed_at=None).count() >= MOST_PAGES:
            raise Invalid(f"A portfolio has at most {MOST_PAGES} loose pages.", where="page", fix="Take one out first.")
        page = SharedPage.objects.create(
            group=group, pocket=None, title=named, of=f"own:{uuid.uuid4().hex[:20]}", changed_at=now
        )
        page.chosen.set([one.enrolment for one in portfolios.values()])
        made = {one: _stands(portfolio, page, named, now) for one, portfolio in portfolios.items()}
        record(doing, mine, "page_added", page=made[own.enrolment_id].pk, together=page.pk)
        put(doing, BEGUN, group.pk, page=page.pk)
        return made[own.enrolment_id]


def _stands(portfolio: Portfolio, page: SharedPage, title: str, now: datetime) -> LoosePage:
    last = LoosePage.objects.filter(portfolio=portfolio).aggregate(last=Max("position"))["last"]
    return LoosePage.objects.create(
        portfolio=portfolio, title=title, position=(last or 0) + 1, changed_at=now, together=page.pk
    )


def open_page(person: Person, portfolio_id: int, page_id: int, now: datetime) -> dict[str, Any]:
    """A page among a student's own that they fill with others, opened as any page that many fill."""
    found = readable_page(person, page_id)
    if found.portfolio_id != portfolio_id or found.together is None:
        raise Gone("This page is not filled together.", fix="Go back to the pockets.")
    return exchanging.opened(person, finding.with_pocket(found.together), now)


def _audience(notice: Notice) -> Iterable[int]:
    """Those who were chosen, but not whoever chose them."""
    inside = Enrolment.objects.filter(shared_pages=notice.data["page"]).exclude(person=notice.by_id)
    return sorted(inside.values_list("person_id", flat=True))


def _lines(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """The page by its name in the person's own list: one query."""
    rows = LoosePage.objects.filter(
        together__in={one.data["page"] for one in notices}, portfolio__enrolment__person=person_id, removed_at=None
    )
    mine = {one.together: one for one in rows}
    return {
        one.pk: Line(page.title, f"/g/{one.group_id}/portfolio/{page.portfolio_id}/page/{page.pk}")
        for one in notices
        if (page := mine.get(one.data["page"])) is not None
    }


def register_all() -> None:
    """Say what these notices are called and lead to."""
    register(BEGUN, Kind(_audience, _lines, "a classmate has begun a page with you"))
