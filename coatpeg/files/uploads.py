"""Files that come up in parts, and what they become.

The bytes lie in the folder of what comes in, under the upload's key; how many are there is how long that file is, so
nothing has to be written down with each part, and whatever ends the server leaves an upload that goes on where it
was. Whoever writes holds the lock file beside it. Decided here: what an upload becomes is fixed when it begins; it
becomes that (``files.purposes``) in the request that brings its last byte (``settle``), once, also when that request's
answer is lost; one that was never finished goes after seven days; who may write is asked anew with every part. A page
of several photographed ones waits for the others of its batch.
"""

from __future__ import annotations

import fcntl
import hashlib
import re
import secrets
import shutil
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import IO

from django.conf import settings
from django.db import IntegrityError, transaction
from django.db.models import Q, QuerySet, Sum

from coatpeg.core.errors import Busy, CoatPegError, Gone, Invalid, Refused, Stale, TooLarge
from coatpeg.core.portfolios import incoming
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import keeping, waiting
from coatpeg.files.models import Uncleaned, Upload
from coatpeg.files.pictures import Cut
from coatpeg.files.purposes import USUAL, Details, number, purpose
from coatpeg.files.storage import OwnedFile
from coatpeg.people.models import Person

LIFE = timedelta(days=7)
"""How long an unfinished upload is kept: a lid closed on Friday opens on Monday, with days to spare."""
MOST_UNDER_WAY = 100
"""Unfinished uploads of one person: a batch of 60 artefacts and some that were given up."""
MOST_PAGES = 40
"""Photographed pages in one artefact; a whole exercise book."""
PAGE_WAITS = timedelta(days=1)
"""How long photographed pages wait for one that has not come: a phone found again the next morning still brings it."""
MOST_BYTES_UNDER_WAY = 8 * 1024**3
"""Bytes of all unfinished uploads of one person: four of the largest films."""
PART = 1024 * 1024
MOST_NOTE = 300
_BATCH = re.compile(r"^[A-Za-z0-9-]{0,36}$")


@dataclass(frozen=True, slots=True)
class Wish:
    """What an upload is to become, as its metadata say it. ``pairs`` are all of them, for its purpose to read."""

    purpose: str
    name: str
    size: int
    cut: Cut
    batch: str
    place: int
    places: int
    pairs: Mapping[str, str]
    client_key: str | None = None

    @classmethod
    def read(cls, pairs: Mapping[str, str], size: int) -> Wish:
        """From the pairs of ``Upload-Metadata``.

        Name, and where wanted purpose, turn, crop, batch, place, places, and the sender's ``key``; what else there is
        the purpose reads.
        """
        wish = cls(
            pairs.get("purpose", "") or USUAL,
            pairs.get("name", ""),
            size,
            Cut.read(pairs.get("turn", ""), pairs.get("crop", "")),
            pairs.get("batch", ""),
            number(pairs, "place"),
            number(pairs, "places"),
            pairs,
            pairs.get("key") or None,
        )
        wrong = wish.batch and not (2 <= wish.places <= MOST_PAGES and wish.place < wish.places)
        if wrong or not _BATCH.match(wish.batch):
            raise Invalid(
                f"Page {wish.place + 1} of {wish.places} cannot be joined; 2 to {MOST_PAGES} pages make one artefact.",
                where="batch",
                fix="Join fewer pages, or add them one by one.",
            )
        if wish.client_key and not _BATCH.match(wish.client_key):
            raise Invalid(
                "The upload's own key does not fit.", where="key", fix="Take up to 36 letters, digits and hyphens."
            )
        return wish


def _folder() -> Path:
    folder = Path(settings.FILE_UPLOAD_TEMP_DIR) / "parts"
    folder.mkdir(parents=True, exist_ok=True)
    return folder


def path_of(upload: Upload) -> Path:
    """Where its bytes lie."""
    return _folder() / upload.key


