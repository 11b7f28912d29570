"""A group's outline, read once and handed to the rules."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any

from django.db.models import QuerySet

from coatpeg.core.outlines.filling import Chip, Company, PocketKind, Shared, Wanted
from coatpeg.core.portfolios.texts import Length, Measure
from coatpeg.events.prepared import Prepared
from coatpeg.outlines.models import Pocket


@dataclass(frozen=True, slots=True)
class PocketOutline:
    """A pocket as everyone reads it."""

    id: int
    title: str
    section: str
    section_id: int
    kind: PocketKind
    directions: str
    prompt: str
    starter: str
    counts: bool
    opens: date | None
    retired: bool
    wanted: Wanted
    shared: str = ""
    """Who fills it together; empty: each student their own."""
    group_set: str = ""
    """The set of groups that fill it."""
    own_part: bool = False
    """What is asked is asked of each one's own part."""

    @property
    def company(self) -> Company | None:
        """Who fills it together; None: each student their own."""
        return Company(Shared(self.shared), self.group_set) if self.shared else None

    def open_on(self, today: date) -> bool:
        """Whether students may work in it already."""
        return self.opens is None or self.opens <= today


WANTED = ("kind", "artefacts", "reflection_on_each", "measure", "least", "most", "rows", "rows_per_week", "spoken")
"""The columns that say what a pocket asks for."""


def wanted_of(pocket: Pocket) -> Wanted:
    """What a pocket asks for, as the core takes it."""
    return _wanted({name: getattr(pocket, name) for name in WANTED})


def _wanted(data: Mapping[str, Any]) -> Wanted:
    return Wanted(
        PocketKind(data["kind"]),
        data["artefacts"],
        data["reflection_on_each"],
        Length(Measure(data["measure"]), data["least"], data["most"]) if data["measure"] else None,
        spoken=data["spoken"],
        rows=data["rows"],
        rows_per_week=data["rows_per_week"],
    )


_POCKETS = Pocket.objects.values_list(
    "pk",
    "title",
    "section__title",
    "section_id",
    "directions",
    "prompt",
    "starter",
    "counts",
    "opens",
    "retired_at",
    "shared",
    "group_set",
    "own_part",
    *WANTED,
)
"""Laid out once, since that takes longer than fetching the rows."""
_OF_GROUP = Prepared(lambda pk: _POCKETS.filter(section__template__group_id=pk, section__repeats=False))


def outline(group_id: int) -> list[PocketOutline]:
    """All pockets of a group's template in their order: one query."""
    return [_outlined(*row) for row in _OF_GROUP.run(group_id)]


def pockets_of(group_id: int) -> QuerySet[Pocket]:
    """The pockets of a group's portfolios: not those of a pattern, which are laid out per unit."""
    return Pocket.objects.filter(section__template__group_id=group_id, section__repeats=False)


def _outlined(*row: Any) -> PocketOutline:
    """A pocket from its row, the columns in the order of ``_POCKETS``."""
    pk, title, section, section_id, directions, prompt, starter, counts, opens, retired_at, *rest = row
    shared, group_set, own_part, *asked = rest
    wanted = _wanted(dict(zip(WANTED, asked, strict=True)))
    return PocketOutline(
        pk,
        title,
        section,
        section_id,
        wanted.kind,
        directions,
        prompt,
        starter,
        counts,
        opens,
        retired_at is not None,
        wanted,
        shared,
        group_set,
        own_part,
    )


def wanted_as_data(wanted: Wanted) -> dict[str, Any]:
    """What is wanted as plain data, frozen with a submission."""
    length = wanted.length
    return {
        "kind": wanted.kind.value,
        "artefacts": wanted.artefacts,
        "reflection_on_each": wanted.reflection_on_each,
        "length": [length.measure.value, length.least, length.most] if length else None,
        **({"excused": True} if wanted.excused else {}),
        **({"spoken": True} if wanted.spoken else {}),
        **({"rows": wanted.rows} if wanted.rows else {}),
        **({"rows_per_week": wanted.rows_per_week, "weeks": wanted.weeks} if wanted.rows_per_week else {}),
    }


def wanted_from_data(data: dict[str, Any]) -> Wanted:
    """The reverse of ``wanted_as_data``."""
    length = data["length"]
    asked = Length(Measure(length[0]), length[1], length[2]) if length else None
    return Wanted(
        PocketKind(data["kind"]),
        data["artefacts"],
        data["reflection_on_each"],
        asked,
        data.get("excused", False),
        data.get("spoken", False),
        data.get("rows", 0),
        data.get("rows_per_week", 0),
        tuple(data.get("weeks", ())),
    )


def chip_data(found: Iterable[Chip]) -> list[dict[str, Any]]:
    """Chips as plain data: what is wanted, how much of it is met, within which length."""
    return [
        {
            "what": chip.what,
            "done": chip.done,
            "wanted": chip.wanted,
            "met": chip.met,
            "on": chip.on,
            "measure": chip.length.measure.value if chip.length else "",
            "least": chip.length.least if chip.length else 0,
            "most": chip.length.most if chip.length else None,
            "count": chip.counts.by(chip.length.measure) if chip.length else chip.counts.words,
        }
        for chip in found
    ]
