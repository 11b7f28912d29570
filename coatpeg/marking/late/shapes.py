"""Shapes of the late rule."""

from __future__ import annotations

from datetime import datetime
from decimal import Decimal

from pydantic import Field

from coatpeg.people.shapes import Shape


class LateRuleShape(Shape):
    """Per cent of the earned score that a whole school day late takes (none: no rule), and what is left at least."""

    per_day: float | None
    floor: float
    by: str
    changed_at: datetime | None
    version: int
    may_change: bool


class LateRuleIn(Shape):
    """The same as it is set; ``version`` is the one that was seen."""

    per_day: Decimal | None = Field(default=None, max_digits=6, decimal_places=1)
    floor: Decimal = Field(default=Decimal(0), max_digits=6, decimal_places=1)
    version: int = Field(ge=0)
