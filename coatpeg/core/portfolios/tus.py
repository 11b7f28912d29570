"""The headers of the tus resumable upload protocol, read.

Source: the protocol's text, version 1.0.0 (2016), "Core Protocol", "Creation", "Termination" and "Expiration".
Metadata are pairs of an ASCII key and a Base64 value, parted by commas; a key stands once; a value may be left out.
"""

from __future__ import annotations

import base64
import binascii

from coatpeg.core.errors import Invalid

VERSION = "1.0.0"
EXTENSIONS = "creation,termination,expiration"
BODY = "application/offset+octet-stream"
MOST_METADATA = 4096
"""Characters. A name of 130 signs in four bytes each, in Base64, is 700."""


def read_metadata(header: str) -> dict[str, str]:
    """The pairs of an ``Upload-Metadata`` header."""
    if len(header) > MOST_METADATA:
        raise Invalid(
            f"Upload-Metadata has {len(header)} characters.", where="Upload-Metadata", fix="Shorten the name."
        )
    pairs: dict[str, str] = {}
    for part in filter(None, (one.strip() for one in header.split(","))):
        key, _, value = part.partition(" ")
        try:
            text = base64.b64decode(value.strip(), validate=True).decode()
        except (binascii.Error, ValueError):
            raise Invalid(
                f"The value of “{key[:40]}” is not Base64 of UTF-8.", where="Upload-Metadata", fix="Encode it."
            ) from None
        if not key or not key.isascii() or key in pairs:
            raise Invalid(f"“{key[:40]}” is no key, or stands twice.", where="Upload-Metadata", fix="Name each once.")
        pairs[key] = text
    return pairs


def read_number(header: str | None, name: str) -> int:
    """A non-negative whole number of a header."""
    text = (header or "").strip()
    if not text.isascii() or not text.isdigit() or len(text) > 18:
        raise Invalid(
            f"{name} is “{text[:30]}”, which is no whole number from 0.", where=name, fix="Send the bytes' number."
        )
    return int(text)
