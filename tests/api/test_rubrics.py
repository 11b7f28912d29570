"""Rubrics: set with a hand-in, seen from the start, judged by, and what a released mark keeps of one."""

from datetime import timedelta
from typing import Any

from coatpeg.core.policy import Role
from coatpeg.handins.handing import records
from coatpeg.marking.models import DraftMark, ReleasedMark
from coatpeg.people.models import StaffRole
from tests import builders
from tests.api.case import ApiCase
from tests.builders import TODAY, klass

LEVELS = [
    {"key": key, "title": title, "points": at}
    for at, (key, title) in enumerate((("n", "not yet"), ("p", "partly"), ("f", "fully")))
]
SOUP = {
    "levels": LEVELS,
    "criteria": [
        {"key": "s", "title": "Scaling", "weight": 3, "says": ["", "Half of it", "All of it"]},
        {"key": "c", "title": "Costing", "weight": 2, "says": ["", "", ""]},
    ],
    "halves": False,
}
ALL = {"s": ["f"], "c": ["p"]}


class Rubrics(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead, self.marker = self.plot.lead, self.plot.staff("marsh", Role.MARKER)
        self.card = self.plot.pocket()
        self.book = self.plot.student("thandi")
        self.thandi = self.book.enrolment.person
        self.task = self.plot.handin(self.card, due=TODAY + timedelta(days=3), points=30)
        self.path = f"/groups/{self.plot.group.pk}/handins/{self.task.pk}"

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])

    def set_rubric(self, rubric: dict[str, Any] | None, status: int = 200, **more: Any) -> Any:
        told = self.ok(self.lead, "GET", self.path)
        plan = {name: told[name] for name in told if name not in ("id", "submissions")} | {"rubric": rubric, **more}
        if status != 200:
            return self.problem(status, self.lead, "PUT", self.path, plan)
        return self.ok(self.lead, "PUT", self.path, plan)

    def handed_in(self) -> str:
        builders.fill(self.book, self.card)
        builders.fill(self.book, self.card)
        return f"/submissions/{builders.hand_in(self.book, self.task).pk}"

    def test_it_is_set_with_the_hand_in_and_students_see_it_from_the_start(self) -> None:
        self.set_rubric(SOUP)
        told = self.ok(self.lead, "GET", self.path)
        self.assertEqual(told["rubric"]["criteria"][0]["says"][2], "All of it")
        opened = self.ok(self.thandi, "GET", f"/portfolios/{self.book.pk}/pockets/{self.card.pk}")
        self.assertEqual(
            [one["title"] for one in opened["handins"][0]["rubric"]["levels"]], ["not yet", "partly", "fully"]
        )
        like = self.ok(self.lead, "GET", f"/groups/{self.plot.group.pk}/handins/like/{self.task.pk}")
        self.assertEqual(like["rubric"], told["rubric"], "a copy has it too")
        self.set_rubric(None)
        self.assertIsNone(self.ok(self.lead, "GET", self.path)["rubric"])

    def test_what_no_rubric_can_be_is_refused_by_name_and_nothing_is_written(self) -> None:
        weightless = [{**one, "weight": 0} for one in SOUP["criteria"]]  # type: ignore[attr-defined]
        for change, says in (
            ({"criteria": weightless}, "sum to nothing"),
            ({"levels": LEVELS[:1]}, "2 to 8 levels"),
            ({"criteria": [{**SOUP["criteria"][0], "weight": -1}]}, "weight of “Scaling”"),  # type: ignore[index]
        ):
            with self.subTest(says):
                self.assertIn(says, self.set_rubric({**SOUP, **change}, 422)["title"])
        self.assertIsNone(self.ok(self.lead, "GET", self.path)["rubric"])

    def test_levels_make_the_score_and_what_is_released_keeps_the_rubric(self) -> None:
        self.set_rubric(SOUP)
        path = self.handed_in()
        saved = self.ok(self.marker, "PUT", f"{path}/draft", {"levels": {"s": ["f"]}})
        self.assertEqual((saved["score"], saved["levels"]), (None, {"s": ["f"]}), "Costing is open")
        found = self.problem(422, self.marker, "POST", f"{path}/accept", {"levels": {"s": ["f"]}, "version": 1})
        self.assertIn("Costing", found["title"])
        saved = self.ok(self.marker, "PUT", f"{path}/draft", {"levels": ALL, "version": 1})
        # 30 × (3×2 + 2×1) ÷ (3×2 + 2×2) = 24, worked by hand.
        self.assertEqual(saved["score"], 24)
        seen = self.ok(self.lead, "GET", path)
        self.assertEqual((seen["draft"]["levels"], len(seen["handin"]["rubric"]["criteria"])), ({}, 2))
        self.assertIsNone(self.ok(self.thandi, "GET", path)["draft"])
        self.assertEqual(self.ok(self.thandi, "GET", f"/portfolios/{self.book.pk}/feedback"), [])
        self.ok(self.marker, "POST", f"{path}/accept", {"feedback": "Good", "levels": ALL, "version": 2})
        self.set_rubric({**SOUP, "criteria": SOUP["criteria"][1:]})  # type: ignore[index]
        line = self.ok(self.thandi, "GET", f"/portfolios/{self.book.pk}/feedback")[0]
        self.assertEqual((line["score"], line["points"], line["levels"]), (24, 30, ALL))
        self.assertEqual([one["title"] for one in line["rubric"]["criteria"]], ["Scaling", "Costing"], "as it was then")
        # Opened again, the draft keeps what still fits.
        self.ok(self.marker, "POST", f"{path}/reopen")
        self.assertEqual(self.ok(self.marker, "GET", path)["draft"]["levels"], {"c": ["p"]})
        self.problem(422, self.marker, "POST", f"{path}/accept", {"levels": ALL, "version": 3})
        self.ok(self.marker, "POST", f"{path}/accept", {"levels": {"c": []}, "version": 3})
        self.assertIsNone(ReleasedMark.objects.latest("pk").score, "nothing is judged")

    def test_a_change_says_whose_drafts_move_and_whose_marks_would_come_out_otherwise(self) -> None:
        self.set_rubric(SOUP)
        path = self.handed_in()
        josh = self.plot.student("josh", "Josh", "Ellery")
        other = builders.hand_in(josh, self.task, even_if_empty=True)
        self.ok(self.marker, "POST", f"/submissions/{other.pk}/accept", {"levels": ALL})
        self.ok(self.marker, "PUT", f"{path}/draft", {"levels": ALL})
        told = self.ok(self.lead, "GET", self.path)

        def meant(rubric: Any) -> Any:
            plan = {name: told[name] for name in told if name not in ("id", "submissions")} | {"rubric": rubric}
            return self.ok(self.lead, "POST", f"{self.path}/preview", plan)["judged"]

        thandi, ellery = [self.book.enrolment.person.listed], [josh.enrolment.person.listed]
        nothing: dict[str, Any] = {"moves": [], "open": [], "released": []}
        self.assertEqual(meant(SOUP), nothing)
        heavier = [{**SOUP["criteria"][0], "weight": 1}, SOUP["criteria"][1]]  # type: ignore[index]
        found = meant({**SOUP, "criteria": heavier})
        self.assertEqual(found, {"moves": thandi, "open": [], "released": ellery})
        third = {"key": "h", "title": "Hygiene", "weight": 1, "says": ["", "", ""]}
        found = meant({**SOUP, "criteria": [*SOUP["criteria"], third]})  # type: ignore[misc]
        self.assertEqual(found, {"moves": [], "open": thandi, "released": ellery})
        self.assertEqual(meant(None), {"moves": [], "open": thandi, "released": ellery})
        says = [{**one, "says": ["a", "b", "c"]} for one in SOUP["criteria"]]  # type: ignore[attr-defined]
        self.assertEqual(meant({**SOUP, "criteria": says}), nothing, "words alone move nothing")

    def test_the_sheet_counts_the_levels_of_each_criterion(self) -> None:
        self.set_rubric({**SOUP, "halves": True})
        for at, levels in enumerate(({"s": ["f"], "c": ["p"]}, {"s": ["p", "f"], "c": []}, {"s": ["f"], "c": ["n"]})):
            book = self.plot.student(f"s{at}", f"S{at}")
            done = builders.hand_in(book, self.task, even_if_empty=True)
            self.ok(self.marker, "POST", f"/submissions/{done.pk}/accept", {"levels": levels})
        (column,) = self.ok(self.lead, "GET", f"/groups/{self.plot.group.pk}/sheet")["handins"]
        self.assertEqual(column["levels"], ["not yet", "partly", "fully"])
        self.assertEqual(
            column["criteria"],
            [
                {"title": "Scaling", "counts": [0, 0.5, 2.5], "not_judged": 0},
                {"title": "Costing", "counts": [1, 1, 0], "not_judged": 1},
            ],
        )

    def test_a_score_of_ones_own_is_refused_and_sent_back_needs_no_level(self) -> None:
        self.set_rubric(SOUP)
        path = self.handed_in()
        found = self.problem(422, self.lead, "PUT", f"{path}/draft", {"score": 12})
        self.assertIn("comes from its rubric", found["title"])
        self.problem(422, self.lead, "PUT", f"{path}/draft", {"levels": {"s": ["x"]}})
        self.problem(422, self.lead, "PUT", f"{path}/draft", {"levels": {"s": ["n", "p"]}})
        self.assertEqual(DraftMark.objects.count(), 0)
        listed = {"students": [self.book.enrolment.pk], "handins": [self.task.pk]}
        line = self.ok(self.lead, "POST", f"/groups/{self.plot.group.pk}/arrivals", listed)["lines"][0]
        self.assertEqual((line["by_rubric"], line["draft"]["levels"]), (True, {}))
        self.problem(422, self.lead, "POST", f"{path}/send-back", {"levels": {"s": ["p"]}})
        self.ok(self.lead, "POST", f"{path}/send-back", {"feedback": "Once more"})
        mark = ReleasedMark.objects.get()
        self.assertEqual((mark.rubric, mark.levels, mark.score), ({}, {}, None))

    def test_without_points_there_are_levels_and_no_score_and_without_rubric_no_levels(self) -> None:
        path = self.handed_in()
        self.assertIn("no rubric", self.problem(422, self.lead, "PUT", f"{path}/draft", {"levels": ALL})["title"])
        self.set_rubric(SOUP, points=None)
        self.problem(422, self.lead, "POST", f"{path}/accept", {})
        self.ok(self.lead, "POST", f"{path}/accept", {"levels": ALL})
        mark = ReleasedMark.objects.get()
        self.assertEqual((mark.score, mark.levels), (None, ALL))


