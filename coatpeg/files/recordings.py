"""Sound and video: told apart, found whole, and rid of place and device data before they are kept.

``main`` does it in a process of its own (``files.fence``).
"""

from __future__ import annotations

import os
from pathlib import Path
from typing import Any, BinaryIO

from coatpeg.core.errors import Invalid
from coatpeg.core.portfolios.containers import Found, blanked, matroska, mp4
from coatpeg.files import fenced
from coatpeg.files.media import SOUNDS, VIDEOS

_BOXED = frozenset({"audio/mp4", "video/mp4", "video/quicktime"})
_EBML = frozenset({"audio/webm", "video/webm"})
MEMORY = 512 * 1024 * 1024
SECONDS = 60
"""Bytes of address space and seconds of processor for looking through one recording."""
MOST_WRITTEN = 8 * 1024**3


def is_playable(media_type: str) -> bool:
    """Whether a browser may play it."""
    return media_type in SOUNDS or media_type in VIDEOS


def look(content: BinaryIO, size: int, media_type: str, name: str) -> tuple[Found, str]:
    """What a recording holds and its true media type; ``Invalid`` where it is broken or not all there.

    Sounds in other containers are judged by their beginning alone.
    """
    if media_type not in _BOXED | _EBML:
        return Found(), media_type
    try:
        found = mp4(content, size) if media_type in _BOXED else matroska(content, size)
    except ValueError as error:
        raise Invalid(
            f"“{name}” begins like a video, but what follows cannot be read: it is broken.",
            where="file",
            fix="Play it on your device to see; save or record it again and add that.",
        ) from error
    if found.missing:
        raise Invalid(
            f"“{name}” is not all there: at least {found.missing:,} bytes are missing at its end.",
            where="file",
            fix="Wait until your device has saved it whole, then add it once more.",
        )
    kind = media_type.split("/")[1]
    return found, media_type if found.video or kind == "quicktime" else f"audio/{kind}"


def blank(path: Path, found: Found, media_type: str) -> None:
    """Overwrite, in a file of ours, what tells of place and device; synced, its length unchanged."""
    with open(path, "r+b") as target:
        for start, end in found.blank:
            target.seek(start)
            for part in blanked(start, end, box=media_type in _BOXED):
                target.write(part)
        target.flush()
        os.fsync(target.fileno())


def main(deed: str, path: str, media_type: str, name: str) -> int:
    """Look through one recording within limits; with ``blank``, also overwrite in it what tells."""
    fenced.limit(MEMORY, SECONDS, MOST_WRITTEN)

    def done() -> dict[str, Any]:
        with open(path, "rb") as content:
            found, kind = look(content, os.path.getsize(path), media_type, name)
        if deed == "blank" and found.timed:
            raise Invalid(
                f"“{name}” carries a track of places and device data that cannot be taken out of it.",
                where="file",
                fix="Save it anew on your device (cut a moment off its end), and add that.",
            )
        if deed == "blank" and found.blank:
            blank(Path(path), found, kind)
        return {"media_type": kind}

    return fenced.tell(done)
