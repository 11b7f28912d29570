"""What of a submission can be annotated."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Any

from coatpeg.core.marking.annotations import Part, Surface, Surfaces
from coatpeg.core.portfolios import rich
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files.previews import words_of
from coatpeg.handins.models import Submission
from coatpeg.portfolios.models import Artefact

Key = tuple[int, int | None, Part | None]
_DRAWN = frozenset({ArtefactKind.PICTURE, ArtefactKind.SCAN, ArtefactKind.FILE})
_RUNS = frozenset({ArtefactKind.SOUND, ArtefactKind.VIDEO})


def surfaces_of(submission: Submission) -> Surfaces:
    """By pocket, evidence and part; of files that are shown as words, these words: two queries where there is one."""
    pockets = submission.snapshot["pockets"]
    words = _words_of_files(one["artefact"] for pocket in pockets for one in pocket["evidence"] if one["artefact"])
    return dict(one for pocket in pockets for one in _of_pocket(pocket, words))


def _words_of_files(artefacts: Iterable[Mapping[str, Any]]) -> dict[int, str]:
    """What is shown of files that are shown as words, by the artefact's id."""
    ids = [one["id"] for one in artefacts if one["kind"] == ArtefactKind.FILE]
    if not ids:
        return {}
    files = {one.pk: one.stored for one in Artefact.objects.filter(pk__in=ids).select_related("stored") if one.stored}
    shown = words_of(files.values())
    return {
        pk: rich.plain(what) if how == "html" else what
        for pk, stored in files.items()
        for how, what in (shown[stored.pk],)
        if stored.pk in shown
    }


def _of_pocket(pocket: dict[str, Any], shown: Mapping[int, str]) -> Iterator[tuple[Key, Surface]]:
    log = pocket.get("log")
    rows = tuple(row["id"] for row in log["rows"]) if log else None
    columns = tuple(one["key"] for one in log["plan"]["columns"]) if log else ()
    yield (pocket["id"], None, None), Surface(rows=rows, columns=columns)
    for one in pocket["evidence"]:
        spoken = one.get("spoken") is not None
        yield (pocket["id"], one["id"], Part.TEXT), Surface(one["text"], runs=spoken)
        if artefact := one["artefact"]:
            kind = artefact["kind"]
            words = rich.plain(artefact["html"]) if kind == ArtefactKind.TEXT else shown.get(artefact["id"])
            yield (pocket["id"], one["id"], Part.ARTEFACT), Surface(words, kind in _DRAWN, kind in _RUNS)
