"""Calendars at secret addresses: read by calendar programs, which do not sign in."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse

from coatpeg.core.errors import Gone
from coatpeg.handins.student.feeds import feed
from coatpeg.people.requests import now
from coatpeg.web.problems import response_of


def calendar_feed(request: HttpRequest, secret: str) -> HttpResponse:
    """A person's hand-ins as iCalendar."""
    try:
        response = HttpResponse(feed(secret, now()), content_type="text/calendar; charset=utf-8")
    except Gone as error:
        response = response_of(error)
    response["Cache-Control"] = "private, no-store"
    response["Referrer-Policy"] = "no-referrer"
    return response
