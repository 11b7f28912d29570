"""What a class list would do, line by line, before anything is written.

Decided here:

* A student is known again by number, else by e-mail address, else by name. By name only where it is certain: within
  the class, or where exactly one person of the school has that name; and never against a different number or address.
* A name that reads the same is the same, wherever a list parts it into family and given.
* A name written family name first is the same where a list has it in the other order. That it is so is written where
  somebody said it of the list or the line; of somebody new also where its letters say it.
* An empty cell says nothing: it changes nothing and clears nothing.
* Who is known from elsewhere comes in only by somebody who may say so (``may_bring``); for everybody else the line is a
  request, by number, address or name alike, and says nothing of whom it found.
* Name, e-mail and number are the person's: a list changes them only for who may (``may_change``), or as the school's
  own list; otherwise the line says that they differ, and the rest of it counts.
* A number or address that is another student's is never given to a second one.
* The same student twice in the list: the first line counts, the later ones say which one it is.
* An address alone is enough: it finds its student, or is asked for as a name is; of an address that nobody has, a new
  student is named after it, to be completed (``Line.unnamed``). Such a name is never compared with another one.
* Students of the class that the list does not name are offered as leavers, never taken out by themselves.
"""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum

from coatpeg.core.errors import Invalid
from coatpeg.core.people.names import full, search_key
from coatpeg.core.people.names import listed as as_listed
from coatpeg.core.people.person_names import from_address, is_family_first, split, tidy
from coatpeg.core.people.roster_table import LONGEST_CELL, Column

_EMAIL = re.compile(r"^[^\s@,;:\"<>()\[\]\\]+@[^\s@,;:\"<>()\[\]\\.]+(\.[^\s@,;:\"<>()\[\]\\.]+)+$")
LONGEST_NAME = 100


class Verdict(StrEnum):
    """What happens to a line."""

    NEW = "new"
    HERE = "here"
    JOINS = "joins"
    BACK = "back"
    ASKED = "asked"
    CHANGED = "changed"
    TWICE = "twice"
    INCOMPLETE = "incomplete"
    UNREADABLE = "unreadable"


WRITES = frozenset({Verdict.NEW, Verdict.JOINS, Verdict.BACK, Verdict.CHANGED})
BAD = frozenset({Verdict.INCOMPLETE, Verdict.UNREADABLE})


@dataclass(frozen=True, slots=True)
class Entry:
    """A line of the list, read."""

    family: str = ""
    given: str = ""
    email: str = ""
    number: str = ""
    period: str = ""
    group: str = ""
    family_first: bool = False
    """The name is written and said family name first."""
    order_said: bool = False
    """Somebody said so of it, or that it is not."""

    @property
    def named(self) -> bool:
        """Whether it has a name, and not an address alone."""
        return bool(self.family or self.given)

    @property
    def listed(self) -> str:
        """``Dube, Thandi``; the address where there is no name."""
        return as_listed(self.family, self.given, family_first=self.family_first) or self.email

    @property
    def called(self) -> str:
        """``Thandi Dube``"""
        return full(self.family, self.given, family_first=self.family_first)

    @property
    def readings(self) -> frozenset[str]:
        """The name in every order in which it may stand elsewhere, without case."""
        return frozenset({full(self.family, self.given).casefold(), self.called.casefold()})

    @property
    def name_keys(self) -> frozenset[str]:
        """The same folded for finding."""
        return frozenset(search_key(one) for one in self.readings)


@dataclass(frozen=True, slots=True)
class Known:
    """A student the school knows. ``enrolment`` is theirs in this class; ``left`` says it has ended.

    ``may_bring``: whoever brings the list may bring them in; ``may_change``: and change what belongs to the person.
    """

    person: int
    entry: Entry
    enrolment: int | None = None
    left: bool = False
    groups: tuple[str, ...] = ()
    may_bring: bool = True
    may_change: bool = True


