"""Taking a written name apart into family and given name.

There is no rule for names; what a guess can lean on, in this order (common practice of school offices, decided here):

* A comma parts family from given: ``de Souza, Ana Beatriz``.
* A name in Han, Hangul or kana is written family name first; without a space it is kept whole as the given name.
  Whoever brings the list can say the same of any other (``Nguyễn Thị Minh Khai``): its first word is the family name.
* Words in capitals beside words that are not are the family name: ``DUBE Thandi``, ``Thandi DUBE``.
* Else the last word is the family name, with the particles before it: ``Ludwig van Beethoven`` → *van Beethoven*.
* One word alone is the given name; the family name stays empty.

The person corrects a guess in the list; nothing is written before they agree.
"""

from __future__ import annotations

import re
import unicodedata
from typing import NamedTuple

_PARTICLES = """
af al abu ben bin bint da das de del della den der des di do dos du el ibn la las le les lo los mac mc op st
’t 't te ten ter the van vom von zu zum zur
"""
PARTICLES = frozenset(_PARTICLES.split())
"""Words that belong to the family name after them. From memory, of the languages schools here are likely to meet."""
_FAMILY_FIRST = ("CJK UNIFIED", "HANGUL", "HIRAGANA", "KATAKANA")


class PersonName(NamedTuple):
    """A name in two parts; the family name may be empty."""

    family: str
    given: str


def tidy(text: str) -> str:
    """A name as it is kept: NFC, single spaces, no control or direction characters."""
    unified = unicodedata.normalize("NFC", text)
    kept = "".join(" " if one.isspace() else one for one in unified if unicodedata.category(one) not in ("Cc", "Cf"))
    # The joiners of Indic and Persian writing are format characters that belong to the word.
    return re.sub(r" +", " ", kept).strip(" ,;")


def split(text: str, *, family_first: bool | None = None) -> PersonName:
    """The two parts of a written name; see the module's text for the rules. Which comes first is told, or (None) by
    its letters.
    """
    if "," in text:
        family, _, given = text.partition(",")
        if tidy(given):
            return PersonName(tidy(family), tidy(given))
    words = tidy(text).split()
    if len(words) < 2:
        return PersonName("", tidy(text))
    if is_family_first(text) if family_first is None else family_first:
        return PersonName(words[0], " ".join(words[1:]))
    capitals = [_is_capitals(word) for word in words]
    if any(capitals) and not all(capitals):
        in_capitals = [_from_capitals(word) for word, so in zip(words, capitals, strict=True) if so]
        others = [word for word, so in zip(words, capitals, strict=True) if not so]
        return PersonName(" ".join(in_capitals), " ".join(others))
    begin = len(words) - 1
    while begin > 1 and words[begin - 1].casefold() in PARTICLES:
        begin -= 1
    return PersonName(" ".join(words[begin:]), " ".join(words[:begin]))


def from_address(address: str) -> PersonName:
    """A name made from an e-mail address, for somebody of whom nothing else is known: ``anna.blom2@…`` → *Anna Blom*.

    Decided here: what stands before the sign, parted at dots and underscores, without numbers; the last part is the
    family name. It never is the address itself, and is to be completed.
    """
    parts = []
    for one in re.split(r"[._]+", address.partition("@")[0]):
        words = re.sub(r"[\d+-]+", " ", one).split()
        if words:
            parts.append(" ".join(word[0].upper() + word[1:] for word in words))
    if not parts:
        return PersonName("", "Student")
    return PersonName(parts[-1] if len(parts) > 1 else "", " ".join(parts[:-1]) or parts[0])


def is_family_first(text: str) -> bool:
    """Whether a name is in letters in which the family name is written first."""
    words = text.replace(",", " ").split()
    return bool(words) and all(unicodedata.name(one, "").startswith(_FAMILY_FIRST) for word in words for one in word)


def _is_capitals(word: str) -> bool:
    """A word of at least two letters, all capital (an initial with a point is none)."""
    letters = [one for one in word if one.isalpha()]
    return len(letters) > 1 and all(one.isupper() for one in letters)


def _from_capitals(word: str) -> str:
    """``O'NEILL`` → ``O'Neill``, ``SMITH-JONES`` → ``Smith-Jones``."""
    return re.sub(r"[^\W\d_]+", lambda part: part[0][0] + part[0][1:].lower(), word)
