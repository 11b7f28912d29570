"""The sheet of scores: what counts, weights kept and tried, two at once, taken along."""

from datetime import timedelta
from decimal import Decimal
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.handins.asked.setting import plan_of
from coatpeg.handins.handing import commands
from coatpeg.marking.models import SheetRule
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass

EARLY = NOW - timedelta(days=20)


class Sheet(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.lead = self.plot.lead
        self.books = [self.plot.student(f"s{at}", name, "Abel") for at, name in enumerate(("Ada", "Bea", "Cyr"))]
        self.handins = [
            self.plot.handin(self.plot.pocket(title), title=title, due=TODAY - timedelta(days=9), now=EARLY, points=of)
            for title, of in (("Card", 10), ("Menu", 20))
        ]
        self.path = f"/groups/{self.plot.group.pk}/sheet"

    def scored(self, student: int, handin: int, score: int, *, accept: bool = True) -> None:
        done = builders.hand_in(self.books[student], self.handins[handin], even_if_empty=True)
        builders.mark(self.lead, done, score=score, accept=accept)

    def read(self) -> dict[str, Any]:
        found: dict[str, Any] = self.ok(self.lead, "GET", self.path)
        return found

    def totals(self, sheet: dict[str, Any] | None = None) -> list[float | None]:
        return [row["total"] for row in (sheet or self.read())["rows"]]

    def test_what_stands_where_and_what_it_adds_up_to(self) -> None:
        self.scored(0, 0, 8)
        self.scored(0, 1, 15)
        self.scored(1, 0, 5, accept=False)
        builders.hand_in(self.books[1], self.handins[1], even_if_empty=True)
        commands.set_excused(self.lead, self.handins[0].pk, self.books[2].enrolment_id, NOW, excused=True)
        found = self.read()
        self.assertEqual(
            [row["kinds"] for row in found["rows"]],
            [["scored", "scored"], ["sent_back", "not_marked"], ["excused", "missing"]],
        )
        self.assertEqual(self.totals(found), [76.7, None, None])
        card, menu = found["handins"]
        self.assertEqual((card["points"], card["weight"], card["own_weight"]), (10, 10, False))
        self.assertEqual((card["scored"], card["middle"], card["bars"][8]), (1, 80, 1))
        self.assertEqual((menu["low"], menu["middle"], menu["high"]), (75, 75, 75))

    def test_weights_are_tried_kept_and_put_back(self) -> None:
        self.scored(0, 0, 8)
        self.scored(0, 1, 10)
        before = self.read()
        self.assertEqual(self.totals(before)[0], 60)
        card, menu = (one.pk for one in self.handins)
        rule = {"weights": {card: "3", menu: "1"}}
        self.assertEqual(self.totals(self.ok(self.lead, "POST", f"{self.path}/tried", rule))[0], 72.5)
        self.assertEqual(self.read(), before, "nothing is kept of it")
        kept = self.ok(self.lead, "PUT", self.path, {**rule, "version": 0})
        self.assertEqual((self.totals(kept)[0], kept["version"]), (72.5, 1))
        self.assertEqual(self.read(), kept)
        self.assertEqual(Event.objects.filter(verb="sheet_changed").count(), 1)
        best = self.ok(self.lead, "PUT", self.path, {"best": 1, "missing_is_zero": True, "version": 1})
        self.assertEqual(best["rows"][0]["counted"], [True, False])
        self.assertEqual(self.totals(best), [80, 0, 0])
        back = self.ok(self.lead, "PUT", self.path, {"version": 2})
        self.assertEqual({**back, "version": 0}, before)

    def test_two_who_change_it_at_once(self) -> None:
        card = self.handins[0].pk
        self.ok(self.lead, "PUT", self.path, {"weights": {card: "3"}, "version": 0})
        answer = self.call(self.plot.staff("co", Role.CO_TEACHER), "PUT", self.path, {"best": 1, "version": 0})
        self.assertEqual((answer.status_code, answer.json()["where"]), (409, "weights"))
        self.assertEqual(SheetRule.objects.get().weights, {str(card): "3"})

    def test_what_cannot_be_meant_is_refused_and_nothing_is_kept(self) -> None:
        card, menu = (one.pk for one in self.handins)
        for rule, where in (
            ({"weights": {card: "-1"}}, f"weights.{card}"),
            ({"weights": {card: "0", menu: "0"}}, "weights"),
            ({"weights": {card: "1e9"}}, f"weights.{card}"),
            ({"best": 0}, "best"),
        ):
            for method, path in (("POST", f"{self.path}/tried"), ("PUT", self.path)):
                answer = self.call(self.lead, method, path, rule)
                self.assertEqual((answer.status_code, answer.json()["where"]), (422, where), rule)
        self.assertFalse(SheetRule.objects.exists())
        # Of another class's hand-in no weight is kept.
        other = klass("9 Forge", "forge")
        other.student("sam", "Sam", "Reyes")
        theirs = other.handin(other.pocket())
        self.ok(self.lead, "PUT", self.path, {"weights": {theirs.pk: "5"}})
        self.assertEqual(SheetRule.objects.get().weights, {})

    def test_who_may(self) -> None:
        body = {"students": [], "handins": [], "format": "csv"}
        for role in (Role.MARKER, Role.OBSERVER):
            person = self.plot.staff(role.value, role)
            self.ok(person, "GET", self.path)
            self.ok(person, "POST", f"{self.path}/tried", {"best": 1})
            self.assertEqual(self.call(person, "POST", f"{self.path}/table", body).status_code, 200)
            self.assertEqual(self.call(person, "PUT", self.path, {"best": 1}).status_code, 403)
        student = self.books[0].enrolment.person
        for method, path, sent in (
            ("GET", self.path, None),
            ("POST", f"{self.path}/tried", {}),
            ("POST", f"{self.path}/table", body),
            ("PUT", self.path, {}),
        ):
            self.assertEqual(self.call(student, method, path, sent).status_code, 403)

    def test_taken_along_as_it_is_shown(self) -> None:
        self.scored(0, 0, 8)
        ids = [self.books[at].enrolment_id for at in (2, 0)]
        body = {"students": ids, "handins": [one.pk for one in reversed(self.handins)], "format": "csv"}
        answer = self.call(self.lead, "POST", f"{self.path}/table", body)
        self.assertIn("8 Plot scores.csv", answer["Content-Disposition"])
        lines = answer.content.decode("utf-8-sig").splitlines()
        self.assertEqual(
            lines,
            [
                'Family name,Given name,Period,Menu (of 20),Card (of 10),"Total, %"',
                "Abel,Cyr,,missing,missing,",
                "Abel,Ada,,missing,8.0,80.0",
            ],
        )

    def test_a_fixed_number_of_statements(self) -> None:
        client = self.client_of(self.lead)
        client.get(f"/api{self.path}")
        with self.assertNumQueries(14):
            client.get(f"/api{self.path}")
        for number in range(12):
            self.books.append(self.plot.student(f"more{number}", f"More {number}", "Zed"))
            self.scored(len(self.books) - 1, 0, number % 10)
        with self.assertNumQueries(14):
            client.get(f"/api{self.path}")

    def test_points_that_changed_since_leave_a_score_as_it_was(self) -> None:
        self.scored(0, 0, 8)
        plan = plan_of(self.handins[0])
        self.assertEqual(plan.points, Decimal(10))
        type(self.handins[0]).objects.filter(pk=self.handins[0].pk).update(points=Decimal(16))
        found = self.read()
        self.assertEqual((self.totals(found)[0], found["handins"][0]["points"]), (80, 16))
