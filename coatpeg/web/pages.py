"""The page that carries the front end, and health."""

from __future__ import annotations

from django.conf import settings
from django.db import Error, connection
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone
from django.views.decorators.csrf import ensure_csrf_cookie

from coatpeg.jobs import health as background
from coatpeg.web.problems import broken


@ensure_csrf_cookie
def front(request: HttpRequest) -> HttpResponse:
    """The one page; the front end finds its view by the address."""
    try:
        page = (settings.FRONTEND / "index.html").read_bytes()
    except FileNotFoundError:
        return HttpResponse(
            "The front end is not built. Run ./peg demo or ./peg test.", status=503, content_type="text/plain"
        )
    response = HttpResponse(page, content_type="text/html; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response


def health(request: HttpRequest) -> JsonResponse:
    """Whether the application and its database answer: 200, or 503; and how the background work stands.

    What is stuck or was set aside is named by its kind only: this page is open to everybody.
    """
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except Error:
        connection.close()
        return JsonResponse({"ok": False, "database": False}, status=503)
    return JsonResponse({"ok": True, "database": True, "background": background.summary(timezone.now())})


def broken_page(request: HttpRequest) -> HttpResponse:
    """Where the application itself failed beside the API."""
    return broken()
