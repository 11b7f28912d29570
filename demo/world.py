"""Larkfield School, laid out around the day it is loaded: week 9 of 14 is this week."""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime, time, timedelta
from decimal import Decimal
from zoneinfo import ZoneInfo

from django.db import transaction
from django.utils import timezone

from coatpeg.core.policy import Role
from coatpeg.marking.late import ruling
from coatpeg.notices import fanning, mailing
from coatpeg.notices.models import Delivery
from coatpeg.outlines import dealing
from coatpeg.people.models import NonSchoolDay, PeriodMembership, Person, School, TeachingGroup, Term
from demo import building, desk, extras, names, others, saying, shelves
from demo.building import Days, Kept
from demo.plot import SECTIONS, ZONE, Student, plan_handins
from demo.term import live

SEED = 2030
USERNAMES = {"Thandi Dube": "thandi", "Josh Ellery": "josh"}
JOINED_LATE, LEFT_EARLY = 17, 23
"""Places in the main class of who joined in week 6 and who left in week 5."""


def load(
    say: Callable[[str], object] = print, now: datetime | None = None, students: int = 56, leavers: int = 240
) -> None:
    """Make the whole world in one transaction; smaller numbers make it quick for tests."""
    now = now or timezone.now()
    say("Loading the demo world: Larkfield School (about a minute)")
    with transaction.atomic():
        days = Days(now.astimezone(ZoneInfo(ZONE)).date())
        _school(days)
        team = _staff()
        ruling.set_late_rule(team["bright"], Decimal(5), Decimal(50), 0, now - timedelta(days=60))
        plot = _plot(team, days, now, students, say)
        crew = _crew(team, days, now)
        cohort = _leavers(team, days, now, leavers)
        load_ = building.group("Learning support caseload", "caseload", days, {team["lindqvist"]: Role.LEAD})
        chosen = [*plot[2:40:5], *crew[:3], *cohort[:3]]
        others.caseload(load_, [one.person for one in chosen][:14], days)
        _told(now)
    say("The demo world is loaded")


def _told(now: datetime) -> None:
    """Everybody was told what happened so far, has looked at the bell until two days ago, and was mailed since."""
    while fanning.fan_out.call():
        pass
    Delivery.objects.filter(notice__at__lt=now - timedelta(days=2)).update(seen_at=now, mailed_at=now)
    for person in Person.objects.filter(is_staff=True).exclude(email=""):
        mailing.mail.call(person.pk)


def _school(days: Days) -> None:
    School.objects.create(name="Larkfield School", zone=ZONE, weekdays=[0, 1, 2, 3, 4])
    Term.objects.create(name="Autumn term", first=days.of(1, 0), last=days.of(14, 4))
    NonSchoolDay.objects.bulk_create(
        NonSchoolDay(day=days.of(8, weekday), name="Half-term holiday") for weekday in range(5)
    )
    NonSchoolDay.objects.create(day=days.of(5, 0), name="Staff training")


def _staff() -> dict[str, Person]:
    made = (
        building.staff("okafor", "R.", "Okafor"),
        building.staff("marsh", "J.", "Marsh"),
        building.staff("sandoval", "P.", "Sandoval"),
        building.staff("lindqvist", "M.", "Lindqvist"),
        building.staff("whitcombe", "A.", "Whitcombe"),
        building.staff("bright", "S.", "Bright", administrator=True),
    )
    return {one.username or "": one for one in made}


def _plot(team: dict[str, Person], days: Days, now: datetime, count: int, say: Callable[[str], object]) -> list[Kept]:
    """The main class with its term so far."""
    group = building.group(
        "8 Plot · Growing & Cooking",
        "class",
        days,
        {
            team["okafor"]: Role.LEAD,
            team["marsh"]: Role.CO_TEACHER,
            team["sandoval"]: Role.MARKER,
            team["whitcombe"]: Role.OBSERVER,
        },
    )
    dealt = names.deal(count, SEED, (("Dube", "Thandi"), ("Ellery", "Josh"), *names.AWKWARD))
    students = building.enrol(group, building.people(dealt, USERNAMES), days.monday, seed=1)
    periods = building.put_in_periods(group, students, ("P3", "P4"), days.monday)
    # Both demo students come in period 3.
    PeriodMembership.objects.filter(enrolment=students[1].enrolment).update(period=periods[0])
    _comers_and_goers(students, days)
    building.group_set(group, "Tables")
    for place in range(0, count - 3, 4):
        building.working_group(group, f"Table {place // 4 + 1:02}", students[place : place + 4], days.monday)
    pockets = building.template(group, "Growing & Cooking", SECTIONS)
    for pocket in pockets.values():
        dealing.deal(pocket, group.pk, days.today, frozenset())
    start = datetime.combine(days.monday, time(8), tzinfo=UTC) - timedelta(days=3)
    extras.given(team["okafor"], group.pk, pockets, start)
    handins = plan_handins(team["okafor"], group.pk, days, pockets, periods, start)
    for place, kept in enumerate(students):
        if place not in (JOINED_LATE, LEFT_EARLY):
            live(Student(kept, place, days, team["okafor"]), handins, pockets, now)
        if place % 14 == 13:
            say(f"  {place + 1} of {count} portfolios")
    extras.made_ones_own(students, now - timedelta(days=3))
    extras.every_kind(students, pockets, now - timedelta(days=2))
    extras.looked_in(team["okafor"], students, now - timedelta(days=1))
    extras.waiting_list(group, students, now)
    desk.lately(team["okafor"], group.pk, now)
    shelves.plot(team["okafor"], group.pk, students, pockets, days.of(10, 0), now)
    saying.said(team, group.pk, now)
    return students


def _comers_and_goers(students: list[Kept], days: Days) -> None:
    """One who joined in week 6 and owes nothing from before, one who left in week 5."""
    if len(students) <= LEFT_EARLY:
        return
    joined, left = students[JOINED_LATE].enrolment, students[LEFT_EARLY].enrolment
    joined.first = days.of(6, 2)
    left.last = days.of(5, 3)
    for one in (joined, left):
        one.save()
        one.periods.update(first=one.first, last=one.last)


def _crew(team: dict[str, Person], days: Days, now: datetime) -> list[Kept]:
    group = building.group("Stage crew", "class", days, {team["marsh"]: Role.LEAD})
    students = building.enrol(
        group,
        building.people(names.deal(9, SEED + 1, (("Castell", "Ines"),)), {"Ines Castell": "ines"}),
        days.monday,
        seed=2,
    )
    start = datetime.combine(days.monday, time(8), tzinfo=UTC)
    others.crew(group, team["marsh"], students, days, start, now)
    shelves.crew(team["marsh"], group.pk, start)
    return students


def _leavers(team: dict[str, Person], days: Days, now: datetime, count: int) -> list[Kept]:
    group = building.group(
        "Leavers 2030",
        TeachingGroup.Kind.COHORT,
        days,
        {team["whitcombe"]: Role.OBSERVER, team["lindqvist"]: Role.LEAD},
        years=4,
    )
    students = building.enrol(group, building.people(names.deal(count, SEED + 2), {}), days.monday, seed=3)
    building.put_in_periods(group, students, tuple(f"Tutor {letter}" for letter in "ABCDEFGH"), days.monday)
    start = datetime.combine(days.monday, time(8), tzinfo=UTC)
    others.leavers(group, team["lindqvist"], students, days, start, now)
    return students
