"""Students choose their group themselves: staff say until when and how many fit into one.

Decided here: whoever chose changes their mind until the last day; a group that is full is full, the students being
let in one after the other; staff move students past the limit as they see fit. Students are told when they may choose,
not of each later day that is set.
"""

from __future__ import annotations

from datetime import date, datetime

from coatpeg.core.errors import Gone, Invalid, Refused
from coatpeg.core.policy import Action
from coatpeg.cupboard.giving import for_joiners
from coatpeg.events.recording import deed
from coatpeg.notices.putting import put
from coatpeg.people.access import follower
from coatpeg.people.calendars import school_calendar
from coatpeg.people.groups import change_places
from coatpeg.people.models import GroupMember, GroupSet, Person, WorkingGroup
from coatpeg.setup.groups import sets
from coatpeg.setup.roster.memberships import locked_group
from coatpeg.sharing.settling import fill_anew

LARGEST = 200


def open_choice(person: Person, set_id: int, until: date | None, most: int | None, now: datetime) -> None:
    """Let students choose until a day (None: no longer), at most so many in a group."""
    of = sets.set_of(person, Action.KEEP_ROSTER, set_id)
    today = school_calendar().local_day(now)
    if until is not None:
        if until < today:
            raise Invalid(f"{until:%d.%m.%Y} is over.", where="until", fix="Give today or a later day.")
        if most is None or not 1 <= most <= LARGEST:
            raise Invalid("It is not said how many fit into a group.", where="most", fix=f"Give 1 to {LARGEST}.")
    with deed(person.pk, now) as doing:
        locked_group(of.group_id)
        if until is not None and not WorkingGroup.objects.filter(of=of).exists():
            raise Refused("There is no group to choose.", where=of.name, fix="Make the groups first.")
        before = GroupSet.objects.get(pk=of.pk).chosen_until
        GroupSet.objects.filter(pk=of.pk).update(chosen_until=until, most=most if until else of.most)
        if until is not None and (before is None or before < today):
            put(doing, "group_to_choose", of.group_id, set=of.pk)
        doing.record("groups_changed", of.group_id, set=of.pk)


def choose(person: Person, set_id: int, to: int | None, now: datetime) -> None:
    """Go into a group of a set, or out of it; refused where it is full or no longer chosen."""
    of = sets.set_of(person, Action.CHOOSE_GROUP, set_id)
    _, enrolment = follower(person, of.group_id)
    if enrolment is None:
        raise Gone("There is no such set of groups.", fix="Go back to the pockets.")
    today = school_calendar().local_day(now)
    with deed(person.pk, now) as doing:
        locked_group(of.group_id)
        of = GroupSet.objects.get(pk=set_id)
        if of.chosen_until is None or of.chosen_until < today:
            raise Refused(
                f"The groups of “{of.name}” are no longer chosen.", where=of.name, fix="Ask your teacher to move you."
            )
        group = WorkingGroup.objects.filter(pk=to, of=of).first() if to is not None else None
        if to is not None and group is None:
            raise Gone("There is no such group.", fix="Choose one that is shown.")
        if group is not None and _is_full(group, of, enrolment, today):
            raise Refused(f"“{group.name}” is full.", where=group.name, fix="Choose another group.")
        moved = change_places(of, {enrolment: group}, today, now)
        if moved.enrolments:
            fill_anew({one for one, _ in moved.into}, now)
            for_joiners(doing, of.group_id)
            doing.record("student_changed", of.group_id, enrolment_id=enrolment, fields=["group"])


def _is_full(group: WorkingGroup, of: GroupSet, enrolment: int, today: date) -> bool:
    present = {one.enrolment_id for one in sets.here(of.group_id, today)} - {enrolment}
    inside = GroupMember.objects.filter(workinggroup=group, enrolment__in=present).count()
    return of.most is not None and inside >= of.most
