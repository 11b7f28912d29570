"""What of a submission can be annotated."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from coatpeg.core.marking.annotations import Part, Surface, Surfaces
from coatpeg.core.portfolios import rich
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.handins.models import Submission

Key = tuple[int, int | None, Part | None]
_DRAWN = frozenset({ArtefactKind.PICTURE, ArtefactKind.SCAN, ArtefactKind.FILE})
_RUNS = frozenset({ArtefactKind.SOUND, ArtefactKind.VIDEO})


def surfaces_of(submission: Submission) -> Surfaces:
    """By pocket, evidence and part."""
    return dict(one for pocket in submission.snapshot["pockets"] for one in _of_pocket(pocket))


def _of_pocket(pocket: dict[str, Any]) -> Iterator[tuple[Key, Surface]]:
    log = pocket.get("log")
    rows = tuple(row["id"] for row in log["rows"]) if log else None
    columns = tuple(one["key"] for one in log["plan"]["columns"]) if log else ()
    yield (pocket["id"], None, None), Surface(rows=rows, columns=columns)
    for one in pocket["evidence"]:
        spoken = one.get("spoken") is not None
        yield (pocket["id"], one["id"], Part.TEXT), Surface(one["text"], runs=spoken)
        if artefact := one["artefact"]:
            kind = artefact["kind"]
            words = rich.plain(artefact["html"]) if kind == ArtefactKind.TEXT else None
            yield (pocket["id"], one["id"], Part.ARTEFACT), Surface(words, kind in _DRAWN, kind in _RUNS)
