"""Views whose number of statements does not grow with hand-ins, submissions, pockets or students."""

from __future__ import annotations

from django.db import connection
from django.test.utils import CaptureQueriesContext

from coatpeg.people.models import Person
from tests import builders
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import klass


class Statements(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.of = klass()
        self.portfolio = self.of.student("thandi")
        self.thandi = self.portfolio.enrolment.person
        self.submission = self.more(1)
        self.views = {
            "to hand in": (self.thandi, f"/portfolios/{self.portfolio.pk}/worklist"),
            "feedback": (self.thandi, f"/portfolios/{self.portfolio.pk}/feedback"),
            "my pockets": (self.thandi, f"/portfolios/{self.portfolio.pk}"),
            "one pocket": (self.thandi, f"/portfolios/{self.portfolio.pk}/pockets/{self.submission[1]}"),
            "pile": (self.of.lead, f"/groups/{self.of.group.pk}/pile"),
            "desk": (self.of.lead, f"/submissions/{self.submission[0]}"),
            "news of a student": (self.thandi, "/notices"),
            "news of staff": (self.of.lead, "/notices"),
            "list of hand-ins": (self.of.lead, f"/groups/{self.of.group.pk}/handins"),
        }

    def more(self, number: int) -> tuple[int, int]:
        """A pocket collected by two hand-ins, one of them sent back and handed in again, one not begun."""
        pocket = self.of.pocket(f"P{number}", artefacts=1)
        handin = self.of.handin(pocket, title=f"H{number}")
        self.of.handin(pocket, title=f"Later {number}")
        builders.fill(self.portfolio, pocket)
        first = builders.hand_in(self.portfolio, handin)
        builders.mark(self.of.lead, first, accept=False)
        builders.reflect(self.portfolio.evidence.filter(pocket=pocket).get(), "More. And more.")
        second = builders.hand_in(self.portfolio, handin, seen=1)
        run_waiting()
        return second.pk, pocket.pk

    def counted(self) -> dict[str, int]:
        found = {}
        for name, (person, path) in self.views.items():
            client = self.client_of(Person.objects.get(pk=person.pk))
            client.get(f"/api{path}")
            with CaptureQueriesContext(connection) as statements:
                self.assertEqual(client.get(f"/api{path}").status_code, 200, name)
            found[name] = len(statements.captured_queries)
        return found

    def test_they_do_not_grow(self) -> None:
        before = self.counted()
        for number in range(2, 7):
            self.more(number)
        builders.hand_in(self.of_another(), self.of.group.handins.get(title="Later 2"), even_if_empty=True)
        run_waiting()
        self.assertEqual(self.counted(), before)
        self.assertTrue(all(one <= 22 for one in before.values()), before)

    def of_another(self) -> builders.Portfolio:
        return self.of.student("sam", "Sam", "Reyes")
