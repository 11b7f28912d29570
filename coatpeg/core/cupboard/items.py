"""What lies in a cupboard: who is shown it, and how a copy of it lies in a pocket.

Decided here: what is for staff only, or opens on a later day, is not there for students, whoever asks; what is for some
periods or working groups is for the students who are in one of them today. A page goes into a page that is still empty
as its words, else beside it or into the pocket as a text of its own; a pocket that takes some kinds only takes copies
of these only; a log takes rows, so nothing from the cupboard.
"""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.portfolios.kinds import ArtefactKind

LONGEST_TITLE = 120
LONGEST_HEADING = 80
MOST_ITEMS = 1_000
"""In one cupboard: a school year's sheets of a whole department; its list is still read at one go."""


class ItemKind(StrEnum):
    """What an item is."""

    PAGE = "page"
    FILE = "file"
    LINK = "link"
    LOG = "log"
    """The columns of a log."""
    POCKET = "pocket"
    """A pocket with its directions and what it begins with."""


LAYOUTS = (ItemKind.LOG, ItemKind.POCKET)
"""What staff lay into a template."""
IN_WORDS = (ItemKind.PAGE, *LAYOUTS)
"""What a copy of is a text."""


@dataclass(frozen=True, slots=True)
class Shown:
    """To whom an item is shown: nobody but staff, from a day on, some periods and working groups (ids; none: all)."""

    staff_only: bool = False
    opens: date | None = None
    periods: frozenset[int] = frozenset()
    groups: frozenset[int] = frozenset()

    def to_student(self, today: date, period: int | None, groups: Collection[int] = ()) -> bool:
        """Whether a student who is in that period and these groups today is shown it."""
        if self.staff_only or (self.opens is not None and self.opens > today):
            return False
        return not (self.periods or self.groups) or period in self.periods or bool(self.groups & set(groups))


@dataclass(frozen=True, slots=True)
class Target:
    """A pocket as a place for a copy: ``takes`` are the kinds of artefact it takes (none: any)."""

    title: str
    kind: PocketKind
    takes: Sequence[str] = ()
    together: bool = False
    """Several students fill it together."""


def artefact_kind(kind: ItemKind, of_file: str) -> ArtefactKind:
    """The kind of artefact that a copy of an item is, where it is one."""
    if kind in IN_WORDS:
        return ArtefactKind.TEXT
    return ArtefactKind.LINK if kind is ItemKind.LINK else ArtefactKind(of_file)


_ALSO = {ArtefactKind.SCAN: "picture", ArtefactKind.SOUND: "recording", ArtefactKind.VIDEO: "recording"}


def why_not(kind: ArtefactKind, target: Target) -> str:
    """Why a pocket takes no copy of that kind; empty where it does."""
    if target.together:
        return f"“{target.title}” is filled together: it takes no copies."
    if target.kind is PocketKind.LOG:
        return f"“{target.title}” is a log: it takes rows."
    if target.kind is PocketKind.LINKS and kind is not ArtefactKind.LINK:
        return f"“{target.title}” takes links only."
    as_words = target.kind is PocketKind.PAGE and kind is ArtefactKind.TEXT
    if target.takes and not as_words and not {kind.value, _ALSO.get(kind)} & set(target.takes):
        return f"“{target.title}” takes {' and '.join(f'{one}s' for one in target.takes)} only."
    return ""


def refuse_misfit(kind: ArtefactKind, target: Target, others: Sequence[Target]) -> None:
    """``Invalid`` where a pocket takes no such copy; the fix names the first of the others that does."""
    reason = why_not(kind, target)
    if reason:
        fitting = next((one.title for one in others if not why_not(kind, one)), None)
        fix = f"“{fitting}” takes it." if fitting else "Make a pocket that takes it."
        raise Invalid(reason, where="pocket", fix=fix)
