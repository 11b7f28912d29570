"""Everything handed in for a hand-in on paper: one PDF, each student's work beginning on a page of its own.

Decided here: pictures fill at most a page; documents are printed as the viewer shows them, a PDF page by page; of
recordings there is a line that says they are not on paper, links stand with their address. What cannot be had or shown
is named where it would stand. Nothing in a student's work is fetched: pictures lie in the page as data.
"""

from __future__ import annotations

import base64
import io
import re
from collections.abc import Callable, Iterator, Mapping
from functools import partial
from html import escape
from pathlib import Path
from typing import Any

from django.utils import timezone
from PIL import Image

from coatpeg.core.errors import CoatPegError
from coatpeg.files import keeping, media, previews
from coatpeg.files.models import Preview, StoredFile
from coatpeg.files.paper import FAMILY, face, printed
from coatpeg.files.recordings import is_playable
from coatpeg.handins.models import Submission
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios.logs.reading import frozen_rows
from coatpeg.portfolios.models import Artefact

STYLE = f"""
@page {{ size: A4; margin: 16mm 14mm 18mm;
  @bottom-left {{ content: string(whose); font: 8pt {FAMILY}; }}
  @bottom-right {{ content: counter(page) " / " counter(pages); font: 8pt {FAMILY}; }} }}
body {{ margin: 0; color: #1d2b3a; font: 10.5pt/1.45 {FAMILY}; overflow-wrap: anywhere; }}
.whose {{ font-size: 16pt; margin: 0; string-set: whose content(text); }}
h2 {{ font-size: 12.5pt; margin: 7mm 0 1mm; break-after: avoid; border-bottom: 0.3mm solid #1d2b3a; }}
h3 {{ font-size: 10.5pt; margin: 4mm 0 1mm; break-after: avoid; }}
.quiet {{ color: #44545f; margin: 0.5mm 0 2mm; }}
img {{ max-width: 100%; max-height: 225mm; display: block; margin: 1mm 0 2mm; }}
.page {{ border: 0.2mm solid #c9d2d8; }}
pre {{ white-space: pre-wrap; font: 9pt/1.4 "DejaVu Sans Mono", monospace; }}
table {{ border-collapse: collapse; width: 100%; font-size: 9pt; }}
td, th {{ border: 0.2mm solid #9aa7b0; padding: 1mm 1.5mm; text-align: left; vertical-align: top; }}
thead {{ display: table-header-group; }}
svg {{ display: block; margin: 1mm 0 2mm; }}
mark {{ background: #fff0c2; color: inherit; }}
.said {{ margin: 2mm 0 3mm; padding: 1.5mm 3mm 1.5mm 8mm; border-left: 0.8mm solid #a94a14; }}
.said li {{ margin: 1mm 0; }}
.said .plain {{ list-style: none; }}
blockquote {{ margin: 1mm 0 1mm 3mm; padding-left: 3mm; border-left: 0.6mm solid #9aa7b0; }}
"""
WIDEST, TALLEST = 182, 225
"""Millimetres that a picture has room for on a page."""
MOST_ROWS = 500
"""Rows of one table on paper; how many more there are is said."""
_PICTURE = re.compile(r'src="/api/artefacts/(\d{1,18})/thumbnails/large"')


class Marks:
    """What is said on a submission, to be printed with it; this one says nothing."""

    def over(self, pocket: int, evidence: int, page: int | None, width: int, height: int) -> str:
        """What lies over a picture or a page, as SVG in its own pixels."""
        return ""

    def text(self, pocket: int, evidence: int, text: str) -> str:
        """Plain words with what is marked in them, as HTML; empty where nothing is."""
        return ""

    def below(self, pocket: int | None, evidence: int | None = None) -> str:
        """What is said on it in words, as HTML."""
        return ""


NO_MARKS = Marks()
_MARKS: list[Callable[[Submission, Person], Marks]] = []


def register_marks(of: Callable[[Submission, Person], Marks]) -> None:
    """Say who knows what is said on a submission, as somebody may see it; once, as the application starts."""
    _MARKS[:] = [of]


def marks_on(submission: Submission, person: Person) -> Marks:
    """What is said on a submission, as this person sees it."""
    return _MARKS[0](submission, person) if _MARKS else NO_MARKS


def pages(one: Submission, marks: Marks = NO_MARKS) -> bytes:
    """One submission as PDF, with what is said on it."""
    person = one.enrolment.person
    name = escape(person.listed)
    at = one.at.astimezone(school_calendar().zoneinfo)
    body = "".join(_pocket(pocket, marks) for pocket in one.snapshot["pockets"])
    return printed(
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{name}</title>'
        f'<style>{face()}{STYLE}</style></head><body><h1 class="whose">{name}</h1>'
        f'<p class="quiet">{escape(one.handin.title)} · handed in {at:%A %-d %B %Y, %H:%M} · {escape(one.receipt)}</p>'
        f"{marks.below(None)}{body}</body></html>"
    )


def joined(parts: Iterator[bytes], target: Path) -> None:
    """Several PDFs as one, in their order; of none, a page that says so."""
    import pypdfium2  # noqa: PLC0415

    whole = pypdfium2.PdfDocument.new()
    for part in parts:
        opened = pypdfium2.PdfDocument(part)
        whole.import_pages(opened)
        opened.close()
    if not len(whole):
        nothing = "<p>Nobody has handed in yet.</p>"
        empty = pypdfium2.PdfDocument(
            printed(f"<!doctype html><title>-</title><style>{face()}{STYLE}</style>{nothing}")
        )
        whole.import_pages(empty)
        empty.close()
    whole.save(str(target))
    whole.close()


