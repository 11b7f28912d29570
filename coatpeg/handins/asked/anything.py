"""A hand-in that asks for *anything*: no pocket is named, students put in what fits.

Decided here: as it is set, a pocket of its own is laid out for it, named after it, in a section for such pockets. It
counts for nothing in *filled*, takes every kind of artefact and opens with the hand-in; a draft has none yet. What lies
there the student keeps in any pocket that they choose afterwards (``evidence.arrangement.put_again``). Taken back
while nobody has used it, its pocket goes with it. A hand-in that follows the template leaves such pockets out.
"""

from __future__ import annotations

from datetime import date

from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.events.recording import Deed
from coatpeg.outlines import editing
from coatpeg.outlines.models import Pocket
from coatpeg.people.calendars import school_calendar
from coatpeg.portfolios.models import Evidence, PocketContent

SECTION = "Anything that fits"


def room_for(doing: Deed, group_id: int, title: str, opens: date) -> int:
    """Lay out a pocket of its own for a hand-in, within its deed; returns the pocket's id."""
    template = editing.locked_template(group_id)
    section = template.sections.filter(title=SECTION, repeats=False, unit=None).first()
    section = section or editing.add_section(template, SECTION)
    today = school_calendar().local_day(doing.now)
    wanted = PocketPlan(
        title.strip(), PocketKind.EVIDENCE, artefacts=1, counts=False, opens=opens if opens > today else None
    )
    pocket = editing.add_pocket(section, wanted)
    doing.record("pocket_added", group_id, pocket=pocket.pk)
    return pocket.pk


def without_room(pockets: list[Pocket]) -> None:
    """Take away the pockets of a hand-in that was taken back, as far as nobody ever put anything in."""
    for one in pockets:
        if not Evidence.objects.filter(pocket=one).exists() and not one.handins.exists():
            PocketContent.objects.filter(pocket=one).delete()
            one.delete()
