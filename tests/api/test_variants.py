"""Versions of a pocket: dealt, told, kept where there is work, given to who joins."""

from typing import Any

from coatpeg.core.people.roster_table import Column
from coatpeg.handins.models import Submission
from coatpeg.outlines.models import Pocket, VariantDeal
from coatpeg.portfolios.models import Portfolio
from coatpeg.setup.roster import enrolling
from coatpeg.setup.roster.class_lists import ClassList
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.test_template import TemplateCase
from tests.builders import NOW, klass, working_group

NORTH = {"key": "n", "name": "North", "directions": "Draw the north bed.", "starter": "In the north …"}
SOUTH = {"key": "s", "name": "South", "directions": "Draw the south bed.", "starter": "In the south …"}


class VersionCase(TemplateCase):
    def setUp(self) -> None:
        super().setUp()
        self.zoe = self.plot.student("zoe", "Zoë", "Young")

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])
        super().tearDown()

    def save(
        self, by: str, *versions: dict[str, Any], status: int = 200, hand: Any = None, **more: Any
    ) -> dict[str, Any]:
        body = self.body(by, *versions, hand=hand, **more)
        if status != 200:
            return self.refused(status, "PUT", f"/pockets/{self.about.pk}", body)
        return self.lead("PUT", f"/pockets/{self.about.pk}", body)

    def body(self, by: str, *versions: dict[str, Any], hand: Any = None, **more: Any) -> dict[str, Any]:
        variants = {"by": by, "versions": versions, **more} if by else None
        return {**self.settings(Pocket.objects.get(pk=self.about.pk)), "variants": variants, "hand": hand}

    def seen(self, portfolio: Portfolio) -> tuple[str, str]:
        path = f"/portfolios/{portfolio.pk}/pockets/{self.about.pk}"
        found = self.ok(portfolio.enrolment.person, "GET", path)
        self.assertEqual(found["version"], "", "a student is not told of versions")
        return found["directions"].removeprefix("<p>").removesuffix("</p>"), found["starter"]


