"""The frozen content of a submission, in a form that always hashes the same.

A snapshot is a JSON document with sorted keys and no spare blanks (after RFC 8785's idea, for the
plain values used here: text, whole numbers, true/false, null, lists, objects).
"""

from __future__ import annotations

import hashlib
import json
from typing import Any


def canonical(document: Any) -> bytes:
    """The one byte form of a document."""
    return json.dumps(document, sort_keys=True, ensure_ascii=False, separators=(",", ":"), allow_nan=False).encode()


def digest(document: Any) -> str:
    """SHA-256 of a document's byte form, in hexadecimal."""
    return hashlib.sha256(canonical(document)).hexdigest()


def text_digest(text: str) -> str:
    """SHA-256 of a text, in hexadecimal: what events carry in place of the text itself."""
    return hashlib.sha256(text.encode()).hexdigest()
