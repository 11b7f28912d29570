"""Judging what comes in by its form: links and file names. Nothing is fetched, nothing is opened.

Decided here: a link must be a complete http or https address of a host with a dot in its name; a
file's name is tidied rather than refused, because the work matters and the name does not.
"""

from __future__ import annotations

import re
import unicodedata
from urllib.parse import urlsplit

from coatpeg.core.errors import Invalid

LONGEST_LINK = 2000
LONGEST_TITLE = 120
"""Characters. Longer ones do not fit a card, a list or a file name on a stick."""

_LOCAL_PATH = re.compile(r"^(?:[A-Za-z]:[\\/]|\\\\|/|~/|\.{1,2}/|file:)", re.IGNORECASE)
_SCHEME = re.compile(r"^([A-Za-z][A-Za-z0-9+.-]*):")
_LOOKS_LIKE_HOST = re.compile(r"^[\w-]+(\.[\w-]+)+(:\d+)?([/?#]|$)")


def check_link(raw: str) -> str:
    """The link as it is kept; ``Invalid`` says what is wrong with its form and what to do."""
    link = raw.strip()
    if not link:
        raise Invalid("There is no link yet.", where="link", fix="Paste the address of the page.")
    if _LOCAL_PATH.match(link):
        raise Invalid(
            f"“{link[:80]}” is a file on one device; nobody else can open it.",
            where="link",
            fix="Use “Add a file” and choose it there.",
        )
    if len(link) > LONGEST_LINK:
        raise Invalid(
            f"The link has {len(link)} characters; {LONGEST_LINK} is the most.", where="link", fix="Use its short form."
        )
    if any(unicodedata.category(one) in ("Cc", "Cf", "Zs", "Zl", "Zp") for one in link):
        raise Invalid("The link has a space or a hidden character in it.", where="link", fix="Copy the address again.")
    if _LOOKS_LIKE_HOST.match(link):
        raise Invalid(
            f"“{link[:80]}” does not say how to open it.", where="link", fix=f"Write https://{link[:80]} if that is it."
        )
    scheme = _SCHEME.match(link)
    if not scheme or scheme[1].lower() not in ("http", "https"):
        named = f"“{scheme[1]}:” links are not opened here." if scheme else f"“{link[:80]}” is not a complete address."
        raise Invalid(named, where="link", fix="Paste an address that begins with https://")
    _check_host(link)
    return link


def _check_host(link: str) -> None:
    """Refuse an address without a public host name, or one that carries a password."""
    try:
        parts = urlsplit(link)
        host, has_password = parts.hostname or "", parts.password is not None
        _ = parts.port
    except ValueError:
        host, has_password = "", False
    if has_password:
        raise Invalid("The link has a password in it.", where="link", fix="Leave out the part before the @.")
    if "." not in host.strip("."):
        raise Invalid(
            f"“{link[:80]}” names no place on the web.", where="link", fix="Copy the whole address from the browser."
        )


def tidy_title(raw: str, fallback: str = "Untitled") -> tuple[str, str]:
    """A title from a file's name, and a sentence that says what was changed (empty: nothing).

    Folders, control and direction-override characters go; a long name keeps its beginning and its ending.
    """
    name = unicodedata.normalize("NFC", raw)
    visible = "".join(one for one in name if unicodedata.category(one) not in ("Cc", "Cf", "Cs", "Zl", "Zp"))
    base = re.split(r"[\\/]", visible)[-1].strip() or fallback
    if len(base) > LONGEST_TITLE:
        stem, dot, ending = base.rpartition(".")
        keep = f"{dot}{ending}" if stem and len(ending) <= 10 else ""
        short = base[: LONGEST_TITLE - len(keep) - 1].rstrip() + "…" + keep
        return short, f"Its name had {len(base)} characters; it is kept as “{short}”."
    if base != name.strip():
        return base, f"Its name held signs that a name cannot have; it is kept as “{base}”."
    return base, ""
