"""Sets of groups and the groups in them: seeing, making, naming, taking away; and moving students by hand.

Decided here: a group's name is the only one of its class, so that it says which group is meant wherever groups of
several sets stand side by side. A group is taken away when nobody is in it and nothing needs it; a set when it has no
group that may not be taken away. Who is never or always to be drawn together is seen by those alone who form groups.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from datetime import date, datetime
from typing import Any

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.outlines.filling import Shared
from coatpeg.core.people.grouping import MOST_WISHES
from coatpeg.core.policy import Action, decide
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket
from coatpeg.people import groups as places
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.faces import face
from coatpeg.people.models import (
    FormerGroupMember,
    GroupMember,
    GroupSet,
    Person,
    RosterChange,
    TeachingGroup,
    WorkingGroup,
)
from coatpeg.people.rosters import Member, members
from coatpeg.setup.roster.memberships import LONGEST_PLACE, Applying, RosterWrites, locked_group, moved
from coatpeg.sharing.models import SharedPage

MOST_SETS = 12
MOST_GROUPS = 400
MOST_FORMER = 40
"""Former places that are shown with a set, the latest first."""


def set_of(person: Person, action: Action, set_id: int) -> GroupSet:
    """A set in a class in which a person may do this; else as if it were not there, or refused."""
    found = GroupSet.objects.filter(pk=set_id).select_related("group").first()
    if found is None:
        raise Gone("There is no such set of groups.", fix="Load the groups again.")
    require_in_group(person, action, found.group_id)
    return found


def group_of(person: Person, working_group_id: int) -> WorkingGroup:
    """A working group in a class whose groups a person may change."""
    found = WorkingGroup.objects.filter(pk=working_group_id).select_related("of__group").first()
    if found is None:
        raise Gone("There is no such group.", fix="Load the groups again.")
    require_in_group(person, Action.KEEP_ROSTER, found.group_id)
    return found


def here(group_id: int, today: date) -> list[Member]:
    """The students who are in a class today, by surname."""
    return [one for one in members(group_id, today) if one.student.enrolled.holds(today)]


def shown(person: Person, group_id: int, now: datetime) -> dict[str, Any]:
    """All sets of a class with who is in which group: a fixed number of queries."""
    standings = require_in_group(person, Action.SEE_ROSTER, group_id)
    may = decide(Action.KEEP_ROSTER, standings).allowed
    today = school_calendar().local_day(now)
    students = here(group_id, today)
    present = {one.enrolment_id for one in students}
    sets = list(GroupSet.objects.filter(group_id=group_id).order_by("pk"))
    inside: dict[int, list[dict[str, Any]]] = {}
    for place in GroupMember.objects.filter(workinggroup__group_id=group_id, enrolment__in=present).order_by("pk"):
        inside.setdefault(place.workinggroup_id, []).append({"id": place.enrolment_id, "since": place.first})
    of_set: dict[int, list[dict[str, Any]]] = {}
    for one in WorkingGroup.objects.filter(group_id=group_id).order_by("name", "pk"):
        of_set.setdefault(one.of_id, []).append({"id": one.pk, "name": one.name, "members": inside.get(one.pk, [])})
    former = _former(group_id)
    used = _filled_by(group_id, sets)
    return {
        "may_change": may,
        "pages_together": TeachingGroup.objects.values_list("pages_together", flat=True).get(pk=group_id),
        "students": [face(one) for one in students],
        "sets": [
            {
                "id": one.pk,
                "name": one.name,
                "chosen_until": one.chosen_until if one.chosen_until and one.chosen_until >= today else None,
                "most": one.most,
                "groups": of_set.get(one.pk, []),
                "apart": _about(one.apart, present) if may else [],
                "together": _about(one.together, present) if may else [],
                "seed": one.seed if may else None,
                "fills": used.get(one.pk, []),
                "former": former.get(one.pk, []),
            }
            for one in sets
        ],
    }


def _about(wishes: Iterable[list[int]], present: Collection[int]) -> list[list[int]]:
    return [[one for one in wish if one in present] for wish in wishes if len(set(wish) & set(present)) > 1]


def _former(group_id: int) -> dict[int, list[dict[str, Any]]]:
    """Who was in which group before, by set; of those that are many the latest."""
    found: dict[int, list[dict[str, Any]]] = {}
    rows = FormerGroupMember.objects.filter(of__group_id=group_id).select_related("enrolment__person").order_by("-pk")
    for one in rows[:MOST_FORMER]:
        found.setdefault(one.of_id, []).append(
            {"name": one.enrolment.person.full_name, "group": one.name, "first": one.first, "last": one.last}
        )
    return found


def _filled_by(group_id: int, sets: list[GroupSet]) -> dict[int, list[str]]:
    """The titles of the pockets that the groups of each set fill."""
    found: dict[int, list[str]] = {}
    shared = Pocket.objects.filter(section__template__group_id=group_id, shared=Shared.GROUP, retired_at=None)
    for title, name in shared.values_list("title", "group_set"):
        of = next((one for one in sets if name and (one.name == name or name in one.old_names)), None)
        if of or sets:
            found.setdefault((of or sets[0]).pk, []).append(title)
    return found


def _named(name: str) -> str:
    tidy = " ".join(name.split())
    if not tidy or len(tidy) > LONGEST_PLACE:
        raise Invalid(
            "It has no name." if not tidy else f"The name has {len(tidy)} characters.",
            where="name",
            fix=f"Give a name of at most {LONGEST_PLACE} characters.",
        )
    return tidy


def make_set(person: Person, group_id: int, name: str, now: datetime) -> GroupSet:
    """Begin a set without groups."""
    require_in_group(person, Action.KEEP_ROSTER, group_id)
    tidy = _named(name)
    with deed(person.pk, now) as doing:
        group = locked_group(group_id)
        if GroupSet.objects.filter(group=group).count() >= MOST_SETS:
            raise Invalid(f"The class has {MOST_SETS} sets already.", where="name", fix="Take one away first.")
        _refuse_set_name(group_id, tidy)
        made = GroupSet.objects.create(group=group, name=tidy)
        doing.record("groups_changed", group_id, set=made.pk)
        return made


def _refuse_set_name(group_id: int, name: str, but: int = 0) -> None:
    if GroupSet.objects.filter(group_id=group_id, name=name).exclude(pk=but).exists():
        raise Invalid(f"There is a set called “{name}” already.", where="name", fix="Give this one another name.")


def rename_set(person: Person, set_id: int, name: str, now: datetime) -> None:
    """Call a set otherwise; pockets that its groups fill still mean it."""
    of = set_of(person, Action.KEEP_ROSTER, set_id)
    tidy = _named(name)
    with deed(person.pk, now) as doing:
        locked_group(of.group_id)
        of = GroupSet.objects.get(pk=set_id)
        if of.name == tidy:
            return
        _refuse_set_name(of.group_id, tidy, of.pk)
        of.old_names = [one for one in [*of.old_names, of.name] if one != tidy]
        of.name = tidy
        of.save()
        for other in GroupSet.objects.filter(group_id=of.group_id).exclude(pk=of.pk):
            if tidy in other.old_names:
                other.old_names = [one for one in other.old_names if one != tidy]
                other.save(update_fields=["old_names"])
        doing.record("groups_changed", of.group_id, set=of.pk)


def remove_set(person: Person, set_id: int, now: datetime) -> None:
    """Take a set away with its groups, in which nobody may be and which nothing may need."""
    of = set_of(person, Action.KEEP_ROSTER, set_id)
    with deed(person.pk, now) as doing:
        locked_group(of.group_id)
        titles = _filled_by(of.group_id, list(GroupSet.objects.filter(group_id=of.group_id).order_by("pk"))).get(of.pk)
        if titles:
            raise Refused(
                f"The groups of “{of.name}” fill {', '.join(f'“{one}”' for one in titles[:3])}.",
                where=of.name,
                fix="Let another set fill these pockets, under Template.",
            )
        for one in WorkingGroup.objects.filter(of=of):
            _refuse_needed(one)
        of.delete()
        doing.record("groups_changed", of.group_id, set=set_id)


def make_group(person: Person, set_id: int, name: str, now: datetime) -> WorkingGroup:
    """A group in which nobody is yet."""
    of = set_of(person, Action.KEEP_ROSTER, set_id)
    tidy = _named(name)
    with deed(person.pk, now) as doing:
        locked_group(of.group_id)
        if WorkingGroup.objects.filter(of=of).count() >= MOST_GROUPS:
            raise Invalid(f"The set has {MOST_GROUPS} groups already.", where="name", fix="Take one away first.")
        _refuse_group_name(of.group_id, tidy)
        made = WorkingGroup.objects.create(group_id=of.group_id, of=of, name=tidy)
        doing.record("groups_changed", of.group_id, set=of.pk)
        return made


def _refuse_group_name(group_id: int, name: str, but: int = 0) -> None:
    same = WorkingGroup.objects.filter(group_id=group_id, name=name).exclude(pk=but).select_related("of").first()
    if same:
        raise Invalid(
            f"There is a group called “{same.name}” in “{same.of.name}” already.",
            where="name",
            fix="Give this one another name.",
        )


def rename_group(person: Person, working_group_id: int, name: str, now: datetime) -> None:
    """Call a group otherwise."""
    one = group_of(person, working_group_id)
    tidy = _named(name)
    with deed(person.pk, now) as doing:
        locked_group(one.group_id)
        _refuse_group_name(one.group_id, tidy, one.pk)
        WorkingGroup.objects.filter(pk=one.pk).update(name=tidy)
        doing.record("groups_changed", one.group_id, set=one.of_id)


def remove_group(person: Person, working_group_id: int, now: datetime) -> None:
    """Take a group away in which nobody is and which nothing needs."""
    one = group_of(person, working_group_id)
    with deed(person.pk, now) as doing:
        locked_group(one.group_id)
        _refuse_needed(one)
        one.delete()
        doing.record("groups_changed", one.group_id, set=one.of_id)


def _refuse_needed(one: WorkingGroup) -> None:
    if GroupMember.objects.filter(workinggroup=one).exists():
        raise Refused(f"There are students in “{one.name}”.", where=one.name, fix="Put them into another group first.")
    asked = HandIn.objects.filter(groups=one, taken_away_at=None).values_list("title", flat=True).first()
    if asked:
        raise Refused(f"“{asked}” is asked of “{one.name}”.", where=one.name, fix="Ask it of others, under Hand-ins.")
    written = SharedPage.objects.filter(working_group=one, number__gt=0).select_related("pocket").first()
    if written and written.pocket:
        raise Refused(
            f"“{one.name}” has written on “{written.pocket.title}”.",
            where=one.name,
            fix="Leave it: what was written stays readable with it.",
        )


def move(person: Person, set_id: int, students: Collection[int], to: int | None, now: datetime) -> int | None:
    """Put students into a group of a set, or out of all of its groups; the change that undoes it, None where none."""
    of = set_of(person, Action.KEEP_ROSTER, set_id)
    with deed(person.pk, now) as doing:
        locked_group(of.group_id)
        group = None
        if to is not None:
            group = WorkingGroup.objects.filter(pk=to, of=of).first()
            if group is None:
                raise Gone("There is no such group in this set.", fix="Load the groups again.")
        return put(doing, person, of, dict.fromkeys(sorted(set(students)), group))


def put(doing: Deed, person: Person, of: GroupSet, wanted: Mapping[int, WorkingGroup | None]) -> int | None:
    """Change who is in which group of a set, with the class locked; the change that undoes it."""
    today = school_calendar().local_day(doing.now)
    present = {one.enrolment_id for one in here(of.group_id, today)}
    if not set(wanted) <= present:
        raise Gone("One of them is not in this class.", fix="Load the groups again.")
    to = Applying(doing, of.group, RosterWrites(), today)
    what = places.change_places(of, wanted, today, doing.now)
    moved(to, what)
    for enrolment in sorted(what.enrolments):
        doing.record("student_changed", of.group_id, enrolment_id=enrolment, fields=["group"])
    if not to.writes:
        return None
    return RosterChange.objects.create(group=of.group, person=person, at=doing.now, data=vars(to.writes)).pk


def wish(
    person: Person,
    set_id: int,
    apart: Collection[Collection[int]],
    together: Collection[Collection[int]],
    now: datetime,
) -> None:
    """Say who is never drawn into one group, and who always is."""
    of = set_of(person, Action.KEEP_ROSTER, set_id)
    if len(apart) + len(together) > MOST_WISHES:
        raise Invalid(f"More than {MOST_WISHES} wishes.", where="wishes", fix="Take some out.")
    with deed(person.pk, now) as doing:
        locked_group(of.group_id)
        present = {one.enrolment_id for one in here(of.group_id, school_calendar().local_day(now))}
        for one in [*apart, *together]:
            if len(set(one)) < 2:
                raise Invalid("A wish is about two students or more.", where="wishes", fix="Choose two at least.")
            if not set(one) <= present:
                raise Gone("One of them is not in this class.", fix="Load the groups again.")
        GroupSet.objects.filter(pk=of.pk).update(
            apart=[sorted(set(one)) for one in apart], together=[sorted(set(one)) for one in together]
        )
        doing.record("groups_changed", of.group_id, set=of.pk)
