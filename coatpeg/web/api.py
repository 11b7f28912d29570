"""The API: the rooms' routers in one document, authentication, errors."""

from __future__ import annotations

import logging
from typing import Any

import orjson
from django.core.exceptions import RequestDataTooBig
from django.db import IntegrityError, InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.parser import Parser
from ninja.security import SessionAuth

from coatpeg.core.errors import CoatPegError, Invalid, TooLarge
from coatpeg.core.portfolios import tus
from coatpeg.cupboard.api import router as cupboard_router
from coatpeg.cupboard.files_api import router as cupboard_files_router
from coatpeg.files.uploads_api import router as uploads_router
from coatpeg.handins.api import router as handins_router
from coatpeg.marking.annotations.api import router as annotations_router
from coatpeg.marking.api import router as marking_router
from coatpeg.marking.class_notes.api import router as class_notes_router
from coatpeg.marking.late.api import router as late_router
from coatpeg.marking.phrases.api import router as phrases_router
from coatpeg.marking.rubrics.api import router as rubrics_router
from coatpeg.marking.sheet.api import router as sheet_router
from coatpeg.marking.staff_notes.api import router as staff_notes_router
from coatpeg.marking.two.api import router as two_router
from coatpeg.people.api import router as people_router
from coatpeg.people.bell_api import router as bell_router
from coatpeg.portfolios.api import router as portfolios_router
from coatpeg.setup.calendar.api import router as calendar_router
from coatpeg.setup.groups.api import router as groups_router
from coatpeg.setup.roster.api import router as roster_router
from coatpeg.setup.roster.together_api import router as together_router
from coatpeg.setup.starting_api import router as starting_router
from coatpeg.setup.template.api import router as template_router
from coatpeg.setup.template.draft_api import router as draft_router
from coatpeg.setup.template.gallery_api import router as gallery_router
from coatpeg.setup.template.outline_api import router as outline_router
from coatpeg.sharing.api import router as sharing_router
from coatpeg.web.middleware import database_away, database_refused, lost_to_others
from coatpeg.web.problems import broken, csrf_failure, problem, response_of, signed_out, unreadable
from coatpeg.web.sessions import router as sessions_router


class Json(Parser):
    """Bodies as JSON by its letter: no half of a character, no number that is none."""

    def parse_body(self, request: HttpRequest) -> Any:
        """The body's data; ``ValueError`` becomes the framework's own answer."""
        return orjson.loads(request.body)


class Session(SessionAuth):
    """A session cookie with CSRF protection, of an active person."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """The person, or None."""
        return request.user if request.user.is_authenticated else None


api = NinjaAPI(
    title="Coat Peg",
    version="0.2.0",
    auth=Session(),
    parser=Json(),
    docs_url=None,
    openapi_url=None,
    urls_namespace="api",
)
ROUTERS = (
    # What is asked most often is found first.
    sharing_router,
    sessions_router,
    people_router,
    bell_router,
    roster_router,
    groups_router,
    calendar_router,
    starting_router,
    together_router,
    template_router,
    gallery_router,
    draft_router,
    outline_router,
    portfolios_router,
    uploads_router,
    cupboard_router,
    cupboard_files_router,
    handins_router,
    marking_router,
    phrases_router,
    sheet_router,
    annotations_router,
    staff_notes_router,
    two_router,
    rubrics_router,
    late_router,
    class_notes_router,
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


@api.exception_handler(MultiPartParserError)
def _no_form(request: HttpRequest, error: MultiPartParserError) -> HttpResponse:
    return response_of(
        Invalid(
            "The form that came cannot be read.", where="Content-Type", fix="Load the page again, then send it anew."
        )
    )


@api.exception_handler(OperationalError)
def _database_away(request: HttpRequest, error: OperationalError) -> HttpResponse:
    return database_refused(request, error)


@api.exception_handler(IntegrityError)
def _beside_another(request: HttpRequest, error: IntegrityError) -> HttpResponse:
    return database_refused(request, error) if lost_to_others(error) else _broken(request, error)


@api.exception_handler(Exception)
def _broken(request: HttpRequest, error: Exception) -> HttpResponse:
    logging.getLogger("django.request").error("%s %s", request.method, request.path, exc_info=error)
    return broken()


@api.exception_handler(InterfaceError)
def _connection_lost(request: HttpRequest, error: InterfaceError) -> HttpResponse:
    return database_away()
