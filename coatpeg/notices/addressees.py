"""Who people are, for notices: registered by the room that keeps them."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from zoneinfo import ZoneInfo


@dataclass(frozen=True, slots=True)
class Addressee:
    """A person as a mail needs them; ``email`` is empty where there is none."""

    given_name: str
    email: str
    staff: bool


@dataclass(frozen=True, slots=True)
class Directory:
    """Looking people up by id (those who may sign in), and the school's time zone."""

    people: Callable[[Iterable[int]], Mapping[int, Addressee]]
    zone: Callable[[], ZoneInfo]


_DIRECTORY: list[Directory] = []


def register(directory: Directory) -> None:
    """Say who knows the people; once, as the application starts."""
    assert not _DIRECTORY
    _DIRECTORY.append(directory)


def directory() -> Directory:
    """Who knows the people."""
    return _DIRECTORY[0]
