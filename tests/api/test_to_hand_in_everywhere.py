"""One *To hand in* over all classes of a student."""

from __future__ import annotations

from datetime import timedelta

from django.db import connection
from django.test.utils import CaptureQueriesContext

from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios.models import Portfolio
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, Class

DAY = timedelta(days=1)


class Everywhere(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot, self.crew, self.over = (builders.klass(name, name[:4]) for name in ("8 Plot", "Crew", "Over"))
        self.here = self.plot.student("thandi")
        self.person: Person = self.here.enrolment.person
        self.there, self.left = self.also_in(self.crew), self.also_in(self.over, last=TODAY - DAY)
        self.plot.handin(self.plot.pocket(), title="Here", due=TODAY + 9 * DAY)
        card = self.crew.pocket()
        self.later = self.crew.handin(card, title="Later", due=TODAY + 5 * DAY)
        self.owed = self.crew.handin(card, title="Owed", due=TODAY - DAY)
        self.over.handin(self.over.pocket(), title="Gone by", due=TODAY - 2 * DAY)

    def also_in(self, of: Class, last: object = None) -> Portfolio:
        enrolment = Enrolment.objects.create(
            group=of.group, person=self.person, first=of.group.first, last=last, picture="leaf"
        )
        return Portfolio.objects.create(enrolment=enrolment)

    def test_what_waits_elsewhere_in_one_order_and_nothing_of_a_class_that_was_left(self) -> None:
        found = self.ok(self.person, "GET", f"/portfolios/{self.here.pk}/worklist")
        self.assertEqual([one["title"] for one in found["to_do"]], ["Here"])
        self.assertEqual([one["title"] for one in found["elsewhere"]], ["Owed", "Later"])
        line = found["elsewhere"][0]
        self.assertEqual((line["group"]["title"], line["portfolio"], line["overdue"]), ("Crew", self.there.pk, True))
        builders.fill(self.there, self.crew.pocket("Other"))
        builders.hand_in(self.there, self.owed, NOW, even_if_empty=True)
        found = self.ok(self.person, "GET", f"/portfolios/{self.here.pk}/worklist")
        self.assertEqual([one["title"] for one in found["elsewhere"]], ["Later"])
        found = self.ok(self.person, "GET", f"/portfolios/{self.there.pk}/worklist")
        self.assertEqual([one["title"] for one in found["elsewhere"]], ["Here"])

    def test_a_day_begins_in_the_class_where_something_is_to_be_handed_in_first(self) -> None:
        def home() -> str:
            return str(self.ok(self.person, "GET", "/session")["home"])

        self.assertEqual(home(), f"/g/{self.crew.group.pk}/portfolio/{self.there.pk}")
        for handin in (self.owed, self.later):
            builders.fill(self.there, self.crew.pocket(f"Other {handin.pk}"))
            builders.hand_in(self.there, handin, NOW, even_if_empty=True)
        self.assertEqual(home(), f"/g/{self.plot.group.pk}/portfolio/{self.here.pk}")

    def test_statements_grow_with_classes_and_not_with_hand_ins(self) -> None:
        def counted() -> int:
            with CaptureQueriesContext(connection) as queries:
                self.ok(self.person, "GET", f"/portfolios/{self.here.pk}/worklist")
            return len(queries)

        before = counted()
        for number in range(8):
            self.crew.handin(self.crew.pocket(f"Pocket {number}"), title=f"More {number}", due=TODAY + DAY)
        self.assertLessEqual(counted(), before + 1)
