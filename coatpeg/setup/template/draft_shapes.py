"""Shapes of a draft: the changes of a template that somebody collects, what they would mean, what saving them did."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from coatpeg.handins.shapes import ChipShape
from coatpeg.people.shapes import KindWord, Shape
from coatpeg.setup.template.shapes import DealtVersion, PocketIn, TemplateShape, UnitsIn

MOST_EDITS = 400
MadeId = Annotated[int, Field(lt=0)]
"""Under which the draft names what it adds: below zero, chosen by whoever drafts."""


class AddSection(Shape):
    """A new section at the end; ``repeats`` makes it a pattern for units."""

    do: Literal["add_section"] = "add_section"
    id: MadeId
    title: str
    repeats: bool = False


class RenameSection(Shape):
    """Another title for a section."""

    do: Literal["rename_section"] = "rename_section"
    section: int
    title: str


class MoveSection(Shape):
    """A section before another one; None is the end."""

    do: Literal["move_section"] = "move_section"
    section: int
    before: int | None = None


class RemoveSection(Shape):
    """An empty section taken away."""

    do: Literal["remove_section"] = "remove_section"
    section: int


class AddPocket(Shape):
    """A new pocket at the end of a section, from a typed line: its name, and what it asks for in plain words.

    ``kind`` is that of a pocket of which the line says none.
    """

    do: Literal["add_pocket"] = "add_pocket"
    id: MadeId
    section: int
    text: str = Field(max_length=2_000)
    kind: KindWord = "evidence"


class ChangePocket(Shape):
    """Other settings for a pocket, over the version that was seen."""

    do: Literal["change_pocket"] = "change_pocket"
    pocket: int
    settings: PocketIn


class MovePocket(Shape):
    """A pocket before another one of a section; None is its end."""

    do: Literal["move_pocket"] = "move_pocket"
    pocket: int
    section: int
    before: int | None = None


class RetirePocket(Shape):
    """A pocket retired, or brought back."""

    do: Literal["retire_pocket"] = "retire_pocket"
    pocket: int
    retired: bool


class RemovePocket(Shape):
    """A pocket that nobody used taken away."""

    do: Literal["remove_pocket"] = "remove_pocket"
    pocket: int


class SetUnits(Shape):
    """All units of a section that repeats, over the version that was seen."""

    do: Literal["set_units"] = "set_units"
    section: int
    units: UnitsIn


class GiveFile(Shape):
    """A file that waits given with a pocket that the draft adds: beside its directions, or as a starter, as it came."""

    do: Literal["give_file"] = "give_file"
    pocket: MadeId
    file: int


class BringBack(Shape):
    """A section or pocket that was taken away, back as itself."""

    do: Literal["bring_back"] = "bring_back"
    taken_away: int


Edit = Annotated[
    AddSection
    | RenameSection
    | MoveSection
    | RemoveSection
    | AddPocket
    | ChangePocket
    | MovePocket
    | RetirePocket
    | RemovePocket
    | SetUnits
    | GiveFile
    | BringBack,
    Field(discriminator="do"),
]


class DraftIn(Shape):
    """Changes, in their order."""

    edits: list[Edit] = Field(max_length=MOST_EDITS)


class SaveIn(DraftIn):
    """The same, to be made for everybody; ``undoes``: they take back what was saved, and are nobody's draft."""

    undoes: bool = False
    key: str = Field(default="", max_length=40)
    """Of this saving: sent again, because no answer came, it is done once."""


class LookIn(DraftIn):
    """The same, to be looked at; ``pocket`` is the one that is open.

    Where a device is named, they are kept as this person's draft.
    """

    pocket: int | None = None
    device: str = Field(default="", max_length=40)


class OthersDraft(Shape):
    """That somebody else has changes of the template that are not saved."""

    name: str
    changes: int
    at: datetime


class KeptDraft(Shape):
    """One's own changes that are not saved, the device they come from, and who else has some."""

    edits: list[Edit]
    device: str
    others: list[OthersDraft]


class Hindrance(Shape):
    """Why a change (by its place) cannot be made; ``version`` is the one that stands now, where it was overtaken."""

    edit: int
    what: str
    where: str
    fix: str
    version: int | None = None


class DraftMeaning(Shape):
    """What all changes together mean: pockets by title, and what it is for the students (see ``ImpactShape``)."""

    students: int
    added: list[str]
    changed: list[str]
    retired: list[str]
    back: list[str]
    removed: list[str]
    reached: int
    units: int
    opened: int
    filled: int
    to_open: list[str]
    to_filled: list[str]


class OpenPocket(Shape):
    """The pocket that is open: what it asks of somebody who has put nothing in yet, and who has which version.

    ``nowhere``: students in no period or group that a version names.
    """

    id: int
    chips: list[ChipShape]
    versions: list[DealtVersion]
    nowhere: list[str]


class DraftShape(Shape):
    """The template as it would stand. A change that cannot be made is left out of it and named.

    What the changes add bears the ids that the draft gave; what follows from them (pockets of units) others below zero.
    """

    template: TemplateShape
    hindrances: list[Hindrance]
    means: DraftMeaning | None
    pocket: OpenPocket | None


class MadeIds(Shape):
    """What was added: under its id in the draft, the one that it has."""

    sections: dict[int, int]
    pockets: dict[int, int]


class SavedDraft(Shape):
    """What saving did: ``undo`` are the changes that take it back."""

    students: int
    made: MadeIds
    undo: list[Edit]
