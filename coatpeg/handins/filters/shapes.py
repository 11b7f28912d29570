"""Shapes of kept filters."""

from __future__ import annotations

from coatpeg.people.shapes import Shape


class KeptFilterShape(Shape):
    """A filter of the pegs under its name; ``address`` is a query string, ``by`` who shares it."""

    id: int
    name: str
    address: str
    shared: bool
    own: bool
    by: str


class KeepFilterIn(Shape):
    """A filter to keep."""

    name: str
    address: str
    shared: bool = False


class ChangeFilterIn(Shape):
    """What is changed of a kept filter; None stays."""

    name: str | None = None
    address: str | None = None
    shared: bool | None = None
