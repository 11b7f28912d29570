"""Shapes of artefacts and evidence."""

from __future__ import annotations

from datetime import date, datetime
from typing import Literal

from pydantic import Field

from coatpeg.people.shapes import MateShape, Shape

ArtefactWord = Literal["picture", "scan", "sound", "video", "file", "link", "text"]


class ArtefactShape(Shape):
    """An artefact, live or frozen. ``size`` in bytes, ``width`` and ``height`` in pixels.

    ``html`` is the form of a text; a ``passage`` is of a page that many filled, and stays as it is.
    """

    id: int
    kind: ArtefactWord
    title: str
    link: str
    sha256: str
    came_sha256: str
    media_type: str
    size: int
    width: int | None
    height: int | None
    html: str = ""
    passage: bool = False


class CommentShape(Shape):
    """What a member of staff said about an evidence, or (none named) about the pocket or page it stands on."""

    id: int
    evidence: int | None
    who: str
    mine: bool
    at: datetime
    text: str


class ViewShape(Shape):
    """How far the viewer of a file is: ``none`` is for kinds without one; ``why`` it cannot be shown."""

    state: Literal["none", "waiting", "done", "failed"]
    kind: str
    pages: int
    why: str


class ViewTable(Shape):
    """A table of a file; what is beyond the most that is shown is counted."""

    name: str
    rows: list[list[str]]
    rows_left_out: int = 0
    columns_left_out: int = 0


class ViewDocument(Shape):
    """What of a file is shown, by ``kind``; ``all`` counts the pages it has, ``left_out`` characters of a text."""

    kind: Literal["pages", "tables", "html", "text"]
    note: str = ""
    pages: int = 0
    all: int = 0
    tables: list[ViewTable] = Field(default_factory=list)
    html: str = ""
    text: str = ""
    left_out: int = 0


class CoverShape(Shape):
    """A portfolio's cover; ``tint`` (0 to 7) is none where the student chose none."""

    title: str
    tint: int | None
    picture: ArtefactShape | None


class LoosePageLine(Shape):
    """A loose page in the list."""

    id: int
    title: str
    words: int
    together: bool
    """The student fills it with classmates."""


class SavedShape(Shape):
    """What a save made of a text; ``note`` says what was changed on the way in.

    ``merged``: somebody else had saved meanwhile, and both changes are in it.
    """

    id: int
    text: str
    html: str = ""
    version: int
    words: int
    sentences: int
    note: str = ""
    merged: bool = False


class GivenFileShape(Shape):
    """A picture or file that staff give with a pocket or a hand-in.

    ``size`` in bytes; ``version``: the key of the version of a pocket whose it is.
    """

    id: int
    role: Literal["directions", "starter"]
    kind: ArtefactWord
    title: str
    version: str = ""
    size: int
    media_type: str


ColumnWord = Literal["date", "text", "long_text", "number", "choice", "link", "artefact", "yes_no"]


class LogColumn(Shape):
    """A column of a log: ``unit`` of a number, ``choices``, an asked length of a long text where ``measure`` is given.

    ``key`` (1 to 36 of a–z, 0–9 and -) is made where the column is made, and stays.
    """

    key: str
    title: str
    type: ColumnWord
    required: bool = False
    unit: str = ""
    choices: list[str] = Field(default_factory=list, max_length=100)
    measure: Literal["", "words", "sentences"] = ""
    least: int = 1
    most: int | None = None


class LogTarget(Shape):
    """An amount to reach in a number column (``column`` empty: in rows), each week or over all."""

    column: str = ""
    amount: str = Field(max_length=20)
    each_week: bool = False


class LogSettings(Shape):
    """A log's columns; ``order`` is the key of the column its rows stand by (empty: by date)."""

    columns: list[LogColumn] = Field(default_factory=list, max_length=40)
    order: str = ""
    newest_first: bool = False
    target: LogTarget | None = None


class LogRowShape(Shape):
    """A row; ``values`` by column key; ``missing`` names the headings of what is still to be written."""

    id: int
    values: dict[str, str | bool | int]
    complete: bool
    missing: list[str]
    locked: bool
    version: int
    changed_at: datetime | None
    by: MateShape | None = None
    """Who wrote it, where somebody else did: only they change it."""


class LogSum(Shape):
    """The sum of a number column, as decimal text."""

    column: str
    amount: str


class LogAdded(Shape):
    """How many complete rows, and their sums."""

    rows: int
    sums: list[LogSum]


class LogWeek(LogAdded):
    """A week's rows and sums."""

    monday: date


class LogOfChoice(LogAdded):
    """The rows and sums of one choice of a column."""

    column: str
    choice: str


class LogPoint(Shape):
    """A week of the target's line: reached in it, or up to its end."""

    monday: date
    value: float


class LogShape(LogSettings):
    """A log with its rows in order, added up over all, per week and per choice."""

    rows: list[LogRowShape]
    artefacts: list[ArtefactShape]
    total: LogAdded
    weeks: list[LogWeek]
    of_choices: list[LogOfChoice]
    line: list[LogPoint]


class RowIn(Shape):
    """A row as it is written, by column key, and the version its writer saw (0: a new row)."""

    values: dict[str, str | bool | int | None] = Field(max_length=40)
    version: int = Field(default=0, ge=0)


class SavedRow(Shape):
    """A row after a save; ``missing`` names what is still to be written."""

    id: int
    version: int
    complete: bool
    missing: list[str]


class PasteIn(Shape):
    """Rows copied from a spreadsheet; ``apply`` adds those that fit, else they are only read."""

    text: str
    apply: bool = False


class WrongCell(Shape):
    """A value that does not fit its column, by key."""

    column: str
    what: str
    fix: str


class PastedLineShape(Shape):
    """A pasted line: its cells, what is wrong, what is missing, whether it stands in the log already."""

    line: int
    cells: list[str]
    wrong: list[WrongCell]
    missing: list[str]
    here: bool


class PastedShape(Shape):
    """Pasted rows as they were read; ``added`` were added, or would be."""

    headings: list[str]
    lines: list[PastedLineShape]
    added: int


class LinkIn(Shape):
    """A link with the student's own title; ``even_so``: added although its form gives cause for doubt."""

    link: str = Field(max_length=20_000)
    title: str = Field(default="", max_length=2_000)
    even_so: bool = False


class SpokenIn(Shape):
    """A recording of this portfolio, by its artefact."""

    artefact: int


class TextIn(Shape):
    """A text and the version its writer saw (0: none yet), with what that version said where it is known.

    ``html`` is rich text, where the text may be more than paragraphs; the plain text then comes from it.
    """

    text: str = ""
    version: int = Field(ge=0)
    html: str | None = None
    base: str | None = None
