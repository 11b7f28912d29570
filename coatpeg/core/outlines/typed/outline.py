"""A template from lines: sections with pockets below them, by indentation, bullets, numbers, headings or a table.

Understood are: lines that stand further in than the one above; ``#`` headings; ``1.2`` numbers; bullets of every kind
(they are left out); a table from a spreadsheet (section, pocket, what is wanted, directions, with or without
headings); names one under the other. Decided here: a line with lines below it at the first level is a section, those
below it are its pockets, what stands further in is the pocket's directions (of a log without columns: its columns).
Without any of that, a line ending in a colon is a section, and so is the first of several blocks' lines; else all are
pockets of no section. ``(repeats)`` or ``{unit}`` in a section's name makes it a pattern for units.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from coatpeg.core.errors import Invalid
from coatpeg.core.outlines.filling import PocketKind
from coatpeg.core.outlines.plan import LONGEST_TITLE, PocketPlan
from coatpeg.core.outlines.typed.headings import read_columns
from coatpeg.core.outlines.typed.wishes import ENTRY, as_directions, read_pocket, split_name
from coatpeg.core.portfolios.log_columns import LogPlan

MOST_LINES = 1_000
LONGEST_OUTLINE = 100_000
TAB = 4
"""A tab is worth so many spaces."""

_BULLET = re.compile(
    r"^(?:[-*+>\u2022\u2023\u25e6\u25aa\u25ab\u25cf\u25cb\u25a0\u25a1\u2013\u2014\u00b7\u2043\u2610\u2611\u2713\uf0b7]"
    r"|o(?=\t| {2,})|\[[ xX]?\]|\(?\d{1,3}[.)]|\(\d{1,3}\)|\(?[a-zA-Z][.)]|\(?[ivxIVX]{1,5}[.)])\s+"
)
_NUMBERED = re.compile(r"^(\d{1,3}(?:\.\d{1,3})+)\.?\s+")
_WHOLE = re.compile(r"^\d{1,3}\.?\s+")
_HEADING = re.compile(r"^(#{1,6})\s+")
_REPEATS = re.compile(
    r"[\s,:-]*\(?\b(?:repeats|repeated|(?:for |per )?(?:each|every|per) unit)\b\)?\s*$", re.IGNORECASE
)
_HEADS = (
    ("section", re.compile(r"^(?:section|part|chapter|area|theme)s?$", re.IGNORECASE)),
    ("pocket", re.compile(r"^(?:pocket|page|task|name|title|item|entry|artefact|evidence)s?(?: name| title)?$", re.I)),
    ("wanted", re.compile(r"^(?:what is |what's )?(?:wanted|asked(?: for)?|asks(?: for)?|needed|kind|type)$", re.I)),
    ("directions", re.compile(r"^(?:directions?|instructions?|notes?|description|how|what to do)$", re.IGNORECASE)),
)


@dataclass(frozen=True, slots=True)
class Note:
    """Something to tell of a line (counted from 1): what, and what can be done."""

    line: int
    what: str
    fix: str


@dataclass(frozen=True, slots=True)
class OutlinedPocket:
    """A pocket as it was understood, and the line that names it."""

    line: int
    plan: PocketPlan


@dataclass(frozen=True, slots=True)
class OutlinedSection:
    """A section as it was understood; ``title`` is empty for pockets that stand in none."""

    title: str
    pockets: tuple[OutlinedPocket, ...]
    repeats: bool = False
    line: int = 0


@dataclass(frozen=True, slots=True)
class Outline:
    """What was understood. ``notes`` are told; ``problems`` have to be mended before it is laid out."""

    sections: tuple[OutlinedSection, ...]
    notes: tuple[Note, ...] = ()
    problems: tuple[Note, ...] = ()

    @property
    def pockets(self) -> int:
        """How many pockets there are."""
        return sum(len(one.pockets) for one in self.sections)


@dataclass
class _Line:
    number: int
    indent: int
    text: str
    blank_before: bool = False
    depth: int = 0
    below: bool = False
    """Whether lines stand below it."""


def read_outline(text: str, kind: PocketKind, *, of_sections: bool = False) -> Outline:
    """Understand an outline; ``kind`` is that of pockets of which nothing is said. ``Invalid`` where it is too long.

    ``of_sections``: names one under the other are sections, not pockets.
    """
    if len(text) > LONGEST_OUTLINE or text.count("\n") > MOST_LINES:
        raise Invalid(
            f"The outline has {text.count(chr(10)) + 1} lines; {MOST_LINES} is the most.",
            where="text",
            fix="Bring it in parts.",
        )
    raw = text.replace("\r\n", "\n").replace("\r", "\n").replace("\u00a0", " ").replace("\ufeff", "").split("\n")
    first = PocketPlan("", kind)
    table = cells_of(raw)
    drafts = _from_table(table) if table else _from_lines(raw, of_sections)
    return _understood(drafts, first)


@dataclass
class _Pocket:
    line: int
    text: str
    below: list[str]


@dataclass
class _Section:
    line: int
    title: str
    pockets: list[_Pocket]


def _from_lines(raw: Sequence[str], of_sections: bool) -> list[_Section]:
    lines = _lines(raw)
    _nest(lines)
    _leave_out_title(lines)
    if of_sections or any(line.depth for line in lines):
        return _nested(lines)
    return _flat(lines)


def _lines(raw: Sequence[str]) -> list[_Line]:
    found: list[_Line] = []
    numbered = any(_NUMBERED.match(one.strip()) for one in raw)
    blank = False
    for number, one in enumerate(raw, 1):
        if not one.strip():
            blank = bool(found)
            continue
        indent, text = _measure(one), one.strip()
        if heading := _HEADING.match(text):
            indent, text = len(heading.group(1)) - 100, text[heading.end() :].strip("# ")
        elif dotted := _NUMBERED.match(text):
            indent, text = indent + TAB * dotted.group(1).count("."), text[dotted.end() :]
        elif numbered and (whole := _WHOLE.match(text)):
            text = text[whole.end() :]
        else:
            while bullet := _BULLET.match(text):
                text = text[bullet.end() :].strip()
        text = text.strip().strip("*_").strip()
        if text:
            found.append(_Line(number, indent, text, blank))
            blank = False
    return found


def nested_lines(raw: Sequence[str]) -> list[tuple[int, str]]:
    """Lines without bullets and blank ones, each with how many levels it stands below."""
    lines = _lines(raw)
    _nest(lines)
    return [(line.depth, line.text) for line in lines]


def _measure(line: str) -> int:
    """How far in a line stands, in spaces."""
    return len(line[: len(line) - len(line.lstrip())].replace("\t", " " * TAB))


def _nest(lines: Sequence[_Line]) -> None:
    """The depth of each line: one more than the nearest line above that stands less far in."""
    above: list[_Line] = []
    for line in lines:
        while above and above[-1].indent >= line.indent:
            above.pop()
        line.depth = len(above)
        if above:
            above[-1].below = True
        above.append(line)


def _leave_out_title(lines: list[_Line]) -> None:
    """A first heading over everything else is the outline's own title."""
    if len(lines) > 1 and lines[0].indent == -99 and all(line.depth for line in lines[1:]):
        if not any(line.depth > 1 for line in lines):
            return
        del lines[0]
        for line in lines:
            line.depth -= 1


