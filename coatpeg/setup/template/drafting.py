"""Several changes of a template as one: looked at as it would then stand, saved in one deed, undone in one.

Decided here: a draft is one person's, kept with their account, so that nobody saves what somebody else has half done;
who else works with the class is told that there is one. Two people with drafts of one template meet when the second
saves: a pocket or list of units that was changed meanwhile is named, and nothing of the draft is written until it says
which shall stand; everything else of both stands. What a draft adds bears ids below zero until it is saved. Undo is a
draft too: the changes that take back what was done, over the versions that were made.

Files given with pockets that are there, outlines, gallery templates and other classes are no part of a draft: each is
shown before it is taken, and undone by itself. A file for a pocket that the draft adds waits until it is saved.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from django.db import transaction

from coatpeg.core.errors import CoatPegError, Gone, Invalid, Stale
from coatpeg.core.outlines.filling import PocketKind, Wanted
from coatpeg.core.outlines.plan import Impact
from coatpeg.core.outlines.settings import plan_to_data
from coatpeg.core.outlines.typed.outline import read_outline
from coatpeg.core.outlines.versions import nowhere
from coatpeg.core.policy import Action
from coatpeg.outlines import dealing, editing, repeating
from coatpeg.outlines.models import Pocket, Section, TemplateDraft, VariantDeal
from coatpeg.people.access import require_in_group
from coatpeg.people.models import Person, StaffRole
from coatpeg.people.rosters import Member
from coatpeg.setup.template import changing, effects, undoing, units
from coatpeg.setup.template import draft_shapes as edits
from coatpeg.setup.template.shapes import PocketIn, UnitsIn


@dataclass
class Applied:
    """What came of the changes of a draft so far."""

    sections: dict[int, int] = field(default_factory=dict)
    """Ids of the draft, and those that the rows have."""
    pockets: dict[int, int] = field(default_factory=dict)
    undo: list[edits.Edit] = field(default_factory=list)
    """The last first."""


@dataclass(frozen=True, slots=True)
class Looked:
    """A template as a draft would leave it; see ``DraftShape``."""

    template: dict[str, Any]
    hindrances: tuple[tuple[int, CoatPegError], ...]
    meaning: Meaning | None
    pocket: Opened | None


@dataclass(frozen=True, slots=True)
class Opened:
    """The open pocket, by its id in the draft.

    What it asks of somebody who has put nothing in, who has which version, and who is in none that a version names.
    """

    id: int
    wanted: Wanted
    versions: Mapping[str, tuple[Member, ...]]
    nowhere: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Meaning:
    """What a draft means: pockets by title, and what it is for the students."""

    students: int
    added: tuple[str, ...]
    changed: tuple[str, ...]
    retired: tuple[str, ...]
    back: tuple[str, ...]
    removed: tuple[str, ...]
    impact: Impact
    to_open: tuple[str, ...]
    to_filled: tuple[str, ...]


class Hand:
    """Makes the changes of one draft, one after the other, within a deed on the template."""

    def __init__(self, person: Person, group_id: int, now: datetime) -> None:
        self.person, self.group_id, self.now = person, group_id, now
        self.done = Applied()
        rows = Pocket.objects.filter(section__template__group_id=group_id)
        self._pockets = dict(rows.values_list("pk", "version"))
        self._sections = dict(Section.objects.filter(template__group_id=group_id).values_list("pk", "version"))

    def make(self, edit: edits.Edit) -> None:
        """Make one change, or refuse it and leave everything as it was."""
        with transaction.atomic():
            back = _MAKE[edit.do](self, edit)
            self.done.undo[:0] = back

    def section(self, id: int) -> int:
        """The row of a section that the draft names."""
        return self._row(self.done.sections, id, "section")

    def pocket(self, id: int) -> int:
        """The row of a pocket that the draft names."""
        return self._row(self.done.pockets, id, "pocket")

    @staticmethod
    def _row(made: dict[int, int], id: int, what: str) -> int:
        if id < 0 and id not in made:
            raise Gone(
                f"The {what} that this was to change is not in the draft any more.", fix="Leave this change out."
            )
        return made.get(id, id)

    def took(self, made: dict[int, int], id: int, row: int) -> None:
        """Remember what was added under its id in the draft."""
        if id in made:
            raise Invalid("Two things of a draft have the same id.", where="id", fix="Give each its own.")
        made[id] = row

    def seen_pocket(self, row: Pocket, version: int) -> None:
        """``Stale`` where somebody else changed it since it was seen; its own draft may have since."""
        before = self._pockets.get(row.pk)
        if before is not None and before != version:
            row.version = before
            editing.check_version(row, version)

    def seen_units(self, row: Section, version: int) -> int:
        """The same of a section's units; returns the version that they have now."""
        before = self._sections.get(row.pk)
        if before is not None and before != version:
            raise Stale(
                f"The units of “{row.title}” were changed by somebody else meanwhile.",
                where=row.title,
                fix="Load them again; then make your change once more.",
                more={"version": before},
            )
        return row.version

    def ids(self, data: dict[str, Any]) -> dict[str, Any]:
        """A template's data with the ids of the draft in place of those that nobody but this moment knows."""
        sections = _named(self.done.sections, self._sections, (one["id"] for one in data["sections"]))
        pockets = _named(
            self.done.pockets, self._pockets, (of["id"] for one in data["sections"] for of in one["pockets"])
        )
        for section in data["sections"]:
            section["id"] = sections.get(section["id"], section["id"])
            section["of"] = sections.get(section["of"], section["of"])
            for pocket in section["pockets"]:
                pocket["id"] = pockets.get(pocket["id"], pocket["id"])
        return data


