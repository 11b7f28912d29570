"""What is said on a submission, on paper: ink and numbered pins over pictures and pages, marked words, comments below.

Decided here: a comment is printed below what it is on, with its number, its words and its thread; a voice is named with
its gist. What is drafted is on the copy of its own marker alone.
"""

from __future__ import annotations

from datetime import datetime
from html import escape

from coatpeg.core.marking.annotations import SCALE, Kind, Part, Stroke, Target, strokes_from_data, target_from_data
from coatpeg.core.marking.quotes import find
from coatpeg.core.marking.web_annotations import HEX
from coatpeg.handins.models import Submission
from coatpeg.handins.packs.paper import Marks
from coatpeg.marking.annotations.reading import seen_on
from coatpeg.marking.models import Annotation
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person


def marks(submission: Submission, person: Person) -> Marks:
    """What this person sees on a submission, to be printed."""
    return _Printed(list(seen_on(person, submission, own=True)))


class _Printed(Marks):
    def __init__(self, said: list[Annotation]) -> None:
        self.said = [(one, target_from_data(one.target)) for one in said]
        with_number = [one for one in said if one.kind != Kind.INK and (one.kind != Kind.HIGHLIGHT or one.text)]
        self.numbers = {one.pk: number for number, one in enumerate(with_number, 1)}

    def over(self, pocket: int, evidence: int, page: int | None, width: int, height: int) -> str:
        found = []
        for one, target in self.said:
            if (target.pocket, target.evidence, target.part, target.page) != (pocket, evidence, Part.ARTEFACT, page):
                continue
            found += [_line(stroke, width, height) for stroke in strokes_from_data(one.strokes)]
            if target.spot is not None:
                found.append(self._pin(one, target.spot.x * width / SCALE, target.spot.y * height / SCALE, width))
        return "".join(found)

    def _pin(self, one: Annotation, x: float, y: float, width: int) -> str:
        size = width / 40
        return (
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{size:.1f}" fill="#1d2b3a" stroke="#ffffff" '
            f'stroke-width="{size / 6:.1f}"/><text x="{x:.1f}" y="{y + size * 0.4:.1f}" text-anchor="middle" '
            f'font-size="{size * 1.2:.1f}" font-weight="bold" fill="#ffffff">{self.numbers[one.pk]}</text>'
        )

    def text(self, pocket: int, evidence: int, text: str) -> str:
        places = []
        for _, target in self.said:
            if (target.pocket, target.evidence, target.part) == (pocket, evidence, Part.TEXT) and target.words:
                found = find(text, target.words)
                places += [(found.start, found.end)] if found else []
        if not places:
            return ""
        signs = [any(start <= at < end for start, end in places) for at in range(len(text))]
        lines, at = [], 0
        for line in text.split("\n"):
            marked = signs[at : at + len(line)]
            at += len(line) + 1
            if line.strip():
                lines.append(f"<p>{_marked(line, marked)}</p>")
        return "".join(lines)

    def below(self, pocket: int | None, evidence: int | None = None) -> str:
        here = [
            (one, target)
            for one, target in self.said
            if (target.pocket, target.evidence) == (pocket, evidence)
            and (one.text or one.kind != Kind.INK or one.voice_id)
        ]
        lines = "".join(self._said(one, target) for one, target in here)
        return f'<ol class="said">{lines}</ol>' if lines else ""

    def _said(self, one: Annotation, target: Target) -> str:
        number = self.numbers.get(one.pk)
        parts = [f"<q>{escape(target.words.exact)}</q>"] if target.words else []
        if one.wording is not None:
            parts.append(f"could read: <strong>{escape(one.wording)}</strong>")
        if one.voice_id:
            parts.append("A spoken comment, not on paper.")
        if target.row is not None:
            parts.append("On a row:")
        if target.at is not None:
            parts.append(f"At {int(target.at // 60)}:{int(target.at % 60):02}:")
        parts += [escape(one.text), _by(one.person, one.at)]
        answers = "".join(
            f"<br>↳ {escape(of.text)} {_by(of.person, of.at)}" for of in one.answers.all() if of.removed_at is None
        )
        place = f' value="{number}"' if number else ' class="plain"'
        return f"<li{place}>{' '.join(part for part in parts if part)}{answers}</li>"


def _by(person: Person, at: datetime) -> str:
    local = at.astimezone(school_calendar().zoneinfo)
    return f'<span class="quiet">({escape(person.full_name)}, {local:%-d %B %Y, %H:%M})</span>'


def _line(stroke: Stroke, width: int, height: int) -> str:
    points = " ".join(
        f"{x * width / SCALE:.1f},{y * height / SCALE:.1f}"
        for x, y in zip(stroke.points[::3], stroke.points[1::3], strict=True)
    )
    if len(stroke.points) == 3:
        points = f"{points} {points}"
    return (
        f'<polyline points="{points}" fill="none" stroke="{HEX[stroke.colour]}" '
        f'stroke-width="{max(stroke.width * width / SCALE * 0.7, 1):.1f}" stroke-linecap="round" '
        'stroke-linejoin="round"/>'
    )


def _marked(line: str, marked: list[bool]) -> str:
    """A line with its marked runs."""
    parts, at = [], 0
    while at < len(line):
        end = at
        while end < len(line) and marked[end] == marked[at]:
            end += 1
        run = escape(line[at:end])
        parts.append(f"<mark>{run}</mark>" if marked[at] else run)
        at = end
    return "".join(parts)
