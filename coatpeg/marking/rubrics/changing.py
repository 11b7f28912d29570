"""What a rubric in use does to drafts and released marks when it is changed.

Decided here: a draft moves by criterion (the product's *Corners decided*), so it may come out otherwise or have a
criterion open; whose it is is said, not who drafted it nor what. A released mark keeps the rubric that it was made by;
it is said whose would come out otherwise, for whoever wants to reopen and judge them anew. A score is a share of the
points here, so that other points alone move nothing.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from decimal import Decimal

from coatpeg.core.marking.rubrics import Judged as Levels
from coatpeg.core.marking.rubrics import Rubric, rubric_from_data, rubric_to_data
from coatpeg.handins.changing.judged import Judged
from coatpeg.handins.models import HandIn, Outcome
from coatpeg.marking.models import DraftMark, ReleasedMark
from coatpeg.people.models import Person


def by_change(handin: HandIn, rubric: Rubric | None) -> Judged:
    """Whose drafts and marks another rubric (None: none) touches: two queries, where it is another one."""
    before = rubric_from_data(handin.rubric)
    if before is None or rubric_to_data(rubric) == handin.rubric:
        return Judged()
    decided = Outcome.objects.filter(submission__handin=handin, voided_at=None).values("submission_id")
    drafts = DraftMark.objects.filter(submission__handin=handin, submission__voided_at=None).exclude(levels={})
    found: dict[str, list[Person]] = {"moves": [], "open": []}
    rows = drafts.exclude(submission__in=decided).select_related("submission__enrolment__person")
    for draft in rows:
        was = _share(before, draft.levels)
        fits = rubric.fitting(draft.levels) if rubric else {}
        then = _share(rubric, fits) if rubric else None
        if rubric is None or len(fits) < len(before.fitting(draft.levels)) or (was is not None and then is None):
            found["open"].append(draft.submission.enrolment.person)
        elif was != then:
            found["moves"].append(draft.submission.enrolment.person)
    released = [person for person, was, then in _released(handin, rubric) if was != then]
    return Judged(_names(found["moves"]), _names(found["open"]), _names(released))


def _released(handin: HandIn, rubric: Rubric | None) -> list[tuple[Person, Decimal | None, Decimal | None]]:
    """What was released by a rubric and stands: whose, its share, and that by another rubric (None: not all fits)."""
    marks = ReleasedMark.objects.filter(
        outcome__submission__handin=handin, outcome__voided_at=None, outcome__submission__voided_at=None
    ).exclude(levels={})
    found = []
    for mark in marks.select_related("outcome__submission__enrolment__person"):
        by = rubric_from_data(mark.rubric)
        then = _share(rubric, rubric.fitting(mark.levels)) if rubric else None
        if by is not None:
            found.append((mark.outcome.submission.enrolment.person, _share(by, mark.levels), then))
    return found


def _share(rubric: Rubric, judged: Levels) -> Decimal | None:
    """Of the points, 0 to 1; None where a criterion is open, or nothing is judged."""
    return None if rubric.open_rows(judged) else rubric.earned(judged, Decimal(1))


def _names(people: Sequence[Person]) -> list[str]:
    return sorted({one.listed for one in people})


def counted(rubric: Rubric, marks: Sequence[Mapping[str, Sequence[str]]]) -> list[tuple[str, list[float], int]]:
    """For each criterion how many marks chose each level, in their order, and how many left it not judged.

    Who lies between two levels counts half for each. Of a mark that was made by another rubric what fits counts.
    """
    places = {level.key: place for place, level in enumerate(rubric.levels)}
    found = []
    for row in rubric.rows:
        counts, skipped = [0.0] * len(rubric.levels), 0
        for judged in marks:
            fitting = rubric.fitting({row.key: judged[row.key]}) if row.key in judged else {}
            chosen = [places[key] for key in fitting.get(row.key, ()) if key in places]
            for place in chosen:
                counts[place] += 1 / len(chosen)
            skipped += row.key in fitting and not chosen
        found.append((row.title, counts, skipped))
    return found
