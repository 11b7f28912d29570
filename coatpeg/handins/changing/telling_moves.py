"""Telling students that a hand-in's dates have moved."""

from __future__ import annotations

from datetime import datetime, time

from coatpeg.events.recording import Deed
from coatpeg.handins.models import HandIn
from coatpeg.notices.models import Notice
from coatpeg.notices.putting import put
from coatpeg.people.calendars import school_calendar


def tell_moved(doing: Deed, handin: HandIn, *, due: bool) -> None:
    """Who has not been told yet is told when it opens now; where a due date moved, who knows of it is told that.

    Of a draft nobody is told.
    """
    if handin.draft:
        return
    opens = max(datetime.combine(handin.opens, time(0), tzinfo=school_calendar().zoneinfo), doing.now)
    waiting = Notice.objects.filter(group_id=handin.group_id, what="handin_set", fanned_at=None, data__handin=handin.pk)
    if not waiting.update(tell_at=opens) and due:
        put(doing, "handin_moved", handin.group_id, tell_at=opens, handin=handin.pk)
