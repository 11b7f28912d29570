"""What a submission freezes."""

from __future__ import annotations

import secrets
from collections.abc import Collection, Iterable, Mapping
from types import MappingProxyType
from typing import Any, NamedTuple

from coatpeg.core.handins import receipts
from coatpeg.core.marking.rubrics import Judged, rubric_from_data
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
from coatpeg.portfolios.models import Evidence, LogRow, Portfolio

Rows = Mapping[int, int]
"""Rows of logs: the version of each by its id."""


def snapshot(
    handin: HandIn, portfolio: Portfolio, pockets: Iterable[Pocket], wanted: Mapping[int, Wanted]
) -> tuple[dict[str, Any], bool]:
    """The frozen content of the collected pockets, and whether there is any work in it.

    ``wanted`` is what is wanted in each of them now.
    """
    pockets = list(pockets)
    given = given_before(handin, [portfolio.enrolment_id], pockets).get(portfolio.enrolment_id, {})
    lying = [Lying(one, work_in(portfolio.pk, one), version_of(one, portfolio.enrolment_id), given) for one in pockets]
    return freeze(handin, lying, wanted)


def given_before(handin: HandIn, enrolments: Collection[int], pockets: Iterable[Pocket]) -> dict[int, dict[int, int]]:
    """Which log rows each of these students has handed in for other hand-ins, of what stands.

    Nothing where the hand-in takes all rows each time. A row that was changed since is handed in once more.
    """
    logs = {one.pk for one in pockets if one.kind == PocketKind.LOG}
    if not handin.since_last or not logs:
        return {}
    others = Submission.objects.filter(enrolment__in=enrolments, voided_at=None, handin__pockets__in=logs)
    found: dict[int, dict[int, int]] = {}
    for one in others.exclude(handin=handin).distinct().order_by("at", "pk").only("enrolment_id", "snapshot"):
        for pocket in one.snapshot["pockets"]:
            if pocket["id"] in logs and "log" in pocket:
                found.setdefault(one.enrolment_id, {}).update(
                    (row["id"], row["version"]) for row in pocket["log"]["rows"]
                )
    return found


class Lying(NamedTuple):
    """A pocket of one student with what lies in it, and the version of it that the student has."""

    pocket: Pocket
    work: PocketWork
    version: Version | None
    given: Rows = MappingProxyType({})
    """Rows of logs that are no part of it: they were handed in before."""


def freeze(handin: HandIn, lying: Iterable[Lying], wanted: Mapping[int, Wanted]) -> tuple[dict[str, Any], bool]:
    """The same of what is read already.

    Pictures and files are frozen by their hash, texts by their words, links by their address only: what a
    link leads to may change, and the receipt says so.
    """
    frozen, any_work, links = [], False, 0
    for pocket, (evidence, all_rows, pieces), version, given in lying:
        before = [one for one in all_rows if given.get(one.pk) == one.version]
        rows = [one for one in all_rows if one not in before]
        any_work = any_work or (has_work(PocketKind(pocket.kind), pieces) and (bool(rows) or not before))
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
                **({"log": frozen_log(pocket, rows, before)} if pocket.kind == PocketKind.LOG else {}),
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


NOT_JUDGED: Judged = MappingProxyType({})


def judged_by_student(handin: HandIn, judged: Judged) -> dict[str, Any]:
    """How a student judges themselves, with the rubric as it was, to be frozen with the rest; nothing where unasked.

    Decided here: what does not fit the rubric (any more) is left out. Handing in does not fail by it.
    """
    rubric = rubric_from_data(handin.rubric)
    fitting = rubric.fitting(judged) if rubric and rubric.by_student else {}
    return {"judged": {"rubric": handin.rubric, "levels": fitting}} if fitting else {}


def flags_of(document: Mapping[str, Any]) -> dict[str, bool]:
    """What a frozen document says of itself, for its row to keep: that it is empty, or an unchanged starter."""
    evidence = (one for pocket in document["pockets"] for one in pocket["evidence"])
    return {"empty": document["empty"], "unchanged": any(one["unchanged"] for one in evidence)}


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
        **({"of": one.of_id} if one.of_id is not None else {}),
        **({"theirs": True} if piece.theirs else {}),
        **({"spoken": artefact_data(one.spoken)} if one.spoken else {}),
    }


def keep_theirs(documents: Iterable[Mapping[str, Any]]) -> None:
    """Remember what others put in and is handed in by this: its bytes stay readable with the submission.

    No statement where everything is each one's own.
    """
    pockets = [pocket for document in documents for pocket in document["pockets"]]
    evidence = [one["id"] for pocket in pockets for one in pocket["evidence"] if "of" in one]
    rows = [one["id"] for pocket in pockets for one in pocket.get("log", {}).get("rows", ()) if "of" in one]
    if evidence:
        Evidence.objects.filter(pk__in=evidence).update(of_handed_in=True)
    if rows:
        LogRow.objects.filter(pk__in=rows).update(of_handed_in=True)


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
