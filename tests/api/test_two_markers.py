"""Two who mark independently: each sees only their own until both are done; they agree, or a lead decides alone."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.marking.models import DraftMark, ReleasedMark
from coatpeg.people.models import Person
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass

LEVELS = [{"key": key, "title": key, "points": points} for key, points in (("low", 0), ("mid", 1), ("high", 2))]
RUBRIC = {
    "levels": LEVELS,
    "criteria": [{"key": one, "title": one.title(), "weight": 1, "says": ["", "", ""]} for one in ("care", "words")],
    "halves": False,
}


class TwoCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.lead = self.plot.lead
        self.marsh = self.plot.staff("marsh", Role.MARKER)
        self.reed = self.plot.staff("reed", Role.CO_TEACHER)
        self.pocket = self.plot.pocket()
        self.book = self.plot.student("thandi")
        self.thandi = self.book.enrolment.person
        self.handin = self.plot.handin(self.pocket, title="Soil")
        builders.fill(self.book, self.pocket)
        self.handed = builders.hand_in(self.book, self.handin)
        self.path = f"/submissions/{self.handed.pk}"
        self.rule_path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/marking"

    def rule(self, **how: bool) -> None:
        body = {"two": True, "blind": False, "version": 0, **how}
        self.ok(self.lead, "PUT", self.rule_path, body)

    def mark(self, person: Person, score: int, feedback: str = "So.") -> None:
        saved = self.ok(person, "PUT", f"{self.path}/draft", {"feedback": feedback, "score": score, "version": 0})
        self.ok(person, "POST", f"{self.path}/draft/done", {"done": True, "version": saved["version"]})

    def desk(self, person: Person) -> Any:
        return self.ok(person, "GET", self.path)

    def pile(self, person: Person) -> list[tuple[int, bool]]:
        found = self.ok(person, "GET", f"/groups/{self.plot.group.pk}/pile")["waiting"]
        return [(one["submission"], one["agree"]) for one in found]


class Independent(TwoCase):
    def test_each_sees_only_their_own_until_both_are_done_and_then_they_agree(self) -> None:
        self.rule()
        self.mark(self.lead, 20, "Careful.")
        # Done, and not on one's own pile; the other sees nothing of it.
        self.assertEqual(self.pile(self.lead), [])
        self.assertEqual(self.pile(self.marsh), [(self.handed.pk, False)])
        two = self.desk(self.marsh)["two"]
        self.assertEqual((two["done"], two["count"], two["marks"]), (False, 1, []))
        self.assertEqual(self.call(self.marsh, "POST", f"{self.path}/accept", {"feedback": ""}).status_code, 403)
        self.assertEqual(self.call(self.lead, "POST", f"{self.path}/accept", {"feedback": ""}).status_code, 403)
        self.mark(self.marsh, 16, "Short.")
        for person in (self.lead, self.marsh):
            self.assertEqual(self.pile(person), [(self.handed.pk, True)])
            marks = self.desk(person)["two"]["marks"]
            self.assertEqual([(one["score"], one["feedback"]) for one in marks], [(20, "Careful."), (16, "Short.")])
        # A third marker is none of the two.
        self.assertEqual(self.pile(self.reed), [])
        self.assertEqual(self.desk(self.reed)["two"]["marks"], [])
        self.assertEqual(self.call(self.reed, "POST", f"{self.path}/draft/done", {"done": True}).status_code, 409)
        self.ok(self.marsh, "POST", f"{self.path}/accept", {"feedback": "Careful, if short.", "score": 18})
        mark = ReleasedMark.objects.get()
        self.assertEqual((mark.score, mark.agreed["alone"]), (18, ""))
        self.assertEqual([one["score"] for one in mark.agreed["marks"]], ["20.0", "16.0"])
        self.assertEqual(mark.outcome.person, self.marsh)
        # What was marked independently stays as it was marked.
        self.assertEqual(sorted(DraftMark.objects.values_list("score", flat=True)), [16, 20])
        (line,) = self.ok(self.thandi, "GET", f"/portfolios/{self.book.pk}/feedback")
        self.assertEqual((line["score"], line["feedback"]), (18, "Careful, if short."))

    def test_a_mark_that_is_done_is_not_changed_and_taken_up_again_only_while_the_other_is_not(self) -> None:
        self.rule()
        self.mark(self.lead, 20)
        body = {"feedback": "No", "score": 1, "version": 1}
        self.assertEqual(self.call(self.lead, "PUT", f"{self.path}/draft", body).status_code, 409)
        self.ok(self.lead, "POST", f"{self.path}/draft/done", {"done": False, "version": 1})
        self.ok(self.lead, "PUT", f"{self.path}/draft", body)
        old = {"done": True, "version": 1}
        self.assertEqual(self.call(self.lead, "POST", f"{self.path}/draft/done", old).status_code, 409)
        self.ok(self.lead, "POST", f"{self.path}/draft/done", {"done": True, "version": 2})
        self.mark(self.marsh, 16)
        again = {"done": False, "version": 2}
        self.assertEqual(self.call(self.lead, "POST", f"{self.path}/draft/done", again).status_code, 403)
        self.assertEqual(Event.objects.filter(verb="mark_done").count(), 4)

    def test_the_lead_alone_decides_without_the_other_and_says_why(self) -> None:
        self.rule()
        self.mark(self.marsh, 16)
        alone = {"feedback": "Fine.", "score": 15, "alone": "M. Reed is ill."}
        self.assertEqual(self.call(self.marsh, "POST", f"{self.path}/accept", alone).status_code, 403)
        self.assertEqual(self.call(self.lead, "POST", f"{self.path}/accept", {**alone, "alone": " "}).status_code, 403)
        self.ok(self.lead, "POST", f"{self.path}/accept", alone)
        self.assertEqual(ReleasedMark.objects.get().agreed["alone"], "M. Reed is ill.")

    def test_what_both_said_on_the_work_goes_out_with_the_agreed_mark(self) -> None:
        self.rule()
        for person, text in ((self.lead, "From the lead"), (self.marsh, "From Marsh"), (self.reed, "From Reed")):
            builders.say(self.handed, person, text)
            # Each by themselves: what the others say is not theirs to see yet.
            seen = self.ok(person, "GET", f"{self.path}/annotations")
            self.assertEqual([one["text"] for one in seen], [text])
        self.mark(self.lead, 20)
        self.mark(self.marsh, 16)
        self.ok(self.lead, "POST", f"{self.path}/accept", {"feedback": "", "score": 18})
        said = self.ok(self.thandi, "GET", f"{self.path}/annotations")
        self.assertEqual([one["text"] for one in said], ["From the lead", "From Marsh"])

    def test_one_marks_where_nobody_said_otherwise_and_again_once_it_is_said(self) -> None:
        self.assertEqual(self.call(self.lead, "POST", f"{self.path}/draft/done", {"done": True}).status_code, 422)
        self.rule()
        stale = {"two": False, "blind": False, "version": 0}
        self.assertEqual(self.call(self.reed, "PUT", self.rule_path, stale).status_code, 409)
        self.assertEqual(self.call(self.marsh, "PUT", self.rule_path, {**stale, "version": 1}).status_code, 403)
        self.ok(self.reed, "PUT", self.rule_path, {**stale, "version": 1})
        self.ok(self.marsh, "POST", f"{self.path}/accept", {"feedback": "", "score": 18})
        self.assertEqual(ReleasedMark.objects.get().agreed, {})


class Blind(TwoCase):
    def test_no_name_and_no_picture_at_the_desk_until_it_is_decided(self) -> None:
        self.rule(two=False, blind=True)
        desk = self.desk(self.marsh)
        self.assertTrue(desk["hidden"])
        named = (self.thandi.family_name, self.thandi.given_name)
        for one in (desk["student"], self.ok(self.marsh, "GET", f"/groups/{self.plot.group.pk}/pile")["waiting"][0]):
            for name in named:
                self.assertNotIn(name, str(one))
            self.assertIn(self.handed.receipt, str(one))
        self.assertEqual((desk["student"]["id"], desk["student"]["picture"]), (0, "leaf"))
        # Its student is not hidden from themselves.
        self.assertIn(self.thandi.family_name, self.desk(self.thandi)["student"]["full_name"])
        self.ok(self.marsh, "POST", f"{self.path}/accept", {"feedback": "", "score": 18})
        self.assertIn(self.thandi.family_name, self.desk(self.marsh)["student"]["full_name"])


class Figures(TwoCase):
    def test_agreement_by_criterion_and_of_the_whole_and_too_few_to_say(self) -> None:
        self.handin.rubric = RUBRIC
        self.handin.save()
        self.rule()
        given = [("low", "low"), ("mid", "low"), ("high", "high"), ("high", "mid")]
        for number in range(12):
            book = self.plot.student(f"s{number}", f"S{number}")
            builders.fill(book, self.pocket)
            handed = builders.hand_in(book, self.handin)
            if number == 9:
                few = self.ok(self.lead, "GET", self.rule_path)
                self.assertEqual((few["criteria"][0]["pairs"], few["criteria"][0]["kappa"]), (9, None))
            for person, level in zip((self.lead, self.marsh), given[number % 4], strict=True):
                path, levels = f"/submissions/{handed.pk}/draft", {"care": [level], "words": [level]}
                saved = self.ok(person, "PUT", path, {"feedback": "", "levels": levels, "version": 0})
                self.ok(person, "POST", f"{path}/done", {"done": True, "version": saved["version"]})
        found = self.ok(self.marsh, "GET", self.rule_path)
        self.assertEqual(found["markers"], sorted([self.lead.full_name, self.marsh.full_name]))
        care, words = found["criteria"]
        self.assertEqual((care["title"], care["units"], care["exact"], care["adjacent"]), ("Care", 12, 0.5, 1))
        # By hand: of 12 pairs 6 agree; marginals 3 6 3 (low mid high: 3, 3, 6) and 6 3 3 give 0.375 by chance.
        expected = (3 * 6 + 3 * 3 + 6 * 3) / 144
        self.assertAlmostEqual(care["kappa"], (0.5 - expected) / (1 - expected), 9)
        self.assertEqual(words["quadratic"], care["quadratic"])
        self.assertIsNotNone(found["whole"]["alpha"])
        self.assertEqual(self.ok(self.lead, "GET", self.rule_path)["criteria"][0]["low"], care["low"])

    def test_a_sample_is_drawn_from_what_was_accepted_the_same_by_the_same_seed(self) -> None:
        for number in range(15):
            book = self.plot.student(f"s{number}", f"S{number}")
            builders.fill(book, self.pocket)
            marker = self.lead if number % 5 else self.marsh
            builders.mark(marker, builders.hand_in(book, self.handin), score=number + 5)
        path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/sample"
        drawn = self.ok(self.reed, "GET", f"{path}?size=6&seed=4")
        self.assertEqual(drawn, self.ok(self.lead, "GET", f"{path}?size=6&seed=4"))
        self.assertEqual({one["by"] for one in drawn}, {self.lead.full_name, self.marsh.full_name})
        self.assertNotIn(self.handed.pk, [one["submission"] for one in drawn])
        self.assertEqual([one["line"]["submission"] for one in drawn], [one["submission"] for one in drawn])
        self.assertEqual({one["line"]["status"] for one in drawn}, {"accepted"})
        for query in ("size=0", "size=x", "seed=-1", "size=99999"):
            self.assertEqual(self.call(self.lead, "GET", f"{path}?{query}").status_code, 422)


class Desks(TwoCase):
    def test_what_another_has_open_is_heard_for_a_little_while(self) -> None:
        path = f"/groups/{self.plot.group.pk}/desks"
        self.assertEqual(self.ok(self.lead, "PUT", path, {"submission": self.handed.pk}), [])
        (other,) = self.ok(self.marsh, "PUT", path, {"submission": None})
        self.assertEqual(other, {"submission": self.handed.pk, "who": self.lead.full_name})
        with self.at(NOW + timedelta(seconds=36)):
            self.assertEqual(self.ok(self.marsh, "PUT", path, {"submission": None}), [])
        self.ok(self.lead, "PUT", path, {"submission": self.handed.pk})
        self.ok(self.lead, "PUT", path, {"submission": 987_654})
        self.assertEqual(self.ok(self.marsh, "PUT", path, {"submission": None}), [])
