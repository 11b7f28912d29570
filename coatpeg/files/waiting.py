"""Pictures that have come and are not cleaned yet: safe at once, cleaned in the background, seen by nobody before.

A class that hands in its photographs in the last half minute would otherwise wait for each other's pictures to be
written anew. A picture that came up in parts is kept as it came, away from what is served, under a ``StoredFile`` of
its own that stands for it; so work, snapshots and receipts can name it, by the hash of what came. A worker cleans it
(``make_ready``); then everything that points at the row points at what is kept, whose hash is recorded beside it, and
the bytes that came are deleted. One that turns out to be broken is told to whoever brought it (``files.purposes``). The
same picture, turned and cropped in the same way, is cleaned once.
"""

from __future__ import annotations

import hashlib
from datetime import timedelta

from django.conf import settings
from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.portfolios.kinds import ArtefactKind
from coatpeg.files import keeping, media
from coatpeg.files.keeping import Kept
from coatpeg.files.models import StoredFile, Uncleaned, Upload
from coatpeg.files.pictures import Cut
from coatpeg.files.purposes import purpose
from coatpeg.files.storage import OwnedFile
from coatpeg.jobs.kinds import Kind, job
from coatpeg.jobs.schedules import enqueue_once

FIRST = 50
"""The priority of this work among the rest in the background: somebody looks at a page and waits."""
FORGOTTEN = timedelta(minutes=10)
"""One that waits for longer has lost its job."""
LATER = media.PICTURES - {"image/tiff"}
"""Kinds that can wait: of a TIFF it shows only then whether it is a picture, a scan of many pages or a raw file."""


def take(content: OwnedFile, name: str, cut: Cut, came: str) -> Kept | None:
    """Keep a picture as it came, to be cleaned later; None where it is none, or none that can wait.

    One that could not be read before is not put off again: whoever brings it hears at once.

    ``came`` is the SHA-256 of what came, or empty. Call it before the transaction that puts the picture in its place.
    """
    content.seek(0)
    kind = media.picture_type(content.read(media.HEAD))
    if kind not in LATER or not settings.CLEAN_PICTURES_LATER:
        return None
    keeping.refuse_without_room(content.size)
    came = came or keeping.hash_of(content)
    named = came if cut == Cut() else hashlib.sha256(" ".join((came, *cut.written())).encode()).hexdigest()
    known = StoredFile.objects.filter(sha256=named).select_related("uncleaned__became").first()
    if known is not None and hasattr(known, "uncleaned") and known.uncleaned.problem:
        return None
    if known is None or (hasattr(known, "uncleaned") and known.uncleaned.is_open):
        keeping.write(_path(named), content)
    if known is None:
        known = _new(named, content.size, kind, name, cut)
    if not hasattr(known, "uncleaned"):
        return Kept(known, came, ArtefactKind.PICTURE)  # it is what we wrote ourselves, brought back
    return Kept(known.uncleaned.became or known, came, ArtefactKind.PICTURE)


def _new(named: str, size: int, kind: str, name: str, cut: Cut) -> StoredFile:
    with transaction.atomic():
        stored, _ = StoredFile.objects.get_or_create(sha256=named, defaults={"size": size, "media_type": kind})
        of, made = Uncleaned.objects.get_or_create(
            stored=stored, defaults={"name": name, "turn": cut.turn, "crop": cut.crop, "asked_at": timezone.now()}
        )
        if made:
            make_ready.using(priority=FIRST).enqueue(of.pk)
    return stored


def _path(named: str) -> str:
    return f"waiting/{named}"


def settled(stored: StoredFile) -> StoredFile:
    """What to point at now, within the transaction that does: what is kept, where it is cleaned already."""
    of = Uncleaned.objects.select_for_update().filter(stored=stored).first()
    return of.became if of and of.became else stored


def _given_up(pk: int, why: str) -> None:
    """The worker ended again and again over this picture."""
    of = Uncleaned.objects.select_related("stored").get(pk=pk)
    _refuse(of, Invalid(f"“{of.name}” could not be read in three tries.", where="file", fix="Take or save it again."))


@job(Kind("making a picture ready", timedelta(seconds=300), given_up=_given_up))
def make_ready(pk: int) -> None:
    """Clean one picture; again changes nothing once it is done."""
    of = Uncleaned.objects.filter(pk=pk).select_related("stored").first()
    if of is None:
        return
    if of.is_open:
        _clean(of)
    keeping.store().delete(_path(of.stored.sha256))


def _clean(of: Uncleaned) -> None:
    try:
        with keeping.store().open(_path(of.stored.sha256), "rb") as content:
            kept = keeping.keep(content, of.name, cut=Cut(of.turn, tuple(of.crop) if of.crop else None))
    except FileNotFoundError:
        _refuse(of, Gone(f"“{of.name}” is not in the store any more.", where="file", fix="Add it once more."))
    except Invalid as error:
        _refuse(of, error)
    else:
        _become(of, kept.stored)


def _become(of: Uncleaned, kept: StoredFile) -> None:
    """Let everything that points at what came point at what is kept, and tell whoever brought it."""
    with transaction.atomic():
        locked = Uncleaned.objects.select_for_update().get(pk=of.pk)
        if not locked.is_open:
            return
        brought = list(Upload.objects.filter(stored=of.stored).exclude(done_at=None).select_related("person"))
        for relation in StoredFile._meta.related_objects:
            if relation.related_model is not Uncleaned:
                rows = relation.related_model._default_manager.filter(**{relation.field.name: of.stored})
                rows.update(**{relation.field.name: kept})
        locked.became = kept
        locked.save(update_fields=["became"])
        for one in brought:
            if ready := purpose(one.purpose).ready:
                ready(one, timezone.now())


def _refuse(of: Uncleaned, error: Invalid | Gone) -> None:
    """It cannot be read: kept as that, and told to whoever brought it."""
    problem = {"what": error.what, "where": error.where, "fix": error.fix}
    with transaction.atomic():
        if not Uncleaned.objects.filter(pk=of.pk, became=None, problem__isnull=True).update(problem=problem):
            return
        for one in Upload.objects.filter(stored=of.stored, refused__isnull=True).select_related("person"):
            one.refused = problem
            one.save(update_fields=["refused"])
            if one.done_at and (unreadable := purpose(one.purpose).unreadable):
                unreadable(one, timezone.now())


def are_forgotten() -> bool:
    """Whether any picture waits for no job."""
    return _open().filter(asked_at__lt=timezone.now() - FORGOTTEN).exists()


@job(Kind("asking anew for pictures to be made ready"))
def ask_anew() -> None:
    """Give every picture that waits a job."""
    for pk in _open().values_list("pk", flat=True):
        enqueue_once(make_ready, pk)


def _open() -> QuerySet[Uncleaned]:
    return Uncleaned.objects.filter(became=None, problem__isnull=True)
