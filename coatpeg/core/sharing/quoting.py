"""A passage of a page that many fill, taken as evidence by one of them: whose words are whose.

Source: the product's *Shared pages*: it quotes the others' words, counts one's own only, and leaves the others' out
where others see it. Decided here: one's own words stand as paragraphs, those of another as a quotation with their name
below it; spaces at the joints stay with the words they follow; words that are nobody's any more are quoted without a
name.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from html import escape
from typing import NamedTuple

from coatpeg.core.portfolios import texts
from coatpeg.core.sharing.authors import Said

NOBODY = -1
"""Of words that no span names."""


class Quoted(NamedTuple):
    """Words of one person (id) that stand together."""

    person: int
    words: str


def runs_of(said: Iterable[Said]) -> list[Quoted]:
    """A passage by its writers, one after the other; a break within it stays with the words before it."""
    found: list[Quoted] = []
    for person, _, words in said:
        last = found[-1] if found else None
        if last is not None and (person in (0, last.person) or not words.strip()):
            found[-1] = Quoted(last.person, last.words + words)
        elif words.strip():
            found.append(Quoted(person or NOBODY, words))
    return [Quoted(one.person, one.words.strip()) for one in found]


def own_words(runs: Iterable[Quoted], person: int) -> str:
    """What one person wrote of it, as plain text: what is counted."""
    return texts.tidy_text("\n".join(one.words for one in runs if one.person == person))


def as_html(runs: Iterable[Quoted], person: int, names: Mapping[int, str]) -> str:
    """The passage as that person's evidence, as rich text; ``names`` of those who wrote the rest, where known."""
    return "".join(
        _paragraphs(one.words) if one.person == person else _quotation(one.words, names.get(one.person, ""))
        for one in runs
    )


def own_html(runs: Iterable[Quoted], person: int) -> str:
    """The same without the words of others."""
    return "".join(_paragraphs(one.words) for one in runs if one.person == person)


def _paragraphs(words: str) -> str:
    return "".join(f"<p>{escape(line)}</p>" for line in words.splitlines() if line.strip())


def _quotation(words: str, name: str) -> str:
    by = f"<p><em>{escape(name)}</em></p>" if name else ""
    return f"<blockquote>{_paragraphs(words)}{by}</blockquote>"
