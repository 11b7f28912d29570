"""Handing in, marking, sending back, excusing: one story after another, and their history."""

from datetime import UTC, date, datetime, time, timedelta

from coatpeg.events.models import Event
from coatpeg.handins.handing.records import rebuild
from coatpeg.handins.models import HandIn, KeptFacts, OwnDue, Submission
from coatpeg.people.models import Adjustment
from coatpeg.portfolios.models import Evidence
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass

HOUR = timedelta(hours=1)


class HandInCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.lead = self.plot.lead
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi", period="P3")
        self.person = self.thandi.enrolment.person
        self.handin = self.plot.handin(self.card)

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [], "what is kept is what the events give")

    def press(self, seen: int = 0, **more: bool) -> dict:
        path = f"/portfolios/{self.thandi.pk}/handins/{self.handin.pk}/submissions"
        return self.ok(self.person, "POST", path, {"seen": seen, **more})

    def refused(self, status: int, seen: int = 0) -> dict:
        path = f"/portfolios/{self.thandi.pk}/handins/{self.handin.pk}/submissions"
        return self.problem(status, self.person, "POST", path, {"seen": seen})

    def cell(self) -> dict:
        return self.pegs(self.lead, self.plot.group.pk)["students"][0]["cells"][0]

    def mark(self, submission: int, how: str, status: int = 200, **body: object) -> dict:
        response = self.call(self.lead, "POST", f"/submissions/{submission}/{how}", {"feedback": "Look again.", **body})
        self.assertEqual(response.status_code, status, response.content[:300])
        return response.json() if response.content else {}


class HandingIn(HandInCase):
    def test_it_freezes_gives_a_receipt_and_locks(self) -> None:
        builders.fill(self.thandi, self.card)
        made = self.press()
        self.assertRegex(made["receipt"], r"^[A-Z]\d-[A-Z]+-\d\d$")
        submission = Submission.objects.get()
        self.assertEqual(submission.snapshot["pockets"][0]["evidence"][0]["text"], "One thing. Another thing.")
        opened = self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}/pockets/{self.card.pk}")
        self.assertEqual((opened["writable"], opened["locked_by"][0]["title"]), (False, "Recipe card"))
        self.assertEqual(self.cell()["status"], "handed_in")

    def test_a_second_press_is_told_of_the_first(self) -> None:
        builders.fill(self.thandi, self.card)
        made = self.press()
        for seen in (0, 1):
            found = self.refused(409, seen)
            self.assertEqual((found["receipt"], found["submission"]), (made["receipt"], made["id"]))
        self.assertEqual(Submission.objects.count(), 1)

    def test_nothing_in_it_is_asked_once_and_flagged(self) -> None:
        self.assertTrue(self.refused(422)["empty"])
        self.press(even_if_empty=True)
        desk = self.ok(self.lead, "GET", f"/submissions/{Submission.objects.get().pk}")
        self.assertTrue(desk["empty"])

    def test_refused_before_it_opens_when_not_asked_and_when_excused(self) -> None:
        builders.fill(self.thandi, self.card)
        late = self.plot.handin(self.card, title="Later", opens=NOW.date() + timedelta(days=1))
        path = f"/portfolios/{self.thandi.pk}/handins/{late.pk}/submissions"
        self.assertIn("opens on", self.problem(403, self.person, "POST", path, {"seen": 0})["title"])
        self.plot.student("luca", "Luca", "Bianchi", period="P4")
        other = self.plot.handin(self.card, title="P4 only", periods=("P4",))
        path = f"/portfolios/{self.thandi.pk}/handins/{other.pk}/submissions"
        self.assertIn("not asked of you", self.problem(403, self.person, "POST", path, {"seen": 0})["title"])
        excuse = f"/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}/excused"
        self.ok(self.lead, "PUT", excuse, {"excused": True})
        self.assertIn("excused", self.refused(403)["title"])

    def test_taken_back_before_marking_and_handed_in_again_as_number_two(self) -> None:
        builders.fill(self.thandi, self.card)
        first = self.press()
        self.ok(self.person, "POST", f"/submissions/{first['id']}/take-back")
        self.assertEqual(self.cell()["status"], "working")
        self.problem(409, self.person, "POST", f"/submissions/{first['id']}/take-back")
        self.assertEqual(self.press(1)["number"], 2)

    def test_taken_back_until_it_is_due_for_them_or_has_closed_where_the_hand_in_lets_them(self) -> None:
        builders.fill(self.thandi, self.card)
        back = f"/submissions/{self.press()['id']}/take-back"

        def may() -> bool:
            opened = self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}/pockets/{self.card.pk}")
            return bool(opened["handins"][0]["take_back"])

        self.assertTrue(may())
        HandIn.objects.update(take_back=False)
        self.assertFalse(may())
        self.assertIn("stands.", self.problem(403, self.person, "POST", back)["title"])
        HandIn.objects.update(take_back=True, closes_day=NOW.date() - timedelta(days=1))
        self.assertFalse(may())
        self.assertIn("stands.", self.problem(403, self.person, "POST", back)["title"])
        HandIn.objects.update(closes_day=None)
        due = self.handin.due_day
        assert due is not None
        with self.at(datetime.combine(due, time(23, 59, 59, 900_000), tzinfo=UTC)):
            self.assertTrue(may(), "in the due second")
        with self.at(datetime.combine(due + timedelta(days=20), time(9), tzinfo=UTC)):
            self.assertFalse(may())
            told = self.problem(403, self.person, "POST", back)
            self.assertIn("stands, now that it is due", told["title"])
            OwnDue.objects.create(handin=self.handin, enrolment=self.thandi.enrolment, day=due + timedelta(days=21))
            self.assertTrue(may(), "their own due date is later")
            HandIn.objects.update(taken_away_at=NOW)
            self.ok(self.person, "POST", back)
        HandIn.objects.update(taken_away_at=None)
        self.assertEqual(self.cell()["status"], "working")

    def test_links_are_frozen_by_their_address_and_it_is_said(self) -> None:
        path = f"/portfolios/{self.thandi.pk}/pockets/{self.card.pk}/links"
        self.ok(self.person, "POST", path, {"link": "https://plants.example"})
        self.assertEqual(self.press()["links"], 1)

    def test_late_by_school_days_and_on_time_in_the_due_second(self) -> None:
        builders.fill(self.thandi, self.card)
        due = datetime(2026, 11, 6, 23, 59, 59, 900_000, tzinfo=UTC)
        with self.at(due):
            self.press()
            self.assertFalse(self.cell()["late"])
        Adjustment.objects.all().delete()
        self.ok(self.person, "POST", f"/submissions/{Submission.objects.get().pk}/take-back")
        with self.at(datetime(2026, 11, 10, 9, tzinfo=UTC)):
            self.press(1)
            self.assertEqual((self.cell()["late"], self.cell()["late_days"]), (True, 2))
            builders.day_off(date(2026, 11, 9), "Snow")
            self.assertEqual(self.cell()["late_days"], 1, "a changed calendar re-derives at once")
            Adjustment.objects.create(person=self.person, extra_days=3, first=date(2026, 9, 1))
            self.assertFalse(self.cell()["late"], "an adjustment re-derives at once")


