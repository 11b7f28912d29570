"""Reading many moments quickly.

The driver takes a DATETIME apart in Python and Django then gives it its zone, ten microseconds in all: a fifth of
the time of a board. Asked for as text with its zone, the same moment is read by one built-in function.
"""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.db.models import CharField, F, Func


class _Moment(CharField):  # type: ignore[type-arg]  # the stubs' parameters are for columns of a model
    """A moment that comes as ISO 8601 text with its zone."""

    def from_db_value(self, value: str | None, expression: Any, connection: Any) -> datetime | None:
        """The moment, UTC."""
        return datetime.fromisoformat(value) if value else None


def quick(column: str) -> Func:
    """A column of moments for ``values_list``, where a view reads thousands of them."""
    return Func(F(column), template="CONCAT(%(expressions)s, '+00:00')", output_field=_Moment())
