"""A pocket's settings as plain data, by the names that the database, the API and the gallery's documents share.

The one place where a setting is named: a new one is a field of ``PocketPlan``, a line here, a column and a field of the
API's shape.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from coatpeg.core.outlines.filling import PocketKind, Shared
from coatpeg.core.outlines.plan import PocketPlan, length_of
from coatpeg.core.outlines.versions import variants_from_data, variants_to_data
from coatpeg.core.portfolios.log_columns import log_from_data, log_to_data


def plan_to_data(plan: PocketPlan) -> dict[str, Any]:
    """A pocket's settings as plain data; ``opens`` stays a date, no versions are None."""
    length = plan.length
    return {
        "title": plan.title,
        "kind": plan.kind.value,
        "directions": plan.directions,
        "prompt": plan.prompt,
        "artefacts": plan.artefacts,
        "reflection_on_each": plan.reflection_on_each,
        "measure": length.measure.value if length else "",
        "least": length.least if length else 1,
        "most": length.most if length else None,
        "takes": list(plan.takes),
        "spoken": plan.spoken,
        "shared": plan.shared.value,
        "group_set": plan.group_set,
        "own_part": plan.own_part,
        "starter": plan.starter,
        "counts": plan.counts,
        "opens": plan.opens,
        "rows": plan.rows,
        "rows_per_week": plan.rows_per_week,
        "log": log_to_data(plan.log),
        "each_question": plan.each_question,
        "variants": variants_to_data(plan.variants),
    }


FIELDS = tuple(plan_to_data(PocketPlan("", PocketKind.PAGE)))
"""The names of all settings."""


def plan_from_data(data: Mapping[str, Any]) -> PocketPlan:
    """The reverse of ``plan_to_data``; what is not there is not set."""
    return PocketPlan(
        title=data["title"],
        kind=PocketKind(data["kind"]),
        directions=data.get("directions", ""),
        prompt=data.get("prompt", ""),
        artefacts=data.get("artefacts", 0),
        reflection_on_each=data.get("reflection_on_each", False),
        length=length_of(data.get("measure", ""), data.get("least", 1), data.get("most")),
        takes=tuple(data.get("takes", ())),
        spoken=data.get("spoken", False),
        shared=Shared(data.get("shared", "")),
        group_set=data.get("group_set", ""),
        own_part=data.get("own_part", False),
        starter=data.get("starter", ""),
        counts=data.get("counts", True),
        opens=data.get("opens"),
        rows=data.get("rows", 0),
        rows_per_week=data.get("rows_per_week", 0),
        log=log_from_data(data.get("log") or {}),
        each_question=data.get("each_question", False),
        variants=variants_from_data(data.get("variants")),
    )
