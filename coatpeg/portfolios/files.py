"""Keeping bytes: content-addressed by SHA-256, through Django's storage API.

A row of ``StoredFile`` is written only after the bytes are safe. What is there already is not
written again. What can be seen in a browser is a picture we wrote ourselves; everything else is only
ever offered as a download.
"""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from dataclasses import dataclass
from typing import IO, Any, BinaryIO, cast

from django.core.files.base import ContentFile, File
from django.core.files.storage import Storage, storages

from coatpeg.core.errors import Gone, Invalid
from coatpeg.portfolios import media, pictures
from coatpeg.portfolios.models import Artefact, StoredFile


@dataclass(frozen=True, slots=True)
class Kept:
    """A file that came in: the row of what is kept, the hash of what came, what kind of artefact it is."""

    stored: StoredFile
    came_sha256: str
    kind: Artefact.Kind


def store() -> Storage:
    """The store of artefacts, as the settings name it."""
    return storages["artefacts"]


def path_of(sha256: str, part: str = "") -> str:
    """Where bytes of a hash lie in the store; ``part`` names a thumbnail."""
    return f"{sha256[:2]}/{sha256[2:4]}/{sha256}{'.' + part if part else ''}"


def keep(content: File[Any], name: str) -> Kept:
    """Judge, clean and keep a file that came in; ``Invalid`` says why it cannot be kept.

    ``name`` is for messages and for telling a picture that is none; the type comes from the content.
    """
    if not content.size:
        raise Invalid(
            f"“{name}” is empty (0 bytes).", where="file", fix="Save it again on your device, then add it once more."
        )
    came = _sha256(content)
    content.seek(0)
    head = content.read(media.HEAD)
    picture = media.picture_type(head)
    if picture:
        content.seek(0)
        return Kept(_keep_picture(cast(BinaryIO, content), picture, name), came, Artefact.Kind.PICTURE)
    if media.named_like_a_picture(name):
        raise Invalid(
            f"“{name}” is named like a picture, but what is in it is not a picture.",
            where="file",
            fix="Open it on your device to see what it is; take the photo again, or rename it to what it is.",
        )
    stored = StoredFile.objects.filter(sha256=came).first()
    if stored is None:
        content.seek(0)
        _write(path_of(came), content)
        stored = _row(came, content.size, media.media_type(head))
    return Kept(stored, came, Artefact.Kind.FILE)


def _keep_picture(content: BinaryIO, media_type: str, name: str) -> StoredFile:
    cleaned = pictures.clean(content, media_type, name)
    sha256 = hashlib.sha256(cleaned.data).hexdigest()
    stored = StoredFile.objects.filter(sha256=sha256).first()
    if stored is not None:
        return stored
    _write(path_of(sha256), ContentFile(cleaned.data))
    for label, data in cleaned.thumbnails.items():
        _write(path_of(sha256, label), ContentFile(data))
    return _row(sha256, len(cleaned.data), cleaned.media_type, cleaned.width, cleaned.height)


def _write(path: str, content: File[Any]) -> None:
    if not store().exists(path):
        store().save(path, content)


def _row(sha256: str, size: int, media_type: str, width: int | None = None, height: int | None = None) -> StoredFile:
    """The one row of a hash, also when two uploads of the same bytes arrive together."""
    stored, _ = StoredFile.objects.get_or_create(
        sha256=sha256, defaults={"size": size, "media_type": media_type, "width": width, "height": height}
    )
    return stored


def _sha256(content: File[Any]) -> str:
    digest = hashlib.sha256()
    content.seek(0)
    for chunk in content.chunks():
        digest.update(chunk)
    return digest.hexdigest()


def opened(sha256: str, part: str = "") -> IO[bytes]:
    """The bytes, for reading."""
    try:
        return store().open(path_of(sha256, part), "rb")
    except FileNotFoundError:
        raise Gone("The file is not in the store.", fix="Tell the administrator; a backup has it.") from None


def damaged() -> Iterator[str]:
    """The hashes of rows whose bytes are missing or different: what ``./peg check`` reports."""
    for sha256 in StoredFile.objects.values_list("sha256", flat=True).iterator():
        try:
            with opened(sha256) as content:
                if hashlib.file_digest(content, "sha256").hexdigest() != sha256:  # type: ignore[arg-type]  # storage files read like binary files
                    yield sha256
        except Gone:
            yield sha256