@dataclass(frozen=True, slots=True)
class Change:
    """One field that the list would change."""

    field: str
    old: str
    new: str


@dataclass(frozen=True, slots=True)
class Line:
    """What one line would do. ``number`` counts from 1; ``why`` and ``fix`` are words for the person."""

    number: int
    entry: Entry
    verdict: Verdict
    person: int | None = None
    enrolment: int | None = None
    changes: tuple[Change, ...] = ()
    why: str = ""
    fix: str = ""
    unnamed: bool = False
    """Its name was made from the address and is to be completed."""


@dataclass(frozen=True, slots=True)
class RosterPlan:
    """All lines, and the enrolments of the class that the list does not name."""

    lines: tuple[Line, ...]
    missing: tuple[int, ...]


def check_columns(columns: Sequence[Column], width: int) -> None:
    """Refuse a choice of columns from which no names can be read."""
    if len(columns) != width:
        raise Invalid(
            f"{len(columns)} columns are named, but the list has {width}.", where="columns", fix="Read the list again."
        )
    chosen = [column for column in columns if column is not Column.IGNORE]
    twice = next((column for column in chosen if chosen.count(column) > 1), None)
    if twice:
        raise Invalid(f"Two columns are named “{twice.value}”.", where="columns", fix="Leave one of them out.")
    if not {Column.NAME, Column.GIVEN, Column.FAMILY, Column.EMAIL} & set(chosen):
        raise Invalid(
            "No column has the names.", where="columns", fix="Choose the column with the students' names, or addresses."
        )


def read_entry(
    cells: Sequence[str], columns: Sequence[Column], *, family_first: bool = False, turned: bool = False
) -> Entry:
    """A line's cells as an entry, tidied; a whole name is taken apart.

    ``family_first`` is said of the whole list, ``turned`` that it is the other way in this line.
    """
    by_column = {column: tidy(cell) for column, cell in zip(columns, cells, strict=True) if column is not Column.NAME}
    whole = next((cell for column, cell in zip(columns, cells, strict=True) if column is Column.NAME), "")
    if _EMAIL.match(whole) and not by_column.get(Column.EMAIL):
        by_column[Column.EMAIL], whole = whole, ""  # an address among names
    written = whole or f"{by_column.get(Column.FAMILY, '')} {by_column.get(Column.GIVEN, '')}"
    first = (family_first or is_family_first(written)) is not turned
    name = split(whole, family_first=first)
    return Entry(
        by_column.get(Column.FAMILY) or name.family,
        by_column.get(Column.GIVEN) or name.given,
        by_column.get(Column.EMAIL, "").lower(),
        by_column.get(Column.NUMBER, ""),
        by_column.get(Column.PERIOD, ""),
        by_column.get(Column.GROUP, ""),
        first,
        family_first or turned,
    )


class _People:
    """Finding a known student again."""

    def __init__(self, known: Iterable[Known]) -> None:
        self.by_number: dict[str, Known] = {}
        self.by_email: dict[str, Known] = {}
        self.by_name: dict[str, list[Known]] = defaultdict(list)
        for one in known:
            if one.entry.number:
                self.by_number[one.entry.number] = one
            if one.entry.email:
                self.by_email[one.entry.email.lower()] = one
            for key in one.entry.name_keys:
                self.by_name[key].append(one)

    def find(self, entry: Entry) -> Known | None:
        """Whom a line means; None for somebody new."""
        found = self.by_number.get(entry.number) if entry.number else None
        found = found or (self.by_email.get(entry.email) if entry.email else None)
        if found:
            return found
        if not entry.named:
            return None
        named = {one.person: one for key in entry.name_keys for one in self.by_name.get(key, [])}
        alike = [one for one in named.values() if not _contradict(entry, one.entry)]
        here = [one for one in alike if one.enrolment is not None]
        if here:
            return here[0]
        return alike[0] if len(alike) == 1 else None

    def whose(self, entry: Entry, person: int | None) -> str | None:
        """The field of an entry that belongs to somebody else than this person already."""
        by_number = self.by_number.get(entry.number) if entry.number else None
        if by_number and by_number.person != person:
            return "number"
        by_email = self.by_email.get(entry.email) if entry.email else None
        return "email" if by_email and by_email.person != person else None