Over = Callable[[int | None, int, int], str]
"""What lies over a picture (None) or a page from 1 on, of a width and a height in pixels."""


def _pocket(pocket: Mapping[str, Any], marks: Marks) -> str:
    parts = [f"<h2>{escape(pocket['title'])}</h2>"]
    for one in pocket["evidence"]:
        over = partial(marks.over, pocket["id"], one["id"])
        for artefact, above in ((one["artefact"], over), (one.get("spoken"), _nothing)):
            if artefact:
                parts.append(f"<h3>{escape(artefact['title'])}</h3>{_artefact(artefact, above)}")
        if one["artefact"] and pocket["prompt"] and one["text"].strip():
            parts.append(f'<p class="quiet">{escape(pocket["prompt"])}</p>')
        plain = marks.text(pocket["id"], one["id"], one["text"]) or _plain(one["text"])
        parts.append(_with_pictures(one["html"]) if one.get("html") else plain)
        parts.append(marks.below(pocket["id"], one["id"]))
    if pocket.get("log") and pocket["log"]["rows"]:
        parts.append(_table(frozen_rows(pocket["log"])))
    if len(parts) == 1:
        parts.append(_said("Nothing was in it."))
    return "".join((*parts, marks.below(pocket["id"])))


def _nothing(page: int | None, width: int, height: int) -> str:
    return ""


def _artefact(artefact: Mapping[str, Any], over: Over) -> str:
    if artefact["link"]:
        return _said(artefact["link"])
    if artefact.get("html"):
        return _with_pictures(artefact["html"])
    kept, kind = artefact["sha256"], artefact["media_type"]
    if kind.startswith("image/"):
        shown = _picture(kept, "large", over) or _picture(kept, "", over)
        return shown or _said("This picture cannot be had now.")
    if is_playable(kind):
        return _said("A recording: it is not on paper. It lies in the zip.")
    stored = StoredFile.objects.filter(sha256=kept).first()
    return _document(stored, artefact["title"], over) if stored else _said("This file cannot be had now.")


def _picture(sha256: str, part: str, over: Over = _nothing, page: int | None = None) -> str:
    try:
        with keeping.opened(sha256, part) as content:
            data = content.read()
    except CoatPegError:
        return ""
    kind = media.media_type(data[:64])
    source = f"data:{kind};base64,{base64.b64encode(data).decode()}"
    with Image.open(io.BytesIO(data)) as picture:
        width, height = picture.size
    above = over(page, width, height)
    if not above:
        return f'<img alt="" src="{source}">'
    # As large as it goes on the page: both lie in one drawing, so that they never part.
    wide = min(WIDEST, TALLEST * width / height)
    size = f'viewBox="0 0 {width} {height}" width="{wide:.1f}mm" height="{wide * height / width:.1f}mm"'
    below = f'<image href="{source}" width="{width}" height="{height}"/>'
    return f'<svg xmlns="http://www.w3.org/2000/svg" {size}>{below}{above}</svg>'


def _document(stored: StoredFile, title: str, over: Over) -> str:
    """A document as the viewer shows it; made ready here where nobody has looked at it yet."""
    preview = previews.ask(stored, title, timezone.now())
    if preview is not None and preview.state == Preview.State.WAITING:
        try:
            previews.make_readable.func(preview.pk)
        except CoatPegError:
            return _said("This file cannot be had now.")
        preview.refresh_from_db()
    if preview is None or preview.state != Preview.State.DONE:
        return _said("This file is not shown on paper. It lies in the zip.")
    if preview.pages:
        numbers = range(1, preview.pages + 1)
        shown = (_picture(stored.sha256, f"page-{number}", over, number) for number in numbers)
        return "".join(one.replace("<img", '<img class="page"') for one in shown)
    found = previews.document_of(stored)
    if found["kind"] == "html":
        return str(found["html"])
    if found["kind"] == "tables":
        return "".join(f"<h3>{escape(one['name'])}</h3>{_table(one['rows'], head=False)}" for one in found["tables"])
    return f"<pre>{escape(found['text'])}</pre>"


def _with_pictures(html: str) -> str:
    """A student's rich text with the pictures that stand in it."""
    kept = dict(
        Artefact.objects.filter(pk__in=[int(one) for one in _PICTURE.findall(html)]).values_list("pk", "stored__sha256")
    )

    def shown(found: re.Match[str]) -> str:
        picture = _picture(kept.get(int(found[1])) or "", "large") if kept.get(int(found[1])) else ""
        source = re.search(r'src="[^"]*"', picture)
        return source[0] if source else ""

    return _PICTURE.sub(shown, html)


def _plain(text: str) -> str:
    return "".join(f"<p>{escape(line)}</p>" for line in text.split("\n") if line.strip())


def _table(rows: list[list[str]], *, head: bool = True) -> str:
    first, rest = (rows[:1], rows[1:]) if head else ([], rows)
    heads = "".join(f"<tr>{''.join(f'<th>{escape(cell)}</th>' for cell in row)}</tr>" for row in first)
    lines = "".join(f"<tr>{''.join(f'<td>{escape(cell)}</td>' for cell in row)}</tr>" for row in rest[:MOST_ROWS])
    more = _said(f"{len(rest) - MOST_ROWS} more rows are not on paper.") if len(rest) > MOST_ROWS else ""
    return f"<table><thead>{heads}</thead><tbody>{lines}</tbody></table>{more}"


def _said(text: str) -> str:
    return f'<p class="quiet">{escape(text)}</p>'
