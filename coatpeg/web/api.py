"""The API: the rooms' routers in one document, authentication, errors."""

from __future__ import annotations

from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.security import SessionAuth

from coatpeg.core import tus
from coatpeg.core.errors import CoatPegError, TooLarge
from coatpeg.handins.api import router as handins_router
from coatpeg.handins.calendar_api import router as calendar_router
from coatpeg.handins.gallery_api import router as gallery_router
from coatpeg.handins.template_api import router as template_router
from coatpeg.marking.api import router as marking_router
from coatpeg.outlines.api import router as outlines_router
from coatpeg.people.api import router as people_router
from coatpeg.portfolios.api import router as portfolios_router
from coatpeg.portfolios.log_api import router as log_router
from coatpeg.portfolios.looking_api import router as looking_router
from coatpeg.portfolios.own_api import router as own_router
from coatpeg.portfolios.roster_api import router as roster_router
from coatpeg.portfolios.texts_api import router as texts_router
from coatpeg.portfolios.uploads_api import router as uploads_router
from coatpeg.web.middleware import database_away
from coatpeg.web.problems import csrf_failure, problem, response_of, signed_out, unreadable
from coatpeg.web.sessions import router as sessions_router


class Session(SessionAuth):
    """A session cookie with CSRF protection, of an active person."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The person, or None."""
        return request.user if request.user.is_authenticated else None


api = NinjaAPI(
    title="Coat Peg",
    version="0.2.0",
    auth=Session(),
    docs_url=None,
    openapi_url=None,
    urls_namespace="api",
)
ROUTERS = (
    sessions_router,
    people_router,
    roster_router,
    calendar_router,
    outlines_router,
    template_router,
    gallery_router,
    portfolios_router,
    uploads_router,
    log_router,
    own_router,
    texts_router,
    looking_router,
    handins_router,
    marking_router,
)
for router in ROUTERS:
    api.add_router("", router)


@api.exception_handler(CoatPegError)
def _our_error(request: HttpRequest, error: CoatPegError) -> HttpResponse:
    response = response_of(error)
    if request.path.startswith("/api/uploads"):
        response["Tus-Resumable"] = response["Tus-Version"] = tus.VERSION
    return response


@api.exception_handler(AuthenticationError)
def _signed_out(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
    return signed_out()


@api.exception_handler(ValidationError)
def _unreadable(request: HttpRequest, error: ValidationError) -> HttpResponse:
    return unreadable(error.errors)


@api.exception_handler(HttpError)
def _http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
    if error.status_code == 403:  # the only one that the framework raises: a missing or wrong CSRF token
        return csrf_failure(request)
    return problem(error.status_code, "invalid", str(error), fix="Correct it and send again.")


@api.exception_handler(RequestDataTooBig)
def _too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
    return response_of(TooLarge("That is too much text for one save.", where="text", fix="Shorten it."))


@api.exception_handler(OperationalError)
def _database_away(request: HttpRequest, error: OperationalError) -> HttpResponse:
    return database_away()


@api.exception_handler(InterfaceError)
def _connection_lost(request: HttpRequest, error: InterfaceError) -> HttpResponse:
    return database_away()
