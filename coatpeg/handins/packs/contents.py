"""What goes into a pack: a folder for each student, family name first, with the files and texts they gave.

Decided here: the newest submission of each that stands, as it was frozen. Files lie there as they are kept; words,
links and rows of logs as plain files that any program opens. A file that is gone, or not made ready yet, is named in a
list.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from coatpeg.core.errors import CoatPegError
from coatpeg.core.people.csv_text import as_written
from coatpeg.core.people.file_names import Taken, file_name
from coatpeg.files import keeping, media
from coatpeg.portfolios.logs.reading import frozen_rows


@dataclass(frozen=True, slots=True)
class Entry:
    """A file of a pack: its name within the student's folder, and its bytes or the hash of what is kept."""

    name: str
    data: bytes = b""
    sha256: str = ""


def entries(snapshot: Mapping[str, Any]) -> Iterator[Entry]:
    """The files of one submission, each pocket's by its title and in order."""
    taken = Taken()
    for pocket in snapshot["pockets"]:
        for number, one in enumerate(pocket["evidence"], start=1):
            place = f"{pocket['title']} {number}" if len(pocket["evidence"]) > 1 else pocket["title"]
            for entry in _evidence(place, one):
                yield Entry(taken.give(file_name(entry.name)), entry.data, entry.sha256)
        if pocket.get("log"):
            name = taken.give(file_name(f"{pocket['title']}.csv"))
            yield Entry(name, as_written(frozen_rows(pocket["log"])).encode("utf-8-sig"))
            for artefact in pocket["log"]["artefacts"]:
                yield from (
                    Entry(taken.give(file_name(one.name)), one.data, one.sha256)
                    for one in _artefact(pocket["title"], artefact)
                )


def _evidence(place: str, one: Mapping[str, Any]) -> Iterator[Entry]:
    for artefact in (one["artefact"], one.get("spoken")):
        if artefact:
            yield from _artefact(place, artefact)
    if one["text"].strip():
        yield Entry(f"{place} words.txt", one["text"].encode())


def _artefact(place: str, artefact: Mapping[str, Any]) -> Iterator[Entry]:
    title = f"{place} {artefact['title']}"
    if artefact["link"]:
        yield Entry(f"{title} link.txt", artefact["link"].encode())
    elif artefact.get("html"):
        page = f'<!doctype html><meta charset="utf-8">\n{artefact["html"]}\n'
        yield Entry(f"{title}.html", page.encode())
    elif artefact["sha256"]:
        yield Entry(media.named(title, artefact["media_type"]), sha256=artefact["sha256"])


def bytes_of(entry: Entry) -> bytes | None:
    """The bytes of an entry; None where they cannot be had now."""
    if not entry.sha256:
        return entry.data
    try:
        with keeping.opened(entry.sha256) as content:
            return content.read()
    except CoatPegError:
        return None
