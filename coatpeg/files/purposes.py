"""What uploads are for: each room registers, under a name, what a file of its purpose becomes.

So a file can come up for a portfolio, for feedback or for the cupboard, and this room knows none of them.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from coatpeg.core.errors import Invalid
from coatpeg.files.keeping import Kept
from coatpeg.files.models import Upload
from coatpeg.people.models import Person

Details = dict[str, Any]
"""What a purpose needs to know of an upload, as JSON."""
USUAL = "evidence"
"""The purpose of an upload that names none, as those do that an older page left in a browser."""


@dataclass(frozen=True, slots=True)
class Purpose:
    """What becomes of the files of one purpose.

    ``begin`` reads the pairs of ``Upload-Metadata`` and the size, asks whether this person may, and returns what is
    meant; it refuses at once what could not be kept in the end. ``allow`` asks again, with every part. ``take_in``
    puts kept bytes where they belong, in a transaction, and returns what they became; it is given the upload, the
    bytes, the hash of what came (of several pages their hashes, shortened) and the moment. ``incomplete`` tells
    whoever sent pages that so many never arrived and the others were joined without them. ``may_wait`` says whether
    a picture may be put in its place before it is cleaned (``files.waiting``); ``ready`` is called within the
    transaction in which it was cleaned, ``unreadable`` where it turned out to be broken.
    """

    begin: Callable[[Person, Mapping[str, str], int, datetime], Details]
    allow: Callable[[Upload], None]
    take_in: Callable[[Upload, Kept, str, datetime], Details]
    incomplete: Callable[[Upload, int, datetime], None] | None = None
    may_wait: Callable[[Upload], bool] = lambda upload: False
    ready: Callable[[Upload, datetime], None] | None = None
    unreadable: Callable[[Upload, datetime], None] | None = None


_PURPOSES: dict[str, Purpose] = {}


def register(name: str, purpose: Purpose) -> None:
    """Name what becomes of uploads; once, as the application starts."""
    assert name not in _PURPOSES, name
    _PURPOSES[name] = purpose


def purpose(name: str) -> Purpose:
    """The purpose of that name."""
    found = _PURPOSES.get(name)
    if found is None:
        raise Invalid(f"Nothing here takes files for “{name[:30]}”.", where="purpose", fix="Load the page again.")
    return found


def number(pairs: Mapping[str, str], name: str) -> int:
    """A whole number of the metadata; 0 where it is not there."""
    text = pairs.get(name, "") or "0"
    if not text.isascii() or not text.isdigit() or len(text) > 18:
        raise Invalid(f"“{name}” is “{text[:30]}”.", where=name, fix="Send a whole number.")
    return int(text)
