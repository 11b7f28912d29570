"""The template of a class: seeing it, previewing and making changes."""

from __future__ import annotations

from datetime import date
from typing import Any, Literal

from django.http import HttpRequest
from ninja import File, Form, Router, Status
from ninja.files import UploadedFile
from pydantic import Field

from coatpeg.core.filling import PocketKind, chips
from coatpeg.core.log_columns import log_from_data
from coatpeg.core.outline_plan import PocketPlan, length_of
from coatpeg.core.policy import Action
from coatpeg.core.repeat import Question, Unit
from coatpeg.core.variants import variants_from_data
from coatpeg.handins import repeats, templates
from coatpeg.handins.schemas import ChipShape
from coatpeg.outlines.reading import chip_data
from coatpeg.people.requests import now, person_of
from coatpeg.people.schemas import KindWord, Shape
from coatpeg.portfolios.pocket_files import file_data
from coatpeg.portfolios.schemas import LogSettings, PocketFileShape

router = Router(tags=["template"])
SEE = {"x-action": Action.SEE_TEMPLATE.name}
EDIT = {"x-action": Action.EDIT_TEMPLATE.name}
TakesWord = Literal["picture", "file", "link"]


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
    """What a pocket asks for. ``takes``: kinds of artefact, none for any; a length where ``measure`` is given."""

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
    starter: str = ""
    counts: bool = True
    opens: date | None = None
    rows: int = 0
    rows_per_week: int = 0
    log: LogSettings = Field(default_factory=LogSettings)
    each_question: bool = False
    variants: VariantsIO | None = None

    def plan(self) -> PocketPlan:
        """The same as the core takes it."""
        return PocketPlan(
            self.title,
            PocketKind(self.kind),
            self.directions,
            self.prompt,
            self.artefacts,
            self.reflection_on_each,
            length_of(self.measure, self.least, self.most),
            tuple(self.takes),
            self.starter,
            self.counts,
            self.opens,
            self.rows,
            self.rows_per_week,
            log_from_data(self.log.model_dump()),
            self.each_question,
            variants_from_data(self.variants.model_dump() if self.variants else None),
        )


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
    files: list[PocketFileShape]
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
    opens: date | None = None
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
    """The template of a class, and the periods and groups that versions can be dealt by."""

    periods: list[PlaceName]
    groups: list[PlaceName]

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


class MadeShape(Shape):
    """The id of what was made."""

    id: int


def _impact(told: templates.ToldImpact) -> dict[str, Any]:
    return {
        "students": told.students,
        "reached": told.impact.reached,
        "units": told.impact.units,
        "opened": len(told.impact.to_open),
        "filled": len(told.impact.to_filled),
        "to_open": told.to_open,
        "to_filled": told.to_filled,
        "chips": chip_data(chips(told.wanted, ())),
        "versions": [
            {"key": key, "students": [{"id": one.enrolment_id, "name": one.listed} for one in of]}
            for key, of in told.versions.items()
        ],
        "nowhere": told.nowhere,
    }


@router.get("/groups/{group_id}/template", response=TemplateShape, operation_id="see_template", openapi_extra=SEE)
def see_template(request: HttpRequest, group_id: int) -> Any:
    """The template of a class."""
    return templates.template_data(person_of(request), group_id, now())


@router.post(
    "/groups/{group_id}/template/sections",
    response={201: MadeShape},
    operation_id="add_section",
    openapi_extra=EDIT,
)
def add_section(request: HttpRequest, group_id: int, body: SectionIn) -> Any:
    """Add a section."""
    made = templates.add_section(person_of(request), group_id, body.title, now(), repeats=body.repeats)
    return Status(201, {"id": made})


@router.post(
    "/groups/{group_id}/template/sections/{section_id}/units/preview",
    response=UnitsImpact,
    operation_id="preview_units",
    openapi_extra=EDIT,
)
def preview_units(request: HttpRequest, group_id: int, section_id: int, body: UnitsIn) -> Any:
    """What a changed list of units would mean."""
    told = repeats.preview(person_of(request), group_id, section_id, body.taken(), now())
    shown = {name: getattr(told, name) for name in ("students", "added", "changed", "retired", "removed")}
    of = told.impact
    return {**shown, "reached": of.reached, "units": of.units, "to_open": told.to_open, "to_filled": told.to_filled}


@router.put(
    "/groups/{group_id}/template/sections/{section_id}/units",
    response=VersionShape,
    operation_id="set_units",
    openapi_extra=EDIT,
)
def set_units(request: HttpRequest, group_id: int, section_id: int, body: UnitsIn) -> Any:
    """Take a list of units for everybody."""
    version = repeats.set_units(person_of(request), group_id, section_id, body.taken(), body.version, now())
    return {"version": version}