def begin(person: Person, wish: Wish, now: datetime) -> Upload:
    """A new upload, empty; refused at once where it could not be kept in the end.

    One that the sender has begun already under the same key, from another tab or before its answer was lost, is that
    one; a refused one begins anew.
    """
    if wish.client_key:
        with transaction.atomic():
            before = person.uploads.select_for_update().filter(client_key=wish.client_key).first()
            if before is not None and before.size == wish.size and not before.refused:
                return before
            if before is not None:
                person.uploads.filter(pk=before.pk).update(client_key=None)
    details = purpose(wish.purpose).begin(person, wish.pairs, wish.size, now)
    if wish.size > settings.UPLOAD_LIMIT:
        raise TooLarge(
            f"The file is larger than {settings.UPLOAD_LIMIT / 1024**2:.0f} MB, the most this school takes.",
            where="file",
            fix="Make it smaller, or put a link to it.",
        )
    title, note = incoming.tidy_title(wish.name)
    if not wish.size:
        raise Invalid(
            f"“{title}” is empty (0 bytes).", where="file", fix="Save it again on your device, then add it once more."
        )
    _refuse_too_much(person, wish.size)
    made = Upload(
        key=secrets.token_urlsafe(32),
        person=person,
        purpose=wish.purpose,
        details=details,
        name=title,
        note=note,
        size=wish.size,
        turn=wish.cut.turn,
        crop=wish.cut.crop,
        batch=wish.batch,
        place=wish.place,
        places=wish.places,
        begun_at=now,
        client_key=wish.client_key,
    )
    try:
        with transaction.atomic():
            made.save(force_insert=True)
    except IntegrityError:
        return person.uploads.get(client_key=wish.client_key)  # another tab was quicker by a moment
    path_of(made).touch(mode=0o600)
    return made


def _refuse_too_much(person: Person, size: int) -> None:
    """Refuse what the disk has no room for, or what one person has on the way already."""
    if _room() - size < keeping.ROOM_LEFT:
        raise keeping.no_room()
    under_way = person.uploads.filter(done_at=None, refused__isnull=True)
    if (under_way.aggregate(all=Sum("size"))["all"] or 0) + size > MOST_BYTES_UNDER_WAY:
        raise Refused(
            f"{MOST_BYTES_UNDER_WAY // 1024**3} GB of files are on their way already.",
            where="file",
            fix="Wait until some have come up.",
        )
    if under_way.count() >= MOST_UNDER_WAY:
        raise Refused(
            f"{MOST_UNDER_WAY} files are on their way already.", where="file", fix="Wait until some have come up."
        )


def _room() -> int:
    """Free bytes of the disk.

    Without those that uploads under way were promised (what of them is here counts twice).
    """
    promised = Upload.objects.filter(done_at=None, refused__isnull=True, stored=None).aggregate(all=Sum("size"))["all"]
    return shutil.disk_usage(_folder()).free - (promised or 0)


def named(person: Person, key: str) -> Upload:
    """An upload that this person began; ``Gone`` for everybody else, and once it is refused or its time is over."""
    upload = Upload.objects.filter(key=key, person=person).select_related("person").first()
    if upload is None:
        raise Gone("There is no such upload.", fix="Send the file from its beginning.")
    purpose(upload.purpose).allow(upload)
    if upload.refused:
        raise Gone(**upload.refused)
    return upload


def offset(upload: Upload) -> int:
    """How many of its bytes are here."""
    if upload.done_at is not None or upload.stored_id is not None:
        return upload.size
    try:
        return path_of(upload).stat().st_size
    except FileNotFoundError:
        raise Gone("The bytes of this upload are gone.", fix="Send the file from its beginning.") from None


@contextmanager
def _held(upload: Upload) -> Iterator[None]:
    """Be the only one who writes this upload."""
    with open(_folder() / f"{upload.key}.lock", "a") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            raise Busy(
                "An earlier part of this upload is still being written.", where="upload", fix="Try again in a moment."
            ) from None
        yield


def append(upload: Upload, at: int, read: Callable[[int], bytes], now: datetime) -> int:
    """Write what comes, from byte ``at`` on; returns how many bytes are here then.

    ``read`` gives up to so many bytes, fewer where the connection is cut, none at the end. What came before a cut is
    kept.
    """
    with _held(upload):
        here = offset(upload)
        if at != here:
            raise Stale(
                f"{here} bytes are here, not {at}.", where="Upload-Offset", fix="Ask where it stands, and go on there."
            )
        digest = hashlib.sha256() if at == 0 else None
        with open(path_of(upload), "r+b", buffering=0) as target:
            target.seek(at)
            while here < upload.size and (part := read(min(PART, upload.size - here))):
                target.write(part)
                if digest:
                    digest.update(part)
                here += len(part)
        if here == upload.size:
            _become(upload, digest.hexdigest() if digest else "", now)
        return here


