"""How stored files are shown in the page: asked for when a file comes in, made in the background, once for the same
bytes.

A conversion that ended the worker three times is given up. The original is always kept and offered.
"""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
from collections.abc import Mapping
from datetime import datetime
from pathlib import Path
from typing import Any

from django.core.files.base import ContentFile
from django.db import transaction
from django.db.models import F

from coatpeg.core.errors import Gone
from coatpeg.portfolios import files
from coatpeg.portfolios.converting import converter_of
from coatpeg.portfolios.models import Artefact, Preview, StoredFile

MOST_TRIES = 3
LONGEST = 120
"""Seconds on the wall that one conversion may take: twice its processor time, for a busy machine."""
DOCUMENT = "view"


def ask(stored: StoredFile, name: str, now: datetime) -> Preview | None:
    """See to it that a file will be shown; None where there is no viewer for its kind."""
    if converter_of(stored.media_type, name) is None:
        return None
    kind = "csv" if name.lower().endswith((".csv", ".tsv")) else ""
    made, _ = Preview.objects.get_or_create(stored=stored, defaults={"asked_at": now, "kind": kind})
    return made


def view_of(artefact: Artefact, now: datetime) -> dict[str, Any]:
    """How an artefact's file is shown: ``state`` none, waiting, done or failed.

    ``kind``, ``pages``, and ``why`` not.
    """
    assert artefact.stored is not None
    preview = ask(artefact.stored, artefact.title, now)
    if preview is None:
        return {"state": "none", "kind": "", "pages": 0, "why": ""}
    return {"state": preview.state, "kind": preview.kind, "pages": preview.pages, "why": preview.why}


def document_of(artefact: Artefact) -> Mapping[str, Any]:
    """The document that shows a file, as the converter made it."""
    stored = artefact.stored
    if stored is None or not Preview.objects.filter(stored=stored, state=Preview.State.DONE).exists():
        raise Gone("This file is not ready to be shown.", fix="Download it, or look again in a moment.")
    with files.opened(stored.sha256, DOCUMENT) as content:
        found: Mapping[str, Any] = json.load(content)
    return found


def convert_next() -> bool:
    """Make the next preview that is waited for; False where there is none. For the background process."""
    with transaction.atomic():
        waiting = Preview.objects.select_for_update(skip_locked=True).filter(state=Preview.State.WAITING)
        preview = waiting.filter(tries__lt=MOST_TRIES).select_related("stored").order_by("tries", "asked_at").first()
        if preview is None:
            waiting.update(state=Preview.State.FAILED, why="It could not be read in three tries.")
            return False
        Preview.objects.filter(pk=preview.pk).update(tries=F("tries") + 1)
    state, document = _converted(preview)
    preview.state = state
    preview.kind, preview.pages = document.get("kind", ""), document.get("pages", 0)
    preview.why = document.get("why", "")[:300]
    preview.save(update_fields=["state", "kind", "pages", "why"])
    return True


def _converted(preview: Preview) -> tuple[Preview.State, dict[str, Any]]:
    stored = preview.stored
    with tempfile.TemporaryDirectory() as folder:
        source, out = Path(folder) / "in", Path(folder) / "out"
        out.mkdir()
        with files.opened(stored.sha256) as content, open(source, "wb") as copy:
            while part := content.read(1024 * 1024):
                copy.write(part)
        name = "table.csv" if preview.kind == "csv" else "file"
        words = [sys.executable, "-m", "coatpeg.portfolios.converting", str(source), str(out), stored.media_type, name]
        try:
            done = subprocess.run(words, capture_output=True, text=True, timeout=LONGEST)
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
    path = files.path_of(stored.sha256, part)
    if not files.store().exists(path):
        files.store().save(path, ContentFile(data))
