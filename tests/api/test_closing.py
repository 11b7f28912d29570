"""What a hand-in does by itself once it has closed, and that opening it again takes that back."""

from __future__ import annotations

from datetime import datetime, time, timedelta
from typing import Any
from zoneinfo import ZoneInfo

from coatpeg.handins.handing import records
from coatpeg.handins.many import closing
from coatpeg.handins.models import HandIn, Submission
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)
AFTER = NOW + 2 * DAY


class ClosingHandIn(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card = self.plot.pocket()
        self.ada, self.bea, self.cyr = (
            self.plot.student(f"s{one}", name, "Abel") for one, name in enumerate(("Ada", "Bea", "Cyr"))
        )
        self.handin = self.plot.handin(self.card, due=TODAY)
        builders.fill(self.ada, self.card)
        builders.fill(self.bea, self.card)
        builders.hand_in(self.ada, self.handin)
        self.path = f"/groups/{self.plot.group.pk}/handins/{self.handin.pk}"

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])

    def change(self, **changes: Any) -> None:
        plan = self.ok(self.lead, "GET", self.path)
        self.ok(self.lead, "PUT", self.path, {**plan, **changes})

    def closes(self, how: str) -> None:
        self.change(closes={"day": str(TODAY + DAY), "at": None}, closing=how)
        self.assertFalse(closing.close(self.handin.pk, NOW), "not before it has closed")
        self.assertTrue(closing.close(self.handin.pk, AFTER))
        self.assertFalse(closing.close(self.handin.pk, AFTER), "once is enough")

    def held(self) -> set[str]:
        rows = StandingHold.objects.filter(handin_id=self.handin.pk)
        return set(rows.values_list("portfolio__enrolment__person__given_name", flat=True))

    def statuses(self) -> dict[str, tuple[str, bool]]:
        with self.at(AFTER):
            board = self.pegs(self.lead, self.plot.group.pk)
        return {row["given_name"]: (row["cells"][0]["status"], row["cells"][0]["late"]) for row in board["students"]}

    def test_as_it_stands_takes_in_work_and_nothing_empty_and_says_so(self) -> None:
        self.closes("closed")
        found = self.statuses()
        self.assertEqual(found["Bea"], ("handed_in", True), "it was due the day before it closed")
        self.assertEqual(found["Cyr"], ("empty", False))
        self.assertEqual(self.held(), {"Ada", "Bea"})
        made = Submission.objects.get(enrolment=self.bea.enrolment)
        end = datetime.combine(TODAY + DAY, time(23, 59, 59), tzinfo=ZoneInfo(builders.ZONE))
        self.assertEqual((made.at, made.how, made.by), (end, "closed", None))
        opened = self.ok(self.bea.enrolment.person, "GET", f"/portfolios/{self.bea.pk}/pockets/{self.card.pk}")
        (line,) = opened["handins"][0]["submissions"]
        self.assertEqual((line["for_them"]["how"], line["for_them"]["by"]), ("closed", ""))

    def test_locked_for_everybody_and_open_again_when_it_takes_work_again(self) -> None:
        self.closes("lock_all")
        self.assertEqual(self.held(), {"Ada", "Bea", "Cyr"})
        student = self.bea.enrolment.person
        body = {"text": "More.", "version": 1}
        opened = self.ok(student, "GET", f"/portfolios/{self.bea.pk}/pockets/{self.card.pk}")
        self.problem(403, student, "PUT", f"/evidence/{opened['evidence'][0]['id']}/reflection", body)
        self.assertEqual(self.statuses()["Bea"], ("working", False))
        with self.at(AFTER):
            self.change(closes={"day": str(TODAY + 9 * DAY), "at": None})
            self.assertEqual(self.held(), {"Ada"}, "what was handed in stays locked")
            builders.hand_in(self.bea, self.handin, AFTER)
        self.assertTrue(closing.close(self.handin.pk, NOW + 20 * DAY), "closed again, it is done again")

    def test_only_what_was_handed_in_is_locked(self) -> None:
        self.ok(
            self.lead,
            "POST",
            f"/groups/{self.plot.group.pk}/pockets/{self.card.pk}/locked",
            {"students": [self.ada.enrolment_id], "locked": False},
        )
        self.assertEqual(self.held(), set())
        self.closes("lock_in")
        self.assertEqual(self.held(), {"Ada"})

    def test_nothing_where_nothing_is_asked_for_and_none_without_a_day(self) -> None:
        self.closes_not(closing_word="nothing")
        self.change(closes=None, closing="lock_all")
        self.assertEqual(HandIn.objects.get().closing, "nothing")

    def closes_not(self, closing_word: str) -> None:
        self.change(closes={"day": str(TODAY + DAY), "at": None}, closing=closing_word)
        self.assertFalse(closing.close(self.handin.pk, AFTER))
        self.assertEqual(self.held(), {"Ada"})

    def test_one_that_was_taken_away_does_nothing(self) -> None:
        self.change(closes={"day": str(TODAY + DAY), "at": None}, closing="lock_all")
        self.ok(self.lead, "POST", f"{self.path}/away", {})
        self.assertFalse(closing.close(self.handin.pk, AFTER))
        self.assertEqual(self.held(), set())