def settle(upload: Upload, now: datetime) -> Upload:
    """See to it that an upload whose bytes are all here has become what it is to be; again changes nothing."""
    with _held(upload):
        upload.refresh_from_db()
        if upload.done_at is None and not upload.refused and offset(upload) == upload.size:
            _become(upload, "", now)
    return upload


def _become(upload: Upload, came: str, now: datetime) -> None:
    """Keep the bytes, then put them where they belong. What cannot be taken in is refused for good, with the reason."""
    try:
        if upload.stored_id is None:
            _keep(upload, came)
        if upload.batch:
            _join(upload, now)
        else:
            _place(upload, now)
    except CoatPegError as error:
        upload.refused = {"what": error.what, "where": error.where, "fix": error.fix}
        upload.save(update_fields=["refused"])
        _forget(upload)
        _join_without(upload, now)
        raise
    _forget(upload)


def _keep(upload: Upload, came: str) -> None:
    content = OwnedFile(path_of(upload))
    cut = Cut(upload.turn, tuple(upload.crop) if upload.crop else None)
    try:
        later = not upload.batch and purpose(upload.purpose).may_wait(upload)
        kept = waiting.take(content, upload.name, cut, came) if later else None
        if kept is None:
            kept = keeping.keep(content, upload.name, cut=cut, came=came)
    finally:
        content.close()
    if upload.batch and kept.kind != ArtefactKind.PICTURE:
        raise Invalid(
            f"“{upload.name}” is no picture, so it cannot be a page.", where="file", fix="Add it as a file of its own."
        )
    upload.stored, upload.came_sha256 = kept.stored, kept.came_sha256
    upload.note = " ".join(filter(None, (upload.note, kept.note)))[:MOST_NOTE]
    upload.save(update_fields=["stored", "came_sha256", "note"])


def _kept(upload: Upload) -> keeping.Kept:
    assert upload.stored is not None
    waits = hasattr(upload.stored, "uncleaned")
    kind = ArtefactKind.PICTURE if waits else keeping.kind_of(upload.stored)
    return keeping.Kept(upload.stored, upload.came_sha256, kind)


def _place(upload: Upload, now: datetime) -> None:
    """Put one file where its purpose says."""
    with transaction.atomic():
        if upload.stored is not None:
            upload.stored = waiting.settled(upload.stored)
        result = purpose(upload.purpose).take_in(upload, _kept(upload), upload.came_sha256, now)
        _done([upload], result, now)


def _join(upload: Upload, now: datetime, *, without_missing: bool = False) -> None:
    """Where all pages of a batch are here (or no more are waited for), make one file of them."""
    pages = _pages(upload, without_missing=without_missing)
    if pages is None:
        return
    stored = keeping.keep_pages([one.stored for one in pages if one.stored])
    came = ",".join(one.came_sha256[:16] for one in pages)
    with transaction.atomic():
        # Two requests may bring the last two pages at once: the rows are locked, so that one of them joins.
        waiting = Upload.objects.select_for_update().filter(pk__in=[one.pk for one in pages], done_at=None)
        if len(waiting) == len(pages):
            kept = keeping.Kept(stored, stored.sha256, ArtefactKind.SCAN)
            _done(pages, purpose(upload.purpose).take_in(upload, kept, came, now), now)


def _join_without(refused: Upload, now: datetime) -> None:
    """A page was refused: where it was the last one missing, the others are joined without it."""
    if refused.batch:
        here = _batch(refused).filter(done_at=None, refused__isnull=True)
        other = here.exclude(stored=None).select_related("person").first()
        if other is not None:
            with suppress(CoatPegError):  # the pocket was locked meanwhile: they are refused as they are settled
                _join(other, now)


def _batch(upload: Upload) -> QuerySet[Upload]:
    """The uploads that are to be joined with one, that one among them."""
    return Upload.objects.filter(
        person=upload.person_id, purpose=upload.purpose, batch=upload.batch, details=upload.details
    )


