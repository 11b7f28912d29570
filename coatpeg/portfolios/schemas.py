"""Shapes of artefacts and evidence."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from coatpeg.people.schemas import Shape


class ArtefactShape(Shape):
    """An artefact, live or frozen. ``size`` in bytes, ``width`` and ``height`` in pixels."""

    id: int
    kind: Literal["picture", "file", "link"]
    title: str
    link: str
    sha256: str
    came_sha256: str
    media_type: str
    size: int
    width: int | None
    height: int | None


class SavedShape(Shape):
    """What a save made of an evidence; ``note`` says what was changed on the way in."""

    id: int
    text: str
    version: int
    words: int
    sentences: int
    note: str = ""


class LinkIn(Shape):
    """A link with the student's own title."""

    link: str = Field(max_length=20_000)
    title: str = Field(default="", max_length=2_000)


class TextIn(Shape):
    """A text and the version its writer saw (0: none yet)."""

    text: str
    version: int = Field(ge=0)
