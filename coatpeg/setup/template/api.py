"""The template of a class: seeing it, previewing and making changes."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest
from ninja import File, Form, Router, Status
from ninja.files import UploadedFile

from coatpeg.core.outlines.filling import chips
from coatpeg.core.policy import Action
from coatpeg.cupboard.reading import item_data
from coatpeg.cupboard.shapes import LaidItem
from coatpeg.outlines.given_files import file_data
from coatpeg.outlines.reading import chip_data
from coatpeg.people.calendars import school_calendar
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.portfolios.shapes import GivenFileShape
from coatpeg.setup.template import changing, layouts, undoing, units
from coatpeg.setup.template.shapes import (
    BeforeIn,
    ChangedPocket,
    FetchedPocket,
    ImpactShape,
    IntoCupboardIn,
    MadeShape,
    MoveIn,
    PocketIn,
    RetiredIn,
    SectionIn,
    TakenAwayShape,
    TemplateShape,
    TitleIn,
    UnitsImpact,
    UnitsIn,
    VersionShape,
)

router = Router(tags=["template"])
SEE = for_action(Action.SEE_TEMPLATE)
EDIT = for_action(Action.EDIT_TEMPLATE)


def _impact(report: changing.ImpactReport) -> dict[str, Any]:
    return {
        "students": report.students,
        "reached": report.impact.reached,
        "units": report.impact.units,
        "opened": len(report.impact.to_open),
        "filled": len(report.impact.to_filled),
        "to_open": report.to_open,
        "to_filled": report.to_filled,
        "chips": chip_data(chips(report.wanted, ())),
        "versions": [
            {"key": key, "students": [{"id": one.enrolment_id, "name": one.listed} for one in of]}
            for key, of in report.versions.items()
        ],
        "nowhere": report.nowhere,
    }


@router.get("/groups/{group_id}/template", response=TemplateShape, operation_id="see_template", openapi_extra=SEE)
def see_template(request: HttpRequest, group_id: int) -> Any:
    """The template of a class."""
    return changing.template_data(person_of(request), group_id, now())


@router.post(
    "/groups/{group_id}/template/sections",
    response={201: MadeShape},
    operation_id="add_section",
    openapi_extra=EDIT,
)
def add_section(request: HttpRequest, group_id: int, body: SectionIn) -> Any:
    """Add a section."""
    made = changing.add_section(person_of(request), group_id, body.title, now(), repeats=body.repeats)
    return Status(201, {"id": made})


@router.post(
    "/groups/{group_id}/template/sections/{section_id}/units/preview",
    response=UnitsImpact,
    operation_id="preview_units",
    openapi_extra=EDIT,
)
def preview_units(request: HttpRequest, group_id: int, section_id: int, body: UnitsIn) -> Any:
    """What a changed list of units would mean."""
    report = units.preview(person_of(request), group_id, section_id, body.taken(), now())
    shown = {name: getattr(report, name) for name in ("students", "added", "changed", "retired", "removed")}
    of = report.impact
    return {**shown, "reached": of.reached, "units": of.units, "to_open": report.to_open, "to_filled": report.to_filled}


@router.put(
    "/groups/{group_id}/template/sections/{section_id}/units",
    response=VersionShape,
    operation_id="set_units",
    openapi_extra=EDIT,
)
def set_units(request: HttpRequest, group_id: int, section_id: int, body: UnitsIn) -> Any:
    """Take a list of units for everybody."""
    version = units.set_units(person_of(request), group_id, section_id, body.taken(), body.version, now())
    return {"version": version}


@router.put(
    "/groups/{group_id}/template/sections/{section_id}",
    response={204: None},
    operation_id="change_section",
    openapi_extra=EDIT,
)
def change_section(request: HttpRequest, group_id: int, section_id: int, body: TitleIn) -> Any:
    """Rename a section."""
    changing.change_section(person_of(request), group_id, section_id, body.title, now())
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/sections/{section_id}/move",
    response={204: None},
    operation_id="move_section",
    openapi_extra=EDIT,
)
def move_section(request: HttpRequest, group_id: int, section_id: int, body: BeforeIn) -> Any:
    """Put a section elsewhere."""
    changing.move_section(person_of(request), group_id, section_id, body.before, now())
    return Status(204, None)


@router.delete(
    "/groups/{group_id}/template/sections/{section_id}",
    response=TakenAwayShape,
    operation_id="remove_section",
    openapi_extra=EDIT,
)
def remove_section(request: HttpRequest, group_id: int, section_id: int) -> Any:
    """Take away an empty section."""
    return {"taken_away": undoing.remove_section(person_of(request), group_id, section_id, now())}


@router.post(
    "/groups/{group_id}/template/sections/{section_id}/pockets",
    response={201: MadeShape},
    operation_id="add_pocket",
    openapi_extra=EDIT,
)
def add_pocket(request: HttpRequest, group_id: int, section_id: int, body: PocketIn) -> Any:
    """Add a pocket."""
    made = changing.add_pocket(person_of(request), group_id, section_id, body.plan(), now())
    return Status(201, {"id": made.pk})


@router.post(
    "/groups/{group_id}/template/pockets/{pocket_id}/preview",
    response=ImpactShape,
    operation_id="preview_pocket",
    openapi_extra=EDIT,
)
def preview_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: PocketIn) -> Any:
    """What changed settings would mean."""
    return _impact(changing.preview(person_of(request), group_id, pocket_id, body.plan(), now(), body.hand))


@router.put(
    "/groups/{group_id}/template/pockets/{pocket_id}",
    response=ChangedPocket,
    operation_id="change_pocket",
    openapi_extra=EDIT,
)
def change_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: PocketIn) -> Any:
    """Take changed settings for everybody."""
    pocket, report = changing.change_pocket(
        person_of(request), group_id, pocket_id, body.plan(), body.version, now(), body.hand
    )
    return {"id": pocket.pk, "version": pocket.version, "impact": _impact(report)}


@router.post(
    "/groups/{group_id}/template/pockets/{pocket_id}/move",
    response={204: None},
    operation_id="move_pocket",
    openapi_extra=EDIT,
)
def move_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: MoveIn) -> Any:
    """Put a pocket elsewhere."""
    changing.move_pocket(person_of(request), group_id, pocket_id, body.section, body.before, now())
    return Status(204, None)


@router.put(
    "/groups/{group_id}/template/pockets/{pocket_id}/retired",
    response={204: None},
    operation_id="retire_pocket",
    openapi_extra=EDIT,
)
def retire_pocket(request: HttpRequest, group_id: int, pocket_id: int, body: RetiredIn) -> Any:
    """Retire a pocket, or bring it back."""
    changing.set_retired(person_of(request), group_id, pocket_id, now(), retired=body.retired)
    return Status(204, None)


@router.delete(
    "/groups/{group_id}/template/pockets/{pocket_id}",
    response=TakenAwayShape,
    operation_id="remove_pocket",
    openapi_extra=EDIT,
)
def remove_pocket(request: HttpRequest, group_id: int, pocket_id: int) -> Any:
    """Take away a pocket that nobody has used."""
    return {"taken_away": undoing.remove_pocket(person_of(request), group_id, pocket_id, now())}


@router.post(
    "/groups/{group_id}/template/taken-away/{taken_away_id}/restore",
    response={204: None},
    operation_id="restore_taken_away",
    openapi_extra=EDIT,
)
def restore_taken_away(request: HttpRequest, group_id: int, taken_away_id: int) -> Any:
    """Bring back a section or pocket that was taken away."""
    undoing.restore(person_of(request), group_id, taken_away_id, now())
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/pockets/{pocket_id}/files",
    response={201: GivenFileShape},
    operation_id="add_pocket_file",
    openapi_extra=EDIT,
)
def add_pocket_file(
    request: HttpRequest,
    group_id: int,
    pocket_id: int,
    file: File[UploadedFile],
    role: Form[Literal["directions", "starter"]] = "directions",
    version: Form[str] = "",
) -> Any:
    """Give a picture or file with a pocket, or one version of it: beside its directions, or as a starter."""
    made = changing.add_file(person_of(request), group_id, pocket_id, file, file.name or "", role, now(), version)
    return Status(201, file_data(made))


@router.post(
    "/groups/{group_id}/template/cupboard",
    response={201: LaidItem},
    operation_id="put_pocket_in_cupboard",
    openapi_extra=for_action(Action.KEEP_CUPBOARD),
)
def put_pocket_in_cupboard(request: HttpRequest, group_id: int, body: IntoCupboardIn) -> Any:
    """Put a pocket as it is saved, or a log's columns, into the cupboard, in the place of what is there of it."""
    made, new = layouts.put_in(person_of(request), group_id, body.pocket, now(), columns=body.columns)
    return Status(201, {**item_data(made, school_calendar().local_day(now())), "new": new})


