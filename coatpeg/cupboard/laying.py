"""Laying copies of an item into pockets: the one place that makes them, for one student or two thousand.

The portfolios are locked by whoever calls. No bytes are copied: a copy points at what is stored. However many students,
the statements are the same. Decided here: a page goes into a pocket of that kind as its words where nobody has written
there, else beside it as a text; words that were laid in begin the page's history under whoever gave them.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime
from typing import Any

from django.db.models import Count, Max

from coatpeg.core.cupboard.items import IN_WORDS, ItemKind, Target, artefact_kind
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.portfolios import rich, texts
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.cupboard.models import CupboardCopy, CupboardItem, GivenOut
from coatpeg.events.recording import Deed
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios import counting
from coatpeg.portfolios.evidence.commands import MOST_IN_A_POCKET
from coatpeg.portfolios.models import (
    Artefact,
    Evidence,
    KeptText,
    Portfolio,
    StandingHold,
    TextRevision,
    WrittenText,
)

BATCH = 500


def target_of(pocket: Pocket) -> Target:
    """A pocket as the rules see it."""
    return Target(pocket.title, PocketKind(pocket.kind), tuple(pocket.takes), bool(pocket.shared))


def kind_of(item: CupboardItem) -> ArtefactKind:
    """The kind of artefact a copy is."""
    return artefact_kind(ItemKind(item.kind), item.file_kind)


def words_in(item: CupboardItem) -> dict[str, Any]:
    """A page's words as the columns of a text, its first version."""
    text = texts.tidy_text(rich.plain(item.html))
    counts = texts.count(text)
    return {"text": text, "html": item.html, "begun_as": text, "words": counts.words, "sentences": counts.sentences}


def full(pocket: Pocket, portfolios: Iterable[int]) -> set[int]:
    """The portfolios (ids) in whose pocket no further artefact fits: one query."""
    lying = Evidence.objects.filter(pocket=pocket, portfolio__in=portfolios, removed_at=None)
    counted = lying.values("portfolio").annotate(n=Count("pk")).filter(n__gte=MOST_IN_A_POCKET)
    return set(counted.values_list("portfolio", flat=True))


def locked(pocket: Pocket, portfolios: Iterable[int]) -> set[int]:
    """The portfolios (ids) in which a pocket is locked: one query."""
    return set(StandingHold.objects.filter(pocket=pocket, portfolio__in=portfolios).values_list("portfolio", flat=True))


def lay(
    doing: Deed, item: CupboardItem, pocket: Pocket, portfolios: Sequence[Portfolio], given: GivenOut | None = None
) -> list[CupboardCopy]:
    """A copy for each of these portfolios in a pocket that takes it; they are locked, with their enrolments loaded."""
    if not portfolios:
        return []
    as_words = _empty_pages(item, pocket, portfolios)
    evidence = {**_as_words(doing, item, pocket, as_words), **_as_artefacts(doing, item, pocket, portfolios, as_words)}
    counting.refresh_many([one.pk for one in portfolios], pocket)
    copies = CupboardCopy.objects.bulk_create(
        (
            CupboardCopy(
                item=item,
                content=item.content,
                given=given,
                portfolio=one,
                pocket=pocket,
                evidence=evidence[one.pk],
                at=doing.now,
            )
            for one in portfolios
        ),
        batch_size=BATCH,
    )
    for one in portfolios:
        doing.record(
            "copy_given" if given else "copy_laid",
            one.enrolment.group_id,
            enrolment_id=one.enrolment_id,
            pocket=pocket.pk,
            item=item.pk,
            evidence=evidence[one.pk].pk,
            given=given.pk if given else 0,
        )
    return copies


