"""What goes on paper: sign-in cards, eight to a page of A4, laid out by WeasyPrint without asking any host."""

from __future__ import annotations

import json
from collections.abc import Mapping
from datetime import datetime
from html import escape
from pathlib import Path

import segno

from coatpeg.core.errors import Invalid
from coatpeg.files.paper import FAMILY, face, printed
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person, School, TeachingGroup
from coatpeg.people.rosters import Member, members

MOST_CARDS = 160
"""Twenty pages, a few seconds. A year group prints by tutor group."""
SHAPES: dict[str, str] = json.loads((Path(__file__).parent / "peg_shapes.json").read_text())
"""The peg pictures as SVG, by name; made by ``operations.peg_shapes``."""
TINTS = (
    ("#f9e4e0", "#a33a24"),
    ("#e0edf6", "#1f5f8f"),
    ("#e6efdb", "#47691b"),
    ("#f8ecd2", "#805608"),
    ("#eee3db", "#6d4630"),
    ("#dcefe9", "#1d6a55"),
    ("#f7e1ec", "#97306a"),
    ("#e3e8ec", "#3b5063"),
)
"""Ground and ink of the eight tints, as the interface's theme has them; a test holds them equal."""

STYLE = """
@page { size: A4; margin: 11mm 12mm; }
body { margin: 0; color: #1d2b3a;
  font-family: FAMILY; }
.sheet { position: relative; height: 274mm; break-after: page; }
.sheet:last-child { break-after: auto; }
.card { position: absolute; box-sizing: border-box; width: 93mm; height: 68mm; border: 0.3mm dashed #7f8d97;
  overflow: hidden; }
.who { position: absolute; left: 6mm; top: 6mm; width: 42mm; }
.peg { width: 16mm; height: 16mm; border-radius: 3mm; padding: 2.5mm; box-sizing: border-box; }
.peg svg { width: 11mm; height: 11mm; }
h1 { font-size: 13pt; line-height: 1.15; margin: 3mm 0 1mm; overflow-wrap: anywhere; }
p { font-size: 9pt; line-height: 1.3; margin: 0; color: #44545f; overflow-wrap: anywhere; }
.user { position: absolute; left: 6mm; bottom: 5mm; width: 45mm; }
.user .whole { font-size: 9.5pt; white-space: nowrap; }
.user .said { font-size: 11pt; color: #1d2b3a; }
.code { position: absolute; right: 5mm; top: 8mm; width: 37mm; text-align: center; }
.code img { width: 37mm; height: 37mm; image-rendering: pixelated; }
.code p { margin-top: 1mm; }
""".replace("FAMILY", FAMILY)


def refuse_too_many(enrolments: list[int]) -> None:
    """Refuse an empty choice, and one that would take minutes to print."""
    if not enrolments:
        raise Invalid("Nobody is chosen.", where="students", fix="Choose the students who need a card.")
    if len(enrolments) > MOST_CARDS:
        raise Invalid(
            f"{len(enrolments)} cards at once; {MOST_CARDS} is the most.",
            where="students",
            fix="Print by period or group.",
        )


def cards(
    group_id: int, secrets: Mapping[int, str], address: str, now: datetime, passwords: Mapping[int, str]
) -> bytes:
    """Cards for enrolments with their secrets, by surname, as PDF. ``address`` is where a scanned code leads.

    ``passwords`` are printed for those who have been given one, by enrolment.
    """
    of_group = members(group_id, school_calendar().local_day(now))
    chosen = [one for one in of_group if one.enrolment_id in secrets]
    names = dict(Person.objects.filter(enrolments__in=list(secrets)).values_list("pk", "username"))
    group = TeachingGroup.objects.get(pk=group_id)
    school = School.objects.first()
    made = [
        _card(
            place,
            one,
            (names[one.person_id] or "", passwords.get(one.enrolment_id, "")),
            f"{address}#{secrets[one.enrolment_id]}",
            group.name,
        )
        for place, one in enumerate(chosen)
    ]
    sheets = [f'<div class="sheet">{"".join(made[place : place + 8])}</div>' for place in range(0, len(made), 8)]
    title = escape(f"Sign-in cards, {group.name}, {school.name if school else ''}")
    text = (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><title>{title}</title>'
        f"<style>{face()}{STYLE}</style></head><body>{''.join(sheets)}</body></html>"
    )
    return printed(text)


def _card(place: int, member: Member, sign_in: tuple[str, str], link: str, group: str) -> str:
    username, password = sign_in
    ground, ink = TINTS[member.tint % len(TINTS)]
    shape = SHAPES.get(member.picture, "")
    picture = (
        f'<svg viewBox="0 0 24 24" fill="none" stroke="{ink}" stroke-width="2" stroke-linecap="round" '
        f'stroke-linejoin="round">{shape}</svg>'
    )
    code = segno.make(link, error="m", micro=False).png_data_uri(scale=4, border=2)
    said = f'<p class="said whole">{escape(password)}</p><p>password</p>' if password else ""
    left, top = 93 * (place % 2), 68 * (place % 8 // 2)
    return (
        f'<div class="card" style="left:{left}mm;top:{top}mm"><div class="who">'
        f'<div class="peg" style="background:{ground}">{picture}</div>'
        f"<h1>{escape(member.full_name)}</h1><p>{escape(group)}</p>"
        f'</div><div class="user"><p class="said">{escape(username)}</p><p>user name</p>{said}</div>'
        f'<div class="code"><img src="{code}" alt=""><p>Hold it before the camera of the class device.</p></div></div>'
    )
