"""A number for each peg: released points, how much of what is collected is there."""

from __future__ import annotations

from django.db import connection
from django.test.utils import CaptureQueriesContext

from coatpeg.handins.handing import commands as handing
from coatpeg.handins.models import Submission
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY


class Figures(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card, self.menu = self.plot.pocket(artefacts=1), self.plot.pocket("Menu", artefacts=1)
        self.ada, self.bea, self.cyr = (
            self.plot.student(f"s{one}", name, "Abel") for one, name in enumerate(("Ada", "Bea", "Cyr"))
        )
        self.one = self.plot.handin(self.card)
        self.both = self.plot.handin(self.card, self.menu, title="Both", due=TODAY)
        builders.fill(self.ada, self.card)
        builders.fill(self.bea, self.card)
        handing.set_excused(self.lead, self.one.pk, self.cyr.enrolment.pk, NOW, excused=True)

    def figures(self, what: str) -> dict[str, dict[str, float | None]]:
        found = self.ok(self.lead, "GET", f"/groups/{self.plot.group.pk}/pegs/figures?what={what}")
        titles = {self.one.pk: "one", self.both.pk: "both"}
        names = {one.enrolment.pk: one.enrolment.person.given_name for one in (self.ada, self.bea, self.cyr)}
        return {
            names[row["id"]]: dict(zip((titles[one] for one in found["handins"]), row["figures"], strict=True))
            for row in found["rows"]
        }

    def test_points_are_those_released_and_of_what_stands_accepted(self) -> None:
        builders.hand_in(self.ada, self.one)
        submission = Submission.objects.get()
        self.assertEqual(self.figures("points")["Ada"], {"one": None, "both": None})
        builders.mark(self.lead, submission, score=21)
        self.assertEqual(self.figures("points")["Ada"], {"one": 21.0, "both": None})
        self.ok(self.lead, "POST", f"/submissions/{submission.pk}/reopen")
        self.assertEqual(self.figures("points")["Ada"]["one"], None)

    def test_filled_over_the_pockets_that_it_collects(self) -> None:
        found = self.figures("filled")
        self.assertEqual(found["Ada"], {"one": 100.0, "both": 50.0})
        self.assertEqual(found["Cyr"], {"one": None, "both": 0.0}, "excused: nothing is asked")

    def test_what_else_is_refused_and_students_add_no_statement(self) -> None:
        path = f"/groups/{self.plot.group.pk}/pegs/figures?what="
        self.problem(422, self.lead, "GET", path + "names")

        def asked() -> int:
            with CaptureQueriesContext(connection) as statements:
                self.ok(self.lead, "GET", path + "filled")
            return len(statements)

        asked()
        before = asked()
        for number in range(4):
            builders.fill(self.plot.student(f"m{number}", f"M{number}", "More"), self.card)
        self.assertEqual(asked(), before)