def _empty_pages(item: CupboardItem, pocket: Pocket, portfolios: Sequence[Portfolio]) -> Mapping[int, Evidence | None]:
    """The portfolios (ids) whose page takes an item as its words, with the page's row where there is one."""
    if item.kind not in IN_WORDS or pocket.kind != PocketKind.PAGE:
        return {}
    ids = [one.pk for one in portfolios]
    pages = {
        one.portfolio_id: one
        for one in Evidence.objects.filter(pocket=pocket, portfolio__in=ids, artefact=None).order_by("pk")
    }
    written = {one for one, page in pages.items() if not counting.pieces_of(pocket, [page])[0].unchanged}
    # Words that another item of the cupboard gave stay, though nobody has changed them.
    given = {one for one, page in pages.items() if page.begun_as and page.text}
    return {one: pages.get(one) for one in ids if one not in written | given}


def _as_words(
    doing: Deed, item: CupboardItem, pocket: Pocket, pages: Mapping[int, Evidence | None]
) -> dict[int, Evidence]:
    """Write an item into pages as their words."""
    words = words_in(item) if pages else {}
    new = Evidence.objects.bulk_create(
        (
            Evidence(portfolio_id=one, pocket=pocket, version=1, changed_at=doing.now, **words)
            for one, page in pages.items()
            if page is None
        ),
        batch_size=BATCH,
    )
    old = [page for page in pages.values() if page is not None]
    for page in old:
        rewrite(page, words, doing.now)
    Evidence.objects.bulk_update(old, [*words, "version", "changed_at"], batch_size=BATCH)
    revise(doing, [*new, *old])
    return {one.portfolio_id: one for one in (*new, *old)}


def _as_artefacts(
    doing: Deed, item: CupboardItem, pocket: Pocket, portfolios: Sequence[Portfolio], but: Mapping[int, Any]
) -> dict[int, Evidence]:
    """Lay an item into a pocket as an artefact, at its end."""
    into = [one.pk for one in portfolios if one.pk not in but]
    artefacts = make_artefacts(doing, item, into)
    last = dict(
        Evidence.objects.filter(pocket=pocket, portfolio__in=into)
        .order_by()
        .values_list("portfolio")
        .annotate(last=Max("position"))
    )
    made = Evidence.objects.bulk_create(
        (
            Evidence(
                portfolio_id=one,
                pocket=pocket,
                artefact=artefacts[one],
                position=(last.get(one) or 0) + 1,
                changed_at=doing.now,
            )
            for one in into
        ),
        batch_size=BATCH,
    )
    return {one.portfolio_id: one for one in made}


def make_artefacts(doing: Deed, item: CupboardItem, portfolios: Sequence[int]) -> dict[int, Artefact]:
    """The artefacts that an item is in these portfolios (ids): as they are, they are no work."""
    made = Artefact.objects.bulk_create(
        (
            Artefact(
                portfolio_id=one,
                kind=kind_of(item),
                title=item.title,
                stored=item.stored,
                came_sha256=item.came_sha256,
                link=item.link,
                made_at=doing.now,
                given=True,
            )
            for one in portfolios
        ),
        batch_size=BATCH,
    )
    if item.kind in IN_WORDS:
        words = words_in(item)
        written = WrittenText.objects.bulk_create(
            (WrittenText(artefact=one, version=1, changed_at=doing.now, **words) for one in made), batch_size=BATCH
        )
        revise(doing, written)
    return {one.portfolio_id: one for one in made}


def rewrite(kept: KeptText, words: Mapping[str, Any], now: datetime) -> None:
    """Put an item's words in the place of a text's; its row is saved by whoever calls."""
    for name, value in words.items():
        setattr(kept, name, value)
    kept.version, kept.changed_at = kept.version + 1, now


def revise(doing: Deed, written: Iterable[Evidence | WrittenText]) -> None:
    """Keep texts as they stand now in their histories, by whoever does this."""
    assert doing.actor_id is not None, "somebody gives or takes"
    TextRevision.objects.bulk_create(
        (
            TextRevision(
                evidence=one if isinstance(one, Evidence) else None,
                written_text=None if isinstance(one, Evidence) else one,
                version=one.version,
                text=one.text,
                html=one.html,
                person_id=doing.actor_id,
                begun_at=doing.now,
                saved_at=doing.now,
            )
            for one in written
        ),
        batch_size=BATCH,
    )
