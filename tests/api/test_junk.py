"""Junk to every operation: whatever comes, the answer is a clear no or a yes, never a crash.

Bodies are made from the OpenAPI document: each field gets its own kind of value or one that has no business there.
The draws come from a fixed seed, so that a failure can be seen again.
"""

from __future__ import annotations

import json
import random
from typing import Any

from django.test import Client

from coatpeg.web.api import api
from tests import builders
from tests.api.case import ApiCase
from tests.api.test_policy import things
from tests.builders import klass

ROUNDS = 12
JUNK: list[Any] = [
    None, "", " ", "x", "x" * 6_000, "\x00", "\u202eabc", "🧥", "=1+1", "<b>", "../../etc", "2026-02-31", "2026-11-04",
    "25:99", "1e309", -1, 0, 1, 2**31, 2**63, 2**70, 1.5, -0.0, True, [], {}, [None], [[]], {"a": 1}, [1, 1], ["name", "name"],
]  # fmt: skip
UPLOADS = {
    "add_file",
    "add_handin_file",
    "read_calendar_file",
    "read_list_file",
    "speak_annotation",
    "bring_annotations",
    "put_file_in_cupboard",
}
FILES = (
    b"",
    b"\x00",
    b"PK\x03\x04",
    b"\xff\xd8\xff",
    b"BEGIN:VCALENDAR\r\n",
    b'{"items": [{"target": {"selector": [[], {"type": 3}]}, "body": [7, {"value": "x"}]}]}',
    b"a;b\nc;d",
    "ä;\U0001f9e5".encode("utf-16"),
)


class Documented(ApiCase):
    """The things of one class, with our OpenAPI document and the ids by the names of its parameters."""

    @classmethod
    def setUpTestData(cls) -> None:
        cls.own = things("8 Plot", "own")
        caseload = klass("Caseload", "coordinator", "caseload")
        builders.Enrolment.objects.create(
            group=caseload.group, person=cls.own.portfolio.enrolment.person, first=caseload.group.first, picture="leaf"
        )
        cls.caseload = caseload.group.pk
        caseload.template.delete()  # as a caseload that was started has none
        cls.people = [
            cls.own.of.lead,
            cls.own.portfolio.enrolment.person,
            caseload.lead,
            builders.person("admin", administrator=True),
        ]
        cls.document = api.get_openapi_schema()

    def setUp(self) -> None:
        super().setUp()
        self.dealer = random.Random(20261104)
        own = self.own
        self.ids = {
            "group_id": own.of.group.pk,
            "deed": "a-deed",
            "ending": "csv",
            "name": "a-series",
            "portfolio_id": own.portfolio.pk,
            "pocket_id": own.page.pk,
            "handin_id": own.handin.pk,
            "enrolment_id": own.portfolio.enrolment_id,
            "submission_id": own.submission.pk,
            "evidence_id": own.evidence.pk,
            "artefact_id": own.evidence.artefact_id,
            "section_id": own.of.section.pk,
            "adjustment_id": own.adjustment.pk,
            "person_id": own.of.lead.pk,
            "change_id": own.change,
            "taken_away_id": own.taken,
            "row_id": own.row.pk,
            "drop_id": own.drop.pk,
            "mail_id": own.mail.pk,
            "filter_id": own.kept.pk,
            "phrase_id": own.phrase.pk,
            "annotation_id": own.annotation.pk,
            "answer_id": own.answer.pk,
            "note_id": own.note.pk,
            "class_note_id": own.class_note.pk,
            "item_id": own.item.pk,
            "copy_id": own.copy.pk,
            "given_id": own.given_out.pk,
            "shared_id": own.together.pk,
            "set_id": own.nobodys.of_id,
            "working_group_id": own.nobodys.pk,
            "passage_id": own.passage.pk,
            "moment_id": own.moment.pk,
            "file_id": own.given.pk,
            "page_id": own.loose.pk,
            "size": "small",
            "key": own.upload.key,
            "request_id": own.asked.pk,
            "comment_id": own.comment.pk,
            "revision_id": own.revision.pk,
            "shown_id": own.shown.pk,
            "together_id": 1,
            "number": 1,
        }