_FOLLOWS = -1_000_000
"""From here down stand the ids of what follows from a draft's changes."""


def _named(made: dict[int, int], there: dict[int, int], shown: Iterable[int]) -> dict[int, int]:
    names = {row: id for id, row in made.items()}
    new = [one for one in shown if one not in there and one not in names]
    return names | {row: _FOLLOWS - place for place, row in enumerate(new)}


def _add_section(hand: Hand, edit: edits.AddSection) -> list[edits.Edit]:
    row = changing.add_section(hand.person, hand.group_id, edit.title, hand.now, repeats=edit.repeats)
    hand.took(hand.done.sections, edit.id, row)
    return [edits.RemoveSection(section=row)]


def _rename_section(hand: Hand, edit: edits.RenameSection) -> list[edits.Edit]:
    row = _section(hand, edit.section)
    changing.change_section(hand.person, hand.group_id, row.pk, edit.title, hand.now)
    return [edits.RenameSection(section=row.pk, title=row.title)]


def _move_section(hand: Hand, edit: edits.MoveSection) -> list[edits.Edit]:
    row = _section(hand, edit.section)
    order = Section.objects.filter(template_id=row.template_id, unit=None).order_by("position", "pk")
    back = edits.MoveSection(section=row.pk, before=_next(list(order.values_list("pk", flat=True)), row.pk))
    before = None if edit.before is None else hand.section(edit.before)
    changing.move_section(hand.person, hand.group_id, row.pk, before, hand.now)
    return [back]


def _remove_section(hand: Hand, edit: edits.RemoveSection) -> list[edits.Edit]:
    kept = undoing.remove_section(hand.person, hand.group_id, hand.section(edit.section), hand.now)
    return [edits.BringBack(taken_away=kept)]


def _add_pocket(hand: Hand, edit: edits.AddPocket) -> list[edits.Edit]:
    read = read_outline(edit.text, PocketKind(edit.kind))
    for problem in read.problems:
        raise Invalid(problem.what, where="text", fix=problem.fix)
    found = [one for section in read.sections for one in section.pockets]
    if len(found) != 1:
        raise Invalid("That is not one pocket.", where="text", fix="Write its name, and what it asks for.")
    row = changing.add_pocket(hand.person, hand.group_id, hand.section(edit.section), found[0].plan, hand.now)
    hand.took(hand.done.pockets, edit.id, row.pk)
    return [edits.RemovePocket(pocket=row.pk)]


def _change_pocket(hand: Hand, edit: edits.ChangePocket) -> list[edits.Edit]:
    row = _pocket(hand, edit.pocket)
    hand.seen_pocket(row, edit.settings.version)
    row.refresh_from_db()
    dealt = dict(VariantDeal.objects.filter(pocket=row).values_list("enrolment_id", "key")) or None
    back = PocketIn.model_validate({**changing.pocket_data(row), "version": 0, "hand": dealt})
    changing.set_pocket(hand.person, hand.group_id, row.pk, edit.settings.plan(), hand.now, edit.settings.hand)
    return [edits.ChangePocket(pocket=row.pk, settings=back)]


def _move_pocket(hand: Hand, edit: edits.MovePocket) -> list[edits.Edit]:
    row = _pocket(hand, edit.pocket)
    order = list(row.section.pockets.order_by("position", "pk").values_list("pk", flat=True))
    back = edits.MovePocket(pocket=row.pk, section=row.section_id, before=_next(order, row.pk))
    before = None if edit.before is None else hand.pocket(edit.before)
    changing.move_pocket(hand.person, hand.group_id, row.pk, hand.section(edit.section), before, hand.now)
    return [back]


