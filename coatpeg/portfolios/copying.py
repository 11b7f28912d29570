"""One student's work in one portfolio, laid into another one of theirs, and taken out of it again.

That is what moving to a parallel class takes along, and what two accounts in one class had each. Decided here:
everything is a copy, so that what was handed in, marked and said in the place before stays as it was, and readable
there. A starter that nobody changed is no work and stays. A page that has words of its own in the new portfolio keeps
them; rows go into a log only where it has the same columns; nothing goes into a pocket that is locked. What was handed
in comes as work that is not handed in yet; its locks, comments and history of versions stay behind. The bytes are those
that were kept already. Taking out puts it into the bin, a text into its history; what was changed or handed in
meanwhile stays.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from django.db.models import Max, QuerySet

from coatpeg.core.outlines.filling import PocketKind
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios import counting, holds, rich_pages
from coatpeg.portfolios.models import (
    Artefact,
    Evidence,
    KeptText,
    LogRow,
    LoosePage,
    Portfolio,
    StandingHold,
    TextRevision,
    WrittenText,
)

LONGEST_TITLE = 120
_WORDS = ("text", "html", "words", "sentences", "begun_as")


@dataclass
class Copied:
    """How much came over, and the titles of pockets from which nothing could; the ids of what was made, to undo it."""

    pieces: int = 0
    left_behind: list[str] = field(default_factory=list)
    evidence: list[int] = field(default_factory=list)
    rows: list[int] = field(default_factory=list)
    pages: list[int] = field(default_factory=list)


def copy_work(
    source: Portfolio, target: Portfolio, pockets: Mapping[int, Pocket], now: datetime, *, aside: bool = False
) -> Copied:
    """Copy what lies in a portfolio; ``pockets`` are those of the target by the ids of those they stand for.

    ``aside``: the words of a page that has others there already become a page of the student's own, by the pocket's
    title. Both portfolios are locked.
    """
    copying = _Copying(source, target, now, aside=aside)
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


def take_out(target: Portfolio, made: Copied, now: datetime) -> None:
    """Take out again what was copied and is as it came. The portfolio is locked."""
    touched: dict[int, Pocket] = {}
    lying = Evidence.objects.filter(pk__in=made.evidence, portfolio=target, removed_at=None)
    for one in lying.select_related("pocket", "artefact"):
        if one.version > 1 or holds.is_held(target, one.pocket):
            continue
        touched[one.pocket_id] = one.pocket
        if one.artefact is not None:
            one.removed_at = now
            one.save(update_fields=["removed_at"])
        elif one.version:
            one.text, one.html, one.words, one.sentences = "", "", 0, 0
            one.version, one.changed_at = one.version + 1, now
            one.save()
            _revision_of(one, target, now, evidence=one)
    for row in LogRow.objects.filter(pk__in=made.rows, portfolio=target, removed_at=None).select_related("pocket"):
        handed_in = StandingHold.objects.filter(portfolio=target, pocket=row.pocket, since__gte=row.placed_at)
        if row.version > 1 or handed_in.exists():
            continue
        touched[row.pocket_id] = row.pocket
        row.removed_at = now
        row.save(update_fields=["removed_at"])
    LoosePage.objects.filter(pk__in=made.pages, portfolio=target, version__lte=1).update(removed_at=now)
    for pocket in touched.values():
        counting.refresh(target, pocket, now)


def would_stay(source: Portfolio, target: Portfolio, pockets: Iterable[Pocket]) -> list[str]:
    """The titles of those pockets of both that ``copy_work`` would leave behind, since they are locked."""
    locked = [one for one in pockets if one.kind != PocketKind.LOG and holds.is_held(target, one)]
    return [one.title for one in locked if _work_in(source, one)]


class _Copying:
    """Artefacts by their copies: one that lies in several pockets is copied once."""

    def __init__(self, source: Portfolio, target: Portfolio, now: datetime, *, aside: bool) -> None:
        self.source, self.target, self.now, self.aside = source, target, now, aside
        self.artefacts: dict[int, Artefact] = {}
        self.done = Copied()

    def has(self, pocket: Pocket) -> bool:
        """Whether any work lies in a pocket of the portfolio before."""
        return bool(_work_in(self.source, pocket)) or self._rows(pocket).exists()

    def _rows(self, pocket: Pocket) -> QuerySet[LogRow]:
        return LogRow.objects.filter(portfolio=self.source, pocket=pocket, removed_at=None)

    def into(self, pocket: Pocket, into: Pocket) -> bool:
        """Copy a pocket's work; False where the other one cannot take it."""
        if (
            into.kind != pocket.kind or pocket.shared or into.shared
        ):  # what many wrote is not one student's to take along
            return False
        if pocket.kind == PocketKind.LOG:
            return self._log(pocket, into)
        if holds.is_held(self.target, into):
            return False
        coming = _work_in(self.source, pocket)
        words = next((one for one in coming if one.artefact is None), None)
        theirs = Evidence.objects.filter(portfolio=self.target, pocket=into, artefact=None).first()
        if words is not None and theirs is not None:
            if _untouched(into, theirs):
                theirs.delete()
            elif self.aside:
                coming.remove(words)
                self._loose(words, pocket.title)
            else:
                return False
        last = Evidence.objects.filter(portfolio=self.target, pocket=into).aggregate(last=Max("position"))["last"]
        for place, one in enumerate(coming, start=(last or 0) + 1):
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
            self.done.evidence.append(made.pk)
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
            made = LogRow.objects.create(
                portfolio=self.target,
                pocket=into,
                values=values,
                complete=row.complete,
                week=row.week,
                placed_at=self.now,
                changed_at=self.now,
            )
            self.done.rows.append(made.pk)
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
                given=of.given,
                made_at=of.made_at,
            )
            written = WrittenText.objects.filter(artefact=of).first()
            if written is not None:
                copy = WrittenText.objects.create(artefact=made, quoted=written.quoted, **self._words(written))
                self._begun(copy, written_text=copy)
            self.artefacts[of.pk] = made
        return self.artefacts[of.pk]

    def loose_pages(self) -> None:
        """The student's own pages, behind those that are there."""
        for one in LoosePage.objects.filter(portfolio=self.source, removed_at=None, together=None):
            self._loose(one, one.title)

    def _loose(self, of: KeptText, title: str) -> None:
        place = LoosePage.objects.filter(portfolio=self.target).count() + 1
        words = self._words(of)
        made = LoosePage.objects.create(portfolio=self.target, title=title[:LONGEST_TITLE], position=place, **words)
        self._begun(made, page=made)
        self.done.pages.append(made.pk)
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
            _revision_of(made, self.target, self.now, **of)


def _revision_of(made: KeptText, target: Portfolio, now: datetime, **of: Any) -> None:
    """A revision of a text as it stands, by the student."""
    texts = {"version": made.version, "text": made.text, "html": made.html}
    TextRevision.objects.create(**texts, person=target.enrolment.person, begun_at=now, saved_at=now, **of)


def _work_in(portfolio: Portfolio, pocket: Pocket) -> list[Evidence]:
    """What lies in a pocket and is work."""
    return [one for one in counting.current(portfolio.pk, pocket.pk) if not _untouched(pocket, one)]


def _untouched(pocket: Pocket, one: Evidence) -> bool:
    """Whether a thing is as the pocket gave it, with nothing said about it: no work."""
    said = one.artefact is not None and (one.words > 0 or one.spoken_id is not None)
    return counting.pieces_of(pocket, [one])[0].unchanged and not said


def _columns(pocket: Pocket) -> list[tuple[str, str]]:
    return [(one["key"], one["type"]) for one in pocket.log.get("columns", [])]
