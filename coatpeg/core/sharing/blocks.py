"""What an update of a shared page holds, read block by block.

An update is what Yjs calls a document update, version 1: blocks by writer id, each block taking as many *clock ticks*
of its writer as it is long, then the ranges of ticks that are taken away. Source: the encoding that yjs 13.6
(``src/utils/updates.js``, ``src/structs/Item.js``) and y-crdt write, as read there; the tests compare with both.
A string is as long as its UTF-16 code units.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, NamedTuple

import orjson

from coatpeg.core.errors import Invalid

ROOT = "page"
"""The name of the one root under which a page's text stands."""
MOST_BLOCKS = 50_000
"""In one update: more than a page of 100,000 words brings."""
DEEPEST = 6
"""How deep values may lie in each other."""


class Id(NamedTuple):
    """A tick of a writer."""

    client: int
    clock: int


@dataclass(slots=True)
class Block:
    """One block. ``kind`` is one of the words in ``KINDS``; ``value`` is a string's text, a format's (key, value),
    an element's name, or a list of values.

    ``parent`` is the root's name or the id of the block that holds it; None where it stands beside ``origin``.
    """

    id: Id
    length: int
    kind: str
    value: Any = None
    origin: Id | None = None
    right: Id | None = None
    parent: str | Id | None = None
    under: str | None = None
    """The attribute that it sets; None for what stands in the row of its siblings."""

    @property
    def end(self) -> int:
        """The first tick after it."""
        return self.id.clock + self.length


class Gone(NamedTuple):
    """A range of a writer's ticks that is taken away."""

    client: int
    start: int
    end: int


@dataclass(slots=True)
class Update:
    """Blocks by writer, in the order of their ticks, and what is taken away."""

    blocks: dict[int, list[Block]] = field(default_factory=dict)
    gone: list[Gone] = field(default_factory=list)


KINDS = ("collected", "deleted", "json", "binary", "string", "embed", "format", "type", "any", "document")
_TYPE_ELEMENT, _TYPE_HOOK, _TYPE_TEXT = 3, 5, 6
_SKIP = 10
_ORIGIN, _RIGHT, _UNDER, _KIND = 0x80, 0x40, 0x20, 0x1F


class _Reader:
    """Reads the numbers, words and values of an update."""

    def __init__(self, data: bytes) -> None:
        self.data, self.at = data, 0

    def byte(self) -> int:
        if self.at >= len(self.data):
            raise broken()
        self.at += 1
        return self.data[self.at - 1]

    def number(self) -> int:
        value = shift = 0
        while True:
            one = self.byte()
            value |= (one & 0x7F) << shift
            shift += 7
            if one < 0x80:
                return value
            if shift > 56:
                raise broken()

    def signed(self) -> int:
        first = self.byte()
        value, shift, one = first & 0x3F, 6, first
        while one & 0x80:
            one = self.byte()
            value |= (one & 0x7F) << shift
            shift += 7
            if shift > 62:
                raise broken()
        return -value if first & 0x40 else value

    def raw(self, length: int) -> bytes:
        if self.at + length > len(self.data):
            raise broken()
        self.at += length
        return self.data[self.at - length : self.at]

    def words(self) -> str:
        try:
            return self.raw(self.number()).decode()
        except UnicodeDecodeError as error:
            raise broken() from error

    def json(self) -> Any:
        words = self.words()
        if words == "undefined":
            return None
        try:
            return orjson.loads(words)
        except orjson.JSONDecodeError as error:
            raise broken() from error

    def id(self) -> Id:
        return Id(self.number(), self.number())

    def value(self, depth: int = 0) -> Any:
        """A value in the encoding of lib0; numbers with a point are not used here and refused."""
        kind = self.byte()
        if depth > DEEPEST:
            raise broken()
        if kind in _PLAIN:
            return _PLAIN[kind]
        if kind == 125:
            return self.signed()
        if kind == 119:
            return self.words()
        if kind == 118:
            return {self.words(): self.value(depth + 1) for _ in range(self.number())}
        if kind == 117:
            return [self.value(depth + 1) for _ in range(self.number())]
        if kind == 123:
            return self.raw(8)
        raise broken()


_PLAIN = {127: None, 126: None, 121: False, 120: True}


def broken() -> Invalid:
    """An update that cannot be read."""
    return Invalid(
        "This change of the page cannot be read.",
        where="update",
        fix="Load the page again. What you wrote on this device is kept.",
    )


def _type(reader: _Reader) -> tuple[int, Any]:
    kind = reader.number()
    if kind in (_TYPE_ELEMENT, _TYPE_HOOK):
        return 1, reader.words()
    return 1, "" if kind == _TYPE_TEXT else None


def _string(reader: _Reader) -> tuple[int, Any]:
    words = reader.words()
    return utf16(words), words


def _several(read: Callable[[_Reader], Any]) -> Callable[[_Reader], tuple[int, Any]]:
    def read_all(reader: _Reader) -> tuple[int, Any]:
        found = [read(reader) for _ in range(reader.number())]
        return len(found), found

    return read_all


_CONTENTS: dict[int, Callable[[_Reader], tuple[int, Any]]] = {
    1: lambda reader: (reader.number(), None),
    2: _several(_Reader.words),
    3: lambda reader: (1, reader.raw(reader.number())),
    4: _string,
    5: lambda reader: (1, reader.json()),
    6: lambda reader: (1, (reader.words(), reader.json())),
    7: _type,
    8: _several(_Reader.value),
}


def utf16(words: str) -> int:
    """How many UTF-16 code units words have."""
    return len(words) if words.isascii() else len(words.encode("utf-16-le", "surrogatepass")) // 2


def cut(words: str, at: int) -> tuple[str, str]:
    """Words cut at a UTF-16 code unit; half a letter becomes a replacement character, as in every browser."""
    if utf16(words) == len(words):
        return words[:at], words[at:]
    raw = words.encode("utf-16-le", "surrogatepass")
    return raw[: 2 * at].decode("utf-16-le", "replace"), raw[2 * at :].decode("utf-16-le", "replace")


def read(data: bytes) -> Update:
    """The blocks of an update; ``Invalid`` where it is broken off, goes on after its end, or holds what none does."""
    reader = _Reader(data)
    found = Update()
    total = 0
    for _ in range(reader.number()):
        count, client, clock = reader.number(), reader.number(), reader.number()
        total += count
        if total > MOST_BLOCKS or client in found.blocks:
            raise broken()
        blocks = found.blocks[client] = []
        for _ in range(count):
            blocks.append(_block(reader, Id(client, clock)))
            clock = blocks[-1].end
    for _ in range(reader.number()):
        client = reader.number()
        for _ in range(reader.number()):
            start, length = reader.number(), reader.number()
            found.gone.append(Gone(client, start, start + length))
    if reader.at != len(data):
        raise broken()
    return found


def _block(reader: _Reader, at: Id) -> Block:
    info = reader.byte()
    kind = info & _KIND
    if kind == 0:
        return Block(at, _some(reader.number()), "collected")
    if kind == _SKIP or kind not in _CONTENTS:
        raise broken()
    origin = reader.id() if info & _ORIGIN else None
    right = reader.id() if info & _RIGHT else None
    parent: str | Id | None = None
    under = None
    if not info & (_ORIGIN | _RIGHT):
        parent = reader.words() if reader.number() == 1 else reader.id()
        under = reader.words() if info & _UNDER else None
    length, value = _CONTENTS[kind](reader)
    return Block(at, _some(length), KINDS[kind], value, origin, right, parent, under)


def _some(length: int) -> int:
    if length < 1:
        raise broken()
    return length
