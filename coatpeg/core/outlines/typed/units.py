"""Units with their questions from lines or a spreadsheet: ``Soil<tab>Mon 12 Oct<tab>What is in it?<tab>…``.

Understood are: a table with a unit, the day from which it is open and questions side by side; the same with one
question a line, the unit's cell left empty or repeated; lines with the questions standing further in; names one under
the other. A line of headings is left out. The day is given back as it was written: whoever shows it reads days in the
reader's way.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.typed.outline import LONGEST_OUTLINE, MOST_LINES, cells_of, nested_lines

_HEAD = re.compile(r"^(?:units?|topics?|modules?|chapters?)(?: name| title)?$", re.IGNORECASE)
_DAY = re.compile(
    r"^(?:[^\W\d]{2,12}\.?,?\s+)?\d{1,4}(?:st|nd|rd|th|\.)?[./\- ](?:of )?(?:\d{1,2}|[^\W\d]{3,12})\.?"
    r"(?:[./\-, ]+\d{2,4})?$"
    r"|^[^\W\d]{3,12}\.? \d{1,2}(?:st|nd|rd|th)?(?:,? \d{2,4})?$"
)
_DAY_BEHIND = re.compile(r"^(?P<title>.*?\S)(?:\s*[,;\u2013\u2014(]|\s-)\s*(?P<day>[^,;()]+?)\)?$")


@dataclass(frozen=True, slots=True)
class TypedUnit:
    """A unit as it was understood; ``opens`` as it was written, or empty."""

    title: str
    opens: str = ""
    questions: tuple[str, ...] = ()


def read_units(text: str) -> tuple[TypedUnit, ...]:
    """The units that a text names, in order; ``Invalid`` where it is too long or names none."""
    if len(text) > LONGEST_OUTLINE or text.count("\n") > MOST_LINES:
        raise Invalid(f"{MOST_LINES} lines are the most.", where="text", fix="Bring the units in parts.")
    raw = text.replace("\r\n", "\n").replace("\r", "\n").replace("\u00a0", " ").split("\n")
    table = cells_of(raw)
    found = _from_table([cells for _, cells in table]) if table else _from_lines(raw)
    if not found:
        raise Invalid("There is no unit in this.", where="text", fix="Write one unit on each line.")
    return found


def _from_table(rows: list[list[str]]) -> tuple[TypedUnit, ...]:
    if _HEAD.match(rows[0][0]):
        rows = rows[1:]
    found: list[TypedUnit] = []
    for title, *rest in rows:
        days = [cell for cell in rest if looks_like_a_day(cell)][:1]
        questions = tuple(cell for cell in rest if cell and cell not in days)
        if found and title in ("", found[-1].title):
            last = found[-1]
            found[-1] = replace(last, questions=last.questions + questions, opens=last.opens or "".join(days))
        elif title:
            found.append(TypedUnit(title, "".join(days), questions))
    return tuple(found)


def _from_lines(raw: list[str]) -> tuple[TypedUnit, ...]:
    found: list[TypedUnit] = []
    for depth, text in nested_lines(raw):
        if depth and found:
            found[-1] = replace(found[-1], questions=(*found[-1].questions, text))
        else:
            found.append(_named(text.rstrip(":")))
    return tuple(found)


def _named(text: str) -> TypedUnit:
    """A unit from one line, with the day behind its name where there is one."""
    behind = _DAY_BEHIND.match(text)
    if behind and looks_like_a_day(behind.group("day").strip()):
        return TypedUnit(behind.group("title"), behind.group("day").strip())
    return TypedUnit(text)


def looks_like_a_day(cell: str) -> bool:
    """Whether a cell may be a day; which one, its reader finds out."""
    return _DAY.match(cell.strip()) is not None
