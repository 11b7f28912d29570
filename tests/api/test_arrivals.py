"""The list of what came in: which, in which order, with what of it, a page at a time."""

from datetime import timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.marking.arrivals import PAGE
from coatpeg.marking.arrivals_shapes import ArrivalsShape
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass

QUERIES = 16
"""Statements of one page, session and person among them."""


class Arrivals(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card, self.about = self.plot.pocket(), self.plot.pocket("About me", "page")
        self.thandi = self.plot.student("thandi", period="P3", first=TODAY - timedelta(days=30))
        self.josh = self.plot.student(None, "Josh", "Ellery", first=TODAY - timedelta(days=30))
        opens, due = TODAY - timedelta(days=20), TODAY - timedelta(days=1)
        self.handin = self.plot.handin(self.card, title="Recipe card", opens=opens, due=due, points=30)
        self.menu = self.plot.handin(self.about, title="Menu", opens=opens)
        builders.fill(self.thandi, self.card)
        self.first = builders.hand_in(self.thandi, self.handin, NOW - timedelta(days=3))
        self.late = builders.hand_in(self.josh, self.handin, NOW - timedelta(hours=2), even_if_empty=True)
        self.path = f"/groups/{self.plot.group.pk}/arrivals"

    def found(self, person: Any = None, **body: object) -> dict[str, Any]:
        base = {
            "students": [self.thandi.enrolment_id, self.josh.enrolment_id],
            "handins": [self.handin.pk, self.menu.pk],
        }
        found: dict[str, Any] = self.ok(person or self.plot.lead, "POST", self.path, {**base, **body})
        return found

    def numbers(self, **body: object) -> list[int]:
        return [one["submission"] for one in self.found(**body)["lines"]]

    def test_the_answer_has_the_shape_it_promises(self) -> None:
        ArrivalsShape.model_validate(self.found(), extra="forbid")

    def test_newest_first_or_as_the_pegs_stand(self) -> None:
        self.assertEqual(self.numbers(), [self.late.pk, self.first.pk])
        self.assertEqual(self.numbers(order="board"), [self.first.pk, self.late.pk])
        self.assertEqual(self.numbers(handins=[self.menu.pk]), [])
        self.assertEqual(self.numbers(students=[self.josh.enrolment_id, 987654]), [self.late.pk])

    def test_what_lies_in_it_when_it_came_and_the_first_words(self) -> None:
        empty, full = self.found()["lines"]
        self.assertEqual((empty["late"], empty["late_days"], empty["empty"], empty["words"]), (True, 1, True, ""))
        self.assertEqual((full["late"], full["student"]["period"], full["points"]), (False, "P3", 30.0))
        self.assertEqual([one["title"] for one in full["artefacts"]], ["card.jpg"])
        self.assertTrue(full["words"].startswith("One thing."))

    def test_the_newest_that_stands_and_only_what_stands_so(self) -> None:
        builders.mark(self.plot.lead, self.first, accept=False)
        again = builders.hand_in(self.thandi, self.handin, NOW, seen=1)
        self.assertEqual(self.numbers(), [again.pk, self.late.pk])
        builders.mark(self.plot.lead, again)
        self.assertEqual(self.numbers(statuses=["accepted"]), [again.pk])
        self.assertEqual(self.numbers(statuses=["handed_in"], late=True), [self.late.pk])
        self.assertEqual(self.numbers(statuses=["sent_back"]), [])
        excused = f"/handins/{self.handin.pk}/students/{self.josh.enrolment_id}/excused"
        self.ok(self.plot.lead, "PUT", excused, {"excused": True})
        self.assertEqual(self.numbers(), [again.pk])

    def test_a_draft_is_its_marker_s_own_and_an_observer_has_none(self) -> None:
        body = {"feedback": "", "score": 12, "version": 0}
        self.ok(self.plot.lead, "PUT", f"/submissions/{self.first.pk}/draft", body)
        draft = self.found()["lines"][1]["draft"]
        self.assertEqual((draft["score"], draft["version"]), (12.0, 1))
        other = self.found(self.plot.staff("marsh", Role.MARKER))["lines"][1]["draft"]
        self.assertEqual((other["score"], other["version"]), (None, 0))
        self.assertIsNone(self.found(self.plot.staff("whit", Role.OBSERVER))["lines"][1]["draft"])

    def test_a_page_at_a_time_with_as_many_statements_however_much_came(self) -> None:
        client = self.client_of(self.plot.lead)
        students = [self.thandi.enrolment_id, self.josh.enrolment_id]
        asked = {"students": students, "handins": [self.handin.pk], "order": "board"}

        def statements() -> dict[str, Any]:
            with self.assertNumQueries(QUERIES):
                return dict(client.post(f"/api{self.path}", asked, content_type="application/json").json())

        client.post(f"/api{self.path}", asked, content_type="application/json")  # reads the calendar too
        self.assertEqual(len(statements()["lines"]), 2)
        more = [self.plot.student(None, f"S{at:02}", "Blom", first=TODAY - timedelta(days=30)) for at in range(PAGE)]
        for one in more:
            builders.hand_in(one, self.handin, NOW - timedelta(days=2), even_if_empty=True)
        ids = [one.enrolment_id for one in more]
        asked["students"] = ids
        self.assertEqual(len(statements()["lines"]), PAGE)
        page = self.found(students=[*ids, self.thandi.enrolment_id])
        self.assertEqual((len(page["lines"]), page["total"], page["next"]), (PAGE, PAGE + 1, PAGE))
        rest = self.found(students=[*ids, self.thandi.enrolment_id], start=PAGE)
        self.assertEqual(([one["submission"] for one in rest["lines"]], rest["next"]), ([self.first.pk], None))
        self.assertEqual(self.found(start=500)["lines"], [])

    def test_the_student_and_another_class_are_strangers(self) -> None:
        body = {"students": [self.thandi.enrolment_id], "handins": [self.handin.pk]}
        self.problem(403, self.thandi.enrolment.person, "POST", self.path, body)
        forge = klass("9 Forge", "forge")
        self.problem(404, forge.lead, "POST", self.path, body)
        elsewhere = self.ok(forge.lead, "POST", f"/groups/{forge.group.pk}/arrivals", body)
        self.assertEqual((elsewhere["lines"], elsewhere["total"]), ([], 0))