def _retire_pocket(hand: Hand, edit: edits.RetirePocket) -> list[edits.Edit]:
    row = _pocket(hand, edit.pocket)
    changing.set_retired(hand.person, hand.group_id, row.pk, hand.now, retired=edit.retired)
    return [edits.RetirePocket(pocket=row.pk, retired=row.retired_at is not None)]


def _remove_pocket(hand: Hand, edit: edits.RemovePocket) -> list[edits.Edit]:
    kept = undoing.remove_pocket(hand.person, hand.group_id, hand.pocket(edit.pocket), hand.now)
    return [edits.BringBack(taken_away=kept)]


def _set_units(hand: Hand, edit: edits.SetUnits) -> list[edits.Edit]:
    row = _section(hand, edit.section)
    before = {"units": repeating.units_as_data(repeating.units_of(row))}
    version = hand.seen_units(row, edit.units.version)
    units.set_units(hand.person, hand.group_id, row.pk, edit.units.taken(), version, hand.now)
    return [edits.SetUnits(section=row.pk, units=UnitsIn.model_validate(before))]


def _give_file(hand: Hand, edit: edits.GiveFile) -> list[edits.Edit]:
    changing.give_waiting_file(hand.person, hand.group_id, hand.pocket(edit.pocket), edit.file, hand.now)
    return []  # taking the pocket away takes it along


def _bring_back(hand: Hand, edit: edits.BringBack) -> list[edits.Edit]:
    undoing.restore(hand.person, hand.group_id, edit.taken_away, hand.now)
    return []


def _section(hand: Hand, id: int) -> Section:
    return editing.section_of(editing.template_of(hand.group_id), hand.section(id))


def _pocket(hand: Hand, id: int) -> Pocket:
    return editing.pocket_of(editing.template_of(hand.group_id), hand.pocket(id))


def _next(order: Sequence[int], of: int) -> int | None:
    """What stands behind it; None at the end."""
    return next(iter(order[order.index(of) + 1 :]), None)


_MAKE: dict[str, Callable[[Hand, Any], list[edits.Edit]]] = {
    "add_section": _add_section,
    "rename_section": _rename_section,
    "move_section": _move_section,
    "remove_section": _remove_section,
    "add_pocket": _add_pocket,
    "change_pocket": _change_pocket,
    "move_pocket": _move_pocket,
    "retire_pocket": _retire_pocket,
    "remove_pocket": _remove_pocket,
    "set_units": _set_units,
    "give_file": _give_file,
    "bring_back": _bring_back,
}


@dataclass(frozen=True, slots=True)
class Kept:
    """A person's draft, and of others that there is one: name, how many changes, since when."""

    edits: list[dict[str, Any]]
    device: str
    others: tuple[tuple[str, int, datetime], ...]


def kept(person: Person, group_id: int) -> Kept:
    """What somebody drafts of a class's template, and who else does."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    staff = StaffRole.objects.filter(group_id=group_id).values("person")
    rows = TemplateDraft.objects.filter(template__group_id=group_id, person__in=staff)
    found = list(rows.select_related("person").order_by("at"))
    own = next((one for one in found if one.person_id == person.pk), None)
    others = tuple((one.person.full_name, len(one.edits), one.at) for one in found if one is not own and one.edits)
    return Kept(own.edits if own else [], own.device if own else "", others)


def keep(person: Person, group_id: int, wanted: Sequence[edits.Edit], device: str, now: datetime) -> None:
    """Keep somebody's draft as it stands now."""
    template = editing.template_of(group_id)
    TemplateDraft.objects.update_or_create(
        template=template,
        person=person,
        defaults={"edits": [one.model_dump(mode="json") for one in wanted], "device": device, "at": now},
    )


def look(
    person: Person, group_id: int, wanted: Sequence[edits.Edit], now: datetime, pocket_id: int | None = None
) -> Looked:
    """What a template would be with some changes, and what they would mean; nothing is written."""
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    hindrances: list[tuple[int, CoatPegError]] = []
    before = _pockets_of(group_id)
    after: dict[int, _Stands] = {}
    template: dict[str, Any] = {}
    opened: list[Opened] = []

    def change() -> None:
        hand = Hand(person, group_id, now)
        if wanted:
            with changing.tried(person, group_id, now):
                for place, edit in enumerate(wanted):
                    try:
                        hand.make(edit)
                    except CoatPegError as error:
                        hindrances.append((place, error))
        template.update(hand.ids(changing.template_data(person, group_id, now)))
        opened.extend(_opened(hand, pocket_id))
        after.update(_pockets_of(group_id))

    if wanted:
        view, found = effects.meaning(group_id, now, change)
        meaning = Meaning(
            sum(1 for _ in effects.present(view)),
            *_compared(before, after),
            found,
            effects.names_of(view, found.to_open[: changing.MOST_NAMED]),
            effects.names_of(view, found.to_filled[: changing.MOST_NAMED]),
        )
    else:
        meaning = None
        change()
    return Looked(template, tuple(hindrances), meaning, opened[0] if opened else None)


