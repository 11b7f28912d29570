"""Staff give copies of an item out: into a pocket of all, of some periods or groups, or of chosen students.

What it will do is worked out by the same function that does it. Decided here: given out is what lies in the item now;
an item that is for staff only may be given out, students see their copies and not the item. What was given to the whole
class, to a period or to a group reaches whoever comes later with the change that brings them in.

What waits for a moment is seen by nobody but staff until then; then whoever is meant and there gets what lies in the
item at that moment. Where its item or pocket is gone by then, nothing is given, and it says that it was taken back.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime
from typing import Any

from django.utils import timezone

from coatpeg.core.cupboard.giving import Candidate, Plan, Progress, plan
from coatpeg.core.cupboard.items import refuse_misfit
from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.versions import VariantPlan
from coatpeg.core.policy import Action
from coatpeg.cupboard import copies, laying, versions
from coatpeg.cupboard.keeping import kept_item
from coatpeg.cupboard.models import CupboardCopy, CupboardItem, GivenOut
from coatpeg.cupboard.reading import lines_of
from coatpeg.cupboard.versions import Several
from coatpeg.events.recording import Deed, deed
from coatpeg.jobs.kinds import Kind, job
from coatpeg.notices.putting import put
from coatpeg.outlines.models import Pocket
from coatpeg.outlines.reading import pockets_of
from coatpeg.people.access import require_in_group
from coatpeg.people.calendars import check_class_days, school_calendar
from coatpeg.people.faces import face
from coatpeg.people.models import GroupMember, Period, Person, WorkingGroup
from coatpeg.people.rosters import Member, members
from coatpeg.portfolios.models import Portfolio
from coatpeg.portfolios.writing import lock_portfolios


@dataclass(frozen=True, slots=True)
class Audience:
    """Who is meant: some students (enrolments), else some periods and groups, else (all empty) the whole class."""

    students: Collection[int] = ()
    periods: Collection[int] = ()
    groups: Collection[int] = ()

    @property
    def everybody(self) -> bool:
        """Whether it is the class as a whole."""
        return not (self.students or self.periods or self.groups)


@dataclass(frozen=True, slots=True)
class Meant:
    """What giving out would do: the plan, which item whoever gets one gets, and everybody by enrolment."""

    plan: Plan
    which: dict[int, int]
    portfolios: dict[int, Portfolio]
    members: dict[int, Member]


@dataclass(frozen=True, slots=True)
class Giving:
    """What is to be given out: an item, with its versions where it has some, into a pocket, to whom."""

    item_id: int
    pocket_id: int
    to: Audience = Audience()
    plan: VariantPlan | None = None
    by_hand: Mapping[int, int] = field(default_factory=dict)


def look(person: Person, what: Giving, now: datetime) -> dict[str, Any]:
    """What giving out would do, by name; ``nowhere`` are those whom no version names."""
    item = _item(person, what.item_id)
    of = versions.several(item, what.plan, what.by_hand)
    meant = _meant(of, _pocket(of, what.pocket_id), what.to, now)

    def named(ids: Iterable[int]) -> list[dict[str, Any]]:
        return [face(meant.members[one]) for one in ids]

    gets = [meant.members[one] for one in meant.plan.gets]
    return {
        **{name: named(getattr(meant.plan, name)) for name in ("gets", "has", "locked", "full")},
        "versions": [
            {"item": pk, "title": one.title, "gets": named(who for who in meant.plan.gets if meant.which[who] == pk)}
            for pk, one in of.items.items()
            if of.plan
        ],
        "nowhere": named(versions.left_out(of, item.group_id, gets)),
    }


def give(person: Person, what: Giving, key: str, now: datetime, later: datetime | None = None) -> GivenOut:
    """Give copies out, at once or at a moment (``later``); the same ``key`` again is the same deed."""
    item = _item(person, what.item_id)
    to = what.to
    of = versions.several(item, what.plan, what.by_hand)
    pocket = _pocket(of, what.pocket_id)
    if later is not None:
        check_class_days(item.group_id, day=school_calendar().local_day(later))
        if later <= now:
            raise Invalid("This moment has passed.", where="day", fix="Choose a later one, or give it out now.")
    with deed(person.pk, now) as doing:
        lock_portfolios(item.group_id)
        had = GivenOut.objects.filter(group_id=item.group_id, key=key).first()
        if had is not None:
            return had
        item = CupboardItem.objects.select_related("stored").get(pk=item.pk)
        of = versions.several(item, what.plan, what.by_hand)
        meant = _meant(of, pocket, to, now)
        if not meant.plan.gets:
            raise Invalid(
                f"Nobody would get “{item.title}”: everybody meant has it already, or their pocket is locked.",
                where="students",
                fix="Choose others, or another pocket.",
            )
        made = GivenOut.objects.create(
            group_id=item.group_id,
            item=item,
            pocket=pocket,
            person=person,
            key=key,
            whole=to.everybody,
            periods=[] if to.students else sorted(set(to.periods)),
            groups=[] if to.students else sorted(set(to.groups)),
            dealt=of.to_data(),
            students=sorted(set(to.students)) if later else [],
            waits_for=later,
            at=now,
        )
        if later is not None:
            give_planned.using(run_after=later).enqueue(made.pk)
            doing.record("given_out_planned", item.group_id, item=item.pk, given=made.pk, pocket=pocket.pk)
            return made
        _lay(doing, made, of, meant, meant.plan.gets)
        doing.record("given_out", item.group_id, item=item.pk, given=made.pk, pocket=pocket.pk)
        return made


@job(Kind("giving out what waited for its moment"))
def give_planned(given_id: int) -> None:
    """Give out what waited, if it still does and its moment has come."""
    found = GivenOut.objects.filter(pk=given_id).first()
    if found is not None:
        give_now(found, timezone.now())


def give_now(found: GivenOut, now: datetime) -> None:
    """Give out what waited for a moment that has come; again does nothing."""
    with deed(found.person_id, now) as doing:
        lock_portfolios(found.group_id)
        given = _reread(found)
        if given.waits_for is None or given.waits_for > now or given.taken_back_at is not None:
            return
        of = versions.given_items(given)
        if any(one.removed_at for one in of.items.values()) or given.pocket.retired_at is not None:
            given.taken_back_at = now
            given.save(update_fields=["taken_back_at"])
            doing.record("given_out_taken_back", given.group_id, given=given.pk, item=given.item_id)
            return
        here = set(_here(given.group_id, school_calendar().local_day(now)))
        students = frozenset(given.students) & here
        to = replace(_standing(given), students=students)
        meant = None if to.everybody and not given.whole else _meant(of, given.pocket, to, now)
        given.waits_for, given.at = None, now
        given.save(update_fields=["waits_for", "at"])
        if meant:
            _lay(doing, given, of, meant, meant.plan.gets)
        doing.record("given_out", given.group_id, item=given.item_id, given=given.pk, pocket=given.pocket_id)


def _standing(given: GivenOut) -> Audience:
    """The periods and groups of those that it was given to which still are there."""
    if not (given.periods or given.groups):
        return Audience()
    periods = Period.objects.filter(group_id=given.group_id, pk__in=given.periods).values_list("pk", flat=True)
    groups = WorkingGroup.objects.filter(group_id=given.group_id, pk__in=given.groups).values_list("pk", flat=True)
    return Audience(periods=frozenset(periods), groups=frozenset(groups))


def _lay(doing: Deed, given: GivenOut, of: Several, meant: Meant, to: Sequence[int]) -> None:
    """Lay copies for these (enrolments) and tell them: one notice for all, or one for a student who joined."""
    for pk, item in of.items.items():
        whose = [meant.portfolios[one] for one in to if meant.which[one] == pk]
        laying.lay(doing, item, given.pocket, whose, given)
    if to:
        put(doing, "given_out", given.group_id, given=given.pk, enrolment=to[0] if len(to) == 1 else 0)


def for_joiners(doing: Deed, group_id: int) -> None:
    """Give whoever came into a class, a period or a group what was given to it as a whole. Call within that deed.

    Whoever had it once gets it no second time.
    """
    standing = GivenOut.objects.filter(group_id=group_id, taken_back_at=None, waits_for=None, item__removed_at=None)
    for given in standing.select_related("item__stored", "pocket").order_by("pk"):
        to = _standing(given)
        of = versions.given_items(given)
        out = given.pocket.retired_at is not None or any(one.removed_at for one in of.items.values())
        if out or (to.everybody and not given.whole):
            continue
        had = dict(given.copies.values_list("portfolio__enrolment_id", "item_id"))
        meant = _meant(of, given.pocket, to, doing.now, had)
        missing = [one for one in meant.plan.gets if one not in had]
        ids = [meant.portfolios[one].pk for one in missing]
        list(Portfolio.objects.select_for_update().filter(pk__in=ids).order_by("pk").values_list("pk"))
        _lay(doing, given, of, meant, missing)


def take_back(person: Person, given_id: int, now: datetime) -> list[dict[str, Any]]:
    """Take what was given out back from everybody who has not begun; those who have are named. Again does nothing."""
    given = _given(person, given_id)
    with deed(person.pk, now) as doing:
        lock_portfolios(given.group_id)
        given = _reread(given)
        lying = [one for one in _copies(given) if copies.lies_there(one)]
        if given.taken_back_at is None:
            held = copies.held(lying)
            going = [one for one in lying if copies.as_it_came(one) and (one.portfolio_id, one.pocket_id) not in held]
            copies.take_out(doing, going)
            given.taken_back_at = now
            given.save(update_fields=["taken_back_at"])
            doing.record("given_out_taken_back", given.group_id, given=given.pk, item=given.item_id)
            lying = [one for one in lying if one not in going]
        return lines_of(given.group_id, lying, now)


def give_again(person: Person, given_id: int, now: datetime) -> GivenOut:
    """Undo taking back: whoever had it as it came has it again."""
    given = _given(person, given_id)
    with deed(person.pk, now) as doing:
        lock_portfolios(given.group_id)
        given = _reread(given)
        if given.taken_back_at is not None:
            since = given.taken_back_at
            rows = [one for one in _copies(given) if not copies.lies_there(one)]
            held = copies.held(rows)
            gone = [
                one
                for one in rows
                if (one.portfolio_id, one.pocket_id) not in held
                and (one.evidence.removed_at == since or one.evidence.changed_at == since)
            ]
            copies.take_out(doing, gone, back=True)
            given.taken_back_at = None
            given.save(update_fields=["taken_back_at"])
            if given.waits_for is not None:
                give_planned.using(run_after=max(now, given.waits_for)).enqueue(given.pk)
            doing.record("given_out_again", given.group_id, given=given.pk, item=given.item_id)
        return given


def of_class(person: Person, group_id: int, now: datetime) -> list[dict[str, Any]]:
    """What was given out in a class, newest first, with how far how many have come."""
    require_in_group(person, Action.SEE_COPIES, group_id)
    given = list(
        GivenOut.objects.filter(group_id=group_id).select_related("item", "pocket", "person").order_by("-at", "-pk")
    )
    rows = copies.loaded(CupboardCopy.objects.filter(given__in=given))
    counts: dict[int, dict[str, int]] = {one.pk: {far.value: 0 for far in Progress} for one in given}
    for one, far in zip(rows, copies.progress_of(rows), strict=True):
        counts[one.given_id or 0][far.value] += 1
    names = Names(
        dict(Period.objects.filter(group_id=group_id).values_list("pk", "name")),
        dict(WorkingGroup.objects.filter(group_id=group_id).values_list("pk", "name")),
        _titles(given),
    )
    return [{**given_data(one, names), **counts[one.pk]} for one in given]


def students(person: Person, given_id: int, now: datetime) -> list[dict[str, Any]]:
    """How far each has come with what was given out, by name."""
    given = GivenOut.objects.filter(pk=given_id).first()
    if given is None:
        raise _no_given()
    require_in_group(person, Action.SEE_COPIES, given.group_id)
    return lines_of(given.group_id, _copies(given), now)


@dataclass(frozen=True, slots=True)
class Names:
    """What lines name: the class's periods and groups, and the items that are versions, by id."""

    periods: Mapping[int, str]
    groups: Mapping[int, str]
    titles: Mapping[int, str]


