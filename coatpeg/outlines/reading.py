"""A group's outline, read once and handed to the rules."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Any

from coatpeg.core.filling import Chip, PocketKind, Wanted
from coatpeg.core.texts import Length, Measure
from coatpeg.outlines.models import Pocket


@dataclass(frozen=True, slots=True)
class PocketOutline:
    """A pocket as everyone reads it."""

    id: int
    title: str
    section: str
    kind: PocketKind
    directions: str
    prompt: str
    starter: str
    counts: bool
    opens: date | None
    retired: bool
    wanted: Wanted

    def open_on(self, today: date) -> bool:
        """Whether students may work in it already."""
        return self.opens is None or self.opens <= today


def wanted_of(pocket: Pocket) -> Wanted:
    """What a pocket asks for, as the core takes it."""
    length = Length(Measure(pocket.measure), pocket.least, pocket.most) if pocket.measure else None
    return Wanted(PocketKind(pocket.kind), pocket.artefacts, pocket.reflection_on_each, length)


def outline(group_id: int) -> list[PocketOutline]:
    """All pockets of a group's template in their order: one query."""
    pockets = Pocket.objects.filter(section__template__group_id=group_id).select_related("section")
    return [
        PocketOutline(
            pocket.pk,
            pocket.title,
            pocket.section.title,
            PocketKind(pocket.kind),
            pocket.directions,
            pocket.prompt,
            pocket.starter,
            pocket.counts,
            pocket.opens,
            pocket.retired_at is not None,
            wanted_of(pocket),
        )
        for pocket in pockets
    ]


def wanted_as_data(wanted: Wanted) -> dict[str, Any]:
    """What is wanted as plain data, frozen with a submission."""
    length = wanted.length
    return {
        "kind": wanted.kind.value,
        "artefacts": wanted.artefacts,
        "reflection_on_each": wanted.reflection_on_each,
        "length": [length.measure.value, length.least, length.most] if length else None,
    }


def wanted_from_data(data: dict[str, Any]) -> Wanted:
    """The reverse of ``wanted_as_data``."""
    length = data["length"]
    asked = Length(Measure(length[0]), length[1], length[2]) if length else None
    return Wanted(PocketKind(data["kind"]), data["artefacts"], data["reflection_on_each"], asked)


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