@router.put(
    "/groups/{group_id}/template/sections/{section_id}",
    response={204: None},
    operation_id="change_section",
    openapi_extra=EDIT,
)
def change_section(request: HttpRequest, group_id: int, section_id: int, body: TitleIn) -> Any:
    """Rename a section."""
    templates.change_section(person_of(request), group_id, section_id, body.title, now())
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/sections/{section_id}/move",
    response={204: None},
    operation_id="move_section",
    openapi_extra=EDIT,
)
def move_section(request: HttpRequest, group_id: int, section_id: int, body: BeforeIn) -> Any:
    """Put a section elsewhere."""
    templates.move_section(person_of(request), group_id, section_id, body.before, now())
    return Status(204, None)


@router.delete(
    "/groups/{group_id}/template/sections/{section_id}",
    response={204: None},
    operation_id="remove_section",
    openapi_extra=EDIT,
)
def remove_section(request: HttpRequest, group_id: int, section_id: int) -> Any:
    """Take away an empty section."""
    templates.remove_section(person_of(request), group_id, section_id, now())
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/sections/{section_id}/pockets",
    response={201: MadeShape},
    operation_id="add_pocket",
    openapi_extra=EDIT,
)
def add_pocket(request: HttpRequest, group_id: int, section_id: int, body: PocketIn) -> Any:
    """Add a pocket."""
    made = templates.add_pocket(person_of(request), group_id, section_id, body.plan(), now())
    return Status(201, {"id": made.pk})


@router.post(
    "/groups/{group_id}/template/pockets/{pocket_id}/preview",
    response=ImpactShape,
    operation_id="preview_pocket",
    openapi_extra=EDIT,
)
def preview_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: PocketIn) -> Any:
    """What changed settings would mean."""
    return _impact(templates.preview(person_of(request), group_id, pocket_id, body.plan(), now(), body.hand))


@router.put(
    "/groups/{group_id}/template/pockets/{pocket_id}",
    response=ChangedPocket,
    operation_id="change_pocket",
    openapi_extra=EDIT,
)
def change_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: PocketIn) -> Any:
    """Take changed settings for everybody."""
    pocket, told = templates.change_pocket(
        person_of(request), group_id, pocket_id, body.plan(), body.version, now(), body.hand
    )
    return {"id": pocket.pk, "version": pocket.version, "impact": _impact(told)}


@router.post(
    "/groups/{group_id}/template/pockets/{pocket_id}/move",
    response={204: None},
    operation_id="move_pocket",
    openapi_extra=EDIT,
)
def move_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: MoveIn) -> Any:
    """Put a pocket elsewhere."""
    templates.move_pocket(person_of(request), group_id, pocket_id, body.section, body.before, now())
    return Status(204, None)


@router.put(
    "/groups/{group_id}/template/pockets/{pocket_id}/retired",
    response={204: None},
    operation_id="retire_pocket",
    openapi_extra=EDIT,
)
def retire_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: RetiredIn) -> Any:
    """Retire a pocket, or bring it back."""
    templates.set_retired(person_of(request), group_id, pocket_id, now(), retired=body.retired)
    return Status(204, None)


@router.delete(
    "/groups/{group_id}/template/pockets/{pocket_id}",
    response={204: None},
    operation_id="remove_pocket",
    openapi_extra=EDIT,
)
def remove_pocket(request: HttpRequest, group_id: int, pocket_id: int) -> Any:
    """Take away a pocket that nobody has used."""
    templates.remove_pocket(person_of(request), group_id, pocket_id, now())
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/pockets/{pocket_id}/files",
    response={201: PocketFileShape},
    operation_id="add_pocket_file",
    openapi_extra=EDIT,
)
def add_pocket_file(
    request: HttpRequest,
    group_id: int,
    pocket_id: int,
    file: File[UploadedFile],
    role: Form[Literal["directions", "starter"]] = "directions",
) -> Any:
    """Give a picture or file with a pocket: beside its directions, or as a starter."""
    made = templates.add_file(person_of(request), group_id, pocket_id, file, file.name or "", role, now())
    return Status(201, file_data(made))


@router.delete(
    "/groups/{group_id}/template/files/{file_id}",
    response={204: None},
    operation_id="remove_pocket_file",
    openapi_extra=EDIT,
)
def remove_pocket_file(request: HttpRequest, group_id: int, file_id: int) -> Any:
    """Take a file away from its pocket."""
    templates.set_file_removed(person_of(request), group_id, file_id, now(), removed=True)
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/files/{file_id}/restore",
    response={204: None},
    operation_id="restore_pocket_file",
    openapi_extra=EDIT,
)
def restore_pocket_file(request: HttpRequest, group_id: int, file_id: int) -> Any:
    """Bring a file back to its pocket."""
    templates.set_file_removed(person_of(request), group_id, file_id, now(), removed=False)
    return Status(204, None)
