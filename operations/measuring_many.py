"""What is measured of acting on many at once, and of a first page over many classes."""

from __future__ import annotations

import time
from collections.abc import Callable
from statistics import median
from typing import Any

SOME = 30
CLASSES = 12
STUDENTS, HANDINS = 28, 9
"""Of each of the classes that a member of staff has beside each other."""
ROUNDS = 5


def acted() -> dict[str, float]:
    """Seconds in which one deed touches 2,000 students, and in which 30 are locked; each rolled back."""
    from django.db import transaction  # noqa: PLC0415 - needs settings
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.core.handins.many import Move  # noqa: PLC0415
    from coatpeg.handins.board.situation import situation  # noqa: PLC0415
    from coatpeg.handins.many import commands, handing_for, locks  # noqa: PLC0415
    from coatpeg.handins.many.choosing import Seen  # noqa: PLC0415
    from coatpeg.handins.models import HandIn  # noqa: PLC0415
    from coatpeg.people.models import Person  # noqa: PLC0415
    from operations.measuring import large_class  # noqa: PLC0415

    def timed(deed: Callable[[], Any]) -> float:
        before = transaction.savepoint()
        begun = time.perf_counter()
        deed()
        spent = time.perf_counter() - begun
        transaction.savepoint_rollback(before)
        return spent

    with transaction.atomic():
        pk, now = large_class(handins=1).pk, timezone.now()
        handin, lead = HandIn.objects.get(group_id=pk), Person.objects.get(username="okafor")
        view = situation(pk, now)
        seen = [Seen(handin, enrolment, one.status) for (enrolment, handin), one in view.standings.items()]
        pocket, of = handin.pockets.get().pk, [one.enrolment for one in seen[:SOME]]
        found = {
            "excused": timed(lambda: commands.excuse_many(lead, pk, seen, now, excused=True)),
            "moved": timed(lambda: commands.move_dues(lead, pk, seen, Move(days=3), now)),
            "locked": timed(lambda: locks.lock_cells(lead, pk, seen, locks.Locking(locked=True), now)),
            "handed_in": timed(lambda: handing_for.hand_in_for(lead, pk, seen, handing_for.Received(), now)),
            "some": timed(lambda: locks.lock_pocket(lead, pk, pocket, of, locks.Locking(locked=True), now)),
        }
        transaction.set_rollback(True)
    return found


def first_page() -> float:
    """Seconds in which *My classes* answers whoever has twelve, each with most of what is due handed in."""
    from django.db import transaction  # noqa: PLC0415 - needs settings
    from django.test import Client  # noqa: PLC0415

    from coatpeg.people.models import Person  # noqa: PLC0415
    from operations.measuring import came_in, large_class  # noqa: PLC0415

    client, spent = Client(), []
    with transaction.atomic():
        for _ in range(CLASSES):
            came_in(large_class(handins=HANDINS, students=STUDENTS))
        client.force_login(Person.objects.get(username="okafor"), "django.contrib.auth.backends.ModelBackend")
        for _ in range(ROUNDS):
            begun = time.perf_counter()
            answer = client.get("/api/classes")
            spent.append(time.perf_counter() - begun)
            assert len(answer.json()["classes"]) >= CLASSES
        transaction.set_rollback(True)
    return median(spent)
