"""A student puts a passage of a page that they fill with others into a pocket of their own.

Decided here: it is an artefact of its own, a text that nobody changes, in any pocket that takes texts; what others
write on the page later changes nothing in it. It needs no word of theirs: a passage of others alone counts as nothing
until they say what it shows.
"""

from __future__ import annotations

from datetime import datetime

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.people import names
from coatpeg.core.policy import Action
from coatpeg.core.portfolios import incoming, texts
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.core.sharing.quoting import as_html, own_words, runs_of
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios.evidence.commands import put
from coatpeg.portfolios.models import Artefact, Evidence, WrittenText
from coatpeg.portfolios.writing import writing
from coatpeg.sharing import finding, pages, rows, settling


def quote(
    person: Person, portfolio_id: int, pocket_id: int, page_id: int, at: int, words: str, now: datetime
) -> Evidence:
    """Put the passage at a place, which still says these words, into a pocket; ``Stale`` where it was changed."""
    with writing(person, portfolio_id, pocket_id, now) as place:
        page = finding.with_pocket(page_id)
        today = school_calendar().local_day(now)
        finding.require_on_page(person, Action.SEE_SHARED, rows.page_row(page_id), today)
        if page.group_id != place.group_id:
            raise Gone("This page is in another class.", fix="Choose a pocket of that class.")
        state = settling.put_together(page)
        pages.words_at(pages.document([state.data]), at, words)
        runs = runs_of(pages.said(state.data, settling.spans_of(page))[at])
        if not runs:
            raise Invalid("There is no word in this passage.", where="place", fix="Choose one that has some.")
        people = Person.objects.filter(pk__in={one.person for one in runs})
        html = as_html(runs, person.pk, {one.pk: names.short(one.family_name, one.given_name) for one in people})
        title, _ = incoming.tidy_title(f"From “{page.pocket.title if page.pocket else page.title}”")
        artefact = Artefact.objects.create(portfolio=place.portfolio, kind=ArtefactKind.TEXT, title=title, made_at=now)
        mine = own_words(runs, person.pk)
        counts = texts.count(mine)
        WrittenText.objects.create(
            artefact=artefact,
            text=mine,
            html=html,
            words=counts.words,
            sentences=counts.sentences,
            version=1,
            changed_at=now,
            quoted=[list(one) for one in runs],
        )
        return put(place, artefact, page=str(page_id))
