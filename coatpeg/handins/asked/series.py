"""Setting a series of hand-ins: each an ordinary one, bound by the series' name, with its place in it.

Decided here: they are numbered by their titles; each opens the day after the one before was due last, so that a student
sees one at a time; it closes as long after its due date as the first does. Whatever its version is since tells whether
somebody has changed one of its own.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta
from uuid import uuid4

from coatpeg.core.calendar.school_days import SchoolCalendar
from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.handins.asking import Due
from coatpeg.core.handins.series import DAY, WEEK, Occurrence, Repeat, in_its_week, occurrences
from coatpeg.core.policy import Action
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.asked import setting
from coatpeg.handins.asked.setting import Plan, with_room
from coatpeg.handins.asked.taking_back import take_back
from coatpeg.handins.asked.unit_series import of_units
from coatpeg.handins.models import HandIn, KeptFacts
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person, TeachingGroup
from coatpeg.portfolios.writing import lock_portfolios


def plans(group_id: int, plan: Plan, repeat: Repeat) -> list[tuple[Occurrence, Plan]]:
    """The hand-ins of a series as they would be set; ``Invalid`` where one of them cannot be."""
    if plan.draft:
        raise Invalid(
            "A series is not kept as a draft.", where="repeat", fix="Let it open later, or keep one and repeat it then."
        )
    if plan.due is None:
        raise Invalid("A series needs a due date.", where="due", fix="Give the day on which the first one is due.")
    calendar = school_calendar()
    if repeat.every == 0:
        of_each = list(of_units(group_id, plan, calendar))
        for _, made in of_each:
            setting.check(group_id, made)
        return of_each
    found: list[tuple[Occurrence, Plan]] = []
    for one in occurrences(plan.due.day, repeat, calendar):
        made = _shifted(plan, one, calendar, found[-1][1] if found else None)
        setting.check(group_id, made)
        found.append((one, made))
    return found


def _shifted(plan: Plan, one: Occurrence, calendar: SchoolCalendar, before: Plan | None) -> Plan:
    title = f"{plan.title.strip()} {one.number}"
    if before is None:
        return replace(plan, title=title)

    def moved(due: Due) -> Due:
        day = due.day + one.weeks * WEEK
        return Due(in_its_week(day, calendar) or day, due.at)

    assert plan.due is not None
    dues = {period: moved(due) for period, due in plan.period_dues.items()}
    made = replace(plan, title=title, due=Due(one.day, plan.due.at), period_dues=dues)
    closes = plan.closes and Due(max(plan.closes.day + one.weeks * WEEK, *made.days), plan.closes.at)
    return replace(made, opens=min(max(before.days) + DAY, *made.days), closes=closes)


def set_series(
    person: Person, group_id: int, plan: Plan, repeat: Repeat, now: datetime, *, key: str | None = None
) -> list[HandIn]:
    """Set all hand-ins of a series, in one deed; what came under the form's ``key`` is there already."""
    setting.refuse_nobody(setting.preview(person, group_id, plan, now))
    wanted = plans(group_id, plan, repeat)
    name = str(uuid4())
    with deed(person.pk, now) as doing:
        TeachingGroup.objects.select_for_update().get(pk=group_id)
        before = HandIn.objects.filter(group_id=group_id, client_key=key).first() if key else None
        if before is not None:
            return list(HandIn.objects.filter(group_id=group_id, series=before.series).order_by("series_place"))
        return [_set(doing, group_id, name, one, made, key if one.number == 1 else None) for one, made in wanted]


def _set(doing: Deed, group_id: int, name: str, one: Occurrence, plan: Plan, key: str | None) -> HandIn:
    plan = with_room(doing, group_id, plan)
    handin = HandIn(group_id=group_id, client_key=key, series=name, series_place=one.number, series_version=1)
    setting.write(handin, plan)
    doing.record("handin_set", group_id, handin_id=handin.pk, pockets=sorted(plan.pockets), series=name)
    setting.tell_of(doing, handin)
    return handin


def take_series_back(person: Person, group_id: int, name: str, now: datetime) -> tuple[int, list[str]]:
    """Take back a series: how many went, and the titles of those that stay, since somebody has used them."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        found = list(HandIn.objects.filter(group_id=group_id, series=name).order_by("series_place")) if name else []
        if not found:
            raise Gone("There is no such series in this class.", fix="Load the page again.")
        kept = [one for one in found if is_used(one)]
        for one in found:
            if one not in kept:
                take_back(doing, group_id, one.pk)
        return len(found) - len(kept), [one.title for one in kept]


def is_used(handin: HandIn) -> bool:
    """Whether anybody has handed it in, or was excused from it."""
    return handin.submissions.exists() or KeptFacts.objects.filter(handin=handin).exists()


def others_of(handin: HandIn, scope: str) -> tuple[list[HandIn], list[HandIn]]:
    """The others of its series that a change of all, or from here on, reaches; and those that are left alone.

    Left alone is what somebody has handed in, or what was changed by itself.
    """
    if scope == "one" or not handin.series:
        return [], []
    found = HandIn.objects.filter(group_id=handin.group_id, series=handin.series, taken_away_at=None)
    if scope == "on":
        found = found.filter(series_place__gt=handin.series_place)
    others = list(found.exclude(pk=handin.pk).order_by("series_place").select_for_update())
    left = [one for one in others if one.version != one.series_version or is_used(one)]
    return [one for one in others if one not in left], left


def like_this(other: Plan, title: str, before: Plan, after: Plan, calendar: SchoolCalendar) -> Plan:
    """Another one of the series as a change from ``before`` to ``after`` makes it: alike but for its dates.

    Its due date moves by as many days as this one's does.
    """
    made = replace(after, title=title, opens=other.opens, due=other.due, closes=other.closes)
    if set(other.pockets) != set(before.pockets):
        # One for each unit: it keeps to the pockets of its own.
        made = replace(made, pockets=other.pockets, follows=other.follows)
    if other.due is None or before.due is None or after.due is None:
        return made
    apart = after.due.day - before.due.day

    def place(day: date) -> date:
        return in_its_week(day, calendar) or day

    due = Due(place(other.due.day + apart), after.due.at)
    dues = {one: Due(place(due.day + (of.day - after.due.day)), of.at) for one, of in after.period_dues.items()}
    made = replace(made, due=due, period_dues=dues)
    closes = after.closes and Due(max(due.day + (after.closes.day - after.due.day), *made.days), after.closes.at)
    return replace(made, opens=min(other.opens + max(apart, timedelta(0)), *made.days), closes=closes)


def renamed(handins: Sequence[HandIn]) -> None:
    """Bind hand-ins as a series of their own: what was changed from here on."""
    name = str(uuid4())
    for one in handins:
        one.series = name
        one.save(update_fields=["series"])