def _opened(hand: Hand, pocket_id: int | None) -> Iterator[Opened]:
    """The open pocket; nothing where it is not there (any more)."""
    try:
        row = _pocket(hand, pocket_id) if pocket_id is not None else None
    except Gone:
        return
    if row is None:
        return
    plan = editing.plan_of(row)
    versions: dict[str, tuple[Member, ...]] = {}
    nobodys: Sequence[int] = ()
    here = changing.here(hand.group_id, hand.now)
    names = {one.enrolment_id: one.listed for one in here}
    if plan.variants:
        dealt = dict(VariantDeal.objects.filter(pocket=row).values_list("enrolment_id", "key"))
        versions = {
            of.key: tuple(one for one in here if dealt.get(one.enrolment_id) == of.key) for of in plan.variants.versions
        }
        nobodys = nowhere(plan.variants, dealing.holders(hand.group_id, here))
    yield Opened(
        pocket_id or 0,
        changing.wanted_now(hand.group_id, row, plan, hand.now),
        versions,
        tuple(names[one] for one in nobodys[: changing.MOST_NAMED]),
    )


_Stands = tuple[str, bool, dict[str, Any]]
"""A pocket's title, whether it is retired, and everything that is said of it."""


def _pockets_of(group_id: int) -> dict[int, _Stands]:
    rows = Pocket.objects.filter(section__template__group_id=group_id).order_by("section__position", "position", "pk")
    return {one.pk: (one.title, one.retired_at is not None, plan_to_data(editing.plan_of(one))) for one in rows}


Titles = tuple[str, ...]


def _compared(before: dict[int, _Stands], after: dict[int, _Stands]) -> tuple[Titles, Titles, Titles, Titles, Titles]:
    """The titles of pockets added, changed, retired, brought back and taken away."""
    both = [(before[one], after[one]) for one in after if one in before]
    return (
        tuple(title for one, (title, _, _) in after.items() if one not in before),
        tuple(then[0] for was, then in both if was[2] != then[2] and not then[1]),
        tuple(then[0] for was, then in both if then[1] and not was[1]),
        tuple(then[0] for was, then in both if was[1] and not then[1]),
        tuple(title for one, (title, _, _) in before.items() if one not in after),
    )


def save(
    person: Person, group_id: int, wanted: Sequence[edits.Edit], now: datetime, *, undoes: bool = False, key: str = ""
) -> edits.SavedDraft:
    """Make all changes, for everybody, in one deed; where one cannot be made, none is, and it is named by its place.

    What was kept of the draft goes with it, but where the changes only undo what was saved before. With the ``key`` of
    the last saving nothing is done again: it is answered as it was then.
    """
    require_in_group(person, Action.EDIT_TEMPLATE, group_id)
    with changing.as_one(person, group_id, now):
        row = TemplateDraft.objects.filter(template__group_id=group_id, person=person).first()
        if key and row is not None and row.key == key:
            return edits.SavedDraft.model_validate(row.answer)
        hand = Hand(person, group_id, now)
        for place, edit in enumerate(wanted):
            try:
                hand.make(edit)
            except CoatPegError as error:
                error.more = {**error.more, "edit": place}
                raise
        done = edits.SavedDraft(
            students=len(changing.here(group_id, now)),
            made=edits.MadeIds(sections=hand.done.sections, pockets=hand.done.pockets),
            undo=[_over_what_was_made(one) for one in hand.done.undo],
        )
        _let_go(row or TemplateDraft(template=editing.template_of(group_id), person=person), done, now, key, undoes)
    return done


def _let_go(row: TemplateDraft, done: edits.SavedDraft, now: datetime, key: str, undoes: bool) -> None:
    if not undoes:
        row.edits, row.at = [], now
    row.at = row.at or now
    if key:
        row.key, row.answer = key, done.model_dump(mode="json")
    row.save()


def _over_what_was_made(edit: edits.Edit) -> edits.Edit:
    """An undo names the version that the whole draft made: whoever changes it afterwards is not overwritten."""
    if isinstance(edit, edits.ChangePocket):
        edit.settings.version = Pocket.objects.values_list("version", flat=True).filter(pk=edit.pocket).first() or 0
    elif isinstance(edit, edits.SetUnits):
        edit.units.version = Section.objects.values_list("version", flat=True).filter(pk=edit.section).first() or 0
    return edit
