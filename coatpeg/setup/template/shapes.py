"""Shapes of a class's template: its sections, pockets, units and versions, and what a change of them means."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.outlines.repeat import Question, Unit
from coatpeg.core.outlines.settings import plan_from_data
from coatpeg.handins.shapes import ChipShape
from coatpeg.people.shapes import Day, KindWord, Shape
from coatpeg.portfolios.shapes import GivenFileShape, LogSettings

TakesWord = Literal["picture", "recording", "file", "link", "text"]


class VersionIO(Shape):
    """One version of a pocket: a range of surnames, or the ids of the periods or groups that have it."""

    key: str
    name: str = ""
    directions: str = ""
    starter: str = ""
    first: str = ""
    last: str = ""
    places: list[int] = Field(default_factory=list, max_length=200)


class VariantsIO(Shape):
    """The versions of a pocket and how they are dealt; a seed tells dealing at random again."""

    by: Literal["surname", "period", "group", "random", "hand"]
    seed: int = Field(default=0, ge=0, le=2**31)
    versions: list[VersionIO] = Field(max_length=40)


class PocketSettings(Shape):
    """What a pocket asks for. ``takes``: kinds of artefact, none for any; a length where ``measure`` is given.

    ``shared``: who fills it together (``group``: each group of ``group_set``, by its name); ``own_part``: what is asked
    is asked of each student's own words.
    """

    title: str
    kind: KindWord
    directions: str = ""
    prompt: str = ""
    artefacts: int = 0
    reflection_on_each: bool = False
    measure: Literal["", "words", "sentences"] = ""
    least: int = 1
    most: int | None = None
    takes: list[TakesWord] = Field(default_factory=list)
    spoken: bool = False
    shared: Literal["", "group", "period", "class"] = ""
    group_set: str = Field(default="", max_length=40)
    own_part: bool = False
    starter: str = ""
    counts: bool = True
    opens: Day | None = None
    rows: int = 0
    rows_per_week: int = 0
    log: LogSettings = Field(default_factory=LogSettings)
    each_question: bool = False
    variants: VariantsIO | None = None

    def plan(self) -> PocketPlan:
        """The same as the core takes it."""
        return plan_from_data(self.model_dump())


class PocketIn(PocketSettings):
    """Changed settings and the version they were seen in (0: a new pocket); ``hand`` deals versions by hand."""

    version: int = 0
    hand: dict[int, str] | None = Field(default=None, max_length=5_000)


class LaidPocket(PocketSettings):
    """A pocket of the template; ``with_work`` students have put something in; ``handins`` collect it.

    ``laid``: it was laid out from a pattern and changes with it.
    """

    id: int
    retired: bool
    version: int
    laid: bool
    files: list[GivenFileShape]
    with_work: int
    handins: list[str]


class QuestionIO(Shape):
    """A question of a unit under its key (made where the question is made; it stays)."""

    key: str
    text: str


class UnitIO(Shape):
    """A unit with its questions; ``opens`` is the day from which its pockets are open."""

    key: str
    title: str
    opens: Day | None = None
    questions: list[QuestionIO] = Field(default_factory=list, max_length=60)


class UnitsIn(Shape):
    """All units of a section that repeats, and the version of the section they were seen in."""

    units: list[UnitIO] = Field(max_length=100)
    version: int = 0

    def taken(self) -> list[Unit]:
        """The same as the core takes them."""
        return [
            Unit(one.key, one.title, tuple(Question(of.key, of.text) for of in one.questions), one.opens)
            for one in self.units
        ]


class LaidSection(Shape):
    """A section with its pockets; one that repeats with its units; a unit's with its pattern (``of``)."""

    id: int
    title: str
    repeats: bool
    of: int | None
    version: int
    units: list[UnitIO]
    pockets: list[LaidPocket]


class PlaceName(Shape):
    """A period or group of the class."""

    id: int
    name: str


class TemplateShape(Shape):
    """The template of a class, and the periods and groups that versions can be dealt by.

    ``sets`` are the names of the sets of groups that can fill a pocket.
    """

    periods: list[PlaceName]
    groups: list[PlaceName]
    sets: list[str]
    title: str
    may_change: bool
    sections: list[LaidSection]


class DealtStudent(Shape):
    """A student by enrolment."""

    id: int
    name: str


class DealtVersion(Shape):
    """Who has a version."""

    key: str
    students: list[DealtStudent]


class ImpactShape(Shape):
    """What a change means: ``units`` more (or fewer) wanted of ``reached`` students; who goes to or from filled.

    ``chips`` are those of a student who has put nothing in yet; ``versions`` tells who has which, ``nowhere`` who is in
    no period or group that a version names.
    """

    students: int
    reached: int
    units: int
    opened: int
    filled: int
    to_open: list[str]
    to_filled: list[str]
    chips: list[ChipShape]
    versions: list[DealtVersion]
    nowhere: list[str]


class ChangedPocket(Shape):
    """A pocket after its change, and what that meant."""

    id: int
    version: int
    impact: ImpactShape


class TitleIn(Shape):
    """A section's title."""

    title: str


class SectionIn(TitleIn):
    """A new section; ``repeats`` makes it a pattern for units."""

    repeats: bool = False


class VersionShape(Shape):
    """The version after a change."""

    version: int


class UnitsImpact(Shape):
    """What a list of units means: the titles of pockets, and what it is for the students (see ``ImpactShape``)."""

    students: int
    added: list[str]
    changed: list[str]
    retired: list[str]
    removed: list[str]
    reached: int
    units: int
    to_open: list[str]
    to_filled: list[str]


class BeforeIn(Shape):
    """The section to stand before; None is the end."""

    before: int | None = None


class MoveIn(BeforeIn):
    """The section to go to, and the pocket to stand before; None is the end."""

    section: int


class RetiredIn(Shape):
    """Whether the pocket is retired."""

    retired: bool


class TakenAwayShape(Shape):
    """Under which id it can be brought back."""

    taken_away: int


class IntoCupboardIn(Shape):
    """Which pocket goes into the cupboard: whole, or of a log only its columns."""

    pocket: int
    columns: bool = False


class FetchedPocket(Shape):
    """A pocket out of the cupboard for a template's draft, and the files that wait for it."""

    settings: PocketSettings
    files: list[GivenFileShape]


class MadeShape(Shape):
    """The id of what was made."""

    id: int