@router.post(
    "/groups/{group_id}/template/cupboard/{item_id}",
    response=FetchedPocket,
    operation_id="fetch_pocket_from_cupboard",
    openapi_extra=EDIT,
)
def fetch_pocket_from_cupboard(request: HttpRequest, group_id: int, item_id: int) -> Any:
    """A pocket as it lies in the cupboard, for a draft of the template: its files wait there."""
    return layouts.fetch(person_of(request), group_id, item_id, now())


@router.post(
    "/groups/{group_id}/template/files",
    response={201: GivenFileShape},
    operation_id="add_waiting_file",
    openapi_extra=EDIT,
)
def add_waiting_file(
    request: HttpRequest,
    group_id: int,
    file: File[UploadedFile],
    role: Form[Literal["directions", "starter"]] = "directions",
    version: Form[str] = "",
) -> Any:
    """Keep a picture or file for a pocket that only a draft has yet, or for one version of it."""
    made = changing.add_waiting_file(person_of(request), group_id, file, file.name or "", role, now(), version)
    return Status(201, file_data(made))


@router.delete(
    "/groups/{group_id}/template/files/{file_id}",
    response={204: None},
    operation_id="remove_pocket_file",
    openapi_extra=EDIT,
)
def remove_pocket_file(request: HttpRequest, group_id: int, file_id: int) -> Any:
    """Take a file away from its pocket."""
    changing.set_file_removed(person_of(request), group_id, file_id, now(), removed=True)
    return Status(204, None)


@router.post(
    "/groups/{group_id}/template/files/{file_id}/restore",
    response={204: None},
    operation_id="restore_pocket_file",
    openapi_extra=EDIT,
)
def restore_pocket_file(request: HttpRequest, group_id: int, file_id: int) -> Any:
    """Bring a file back to its pocket."""
    changing.set_file_removed(person_of(request), group_id, file_id, now(), removed=False)
    return Status(204, None)
