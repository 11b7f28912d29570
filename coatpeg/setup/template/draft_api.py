"""Drafts of a class's template: looked at, and saved for everybody."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router

from coatpeg.core.outlines.filling import chips
from coatpeg.core.policy import Action
from coatpeg.outlines.reading import chip_data
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.setup.template import drafting
from coatpeg.setup.template.draft_shapes import DraftShape, KeptDraft, LookIn, SavedDraft, SaveIn

router = Router(tags=["template"])
EDIT = for_action(Action.EDIT_TEMPLATE)


@router.get(
    "/groups/{group_id}/template/draft",
    response=KeptDraft,
    operation_id="see_template_draft",
    openapi_extra=EDIT,
)
def see_template_draft(request: HttpRequest, group_id: int) -> Any:
    """One's own draft as it was kept, and who else has one."""
    found = drafting.kept(person_of(request), group_id)
    others = [{"name": name, "changes": changes, "at": at} for name, changes, at in found.others]
    return {"edits": found.edits, "device": found.device, "others": others}


@router.post(
    "/groups/{group_id}/template/draft/look",
    response=DraftShape,
    operation_id="look_at_template_draft",
    openapi_extra=EDIT,
)
def look_at_template_draft(request: HttpRequest, group_id: int, body: LookIn) -> Any:
    """The template as it would be with some changes, and what they would mean."""
    seen = drafting.look(person_of(request), group_id, body.edits, now(), body.pocket)
    if body.device:
        drafting.keep(person_of(request), group_id, body.edits, body.device, now())
    return {
        "template": seen.template,
        "hindrances": [
            {"edit": place, "what": error.what, "where": error.where, "fix": error.fix, **_version(error.more)}
            for place, error in seen.hindrances
        ],
        "means": seen.meaning and _means(seen.meaning),
        "pocket": seen.pocket and _opened(seen.pocket),
    }


def _version(more: dict[str, Any]) -> dict[str, Any]:
    return {"version": more["version"]} if "version" in more else {}


def _means(meaning: drafting.Meaning) -> dict[str, Any]:
    names = ("students", "added", "changed", "retired", "back", "removed", "to_open", "to_filled")
    of = meaning.impact
    return {
        **{name: getattr(meaning, name) for name in names},
        "reached": of.reached,
        "units": of.units,
        "opened": len(of.to_open),
        "filled": len(of.to_filled),
    }


def _opened(pocket: drafting.Opened) -> dict[str, Any]:
    return {
        "id": pocket.id,
        "chips": chip_data(chips(pocket.wanted, ())),
        "versions": [
            {"key": key, "students": [{"id": one.enrolment_id, "name": one.listed} for one in of]}
            for key, of in pocket.versions.items()
        ],
        "nowhere": pocket.nowhere,
    }


@router.post(
    "/groups/{group_id}/template/draft",
    response=SavedDraft,
    operation_id="save_template_draft",
    openapi_extra=EDIT,
)
def save_template_draft(request: HttpRequest, group_id: int, body: SaveIn) -> Any:
    """Make all changes of a draft, for everybody; undone by saving what this answers with."""
    return drafting.save(person_of(request), group_id, body.edits, now(), undoes=body.undoes, key=body.key)