class Junk(Documented):
    def value(self, schema: dict[str, Any]) -> Any:
        """A value of the kind a field takes, or (one time in three) one that has no business there."""
        if self.dealer.random() < 0.33:
            return self.dealer.choice(JUNK)
        options = schema.get("anyOf")
        if options:
            return self.value(self.dealer.choice(options))
        if "$ref" in schema:
            return self.body(self.document["components"]["schemas"][schema["$ref"].split("/")[-1]])
        if "enum" in schema or "const" in schema:
            return self.dealer.choice(schema.get("enum") or [schema["const"]])
        kind = schema.get("type")
        if kind == "array":
            return [self.value(schema.get("items", {})) for _ in range(self.dealer.randrange(4))]
        if kind in ("integer", "number"):
            return self.dealer.choice([0, 1, 3, 100, *self.ids_alone()])
        if kind == "boolean":
            return self.dealer.random() < 0.5
        if schema.get("format") == "date":
            return self.dealer.choice(["2026-11-04", "2026-12-18", "1900-01-01", "9999-12-31"])
        return self.dealer.choice(["Recipe card", "Dube, Thandi", "12:30", "https://plants.example", "Europe/London"])

    def ids_alone(self) -> list[int]:
        return [one for one in self.ids.values() if isinstance(one, int)]

    def body(self, schema: dict[str, Any]) -> dict[str, Any]:
        """A body of a schema: most of its fields."""
        fields = schema.get("properties", {})
        return {name: self.value(of) for name, of in fields.items() if self.dealer.random() < 0.85}

    def path(self, template: str) -> str:
        """An address with ids that are there, or (one time in five) with one that is not."""
        ids = {name: 987_654 if self.dealer.random() < 0.2 else pk for name, pk in self.ids.items()}
        if self.dealer.random() < 0.25:
            ids["group_id"] = self.caseload
        return template.format(**ids)

    def send(self, client: Client, method: str, path: str, operation: dict[str, Any]) -> Any:
        if operation["operationId"] in UPLOADS:
            name = self.dealer.choice(("card.jpg", "list.xlsx", "days.ics", "a/b\\c.csv"))
            return client.post(path, {"file": builders.ContentFile(self.dealer.choice(FILES), name=name)})
        if "/uploads" in path and not path.endswith("/settle"):
            return self.part(client, method, path)
        content = operation.get("requestBody", {}).get("content", {}).get("application/json")
        if content is None:
            return getattr(client, method)(path)
        body = self.body(self.document["components"]["schemas"][content["schema"]["$ref"].split("/")[-1]])
        return getattr(client, method)(path, data=json.dumps(body), content_type="application/json")

    def part(self, client: Client, method: str, path: str) -> Any:
        """A request of the tus protocol with headers that fit, or do not."""
        pick = self.dealer.choice
        numbers = ("0", "5", "-1", "1e3", "", "99999999999999999999", str(2**40))
        headers = {
            "Tus-Resumable": pick(("1.0.0", "1.0.0", "1.0.0", "0.2.2", "")),
            "Upload-Length": pick(numbers),
            "Upload-Offset": pick(numbers),
            "Upload-Metadata": pick(
                ("", "name YQ==", "portfolio MQ==,pocket eA==", "x", "turn OTE=", "batch Lg==,places MTAw")
            ),
        }
        if method != "patch":
            return getattr(client, method)(path, headers=headers)
        body = pick(("application/offset+octet-stream", "application/json", "text/plain"))
        return client.patch(path, data=pick((b"", b"12", b"x" * 40)), content_type=body, headers=headers)

    def test_every_operation_answers_junk_with_a_yes_or_a_clear_no(self) -> None:
        clients = [self.client_of(one) for one in self.people]
        for template, operations in self.document["paths"].items():
            for method, operation in operations.items():
                if operation["operationId"] == "sign_out":
                    continue
                for _ in range(ROUNDS):
                    path = self.path(template)
                    response = self.send(self.dealer.choice(clients), method, path, operation)
                    with self.subTest(f"{operation['operationId']} {path}"):
                        self.assertLess(response.status_code, 500)
                        if response.status_code >= 400:
                            self.assertEqual(
                                response["Content-Type"], "application/problem+json", response.content[:200]
                            )
                            if method != "head":  # whose answer has no body
                                found = response.json()
                                self.assertTrue(found["title"] and found["fix"], found)

    def test_bodies_that_are_no_json_and_addresses_that_are_no_numbers(self) -> None:
        client = self.client_of(self.own.of.lead)
        group = self.own.of.group.pk
        for body in (b"", b"{", b"[]", b"null", b'"x"', b"\xff\xfe", b"[" * 50_000):
            response = client.post(f"/api/groups/{group}/roster/preview", data=body, content_type="application/json")
            self.assertIn(response.status_code, (400, 422), response.content[:200])
        for path in ("/api/groups/x/pegs", "/api/groups/-1/pegs", f"/api/groups/{2**70}/pegs", "/api/groups/1.5/pegs"):
            self.assertIn(client.get(path).status_code, (404, 422), path)
