"""Which shared page is whose, who fills it, and how a person stands to it.

A page is there from when somebody first opens it. Decided here: a student who is in several groups of a set (as lists
of before had it) fills the page of the first of them (by name); one who is in none, or in no period, where a pocket is
filled by these, has no page and is told so. Whoever fills a page stands to it as to their own; the staff of the class
as to a thing of the class; everybody else is a stranger.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date, datetime
from typing import Any

from django.db.models import Q, QuerySet

from coatpeg.core.errors import Gone, Refused
from coatpeg.core.outlines.filling import Company, Shared
from coatpeg.core.policy import Action, Relation, Role
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import NOBODY, Standings, follower, require, to_student
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import mate
from coatpeg.people.groups import group_in
from coatpeg.people.models import Enrolment, Period, Person, TeachingGroup, WorkingGroup
from coatpeg.sharing import rows
from coatpeg.sharing.models import SharedPage, SharedWriter
from coatpeg.sharing.rows import PageRow


def page_of(pocket: Pocket, enrolment: Enrolment, now: datetime) -> SharedPage:
    """The page of a pocket that a student fills with others; made where it is opened for the first time."""
    period: Period | None = None
    working: WorkingGroup | None = None
    if pocket.shared == Shared.PERIOD:
        period = _period_of(enrolment, school_calendar().local_day(now))
    elif pocket.shared == Shared.GROUP:
        working = group_in(enrolment, pocket.group_set)
    if not pocket.shared or (pocket.shared != Shared.CLASS and not (period or working)):
        raise Gone(
            f"Nobody fills “{pocket.title}” with this student yet."
            if pocket.shared
            else f"“{pocket.title}” is not filled together.",
            where=pocket.title,
            fix="Put the student into a period or working group, under Set-up.",
        )
    of = f"group:{working.pk}" if working else f"period:{period.pk}" if period else "class"
    made, _ = SharedPage.objects.get_or_create(
        pocket=pocket,
        of=of,
        defaults={
            "group_id": enrolment.group_id,
            "period": period,
            "working_group": working,
            "changed_at": now,
        },
    )
    return made


def pocket_in(enrolment: Enrolment, pocket_id: int) -> Pocket:
    """A pocket of a student's portfolio."""
    found = pockets_of(enrolment.group_id).filter(pk=pocket_id).first()
    if found is None:
        raise Gone("There is no such pocket in this portfolio.", fix="Go back to the pockets.")
    return found


def _period_of(enrolment: Enrolment, today: date) -> Period | None:
    memberships = enrolment.periods.filter(first__lte=today).filter(Q(last=None) | Q(last__gte=today))
    found = memberships.select_related("period").order_by("-first", "pk").first()
    return found.period if found else None


def members_of(page: SharedPage | PageRow, today: date) -> QuerySet[Enrolment]:
    """The students who fill a page on a day, by enrolment."""
    there = Enrolment.objects.filter(group_id=page.group_id, first__lte=today)
    there = there.filter(Q(last=None) | Q(last__gte=today))
    if page.of.startswith("period:"):
        inside = Q(periods__period_id=page.period_id, periods__first__lte=today) & (
            Q(periods__last=None) | Q(periods__last__gte=today)
        )
        return there.filter(inside).distinct() if page.period_id else there.none()
    if page.of.startswith("group:"):
        return there.filter(working_groups=page.working_group_id) if page.working_group_id else there.none()
    if page.of.startswith("own:"):
        return there.filter(shared_pages=page.pk)
    return there


MOST_MATES = 5


def mates_of(enrolment: Enrolment, kinds: Iterable[Company], today: date) -> dict[Company, list[dict[str, Any]]]:
    """With whom a student fills pockets of some kinds, the first few of them, as students see each other. Two or three
    queries for each kind.
    """
    return {
        kind: [
            mate(one)
            for one in _with(enrolment, kind, today)
            .exclude(pk=enrolment.pk)
            .select_related("person")
            .order_by("pk")[:MOST_MATES]
        ]
        for kind in kinds
    }


def number_in(enrolment: Enrolment, kind: Company, today: date) -> int:
    """How many fill a pocket of a kind with a student, the student among them."""
    return _with(enrolment, kind, today).count()


def _with(enrolment: Enrolment, kind: Company, today: date) -> QuerySet[Enrolment]:
    """Those with whom a student fills pockets of a kind: nobody where they are in no group or period."""
    period = _period_of(enrolment, today) if kind.shared is Shared.PERIOD else None
    working = group_in(enrolment, kind.group_set) if kind.shared is Shared.GROUP else None
    if kind.shared is not Shared.CLASS and not (period or working):
        return Enrolment.objects.none()
    of = f"group:{working.pk}" if working else f"period:{period.pk}" if period else "class"
    page = SharedPage(group_id=enrolment.group_id, of=of, period=period, working_group=working)
    return members_of(page, today)


def with_pocket(page_id: int) -> SharedPage:
    """A page with its pocket and class."""
    found = SharedPage.objects.filter(pk=page_id).select_related("pocket", "group").first()
    if found is None:
        raise Gone("There is no such page.", fix="Go back to the pockets.")
    return found


def to_page(person: Person, page: PageRow, today: date) -> Standings:
    """How a person stands to a page: whoever fills it as to their own, staff as to a thing of the class."""
    standings, enrolment = follower(person, page.group_id)
    if enrolment is None:
        return standings or _through_caseload(person, page, today)
    role = next(iter(standings))[0] if standings else None
    if role is None:
        return NOBODY
    left = role is Role.LEAVER and _wrote(person, page)
    return frozenset({(role, Relation.OWN)}) if left or rows.fills(page, enrolment, today) else NOBODY


def _wrote(person: Person, page: PageRow) -> bool:
    return SharedWriter.objects.filter(page=page.pk, person=person).exists()


def _through_caseload(person: Person, page: PageRow, today: date) -> Standings:
    """How somebody stands who has one of those who fill a page in a caseload: as to that student."""
    if not person.is_staff:
        return NOBODY
    mine = Enrolment.objects.filter(group__kind=TeachingGroup.Kind.CASELOAD, group__staff__person=person)
    there = members_of(page, today).filter(person__in=mine.values("person")).select_related("group")
    return next(filter(None, (to_student(person, one) for one in there)), NOBODY)


def require_on_page(person: Person, action: Action, page: PageRow, today: date) -> Standings:
    """``require`` towards a page. Whoever wrote on it and no longer fills it is told just that."""
    standings = to_page(person, page, today)
    if not standings and follower(person, page.group_id)[0] and _wrote(person, page):
        raise Refused(
            "You are no longer among those who fill this page.",
            where=page.title,
            fix="What you wrote stays there under your name. Ask your teacher if you should be with them.",
        )
    require(action, standings)
    return standings
