"""Hand-ins that follow the template: what is added to a section that one collects whole belongs to it too.

Decided here: what is brought into the section or laid out in it anew is collected from then on; what it collects stays,
also where it is retired or moved elsewhere, as with any hand-in. One that has closed or was taken away stays as it is.
Who has handed in already stays as they are: what was added asks them only once it is sent back (``product.md``, a
hand-in changed after submissions).
"""

from __future__ import annotations

from django.db.models import Q, QuerySet

from coatpeg.core.handins.asking import Due
from coatpeg.events.recording import Deed
from coatpeg.handins.handing.holding import handed_in, take
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.calendars import school_calendar


def follow(doing: Deed, group_id: int) -> None:
    """After a change of the template: let its class's hand-ins that follow it collect what was added.

    Within the deed of that change, with the class's portfolios locked.
    """
    following = HandIn.objects.filter(group_id=group_id, follows=True, taken_away_at=None)
    for handin in following.select_for_update():
        added = _added(handin)
        if added and not _is_over(handin, doing):
            _collect(doing, handin, added)


def _added(handin: HandIn) -> list[int]:
    """The pockets that it should collect and does not yet."""
    followed = Q() if handin.whole else Q(section__in=handin.sections.all())
    live: QuerySet[Pocket] = pockets_of(handin.group_id).filter(followed, retired_at=None)
    of_its_own = Q(handins__anything=True)
    return list(live.exclude(handins=handin).exclude(of_its_own).values_list("pk", flat=True))


def _is_over(handin: HandIn, doing: Deed) -> bool:
    closes = Due(handin.closes_day, handin.closes_time) if handin.closes_day else None
    return closes is not None and closes.moment(school_calendar()) < doing.now


def _collect(doing: Deed, handin: HandIn, added: list[int]) -> None:
    if handin.series_version == handin.version:
        # It follows as the others of its series do: it was not changed by itself.
        handin.series_version += 1
    handin.version += 1
    handin.save(update_fields=["version", "series_version"])
    handin.pockets.add(*added)
    doing.record(
        "handin_changed",
        handin.group_id,
        handin_id=handin.pk,
        version=handin.version,
        fields=["pockets"],
        released=[],
        taken=take(handin, handed_in(handin, added), doing.now),
    )
