"""Scores in the CSV binding of OneRoster 1.1 (IMS Global Learning Consortium, 2017): line items and results.

The files, their columns and the words of ``scoreStatus`` are the standard's, from memory. Decided here: a hand-in is a
line item, and each student who is asked has a result, also without a score; a score is one that was released and
stands. What was sent back is *submitted* until it is accepted. In bulk files ``status`` and ``dateLastModified`` stay
empty, as the standard has it.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from decimal import Decimal

from coatpeg.core.handins.standing import Status
from coatpeg.core.people.csv_text import to_csv

MANIFEST = ("propertyName", "value")
CATEGORIES = ("sourcedId", "status", "dateLastModified", "title")
LINE_ITEMS = (
    *("sourcedId", "status", "dateLastModified", "title", "description", "assignDate", "dueDate"),
    *("classSourcedId", "categorySourcedId", "gradingPeriodSourcedId", "resultValueMin", "resultValueMax"),
)
RESULTS = (
    *("sourcedId", "status", "dateLastModified", "lineItemSourcedId", "studentSourcedId"),
    *("scoreStatus", "score", "scoreDate", "comment"),
)
FILES = (
    *("academicSessions", "categories", "classes", "classResources", "courses", "courseResources", "demographics"),
    *("enrollments", "lineItems", "orgs", "resources", "results", "users"),
)
CATEGORY = "hand-ins"
SCORE_STATUS: Mapping[Status, str] = {
    Status.EXCUSED: "exempt",
    Status.ACCEPTED: "fully graded",
    Status.SENT_BACK: "submitted",
    Status.HANDED_IN: "submitted",
    Status.WORKING: "not submitted",
    Status.EMPTY: "not submitted",
    Status.NOT_OPEN: "not submitted",
}


@dataclass(frozen=True, slots=True)
class LineItem:
    """A hand-in: its id, title, dates and highest score."""

    id: int
    title: str
    opens: date
    due: date | None
    points: Decimal | None


@dataclass(frozen=True, slots=True)
class Result:
    """How one student (by the school's number, else ours) stands for a line item; the score where one was released."""

    handin: int
    enrolment: int
    student: str
    status: Status
    score: Decimal | None = None
    day: date | None = None


def files(class_id: str, term: str, items: Sequence[LineItem], results: Iterable[Result]) -> dict[str, str]:
    """The files of the export by name, as RFC 4180 text; nothing in them is taken for a formula."""
    there = {"categories", "lineItems", "results"}
    manifest = [
        ("manifest.version", "1.0"),
        ("oneroster.version", "1.1"),
        *((f"file.{name}", "bulk" if name in there else "absent") for name in FILES),
        ("source.systemName", "Coat Peg"),
        ("source.systemCode", "coat-peg"),
    ]
    return {
        "manifest.csv": to_csv([MANIFEST, *manifest]),
        "categories.csv": to_csv([CATEGORIES, (CATEGORY, "", "", "Hand-ins")]),
        "lineItems.csv": to_csv([LINE_ITEMS, *(_item(one, class_id, term) for one in items)]),
        "results.csv": to_csv([RESULTS, *(_result(one) for one in results if one.status in SCORE_STATUS)]),
    }


def _item(one: LineItem, class_id: str, term: str) -> Sequence[str]:
    due = one.due.isoformat() if one.due else ""
    most = format(one.points, "f") if one.points is not None else ""
    dates = (one.opens.isoformat(), due)
    return (f"handin-{one.id}", "", "", one.title, "", *dates, class_id, CATEGORY, term, "0" if most else "", most)


def _result(one: Result) -> Sequence[str]:
    score = format(one.score, "f") if one.score is not None else ""
    day = one.day.isoformat() if one.day else ""
    name = f"handin-{one.handin}-student-{one.enrolment}"
    return (name, "", "", f"handin-{one.handin}", one.student, SCORE_STATUS[one.status], score, day, "")
