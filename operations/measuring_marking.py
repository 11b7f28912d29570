"""What is measured of marking, inside the application: a pile of 2,000, and a marked copy of twenty pages."""

from __future__ import annotations

import time
from statistics import median
from typing import Any

STUDENTS = 2_000
PAGES = 20
COPIES = 3


def pile() -> dict[str, Any]:
    """The pile of 2,000 that wait, against the same rows by plain SQL; then taken away."""
    from django.utils import timezone  # noqa: PLC0415 - needs settings

    from coatpeg.handins.models import HandIn, KeptFacts  # noqa: PLC0415
    from coatpeg.people.models import Enrolment  # noqa: PLC0415
    from operations.measuring import against_sql, large_class, narrow  # noqa: PLC0415

    group, now = large_class(handins=1), timezone.now()
    handin = HandIn.objects.get(group=group)
    enrolled = Enrolment.objects.filter(group=group).values_list("pk", flat=True)
    KeptFacts.objects.bulk_create(
        [
            KeptFacts(handin=handin, enrolment_id=one, first_at=now, newest_at=now, newest=10**12 + one, submissions=1)
            for one in enrolled
        ],
        batch_size=2_000,
    )
    found = against_sql("okafor", f"/api/groups/{group.pk}/pile", b'"waiting"', 8)
    narrow(group.pk)
    return found


def marked_copy() -> dict[str, Any]:
    """Seconds for a marked copy of a document of twenty pages with a pin, ink and a comment on each."""
    from django.db import transaction  # noqa: PLC0415 - needs settings

    from coatpeg.handins.models import Submission  # noqa: PLC0415
    from coatpeg.handins.packs import paper  # noqa: PLC0415
    from coatpeg.marking.models import Annotation  # noqa: PLC0415
    from coatpeg.people.models import Person  # noqa: PLC0415

    with transaction.atomic():
        one = Submission.objects.filter(handin__title="Recipe card").select_related("handin", "enrolment__person")[0]
        pocket = one.snapshot["pockets"][0]
        picture = next(
            each for each in pocket["evidence"] if each["artefact"] and each["artefact"]["kind"] == "picture"
        )
        # As many pictures as a document has pages, each a page of its own.
        pocket["evidence"] = [{**picture, "id": 10**12 + at} for at in range(PAGES)]
        Annotation.objects.filter(submission=one).delete()
        lead = Person.objects.get(username="okafor")
        for each in pocket["evidence"]:
            target = {"pocket": pocket["id"], "evidence": each["id"], "part": "artefact"}
            ring = ["rust", 60, [at for x in range(0, 10_000, 100) for at in (x, x // 2 + 1_000, 60)]]
            for key, more in (
                ("pin", {"kind": "comment", "target": {**target, "spot": {"x": 5_000, "y": 5_000, "w": 0, "h": 0}}}),
                ("ink", {"kind": "ink", "target": target, "strokes": [ring]}),
            ):
                Annotation.objects.create(
                    submission=one,
                    person=lead,
                    key=f"{key}-{each['id']}",
                    text="How did you measure this?",
                    at=one.at,
                    changed_at=one.at,
                    **more,
                )
        spent = []
        for _ in range(COPIES):
            begun = time.perf_counter()
            content = paper.pages(one, paper.marks_on(one, lead))
            spent.append(time.perf_counter() - begun)
        transaction.set_rollback(True)
    return {"seconds": median(spent), "bytes": len(content)}


MARKS = 300


def released() -> dict[str, float]:
    """Seconds in which 300 drafted marks of a hand-in are released at one moment; then rolled back."""
    from django.db import transaction  # noqa: PLC0415 - needs settings
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.handins.handing.commands import hand_in  # noqa: PLC0415
    from coatpeg.handins.models import HandIn  # noqa: PLC0415
    from coatpeg.marking.many import release_drafts  # noqa: PLC0415
    from coatpeg.marking.models import DraftMark  # noqa: PLC0415
    from coatpeg.people.models import Enrolment, Person  # noqa: PLC0415
    from operations.measuring import large_class  # noqa: PLC0415

    with transaction.atomic():
        group, now = large_class(handins=1), timezone.now()
        handin, lead = HandIn.objects.get(group=group), Person.objects.get(username="okafor")
        for one in Enrolment.objects.filter(group=group).select_related("person", "portfolio")[:MARKS]:
            submission = hand_in(one.person, one.portfolio.pk, handin.pk, 0, now, even_if_empty=True)
            DraftMark.objects.create(
                submission=submission, person=lead, feedback="Well done.", version=1, changed_at=now
            )
        begun = time.perf_counter()
        done = release_drafts(lead, group.pk, handin.pk, now)
        spent = time.perf_counter() - begun
        assert done.count == MARKS
        transaction.set_rollback(True)
    return {"seconds": spent}
