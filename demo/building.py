"""Making groups, templates and students of the demo."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date, timedelta

from django.contrib.auth.hashers import make_password

from coatpeg.core.people import pegs
from coatpeg.core.people.usernames import username
from coatpeg.core.policy import Role
from coatpeg.core.portfolios.texts import Measure
from coatpeg.outlines.models import Pocket, Section, Template
from coatpeg.outlines.rich_text import clean, clean_starter
from coatpeg.people.groups import first_set
from coatpeg.people.models import (
    Enrolment,
    GroupMember,
    GroupSet,
    Period,
    PeriodMembership,
    Person,
    StaffRole,
    TeachingGroup,
    WorkingGroup,
)
from coatpeg.portfolios.models import Portfolio
from coatpeg.web.demo import PASSWORD

WEEK = timedelta(days=7)
FIRST_NUMBER = 20_101
"""The first student's number; the others follow."""


@dataclass
class Days:
    """The demo's dates: week 9 of 14 is the week of ``today``."""

    today: date
    monday: date = field(init=False)

    def __post_init__(self) -> None:
        self.monday = self.today - timedelta(days=self.today.weekday()) - 8 * WEEK

    def of(self, week: int, weekday: int) -> date:
        """The day of a term week (from 1) and weekday (Monday is 0)."""
        return self.monday + (week - 1) * WEEK + timedelta(days=weekday)


@dataclass
class Kept:
    """A student of the demo with what is needed to act for them."""

    person: Person
    enrolment: Enrolment
    portfolio: Portfolio

    @property
    def name(self) -> str:
        """Given and family name."""
        return f"{self.person.given_name} {self.person.family_name}".strip()


_hashed: list[str] = []


def password() -> str:
    """The demo's password, hashed once: Argon2 is slow on purpose."""
    if not _hashed:
        _hashed.append(make_password(PASSWORD))
    return _hashed[0]


def staff(user: str, given: str, family: str, *, administrator: bool = False) -> Person:
    """A member of staff with a sign-in."""
    return Person.objects.create(
        username=user,
        given_name=given,
        family_name=family,
        password=password(),
        is_staff=True,
        is_administrator=administrator,
        email=f"{user}@larkfield.example",
    )


def group(name: str, kind: str, days: Days, roles: dict[Person, Role], *, years: int = 0) -> TeachingGroup:
    """A teaching group with its staff."""
    last = days.of(14, 4) if not years else date(days.today.year + years, 6, 30)
    made = TeachingGroup.objects.create(name=name, kind=kind, first=days.monday, last=last)
    StaffRole.objects.bulk_create(StaffRole(group=made, person=one, role=role.value) for one, role in roles.items())
    return made


def people(names: list[tuple[str, str]], usernames: dict[str, str]) -> list[Person]:
    """Students with user name, number and address; ``usernames`` gives a password to some full names."""
    taken = {one or "" for one in Person.objects.values_list("username", flat=True)} | set(usernames.values())
    unusable = make_password(None)
    first = FIRST_NUMBER + Person.objects.filter(is_staff=False).count()
    made = []
    for place, (family, given) in enumerate(names):
        known = usernames.get(f"{given} {family}")
        name = known or username(family, given, taken)
        made.append(
            Person(
                given_name=given,
                family_name=family,
                username=name,
                password=password() if known else unusable,
                number=str(first + place),
                email=f"{name}@larkfield.example",
            )
        )
    return Person.objects.bulk_create(made)


def enrol(into: TeachingGroup, students: list[Person], first: date, seed: int) -> list[Kept]:
    """Enrol students; in a class or cohort each has a portfolio at once."""
    dealt = pegs.deal(len(students), seed=seed)
    rows = Enrolment.objects.bulk_create(
        Enrolment(group=into, person=person, first=first, **peg._asdict())
        for person, peg in zip(students, dealt, strict=True)
    )
    if into.kind == TeachingGroup.Kind.CASELOAD:
        return []
    portfolios = Portfolio.objects.bulk_create(Portfolio(enrolment=row) for row in rows)
    return [Kept(*one) for one in zip(students, rows, portfolios, strict=True)]


def put_in_periods(into: TeachingGroup, students: list[Kept], names: tuple[str, ...], first: date) -> list[Period]:
    """Deal students to periods in turn."""
    made = [Period.objects.create(group=into, name=name) for name in names]
    PeriodMembership.objects.bulk_create(
        PeriodMembership(enrolment=one.enrolment, period=made[place % len(made)], first=first)
        for place, one in enumerate(students)
    )
    return made


def group_set(of: TeachingGroup, name: str) -> GroupSet:
    """A set of groups; the first one is that of the class list."""
    return GroupSet.objects.create(group=of, name=name)


def working_group(
    of: TeachingGroup, name: str, students: list[Kept], first: date, inside: GroupSet | None = None
) -> WorkingGroup:
    """A working group, of the class's first set unless another is given."""
    made = WorkingGroup.objects.create(group=of, of=inside or first_set(of), name=name)
    GroupMember.objects.bulk_create(
        GroupMember(workinggroup=made, enrolment=one.enrolment, first=first) for one in students
    )
    return made


def template(of: TeachingGroup, title: str, sections: dict[str, list[dict[str, object]]]) -> dict[str, Pocket]:
    """A class's template from plain tables; returns its pockets by title."""
    made = Template.objects.create(group=of, title=title)
    found: dict[str, Pocket] = {}
    for place, (heading, pockets) in enumerate(sections.items()):
        section = Section.objects.create(template=made, title=heading, position=place)
        for position, pocket in enumerate(pockets):
            texts = {"directions": clean(str(pocket.get("directions", "")))}
            texts["starter"] = clean_starter(str(pocket.get("starter", "")))
            row = Pocket.objects.create(section=section, position=position, **{**pocket, **texts})
            found[row.title] = row
    return found


def sentences(least: int, most: int | None) -> dict[str, object]:
    """An asked length in sentences."""
    return {"measure": Measure.SENTENCES.value, "least": least, "most": most}
