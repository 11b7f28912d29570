"""One student's work in one portfolio, laid into another one of theirs: what moving to a parallel class takes along.

Decided here: everything is a copy, so that what was handed in, marked and said in the class before stays as it was, and
readable there. A page that has words of its own in the new portfolio keeps them; rows go into a log only where it has
the same columns. What was handed in comes as work that is not handed in yet; its locks, comments and history of
versions stay behind. The bytes are those that were kept already.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from django.db.models import Max, QuerySet

from coatpeg.core.outlines.filling import PocketKind
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios import counting, rich_pages
from coatpeg.portfolios.models import (
    Artefact,
    Evidence,
    KeptText,
    LogRow,
    LoosePage,
    Portfolio,
    TextRevision,
    WrittenText,
)

_WORDS = ("text", "html", "words", "sentences")


@dataclass
class Copied:
    """How much came over, and the titles of pockets from which nothing could."""

    pieces: int = 0
    left_behind: list[str] = field(default_factory=list)


def copy_work(source: Portfolio, target: Portfolio, pockets: Mapping[int, Pocket], now: datetime) -> Copied:
    """Copy what lies in a portfolio; ``pockets`` are those of the target by the ids of those they stand for.

    Both portfolios are locked.
    """
    copying = _Copying(source, target, now)
    for pocket in Pocket.objects.filter(section__template__group_id=source.enrolment.group_id).order_by("pk"):
        if not copying.has(pocket):
            continue
        into = pockets.get(pocket.pk)
        if into is None or not copying.into(pocket, into):
            copying.done.left_behind.append(pocket.title)
            continue
        counting.refresh(target, into, now)
    copying.loose_pages()
    copying.cover()
    return copying.done


class _Copying:
    """Artefacts by their copies: one that lies in several pockets is copied once."""

    def __init__(self, source: Portfolio, target: Portfolio, now: datetime) -> None:
        self.source, self.target, self.now = source, target, now
        self.artefacts: dict[int, Artefact] = {}
        self.done = Copied()

    def has(self, pocket: Pocket) -> bool:
        """Whether anything lies in a pocket of the portfolio before."""
        return self._evidence(pocket).exists() or self._rows(pocket).exists()

    def _evidence(self, pocket: Pocket) -> QuerySet[Evidence]:
        return Evidence.objects.filter(portfolio=self.source, pocket=pocket, removed_at=None)

    def _rows(self, pocket: Pocket) -> QuerySet[LogRow]:
        return LogRow.objects.filter(portfolio=self.source, pocket=pocket, removed_at=None)

    def into(self, pocket: Pocket, into: Pocket) -> bool:
        """Copy a pocket's work; False where the other one cannot take it."""
        if into.kind != pocket.kind:
            return False
        if pocket.kind == PocketKind.LOG:
            return self._log(pocket, into)
        if pocket.kind == PocketKind.PAGE:
            theirs = Evidence.objects.filter(portfolio=self.target, pocket=into, artefact=None).first()
            if theirs is not None and theirs.text:
                return False
            if theirs is not None:
                theirs.delete()
        last = Evidence.objects.filter(portfolio=self.target, pocket=into).aggregate(last=Max("position"))["last"]
        for place, one in enumerate(self._evidence(pocket).select_related("artefact", "spoken"), start=(last or 0) + 1):
            made = Evidence.objects.create(
                portfolio=self.target,
                pocket=into,
                artefact=self.artefact(one.artefact) if one.artefact else None,
                spoken=self.artefact(one.spoken) if one.spoken else None,
                starter_id=one.starter_id,
                position=place,
                **self._words(one),
            )
            self._begun(made, evidence=made)
            self.done.pieces += 1
        return True

    def _log(self, pocket: Pocket, into: Pocket) -> bool:
        if _columns(pocket) != _columns(into):
            return False
        kinds = {one["key"]: one["type"] for one in pocket.log.get("columns", [])}
        for row in self._rows(pocket):
            values = dict(row.values)
            named = {key: values[key] for key in values if kinds.get(key) == "artefact" and values[key]}
            rows = Artefact.objects.filter(pk__in=named.values(), portfolio=self.source)
            copies = {one.pk: self.artefact(one).pk for one in rows}
            values.update({key: copies[pk] for key, pk in named.items() if pk in copies})
            LogRow.objects.create(
                portfolio=self.target,
                pocket=into,
                values=values,
                complete=row.complete,
                week=row.week,
                placed_at=self.now,
                changed_at=self.now,
            )
            self.done.pieces += 1
        return True

    def artefact(self, of: Artefact) -> Artefact:
        """The copy of an artefact."""
        if of.pk not in self.artefacts:
            made = Artefact.objects.create(
                portfolio=self.target,
                kind=of.kind,
                title=of.title,
                stored=of.stored,
                came_sha256=of.came_sha256,
                link=of.link,
                made_at=of.made_at,
            )
            written = WrittenText.objects.filter(artefact=of).first()
            if written is not None:
                copy = WrittenText.objects.create(artefact=made, **self._words(written))
                self._begun(copy, written_text=copy)
            self.artefacts[of.pk] = made
        return self.artefacts[of.pk]

    def loose_pages(self) -> None:
        """The student's own pages, behind those that are there."""
        there = LoosePage.objects.filter(portfolio=self.target).count()
        for place, one in enumerate(LoosePage.objects.filter(portfolio=self.source, removed_at=None), start=there + 1):
            made = LoosePage.objects.create(portfolio=self.target, title=one.title, position=place, **self._words(one))
            self._begun(made, page=made)
            self.done.pieces += 1

    def cover(self) -> None:
        """The cover, where the portfolio has none of its own yet."""
        of, to = self.source, self.target
        if to.cover_title or to.cover_tint is not None or to.cover_picture_id:
            return
        to.cover_title, to.cover_tint = of.cover_title, of.cover_tint
        to.cover_picture = self.artefact(of.cover_picture) if of.cover_picture else None
        to.save(update_fields=["cover_title", "cover_tint", "cover_picture"])

    def _words(self, of: KeptText) -> dict[str, Any]:
        html = of.html
        for picture in Artefact.objects.filter(pk__in=rich_pages.pictures_in(html), portfolio=self.source):
            copy = self.artefact(picture)
            html = html.replace(f"/api/artefacts/{picture.pk}/", f"/api/artefacts/{copy.pk}/")
        kept = {name: getattr(of, name) for name in _WORDS}
        return {**kept, "html": html, "version": min(of.version, 1), "changed_at": self.now}

    def _begun(self, made: KeptText, **of: Any) -> None:
        """The first revision of a text that has one."""
        if made.version:
            person = self.target.enrolment.person
            texts = {"version": made.version, "text": made.text, "html": made.html}
            TextRevision.objects.create(**texts, person=person, begun_at=self.now, saved_at=self.now, **of)


def _columns(pocket: Pocket) -> list[tuple[str, str]]:
    return [(one["key"], one["type"]) for one in pocket.log.get("columns", [])]
