"""What this room tells: a list that came through the roster folder and waits; requests for students, and their
end; to students that they may choose their group.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from django.db.models import Q
from django.utils import timezone

from coatpeg.core.policy import Role
from coatpeg.notices.kinds import Kind, Line, register
from coatpeg.notices.models import Notice
from coatpeg.people.access import leads_of
from coatpeg.people.calendars import school_calendar
from coatpeg.people.directory import staff_of
from coatpeg.people.models import Enrolment, GroupSet, JoinRequest, Person, RosterDrop
from coatpeg.portfolios.models import Portfolio
from coatpeg.setup.roster.join_requests import entry_of, to_decide


def _setters(notice: Notice) -> list[int]:
    assert notice.group_id is not None
    return staff_of(notice.group_id, Role.LEAD, Role.CO_TEACHER)


def _waiting(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Lists that still wait, by the name of their class: one query."""
    named = {one.data["drop"]: one for one in notices}
    rows = RosterDrop.objects.filter(pk__in=named, state=RosterDrop.State.PENDING).select_related("group")
    return {named[one.pk].pk: Line(one.group.name, f"/g/{one.group_id}/setup/list") for one in rows}


def _may_settle(notice: Notice) -> list[int]:
    """Whoever may say that the student comes in: the administrators, the leads who have them."""
    request = JoinRequest.objects.get(pk=notice.data["request"])
    administrators = Person.objects.filter(is_administrator=True, is_active=True).values_list("pk", flat=True)
    return [*administrators, *leads_of(request.student_id)]


def _to_settle(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Requests that still wait, by the class that asks: two queries."""
    named = {one.data["request"]: one for one in notices}
    person = Person.objects.get(pk=person_id)
    rows = to_decide(person, timezone.now()).filter(pk__in=named)
    return {named[one.pk].pk: Line(one.group.name, "/requests") for one in rows}


def _whoever_asked(notice: Notice) -> list[int]:
    return list(JoinRequest.objects.filter(pk=notice.data["request"]).values_list("asked_by_id", flat=True))


def _settled(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Requests that were answered, by the name that the asker's list had: one query."""
    named = {one.data["request"]: one for one in notices}
    rows = JoinRequest.objects.filter(pk__in=named, asked_by_id=person_id)
    return {named[one.pk].pk: Line(entry_of(one).listed, f"/g/{one.group_id}/setup/list") for one in rows}


def _choosing(notice: Notice) -> list[int]:
    """The students of the class, as long as the groups of the set are chosen."""
    assert notice.group_id is not None
    today = school_calendar().local_day(notice.tell_at)
    if not GroupSet.objects.filter(pk=notice.data["set"], chosen_until__gte=today).exists():
        return []
    there = Enrolment.objects.filter(group_id=notice.group_id, first__lte=today, portfolio__isnull=False)
    return sorted(there.filter(Q(last=None) | Q(last__gte=today)).values_list("person_id", flat=True))


def _to_choose(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Sets whose groups are still chosen, leading to the student's pockets: two queries."""
    today = school_calendar().local_day(timezone.now())
    named = {one.data["set"]: one for one in notices}
    sets = dict(GroupSet.objects.filter(pk__in=named, chosen_until__gte=today).values_list("pk", "name"))
    rows = Portfolio.objects.filter(enrolment__person_id=person_id)
    mine = dict(rows.values_list("enrolment__group_id", "pk"))
    return {
        one.pk: Line(sets[pk], f"/g/{one.group_id}/portfolio/{mine[one.group_id]}")
        for pk, one in named.items()
        if pk in sets and one.group_id in mine
    }


def register_all() -> None:
    """Say what these notices are called and lead to."""
    register("list_arrived", Kind(_setters, _waiting, "a class list has come and waits for you"))
    register("join_requested", Kind(_may_settle, _to_settle, "a class asks for a student whom you know"))
    register("group_to_choose", Kind(_choosing, _to_choose, "you may choose your group"))
    register("join_settled", Kind(_whoever_asked, _settled, "your request for this student was answered"))
