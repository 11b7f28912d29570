"""Sending stored bytes so that they can do no harm."""

from __future__ import annotations

from django.http import FileResponse, HttpRequest, HttpResponse, HttpResponseNotModified

from coatpeg.portfolios import files

SAFE_IN_A_BROWSER = frozenset({"image/jpeg", "image/png", "image/webp"})
"""Only pictures that we wrote ourselves are shown; everything else is a download."""
FILE_POLICY = "default-src 'none'; sandbox"


def bytes_of(
    request: HttpRequest, sha256: str, title: str, media_type: str, *, part: str = "", download: bool = False
) -> HttpResponse:
    """Bytes that cannot run script in our origin; asked for anew each time, so that a shared device shows nothing."""
    tag = f'"{sha256}{part}"'
    response: HttpResponse
    if request.headers.get("If-None-Match") == tag:
        response = HttpResponseNotModified()
    else:
        content = files.opened(sha256, part)
        response = FileResponse(content, as_attachment=download, filename=title, content_type=media_type)  # type: ignore[assignment]  # a streaming response goes the same way
    response["ETag"] = tag
    response["Cache-Control"] = "private, no-cache"
    response["Content-Security-Policy"] = FILE_POLICY
    response["X-Content-Type-Options"] = "nosniff"
    return response


def whole(request: HttpRequest, sha256: str, title: str, media_type: str, *, picture: bool) -> HttpResponse:
    """A picture to see, anything else to download."""
    shown = picture and media_type in SAFE_IN_A_BROWSER
    kind = media_type if shown else "application/octet-stream"
    return bytes_of(request, sha256, title, kind, download=not shown)


def thumbnail(request: HttpRequest, sha256: str, title: str, media_type: str, size: str) -> HttpResponse:
    """A thumbnail of a picture."""
    kind = "image/jpeg" if media_type == "image/jpeg" else "image/png"
    return bytes_of(request, sha256, title, kind, part=size)