def _contradict(one: Entry, other: Entry) -> bool:
    """Whether two entries of one name are certainly two people."""
    if one.number and other.number:
        return one.number != other.number
    return bool(one.email and other.email and one.email != other.email.lower())


def plan(
    entries: Sequence[Entry],
    known: Iterable[Known],
    as_new: frozenset[int] = frozenset(),
    of_school: frozenset[int] = frozenset(),
) -> RosterPlan:
    """What a list would do. ``as_new`` names lines that the person says are somebody else than the one found,
    ``of_school`` those that stand so in the school's own list.
    """
    known = list(known)
    people = _People(known)
    seen: dict[str, list[Line]] = defaultdict(list)
    lines: list[Line] = []
    named: set[int] = set()
    for number, entry in enumerate(entries, start=1):
        line = _bad(number, entry) or _twice(number, entry, seen)
        if line is None:
            found = None if number in as_new else people.find(entry)
            if found is None:
                line = _taken(number, entry, people) or _new(number, entry)
            else:
                line = _known(number, entry, found, people, school=number in of_school)
            if found and found.person in named:
                line = replace(
                    line, verdict=Verdict.TWICE, why=f"{_called(entry)} stands in the list already.", changes=()
                )
            elif found:
                named.add(found.person)
            for key in _keys(entry):
                seen[key].append(line)
        lines.append(line)
    missing = tuple(
        one.enrolment for one in known if one.enrolment is not None and not one.left and one.person not in named
    )
    return RosterPlan(tuple(lines), missing)


def _new(number: int, entry: Entry) -> Line:
    """Somebody new; named after the address where there is nothing else."""
    if entry.named:
        return Line(number, entry, Verdict.NEW)
    name = from_address(entry.email)
    called = replace(entry, family=name.family, given=name.given)
    told = f"Named after the address: {full(name.family, name.given)}."
    return Line(number, called, Verdict.NEW, why=told, fix="Complete the name in the list later.", unnamed=True)


def _called(entry: Entry) -> str:
    return entry.called


def _keys(entry: Entry) -> list[str]:
    """By what a later line may be the same student."""
    keys = [f"number {entry.number}"] if entry.number else []
    keys += [f"email {entry.email}"] if entry.email else []
    return [*keys, *(f"name {one}" for one in entry.name_keys)] if entry.named else keys


def _bad(number: int, entry: Entry) -> Line | None:
    """A line that cannot be taken as it is."""
    if not entry.named and not entry.email:
        return Line(
            number, entry, Verdict.INCOMPLETE, why="There is no name in this line.", fix="Write the name, or leave it."
        )
    longest = max(len(entry.family), len(entry.given))
    if longest > LONGEST_NAME:
        return Line(
            number,
            entry,
            Verdict.UNREADABLE,
            why=f"The name has {longest} characters; {LONGEST_NAME} is the most.",
            fix="Look whether two columns have run together.",
        )
    if "@" in entry.family + entry.given:
        return Line(
            number,
            entry,
            Verdict.UNREADABLE,
            why=f"“{_called(entry)}” is an address, not a name.",
            fix="Choose the column with the names, or write the name.",
        )
    if entry.named and not any(one.isalpha() for one in entry.family + entry.given):
        return Line(
            number,
            entry,
            Verdict.UNREADABLE,
            why=f"“{_called(entry)}” is not a name.",
            fix="Choose another column for the names, or leave this line.",
        )
    if entry.email and not _EMAIL.match(entry.email):
        return Line(
            number,
            entry,
            Verdict.UNREADABLE,
            why=f"“{entry.email}” is not a complete e-mail address.",
            fix="Fix it, or empty the cell to add the student without e-mail.",
        )
    too_long = next((cell for cell in (entry.number, entry.period, entry.group) if len(cell) > 40), None)
    if too_long or len(entry.email) > LONGEST_CELL:
        return Line(
            number,
            entry,
            Verdict.UNREADABLE,
            why=f"“{(too_long or entry.email)[:40]}…” is too long.",
            fix="A number, period or group has at most 40 characters.",
        )
    return None


