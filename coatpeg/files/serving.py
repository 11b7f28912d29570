"""Sending stored bytes so that they can do no harm."""

from __future__ import annotations

import os
import re
from typing import IO, cast

from django.http import FileResponse, HttpRequest, HttpResponse, HttpResponseNotModified

from coatpeg.files import keeping, media

SAFE_IN_A_BROWSER = frozenset({"image/jpeg", "image/png", "image/webp"}) | media.SOUNDS | media.VIDEOS
"""Pictures that we wrote ourselves are shown, sound and video are played; everything else is a download."""
FILE_POLICY = "default-src 'none'; sandbox"


def bytes_of(
    request: HttpRequest, sha256: str, title: str, media_type: str, *, part: str = "", download: bool = False
) -> HttpResponse:
    """Bytes that cannot run script in our origin; asked for anew each time, so that a shared device shows nothing."""
    tag = f'"{sha256}{part}"'
    response: HttpResponse
    wanted = request.headers.get("Range", "")
    if request.headers.get("If-None-Match") == tag and not wanted:
        response = HttpResponseNotModified()
    elif wanted and not part and request.headers.get("If-Range", tag) == tag and _RANGE.match(wanted):
        response = _ranged(sha256, media_type, wanted)
    else:
        content = keeping.opened(sha256, part)
        response = FileResponse(content, as_attachment=download, filename=title, content_type=media_type)  # type: ignore[assignment]  # a streaming response goes the same way
    response["ETag"] = tag
    if not part:
        response["Accept-Ranges"] = "bytes"
    response["Cache-Control"] = "private, no-cache"
    response["Content-Security-Policy"] = FILE_POLICY
    response["X-Content-Type-Options"] = "nosniff"
    return response


_RANGE = re.compile(r"^bytes=(\d{0,18})-(\d{0,18})$")
"""One range (RFC 9110, 14.1.2); what asks for several gets the whole, as the RFC allows."""


class _Part:
    """The next so many bytes of a file."""

    def __init__(self, content: IO[bytes], length: int) -> None:
        self.content, self.left = content, length

    def read(self, most: int = -1) -> bytes:
        """Up to so many bytes."""
        found = self.content.read(self.left if most < 0 else min(most, self.left))
        self.left -= len(found)
        return found

    def close(self) -> None:
        """Close the file."""
        self.content.close()


def _ranged(sha256: str, media_type: str, wanted: str) -> HttpResponse:
    """One range of the bytes, so that a player can seek; 416 where there is none of it."""
    content = keeping.opened(sha256)
    size = content.seek(0, os.SEEK_END)
    found = _RANGE.match(wanted)
    assert found is not None
    first, last = found.groups()
    if first:
        start, end = int(first), min(int(last), size - 1) if last else size - 1
    else:
        start, end = max(size - int(last or 0), 0), size - 1
    if start > end or start >= size:
        content.close()
        return HttpResponse(status=416, headers={"Content-Range": f"bytes */{size}"})
    content.seek(start)
    response = FileResponse(_Part(content, end - start + 1), status=206, content_type=media_type)
    response["Content-Range"] = f"bytes {start}-{end}/{size}"
    response["Content-Length"] = str(end - start + 1)
    return cast(HttpResponse, response)


def whole(
    request: HttpRequest, sha256: str, title: str, media_type: str, *, shown: bool, download: bool = False
) -> HttpResponse:
    """A picture to see, a recording to play (unless it is to be downloaded), anything else to download."""
    shown = shown and not download and media_type in SAFE_IN_A_BROWSER
    kind = media_type if shown else "application/octet-stream"
    return bytes_of(request, sha256, media.named(title, media_type), kind, download=not shown)


def thumbnail(request: HttpRequest, sha256: str, title: str, media_type: str, size: str) -> HttpResponse:
    """A thumbnail of a picture."""
    kind = "image/jpeg" if media_type == "image/jpeg" else "image/png"
    return bytes_of(request, sha256, title, kind, part=size)
