"""A portfolio's cover: a title, a colour, a picture of one's own."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.core.files.base import File

from coatpeg.core.errors import Invalid
from coatpeg.core.people.pegs import TINTS
from coatpeg.core.portfolios import incoming
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.people.models import Person
from coatpeg.portfolios.artefacts import artefact_data, keep_file
from coatpeg.portfolios.models import Artefact, Portfolio
from coatpeg.portfolios.own.arranging import arranging, record, tidy_title


def set_cover(
    person: Person, portfolio_id: int, title: str, tint: int | None, picture: int | None, now: datetime
) -> Portfolio:
    """Give the portfolio a cover: a title, one of the eight tints (None: the peg's), a picture of one's own."""
    with arranging(person, portfolio_id, now) as (portfolio, doing):
        if tint is not None and not 0 <= tint < TINTS:
            raise Invalid(f"There is no colour {tint}.", where="tint", fix="Choose one that is offered.")
        if (
            picture is not None
            and not Artefact.objects.filter(pk=picture, portfolio=portfolio, kind=ArtefactKind.PICTURE).exists()
        ):
            raise Invalid("This picture is not in your portfolio.", where="picture", fix="Add a picture of your own.")
        portfolio.cover_title = tidy_title(title, may_be_empty=True)
        portfolio.cover_tint, portfolio.cover_picture_id = tint, picture
        portfolio.save(update_fields=["cover_title", "cover_tint", "cover_picture"])
        record(doing, portfolio, "cover_set")
        return portfolio


def keep_cover_picture(person: Person, portfolio_id: int, content: File[Any], name: str, now: datetime) -> Artefact:
    """Take in a picture for the cover; the cover is set by ``set_cover``."""
    title, _ = incoming.tidy_title(name)
    kept = keep_file(person, portfolio_id, content, title)
    if kept.kind != ArtefactKind.PICTURE:
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
        record(doing, portfolio, "cover_picture_kept", artefact=made.pk, kept=kept.stored.sha256)
        return made


def cover_data(portfolio: Portfolio) -> dict[str, Any]:
    """A cover as plain data; ``tint`` None where none was chosen. One query where it has a picture, else none."""
    picture = None
    if portfolio.cover_picture_id is not None:
        picture = Artefact.objects.select_related("stored").get(pk=portfolio.cover_picture_id)
    return {
        "title": portfolio.cover_title,
        "tint": portfolio.cover_tint,
        "picture": artefact_data(picture) if picture else None,
    }
