"""User names made from names: short, plain, unique.

Decided here: given name, a dot, family name, in small Latin letters without accents (``ana.desouza``); a number from 2
where it is taken. Names in other letters are written in Latin ones as the library ``anyascii`` reads them
(``wang.xiaoming``), in the order in which the name is said; what has no letters at all becomes ``student`` with a
number: it can be changed by hand.
"""

from __future__ import annotations

import re
import unicodedata

from anyascii import anyascii

LONGEST = 50


def _plain(name: str) -> str:
    return re.sub(r"[^a-z0-9]", "", anyascii(unicodedata.normalize("NFC", name)).lower())


def username(family: str, given: str, taken: set[str], *, family_first: bool = False) -> str:
    """A user name that is not in ``taken``; it is added there."""
    parts = [_plain(given.split(" ")[0]), _plain(family)]
    if family_first:
        parts = [_plain(family), _plain(given)]  # of what stands behind, no word alone is how somebody is called
    base = ".".join(part for part in parts if part)[:LONGEST] or "student"
    found, number = base, 2
    while found in taken:
        found, number = f"{base}{number}", number + 1
    taken.add(found)
    return found