class ToBeginFrom(ApiCase):
    def test_those_of_ones_own_hand_ins_once_then_the_gallery(self) -> None:
        plot, other = klass(), klass("9 Forge", "forge")
        for of, titles in ((plot, ("Soil", "Water")), (other, ("Iron",))):
            of.student(f"s{of.group.pk}")
            for title in titles:
                handin = of.handin(of.pocket(title), title=title)
                handin.rubric = {**SOUP, "halves": of is other}
                handin.save()
        path = f"/groups/{plot.group.pk}/rubrics"
        found = self.ok(plot.lead, "GET", path)
        self.assertEqual([(one["title"], one["of"]) for one in found][:1], [("Water", plot.group.name)])
        self.assertEqual({one["of"] for one in found[1:]}, {""})
        # Whoever sets hand-ins there too is shown those as well; an observer is not.
        StaffRole.objects.create(group=other.group, person=plot.lead, role=Role.OBSERVER.value)
        self.assertEqual(len(self.ok(plot.lead, "GET", path)), len(found))
        StaffRole.objects.filter(group=other.group, person=plot.lead).update(role=Role.CO_TEACHER.value)
        self.assertEqual([one["title"] for one in self.ok(plot.lead, "GET", path)][:2], ["Iron", "Water"])

    def test_a_table_is_read_and_what_is_none_is_refused(self) -> None:
        plot = klass()
        path = f"/groups/{plot.group.pk}/rubrics/read"
        found = self.ok(plot.lead, "POST", path, {"text": "\tlow (0)\thigh (2)\nCare\tno\tyes"})
        self.assertEqual([one["points"] for one in found["levels"]], [0, 2])
        refused = self.call(plot.lead, "POST", path, {"text": "nothing"})
        self.assertEqual((refused.status_code, refused.json()["where"]), (422, "rubric"))
