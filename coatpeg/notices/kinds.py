"""Kinds of notice: who is told, and what it is called and leads to. Registered by the room that tells it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass

from coatpeg.notices.models import Notice


@dataclass(frozen=True, slots=True)
class Line:
    """A notice as one person reads it: what it is about by title, and the path it leads to."""

    title: str
    path: str
    text: str = ""
    """Somebody's own words, where it has any."""


@dataclass(frozen=True, slots=True)
class Kind:
    """``audience`` gives the ids of the people who are told; ``describe`` reads several notices for one person.

    What ``describe`` leaves out is not told any more: it was taken back, or is nothing to this person. ``said`` is how
    a mail says it, behind the title; of several alike about the same thing, ``several`` with their number.
    """

    audience: Callable[[Notice], Iterable[int]]
    describe: Callable[[Sequence[Notice], int], Mapping[int, Line]]
    said: str
    several: str = ""
    to_doer: bool = False
    """Whether it is told to whoever did it, too."""


_KINDS: dict[str, Kind] = {}


def register(what: str, kind: Kind) -> None:
    """Name a kind; once, as the application starts."""
    assert what not in _KINDS, what
    _KINDS[what] = kind


def kinds() -> frozenset[str]:
    """The names of all kinds of notices."""
    return frozenset(_KINDS)


def kind_of(what: str) -> Kind | None:
    """The kind of that name; None where this version has none."""
    return _KINDS.get(what)
