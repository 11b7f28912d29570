"""Files that come up in parts, and what they become.

The bytes lie in the folder of what comes in, under the upload's key; how many are there is how long that file is, so
nothing has to be written down with each part, and whatever ends the server leaves an upload that goes on where it
was. Whoever writes holds the lock file beside it. Decided here: what an upload becomes is fixed when it begins; it
becomes that in the request that brings its last byte (``settle``), once, also when that request's answer is lost; one
that was never finished goes after seven days; who may write is asked anew with every part. A page of several
photographed ones waits for the others of its batch.
"""

from __future__ import annotations

import fcntl
import hashlib
import re
import secrets
import shutil
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import IO

from django.conf import settings
from django.db import transaction
from django.db.models import Sum

from coatpeg.core import intake
from coatpeg.core.errors import Busy, CoatPegError, Gone, Invalid, Refused, Stale, TooLarge
from coatpeg.core.policy import Action
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_for_student
from coatpeg.people.models import Person
from coatpeg.portfolios import files, spoken, starters
from coatpeg.portfolios.commands import artefact_of, put, take_in, writing
from coatpeg.portfolios.models import Artefact, Evidence, Portfolio, Upload
from coatpeg.portfolios.pictures import WHOLE, Cut
from coatpeg.portfolios.storage import OwnedFile

LIFE = timedelta(days=7)
"""How long an unfinished upload is kept: a lid closed on Friday opens on Monday, with days to spare."""
MOST_UNDER_WAY = 100
"""Unfinished uploads of one portfolio: a batch of 60 artefacts and some that were given up."""
MOST_PAGES = 40
"""Photographed pages in one artefact; a whole exercise book."""
ROOM_LEFT = 512 * 1024 * 1024
"""Bytes that stay free on the disk, so that texts can be saved while somebody sends films."""
MOST_BYTES_UNDER_WAY = 8 * 1024**3
"""Bytes of all unfinished uploads of one portfolio: four of the largest films."""
PART = 1024 * 1024
_BATCH = re.compile(r"^[A-Za-z0-9-]{0,36}$")


