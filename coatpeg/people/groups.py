"""Sets of working groups: which of them something means, and moving students from one group of a set to another.

Every change of who is in which group goes through ``change_places``, with the class's row locked: a student is in one
group of a set at a time, and where they were before stays known with its days. Decided here: the first set of a class
is the one that class lists and pockets mean that name none; whoever is moved on the day on which they came was put
there by a slip, and nothing is kept of that; a name that a set had before still means it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any

from django.db.models import Q

from coatpeg.people.faces import mate
from coatpeg.people.models import Enrolment, FormerGroupMember, GroupMember, GroupSet, TeachingGroup, WorkingGroup

FIRST_SET = "Groups"
"""What the set is called that a class list makes."""
AT_ONCE = 1_000
"""Rows in one statement: well below the database's packet size."""


def first_set(group: TeachingGroup) -> GroupSet:
    """The set that class lists mean; made where a class has none."""
    found = GroupSet.objects.filter(group=group).order_by("pk").first()
    return found or GroupSet.objects.create(group=group, name=FIRST_SET)


def set_called(group_id: int, name: str) -> GroupSet | None:
    """The set of a class that a name means, or meant; its first one where none does, None where it has no set."""
    found = list(GroupSet.objects.filter(group_id=group_id).order_by("pk"))
    if name:
        called = next((one for one in found if one.name == name), None)
        return called or next((one for one in found if name in one.old_names), found[0] if found else None)
    return found[0] if found else None


def group_in(enrolment: Enrolment, set_name: str) -> WorkingGroup | None:
    """The group of a set in which a student is; None where they are in none of it."""
    of = set_called(enrolment.group_id, set_name)
    return enrolment.working_groups.filter(of=of).order_by("name", "pk").first() if of else None


def open_choices(enrolment: Enrolment, today: date) -> list[dict[str, Any]]:
    """The sets in which a student chooses a group today, with who is in which, as students see each other.

    One query where nothing is to be chosen, else three.
    """
    found = list(GroupSet.objects.filter(group_id=enrolment.group_id, chosen_until__gte=today).order_by("pk"))
    if not found:
        return []
    still = Q(enrolment__last=None) | Q(enrolment__last__gte=today)
    inside: dict[int, list[Enrolment]] = {}
    for place in (
        GroupMember.objects.filter(still, workinggroup__of__in=found).select_related("enrolment__person").order_by("pk")
    ):
        inside.setdefault(place.workinggroup_id, []).append(place.enrolment)
    groups = list(WorkingGroup.objects.filter(of__in=found).order_by("name", "pk"))
    return [
        {
            "id": of.pk,
            "name": of.name,
            "until": of.chosen_until,
            "most": of.most,
            "groups": [
                {
                    "id": one.pk,
                    "name": one.name,
                    "mine": enrolment in inside.get(one.pk, []),
                    "members": [mate(other) for other in inside.get(one.pk, [])],
                }
                for one in groups
                if one.of_id == of.pk
            ],
        }
        for of in found
    ]


@dataclass(frozen=True, slots=True)
class Moved:
    """Who was put where and taken out of where: pairs of working group and enrolment, as they can be undone."""

    into: list[tuple[int, int]]
    out_of: list[tuple[int, int]]

    @property
    def enrolments(self) -> set[int]:
        """Everybody of whom anything changed."""
        return {one for _, one in (*self.into, *self.out_of)}


def change_places(of: GroupSet, wanted: Mapping[int, WorkingGroup | None], today: date, now: datetime) -> Moved:
    """Put enrolments into groups of a set, or out of all of it (None). Call with the class locked, within a deed."""
    here = GroupMember.objects.filter(workinggroup__of=of, enrolment__in=list(wanted)).select_related("workinggroup")
    standing = list(here.order_by("pk"))
    stays = {one.enrolment_id for one in standing if _stays(one, wanted)}
    gone = [one for one in standing if not _stays(one, wanted)]
    FormerGroupMember.objects.bulk_create(
        [
            FormerGroupMember(
                of=of,
                workinggroup=one.workinggroup,
                name=one.workinggroup.name,
                enrolment_id=one.enrolment_id,
                first=one.first,
                last=today - timedelta(days=1),
                at=now,
            )
            for one in gone
            if one.first is None or one.first < today
        ],
        batch_size=AT_ONCE,
    )
    GroupMember.objects.filter(pk__in=[one.pk for one in gone]).delete()
    into = [(group.pk, one) for one, group in wanted.items() if group is not None and one not in stays]
    GroupMember.objects.bulk_create(
        (GroupMember(workinggroup_id=group, enrolment_id=one, first=today) for group, one in into), batch_size=AT_ONCE
    )
    return Moved(into, [(one.workinggroup_id, one.enrolment_id) for one in gone])


def _stays(place: GroupMember, wanted: Mapping[int, WorkingGroup | None]) -> bool:
    to = wanted[place.enrolment_id]
    return to is not None and to.pk == place.workinggroup_id


def put_back(moved: Moved, at: datetime) -> None:
    """Take a change of places of a moment back, with the class locked: nobody ends in two groups of a set by that.

    What was kept of those days then goes: they are there as if they had never left. As many statements for a year group
    as for one student.
    """
    into = {(group, enrolment) for group, enrolment in moved.into}
    of_set = dict(WorkingGroup.objects.filter(pk__in={one for one, _ in moved.out_of}).values_list("pk", "of_id"))
    back = {(group, enrolment) for group, enrolment in moved.out_of if group in of_set}
    goes_back = {(of_set[group], enrolment) for group, enrolment in back}
    here = GroupMember.objects.filter(enrolment__in={one for _, one in into | back}).select_related("workinggroup")
    gone = [
        one.pk
        for one in here
        if (one.workinggroup_id, one.enrolment_id) in into or (one.workinggroup.of_id, one.enrolment_id) in goes_back
    ]
    GroupMember.objects.filter(pk__in=gone).delete()
    former: dict[tuple[int | None, int], FormerGroupMember] = {}
    for one in FormerGroupMember.objects.filter(workinggroup__in=of_set, at=at):
        former[one.workinggroup_id, one.enrolment_id] = one
    known = {pair: former[pair] for pair in back if pair in former}
    GroupMember.objects.bulk_create(
        (
            GroupMember(
                workinggroup_id=group,
                enrolment_id=enrolment,
                first=known[group, enrolment].first if (group, enrolment) in known else None,
            )
            for group, enrolment in sorted(back)
        ),
        batch_size=AT_ONCE,
    )
    FormerGroupMember.objects.filter(pk__in=[one.pk for one in known.values()]).delete()
