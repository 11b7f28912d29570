"""How stored files are shown in the page: asked for when a file comes in, made in the background, once for the same
bytes.

A file over which the worker ended three times is given up. The original is always kept and offered.
"""

from __future__ import annotations

import json
import subprocess
import tempfile
from collections.abc import Iterable, Mapping
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

from django.core.files.base import ContentFile
from django.db import transaction
from django.utils import timezone

from coatpeg.core.errors import Gone
from coatpeg.files import fenced, keeping
from coatpeg.files.converting import converter_of, lacks_office
from coatpeg.files.models import Preview, StoredFile
from coatpeg.jobs.kinds import Kind, job
from coatpeg.jobs.schedules import enqueue_once

LONGEST = 120
"""Seconds on the wall that one conversion may take: twice its processor time, for a busy machine."""
NO_OFFICE = "This installation has no LibreOffice, so files of this kind are not shown in the page."
DOCUMENT = "view"


def ask(stored: StoredFile, name: str, now: datetime) -> Preview | None:
    """See to it that a file will be shown; None where there is no viewer for its kind."""
    if converter_of(stored.media_type, name) is None:
        return None
    kind = "csv" if name.lower().endswith((".csv", ".tsv")) else ""
    with transaction.atomic():
        preview, made = Preview.objects.get_or_create(stored=stored, defaults={"asked_at": now, "kind": kind})
        if made:
            make_readable.enqueue(preview.pk)
    return preview


def view_of(stored: StoredFile, title: str, now: datetime) -> dict[str, Any]:
    """How a file of that title is shown: ``state`` none, waiting, done or failed.

    ``kind``, ``pages``, and ``why`` not.
    """
    preview = ask(stored, title, now)
    if preview is None:
        return {"state": "none", "kind": "", "pages": 0, "why": NO_OFFICE if lacks_office(stored.media_type) else ""}
    return {"state": preview.state, "kind": preview.kind, "pages": preview.pages, "why": preview.why}


def document_of(stored: StoredFile) -> Mapping[str, Any]:
    """The document that shows a file, as the converter made it."""
    if not Preview.objects.filter(stored=stored, state=Preview.State.DONE).exists():
        raise Gone("This file is not ready to be shown.", fix="Download it, or look again in a moment.")
    with keeping.opened(stored.sha256, DOCUMENT) as content:
        found: Mapping[str, Any] = json.load(content)
    return found


WITH_WORDS = ("html", "text")
"""Documents that are shown as words, not as pages or tables."""


def words_of(stored: Iterable[StoredFile]) -> dict[int, tuple[str, str]]:
    """Of files that are shown as words: how (``html`` or ``text``) and what is shown, by the file's id; one query."""
    files = {one.pk: one for one in stored}
    rows = Preview.objects.filter(stored__in=files, state=Preview.State.DONE, kind__in=WITH_WORDS)
    found = {}
    for pk, kind in rows.values_list("stored_id", "kind"):
        with keeping.opened(files[pk].sha256, DOCUMENT) as content:
            found[pk] = (kind, json.load(content)[kind])
    return found


def _cannot_be_shown(preview_id: int, why: str) -> None:
    """The worker ended again and again over this file."""
    rows = Preview.objects.filter(pk=preview_id, state=Preview.State.WAITING)
    rows.update(state=Preview.State.FAILED, why="It could not be read in three tries.")


@job(Kind("making a file readable", timedelta(seconds=LONGEST + 60), given_up=_cannot_be_shown))
def make_readable(preview_id: int) -> None:
    """Make one preview; again changes nothing once it is made."""
    preview = Preview.objects.select_related("stored").filter(pk=preview_id, state=Preview.State.WAITING).first()
    if preview is None:
        return
    state, document = _converted(preview)
    preview.state = state
    preview.kind, preview.pages = document.get("kind", ""), document.get("pages", 0)
    preview.why = document.get("why", "")[:300]
    preview.save(update_fields=["state", "kind", "pages", "why"])


FORGOTTEN = timedelta(minutes=10)
"""A preview that waits for longer has lost its job, or was asked for by an earlier version."""


def are_forgotten() -> bool:
    """Whether any preview waits for no job."""
    return Preview.objects.filter(state=Preview.State.WAITING, asked_at__lt=timezone.now() - FORGOTTEN).exists()


@job(Kind("asking anew for files to be made readable"))
def ask_anew() -> None:
    """Give every preview that waits a job."""
    for pk in Preview.objects.filter(state=Preview.State.WAITING).values_list("pk", flat=True):
        enqueue_once(make_readable, pk)


def _converted(preview: Preview) -> tuple[Preview.State, dict[str, Any]]:
    stored = preview.stored
    with tempfile.TemporaryDirectory() as folder:
        source, out = Path(folder) / "in", Path(folder) / "out"
        out.mkdir()
        with keeping.opened(stored.sha256) as content, open(source, "wb") as copy:
            while part := content.read(1024 * 1024):
                copy.write(part)
        name = "table.csv" if preview.kind == "csv" else "file"
        words = (str(source), str(out), stored.media_type, name)
        try:
            done = fenced.run("coatpeg.files.converting", *words, seconds=LONGEST, folder=Path(folder))
        except subprocess.TimeoutExpired:
            return Preview.State.FAILED, {"why": "It takes too long to show."}
        if done.returncode:
            why = done.stdout.strip().splitlines()[-1:] if done.returncode == 3 else []
            return Preview.State.FAILED, {"why": why[0] if why else "It takes more to show than there is for one file."}
        document: dict[str, Any] = json.loads((out / "view.json").read_text())
        for number in range(document.get("pages", 0)):
            _keep(stored, f"page-{number + 1}", (out / f"page-{number + 1}").read_bytes())
        _keep(stored, DOCUMENT, (out / "view.json").read_bytes())
    return Preview.State.DONE, document


def _keep(stored: StoredFile, part: str, data: bytes) -> None:
    path = keeping.path_of(stored.sha256, part)
    if not keeping.store().exists(path):
        keeping.store().save(path, ContentFile(data))