def _titles(given: Iterable[GivenOut]) -> dict[int, str]:
    """The titles of the items that are versions of what was given out: at most one query."""
    wanted = {int(version["key"]) for one in given for version in one.dealt.get("versions", ())}
    return dict(CupboardItem.objects.filter(pk__in=wanted).values_list("pk", "title")) if wanted else {}


def given_data(one: GivenOut, names: Names | None = None) -> dict[str, Any]:
    """What was given out, as a line; ``names`` where they are at hand."""
    if names is None:
        names = Names(
            dict(Period.objects.filter(pk__in=one.periods).values_list("pk", "name")),
            dict(WorkingGroup.objects.filter(pk__in=one.groups).values_list("pk", "name")),
            _titles([one]),
        )
    return {
        "id": one.pk,
        "item": {"id": one.item_id, "title": one.item.title},
        "pocket": {"id": one.pocket_id, "title": one.pocket.title},
        "who": one.person.full_name,
        "at": one.at,
        "waits_for": one.waits_for,
        "whole": one.whole,
        "periods": [names.periods[period] for period in one.periods if period in names.periods],
        "groups": [names.groups[group] for group in one.groups if group in names.groups],
        "versions": [names.titles.get(int(version["key"]), "") for version in one.dealt.get("versions", ())],
        "taken_back_at": one.taken_back_at,
    }


