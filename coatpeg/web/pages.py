"""The page that carries the front end, and health."""

from __future__ import annotations

from django.conf import settings
from django.db import Error, connection
from django.forms.utils import flatatt
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import redirect
from django.utils import timezone
from django.utils.cache import patch_vary_headers
from django.utils.html import format_html
from django.views.decorators.csrf import ensure_csrf_cookie

from coatpeg.jobs import health as background
from coatpeg.people.models import Person
from coatpeg.web import ahead, beginning, sessions
from coatpeg.web.problems import broken


@ensure_csrf_cookie
def front(request: HttpRequest) -> HttpResponse:
    """The one page; the front end finds its view by the address.

    Whoever is signed in goes from the start to their class.
    """
    person = request.user if isinstance(request.user, Person) else None
    if person and request.path == "/" and request.method == "GET":
        home = sessions.home_of(person, sessions.groups_of(person))
        if home:
            return redirect(home)
    try:
        page = (settings.FRONTEND / "index.html").read_bytes()
    except FileNotFoundError:
        return HttpResponse(
            "The front end is not built. Run ./peg demo or ./peg test.", status=503, content_type="text/plain"
        )
    if person:
        at = ahead.cursor(person, request.path)
        head = at + ahead.hints(request.path, settings.FRONTEND, member=at != "")
        page = page.replace(b"</head>", head.encode() + b"</head>", 1)
        begun, attributes = beginning.drawn(request, person, settings.FRONTEND)
        if begun:
            page = page.replace(b"<body>", b"<body>" + begun.encode(), 1)
            page = page.replace(b'<html lang="en">', format_html("<html{}>", flatatt(attributes)).encode(), 1)
    response = HttpResponse(page, content_type="text/html; charset=utf-8")
    response["Cache-Control"] = "private, no-cache"
    patch_vary_headers(response, ("Cookie", "Accept-Language"))
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
