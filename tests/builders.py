"""Small named builders: a school, a class, students, pockets, hand-ins, work, in as few words as a test needs."""

from __future__ import annotations

import io
import uuid
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, time, timedelta
from decimal import Decimal
from typing import Any
from zoneinfo import ZoneInfo

from django.core.files.base import ContentFile
from PIL import Image

from coatpeg.core.handins.asking import Due
from coatpeg.core.marking.annotations import Kind
from coatpeg.core.policy import Role
from coatpeg.files.uploads import Wish
from coatpeg.handins.asked.setting import Plan, set_handin
from coatpeg.handins.handing import commands as handing
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.marking import commands as marking
from coatpeg.marking.annotations import making
from coatpeg.marking.models import Annotation
from coatpeg.outlines.models import Pocket, Section, Template
from coatpeg.outlines.rich_text import clean_starter
from coatpeg.people.groups import first_set
from coatpeg.people.models import (
    Adjustment,
    Enrolment,
    NonSchoolDay,
    Period,
    PeriodMembership,
    Person,
    School,
    StaffRole,
    TeachingGroup,
    Term,
    WorkingGroup,
    new_calendar_key,
)
from coatpeg.people.reading import VIEWS
from coatpeg.portfolios.evidence import commands
from coatpeg.portfolios.models import Evidence, Portfolio

ZONE = "Europe/London"
TODAY = date(2026, 11, 4)  # a Wednesday
NOW = datetime(2026, 11, 4, 10, 0, tzinfo=UTC)
PASSWORD = "a good one"


def timezone_today() -> date:
    """The day it is in the school's zone, for tests that go by the real clock."""
    return datetime.now(ZoneInfo(ZONE)).date()


def school(today: date = TODAY) -> School:
    """A school with one term around a day, and a week off two weeks before it."""
    monday = today - timedelta(days=today.weekday())
    made = School.objects.create(name="Larkfield School", zone=ZONE, weekdays=[0, 1, 2, 3, 4])
    Term.objects.create(
        name="Autumn term", first=monday - timedelta(weeks=8), last=monday + timedelta(weeks=6, days=-3)
    )
    for weekday in range(5):
        NonSchoolDay.objects.create(day=monday - timedelta(weeks=2) + timedelta(days=weekday), name="Half-term holiday")
    return made


def day_off(day: date, name: str) -> None:
    """A day without school more, as every process learns of it."""
    NonSchoolDay.objects.create(day=day, name=name)
    School.objects.update(calendar_key=new_calendar_key())


def person(
    username: str | None, given: str = "Ada", family: str = "Blom", *, administrator: bool = False, staff: bool = False
) -> Person:
    made = Person(username=username, given_name=given, family_name=family)
    made.is_administrator, made.is_staff = administrator, staff or administrator
    # Whoever is not new here has put the lines of help away.
    made.reading = {"helped": list(VIEWS)}
    made.set_password(PASSWORD)
    made.save()
    return made


@dataclass
class Class:
    """A class with its lead and what was added to it."""

    group: TeachingGroup
    lead: Person
    template: Template
    section: Section
    periods: dict[str, Period] = field(default_factory=dict)
    students: int = 0

    def staff(self, username: str, role: Role) -> Person:
        made = person(username, "Sam", username.title(), staff=True)
        StaffRole.objects.create(group=self.group, person=made, role=role.value)
        return made

    def period(self, name: str) -> Period:
        return self.periods.setdefault(name, Period.objects.get_or_create(group=self.group, name=name)[0])

    def student(
        self,
        username: str | None = None,
        given: str = "Thandi",
        family: str = "Dube",
        *,
        period: str = "",
        first: date | None = None,
        last: date | None = None,
        existing: Person | None = None,
    ) -> Portfolio:
        made = existing or person(username, given, family)
        enrolment = Enrolment.objects.create(
            group=self.group,
            person=made,
            first=first or self.group.first,
            last=last,
            picture=f"picture-{self.students}",
            tint=self.students % 8,
        )
        self.students += 1
        if period:
            PeriodMembership.objects.create(
                enrolment=enrolment, period=self.period(period), first=enrolment.first, last=last
            )
        return Portfolio.objects.create(enrolment=enrolment)

    def pocket(self, title: str = "Recipe card", kind: str = "evidence", starter: str = "", **fields: object) -> Pocket:
        wanted = {"artefacts": 2, "reflection_on_each": True, "measure": "sentences", "least": 2, "most": 3}
        return Pocket.objects.create(
            section=self.section,
            title=title,
            kind=kind,
            position=Pocket.objects.count(),
            **({**wanted, **fields} if kind == "evidence" else fields),
            **({"starter": clean_starter(starter)} if starter else {}),
        )

    def handin(
        self,
        *pockets: Pocket,
        title: str = "Recipe card",
        opens: date | None = None,
        due: date | None = TODAY + timedelta(days=2),
        at: time | None = None,
        period_dues: dict[str, date] | None = None,
        periods: tuple[str, ...] | None = None,
        points: int | None = 30,
        now: datetime = NOW,
    ) -> HandIn:
        """Set by the lead through the command that people use; needs somebody in the class."""
        plan = Plan(
            title,
            tuple(pocket.pk for pocket in pockets),
            opens or TODAY - timedelta(days=10),
            Due(due, at) if due else None,
            {self.period(name).pk: Due(day) for name, day in (period_dues or {}).items()},
            frozenset(self.period(name).pk for name in periods) if periods is not None else None,
            Decimal(points) if points is not None else None,
        )
        return set_handin(self.lead, self.group.pk, plan, now)


