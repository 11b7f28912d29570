"""Kinds of artefact, as files, templates and portfolios name them."""

from __future__ import annotations

from enum import StrEnum


class ArtefactKind(StrEnum):
    """What an artefact is; a scan is several photographed pages in one, kept as a PDF that we wrote."""

    PICTURE = "picture"
    SCAN = "scan"
    SOUND = "sound"
    VIDEO = "video"
    FILE = "file"
    LINK = "link"
    TEXT = "text"


KIND_CHOICES = [(kind.value, kind.name.capitalize()) for kind in ArtefactKind]
"""For a model's column."""
