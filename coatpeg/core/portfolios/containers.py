"""Looking into sound and video containers: what they hold, whether they are whole, and where place and device stand.

Sources: ISO/IEC 14496-12 (the box structure of MP4, M4A and QuickTime: size, type, payload; a size of 1 means that 64
bits follow, of 0 that the box goes to the end), RFC 8794 (EBML) and RFC 9559 (Matroska and WebM: Segment, Info,
Tracks, Tags and their ids; Void 0xEC says "ignore this"). Decided here: what tells of place or device (``udta``,
``meta``, the maker's own ``uuid``, Matroska's Tags and its title, writing and muxing application) is overwritten where
it stands, as ``free`` boxes and Void elements of the same length, so that nothing moves and nothing has to be coded
anew; a fragment that ends before its box does is "not all there".
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import BinaryIO

_PARENTS = frozenset({b"moov", b"trak", b"mdia", b"minf", b"moof", b"traf", b"mvex"})
_TELLTALE = frozenset({b"udta", b"meta", b"uuid"})
_SEGMENT, _INFO, _TRACKS, _TRACK_ENTRY, _TRACK_TYPE, _TAGS = 0x18538067, 0x1549A966, 0x1654AE6B, 0xAE, 0x83, 0x1254C367
_DATE, _TITLE = 0x4461, 0x7BA9
_EBML_PARENTS = frozenset({_SEGMENT, _INFO, _TRACKS, _TRACK_ENTRY})
_EBML_TELLTALE = frozenset({_TAGS, _DATE, _TITLE})
_VIDEO_TRACK = 1
DEEPEST = 8
"""Boxes within boxes; what is looked for lies at most five deep."""
MOST_BOXES = 500_000
"""Boxes or elements looked at: five hours of film in fragments of a second have a third of it."""


@dataclass(slots=True)
class Found:
    """What a container holds. ``missing`` bytes are promised and not there; ``timed`` data go along with the picture.

    ``blank`` are ranges (from, to) to overwrite.
    """

    video: bool = False
    timed: bool = False
    missing: int = 0
    blank: list[tuple[int, int]] = field(default_factory=list)
    boxes: int = 0

    def count(self) -> None:
        """One more box or element; ``ValueError`` where there are more than any recording has."""
        self.boxes += 1
        if self.boxes > MOST_BOXES:
            raise ValueError("more boxes than a recording has")


def mp4(content: BinaryIO, size: int) -> Found:
    """Look through the boxes of an MP4, M4A or QuickTime file of ``size`` bytes; ``ValueError`` where it is none."""
    found = Found()
    seen = {kind for kind, _, _ in _boxes(content, 0, size, found, 0)}
    if b"moov" not in seen:
        if not found.missing and b"moof" not in seen:
            raise ValueError("no movie box")
        found.missing = found.missing or 1
    return found


def _boxes(content: BinaryIO, start: int, end: int, found: Found, depth: int) -> Iterator[tuple[bytes, int, int]]:
    at = start
    while at + 8 <= end:
        found.count()
        length, kind, header = _box(content, at, end)
        if at + length > end:
            if depth:
                raise ValueError("a box reaches out of its parent")
            found.missing = at + length - end
        inner = min(at + length, end)
        if kind in _TELLTALE:
            found.blank.append((at, inner))
        elif kind == b"hdlr":
            content.seek(at + header + 8)
            handler = content.read(4)
            found.video = found.video or handler == b"vide"
            # In a movie this names a track's kind; that of a ``meta`` box is not looked into.
            found.timed = found.timed or handler == b"meta"
        elif kind in _PARENTS and depth < DEEPEST:
            for _ in _boxes(content, at + header, inner, found, depth + 1):
                pass
        yield kind, at, inner
        at += length


def _box(content: BinaryIO, at: int, end: int) -> tuple[int, bytes, int]:
    """A box's length, kind, and the length of its head."""
    content.seek(at)
    head = content.read(16)
    length, kind, header = int.from_bytes(head[:4], "big"), head[4:8], 8
    if length == 1:
        length, header = int.from_bytes(head[8:16], "big"), 16
    elif length == 0:
        length = end - at
    if length < header:
        raise ValueError(f"a box of {length} bytes")
    return length, kind, header


def matroska(content: BinaryIO, size: int) -> Found:
    """Look through the elements of a WebM or Matroska file of ``size`` bytes; ``ValueError`` where it is none."""
    found = Found()
    _elements(content, 0, size, found, 0)
    return found


def _elements(content: BinaryIO, start: int, end: int, found: Found, depth: int) -> None:
    at = start
    while at < end:
        found.count()
        content.seek(at)
        head = content.read(12)
        name, width = _number(head, keep_marker=True, most=4)
        length, more = _number(head[width:], keep_marker=False, most=8)
        inner = at + width + more
        unknown = length == (1 << (7 * more)) - 1
        after = end if unknown else inner + length
        if after > end:
            found.missing = max(found.missing, after - end)
            after = end
        if name in _EBML_TELLTALE:
            found.blank.append((at, after))
        elif name == _TRACK_TYPE and content.seek(inner) and content.read(1) == bytes([_VIDEO_TRACK]):
            found.video = True
        if name in _EBML_PARENTS and depth < DEEPEST:
            _elements(content, inner, after, found, depth + 1)
        at = after


def _number(data: bytes, *, keep_marker: bool, most: int) -> tuple[int, int]:
    """A variable-length number and how many bytes it took."""
    if not data or not data[0]:
        raise ValueError("not a number of EBML")
    width = 9 - data[0].bit_length()
    if width > most or len(data) < width:
        raise ValueError("a number of EBML that is too long")
    value = int.from_bytes(data[:width], "big")
    return (value if keep_marker else value & ((1 << (7 * width)) - 1)), width


def blanked(start: int, end: int, *, box: bool) -> Iterator[bytes]:
    """What to write over a range, in parts: a ``free`` box, or a Void element, of the same length and full of zeros."""
    length = end - start
    if box:
        head = length.to_bytes(4, "big") + b"free" if length < 1 << 32 else b"\0\0\0\1free" + length.to_bytes(8, "big")
    elif length < 9:
        head = b"\xec" + (0x80 | (length - 2)).to_bytes(1, "big")
    else:
        head = b"\xec\x01" + (length - 9).to_bytes(7, "big")
    yield head
    rest = length - len(head)
    while rest > 0:
        part = min(rest, 65_536)
        yield bytes(part)
        rest -= part
