"""Keeping bytes: content-addressed by SHA-256, through Django's storage API.

A row of ``StoredFile`` is written only after the bytes are safe. What is there already is not
written again. What can be seen in a browser is a picture we wrote ourselves; everything else is only
ever offered as a download.
"""

from __future__ import annotations

import hashlib
import tempfile
from collections.abc import Iterator
from contextlib import ExitStack, closing, contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import IO, Any, BinaryIO, cast

from django.conf import settings
from django.core.files.base import ContentFile, File
from django.core.files.storage import Storage, storages

from coatpeg.core.errors import Gone, Invalid
from coatpeg.portfolios import media, pictures, recordings
from coatpeg.portfolios.models import Artefact, StoredFile
from coatpeg.portfolios.pictures import WHOLE, Cut
from coatpeg.portfolios.storage import OwnedFile


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


def keep(content: File[Any], name: str, *, cut: Cut = WHOLE, came: str = "") -> Kept:
    """Judge, clean and keep a file that came in; ``Invalid`` says why it cannot be kept.

    ``name`` is for messages and for telling a picture that is none; the type comes from the content. ``cut`` is how a
    picture is turned and cropped. ``came`` is the SHA-256 where whoever received the bytes has counted it already.
    """
    if not content.size:
        raise Invalid(
            f"“{name}” is empty (0 bytes).", where="file", fix="Save it again on your device, then add it once more."
        )
    came = came or _sha256(content)
    content.seek(0)
    head = content.read(media.HEAD)
    picture = media.picture_type(head)
    if picture:
        content.seek(0)
        return Kept(_keep_picture(cast(BinaryIO, content), picture, name, cut), came, Artefact.Kind.PICTURE)
    if media.named_like_a_picture(name):
        raise Invalid(
            f"“{name}” is named like a picture, but what is in it is not a picture.",
            where="file",
            fix="Open it on your device to see what it is; take the photo again, or rename it to what it is.",
        )
    media_type = media.media_type(head)
    if recordings.is_playable(media_type):
        return _keep_recording(content, media_type, name, came)
    return Kept(_keep_bytes(content, came, media_type), came, Artefact.Kind.FILE)


def _keep_bytes(content: File[Any], sha256: str, media_type: str) -> StoredFile:
    stored = StoredFile.objects.filter(sha256=sha256).first()
    if stored is None:
        content.seek(0)
        size = content.size
        _write(path_of(sha256), content)
        stored = _row(sha256, size, media_type)
    return stored


def _keep_recording(content: File[Any], media_type: str, name: str, came: str) -> Kept:
    """Keep sound or video, without what tells of place and device."""
    content.seek(0)
    found, media_type = recordings.look(cast(BinaryIO, content), content.size, media_type, name)
    kind = Artefact.Kind.SOUND if media_type in media.SOUNDS else Artefact.Kind.VIDEO
    if not found.blank:
        return Kept(_keep_bytes(content, came, media_type), came, kind)
    with _of_our_own(content) as own:
        recordings.blank(own.path, found, media_type)
        with closing(OwnedFile(own.path)) as changed:  # opened anew: what was read ahead of the old bytes is stale
            return Kept(_keep_bytes(changed, _sha256(changed), media_type), came, kind)


@contextmanager
def _of_our_own(content: File[Any]) -> Iterator[OwnedFile]:
    """The same bytes in a file that we may change: the file itself where it is ours, else a copy."""
    if isinstance(content, OwnedFile):
        yield content
        return
    with tempfile.NamedTemporaryFile(dir=settings.FILE_UPLOAD_TEMP_DIR, delete=False) as copy:
        for chunk in content.chunks():
            copy.write(chunk)
    own = OwnedFile(Path(copy.name))
    try:
        yield own
    finally:
        own.close()
        own.path.unlink(missing_ok=True)


def kind_of(stored: StoredFile) -> Artefact.Kind:
    """What kind of artefact stored bytes are."""
    if stored.media_type in media.SOUNDS:
        return Artefact.Kind.SOUND
    if stored.media_type in media.VIDEOS:
        return Artefact.Kind.VIDEO
    return Artefact.Kind.PICTURE if stored.media_type in media.PICTURES else Artefact.Kind.FILE


def keep_pages(pages: list[StoredFile]) -> StoredFile:
    """Photographed pages joined into one PDF, with the first page's thumbnails."""
    with ExitStack() as stack:
        document = pictures.joined([stack.enter_context(opened(one.sha256)) for one in pages])
    sha256 = hashlib.sha256(document).hexdigest()
    _write(path_of(sha256), ContentFile(document))
    for label in pictures.THUMBNAILS:
        with opened(pages[0].sha256, label) as small:
            _write(path_of(sha256, label), ContentFile(small.read()))
    return _row(sha256, len(document), "application/pdf", pages[0].width, pages[0].height)


def _keep_picture(content: BinaryIO, media_type: str, name: str, cut: Cut) -> StoredFile:
    cleaned = pictures.clean(content, media_type, name, cut)
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
