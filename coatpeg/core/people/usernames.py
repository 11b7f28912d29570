"""User names made from names: short, plain, unique.

Decided here: given name, a dot, family name, in small Latin letters without accents (``ana.desouza``); a number from 2
where it is taken. A name that has no Latin letters becomes ``student`` with a number: it can be changed by hand.
"""

from __future__ import annotations

import re

from coatpeg.core.people.names import search_key

LONGEST = 50
_SPELLED = str.maketrans({"ß": "ss", "ø": "o", "đ": "d", "ł": "l", "æ": "ae", "œ": "oe", "þ": "th", "ð": "d", "ı": "i"})


def _plain(name: str) -> str:
    return re.sub(r"[^a-z0-9]", "", search_key(name).translate(_SPELLED))


def username(family: str, given: str, taken: set[str]) -> str:
    """A user name that is not in ``taken``; it is added there."""
    first = _plain(given.split(" ")[0]) if given else ""
    base = ".".join(part for part in (first, _plain(family)) if part)[:LONGEST] or "student"
    found, number = base, 2
    while found in taken:
        found, number = f"{base}{number}", number + 1
    taken.add(found)
    return found