def klass(name: str = "8 Plot", lead: str = "okafor", kind: str = "class", today: date = TODAY) -> Class:
    """A class with a lead and an empty template; makes the school where there is none."""
    if not School.objects.exists():
        school(today)
    monday = today - timedelta(days=today.weekday())
    group = TeachingGroup.objects.create(
        name=name, kind=kind, first=monday - timedelta(weeks=8), last=monday + timedelta(weeks=6)
    )
    made = person(lead, "R.", lead.title(), staff=True)
    StaffRole.objects.create(group=group, person=made, role=Role.LEAD.value)
    template = Template.objects.create(group=group, title=name)
    return Class(group, made, template, Section.objects.create(template=template, title="The kitchen"))


def jpeg(colour: tuple[int, int, int] = (200, 80, 40), size: tuple[int, int] = (60, 40), **save: object) -> bytes:
    target = io.BytesIO()
    Image.new("RGB", size, colour).save(target, "JPEG", **save)
    return target.getvalue()


def add_picture(
    portfolio: Portfolio, pocket: Pocket, now: datetime = NOW, name: str = "card.jpg", data: bytes = b""
) -> Evidence:
    content = ContentFile(data or jpeg())
    return commands.add_file(portfolio.enrolment.person, portfolio.pk, pocket.pk, content, name, now)[0]


def reflect(evidence: Evidence, text: str = "One thing. Another thing.", now: datetime = NOW) -> Evidence:
    person_ = evidence.portfolio.enrolment.person
    version = Evidence.objects.get(pk=evidence.pk).version
    return commands.write_reflection(person_, evidence.pk, text, version, now)


def fill(portfolio: Portfolio, pocket: Pocket, now: datetime = NOW) -> Evidence:
    """One picture with a reflection."""
    return reflect(add_picture(portfolio, pocket, now), now=now)


def hand_in(portfolio: Portfolio, handin: HandIn, now: datetime = NOW, seen: int = 0, **more: bool) -> Submission:
    return handing.hand_in(portfolio.enrolment.person, portfolio.pk, handin.pk, seen, now, **more)


def mark(
    marker: Person,
    submission: Submission,
    now: datetime = NOW,
    *,
    accept: bool = True,
    feedback: str = "Good careful work.",
    score: int | None = 20,
    **more: object,
) -> Outcome:
    kind = Outcome.Kind.ACCEPTED if accept else Outcome.Kind.SENT_BACK
    verdict = marking.Verdict(feedback, Decimal(score) if score is not None else None)
    return marking.review(marker, submission.pk, kind, verdict, 0, now, **more)[0]


def say(submission: Submission, marker: Person, text: str = "Look here.", **more: Any) -> Annotation:
    """A marker's draft of something said on a submission; without more, a comment on the whole."""
    saying = making.Saying(more.pop("kind", Kind.COMMENT), text=text, **more)
    return making.keep(marker, submission.pk, str(uuid.uuid4()), saying, 0, NOW)


def wish(portfolio: Portfolio, pocket: Pocket, name: str, size: int, **more: object) -> Wish:
    """What an upload for a pocket says of itself as it begins."""
    pairs = {"portfolio": portfolio.pk, "pocket": pocket.pk, "name": name, **more}
    return Wish.read({key: str(value) for key, value in pairs.items()}, size)


def adjust(portfolio: Portfolio, extra_days: int, first: date = date(2026, 9, 1)) -> Adjustment:
    """Extra school days for a student, from the beginning of the year."""
    return Adjustment.objects.create(person=portfolio.enrolment.person, extra_days=extra_days, first=first)


def working_group(group: TeachingGroup, name: str) -> WorkingGroup:
    """A working group of a class's first set, with nobody in it."""
    return WorkingGroup.objects.create(group=group, of=first_set(group), name=name)
