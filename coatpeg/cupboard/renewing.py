"""An item that changed, brought to the copies of it.

Decided here (as the product says): a copy that is as it came is exchanged; beside one that was begun the newer is laid,
once; in a locked pocket it waits until its student opens the pocket unlocked. Copies that were taken out stay as they
are. Whoever has a copy that was renewed is told.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence

from django.db.models import F, QuerySet

from coatpeg.core.cupboard.items import IN_WORDS
from coatpeg.cupboard import copies as of_copies
from coatpeg.cupboard import laying
from coatpeg.cupboard.models import CupboardCopy, CupboardItem
from coatpeg.events.recording import Deed
from coatpeg.notices.putting import put
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios import counting
from coatpeg.portfolios.models import Evidence, Portfolio, WrittenText


def behind(rows: QuerySet[CupboardCopy]) -> QuerySet[CupboardCopy]:
    """Those copies that are of an older content than their item has now, with nothing newer beside them."""
    return rows.filter(content__lt=F("item__content"), newer=None, item__removed_at=None)


def renew(doing: Deed, item: CupboardItem) -> int:
    """Bring an item to all copies of it; the item is locked. Returns how many students have something newer."""
    older = behind(CupboardCopy.objects.filter(item=item))
    ids = sorted(set(older.values_list("portfolio_id", flat=True)))
    list(Portfolio.objects.select_for_update().filter(pk__in=ids).order_by("pk").values_list("pk"))
    return renew_copies(doing, of_copies.loaded(older))


def renew_copies(doing: Deed, older: Sequence[CupboardCopy]) -> int:
    """The same for these copies, whose portfolios are locked."""
    holds = of_copies.held(older)
    lying = [one for one in older if of_copies.lies_there(one) and (one.portfolio_id, one.pocket_id) not in holds]
    fresh = [one for one in lying if of_copies.as_it_came(one)]
    begun = [one for one in lying if one not in fresh]
    _exchange(doing, fresh)
    done = [*fresh, *_beside(doing, begun)]
    for item_id in sorted({one.item_id for one in done}):
        of = [one for one in done if one.item_id == item_id]
        tell(doing, of[0].item, of)
    return len(done)


def tell(doing: Deed, item: CupboardItem, of: Sequence[CupboardCopy]) -> None:
    """Tell whoever has something newer: one notice for all, or for the one student it came to."""
    people = {one.portfolio.enrolment_id for one in of}
    put(
        doing,
        "copy_renewed",
        item.group_id,
        item=item.pk,
        content=item.content,
        enrolment=people.pop() if len(people) == 1 else 0,
    )


def _exchange(doing: Deed, copies: Sequence[CupboardCopy]) -> None:
    """Put what is in the item now in the place of what came."""
    by_item: dict[int, list[CupboardCopy]] = defaultdict(list)
    for one in copies:
        by_item[one.item_id].append(one)
    for of in by_item.values():
        _exchange_of(doing, of[0].item, of)
    counted: dict[Pocket, set[int]] = defaultdict(set)
    for one in copies:
        counted[one.pocket].add(one.portfolio_id)
        doing.record(
            "copy_renewed",
            one.portfolio.enrolment.group_id,
            enrolment_id=one.portfolio.enrolment_id,
            pocket=one.pocket_id,
            item=one.item_id,
            evidence=one.evidence_id,
        )
    for pocket, portfolios in counted.items():
        counting.refresh_many(portfolios, pocket)


def _exchange_of(doing: Deed, item: CupboardItem, copies: Sequence[CupboardCopy]) -> None:
    pages = [one.evidence for one in copies if one.evidence.artefact_id is None]
    rest = [one for one in copies if one.evidence.artefact_id is not None]
    if item.kind in IN_WORDS:
        words = laying.words_in(item)
        texts = [one.evidence.artefact.written_text for one in rest if one.evidence.artefact]
        for kept in (*pages, *texts):
            laying.rewrite(kept, words, doing.now)
        columns = [*words, "version", "changed_at"]
        Evidence.objects.bulk_update(pages, columns, batch_size=laying.BATCH)
        WrittenText.objects.bulk_update(texts, columns, batch_size=laying.BATCH)
        laying.revise(doing, [*pages, *texts])
    else:
        # An artefact is never changed: another one takes its place in the pocket.
        made = laying.make_artefacts(doing, item, sorted({one.portfolio_id for one in rest}))
        for one in rest:
            one.evidence.artefact, one.evidence.changed_at = made[one.portfolio_id], doing.now
        Evidence.objects.bulk_update(
            [one.evidence for one in rest], ["artefact", "changed_at"], batch_size=laying.BATCH
        )
    for one in copies:
        one.content = item.content
    CupboardCopy.objects.bulk_update(copies, ["content"], batch_size=laying.BATCH)


def _beside(doing: Deed, copies: Sequence[CupboardCopy]) -> list[CupboardCopy]:
    """Lay the newer beside what was begun; returns those where it fitted."""
    done: list[CupboardCopy] = []
    by_place: dict[tuple[CupboardItem, Pocket], list[CupboardCopy]] = defaultdict(list)
    for one in copies:
        by_place[one.item, one.pocket].append(one)
    for (item, pocket), of in by_place.items():
        full = laying.full(pocket, [one.portfolio_id for one in of])
        fitting = {one.portfolio_id: one for one in of if one.portfolio_id not in full}
        made = laying.lay(doing, item, pocket, [one.portfolio for one in fitting.values()])
        newer = {one.portfolio_id: one for one in made}
        for one in of:
            one.newer = newer.get(one.portfolio_id)
        CupboardCopy.objects.bulk_update(of, ["newer"], batch_size=laying.BATCH)
        done += fitting.values()
    return done
