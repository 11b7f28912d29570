"""Shapes of phrases."""

from __future__ import annotations

from pydantic import Field

from coatpeg.people.shapes import Shape


class PhraseShape(Shape):
    """A phrase; ``shared`` with the staff of this class; ``by`` is whose it is, empty for one's own."""

    id: int
    text: str
    shared: bool
    by: str
    said: int
    """To how many students it was said in the hand-in that was asked about; 0 without one."""


class PhraseIn(Shape):
    """A phrase, and whether the staff of this class find it too."""

    text: str = Field(max_length=10_000)
    shared: bool = False


class ChangePhraseIn(Shape):
    """What to change of a phrase; what is left out stays."""

    text: str | None = Field(default=None, max_length=10_000)
    shared: bool | None = None
