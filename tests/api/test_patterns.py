"""The patterns of a class over its submissions."""

from datetime import timedelta

from coatpeg.handins.board.classes_shapes import PatternsShape
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass


class Patterns(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        long_ago = TODAY - timedelta(days=40)
        self.thandi = self.plot.student("thandi", first=long_ago)
        self.josh = self.plot.student(None, "Josh", "Ellery", first=long_ago)
        self.plot.student(None, "Gone", "Leaver", first=long_ago, last=TODAY - timedelta(days=1))
        opens = TODAY - timedelta(days=30)
        self.handins = [
            self.plot.handin(self.card, title=title, opens=opens, due=TODAY - timedelta(days=days))
            for title, days in (("First", 20), ("Second", 6))
        ]
        self.plot.handin(self.card, title="Later", opens=TODAY + timedelta(days=3), due=TODAY + timedelta(days=9))
        self.path = f"/groups/{self.plot.group.pk}/patterns"

    def found(self, students: list[int] | None = None) -> dict:
        return self.ok(self.plot.lead, "POST", self.path, {"students": students})

    def test_the_answer_has_the_shape_it_promises(self) -> None:
        PatternsShape.model_validate(self.found(), extra="forbid")

    def test_the_curve_of_each_hand_in_that_is_open_and_who_is_usually_late(self) -> None:
        first, second = self.handins
        builders.hand_in(self.thandi, first, NOW - timedelta(days=21), even_if_empty=True)
        builders.mark(self.plot.lead, self.thandi.enrolment.submissions.get(), NOW - timedelta(days=18))
        builders.hand_in(self.thandi, second, NOW - timedelta(days=7), even_if_empty=True)
        builders.hand_in(self.josh, first, NOW - timedelta(days=16), even_if_empty=True)
        builders.hand_in(self.josh, second, NOW - timedelta(days=1), even_if_empty=True)
        found = self.found()
        self.assertEqual([one["title"] for one in found["handins"]], ["First", "Second"])
        one = found["handins"][0]
        self.assertEqual((one["in"], one["late"]), (2, 1))
        self.assertEqual({point["day"]: point["count"] for point in one["curve"]}[0], 1)
        self.assertEqual(one["curve"][-1], {"day": 7, "count": 2})
        self.assertGreater(one["high"], one["middle"])
        students = {one["given_name"]: one for one in found["students"]}
        self.assertEqual(set(students), {"Thandi", "Josh"})
        self.assertEqual((students["Josh"]["late"], students["Josh"]["usually_late"]), (2, True))
        self.assertFalse(students["Thandi"]["usually_late"])

    def test_they_follow_who_is_shown_and_the_median_stays_the_class_s(self) -> None:
        first = self.handins[0]
        builders.hand_in(self.thandi, first, NOW - timedelta(days=21), even_if_empty=True)
        builders.hand_in(self.josh, first, NOW - timedelta(days=16), even_if_empty=True)
        whole, some = self.found(), self.found([self.josh.enrolment_id, 999_999])
        (one,) = some["students"]
        self.assertEqual(one["given_name"], "Josh")
        self.assertEqual(some["median"], whole["median"])
        asked, came, late = ([found["handins"][0][key] for found in (whole, some)] for key in ("asked", "in", "late"))
        self.assertEqual((came, late), ([2, 1], [1, 1]))
        self.assertEqual((asked[1], asked[0] > 1), (1, True))
        self.assertEqual(some["handins"][0]["curve"][-1]["count"], 1)
        nobody = self.found([])
        self.assertEqual((nobody["students"], nobody["handins"][0]["middle"]), ([], None))

    def test_own_dates_make_nobody_late_and_who_is_excused_is_not_counted(self) -> None:
        first = self.handins[0]
        path = f"/handins/{first.pk}/students/{self.josh.enrolment_id}"
        self.ok(self.plot.lead, "PUT", f"{path}/due", {"day": str(TODAY - timedelta(days=10))})
        builders.hand_in(self.josh, first, NOW - timedelta(days=16), even_if_empty=True)
        self.assertEqual((self.found()["handins"][0]["in"], self.found()["handins"][0]["late"]), (1, 0))
        self.ok(self.plot.lead, "PUT", f"{path}/excused", {"excused": True})
        self.assertEqual(self.found()["handins"][0]["in"], 0)

    def test_expected_by_now_against_the_class(self) -> None:
        builders.fill(self.thandi, self.card)
        found = self.found()
        students = {one["given_name"]: one for one in found["students"]}
        self.assertGreater(students["Thandi"]["share"], 0)
        self.assertEqual(students["Josh"]["share"], 0)
        self.assertAlmostEqual(found["median"], students["Thandi"]["share"] / 2)

    def test_for_the_staff_of_the_class_alone(self) -> None:
        self.problem(403, self.thandi.enrolment.person, "POST", self.path, {})
        self.problem(404, klass("9 Forge", "forge").lead, "POST", self.path, {})