class Dealing(VersionCase):
    def test_by_surname_with_the_students_shown_before(self) -> None:
        versions = {**NORTH, "first": "A", "last": "D"}, {**SOUTH, "first": "E", "last": "Z"}
        told = self.lead("POST", f"/pockets/{self.about.pk}/preview", self.body("surname", *versions))
        names = [[one["name"] for one in of["students"]] for of in told["versions"]]
        self.assertEqual(names, [["Dube, Thandi"], ["Ellery, Josh", "Young, Zoë"]])
        self.assertFalse(VariantDeal.objects.exists())
        self.save("surname", *versions)
        self.assertEqual(self.seen(self.thandi), ("Draw the north bed.", "<p>In the north …</p>"))
        self.assertEqual(self.seen(self.zoe), ("Draw the south bed.", "<p>In the south …</p>"))
        look = self.ok(self.plot.lead, "GET", f"/portfolios/{self.zoe.pk}/pockets/{self.about.pk}")
        self.assertEqual(look["version"], "South")

    def test_a_range_left_out_names_the_student(self) -> None:
        said = self.save(
            "surname", {**NORTH, "first": "A", "last": "D"}, {**SOUTH, "first": "F", "last": "Z"}, status=422
        )
        self.assertEqual(said["title"], "No version has E. It leaves out: Ellery, Josh.")
        self.assertEqual(Pocket.objects.get(pk=self.about.pk).variants, {})

    def test_an_untouched_starter_of_any_version_is_no_work(self) -> None:
        self.save("surname", {**NORTH, "first": "A", "last": "D"}, {**SOUTH, "first": "E", "last": "Z"})
        path = f"/portfolios/{self.thandi.pk}/pockets/{self.about.pk}"
        for text, met in (("In the north …", 0), ("In the south …", 0), ("In the north grows chard.", 1)):
            version = (self.ok(self.plot.lead, "GET", path)["evidence"] or [{"version": 0}])[0]["version"]
            self.ok(self.thandi.enrolment.person, "PUT", f"{path}/page", {"text": text, "version": version})
            self.assertEqual(self.ok(self.plot.lead, "GET", path)["met"], met, text)
        # A version goes: what still reads like its starter stays no work.
        self.ok(
            self.zoe.enrolment.person,
            "PUT",
            path.replace(str(self.thandi.pk), str(self.zoe.pk), 1) + "/page",
            {"text": "In the south …", "version": 0},
        )
        self.save("")
        self.assertEqual(self.seen(self.zoe)[1], "<p>I am …</p>")
        self.assertEqual(dict(self.board_met())["Young"], 0)

    def board_met(self) -> list[tuple[str, int]]:
        rows = self.pegs(self.plot.lead, self.plot.group.pk)["students"]
        return [(row["family_name"], row["met"]) for row in rows]

    def test_at_random_stays_as_drawn_until_dealt_again(self) -> None:
        self.save("random", NORTH, SOUTH, seed=1)
        first = dict(VariantDeal.objects.values_list("enrolment_id", "key"))
        self.assertEqual(sorted(first.values()) in (["n", "n", "s"], ["n", "s", "s"]), True)
        self.save("random", {**NORTH, "directions": "Draw it."}, SOUTH, seed=1)
        self.assertEqual(dict(VariantDeal.objects.values_list("enrolment_id", "key")), first)
        drawn = set()
        for seed in range(2, 12):
            self.save("random", NORTH, SOUTH, seed=seed)
            drawn.add(tuple(VariantDeal.objects.order_by("enrolment_id").values_list("key", flat=True)))
        self.assertGreater(len(drawn), 2)

    def test_whoever_has_work_keeps_their_version(self) -> None:
        self.save("surname", {**NORTH, "first": "A", "last": "D"}, {**SOUTH, "first": "E", "last": "Z"})
        path = f"/portfolios/{self.thandi.pk}/pockets/{self.about.pk}/page"
        self.ok(self.thandi.enrolment.person, "PUT", path, {"text": "In the north grows chard.", "version": 0})
        self.save("surname", {**SOUTH, "first": "A", "last": "M"}, {**NORTH, "first": "N", "last": "Z"})
        self.assertEqual(self.seen(self.thandi)[0], "Draw the north bed.")
        self.assertEqual(self.seen(self.zoe)[0], "Draw the north bed.")

    def test_by_period_group_and_hand(self) -> None:
        period = self.plot.period("P3")
        other = self.plot.period("P4")
        ada = self.plot.student("ada", "Ada", "Blom", period="P4")
        told = self.lead(
            "POST",
            f"/pockets/{self.about.pk}/preview",
            self.body("period", {**NORTH, "places": [period.pk]}, {**SOUTH, "places": [other.pk]}),
        )
        self.assertEqual(told["nowhere"], ["Dube, Thandi", "Ellery, Josh", "Young, Zoë"])
        self.save("period", {**NORTH, "places": [period.pk]}, {**SOUTH, "places": [other.pk]})
        self.assertEqual(self.seen(ada)[0], "Draw the south bed.")
        table = working_group(self.plot.group, "Table 1")
        table.members.set([self.zoe.enrolment])
        self.save("group", {**NORTH, "places": []}, {**SOUTH, "places": [table.pk]})
        self.assertEqual([self.seen(one)[0][9:14] for one in (ada, self.zoe)], ["north", "south"])
        self.save("hand", NORTH, SOUTH, hand={str(self.thandi.enrolment_id): "s"})
        self.assertEqual([self.seen(one)[0][9:14] for one in (self.thandi, self.josh)], ["south", "north"])
        self.save("hand", NORTH, SOUTH, hand={str(self.thandi.enrolment_id): "x"}, status=422)
        self.assertEqual(self.lead("GET", "")["periods"][0]["name"], "P3")

    def test_who_joins_is_dealt_to_and_nobody_elses_moves(self) -> None:
        self.save("random", NORTH, SOUTH, seed=4)
        before = dict(VariantDeal.objects.values_list("enrolment_id", "key"))
        rows = tuple((f"Blom{number}", "Ada") for number in range(7))
        enrolling.apply_list(self.plot.lead, self.plot.group.pk, ClassList(rows, (Column.FAMILY, Column.GIVEN)), NOW)
        after = dict(VariantDeal.objects.values_list("enrolment_id", "key"))
        self.assertEqual({one: after[one] for one in before}, before)
        self.assertEqual(sorted(list(after.values()).count(key) for key in ("n", "s")), [5, 5])

    def test_frozen_with_a_submission_and_carried_over(self) -> None:
        self.save("surname", {**NORTH, "first": "A", "last": "D"}, {**SOUTH, "first": "E", "last": "Z"})
        path = f"/portfolios/{self.zoe.pk}/pockets/{self.about.pk}/page"
        self.ok(self.zoe.enrolment.person, "PUT", path, {"text": "In the south grows kale.", "version": 0})
        submission = builders.hand_in(self.zoe, self.plot.handin(self.about))
        desk = self.ok(self.plot.lead, "GET", f"/submissions/{submission.pk}")
        self.assertEqual(desk["pockets"][0]["version"], "South")
        self.assertEqual(Submission.objects.get().snapshot["pockets"][0]["version"], "South")
        forge = klass("9 Forge", "forge")
        builders.StaffRole.objects.create(group=self.plot.group, person=forge.lead, role="observer")
        ada = forge.student("ada", "Ada", "Young")
        body = {"source": self.plot.group.pk}
        self.ok(forge.lead, "POST", f"/groups/{forge.group.pk}/template/carry-over", body)
        copied = Pocket.objects.get(section__template=forge.template, title="About me")
        found = self.ok(ada.enrolment.person, "GET", f"/portfolios/{ada.pk}/pockets/{copied.pk}")
        self.assertEqual(found["directions"], "<p>Draw the south bed.</p>")

    def test_a_pattern_has_one_version(self) -> None:
        pattern = self.lead("POST", "/sections", {"title": "Unit", "repeats": True})["id"]
        body = {"title": "Q", "kind": "page", "variants": {"by": "random", "versions": [NORTH, SOUTH]}}
        said = self.refused(422, "POST", f"/sections/{pattern}/pockets", body)
        self.assertIn("one version", said["title"])