def _copies(given: GivenOut) -> list[CupboardCopy]:
    return copies.loaded(CupboardCopy.objects.filter(given=given))


def _item(person: Person, item_id: int) -> CupboardItem:
    item = kept_item(person, item_id)
    require_in_group(person, Action.GIVE_OUT, item.group_id)
    return item


def _given(person: Person, given_id: int) -> GivenOut:
    found = GivenOut.objects.filter(pk=given_id).first()
    if found is None:
        raise _no_given()
    require_in_group(person, Action.GIVE_OUT, found.group_id)
    return found


def _reread(given: GivenOut) -> GivenOut:
    """As it stands now that the class's portfolios are locked."""
    return GivenOut.objects.select_related("item__stored", "pocket", "person").get(pk=given.pk)


def _no_given() -> Gone:
    return Gone("Nothing like this was given out.", fix="Load the list again.")


def _pocket(of: Several, pocket_id: int) -> Pocket:
    """The pocket to give into; ``Invalid`` where it takes no such thing, with one that does."""
    pockets = list(
        pockets_of(of.first.group_id).filter(retired_at=None).order_by("section__position", "position", "pk")
    )
    found = next((one for one in pockets if one.pk == pocket_id), None)
    if found is None:
        raise Gone("There is no such pocket in this class.", fix="Choose another one.")
    for item in of.items.values():
        refuse_misfit(laying.kind_of(item), laying.target_of(found), [laying.target_of(one) for one in pockets])
    return found


