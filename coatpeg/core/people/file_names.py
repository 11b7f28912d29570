"""Names of files that a person can sort, safe on every common system.

Source: what Windows refuses in names (its documentation on naming files, from memory): nine signs (``_REFUSED``),
control characters, a blank or full stop at the end, and the names of devices (CON, NUL, COM1 …). Other systems refuse
less. Names are kept in composed form (NFC), as most systems show them.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable

LONGEST = 80
"""Characters of one part: a path of a few of them stays below the 260 that older Windows takes."""
_REFUSED = re.compile(r'[<>:"/\\|?*\x00-\x1f\x7f]+')
_DEVICES = re.compile(r"^(con|prn|aux|nul|com\d|lpt\d)(\.|$)", re.IGNORECASE)
_BLANK = re.compile(r"\s+")
LONGEST_ENDING = 6


def file_name(text: str, fallback: str = "untitled") -> str:
    """A text as the name of a file or folder; its ending stays where it has to be shortened."""
    hidden = "".join(sign for sign in unicodedata.normalize("NFC", text) if unicodedata.category(sign) != "Cf")
    name = _BLANK.sub(" ", _REFUSED.sub(" ", hidden)).strip(" .")
    if len(name) > LONGEST:
        stem, dot, ending = name.rpartition(".")
        end = f"{dot}{ending}" if dot and stem and len(ending) <= LONGEST_ENDING else ""
        name = (stem if end else name)[: LONGEST - len(end)].rstrip(" .") + end
    if _DEVICES.match(name):
        name = f"_{name}"
    return name or fallback


class Taken:
    """Names given out in one folder: a second one of the same name, by whatever case, gets a number."""

    def __init__(self, names: Iterable[str] = ()) -> None:
        self._taken = {name.casefold() for name in names}

    def give(self, name: str) -> str:
        """The name itself, or the same with a number."""
        found, number = name, 1
        stem, dot, ending = name.rpartition(".")
        while found.casefold() in self._taken:
            number += 1
            found = f"{stem} ({number}){dot}{ending}" if stem else f"{name} ({number})"
        self._taken.add(found.casefold())
        return found
