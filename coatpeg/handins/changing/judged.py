"""What a changed rubric does to what was judged by it: marking says so, this room only asks."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from coatpeg.core.marking.rubrics import Rubric
from coatpeg.handins.models import HandIn


@dataclass(frozen=True, slots=True)
class Judged:
    """Students by name: whose drafts come out otherwise, whose drafts have criteria open then, whose released marks
    would come out otherwise if they were judged anew (they stay as they are).
    """

    moves: list[str] = field(default_factory=list)
    open: list[str] = field(default_factory=list)
    released: list[str] = field(default_factory=list)


Asked = Callable[[HandIn, Rubric | None], Judged]
_asked: list[Asked] = []


def register(asked: Asked) -> None:
    """Say who answers; once, as the application starts."""
    _asked[:] = [asked]


def by_change(handin: HandIn, rubric: Rubric | None) -> Judged:
    """What another rubric would do to what was judged by the one that the hand-in has; nothing where it has none."""
    return _asked[0](handin, rubric) if _asked and handin.rubric else Judged()