def _twice(number: int, entry: Entry, seen: Mapping[str, list[Line]]) -> Line | None:
    alike = [line for key in _keys(entry) for line in seen.get(key, ())]
    earlier = next((line.number for line in alike if not _contradict(entry, line.entry)), None)
    if earlier is None:
        return None
    return Line(
        number,
        entry,
        Verdict.TWICE,
        why=f"The same student as in line {earlier}.",
        fix="Nothing to do; or give both lines a student number, if they are two people.",
    )


def _taken(number: int, entry: Entry, people: _People) -> Line | None:
    """A line that would give somebody new what belongs to another student."""
    field = people.whose(entry, None)
    if field is None:
        return None
    return Line(
        number,
        entry,
        Verdict.UNREADABLE,
        why=f"This {_FIELDS[field]} belongs to another student.",
        fix="Check it, or empty the cell.",
    )


_FIELDS = {
    "family": "family name",
    "given": "given name",
    "order": "order of the name",
    "email": "e-mail address",
    "number": "number",
}
_OF_PERSON = frozenset(_FIELDS)
_ORDERS = ("given name first", "family name first")


def _known(number: int, entry: Entry, found: Known, people: _People, *, school: bool) -> Line:
    """A line that names a known student."""
    if found.enrolment is None and not (found.may_bring or school):
        return Line(
            number,
            entry,
            Verdict.ASKED,
            found.person,
            why="Known to the school: whoever has this student, or an administrator, is asked.",
            fix="They come in when one of these says so, within ten school days.",
        )
    if not entry.named:
        entry = replace(entry, family=found.entry.family, given=found.entry.given)
    changes = tuple(_changes(entry, found))
    why = ""
    taken = people.whose(entry, found.person)
    kept = tuple(
        one for one in changes if one.field != taken and (one.field not in _OF_PERSON or found.may_change or school)
    )
    if taken:
        why = f"The {_FIELDS[taken]} in the list belongs to another student, so it stays as it is."
    elif kept != changes:
        other = " and ".join(_FIELDS[one.field] for one in changes if one not in kept)
        why = f"The list has another {other}. An administrator, or the school's own list, changes that."
    verdict = Verdict.CHANGED if kept else Verdict.HERE
    if found.enrolment is None:
        verdict = Verdict.JOINS
        known = f"Known from {' and '.join(found.groups)}." if found.groups else "Known to the school already."
        why = f"{known} {why}".strip()
    elif found.left:
        verdict = Verdict.BACK
        why = f"Was in this class before; the portfolio is still there. {why}".strip()
    return Line(number, entry, verdict, found.person, found.enrolment, kept, why)


def _changes(entry: Entry, found: Known) -> Iterable[Change]:
    """What the list says otherwise than what is known. Of a joiner, only what belongs to the person."""
    turned = entry.order_said and entry.family_first != found.entry.family_first
    if turned and entry.named:
        yield Change("order", _ORDERS[found.entry.family_first], _ORDERS[entry.family_first])
    same_name = not entry.named or (not turned and bool(entry.readings & found.entry.readings))
    fields = ("email", "number") if same_name else ("family", "given", "email", "number")
    for name in fields if found.enrolment is None else (*fields, "period", "group"):
        old, new = getattr(found.entry, name), getattr(entry, name)
        same = new.casefold() == old.casefold() if name in ("period", "group") else new == old
        if new and not same:
            yield Change(name, old, new)
