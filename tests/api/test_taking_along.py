"""The pegs taken along: what was shown, in its order, to whoever sees the board."""

from __future__ import annotations

import csv
import io
from datetime import timedelta
from typing import Any

from tests import builders
from tests.api.case import ApiCase
from tests.builders import TODAY

DAY = timedelta(days=1)


class Along(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass("8 Plot / 8 Beet")
        card, menu = self.plot.pocket(artefacts=1), self.plot.pocket("Menu", artefacts=1)
        self.books = [
            self.plot.student("zoe", "Zoe", "=Abel", period="P3"),
            self.plot.student("bea", "Bea", "Blom", period="P4"),
            self.plot.student("cyr", "Cyr", "Cole"),
        ]
        self.card = self.plot.handin(card, due=TODAY - 2 * DAY)
        self.menu = self.plot.handin(menu, title="Menu", due=TODAY + DAY)
        builders.fill(self.books[0], card)
        builders.hand_in(self.books[0], self.card)
        self.path = f"/groups/{self.plot.group.pk}/pegs/table"

    def table(self, students: list[int], handins: list[int]) -> list[list[str]]:
        body: dict[str, Any] = {"students": students, "handins": handins, "format": "csv"}
        response = self.call(self.plot.lead, "POST", self.path, body)
        self.assertEqual(response.status_code, 200, response.content[:300])
        self.assertIn("8 Plot", response["Content-Disposition"])
        return list(csv.reader(io.StringIO(response.content.decode("utf-8-sig"), newline="")))

    def test_exactly_what_was_shown_in_its_order(self) -> None:
        bea, zoe = self.books[1].enrolment_id, self.books[0].enrolment_id
        found = self.table([bea, zoe, bea, 99_999], [self.menu.pk, self.card.pk, 99_999])
        self.assertEqual(found[0][-2:], ["Menu (due 2026-11-05)", "Recipe card (due 2026-11-02)"])
        self.assertEqual([row[:3] for row in found[1:]], [["Blom", "Bea", "P4"], ["'=Abel", "Zoe", "P3"]])
        self.assertEqual(found[1][-2:], ["nothing yet", "nothing yet, overdue"])
        self.assertEqual(found[2][-2:], ["nothing yet", "handed in 2026-11-04 10:00, 2 school days late"])
        self.assertEqual(found[2][5], "2026-11-04")

    def test_nothing_of_another_class(self) -> None:
        other = builders.klass("7 Shed", "shed")
        stranger = other.student("cat", "Cat", "Secret")
        theirs = other.handin(other.pocket("Secret"), title="Secret")
        found = self.table([stranger.enrolment_id], [theirs.pk])
        self.assertEqual(len(found), 1)
        self.assertNotIn("Secret", str(found))

    def test_every_format_and_no_other(self) -> None:
        for how, begins in (("xlsx", b"PK"), ("ods", b"PK"), ("csv", b"\xef\xbb\xbf")):
            body = {"students": [self.books[0].enrolment_id], "handins": [], "format": how}
            self.assertTrue(self.call(self.plot.lead, "POST", self.path, body).content.startswith(begins))
        self.problem(422, self.plot.lead, "POST", self.path, {"students": [], "handins": [], "format": "exe"})
