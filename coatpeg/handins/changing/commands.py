"""Changing a hand-in, taking it away, bringing it back: each one deed over the class, with its portfolios locked.

Decided here: a pocket that is no longer collected loses this hand-in's hold; one that comes back takes it again from
whoever handed it in and was not sent it back. A draft that is set asks and tells from then on; what was set is a draft
again as long as nobody has handed it in. A pocket that is added asks nobody who has handed in: it waits for a
*sent back*. A hand-in taken away holds nothing and asks nobody; brought back it holds what it held, its dates stand.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from coatpeg.core.errors import Invalid, Stale
from coatpeg.core.handins.series import base_title
from coatpeg.core.policy import Action
from coatpeg.events.models import Event
from coatpeg.events.recording import Deed, deed
from coatpeg.handins.asked import files, series, setting
from coatpeg.handins.asked.setting import Plan, with_room
from coatpeg.handins.changing.impact import Impact, impact, wanted_handin
from coatpeg.handins.changing.telling_moves import tell_moved
from coatpeg.handins.handing.holding import Held, handed_in, release, take
from coatpeg.handins.models import HandIn
from coatpeg.notices.models import Notice
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import school_calendar
from coatpeg.people.models import Person
from coatpeg.portfolios.models import StandingHold
from coatpeg.portfolios.writing import lock_portfolios


def change_handin(
    person: Person, group_id: int, handin_id: int, plan: Plan, version: int, now: datetime, *, scope: str = "one"
) -> tuple[HandIn, Impact, list[str]]:
    """Change a hand-in that was seen as ``version``; ``Stale`` where somebody changed it meanwhile.

    Of a series, ``scope`` says whether the others are made like it: ``on`` those after it, ``all`` of them. Those that
    are left alone come back by their titles.
    """
    require_in_group(person, Action.SET_HANDIN, group_id)
    files.check(person, plan.files)
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        handin = wanted_handin(group_id, handin_id, lock=True)
        if handin.version != version:
            raise Stale(
                f"“{handin.title}” was changed by somebody else while you were changing it.",
                where=handin.title,
                fix="What you filled in is still here: look at what it says now, then keep yours or take theirs.",
                more={"version": handin.version},
            )
        meant = impact(handin, plan, now)
        if plan.draft and not handin.draft:
            _refuse_used(handin)
        if not plan.draft and not meant.preview.asked and not meant.moves.kept:
            raise Invalid(
                "Nobody would be asked for this any more.",
                where="periods",
                fix="Choose other periods or dates. To end it, take it away.",
            )
        before = setting.plan_of(handin)
        plan = with_room(doing, group_id, plan)
        handin.version += 1
        if plan.draft:
            _untold(handin)
        setting.write(handin, plan)
        gone, come = set(before.pockets) - set(plan.pockets), set(plan.pockets) - set(before.pockets)
        released = release(StandingHold.objects.filter(handin_id=handin.pk, pocket__in=gone)) if gone else []
        taken = take(handin, handed_in(handin, come), now) if come else []
        released += _reopened(handin, plan, now)
        StandingHold.objects.filter(handin_id=handin.pk).update(title=handin.title)
        doing.record(
            "handin_changed",
            group_id,
            handin_id=handin.pk,
            version=handin.version,
            fields=sorted(_differing(before, plan)),
            released=released,
            taken=taken,
        )
        if before.draft:
            setting.tell_of(doing, handin)
        else:
            tell_moved(doing, handin, due=bool(meant.moves.dues_moved))
        return handin, meant, _others(doing, handin, before, plan, scope)


def _refuse_used(handin: HandIn) -> None:
    """Refuse to make a draft again of what somebody has handed in, or was excused from."""
    if series.is_used(handin):
        raise Invalid(
            f"Somebody has handed in “{handin.title}” already, or was excused from it.",
            where=handin.title,
            fix="It stays set. You can close it, or take it away.",
        )


def _untold(handin: HandIn) -> None:
    """Nobody is told any more that it is set who was not yet."""
    of = Notice.objects.filter(group_id=handin.group_id, what="handin_set", fanned_at=None, data__handin=handin.pk)
    of.delete()


def _others(doing: Deed, handin: HandIn, before: Plan, after: Plan, scope: str) -> list[str]:
    """Make the others of its series like it; returns the titles of those that are left alone."""
    others, left = series.others_of(handin, scope)
    if scope != "one" and handin.series:
        handin.series_version = handin.version
        handin.save(update_fields=["series_version"])
    title = base_title(after.title, handin.series_place)
    calendar = school_calendar()
    for other in others:
        was = setting.plan_of(other)
        plan = series.like_this(was, f"{title} {other.series_place}", before, after, calendar)
        setting.check(handin.group_id, plan, was.pockets)
        other.version += 1
        other.series_version = other.version
        setting.write(other, plan)
        fields = sorted(_differing(was, plan))
        doing.record(
            "handin_changed",
            other.group_id,
            handin_id=other.pk,
            version=other.version,
            fields=fields,
            released=[],
            taken=[],
        )
        tell_moved(doing, other, due=was.days != plan.days)
    if scope == "on" and others:
        series.renamed([handin, *others])
    return [one.title for one in left]


def _reopened(handin: HandIn, plan: Plan, now: datetime) -> list[Held]:
    """Where its closing was carried out and it takes work again: let go of the holds that the closing took.

    Not of those who have handed in since.
    """
    if handin.closed_at is None or (plan.closes and plan.closes.moment(school_calendar()) < now):
        return []
    closed = Event.objects.filter(handin_id=handin.pk, verb="handin_closed").order_by("number").last()
    since = handin.submissions.filter(at__gt=handin.closed_at, voided_at=None).values("enrolment_id")
    handin.closed_at = None
    handin.save(update_fields=["closed_at"])
    held = {tuple(one) for one in closed.data["taken"]} if closed else set()
    rows = StandingHold.objects.filter(handin_id=handin.pk).exclude(portfolio__enrolment_id__in=since)
    places = rows.values_list("pk", "portfolio__enrolment_id", "pocket_id")
    return release(rows.filter(pk__in=[pk for pk, *place in places if tuple(place) in held]))


def _differing(before: Plan, after: Plan) -> Iterable[str]:
    return (name for name in before.__dataclass_fields__ if getattr(before, name) != getattr(after, name))


def take_away(person: Person, group_id: int, handin_id: int, now: datetime) -> HandIn:
    """Take a hand-in away: nothing is asked any more, its holds are released, what was handed in stays readable."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        handin = wanted_handin(group_id, handin_id, lock=True)
        handin.taken_away_at = now
        handin.version += 1
        handin.save(update_fields=["taken_away_at", "version"])
        released = release(StandingHold.objects.filter(handin_id=handin.pk))
        _untold(handin)
        doing.record("handin_taken_away", group_id, handin_id=handin.pk, released=released)
        return handin


def bring_back(person: Person, group_id: int, handin_id: int, now: datetime) -> HandIn:
    """Bring a hand-in back as it was; twice is as good as once."""
    require_in_group(person, Action.SET_HANDIN, group_id)
    with deed(person.pk, now) as doing:
        lock_portfolios(group_id)
        handin = HandIn.objects.select_for_update().filter(pk=handin_id, group_id=group_id).first()
        if handin is None or handin.taken_away_at is None:
            return wanted_handin(group_id, handin_id)
        handin.taken_away_at = None
        handin.version += 1
        handin.save(update_fields=["taken_away_at", "version"])
        away = Event.objects.filter(handin_id=handin.pk, verb="handin_taken_away").order_by("number").last()
        held = [(enrolment, pocket) for enrolment, pocket in away.data["released"]] if away else []
        doing.record("handin_brought_back", group_id, handin_id=handin.pk, taken=take(handin, held, now))
        if not Notice.objects.filter(group_id=group_id, what="handin_set", data__handin=handin.pk).exists():
            setting.tell_of(doing, handin)
        return handin
