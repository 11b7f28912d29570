"""All that is drafted for a hand-in accepted at one moment, and undone."""

from __future__ import annotations

from datetime import timedelta
from decimal import Decimal
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.handins.handing import records
from coatpeg.handins.models import HandIn, Submission
from coatpeg.marking import commands
from coatpeg.marking.models import ReleasedMark
from coatpeg.notices.models import Notice
from coatpeg.people.models import Person
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass


class Release(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.pocket = self.plot.pocket()
        self.books = [self.plot.student(f"s{at}", f"S{at}", "Dube") for at in range(5)]
        self.handin = self.plot.handin(self.pocket)
        self.handed = [builders.hand_in(one, self.handin, even_if_empty=True) for one in self.books]
        self.path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/released"

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])
        super().tearDown()

    def draft(self, one: Submission, feedback: str, score: int | None, person: Person | None = None) -> None:
        verdict = commands.Verdict(feedback, Decimal(score) if score is not None else None)
        commands.save_draft(person or self.plot.lead, one.pk, verdict, 0, NOW)

    def release(self, **body: bool) -> Any:
        return self.ok(self.plot.lead, "POST", self.path, body)

    def statuses(self) -> list[str]:
        waiting = self.ok(self.plot.lead, "GET", f"/groups/{self.plot.group.pk}/pile")["waiting"]
        left = {one["submission"] for one in waiting}
        return ["waits" if one.pk in left else "done" for one in self.handed]

    def test_what_is_complete_is_accepted_and_the_rest_is_named(self) -> None:
        marsh = self.plot.staff("marsh", Role.MARKER)
        self.draft(self.handed[0], "Well done.", 20)
        self.draft(self.handed[1], "", 12)
        self.draft(self.handed[2], "No points yet.", None)
        self.draft(self.handed[3], "Of another marker.", 9, marsh)
        builders.say(self.handed[0], self.plot.lead, "Look here.")
        builders.say(self.handed[3], self.plot.lead, "Not yet.")
        look = self.release(only_look=True)
        self.assertEqual((look["count"], look["incomplete"], look["deed"]), (2, ["Dube, S2"], ""))
        self.assertEqual(self.statuses(), ["waits"] * 5)
        with self.at(NOW + timedelta(minutes=1)):
            done = self.release()
        self.assertEqual(done["count"], 2)
        self.assertEqual(self.statuses(), ["done", "done", "waits", "waits", "waits"])
        self.assertEqual(sorted(ReleasedMark.objects.values_list("score", flat=True)), [12, 20])
        student = self.books[0].enrolment.person
        (line,) = self.ok(student, "GET", f"/portfolios/{self.books[0].pk}/feedback")
        self.assertEqual((line["kind"], line["feedback"], line["score"]), ("accepted", "Well done.", 20))
        said = self.ok(student, "GET", f"/submissions/{self.handed[0].pk}/annotations")
        self.assertEqual([one["text"] for one in said], ["Look here."])
        self.assertEqual(Notice.objects.filter(what="accepted").count(), 2)
        self.assertEqual(StandingHold.objects.filter(handin_id=self.handin.pk).count(), 5)
        self.assertEqual(self.release()["count"], 0)

    def test_undone_all_wait_again_with_their_drafts(self) -> None:
        for one in self.handed[:3]:
            self.draft(one, "So.", 10)
        done = self.release()
        self.ok(self.plot.lead, "POST", f"/submissions/{self.handed[2].pk}/reopen")
        path = f"/groups/{self.plot.group.pk}/released/{done['deed']}"
        self.assertEqual(self.ok(self.plot.lead, "DELETE", path), {"students": 2, "left": 1})
        self.assertEqual(self.statuses(), ["waits"] * 5)
        desk = self.ok(self.plot.lead, "GET", f"/submissions/{self.handed[0].pk}")
        self.assertEqual((desk["draft"]["feedback"], desk["draft"]["score"]), ("So.", 10))
        self.assertFalse(Notice.objects.filter(what="accepted").exists())
        self.assertEqual(self.release()["count"], 3)

    def test_where_acceptance_opens_the_pockets_again_they_open_and_the_undo_locks_them(self) -> None:
        HandIn.objects.filter(pk=self.handin.pk).update(opens_again=True)
        self.draft(self.handed[0], "So.", 10)
        holds = StandingHold.objects.filter(handin_id=self.handin.pk, portfolio=self.books[0])
        self.assertEqual(holds.count(), 1)
        done = self.release()
        self.assertEqual(holds.count(), 0)
        self.ok(self.plot.lead, "DELETE", f"/groups/{self.plot.group.pk}/released/{done['deed']}")
        self.assertEqual(holds.count(), 1)

    def test_two_markers_are_not_passed_by(self) -> None:
        self.draft(self.handed[0], "So.", 10)
        body = {"two": True, "blind": False, "version": 0}
        self.ok(self.plot.lead, "PUT", f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}/marking", body)
        self.assertEqual(self.call(self.plot.lead, "POST", self.path, {}).status_code, 403)
        self.assertEqual(self.statuses(), ["waits"] * 5)