class Marking(HandInCase):
    def setUp(self) -> None:
        super().setUp()
        self.evidence = builders.fill(self.thandi, self.card)
        self.first = self.press()["id"]

    def test_accepted_stays_locked_and_the_student_reads_the_feedback(self) -> None:
        self.mark(self.first, "accept", feedback="Clear scaling.", score=21)
        self.assertEqual(self.cell()["status"], "accepted")
        feedback = self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}/feedback")[0]
        self.assertEqual((feedback["feedback"], feedback["score"], feedback["points"]), ("Clear scaling.", 21, 30))
        with self.assertRaises(Exception):  # noqa: B017 - any refusal will do; the reason is tested elsewhere
            builders.reflect(self.evidence, "Changed.")

    def test_sent_back_unlocks_and_both_submissions_stay_readable(self) -> None:
        self.mark(self.first, "send-back", score=10)
        builders.reflect(self.evidence, "Better now. Much better.")
        second = self.press(1)
        texts = [
            self.ok(self.person, "GET", f"/submissions/{number}")["pockets"][0]["evidence"][0]["text"]
            for number in (self.first, second["id"])
        ]
        self.assertEqual(texts, ["One thing. Another thing.", "Better now. Much better."])
        self.assertNotEqual(second["receipt"], Submission.objects.get(pk=self.first).receipt)
        self.assertEqual(self.cell()["status"], "handed_in")

    def test_drafts_are_never_shown_to_students(self) -> None:
        self.ok(self.lead, "PUT", f"/submissions/{self.first}/draft", {"feedback": "Hmm.", "score": 3, "version": 0})
        desk = self.ok(self.person, "GET", f"/submissions/{self.first}")
        self.assertEqual((desk["draft"], desk["outcomes"], desk["same_files"]), (None, [], []))
        self.assertEqual(self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}/feedback"), [])
        self.assertEqual(self.ok(self.lead, "GET", f"/submissions/{self.first}")["draft"]["feedback"], "Hmm.")

    def test_one_draft_in_two_windows_keeps_both_texts(self) -> None:
        path = f"/submissions/{self.first}/draft"
        self.ok(self.lead, "PUT", path, {"feedback": "One.", "version": 0})
        found = self.problem(409, self.lead, "PUT", path, {"feedback": "Two.", "version": 0})
        self.assertEqual((found["feedback"], found["version"]), ("One.", 1))
        self.assertEqual(self.mark(self.first, "accept", 409, feedback="Three.", version=0)["feedback"], "One.")

    def test_an_outcome_names_the_newest_submission_or_is_refused(self) -> None:
        self.mark(self.first, "send-back")
        self.assertIn("already sent back", self.mark(self.first, "accept", 409)["title"])
        self.press(1)
        self.assertIn("no longer the newest", self.mark(self.first, "accept", 409)["title"])

    def test_scores_that_do_not_fit_are_refused_and_nothing_is_released(self) -> None:
        for score in (31, -1, 20.5):
            self.mark(self.first, "accept", 422, score=score)
        self.mark(self.first, "accept", 422, score="many")
        self.assertEqual(self.cell()["status"], "handed_in")

    def test_reopened_goes_back_on_the_pile_and_hides_the_mark(self) -> None:
        self.mark(self.first, "send-back", feedback="Too hasty.")
        self.ok(self.lead, "POST", f"/submissions/{self.first}/reopen")
        self.assertEqual(self.cell()["status"], "handed_in")
        self.assertEqual(self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}/feedback"), [])
        desk = self.ok(self.lead, "GET", f"/submissions/{self.first}")
        self.assertTrue(desk["outcomes"][0]["voided_at"], "staff still see it in the history")
        self.assertEqual(desk["draft"]["feedback"], "Too hasty.")
        self.problem(403, self.person, "DELETE", f"/evidence/{self.evidence.pk}")

    def test_excused_after_handing_in_leaves_the_pile_and_stays_readable(self) -> None:
        path = f"/handins/{self.handin.pk}/students/{self.thandi.enrolment_id}/excused"
        self.ok(self.lead, "PUT", path, {"excused": True})
        self.assertEqual(self.ok(self.lead, "GET", f"/groups/{self.plot.group.pk}/pile")["waiting"], [])
        self.ok(self.person, "GET", f"/submissions/{self.first}")
        self.assertIn("excused", self.mark(self.first, "accept", 409)["title"])
        self.ok(self.lead, "PUT", path, {"excused": False})
        self.assertEqual(self.cell()["status"], "handed_in")
        self.problem(403, self.person, "DELETE", f"/evidence/{self.evidence.pk}")

    def test_sent_back_with_a_new_due_date(self) -> None:
        self.assertIn("passed", self.mark(self.first, "send-back", 422, due_again="2026-11-01")["title"])
        self.mark(self.first, "send-back", due_again="2026-11-09")
        work = self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}/worklist")["to_do"][0]
        self.assertEqual(work["due_again"], "2026-11-09T23:59:59Z")
        with self.at(datetime(2026, 11, 10, tzinfo=UTC)):
            self.assertTrue(self.cell()["overdue"])

    def test_the_same_file_from_two_students_is_shown_to_staff(self) -> None:
        josh = self.plot.student("josh", "Josh", "Ellery")
        builders.add_picture(josh, self.card)
        desk = self.ok(self.lead, "GET", f"/submissions/{self.first}")
        self.assertEqual(desk["same_files"], [{"title": "card.jpg", "student": "Ellery, Josh"}])

    def test_two_hand_ins_that_share_a_pocket(self) -> None:
        log = self.plot.pocket("Crop log", artefacts=1)
        whole = self.plot.handin(self.card, log, title="Whole portfolio")
        builders.hand_in(self.thandi, whole)
        found = self.mark(self.first, "send-back")
        self.assertEqual(found["released"], ["Whole portfolio"], "it says which other locks it opened")
        builders.reflect(self.evidence, "Changed. Twice.")
        pockets = self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}")["pockets"]
        self.assertEqual([pocket["locked"] for pocket in pockets], [False, True])

    def test_kept_facts_can_be_rebuilt_from_events(self) -> None:
        self.mark(self.first, "send-back", due_again="2026-11-09")
        before = list(
            KeptFacts.objects.values("handin_id", "enrolment_id", "first_at", "newest", "outcome", "due_again")
        )
        KeptFacts.objects.update(outcome=None, submissions=7)
        self.assertEqual(len(list(differences())), 1, "a difference is found and told")
        self.assertEqual(rebuild(), 1)
        fields = ("handin_id", "enrolment_id", "first_at", "newest", "outcome", "due_again")
        self.assertEqual(list(KeptFacts.objects.values(*fields)), before)

    def test_the_check_finds_what_was_tampered_with(self) -> None:
        Evidence.objects.update(words=99)
        submission = Submission.objects.get()
        Submission.objects.update(snapshot={**submission.snapshot, "empty": True})
        found = " ".join(differences())
        self.assertIn("counted wrong", found)
        self.assertIn("hash it was handed in with", found)
        Evidence.objects.update(words=self.evidence.words)
        Submission.objects.update(snapshot=submission.snapshot)

    def test_events_can_be_neither_changed_nor_deleted(self) -> None:
        for attempt in (lambda: Event.objects.all().delete(), lambda: Event.objects.update(verb="x")):
            with self.assertRaises(TypeError):
                attempt()
