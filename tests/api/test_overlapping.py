"""Two hand-ins that collect the same pocket at once: allowed, told before, with what it does to the locks."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from coatpeg.handins.models import HandIn
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)


class Overlapping(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.card, self.menu = self.plot.pocket(), self.plot.pocket("Menu")
        self.ada = self.plot.student("ada", "Ada", "Abel", period="P3")
        self.cyr = self.plot.student("cyr", "Cyr", "Cole", period="P4")
        self.path = f"/groups/{self.plot.group.pk}/handins"

    def told(self, path: str = "", **changes: Any) -> list[str]:
        due = {"day": str(TODAY + 7 * DAY), "at": None}
        plan = {"title": "Whole", "pockets": [self.card.pk, self.menu.pk], "opens": str(TODAY), "due": due, **changes}
        found = self.ok(self.lead, "POST", f"{path or self.path}/preview", plan)
        return [one for one in found.get("preview", found)["warnings"] if "collects" in one or "more hand-in" in one]

    def test_the_pocket_the_other_hand_in_and_the_locks_are_named(self) -> None:
        self.plot.handin(self.card, title="First look", opens=TODAY, due=TODAY + 2 * DAY)
        [line] = self.told()
        self.assertTrue(line.startswith("“First look” collects “Recipe card” too while this is open."), line)
        self.assertIn("What is handed in for one is locked for both", line)
        self.assertNotIn("What is handed in for one", self.told(again=True)[0], "then it locks once it is due")

    def test_what_it_says_of_the_locks_is_so(self) -> None:
        one = self.plot.handin(self.card, title="First look", opens=TODAY, due=TODAY + 2 * DAY)
        other = self.plot.handin(self.card, title="Whole", opens=TODAY, due=TODAY + 7 * DAY)
        builders.fill(self.ada, self.card)
        first = builders.hand_in(self.ada, one, NOW)

        def pocket() -> Any:
            return self.ok(self.ada.enrolment.person, "GET", f"/portfolios/{self.ada.pk}/pockets/{self.card.pk}")

        self.assertFalse(pocket()["writable"])
        builders.hand_in(self.ada, other, NOW)
        builders.mark(self.lead, first, NOW, accept=False)
        self.assertTrue(pocket()["writable"], "sent back, it is open though the other one stands")

    def test_not_where_it_is_over_away_a_draft_or_for_others(self) -> None:
        p4 = {"for_everyone": False, "periods": [{"period": self.plot.period("P4").pk, "asked": True}]}
        self.plot.handin(self.card, title="Over", opens=TODAY - 9 * DAY, due=TODAY - DAY)
        self.plot.handin(self.card, title="Later", opens=TODAY + 8 * DAY, due=TODAY + 9 * DAY)
        self.plot.handin(self.card, title="For P3", opens=TODAY, due=TODAY + DAY, periods=("P3",))
        away = self.plot.handin(self.card, title="Away", opens=TODAY, due=TODAY + DAY)
        draft = self.plot.handin(self.card, title="Draft", opens=TODAY, due=TODAY + DAY)
        HandIn.objects.filter(pk=away.pk).update(taken_away_at=NOW)
        HandIn.objects.filter(pk=draft.pk).update(draft=True)
        self.assertEqual(self.told(**p4), [])
        self.assertEqual(len(self.told()), 1, "whoever is in P3 is asked for both")

    def test_changed_it_is_not_told_of_itself_and_of_many_three_are_named(self) -> None:
        mine = self.plot.handin(self.card, title="Mine", opens=TODAY, due=TODAY + DAY)
        path = f"{self.path}/{mine.pk}"
        self.assertEqual(self.told(path), [])
        for number in range(5):
            self.plot.handin(self.card, title=f"Look {number}", opens=TODAY, due=TODAY + (2 + number) * DAY)
        lines = self.told(path)
        self.assertEqual([line.split("”")[0] for line in lines[:3]], ["“Look 0", "“Look 1", "“Look 2"])
        self.assertEqual(lines[3:], ["So do 2 more hand-ins."])
