"""The score that goes out: the school's late rule, and a marker's own score with its reason."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from coatpeg.core.handins.snapshots import digest
from coatpeg.events.models import Event
from coatpeg.handins.models import Submission
from coatpeg.marking.models import DraftMark, LateRuling, ReleasedMark
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass
from tests.builders import TODAY as THE_DAY

RUBRIC: dict[str, Any] = {
    "levels": [{"key": "n", "title": "not yet", "points": 0}, {"key": "f", "title": "fully", "points": 4, "low": 1}],
    "criteria": [{"key": "s", "title": "Scaling", "weight": 1, "says": ["", ""]}],
    "halves": False,
}


class Scores(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.admin = builders.person("bright", administrator=True)
        self.plot = klass()
        pocket = self.plot.pocket()
        self.book = self.plot.student("thandi", "Thandi", "Dube")
        other = self.plot.student("josh", "Josh", "Ellery")
        # Due two school days ago: Thandi is late, Josh was in time.
        self.due = next(day for day in (THE_DAY - timedelta(days=at) for at in range(2, 9)) if day.weekday() < 4)
        self.handin = self.plot.handin(pocket, due=self.due, points=20)
        self.late = builders.hand_in(self.book, self.handin, even_if_empty=True)
        in_time = NOW - timedelta(days=9)
        self.in_time = builders.hand_in(other, self.handin, in_time, even_if_empty=True)
        self.days = self.desk()["late_days"]

    def desk(self, of: int | None = None) -> Any:
        return self.ok(self.plot.lead, "GET", f"/submissions/{of or self.late.pk}")

    def rule(self, per_day: float | None, floor: float = 0, version: int = 0) -> Any:
        return self.ok(self.admin, "PUT", "/late-rule", {"per_day": per_day, "floor": floor, "version": version})

    def draft(self, **body: Any) -> Any:
        version = self.desk()["draft"]["version"]
        return self.ok(self.plot.lead, "PUT", f"/submissions/{self.late.pk}/draft", {"version": version, **body})

    def accept(self, of: int | None = None, **body: Any) -> Any:
        version = self.desk(of)["draft"]["version"]
        path = f"/submissions/{of or self.late.pk}/accept"
        return self.ok(self.plot.lead, "POST", path, {"version": version, **body})

    def feedback(self) -> Any:
        return self.ok(self.book.enrolment.person, "GET", f"/portfolios/{self.book.pk}/feedback")[0]

    def test_a_school_day_late_takes_its_share_and_it_is_shown_apart(self) -> None:
        self.assertGreater(self.days, 0)
        self.rule(5, 50)
        draft = self.draft(score=16)
        taken = 16 * (100 - 5 * self.days) / 100
        self.assertEqual((draft["score"], draft["goes_out"], draft["late_days"]), (16, round(taken), self.days))
        self.assertEqual(self.desk()["draft"], draft)
        self.accept(score=16)
        line = self.feedback()
        self.assertEqual((line["score"], line["earned"], line["late_days"]), (round(taken), 16, self.days))
        # What was in time has lost nothing.
        self.accept(self.in_time.pk, score=16)
        mark = ReleasedMark.objects.get(outcome__submission=self.in_time)
        self.assertEqual((mark.score, mark.earned, mark.late_days), (16, 16, 0))

    def test_what_was_released_stays_and_the_next_release_goes_by_the_new_rule(self) -> None:
        self.accept(score=16)
        kept = self.rule(10)
        self.assertEqual(self.feedback()["score"], 16)
        self.ok(self.plot.lead, "POST", f"/submissions/{self.late.pk}/reopen")
        self.accept(score=16)
        self.assertEqual(self.feedback()["score"], round(16 * (100 - 10 * self.days) / 100))
        self.assertIsNone(self.rule(None, version=kept["version"])["per_day"])
        self.assertEqual(self.desk(self.in_time.pk)["draft"]["late_days"], 0)
        self.assertEqual(LateRuling.objects.count(), 2, "each is kept")
        self.assertEqual(Event.objects.filter(verb="late_rule_set").count(), 2)

    def test_released_together_each_goes_by_its_own_days(self) -> None:
        self.rule(10)
        self.draft(score=10)
        body = {"version": 0, "score": 10}
        self.ok(self.plot.lead, "PUT", f"/submissions/{self.in_time.pk}/draft", body)
        self.ok(self.plot.lead, "POST", f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/released", {})
        found = dict(ReleasedMark.objects.values_list("outcome__submission_id", "score"))
        self.assertEqual(found, {self.late.pk: round(10 * (100 - 10 * self.days) / 100), self.in_time.pk: 10})

    def test_an_own_score_needs_a_reason_and_goes_out_as_it_is(self) -> None:
        self.rule(10)
        draft = self.draft(score=16, own_score=15)
        self.assertEqual((draft["goes_out"], draft["late_days"]), (15, 0), "a draft may wait for its reason")
        body = {"score": 16, "own_score": 15, "version": draft["version"]}
        path = f"/submissions/{self.late.pk}/accept"
        self.assertEqual(self.problem(422, self.plot.lead, "POST", path, body)["where"], "why")
        self.accept(score=16, own_score=15, why="  The bus was\nlate. ")
        line = self.feedback()
        self.assertEqual((line["score"], line["earned"], line["late_days"]), (15, 16, 0))
        self.assertEqual(line["why"], "The bus was late.")

    def test_against_a_rubric_too_and_it_does_not_leave_levels_open(self) -> None:
        self.handin.rubric = RUBRIC
        self.handin.save()
        draft = self.draft(levels={"s": ["f", "=2.5"]}, own_score=20, why="Shown at the stove.")
        self.assertEqual((draft["score"], draft["goes_out"]), (13, 20), "20 × 2.5 ÷ 4 = 12.5, half up")
        wrong = {"levels": {}, "own_score": 20, "why": "So.", "version": draft["version"]}
        self.problem(422, self.plot.lead, "POST", f"/submissions/{self.late.pk}/accept", wrong)
        self.accept(levels={"s": ["f", "=2.5"]}, own_score=20, why="Shown at the stove.")
        self.assertEqual((self.feedback()["score"], self.feedback()["earned"]), (20, 13))

    def test_a_student_judges_themselves_and_both_are_shown(self) -> None:
        handin = self.plot.handin(self.plot.pocket("Soil"), title="Soil", points=20)
        handin.rubric = {**RUBRIC, "by_student": True}
        handin.save()
        student, path = self.book.enrolment.person, f"/portfolios/{self.book.pk}/handins/{handin.pk}/submissions"
        body = {"seen": 0, "even_if_empty": True, "judged": {"s": ["f"], "gone": ["f"]}}
        made = self.ok(student, "POST", path, body)
        self.assertEqual(self.desk(made["id"])["judged"], {"s": ["f"]}, "what does not fit is left out")
        frozen = Submission.objects.get(pk=made["id"])
        self.assertEqual(frozen.sha256, digest(frozen.snapshot), "it is frozen with the rest")
        self.accept(made["id"], levels={"s": ["n"]})
        line = self.feedback()
        self.assertEqual((line["judged"], line["levels"]), ({"s": ["f"]}, {"s": ["n"]}))
        # Where the hand-in does not ask for it, nothing is kept.
        other = self.plot.handin(self.plot.pocket("Menu"), title="Menu")
        made = self.ok(student, "POST", path.replace(f"handins/{handin.pk}/", f"handins/{other.pk}/"), body)
        self.assertNotIn("judged", Submission.objects.get(pk=made["id"]).snapshot)

    def test_junk_is_refused_by_its_field(self) -> None:
        for body, where in (
            ({"own_score": 21}, "own_score"),
            ({"own_score": -1}, "own_score"),
            ({"own_score": 2, "why": "x" * 501}, "why"),
        ):
            with self.subTest(where):
                path = f"/submissions/{self.late.pk}/draft"
                problem = self.problem(422, self.plot.lead, "PUT", path, {"version": 0, **body})
                self.assertEqual(problem["where"], where if where == "why" else "score")
        self.assertFalse(DraftMark.objects.exists())
        for body in ({"per_day": 0}, {"per_day": 101}, {"per_day": 5, "floor": -1}):
            with self.subTest(body):
                self.problem(422, self.admin, "PUT", "/late-rule", {"version": 0, **body})
        self.problem(403, self.plot.lead, "PUT", "/late-rule", {"per_day": 5, "version": 0})
        self.rule(5)
        self.problem(409, self.admin, "PUT", "/late-rule", {"per_day": 6, "version": 0})
        seen = self.ok(self.plot.lead, "GET", "/late-rule")
        self.assertEqual((seen["per_day"], seen["may_change"]), (5, False))
