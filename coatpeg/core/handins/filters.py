"""Filters of the pegs as an address holds them, so that they can be kept under a name.

A filter is a query string: names of what is filtered by, each with its values. Decided here: what the pegs do not know
is left out, and so is what only says where somebody stands (an opened peg); the order of the names is always the
same, so that the same filter reads the same. Values are words of people (a period's name, a section's title) and are
kept as they are: what is gone by then is told by the board that opens the filter.
"""

from __future__ import annotations

from urllib.parse import parse_qsl, urlencode

from coatpeg.core.errors import Invalid

KEYS = (
    "show",
    "period",
    "group",
    "section",
    "hide",
    "pin",
    "cols",
    "week",
    "handin",
    "flag",
    "quiet",
    "agreed",
    "lately",
    "find",
    "order",
)
"""What the pegs are filtered and ordered by."""
LONGEST_NAME = 60
LONGEST_ADDRESS = 1500


def tidy_address(address: str) -> str:
    """A filter without what is no part of it. ``Invalid`` where nothing is left, or it is too long to be one."""
    if len(address) > LONGEST_ADDRESS:
        raise Invalid("This filter is too long to be kept.", where="address", fix="Choose fewer sections.")
    found = [(key, value) for key, value in parse_qsl(address.removeprefix("?")) if key in KEYS and value.strip()]
    if not found:
        raise Invalid("No filter is chosen.", where="address", fix="Choose what the pegs should show, then keep it.")
    return urlencode(sorted(found, key=lambda one: (KEYS.index(one[0]), one[1])))


def tidy_name(name: str) -> str:
    """A name without space around it. ``Invalid`` where it is empty or too long."""
    name = " ".join(name.split())
    if not name:
        raise Invalid("The filter has no name.", where="name", fix="Give it one: “P3 owing this week”.")
    if len(name) > LONGEST_NAME:
        raise Invalid(f"The name has {len(name)} characters.", where="name", fix=f"Use at most {LONGEST_NAME}.")
    return name
