"""Writing a log row by row, pasting rows, downloading them."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.utils.http import content_disposition_header
from ninja import File, Form
from ninja.files import UploadedFile

from coatpeg.core.policy import Action
from coatpeg.core.portfolios.log_columns import log_from_data
from coatpeg.core.portfolios.log_rows import missing
from coatpeg.people.requests import for_action, now, person_of
from coatpeg.portfolios.artefacts import artefact_data
from coatpeg.portfolios.logs import reading, rows
from coatpeg.portfolios.models import LogRow
from coatpeg.portfolios.router import router
from coatpeg.portfolios.shapes import ArtefactShape, PastedShape, PasteIn, RowIn, SavedRow

FILL = for_action(Action.FILL_POCKET)
LOOK = for_action(Action.SEE_PORTFOLIO)


def _saved(row: LogRow) -> SavedRow:
    lacking = [] if row.complete else list(missing(log_from_data(row.pocket.log).columns, row.values))
    return SavedRow(id=row.pk, version=row.version, complete=row.complete, missing=lacking)


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/rows",
    response=SavedRow,
    operation_id="add_row",
    openapi_extra=FILL,
)
def add_row(request: HttpRequest, portfolio_id: int, pocket_id: int, body: RowIn) -> SavedRow:
    """Write a new row into a log."""
    return _saved(rows.add_row(person_of(request), portfolio_id, pocket_id, body.values, now()))


@router.put("/rows/{row_id}", response=SavedRow, operation_id="change_row", openapi_extra=FILL)
def change_row(request: HttpRequest, row_id: int, body: RowIn) -> SavedRow:
    """Write other values into a row."""
    return _saved(rows.change_row(person_of(request), row_id, body.values, body.version, now()))


@router.delete("/rows/{row_id}", response=SavedRow, operation_id="remove_row", openapi_extra=FILL)
def remove_row(request: HttpRequest, row_id: int) -> SavedRow:
    """Take a row out of its log."""
    return _saved(rows.remove_row(person_of(request), row_id, now()))


@router.post("/rows/{row_id}/restore", response=SavedRow, operation_id="restore_row", openapi_extra=FILL)
def restore_row(request: HttpRequest, row_id: int) -> SavedRow:
    """Bring a row back."""
    return _saved(rows.restore_row(person_of(request), row_id, now()))


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/row-files",
    response=ArtefactShape,
    operation_id="add_row_file",
    openapi_extra=FILL,
)
def add_row_file(
    request: HttpRequest, portfolio_id: int, pocket_id: int, file: File[UploadedFile], title: Form[str] = ""
) -> ArtefactShape:
    """Take in a picture or file for a row that is being written; the row then names it."""
    name = title or file.name or ""
    artefact, _ = rows.keep_row_file(person_of(request), portfolio_id, pocket_id, file, name, now())
    return ArtefactShape(**artefact_data(artefact))


@router.post(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/rows/paste",
    response=PastedShape,
    operation_id="paste_rows",
    openapi_extra=FILL,
)
def paste_rows(request: HttpRequest, portfolio_id: int, pocket_id: int, body: PasteIn) -> PastedShape:
    """Read rows copied from a spreadsheet; with ``apply`` add those that fit."""
    found = rows.paste_rows(person_of(request), portfolio_id, pocket_id, body.text, now(), apply=body.apply)
    return PastedShape.model_validate(
        {
            "headings": found.headings,
            "added": found.added,
            "lines": [
                {
                    "line": one.line,
                    "cells": one.cells,
                    "wrong": [{"column": of.column, "what": of.what, "fix": of.fix} for of in one.read.wrong],
                    "missing": one.read.missing,
                    "here": one.here,
                }
                for one in found.lines
            ],
        }
    )


@router.get(
    "/portfolios/{portfolio_id}/pockets/{pocket_id}/rows.csv",
    response=str,
    operation_id="download_rows",
    openapi_extra=LOOK,
)
def download_rows(request: HttpRequest, portfolio_id: int, pocket_id: int) -> HttpResponse:
    """A log as CSV (RFC 4180, UTF-8 with its mark, so that spreadsheets read accents)."""
    text, title = reading.as_csv(person_of(request), portfolio_id, pocket_id)
    response = HttpResponse("\ufeff" + text, content_type="text/csv; charset=utf-8")
    response.headers["Content-Disposition"] = content_disposition_header(True, f"{title}.csv") or "attachment"
    return response
