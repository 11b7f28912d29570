"""Artefacts: made of bytes that are kept, and told as plain data."""

from __future__ import annotations

from typing import Any

from django.core.files.base import File

from coatpeg.core.policy import Action
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import keeping, previews
from coatpeg.people.models import Person
from coatpeg.portfolios import quota
from coatpeg.portfolios.finding import portfolio_for
from coatpeg.portfolios.models import Artefact, WrittenText
from coatpeg.portfolios.writing import Place


def keep_file(person: Person, portfolio_id: int, content: File[Any], title: str) -> keeping.Kept:
    """Judge, clean and store the bytes of somebody who may put work into this portfolio."""
    quota.refuse_over(portfolio_for(person, portfolio_id, Action.FILL_POCKET), content.size)
    return keeping.keep(content, title)


def artefact_of(place: Place, kept: keeping.Kept, title: str) -> Artefact:
    """The artefact that stored bytes make in a portfolio; how it is shown is made in the background."""
    if kept.kind in (ArtefactKind.FILE, ArtefactKind.SCAN):
        previews.ask(kept.stored, title, place.doing.now)
    return Artefact.objects.create(
        portfolio=place.portfolio,
        kind=kept.kind,
        title=title,
        stored=kept.stored,
        came_sha256=kept.came_sha256,
        made_at=place.doing.now,
    )


def artefact_data(artefact: Artefact) -> dict[str, Any]:
    """An artefact as plain data, the same live and frozen: a text is frozen by its form."""
    stored = artefact.stored
    return {
        "id": artefact.pk,
        "kind": artefact.kind,
        "title": artefact.title,
        "link": artefact.link,
        "sha256": stored.sha256 if stored else "",
        "came_sha256": artefact.came_sha256,
        "media_type": stored.media_type if stored else "",
        "size": stored.size if stored else 0,
        "width": stored.width if stored else None,
        "height": stored.height if stored else None,
        **(_text_data(artefact.written_text) if artefact.kind == ArtefactKind.TEXT else {}),
    }


def _text_data(text: WrittenText) -> dict[str, Any]:
    return {"html": text.html, **({"passage": True} if text.quoted else {})}
