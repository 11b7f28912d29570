"""Queries that are compiled once and run often.

A view of a class runs a dozen of the same ``values_list`` queries with other ids, and working each out anew takes the
ORM longer than the database takes to answer it. ``Prepared`` has the ORM compile a query once a process, with ids that
stand for what is asked later, and keeps its SQL with the columns' converters; so the SQL is still the ORM's.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Sequence
from threading import Lock
from typing import Any, Generic, TypeVar

from django.db import connection
from django.db.models import Model, QuerySet

M = TypeVar("M", bound=Model)
_STANDS_FOR = 8_070_605_040_302_010
"""Ids like this one do not occur: they mark the places of the parameters."""


class Prepared:
    """A ``values_list`` query of some ids, called with those ids; rows are tuples, as the ORM gives them.

    ``build`` makes the query from as many whole numbers as ``run`` is called with; each reaches the database as it is.
    """

    def __init__(self, build: Callable[..., QuerySet[Any, Any]]) -> None:
        self._build = build
        self._sql = ""
        self._places: tuple[tuple[int | None, Any], ...] = ()
        self._converters: dict[int, Any] = {}
        self._compiling = Lock()

    def run(self, *ids: int) -> list[tuple[Any, ...]]:
        """The rows for these ids."""
        if not self._sql:
            with self._compiling:  # the first two requests of a process may come at once
                if not self._sql:
                    self._compile(len(ids))
        parameters = [value if place is None else ids[place] for place, value in self._places]
        with connection.cursor() as cursor:
            cursor.execute(self._sql, parameters)
            rows = cursor.fetchall()
        if not self._converters or not rows:
            return list(rows)
        # A column at a time: row by row, as the ORM does it, takes twice as long.
        columns: list[Sequence[Any]] = list(zip(*rows, strict=True))
        for place, (converters, expression) in self._converters.items():
            for convert in converters:
                columns[place] = [convert(value, expression, connection) for value in columns[place]]
        return list(zip(*columns, strict=True))

    def _compile(self, count: int) -> None:
        marks = [_STANDS_FOR + number for number in range(count)]
        query = self._build(*marks).query
        compiler = query.get_compiler(connection=connection)
        sql, parameters = compiler.as_sql()
        columns = [column[0] for column in compiler.select[: compiler.col_count]]
        self._converters = compiler.get_converters(columns)
        self._places = tuple((marks.index(one) if one in marks else None, one) for one in parameters)
        assert {place for place, _ in self._places} >= set(range(count)), sql
        self._sql = sql


class OfGroup:
    """A ``values_list`` query of a group, or of some of its enrolments: prepared where it is all or one of them."""

    def __init__(self, rows: QuerySet[Any, Any], group: str, enrolment: str) -> None:
        self._rows, self._group, self._enrolment = rows, group, enrolment
        self._all = Prepared(lambda pk: rows.filter(**{group: pk}))
        self._one = Prepared(lambda pk, one: rows.filter(**{group: pk, enrolment: one}))

    def run(self, group_id: int, enrolments: Collection[int] | None) -> Iterator[tuple[Any, ...]]:
        """The rows of a group; ``enrolments`` None: of everybody."""
        if enrolments is None:
            return iter(self._all.run(group_id))
        if len(enrolments) == 1:
            return iter(self._one.run(group_id, *enrolments))
        some = {self._group: group_id, f"{self._enrolment}__in": enrolments}
        return iter(self._rows.filter(**some))


class Found(Generic[M]):
    """A model's row by its key with the rows it points to, as ``select_related`` gives it; prepared.

    ``paths`` name them, each after the one it hangs on: ``enrolment``, ``enrolment__person``.
    """

    def __init__(self, model: type[M], *paths: str) -> None:
        self._model, self._paths = model, paths
        self._parts: list[tuple[str, type[Model], list[str]]] = []
        self._row = Prepared(self._build)

    def _build(self, pk: int) -> QuerySet[Any, Any]:
        models: dict[str, type[Model]] = {"": self._model}
        for path in self._paths:
            above, _, name = path.rpartition("__")
            models[path] = models[above]._meta.get_field(name).related_model  # type: ignore[assignment]  # a row's model
        for path, model in models.items():
            self._parts.append((path, model, [field.attname for field in model._meta.concrete_fields]))
        columns = [f"{path}__{name}" if path else name for path, _, names in self._parts for name in names]
        return self._model._default_manager.filter(pk=pk).values_list(*columns)

    def get(self, pk: int) -> M | None:
        """The row, or None."""
        rows = self._row.run(pk)
        if not rows:
            return None
        made: dict[str, Model] = {}
        values = iter(rows[0])
        for path, model, names in self._parts:
            made[path] = model.from_db(None, names, [next(values) for _ in names])
            if path:
                above, _, name = path.rpartition("__")
                setattr(made[above], name, made[path])
        return made[""]  # type: ignore[return-value]  # of the model that was asked for
