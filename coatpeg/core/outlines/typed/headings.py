"""The columns of a log from its line of headings: ``Date, Title, Pages, Mood (good / so-so / bad), Photo``.

Decided here: headings stand apart by tab, semicolon, ``|`` or comma, whichever comes first in this order; what stands
in brackets says more (a type, choices with strokes between, or a number's unit); a star says that it must be filled
in, a question mark asks yes or no. The rest is guessed from words that headings have, which is common practice in no
way fixed: what is guessed is shown, and can be changed, before anybody writes in it.
"""

from __future__ import annotations

import re

from coatpeg.core.portfolios.log_columns import LONGEST_UNIT, Column, ColumnType

_APART = ("\t", ";", "|", ",")
_BRACKETS = re.compile(r"[(\[]([^()\[\]]*)[)\]]\s*$")

_TYPES = {
    "date": ColumnType.DATE,
    "day": ColumnType.DATE,
    "text": ColumnType.TEXT,
    "short text": ColumnType.TEXT,
    "long text": ColumnType.LONG_TEXT,
    "number": ColumnType.NUMBER,
    "link": ColumnType.LINK,
    "photo": ColumnType.ARTEFACT,
    "picture": ColumnType.ARTEFACT,
    "file": ColumnType.ARTEFACT,
    "artefact": ColumnType.ARTEFACT,
    "yes or no": ColumnType.YES_NO,
    "yes/no": ColumnType.YES_NO,
    "y/n": ColumnType.YES_NO,
}
"""What may stand in brackets to say the type outright."""

_GUESSES: tuple[tuple[ColumnType, re.Pattern[str]], ...] = tuple(
    (kind, re.compile(rf"\b(?:{words})\b", re.IGNORECASE))
    for kind, words in (
        (ColumnType.DATE, r"date|day|when"),
        (
            ColumnType.NUMBER,
            r"pages?|minutes?|mins?|hours?|number|amount|count|score|points?|height|length|weight|temperature|age|distance"
            r"|km|cm|mm|kg|how (?:many|much|long|far|often)|quantity|total|speed|volume|mass|cost|price|yield|ph",
        ),
        (ColumnType.LINK, r"links?|url|web ?sites?|web ?page|address of the page"),
        (ColumnType.ARTEFACT, r"photos?|pictures?|files?|drawings?|scans?|recordings?|videos?|artefacts?|evidence"),
        (
            ColumnType.LONG_TEXT,
            r"notes?|thoughts?|comments?|reflections?|summary|observations?|description|what|why|how|learned|learnt"
            r"|next steps?|opinion|feelings?",
        ),
    )
)
"""Looked through in this order: "how many pages" is a number before "how" is a text."""


def split_headings(text: str) -> list[str]:
    """The headings of a line, at what stands between them; not within brackets."""
    bare = re.sub(r"[(\[][^()\[\]]*[)\]]", "", text)
    apart = next((one for one in _APART if one in bare), ",")
    parts, depth, word = [], 0, ""
    for character in text:
        depth += (character in "([") - (character in ")]")
        if character == apart and depth <= 0:
            parts.append(word)
            word = ""
        else:
            word += character
    return [one for one in (" ".join(part.split()) for part in [*parts, word]) if one]


def read_columns(text: str) -> tuple[Column, ...]:
    """The columns that a line of headings names, not checked yet; keys are ``c1``, ``c2`` …, for a log that is new."""
    return tuple(_column(heading, f"c{place}") for place, heading in enumerate(split_headings(text), 1))


def _column(heading: str, key: str) -> Column:
    title, inside = heading, ""
    if found := _BRACKETS.search(heading):
        title, inside = heading[: found.start()].strip(), found.group(1).strip()
    required = title.endswith("*") or inside == "*"
    title = _begun(title.rstrip("*").strip() or heading)
    said = _TYPES.get(inside.casefold())
    if said is not None:
        return Column(key, title.rstrip("?").strip() or title, said, required)
    choices = tuple(one.strip() for one in inside.split("/") if one.strip())
    if len(choices) > 1:
        return Column(key, title, ColumnType.CHOICE, required, choices=choices)
    if title.endswith("?") and len(title) > 1 and not _asks_more(title):
        return Column(key, title.rstrip("?").strip(), ColumnType.YES_NO, required)
    kind = next((of for of, words in _GUESSES if words.search(title)), ColumnType.TEXT)
    if inside and len(inside) <= LONGEST_UNIT and inside != "*" and kind in (ColumnType.NUMBER, ColumnType.TEXT):
        return Column(key, title, ColumnType.NUMBER, required, unit=inside)
    return Column(key, title, kind, required)


def _begun(title: str) -> str:
    """With a capital, as headings begin; words with a capital of their own (pH) stay."""
    return title[0].upper() + title[1:] if title[:2].islower() or len(title) == 1 else title


def _asks_more(title: str) -> bool:
    """Whether a question wants more than yes or no."""
    return re.match(r"(?:what|why|how|who|where|when|which)\b", title, re.IGNORECASE) is not None
