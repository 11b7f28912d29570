"""Judging what comes in by its form: links and file names. Nothing is fetched, nothing is opened.

Decided here: a link must be a complete http or https address of a host with a dot in its name; a
file's name is tidied rather than refused, because the work matters and the name does not.
"""

from __future__ import annotations

import html
import re
import unicodedata
from collections.abc import Iterable
from urllib.parse import urlsplit

from coatpeg.core.errors import Invalid

LONGEST_LINK = 2000
LONGEST_TITLE = 120
"""Characters. Longer ones do not fit a card, a list or a file name on a stick."""

SHORTENERS = frozenset(
    {
        "bit.ly",
        "tinyurl.com",
        "t.co",
        "goo.gl",
        "ow.ly",
        "is.gd",
        "buff.ly",
        "rebrand.ly",
        "cutt.ly",
        "tiny.cc",
        "rb.gy",
        "t.ly",
    }
)
"""Well-known shortening services (from memory; common practice is to ask for the long address)."""
_SIGN_IN = frozenset({"login", "signin", "sign-in", "sign_in", "log-in", "auth", "sso", "accounts", "account", "oauth"})
_EDITING = frozenset({"edit", "editor", "wp-admin", "studio", "preview_edit"})
"""Words of addresses that show only their owner anything (from memory; common practice on the web)."""
_LOCAL_PATH = re.compile(r"^(?:[A-Za-z]:[\\/]|\\\\|/|~/|\.{1,2}/|file:)", re.IGNORECASE)
_SCHEME = re.compile(r"^([A-Za-z][A-Za-z0-9+.-]*):")
_LOOKS_LIKE_HOST = re.compile(r"^[\w-]+(\.[\w-]+)+(:\d+)?([/?#]|$)")


def check_link(raw: str, given: Iterable[str] = (), *, even_so: bool = False) -> str:
    """The link as it is kept; ``Invalid`` says what is wrong with its form and what to do.

    ``given`` are links that the teacher gave out: handing one of them back is no work. Where the form only gives
    cause for doubt (a sign-in page, an editor, a shortener) it is refused once, with ``more["even_so"]``, and taken
    when it is meant ``even_so``.
    """
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
    if _alike(link) in {_alike(one) for one in given}:
        raise Invalid(
            "This is the link that your teacher gave out.",
            where="link",
            fix="Make your own copy there, and paste its address.",
        )
    doubt = None if even_so else _doubt(link)
    if doubt:
        raise Invalid(doubt[0], where="link", fix=doubt[1], more={"even_so": True})
    return link


def links_in(text: str) -> list[str]:
    """The web addresses in a text or rich text."""
    return re.findall(r"https?://[^\s\"'<>]+", text)


_NAMES_DOCUMENT = re.compile(r"(?=[\w-]*\d)(?=[\w-]*[A-Za-z])[\w-]{16,}")
"""A long sign of letters and figures: where an address has one, it names the document, and the rest how it is shown
(common practice of services that keep documents)."""


def _alike(link: str) -> tuple[str, str, str]:
    """What two addresses of the same page have in common.

    The host and the long part that names the document, whatever stands behind it; where there is none, host, path and
    query. Without www, scheme, last slash, fragment.
    """
    parts = urlsplit(html.unescape(link))
    host = (parts.hostname or "").removeprefix("www.")
    named = _NAMES_DOCUMENT.findall(f"{parts.path}?{parts.query}")
    if named:
        return host, max(named, key=len), ""
    return host, parts.path.rstrip("/"), parts.query


def _doubt(link: str) -> tuple[str, str] | None:
    """Why only its owner may be able to open it, or where it leads cannot be seen; and what to do about it."""
    parts = urlsplit(link)
    host, steps = (parts.hostname or "").lower(), [one.lower() for one in parts.path.split("/") if one]
    if host.removeprefix("www.") in SHORTENERS:
        return (
            "This is a shortened link: where it leads cannot be seen, and it may stop working.",
            "Open it, and copy the address you arrive at.",
        )
    if host.split(".")[0] in _SIGN_IN or any(one.partition(".")[0] in _SIGN_IN for one in steps):
        return (
            "This looks like a sign-in page, which shows others nothing.",
            "Open the page itself, and use its “share” or “copy link”.",
        )
    words = set(re.split(r"[/=&?#]", f"{parts.path}?{parts.query}#{parts.fragment}".lower()))
    if words & _EDITING:
        return (
            "This looks like the address for editing: others may not be let in, or may change your work.",
            "Share it so that everybody with the link can view it, and paste that link.",
        )
    return None


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
