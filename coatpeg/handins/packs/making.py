"""Packs: asked for, made by a worker with its progress to be seen, fetched by whoever asked, forgotten after a day."""

from __future__ import annotations

import os
import zipfile
from collections.abc import Iterable, Iterator
from datetime import datetime, timedelta
from pathlib import Path
from uuid import uuid4

from django.conf import settings
from django.utils import timezone

from coatpeg.core.errors import Busy, Gone
from coatpeg.core.people.file_names import Taken, file_name
from coatpeg.core.people.names import SortKey, sort_key
from coatpeg.core.policy import Action
from coatpeg.handins.handing.outcomes import submission_for
from coatpeg.handins.models import HandIn, KeptFacts, Pack, Submission
from coatpeg.handins.packs import paper
from coatpeg.handins.packs.contents import bytes_of, entries
from coatpeg.jobs.kinds import Kind, job
from coatpeg.people.access import require_for_student, require_in_group
from coatpeg.people.models import Person

KEPT = timedelta(days=1)
STEP = 5
"""Students between two notes of the progress."""
LONGEST = timedelta(minutes=20)
"""A year group's photos: some gigabytes, copied once."""


def folder() -> Path:
    """Where packs lie: beside the store, since they can be made again."""
    return Path(settings.VAR) / "packs"


def ask(person: Person, group_id: int, handin_id: int, now: datetime, form: str = "zip") -> Pack:
    """Ask for a pack of a hand-in of this class, as a zip or as one PDF."""
    require_in_group(person, Action.SEE_SUBMISSION, group_id)
    handin = HandIn.objects.filter(pk=handin_id, group_id=group_id).first()
    if handin is None:
        raise Gone("There is no such hand-in in this class.", fix="Go back to the hand-ins.")
    total = len(_newest(handin))
    pack = Pack.objects.create(key=str(uuid4()), handin=handin, person=person, asked_at=now, total=total, form=form)
    make_pack.enqueue(pack.pk)
    return pack


def ask_marked(person: Person, submission_id: int, now: datetime) -> Pack:
    """Ask for a marked copy of a submission that this person may read, as they see what is said on it."""
    submission = submission_for(person, Action.SEE_SUBMISSION, submission_id)
    pack = Pack.objects.create(
        key=str(uuid4()),
        handin=submission.handin,
        submission=submission,
        person=person,
        asked_at=now,
        total=1,
        form="pdf",
    )
    make_pack.enqueue(pack.pk)
    return pack


def pack_of(person: Person, key: str) -> Pack:
    """A pack that this person asked for, while they may still see what is in it."""
    rows = Pack.objects.select_related("handin", "submission__enrolment__person")
    pack = rows.filter(key=key, person=person).first()
    if pack is None:
        raise Gone("There is no such file any more.", fix="Ask for it again under Hand-ins.")
    if pack.submission is not None:
        require_for_student(person, Action.SEE_SUBMISSION, pack.submission.enrolment)
    else:
        require_in_group(person, Action.SEE_SUBMISSION, pack.handin.group_id)
    return pack


def path_of(pack: Pack) -> Path:
    """Where a pack lies that is ready; ``Busy`` until it is."""
    if pack.ready_at is None:
        raise Busy("The file is still being put together.", fix="Wait until it says that it is ready.")
    return folder() / f"{pack.key}.{pack.form}"


def name_of(pack: Pack) -> str:
    """The name under which it is saved."""
    whose = f" {pack.submission.enrolment.person.listed}" if pack.submission else ""
    return file_name(f"{pack.handin.title}{whose} {pack.asked_at:%Y-%m-%d}.{pack.form}")


def _newest(handin: HandIn) -> list[int]:
    kept = KeptFacts.objects.filter(handin=handin, newest__isnull=False)
    return [one for one in kept.values_list("newest", flat=True) if one]


def _given_up(pack_id: int, reason: str) -> None:
    Pack.objects.filter(pk=pack_id).update(problem=reason[:300])


@job(Kind("putting handed-in work together", limit=LONGEST, given_up=_given_up))
def make_pack(pack_id: int) -> int:
    """Make a pack; returns how many students are in it. Made again, it takes the place of what was begun."""
    rows = Pack.objects.select_related("handin", "person", "submission__enrolment__person", "submission__handin")
    pack = rows.filter(pk=pack_id, ready_at=None).first()
    if pack is None:
        return 0
    wanted = [pack.submission_id] if pack.submission_id else _newest(pack.handin)
    found = Submission.objects.filter(pk__in=wanted).select_related("enrolment__person", "handin")
    submissions = sorted(found, key=_place)
    Pack.objects.filter(pk=pack_id).update(total=len(submissions), done=0)
    folder().mkdir(parents=True, exist_ok=True)
    final = folder() / f"{pack.key}.{pack.form}"
    temporary = final.with_suffix(".part")
    if pack.submission is not None:
        temporary.write_bytes(paper.pages(pack.submission, paper.marks_on(pack.submission, pack.person)))
    elif pack.form == "pdf":
        paper.joined(_printed(pack_id, submissions), temporary)
    else:
        _write(temporary, pack_id, submissions)
    os.replace(temporary, final)
    Pack.objects.filter(pk=pack_id).update(ready_at=timezone.now(), done=len(submissions), size=final.stat().st_size)
    return len(submissions)


def _place(one: Submission) -> SortKey:
    return sort_key(one.enrolment.person.family_name, one.enrolment.person.given_name, one.pk)


def _write(path: Path, pack_id: int, submissions: Iterable[Submission]) -> None:
    taken, missing = Taken(), []
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED, compresslevel=1) as target:
        for number, one in enumerate(submissions, start=1):
            person = one.enrolment.person
            student = taken.give(file_name(person.listed))
            for entry in entries(one.snapshot):
                data = bytes_of(entry)
                if data is None:
                    missing.append(f"{student}/{entry.name}")
                else:
                    # What is compressed already is only carried.
                    kind = zipfile.ZIP_STORED if entry.sha256 else zipfile.ZIP_DEFLATED
                    target.writestr(f"{student}/{entry.name}", data, compress_type=kind)
            if number % STEP == 0:
                Pack.objects.filter(pk=pack_id).update(done=number)
        if missing:
            target.writestr("Not in here.txt", "\n".join(missing))


def _printed(pack_id: int, submissions: Iterable[Submission]) -> Iterator[bytes]:
    for number, one in enumerate(submissions, start=1):
        yield paper.pages(one)
        Pack.objects.filter(pk=pack_id).update(done=number)


def has_old() -> bool:
    """Whether any pack was kept long enough."""
    return Pack.objects.filter(asked_at__lt=timezone.now() - KEPT).exists()


@job(Kind("forgetting packs"))
def forget_packs() -> int:
    """Forget packs of yesterday with their files; returns how many."""
    old = Pack.objects.filter(asked_at__lt=timezone.now() - KEPT)
    for key in old.values_list("key", flat=True):
        for ending in ("zip", "pdf", "part"):
            (folder() / f"{key}.{ending}").unlink(missing_ok=True)
    return old.delete()[0]
