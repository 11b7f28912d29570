"""What is measured of the cupboard: copies given out to 2,000 students, and a drawer of 1,000 things."""

from __future__ import annotations

import time
from typing import Any

ITEMS = 1_000
HTML = "<p>" + "Wash your hands before you touch food. " * 20 + "</p>"


def given_out() -> dict[str, Any]:
    """Seconds in which a page is given to 2,000 students, and as they open a drawer of 1,000; then rolled back."""
    from django.db import connection, transaction  # noqa: PLC0415 - needs settings
    from django.test.utils import CaptureQueriesContext  # noqa: PLC0415
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.core.cupboard.items import ItemKind  # noqa: PLC0415
    from coatpeg.cupboard import giving, keeping, reading  # noqa: PLC0415
    from coatpeg.cupboard.models import CupboardItem  # noqa: PLC0415
    from coatpeg.outlines.models import Pocket  # noqa: PLC0415
    from coatpeg.people.models import Enrolment, Person  # noqa: PLC0415
    from operations.measuring import large_class  # noqa: PLC0415

    with transaction.atomic():
        group, now = large_class(handins=1), timezone.now()
        lead = Person.objects.get(username="okafor")
        sheet = keeping.put_in(lead, group.pk, ItemKind.PAGE, keeping.ItemPlan("Sheet", html=HTML), now)
        pocket = Pocket.objects.get(section__template__group=group)
        begun = time.perf_counter()
        made = giving.give(lead, giving.Giving(sheet.pk, pocket.pk), "bench", now)
        spent = time.perf_counter() - begun
        count = made.copies.count()
        CupboardItem.objects.bulk_create(
            CupboardItem(
                group=group, kind="page", title=f"Sheet {at}", html=HTML, made_by=lead, made_at=now, changed_at=now
            )
            for at in range(ITEMS - 1)
        )
        student = Enrolment.objects.filter(group=group).select_related("person")[0].person
        begun = time.perf_counter()
        with CaptureQueriesContext(connection) as queries:
            drawer = reading.cupboard(student, group.pk, now)
        opened = time.perf_counter() - begun
        assert len(drawer["items"]) == ITEMS
        transaction.set_rollback(True)
    return {"seconds": spent, "copies": count, "opened": opened, "statements": len(queries)}
