"""Every operation × role, driven by our own OpenAPI document: no answer 5xx, none to the wrong role.

Cases are made by schemathesis (fitting the document, and not); addresses name things that are there. A short run here; a
long one by ``./peg bench`` (``PEG_SCHEMA_EXAMPLES``).
"""

from __future__ import annotations

import json
import os
from collections import Counter
from collections.abc import Iterator
from typing import Any
from urllib.parse import urlencode

import schemathesis
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import transaction
from django.http import HttpResponse
from django.test import Client, SimpleTestCase
from django.test.client import BOUNDARY, MULTIPART_CONTENT, encode_multipart
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis.errors import Unsatisfiable
from schemathesis import GenerationMode

from coatpeg.people.models import Person
from coatpeg.people.shapes import Shape
from tests.api.test_junk import Documented
from tests.builders import klass

EXAMPLES = int(os.environ.get("PEG_SCHEMA_EXAMPLES", "1"))
FOR_ANYBODY = {"see_session", "sign_in", "sign_in_by_card", "sign_out", "health", "upload_options"}
"""Operations without a session."""


class SchemaDriven(Documented):
    """The things of one class, asked for by those who may and by those who may not."""

    def setUp(self) -> None:
        super().setUp()
        self.answered = Counter[tuple[str, int]]()

    def roles(self) -> dict[str, Person | None]:
        return {
            "lead": self.own.of.lead,
            "student": self.own.portfolio.enrolment.person,
            "foreign lead": klass("9 Forge", "forge").lead,
            "nobody": None,
        }

    def test_every_operation_by_every_role(self) -> None:
        schema = schemathesis.openapi.from_dict(json.loads(json.dumps(self.document, default=str)))
        sessions = {
            name: self.client_of(person).cookies.output(header="", sep=";") for name, person in self.roles().items()
        }
        operations = [one.ok() for one in schema.get_all_operations()]
        self.assertGreater(len(operations), 150)
        for operation in operations:
            name = operation.definition.raw["operationId"]
            for mode in (GenerationMode.POSITIVE, GenerationMode.NEGATIVE):
                for role, cookies in sessions.items():
                    with self.subTest(f"{name} {role} {mode.value}"):
                        self.drive(operation, name, mode, role, cookies)
        for role in ("lead", "student"):
            self.assertGreater(self.answered[role, 2], 20, "what fits is taken")
            self.assertGreater(self.answered[role, 4], 20, "what does not is refused")

    def drive(self, operation: Any, name: str, mode: GenerationMode, role: str, cookies: str) -> None:
        @settings(
            max_examples=EXAMPLES,
            derandomize=True,
            database=None,
            deadline=None,
            phases=[Phase.generate],
            suppress_health_check=list(HealthCheck),
        )
        @given(case=operation.as_strategy(generation_mode=mode))
        def run(case: Any) -> None:
            client = Client()
            client.cookies.load(cookies)  # a session that an answer ends is there again for the next
            with transaction.atomic():
                response = self.asked(client, case)
                transaction.set_rollback(True)
            self.judge(response, name, role, case)

        try:
            run()
        except Unsatisfiable:
            return  # there is nothing that does not fit

    def asked(self, client: Client, case: Any) -> HttpResponse:
        path = case.path
        for parameter, value in self.ids.items():
            path = path.replace("{" + parameter + "}", str(value))
        for parameter, value in (case.path_parameters or {}).items():
            path = path.replace("{" + parameter + "}", str(value))
        body = case.body
        more: dict[str, Any] = {}
        if case.media_type == "multipart/form-data" and isinstance(body, dict):
            whole = {
                key: SimpleUploadedFile("card.jpg", one) if isinstance(one, bytes) else one for key, one in body.items()
            }
            fits = all(isinstance(one, (SimpleUploadedFile, str, int)) for one in whole.values())
            more = {"data": encode_multipart(BOUNDARY, whole), "content_type": MULTIPART_CONTENT} if fits else {}
            more = more or {"data": b"", "content_type": case.media_type}
        elif isinstance(body, (dict, list, str, int, float, bool)) or body is None:
            more = {"data": json.dumps(body), "content_type": case.media_type or "application/json"}
        elif isinstance(body, bytes):
            more = {"data": body, "content_type": case.media_type or "application/octet-stream"}
        query = {key: value for key, value in (case.query or {}).items() if value is not None}
        headers = {key: str(value) for key, value in (case.headers or {}).items() if str(value).isprintable()}
        address = f"{path}?{self.encoded(query)}" if query else path
        return client.generic(case.method, address, headers=headers, **more)

    def encoded(self, query: dict[str, Any]) -> str:
        return urlencode({key: str(value).encode("utf-8", "replace") for key, value in query.items()})

    def judge(self, response: HttpResponse, name: str, role: str, case: Any) -> None:
        told = f"{case.method} {case.path} by {role}: {getattr(response, 'content', b'')[:300]!r}"
        self.answered[role, response.status_code // 100] += 1
        self.assertLess(response.status_code, 500, told)
        if role == "nobody" and name not in FOR_ANYBODY:
            self.assertGreaterEqual(response.status_code, 400, told)
        if role == "foreign lead" and "{" in case.path:
            self.assertGreaterEqual(response.status_code, 400, told)


class Names(SimpleTestCase):
    def test_no_two_shapes_share_a_name(self) -> None:
        """The second would take the first one's place in the document, without a word."""

        def below(of: type) -> Iterator[type]:
            for one in of.__subclasses__():
                yield one
                yield from below(one)

        counted = Counter(one.__name__ for one in set(below(Shape)))
        self.assertEqual([name for name, number in counted.items() if number > 1], [])
