"""Versions of what is given out: several items, of which each student gets one, dealt as a template's versions are.

A version is an item under its own title (its key is the item's id): the rules are those of ``core.outlines.versions``.
Decided here: whoever has one of the items in that pocket already is not given another; whoever comes later is dealt one
by the same rule, at random one of those that are had least; by hand they get the first.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from coatpeg.core.errors import Gone, Invalid
from coatpeg.core.outlines.versions import (
    DealtBy,
    VariantPlan,
    Version,
    dealt,
    nowhere,
    refuse_ranges,
    variants_from_data,
    variants_to_data,
)
from coatpeg.cupboard.models import CupboardItem, GivenOut
from coatpeg.outlines.dealing import holders
from coatpeg.people.models import Period, WorkingGroup
from coatpeg.people.rosters import Member


@dataclass(frozen=True, slots=True)
class Several:
    """The items by id, how they are dealt (None: there is one), and by hand to whom (enrolment: item)."""

    items: Mapping[int, CupboardItem]
    plan: VariantPlan | None = None
    by_hand: Mapping[int, int] = field(default_factory=dict)

    @property
    def first(self) -> CupboardItem:
        """The item that stands for all of them."""
        return next(iter(self.items.values()))

    def to_data(self) -> dict[str, Any]:
        """As it is kept; empty where there is one item."""
        return {**(variants_to_data(self.plan) or {}), **({"hand": _named(self.by_hand)} if self.by_hand else {})}


def _named(by_hand: Mapping[int, int]) -> dict[str, int]:
    return {str(one): item for one, item in by_hand.items()}


def several(item: CupboardItem, plan: VariantPlan | None, by_hand: Mapping[int, int]) -> Several:
    """What is given out, from an item and its versions (keys are ids of items); ``Invalid`` names what cannot be."""
    if plan is None:
        return Several({item.pk: item})
    wanted = [int(one.key) for one in plan.versions]
    rows = CupboardItem.objects.filter(pk__in=wanted, group_id=item.group_id, removed_at=None)
    there = {one.pk: one for one in rows.select_related("stored")}
    if not set(wanted) <= set(there):
        raise Gone("One of the versions is not in this cupboard any more.", fix="Choose the versions again.")
    if item.pk not in there or item.pk != wanted[0]:
        raise Invalid(f"“{item.title}” is not the first version.", where="versions", fix="Let it stand first.")
    if not set(by_hand.values()) <= set(there):
        raise Invalid("Somebody is given a version that is not there.", where="hand", fix="Choose again.")
    named = replace(plan, versions=tuple(replace(one, name=there[int(one.key)].title[:60]) for one in plan.versions))
    _refuse_places(named, item.group_id)
    return Several({one: there[one] for one in wanted}, named.checked(0, 0), by_hand)


def _refuse_places(plan: VariantPlan, group_id: int) -> None:
    """Versions name periods or groups of this class only."""
    named = {place for one in plan.versions for place in one.places}
    model = Period if plan.by is DealtBy.PERIOD else WorkingGroup
    if named - set(model.objects.filter(group_id=group_id).values_list("pk", flat=True)):
        raise Invalid(
            "A version is for a period or group of another class.", where="versions", fix="Choose from this class's."
        )


def given_items(given: GivenOut) -> Several:
    """What was given out, as it is in the cupboard now (what was taken out of it since, too)."""
    data = dict(given.dealt)
    by_hand = {int(one): item for one, item in data.pop("hand", {}).items()}
    plan = variants_from_data(data)
    if plan is None:
        return Several({given.item_id: given.item})
    wanted = [int(one.key) for one in plan.versions]
    there = CupboardItem.objects.select_related("stored").in_bulk(wanted)
    return Several({one: there[one] for one in wanted if one in there}, plan, by_hand)


def deal(of: Several, group_id: int, to: Iterable[Member], had: Mapping[int, int] | None = None) -> dict[int, int]:
    """Which item (id) each student (enrolment) gets; ``had`` are those who had one. Refuses ranges with gaps."""
    students = list(to)
    if of.plan is None:
        return {one.enrolment_id: of.first.pk for one in students}
    if of.plan.by is DealtBy.SURNAME:
        names = {one.enrolment_id: (one.family_name or one.given_name, one.listed) for one in students}
        refuse_ranges(of.plan, names)
    kept = {**(had or {}), **(of.by_hand if of.plan.by is DealtBy.HAND else {})}
    found = dealt(of.plan, holders(group_id, students), {one: str(item) for one, item in kept.items()})
    return {one: int(key) for one, key in found.items()}


def left_out(of: Several, group_id: int, to: Iterable[Member]) -> tuple[int, ...]:
    """The students (enrolments) whom no version names by their period or group: they get the first."""
    return nowhere(of.plan, holders(group_id, to)) if of.plan else ()


def plan_from(by: str, seed: int, versions: Collection[Mapping[str, Any]]) -> VariantPlan:
    """How items are dealt, from what was sent; each version names its ``item``."""
    rows = (
        Version(str(one["item"]), "", "", "", one["first"], one["last"], frozenset(one["places"])) for one in versions
    )
    return VariantPlan(DealtBy(by), tuple(rows), seed)
