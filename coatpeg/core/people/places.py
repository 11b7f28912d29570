"""Names of periods and groups, compared as people mean them.

Decided here: case, spaces and dots do not matter, and neither does a word before a number or a single letter that only
says what it is (*Period 2*, *per. 2*, *P2*, *p 2*, *hour 2* and *2* are one period; *Group A* and *A* one group), as
lists of different people have it (common practice). What a class has already is spelled as it is there; of names that
are new, the first spelling stands. Two names that stand in the class side by side are never made one.
"""

from __future__ import annotations

import re
from collections.abc import Iterable

_SAYS_WHAT = re.compile(
    r"^(?:(?:periods?|per|p|hours?|hr|lessons?|groups?|grp|gr|g)?0*([0-9]+)|(?:periods?|groups?)([a-z]))$"
)
_BETWEEN = re.compile(r"[\s._\-–:#]+")


def place_key(name: str) -> str:
    """A name as it is compared: ``Period 02`` → ``2``, ``P3`` → ``3``, ``Blue team`` → ``blueteam``."""
    plain = _BETWEEN.sub("", name.casefold())
    found = _SAYS_WHAT.match(plain)
    return found[1] or found[2] if found else plain


class Places:
    """The periods or the groups of a class, and those that a list adds to them."""

    def __init__(self, names: Iterable[str]) -> None:
        self._exact: dict[str, str] = {}
        self._meant: dict[str, str] = {}
        for name in names:
            self._exact[name.casefold()] = name
            self._meant.setdefault(place_key(name), name)

    def as_here(self, name: str) -> str:
        """The name as the class has it; one that is new is remembered as it is first written."""
        if not name:
            return name
        here = self._exact.get(name.casefold()) or self._meant.get(place_key(name))
        if here is None:
            here = self._exact[name.casefold()] = self._meant[place_key(name)] = name
        return here