def _here(group_id: int, today: date) -> dict[int, Member]:
    """Who is in a class on a day, or joins it later, by enrolment."""
    return {
        one.enrolment_id: one
        for one in members(group_id, today)
        if one.student.is_enrolled(today) or one.student.enrolled.first > today
    }


def _meant(of: Several, pocket: Pocket, to: Audience, now: datetime, had: Mapping[int, int] | None = None) -> Meant:
    """Whom giving out speaks of, and what becomes of each: a fixed number of queries.

    ``had`` are those who were given one of its items before (enrolment: item).
    """
    group_id = of.first.group_id
    here = _here(group_id, school_calendar().local_day(now))
    if not set(to.students) <= set(here):
        raise Invalid(
            "Somebody chosen is not, or no longer, in this class.", where="students", fix="Choose from the class list."
        )
    chosen = _chosen(group_id, to, here)
    rows = Portfolio.objects.filter(enrolment__in=[one.enrolment_id for one in chosen])
    portfolios = {one.enrolment_id: one for one in rows.select_related("enrolment")}
    ids = {one.pk: one.enrolment_id for one in portfolios.values()}
    lying = copies.loaded(CupboardCopy.objects.filter(item__in=list(of.items), pocket=pocket, portfolio__in=ids))
    has = {one.portfolio_id for one in lying if copies.lies_there(one)}
    locked, full = laying.locked(pocket, ids), laying.full(pocket, ids)
    candidates = [
        Candidate(one.enrolment_id, mine.pk in has, mine.pk in locked, mine.pk in full)
        for one in chosen
        if (mine := portfolios.get(one.enrolment_id)) is not None
    ]
    planned = plan(candidates)
    had = {**{ids[one.portfolio_id]: one.item_id for one in lying if one.portfolio_id in has}, **(had or {})}
    gets = set(planned.gets)
    # Whoever has one already is dealt to as well: they keep theirs, and it is counted.
    dealt_to = [one for pk, one in here.items() if pk in had or pk in gets]
    return Meant(planned, versions.deal(of, group_id, dealt_to, had), portfolios, here)


def _chosen(group_id: int, to: Audience, here: Mapping[int, Member]) -> list[Member]:
    """Those of a class who are meant; ``Invalid`` names a period or group of another class."""
    periods, groups = set(to.periods), set(to.groups)
    if not periods <= set(Period.objects.filter(group_id=group_id).values_list("pk", flat=True)):
        raise Invalid("A period is not of this class.", where="periods", fix="Choose from the class's periods.")
    if not groups <= set(WorkingGroup.objects.filter(group_id=group_id).values_list("pk", flat=True)):
        raise Invalid("A group is not of this class.", where="groups", fix="Choose from the class's groups.")
    if to.students:
        return [one for one in here.values() if one.enrolment_id in to.students]
    if to.everybody:
        return list(here.values())
    inside = set(GroupMember.objects.filter(workinggroup__in=groups).values_list("enrolment_id", flat=True))
    return [one for one in here.values() if one.period_id in periods or one.enrolment_id in inside]
