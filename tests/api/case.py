"""A test case whose clock can be set and whose clients are signed in."""

from __future__ import annotations

import json
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import datetime
from typing import Any
from unittest import mock

from django.http import HttpResponse
from django.test import Client, TestCase

from coatpeg.handins.board import kept
from coatpeg.people.models import Person
from tests.builders import NOW


class ApiCase(TestCase):
    """The server's clock stands at ``NOW`` unless a test moves it."""

    def setUp(self) -> None:
        self.clock = mock.patch("django.utils.timezone.now", return_value=NOW)
        self.clock.start()
        self.addCleanup(self.clock.stop)

    @contextmanager
    def at(self, moment: datetime) -> Iterator[None]:
        with mock.patch("django.utils.timezone.now", return_value=moment):
            yield

    def client_of(self, person: Person | None) -> Client:
        client = Client()
        if person:
            client.force_login(person, "django.contrib.auth.backends.ModelBackend")
        return client

    def call(self, person: Person | None, method: str, path: str, body: Any = None, **more: Any) -> HttpResponse:
        """Call the API as a person; ``body`` goes as JSON."""
        client = self.client_of(person)
        if body is not None:
            more.update(data=json.dumps(body), content_type="application/json")
        return getattr(client, method.lower())(f"/api{path}", **more)

    def ok(self, *args: Any, **more: Any) -> Any:
        """Call and expect success; returns the data."""
        response = self.call(*args, **more)
        self.assertLess(response.status_code, 300, getattr(response, "content", b"")[:500])
        return response.json() if getattr(response, "content", b"") else None

    def pegs(self, person: Person, group_id: int) -> Any:
        """The board of a class, read anew, with every cell in its place as the interface has it."""
        kept.forget()  # what tests build by hand happens without an event
        return self.kept_pegs(person, group_id)

    def kept_pegs(self, person: Person, group_id: int) -> Any:
        """The same as the process has it by now."""
        found = self.ok(person, "GET", f"/groups/{group_id}/pegs")
        for row in found["students"]:
            row["cells"] = [found["states"][place] for place in row["cells"]]
        return found

    def apply_list(self, person: Person, path: str, body: dict[str, Any]) -> Any:
        """Look at what a class list does and apply just that; ``path`` is that of the class's list."""
        of = {key: value for key, value in body.items() if key not in ("leave", "first")}
        return self.ok(person, "POST", path, {**body, "seen": self.ok(person, "POST", f"{path}/preview", of)["seen"]})

    def problem(self, status: int, *args: Any, **more: Any) -> dict[str, Any]:
        """Call and expect a problem with a title and a fix."""
        response = self.call(*args, **more)
        self.assertEqual(response.status_code, status, response.content[:500])
        self.assertEqual(response["Content-Type"], "application/problem+json")
        found = response.json()
        self.assertTrue(found["title"] and found["fix"], found)
        return found
