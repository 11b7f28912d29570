"""A pocket of the template, or the columns of a log, as a thing in the cupboard; and what a copy of it says.

Decided here: staff lay it into a template, as the pocket it is; students read it, and a copy of it in a pocket of
theirs is a text like any page: a log's columns as a table to fill, a pocket's directions with what its page begins
with. Days, and who has which version, belong to the class and stay there.
"""

from __future__ import annotations

import html
from dataclasses import replace

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.outlines.versions import for_a_copy
from coatpeg.core.portfolios.log_columns import LogPlan

EMPTY_ROWS = 5
"""Of a log as a table: enough to begin with, and a table grows."""


def columns_only(plan: PocketPlan) -> PocketPlan:
    """A log with nothing but its columns; ``Invalid`` where it is no log."""
    if plan.kind is not PocketKind.LOG:
        raise Invalid(f"“{plan.title}” is no log: it has no columns.", where=plan.title, fix="Put the whole pocket in.")
    return PocketPlan(plan.title, PocketKind.LOG, log=plan.log)


def for_the_cupboard(plan: PocketPlan) -> PocketPlan:
    """A pocket without what belongs to its class's calendar, its place in a pattern, and its people."""
    variants = for_a_copy(plan.variants) if plan.variants else None
    return replace(plan, opens=None, each_question=False, variants=variants)


def words_in(plan: PocketPlan) -> str:
    """What a copy says, as rich text; never empty."""
    parts = [f"<h3>{html.escape(plan.title, quote=False)}</h3>", plan.directions]
    if plan.kind is PocketKind.LOG:
        parts.append(_table(plan.log))
    if plan.kind is PocketKind.PAGE:
        parts.append(plan.starter)
    return "".join(part for part in parts if part)


def _table(log: LogPlan) -> str:
    heads = "".join(f"<th><p>{html.escape(_headed(one.title, one.unit), quote=False)}</p></th>" for one in log.columns)
    row = f"<tr>{'<td><p></p></td>' * len(log.columns)}</tr>"
    return f"<table><tbody><tr>{heads}</tr>{row * EMPTY_ROWS}</tbody></table>"


def _headed(title: str, unit: str) -> str:
    return f"{title} ({unit})" if unit else title