def _pages(upload: Upload, *, without_missing: bool = False) -> list[Upload] | None:
    """The uploads of a batch in the order of its pages, without those that were refused.

    None while some are missing and waited for.
    """
    here = _batch(upload).filter(done_at=None, refused__isnull=True)
    of_place = {one.place: one for one in here.exclude(stored=None).select_related("stored", "person")}
    # What was refused, or joined before, is not waited for.
    settled = _batch(upload).filter(Q(refused__isnull=False) | Q(done_at__isnull=False))
    missing = set(range(upload.places)) - set(of_place) - set(settled.values_list("place", flat=True))
    missing = set() if without_missing else missing
    return [one for _, one in sorted(of_place.items())] if of_place and not missing else None


def _done(uploads: list[Upload], result: Details, now: datetime) -> None:
    for one in uploads:
        one.done_at, one.result = now, result
        one.save(update_fields=["done_at", "result", "stored"])


def _forget(upload: Upload) -> None:
    """Nothing of it is needed in the folder any more."""
    path_of(upload).unlink(missing_ok=True)
    (_folder() / f"{upload.key}.lock").unlink(missing_ok=True)


def waits(upload: Upload) -> bool:
    """Whether it is a picture that is not cleaned yet."""
    return Uncleaned.objects.filter(stored=upload.stored_id, became=None).exists()


def give_up(upload: Upload) -> None:
    """Let an upload go; what it became stays."""
    with _held(upload):
        _forget(upload)
        upload.delete()


def to_see_to(now: datetime) -> bool:
    """Whether there may be anything for ``sweep``: an upload that is old, or unfinished and whole."""
    open_ones = Upload.objects.filter(done_at=None, refused__isnull=True, batch="")
    return (
        Upload.objects.filter(begun_at__lt=now - LIFE).exists()
        or any(_is_whole(one) for one in open_ones)
        or any(_pages(one) is not None or one.begun_at <= now - PAGE_WAITS for one in _open_batches())
    )


def _is_whole(upload: Upload) -> bool:
    try:
        return offset(upload) == upload.size
    except Gone:
        return False


def sweep(now: datetime) -> int:
    """Let go what was never finished, and finish what has all its bytes; returns how many of both.

    Photographed pages that are here are joined: all of them where a stop came between, and without one that never
    arrived after a day of waiting for it, which their owner is told. For the background process.
    """
    joined = sum(_see_to_batch(one, now) for one in _open_batches())
    old = Upload.objects.filter(begun_at__lt=now - LIFE)
    for upload in old:
        _forget(upload)
    gone, _ = old.delete()
    finished = 0
    for upload in Upload.objects.filter(done_at=None, refused__isnull=True, batch="").select_related("person"):
        try:
            if offset(upload) == upload.size:
                finished += settle(upload, now).done_at is not None
        except CoatPegError:
            continue  # written by somebody just now, or refused with its reason beside it
    return gone + finished + joined


def _open_batches() -> list[Upload]:
    """One upload that is here for each batch that is not joined yet."""
    here = Upload.objects.filter(done_at=None, refused__isnull=True, stored__isnull=False).exclude(batch="")
    found: dict[tuple[int, str, str], Upload] = {}
    for one in here.select_related("person").order_by("-begun_at"):
        found.setdefault((one.person_id, one.purpose, one.batch), one)
    return list(found.values())


def _see_to_batch(newest: Upload, now: datetime) -> bool:
    """Join what is here of a batch, where nothing more is to come; True where that was done."""
    missing = 0
    if _pages(newest) is None:
        if newest.begun_at > now - PAGE_WAITS:
            return False
        here = set(_batch(newest).filter(stored__isnull=False).values_list("place", flat=True))
        missing = newest.places - len(here)
    with suppress(CoatPegError):  # the pocket was locked meanwhile: told as it is settled
        _join(newest, now, without_missing=True)
        if missing and (told := purpose(newest.purpose).incomplete):
            told(newest, missing, now)
        return True
    return False


def read_from(stream: IO[bytes]) -> Callable[[int], bytes]:
    """Read a request's body; a cut connection is an end."""

    def read(most: int) -> bytes:
        try:
            return stream.read(most)
        except OSError:
            return b""

    return read
