"""A class list from the CSV binding of OneRoster 1.1 (IMS Global Learning Consortium, 2017): an open standard.

Used are ``users.csv``, ``classes.csv``, ``enrollments.csv`` and ``academicSessions.csv`` with the standard's own column
names (from memory); others may be there. Decided here: a row whose status is *tobedeleted* is not there; a user who is
not enabled, or an enrolment that has ended, is not in the class. The student's number is ``identifier``, else the
``sourcedId``; the period of a class is its ``periods``.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from coatpeg.core.errors import Invalid
from coatpeg.core.people.names import search_key

Row = Mapping[str, str]
REQUIRED: dict[str, tuple[str, ...]] = {
    "users.csv": ("sourcedId", "role", "givenName", "familyName"),
    "classes.csv": ("sourcedId", "title"),
    "enrollments.csv": ("classSourcedId", "userSourcedId", "role"),
}
"""The files without which there is no class list, and the columns needed of each."""
OPTIONAL = ("academicSessions.csv",)
USED = frozenset({"sourcedId", "role", "givenName", "familyName", "email", "identifier", "status", "enabledUser"}) | {
    *("title", "classCode", "periods", "termSourcedIds"),
    *("classSourcedId", "userSourcedId", "startDate", "endDate"),
}
"""The columns that are read, of all files together; what else stands there need not be kept in memory."""
HEADING = ("Family name", "Given name", "E-mail", "Student number", "Period")


@dataclass(frozen=True, slots=True)
class RosterClass:
    """A class of the file with its students as lines of a list, and the day its first term begins."""

    id: str
    title: str
    code: str
    first: date | None
    lines: tuple[tuple[str, ...], ...]


def classes_of(tables: Mapping[str, Sequence[Row]], today: date) -> tuple[RosterClass, ...]:
    """The classes in the files of a roster, by title; ``Invalid`` names the file or column that is missing."""
    for name, columns in REQUIRED.items():
        if name not in tables:
            raise Invalid(f"There is no {name} in it.", where=name, fix="Export it again with all files.")
        lacking = [one for one in columns if tables[name] and one not in tables[name][0]]
        if lacking:
            raise Invalid(
                f"{name} has no column “{lacking[0]}”.", where=name, fix="Export it again with the standard’s columns."
            )
    users = {row["sourcedId"]: row for row in _there(tables["users.csv"]) if _enabled(row)}
    terms = {row.get("sourcedId", ""): _day(row.get("startDate", "")) for row in tables.get("academicSessions.csv", ())}
    members: dict[str, list[Row]] = {}
    for row in _there(tables["enrollments.csv"]):
        ends = _day(row.get("endDate", ""))
        student = users.get(row["userSourcedId"])
        if row["role"].strip().casefold() == "student" and student and (ends is None or ends >= today):
            members.setdefault(row["classSourcedId"], []).append(student)
    found = [_class(row, members.get(row["sourcedId"], []), terms) for row in _there(tables["classes.csv"])]
    return tuple(sorted(found, key=lambda one: (search_key(one.title), one.id)))


def _there(rows: Sequence[Row]) -> list[Row]:
    return [row for row in rows if row.get("status", "").strip().casefold() != "tobedeleted"]


def _enabled(row: Row) -> bool:
    return row.get("enabledUser", "").strip().casefold() not in ("false", "0", "no")


def _day(text: str) -> date | None:
    try:
        return date.fromisoformat(text.strip()[:10])
    except ValueError:
        return None


def _class(row: Row, students: Sequence[Row], terms: Mapping[str, date | None]) -> RosterClass:
    period = row.get("periods", "").split(",")[0].strip()
    begins = [day for one in row.get("termSourcedIds", "").split(",") if (day := terms.get(one.strip()))]
    lines = {
        one["sourcedId"]: (
            one["familyName"].strip(),
            one["givenName"].strip(),
            one.get("email", "").strip(),
            one.get("identifier", "").strip() or one["sourcedId"].strip(),
            period,
        )
        for one in students
    }
    return RosterClass(
        row["sourcedId"],
        row["title"].strip(),
        row.get("classCode", "").strip(),
        min(begins, default=None),
        tuple(lines.values()),
    )


def plain_name(text: str) -> str:
    """A class's name without case, accents, blanks and signs, to find it by: ``8plotgrowingcooking``."""
    return "".join(one for one in search_key(text) if one.isalnum())


def class_named(classes: Sequence[RosterClass], name: str) -> RosterClass | None:
    """The class of a file that is called (by title or code) as one of ours; the only one where there is just one."""
    wanted = plain_name(name)
    called = [one for one in classes if wanted in (plain_name(one.title), plain_name(one.code))]
    if len(called) == 1:
        return called[0]
    return classes[0] if len(classes) == 1 else None
