"""What a submission freezes."""

from __future__ import annotations

import secrets
from collections.abc import Iterable, Mapping
from typing import Any, NamedTuple

from coatpeg.core.handins import receipts
from coatpeg.core.outlines.filling import Piece, PocketKind, Wanted, has_work
from coatpeg.core.outlines.versions import Version
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.handins.models import HandIn, Submission
from coatpeg.outlines.dealing import version_of
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import wanted_as_data
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.counting import PocketWork, work_in
from coatpeg.portfolios.logs.reading import frozen_log, links_in
from coatpeg.portfolios.models import Evidence, Portfolio


def snapshot(
    handin: HandIn, portfolio: Portfolio, pockets: Iterable[Pocket], wanted: Mapping[int, Wanted]
) -> tuple[dict[str, Any], bool]:
    """The frozen content of the collected pockets, and whether there is any work in it.

    ``wanted`` is what is wanted in each of them now.
    """
    lying = [Lying(one, work_in(portfolio.pk, one), version_of(one, portfolio.enrolment_id)) for one in pockets]
    return freeze(handin, lying, wanted)


class Lying(NamedTuple):
    """A pocket of one student with what lies in it, and the version of it that the student has."""

    pocket: Pocket
    work: PocketWork
    version: Version | None


def freeze(handin: HandIn, lying: Iterable[Lying], wanted: Mapping[int, Wanted]) -> tuple[dict[str, Any], bool]:
    """The same of what is read already.

    Pictures and files are frozen by their hash, texts by their words, links by their address only: what a
    link leads to may change, and the receipt says so.
    """
    frozen, any_work, links = [], False, 0
    for pocket, (evidence, rows, pieces), version in lying:
        any_work = any_work or has_work(PocketKind(pocket.kind), pieces)
        links += sum(1 for one in evidence if one.artefact and one.artefact.kind == ArtefactKind.LINK)
        frozen.append(
            {
                "id": pocket.pk,
                "title": pocket.title,
                "kind": pocket.kind,
                "prompt": pocket.prompt,
                **({"version": version.name} if version else {}),
                "wanted": wanted_as_data(wanted[pocket.pk]),
                "evidence": [_evidence(one, piece) for one, piece in zip(evidence, pieces, strict=False)],
                **({"log": frozen_log(pocket, rows)} if pocket.kind == PocketKind.LOG else {}),
            }
        )
        links += sum(links_in(pocket, rows))
    document = {
        "handin": {"id": handin.pk, "title": handin.title, "points": str(handin.points) if handin.points else None},
        "pockets": frozen,
        "links": links,
        "empty": not any_work,
    }
    return document, any_work


def _evidence(one: Evidence, piece: Piece) -> dict[str, Any]:
    return {
        "id": one.pk,
        "text": one.text,
        "version": one.version,
        "words": one.words,
        "sentences": one.sentences,
        "unchanged": piece.unchanged,
        "artefact": artefact_data(one.artefact) if one.artefact else None,
        **({"html": one.html} if one.html else {}),
        **({"spoken": artefact_data(one.spoken)} if one.spoken else {}),
    }


def new_receipt() -> str:
    """A receipt code that no submission has yet."""
    return new_receipts(1)[0]


def new_receipts(count: int) -> list[str]:
    """Receipt codes that no submission has yet. Of two drawn alike at once, the unique index stops the second."""
    codes: set[str] = set()
    while len(codes) < count:
        drawn = {receipts.receipt_code(secrets.randbelow(receipts.SPACE)) for _ in range(count - len(codes))}
        codes |= drawn - set(Submission.objects.filter(receipt__in=drawn).values_list("receipt", flat=True))
    return list(codes)