def _nested(lines: Sequence[_Line]) -> list[_Section]:
    sections: list[_Section] = []
    for line in lines:
        name, rest = split_name(line.text)
        if line.depth == 0 and not line.below and rest:
            if not sections:
                sections.append(_Section(line.number, "", []))
            sections[-1].pockets.append(_Pocket(line.number, line.text, []))
        elif line.depth == 0:
            sections.append(_Section(line.number, f"{name}: {rest}" if rest else name.rstrip(":"), []))
        elif line.depth == 1:
            sections[-1].pockets.append(_Pocket(line.number, line.text, []))
        else:
            sections[-1].pockets[-1].below.append(line.text)
    return sections


def _flat(lines: Sequence[_Line]) -> list[_Section]:
    titled = any(line.text.endswith(":") for line in lines)
    blocks = _blocks(lines)
    if not titled and len(blocks) > 1 and all(len(of) > 1 and not split_name(of[0].text)[1] for of in blocks):
        return [
            _Section(of[0].number, of[0].text, [_Pocket(one.number, one.text, []) for one in of[1:]]) for of in blocks
        ]
    sections: list[_Section] = []
    for line in lines:
        if line.text.endswith(":"):
            sections.append(_Section(line.number, line.text.rstrip(": "), []))
            continue
        if not sections:
            sections.append(_Section(line.number, "", []))
        sections[-1].pockets.append(_Pocket(line.number, line.text, []))
    return sections


def _blocks(lines: Sequence[_Line]) -> list[list[_Line]]:
    blocks: list[list[_Line]] = []
    for line in lines:
        if not blocks or line.blank_before:
            blocks.append([])
        blocks[-1].append(line)
    return blocks


