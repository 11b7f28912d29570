"""What happened in the main class so far, student by student."""

from __future__ import annotations

from datetime import datetime, timedelta

from coatpeg.handins.handing import commands as handing
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios.evidence import commands
from coatpeg.portfolios.models import Evidence
from demo.plot import STOPS, Stop, Student

PAST = STOPS[:5]
RECIPE = STOPS[5]


def live(student: Student, handins: list[HandIn], pockets: dict[str, Pocket], now: datetime) -> None:
    """One student's term up to now. The place in the class decides what becomes of each hand-in."""
    for number, (stop, handin) in enumerate(zip(PAST, handins, strict=False)):
        _past(student, number, stop, handin, pockets)
    _recipe(student, handins[5], pockets, now)
    if student.place % 4 == 0:
        link = "https://plants.larkfield.example/when-to-harvest"
        at = min(student.moment(9, 0, 9), now)
        commands.add_link(
            student.kept.person, student.kept.portfolio.pk, pockets["Useful finds"].pk, link, "When to harvest", at
        )


def _past(student: Student, number: int, stop: Stop, handin: HandIn, pockets: dict[str, Pocket]) -> None:
    """A hand-in whose due date has passed: in on time or late, sent back, missing, excused, to mark."""
    fate = (student.place * 7 + number * 11) % 60
    if fate == 3 and number > 1:
        return  # nothing: overdue
    work = student.moment(stop.week, 2, 15)
    if fate == 13:
        handing.set_excused(student.teacher, handin.pk, student.kept.enrolment.pk, work, excused=True)
        return
    if fate == 23:
        student.fill(stop, pockets, work, half=True)
        return  # begun, never handed in: overdue
    student.fill(stop, pockets, work)
    late = fate % 10 == 5
    at = student.moment(stop.week + 1, 1) if late else student.moment(stop.week, 3)
    submission = student.hand_in(handin, at)
    marked = student.moment(stop.week + 1, 3, 17)
    if number == 4 and fate % 5 == 1:
        return  # still to mark
    if fate % 9 == 4:
        student.mark(submission, handin, marked, accept=False)
        if number < 3 or fate % 2:
            _again(student, stop, handin, pockets, marked)
        return
    student.mark(submission, handin, marked, accept=True)


def _again(student: Student, stop: Stop, handin: HandIn, pockets: dict[str, Pocket], after: datetime) -> None:
    """Hand in once more after it was sent back, with a better text, and accepted."""
    for evidence in Evidence.objects.filter(portfolio=student.kept.portfolio, pocket=pockets[stop.pockets[0]]):
        better = f"{evidence.text} I looked again, and the cause is the shade after lunch."
        if evidence.artefact_id is None:
            commands.write_page(
                student.kept.person,
                evidence.portfolio_id,
                evidence.pocket_id,
                better,
                evidence.version,
                after + timedelta(hours=18),
            )
        else:
            commands.write_reflection(
                student.kept.person, evidence.pk, better, evidence.version, after + timedelta(hours=18)
            )
    submission = student.hand_in(handin, after + timedelta(hours=20), seen=1)
    student.mark(submission, handin, after + timedelta(hours=44), accept=True)


def _recipe(student: Student, handin: HandIn, pockets: dict[str, Pocket], now: datetime) -> None:
    """The one of this week's hand-in: some are in, some are working, a few have not begun."""
    if student.kept.name == "Thandi Dube":
        return  # the reader of the README does this one
    fate = (student.place * 5) % 7
    begun = now - timedelta(hours=30 + student.place * 11 % 150)
    if fate == 0:
        return
    if fate in (1, 2):
        student.fill(RECIPE, pockets, begun, half=True)
        return
    student.fill(RECIPE, pockets, begun)
    if fate != 3:
        submission = student.hand_in(
            handin, min(begun + timedelta(hours=26), now - timedelta(minutes=student.place + 5))
        )
        if fate == 6 and student.place % 2:
            student.mark(submission, handin, now - timedelta(minutes=3), accept=student.place % 3 != 0)
