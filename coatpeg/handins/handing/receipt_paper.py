"""A receipt on paper: what was handed in, when, and the checksums by which it can be proved.

The checksum of a file is that of its bytes (``sha256sum``), as it came and as it is kept; that of a text is of its
words in UTF-8; the one of the whole submission is of its frozen document (``core.handins.snapshots``).
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from html import escape
from typing import Any

from coatpeg.core.errors import Gone
from coatpeg.core.handins.snapshots import text_digest
from coatpeg.core.policy import Action
from coatpeg.files.paper import FAMILY, face, printed
from coatpeg.handins.lines import handed_in_for
from coatpeg.handins.models import Submission
from coatpeg.people.access import require_for_student
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person, School

STYLE = f"""
@page {{ size: A4; margin: 18mm 16mm;
  @bottom-right {{ content: counter(page) " / " counter(pages); font: 8pt {FAMILY}; }} }}
body {{ margin: 0; color: #1d2b3a; font: 10pt/1.35 {FAMILY}; }}
h1 {{ font-size: 19pt; margin: 0 0 2mm; }}
h2 {{ font-size: 12pt; margin: 6mm 0 1mm; break-after: avoid; }}
dl {{ display: grid; grid-template-columns: 34mm 1fr; gap: 1mm 4mm; margin: 4mm 0; }}
dt {{ color: #44545f; }} dd {{ margin: 0; overflow-wrap: anywhere; }}
.code {{ font-size: 16pt; font-weight: bold; letter-spacing: 0.5pt; }}
ul {{ margin: 0; padding: 0; list-style: none; }}
li {{ border-top: 0.2mm solid #c9d2d8; padding: 1.5mm 0; break-inside: avoid; overflow-wrap: anywhere; }}
.sum {{ font: 7.5pt "DejaVu Sans Mono", monospace; color: #44545f; display: block; }}
.note {{ color: #44545f; margin-top: 6mm; }}
"""


def receipt_pdf(person: Person, submission_id: int) -> tuple[bytes, str]:
    """The receipt of a submission as PDF, and its code; for whoever may read the submission."""
    found = Submission.objects.select_related("handin", "enrolment__person", "enrolment__group", "by")
    one = found.filter(pk=submission_id).first()
    if one is None:
        raise Gone("There is no such submission.", fix="Go back to your pockets.")
    require_for_student(person, Action.SEE_SUBMISSION, one.enrolment)
    school = School.objects.first()
    title = f"Receipt {one.receipt}"
    pockets = "".join(_pocket(pocket) for pocket in one.snapshot["pockets"])
    text = (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{title}</title>'
        f"<style>{face()}{STYLE}</style></head><body><h1>{title}</h1>"
        f"<dl>{''.join(_facts(one, school.name if school else ''))}</dl>{pockets}"
        '<p class="note">The checksums are SHA-256: of a file, over its bytes; of a text, over its words in UTF-8.'
        " What a link leads to may change; its address is kept as it was.</p></body></html>"
    )
    return printed(text), one.receipt


def receipt_lines(one: Submission) -> Iterator[str]:
    """The receipt of a submission in plain lines, as a mail has it."""
    at = one.at.astimezone(school_calendar().zoneinfo)
    yield f"Receipt {one.receipt}, {at:%A %-d %B %Y, %H:%M:%S} ({at.tzname()})"
    for pocket in one.snapshot["pockets"]:
        yield f"{pocket['title']}:"
        for each in pocket["evidence"]:
            for artefact in (each["artefact"], each.get("spoken")):
                if artefact:
                    sums = f" SHA-256 {artefact['sha256']}" if artefact["sha256"] else " (a link; see the receipt)"
                    yield f"- {artefact['title']}{sums}"
            if each["text"].strip():
                yield f"- {_words(each['words'])} SHA-256 {text_digest(each['text'])}"
        if pocket.get("log"):
            yield f"- {len(pocket['log']['rows'])} rows of the log"
    yield f"All of it: SHA-256 {one.sha256}"


def _facts(one: Submission, school: str) -> Iterator[str]:
    zone = school_calendar().zoneinfo
    student = one.enrolment.person
    at = one.at.astimezone(zone)
    for_them = handed_in_for(one)
    said = [
        ("Receipt", f'<span class="code">{escape(one.receipt)}</span>'),
        ("Student", escape(student.full_name)),
        ("Class", escape(f"{one.enrolment.group.name}, {school}")),
        ("Handed in for", escape(f"{one.handin.title} (submission {one.number})")),
        ("Counts from", f"{at:%A %-d %B %Y, %H:%M:%S} ({at.tzname()})"),
    ]
    if for_them:
        how = "as it stood when it closed" if for_them["how"] == "closed" else f"by {for_them['by']}"
        said.append(("Handed in", escape(how)))
    if one.voided_at:
        said.append(("Taken back", f"{one.voided_at.astimezone(zone):%A %-d %B %Y, %H:%M:%S}"))
    said.append(("Checksum of all", f'<span class="sum">{one.sha256}</span>'))
    for name, value in said:
        yield f"<dt>{name}</dt><dd>{value}</dd>"


def _pocket(pocket: Mapping[str, Any]) -> str:
    lines = [line for one in pocket["evidence"] for line in _evidence(one)]
    rows = len(pocket["log"]["rows"]) if "log" in pocket else 0
    if rows:
        lines.append(f"{rows} {'row' if rows == 1 else 'rows'} of the log")
    shown = "".join(f"<li>{line}</li>" for line in lines) or "<li>Nothing was in it.</li>"
    return f"<h2>{escape(pocket['title'])}</h2><ul>{shown}</ul>"


def _evidence(one: Mapping[str, Any]) -> Iterator[str]:
    for artefact in (one["artefact"], one.get("spoken")):
        if artefact:
            sums = [f"as it came {artefact['came_sha256']}"] if artefact["came_sha256"] else []
            sums += [f"as it is kept {artefact['sha256']}"] if artefact["sha256"] else []
            link = f"<br>{escape(artefact['link'])}" if artefact["link"] else ""
            yield f"{escape(artefact['title'])}{link}{''.join(_sum(text) for text in sums)}"
    if one["text"].strip():
        yield f"Text, {_words(one['words'])}{_sum(text_digest(one['text']))}"


def _words(count: int) -> str:
    return "1 word" if count == 1 else f"{count} words"


def _sum(text: str) -> str:
    return f'<span class="sum">{text}</span>'