def cells_of(raw: Sequence[str]) -> list[tuple[int, list[str]]]:
    """The cells of a spreadsheet, by line; nothing where it is none: half of its lines have cells side by side."""
    lines = [(number, one) for number, one in enumerate(raw, 1) if one.strip()]
    beside = [one for _, one in lines if "\t" in one.strip()]
    if not beside or (len(beside) * 2 < len(lines) and not all("\t" in one for _, one in lines)):
        return []
    cells = [(number, [cell.strip().strip('"').strip() for cell in one.split("\t")]) for number, one in lines]
    width = max(len(of) for _, of in cells)
    return [(number, of + [""] * (width - len(of))) for number, of in cells]


def _from_table(table: Sequence[tuple[int, list[str]]]) -> list[_Section]:
    rows = list(table)
    roles = _roles(rows[0][1])
    if roles:
        rows = rows[1:]
    else:
        roles = _roles_by_shape(rows)
    sections: list[_Section] = []
    for number, cells in rows:
        of = {role: [cell for cell, at in zip(cells, roles, strict=True) if at == role and cell] for role in set(roles)}
        title, names = " ".join(of.get("section", ())), of.get("pocket", [])
        if not sections or (title and title != sections[-1].title):
            sections.append(_Section(number, title, []))
        if names:
            text = ": ".join([names[0], ", ".join(of.get("wanted", ()))]) if of.get("wanted") else names[0]
            sections[-1].pockets.append(_Pocket(number, text, [*names[1:], *of.get("directions", ())]))
    return sections


def _roles(cells: Sequence[str]) -> list[str]:
    """What each column holds by its heading; nothing where the line is no heading."""
    roles = [next((role for role, words in _HEADS if words.match(cell)), "") for cell in cells]
    if "pocket" not in roles or sum(1 for one in roles if one) < 2:
        return []
    return [role or "directions" for role in roles]


def _roles_by_shape(rows: Sequence[tuple[int, list[str]]]) -> list[str]:
    """Without headings: a first column that is left out or repeated names sections."""
    width = len(rows[0][1])
    first = [cells[0] for _, cells in rows]
    grouped = len({one for one in first if one}) < len(rows)
    return [*(["section"] if grouped else []), "pocket", *(["wanted"] * width)][:width]


def _understood(drafts: Iterable[_Section], before: PocketPlan) -> Outline:
    sections: list[OutlinedSection] = []
    notes: list[Note] = []
    problems: list[Note] = []
    for draft in drafts:
        title, repeats = _pattern(draft.title)
        if len(title) > LONGEST_TITLE:
            problems.append(_too_long(draft.line, "section", title))
        pockets, names = [], set()
        for one in draft.pockets:
            plan = _pocket(one, before, notes)
            before = plan
            if plan.title.casefold() in names:
                notes.append(
                    Note(
                        one.line, f"There is another “{plan.title}” in this section.", "Both are laid out as they are."
                    )
                )
            names.add(plan.title.casefold())
            try:
                plan = plan.checked()
            except Invalid as error:
                problems.append(Note(one.line, error.what, error.fix))
            pockets.append(OutlinedPocket(one.line, plan))
        if title and not pockets:
            notes.append(Note(draft.line, f"“{title}” has no pockets.", "It is laid out as an empty section."))
        sections.append(OutlinedSection(title, tuple(pockets), repeats, draft.line))
    return Outline(tuple(sections), tuple(notes), tuple(problems))


def _too_long(line: int, what: str, title: str) -> Note:
    return Note(
        line, f"The name of the {what} has {len(title)} characters.", f"{LONGEST_TITLE} is the most: shorten it."
    )


def _pattern(title: str) -> tuple[str, bool]:
    """A section's name without what makes it a pattern, and whether it is one."""
    if "{unit}" in title:
        return title.replace("{unit}", "").strip(" :-") or "Unit", True
    found = _REPEATS.search(title)
    if found is None:
        return title, False
    return title[: found.start()].strip(" :-") or "Unit", True


def _pocket(draft: _Pocket, before: PocketPlan, notes: list[Note]) -> PocketPlan:
    """One pocket with what stands below its line."""
    plan = read_pocket(draft.text, before)
    if plan.kind is PocketKind.LOG and plan.log.columns == ENTRY and draft.below:
        return replace(plan, log=LogPlan(read_columns("; ".join(draft.below))))
    if plan.kind is PocketKind.LOG and plan.log.columns == ENTRY:
        notes.append(
            Note(draft.line, f"“{plan.title}” says no columns.", "It gets Date and What I did; change them later.")
        )
    return replace(plan, directions=plan.directions + as_directions(draft.below))
