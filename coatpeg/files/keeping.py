"""Keeping bytes: content-addressed by SHA-256, through Django's storage API.

A row of ``StoredFile`` is written only after the bytes are safe. What is there already is not
written again. What can be seen in a browser is a picture we wrote ourselves; everything else is only
ever offered as a download.
"""

from __future__ import annotations

import hashlib
import shutil
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import IO, Any

from django.conf import settings
from django.core.files.base import ContentFile, File
from django.core.files.storage import Storage, storages

from coatpeg.core.errors import Busy, Gone, Invalid, Refused
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import cleaning, media, pictures, recordings
from coatpeg.files.models import StoredFile, Uncleaned
from coatpeg.files.pictures import WHOLE, Cut
from coatpeg.files.storage import OwnedFile

ROOM_LEFT = 512 * 1024 * 1024
"""Bytes that stay free on the disk, so that texts can be saved while somebody sends films."""


@dataclass(frozen=True, slots=True)
class Kept:
    """A file that came in: the row of what is kept, the hash of what came, what kind of artefact it is."""

    stored: StoredFile
    came_sha256: str
    kind: ArtefactKind
    note: str = ""
    """What whoever brought it has to know of it."""


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
    refuse_without_room(content.size)
    came = came or hash_of(content)
    content.seek(0)
    head = content.read(media.HEAD)
    picture = media.picture_type(head)
    if picture:
        return _keep_picture(content, picture, name, cut, came)
    if media.named_like_a_picture(name):
        raise Invalid(
            f"“{name}” is named like a picture, but what is in it is not a picture.",
            where="file",
            fix="Open it on your device to see what it is; take the photo again, or rename it to what it is.",
        )
    media_type = media.media_type(head)
    if media_type == "application/zip" and content.size > media.HEAD:
        media_type = media.zip_type(content)
    if recordings.is_playable(media_type):
        return _keep_recording(content, media_type, name, came)
    note = RAW_STAYS.format(name) if media.is_raw(name) else ""
    return Kept(_keep_bytes(content, came, media_type), came, ArtefactKind.FILE, note)


def _keep_bytes(content: File[Any], sha256: str, media_type: str) -> StoredFile:
    content.seek(0)
    size = content.size
    # Bytes that are known are not written again, unless they are missing: then whoever brings them mends the store.
    write(path_of(sha256), content)
    return _row(sha256, size, media_type)


def _keep_recording(content: File[Any], media_type: str, name: str, came: str) -> Kept:
    """Keep sound or video, without what tells of place and device."""
    with _of_our_own(content) as ours:
        path, media_type = cleaning.recording(ours.path, media_type, name)
        kind = ArtefactKind.SOUND if media_type in media.SOUNDS else ArtefactKind.VIDEO
        try:
            with closing(OwnedFile(path)) as changed:  # opened anew: what was read ahead of the old bytes is stale
                return Kept(_keep_bytes(changed, hash_of(changed), media_type), came, kind)
        finally:
            if path != ours.path:
                path.unlink(missing_ok=True)


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


def kind_of(stored: StoredFile) -> ArtefactKind:
    """What kind of artefact stored bytes are."""
    if stored.media_type in media.SOUNDS:
        return ArtefactKind.SOUND
    if stored.media_type in media.VIDEOS:
        return ArtefactKind.VIDEO
    return ArtefactKind.PICTURE if stored.media_type in pictures.KEPT_TYPES else ArtefactKind.FILE


def keep_pages(pages: list[StoredFile]) -> StoredFile:
    """Photographed pages joined into one PDF, with the first page's thumbnails."""
    opening = [partial(opened, one.sha256) for one in pages]
    with (
        pictures.joined(opening, settings.FILE_UPLOAD_TEMP_DIR) as path,
        closing(OwnedFile(path)) as document,
    ):
        size, sha256 = document.size, hash_of(document)
        document.seek(0)
        write(path_of(sha256), document)
    for label in pictures.THUMBNAILS:
        with opened(pages[0].sha256, label) as small:
            write(path_of(sha256, label), ContentFile(small.read()))
    return _row(sha256, size, "application/pdf", pages[0].width, pages[0].height)


RAW_STAYS = "“{}” is a camera’s raw file and stays as it is: where and with what it was taken can be read in it."


def _keep_picture(content: File[Any], media_type: str, name: str, cut: Cut, came: str) -> Kept:
    with _of_our_own(content) as ours, tempfile.TemporaryDirectory(dir=settings.FILE_UPLOAD_TEMP_DIR) as folder:
        out = Path(folder)
        found = cleaning.picture(ours.path, out, media_type, name, cut)
        if found["media_type"] == pictures.RAW:
            return Kept(_keep_bytes(ours, came, media.RAW), came, ArtefactKind.FILE, RAW_STAYS.format(name))
        with closing(OwnedFile(out / pictures.KEPT)) as kept:
            sha256, size = hash_of(kept), kept.size
            write(path_of(sha256), kept)
        for label in pictures.THUMBNAILS:
            if (out / label).exists():
                with closing(OwnedFile(out / label)) as thumbnail:
                    write(path_of(sha256, label), thumbnail)
    stored = _row(sha256, size, found["media_type"], found["width"], found["height"])
    return Kept(stored, came, kind_of(stored))


def refuse_without_room(size: int) -> None:
    """Refuse bytes for which the disk has no room, by whatever way they come."""
    if shutil.disk_usage(settings.FILE_UPLOAD_TEMP_DIR).free - size < ROOM_LEFT:
        raise no_room()


def no_room() -> Refused:
    """What is said where the disk is full."""
    return Refused(
        "The school's disk has no room for a file of this size.", where="file", fix="Tell your teacher; keep the file."
    )


def write(path: str, content: File[Any]) -> None:
    """Write bytes where there are none yet."""
    if not store().exists(path):
        store().save(path, content)


def _row(sha256: str, size: int, media_type: str, width: int | None = None, height: int | None = None) -> StoredFile:
    """The one row of a hash, also when two uploads of the same bytes arrive together."""
    stored, _ = StoredFile.objects.get_or_create(
        sha256=sha256, defaults={"size": size, "media_type": media_type, "width": width, "height": height}
    )
    return stored


def hash_of(content: File[Any]) -> str:
    """The SHA-256 of a file's bytes."""
    digest = hashlib.sha256()
    content.seek(0)
    for chunk in content.chunks():
        digest.update(chunk)
    return digest.hexdigest()


def opened(sha256: str, part: str = "") -> IO[bytes]:
    """The bytes, for reading; of a picture that is not cleaned yet nobody sees anything (``Busy``)."""
    try:
        return store().open(path_of(sha256, part), "rb")
    except FileNotFoundError:
        of = Uncleaned.objects.select_related("became").filter(stored__sha256=sha256).first()
    if of and of.became:
        return opened(of.became.sha256, part)
    if of and of.problem:
        raise Gone(**of.problem)
    if of:
        raise Busy("This picture is being made ready.", fix="Look again in a moment.")
    raise Gone("The file is not in the store.", fix="Tell the administrator; a backup has it.")


def damaged() -> Iterator[str]:
    """The hashes of rows whose bytes are missing or different: what ``./peg check`` reports."""
    for sha256 in StoredFile.objects.filter(uncleaned=None).values_list("sha256", flat=True).iterator():
        try:
            with opened(sha256) as content:
                if hashlib.file_digest(content, "sha256").hexdigest() != sha256:  # type: ignore[arg-type]  # storage files read like binary files
                    yield sha256
        except Gone:
            yield sha256