@dataclass(frozen=True, slots=True)
class Wish:
    """What an upload is to become, as its metadata say it."""

    portfolio: int
    pocket: int
    name: str
    size: int
    spoken: bool = False
    spoken_on: int | None = None
    replaces: int | None = None
    cut: Cut = WHOLE
    batch: str = ""
    place: int = 0
    places: int = 0

    @classmethod
    def read(cls, pairs: dict[str, str], size: int) -> Wish:
        """From the pairs of ``Upload-Metadata``.

        Portfolio, pocket, name, and where wanted spoken, evidence, replaces, turn, crop, batch, place, places.
        """

        def number(name: str) -> int:
            text = pairs.get(name, "") or "0"
            if not text.isascii() or not text.isdigit() or len(text) > 18:
                raise Invalid(f"“{name}” is “{text[:30]}”.", where=name, fix="Send a whole number.")
            return int(text)

        wish = cls(
            number("portfolio"),
            number("pocket"),
            pairs.get("name", ""),
            size,
            pairs.get("spoken") == "1",
            number("evidence") or None,
            number("replaces") or None,
            Cut.read(pairs.get("turn", ""), pairs.get("crop", "")),
            pairs.get("batch", ""),
            number("place"),
            number("places"),
        )
        wrong = wish.batch and not (2 <= wish.places <= MOST_PAGES and wish.place < wish.places)
        if wrong or not _BATCH.match(wish.batch):
            raise Invalid(
                f"Page {wish.place + 1} of {wish.places} cannot be joined; 2 to {MOST_PAGES} pages make one artefact.",
                where="batch",
                fix="Join fewer pages, or add them one by one.",
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
    """A new upload, empty; refused at once where it could not be kept in the end."""
    portfolio = _portfolio(person, wish.portfolio)
    pocket = pockets_of(portfolio.enrolment.group_id).filter(pk=wish.pocket).first()
    if pocket is None:
        raise Gone("There is no such pocket in this portfolio.", fix="Go back to your pockets.")
    if wish.size > settings.UPLOAD_LIMIT:
        raise TooLarge(
            f"The file is larger than {settings.UPLOAD_LIMIT / 1024**2:.0f} MB, the most this school takes.",
            where="file",
            fix="Make it smaller, or put a link to it.",
        )
    title, note = intake.tidy_title(wish.name)
    if not wish.size:
        raise Invalid(
            f"“{title}” is empty (0 bytes).", where="file", fix="Save it again on your device, then add it once more."
        )
    spoken_on = spoken.said_about(person, portfolio.pk, pocket.pk, wish.spoken_on, now) if wish.spoken else None
    replaces = Evidence.objects.filter(
        pk=wish.replaces or 0, portfolio=portfolio, pocket=pocket, removed_at=None
    ).first()
    if wish.replaces and replaces is None:
        raise Gone("There is no such artefact in this pocket.", fix="Load the pocket again.")
    if _room() - wish.size < ROOM_LEFT:
        raise Refused(
            "The school's disk has no room for a file of this size.",
            where="file",
            fix="Tell your teacher; keep the file.",
        )
    under_way = portfolio.uploads.filter(done_at=None, refused__isnull=True)
    if (under_way.aggregate(all=Sum("size"))["all"] or 0) + wish.size > MOST_BYTES_UNDER_WAY:
        raise Refused(
            f"{MOST_BYTES_UNDER_WAY // 1024**3} GB of files are on their way already.",
            where="file",
            fix="Wait until some have come up.",
        )
    if under_way.count() >= MOST_UNDER_WAY:
        raise Refused(
            f"{MOST_UNDER_WAY} files are on their way already.", where="file", fix="Wait until some have come up."
        )
    upload = Upload.objects.create(
        key=secrets.token_urlsafe(32),
        portfolio=portfolio,
        pocket=pocket,
        person=person,
        spoken_on=spoken_on,
        replaces=replaces,
        name=title,
        note=note,
        size=wish.size,
        turn=wish.cut.turn,
        crop=wish.cut.crop,
        batch=wish.batch,
        place=wish.place,
        places=wish.places,
        begun_at=now,
    )
    path_of(upload).touch(mode=0o600)
    return upload


def _room() -> int:
    """Free bytes of the disk.

    Without those that uploads under way were promised (what of them is here counts twice).
    """
    promised = Upload.objects.filter(done_at=None, refused__isnull=True, stored=None).aggregate(all=Sum("size"))["all"]
    return shutil.disk_usage(_folder()).free - (promised or 0)


def _portfolio(person: Person, portfolio_id: int) -> Portfolio:
    portfolio = Portfolio.objects.filter(pk=portfolio_id).select_related("enrolment").first()
    if portfolio is None:
        raise Gone("There is no such portfolio.", fix="Go back to your pockets.")
    require_for_student(person, Action.FILL_POCKET, portfolio.enrolment)
    return portfolio


def named(person: Person, key: str) -> Upload:
    """An upload that this person began; ``Gone`` for everybody else, and once it is refused or its time is over."""
    upload = Upload.objects.filter(key=key, person=person).select_related("portfolio__enrolment", "result").first()
    if upload is None:
        raise Gone("There is no such upload.", fix="Send the file from its beginning.")
    require_for_student(person, Action.FILL_POCKET, upload.portfolio.enrolment)
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
    try:
        kept = files.keep(
            content, upload.name, cut=Cut(upload.turn, tuple(upload.crop) if upload.crop else None), came=came
        )
    finally:
        content.close()
    if upload.batch and kept.kind != Artefact.Kind.PICTURE:
        raise Invalid(
            f"“{upload.name}” is no picture, so it cannot be a page.", where="file", fix="Add it as a file of its own."
        )
    upload.stored, upload.came_sha256 = kept.stored, kept.came_sha256
    upload.save(update_fields=["stored", "came_sha256"])


def _kept(upload: Upload) -> files.Kept:
    assert upload.stored is not None
    return files.Kept(upload.stored, upload.came_sha256, files.kind_of(upload.stored))


def _place(upload: Upload, now: datetime) -> None:
    """Put one file into its pocket, or let it be what is said about an artefact."""
    with transaction.atomic():
        if upload.spoken_on_id:
            evidence = spoken.say(upload.person, upload.spoken_on_id, _kept(upload), upload.name, now)
        elif upload.replaces_id:
            evidence = starters.replace(upload.person, upload.replaces_id, _kept(upload), upload.name, now)
        else:
            evidence = take_in(upload.person, upload.portfolio_id, upload.pocket_id, _kept(upload), upload.name, now)
        _done([upload], evidence, now)


def _join(upload: Upload, now: datetime) -> None:
    """Where all pages of a batch are here, make one artefact of them."""
    pages = _pages(upload)
    if pages is None:
        return
    stored = files.keep_pages([one.stored for one in pages if one.stored])
    with writing(upload.person, upload.portfolio_id, upload.pocket_id, now) as place:
        if Upload.objects.filter(pk=upload.pk, done_at=None).exists():
            kept = files.Kept(stored, stored.sha256, Artefact.Kind.SCAN)
            made = artefact_of(place, kept, upload.name)
            _done(
                pages, put(place, made, came=",".join(one.came_sha256[:16] for one in pages), kept=stored.sha256), now
            )


def _join_without(refused: Upload, now: datetime) -> None:
    """A page was refused: where it was the last one missing, the others are joined without it."""
    if refused.batch:
        here = refused.portfolio.uploads.filter(batch=refused.batch, done_at=None, refused__isnull=True)
        other = here.exclude(stored=None).select_related("person", "portfolio").first()
        if other is not None:
            with suppress(CoatPegError):  # the pocket was locked meanwhile: they are refused as they are settled
                _join(other, now)


def _pages(upload: Upload) -> list[Upload] | None:
    """The uploads of a batch in the order of its pages, without those that were refused.

    None while some are missing.
    """
    here = upload.portfolio.uploads.filter(
        batch=upload.batch, pocket=upload.pocket_id, done_at=None, refused__isnull=True
    )
    of_place = {one.place: one for one in here.exclude(stored=None).select_related("stored")}
    refused = upload.portfolio.uploads.filter(batch=upload.batch, pocket=upload.pocket_id, refused__isnull=False)
    missing = set(range(upload.places)) - set(of_place) - set(refused.values_list("place", flat=True))
    return [one for _, one in sorted(of_place.items())] if of_place and not missing else None


def _done(uploads: list[Upload], evidence: Evidence, now: datetime) -> None:
    for one in uploads:
        one.done_at, one.result = now, evidence
        one.save(update_fields=["done_at", "result"])


def _forget(upload: Upload) -> None:
    """Nothing of it is needed in the folder any more."""
    path_of(upload).unlink(missing_ok=True)
    (_folder() / f"{upload.key}.lock").unlink(missing_ok=True)


def give_up(upload: Upload) -> None:
    """Let an upload go; what it became stays."""
    with _held(upload):
        _forget(upload)
        upload.delete()


def sweep(now: datetime) -> int:
    """Let go what was never finished, and finish what has all its bytes; returns how many of both.

    For the background process.
    """
    old = Upload.objects.filter(begun_at__lt=now - LIFE)
    for upload in old:
        _forget(upload)
    gone, _ = old.delete()
    finished = 0
    for upload in Upload.objects.filter(done_at=None, refused__isnull=True, batch="").select_related(
        "person", "portfolio"
    ):
        try:
            if offset(upload) == upload.size:
                finished += settle(upload, now).done_at is not None
        except CoatPegError:
            continue  # written by somebody just now, or refused with its reason beside it
    return gone + finished


def read_from(stream: IO[bytes]) -> Callable[[int], bytes]:
    """Read a request's body; a cut connection is an end."""

    def read(most: int) -> bytes:
        try:
            return stream.read(most)
        except OSError:
            return b""

    return read
