"""Dealing the versions of a pocket to the students of a class, and telling whose is which. Call within a deed."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Collection, Iterable, Mapping
from datetime import date

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.versions import (
    DealtBy,
    Holder,
    VariantPlan,
    Version,
    dealt,
    refuse_ranges,
    variants_from_data,
)
from coatpeg.outlines.models import Pocket, VariantDeal
from coatpeg.people.models import GroupMember
from coatpeg.people.rosters import Member, members


def holders(group_id: int, of: Iterable[Member]) -> list[Holder]:
    """Students as dealing sees them: one query."""
    groups: dict[int, set[int]] = defaultdict(set)
    rows = GroupMember.objects.filter(workinggroup__group_id=group_id)
    for enrolment, place in rows.values_list("enrolment_id", "workinggroup_id"):
        groups[enrolment].add(place)
    return [
        Holder(one.enrolment_id, one.family_name or one.given_name, one.period_id, frozenset(groups[one.enrolment_id]))
        for one in of
    ]


def planned(
    pocket: Pocket | None,
    plan: VariantPlan,
    group_id: int,
    of: list[Member],
    by_hand: Mapping[int, str] | None,
    at_work: Collection[int],
) -> dict[int, str]:
    """Which version each student would have: whoever has work in the pocket keeps theirs, unless it is given by hand.

    ``at_work`` are the enrolments that have work in it.

    What was drawn stays as it was drawn until the seed is another one; what was given by hand stays given.
    Refuses ranges with gaps or overlaps, with the students named.
    """
    if plan.by is DealtBy.SURNAME:
        refuse_ranges(plan, {one.enrolment_id: (one.family_name or one.given_name, one.listed) for one in of})
    had = dict(VariantDeal.objects.filter(pocket=pocket).values_list("enrolment_id", "key")) if pocket else {}
    old = variants_from_data(pocket.variants) if pocket else None
    drawn = plan.by is DealtBy.RANDOM and (old is None or (old.by is plan.by and old.seed == plan.seed))
    if not drawn and plan.by is not DealtBy.HAND:
        had = {one: key for one, key in had.items() if one in at_work}
    if plan.by is DealtBy.HAND and by_hand:
        unknown = set(by_hand.values()) - {one.key for one in plan.versions}
        if unknown:
            raise Invalid("A version was given that this pocket does not have.", where="hand", fix="Load it again.")
        had |= by_hand
    return dealt(plan, holders(group_id, of), had)


def deal(
    pocket: Pocket, group_id: int, today: date, at_work: Collection[int], by_hand: Mapping[int, str] | None = None
) -> None:
    """Deal a pocket's versions to everybody in a class, as its plan says; without versions there are no deals."""
    plan = variants_from_data(pocket.variants)
    if plan is None:
        VariantDeal.objects.filter(pocket=pocket).delete()
        return
    keep(pocket, planned(pocket, plan, group_id, members(group_id, today), by_hand, at_work))


def keep(pocket: Pocket, found: Mapping[int, str]) -> None:
    """Write deals down in two statements."""
    had = dict(VariantDeal.objects.filter(pocket=pocket).values_list("enrolment_id", "key"))
    changed = {one: key for one, key in found.items() if had.get(one) != key}
    VariantDeal.objects.filter(pocket=pocket, enrolment_id__in=changed).delete()
    VariantDeal.objects.bulk_create(
        VariantDeal(pocket=pocket, enrolment_id=one, key=key) for one, key in changed.items()
    )


def deal_missing(group_id: int, today: date) -> None:
    """Deal to those who joined: nobody else's version changes. One query where no pocket has versions."""
    pockets = list(Pocket.objects.filter(section__template__group_id=group_id).exclude(variants={}))
    if not pockets:
        return
    everybody = holders(group_id, members(group_id, today))
    for pocket in pockets:
        plan = variants_from_data(pocket.variants)
        had = dict(VariantDeal.objects.filter(pocket=pocket).values_list("enrolment_id", "key"))
        if plan is not None:
            keep(pocket, dealt(plan, everybody, had))


def versions_of(pocket: Pocket, enrolments: Iterable[int]) -> dict[int, Version | None]:
    """The versions of a pocket that students (enrolment ids) have: one query where there are versions, else none."""
    plan = variants_from_data(pocket.variants)
    if plan is None:
        return dict.fromkeys(enrolments)
    dealt_to = dict(VariantDeal.objects.filter(pocket=pocket).values_list("enrolment_id", "key"))
    return {one: plan.version(dealt_to.get(one, "")) for one in enrolments}


def version_of(pocket: Pocket, enrolment_id: int) -> Version | None:
    """The version of a pocket that a student has: one query where there are versions, else none."""
    plan = variants_from_data(pocket.variants)
    if plan is None:
        return None
    key = VariantDeal.objects.filter(pocket=pocket, enrolment_id=enrolment_id).values_list("key", flat=True).first()
    return plan.version(key or "")
