"""What a hand-in collects: a section with what is added to it, a log's new rows, the same pockets of every unit."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from coatpeg.handins.handing import records
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket, Section
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY

DAY = timedelta(days=1)
COLUMNS = {"columns": [{"key": "a", "title": "Crop", "type": "text"}]}


class CollectingCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.ada = self.plot.student("ada", "Ada", "Abel")
        self.path = f"/groups/{self.plot.group.pk}"

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])

    def plan(self, *pockets: int, **more: Any) -> dict[str, Any]:
        due = {"day": str(TODAY + 2 * DAY), "at": None}
        return {"title": "Review", "pockets": list(pockets), "opens": str(TODAY), "due": due, **more}

    def set(self, *pockets: int, **more: Any) -> Any:
        return self.ok(self.lead, "POST", f"{self.path}/handins", self.plan(*pockets, **more))

    def collected(self, handin: int) -> list[str]:
        return sorted(HandIn.objects.get(pk=handin).pockets.values_list("title", flat=True))

    def add(self, title: str, section: int | None = None) -> int:
        path = f"{self.path}/template/sections/{section or self.plot.section.pk}/pockets"
        return int(self.ok(self.lead, "POST", path, {"title": title, "kind": "page"})["id"])


class FollowingTheTemplate(CollectingCase):
    def setUp(self) -> None:
        super().setUp()
        self.card, self.about = self.plot.pocket(), self.plot.pocket("About me", "page")
        self.other = Section.objects.create(template=self.plot.template, title="The plot", position=1)

    def test_what_is_added_to_its_section_belongs_to_it_and_asks_whoever_has_not_handed_in(self) -> None:
        self.add("There", self.other.pk)
        bea = self.plot.student("bea", "Bea", "Berg")
        handin = self.set(self.card.pk, self.about.pk, follows=True)["id"]
        fixed = self.set(self.card.pk, self.about.pk)["id"]
        builders.fill(self.ada, self.card)
        sent = builders.hand_in(self.ada, HandIn.objects.get(pk=handin))
        self.add("Later one")
        self.add("Elsewhere", self.other.pk)
        self.assertEqual(self.collected(handin), ["About me", "Later one", "Recipe card"])
        self.assertEqual(self.collected(fixed), ["About me", "Recipe card"])
        seen = self.ok(self.lead, "GET", f"{self.path}/handins/{handin}")
        self.assertEqual((seen["follows"], seen["version"]), (True, 2))
        mine = self.ok(bea.enrolment.person, "GET", f"/portfolios/{bea.pk}/pockets/{self.card.pk}")
        asked = next(one for one in mine["handins"] if one["id"] == handin)
        self.assertIn("Later one", [one["title"] for one in asked["pockets"]])
        sent.refresh_from_db()
        self.assertEqual([one["title"] for one in sent.snapshot["pockets"]], ["Recipe card", "About me"])
        held = StandingHold.objects.filter(portfolio=self.ada).values_list("pocket__title", flat=True)
        self.assertEqual(sorted(held), ["About me", "Recipe card"])

    def test_the_whole_portfolio_follows_into_new_sections(self) -> None:
        handin = self.set(self.card.pk, self.about.pk, follows=True)["id"]
        self.assertTrue(HandIn.objects.get(pk=handin).whole)
        self.add("Elsewhere", self.other.pk)
        self.assertEqual(self.collected(handin), ["About me", "Elsewhere", "Recipe card"])
        self.ok(self.lead, "PUT", f"{self.path}/handins/{handin}", {**self.plan(self.card.pk), "version": 2})
        self.add("Yet another", self.other.pk)
        self.assertEqual(self.collected(handin), ["Recipe card"], "told to, it follows no more")

    def test_closed_or_taken_away_it_stays_and_a_new_pocket_can_be_taken_away_again(self) -> None:
        self.add("There", self.other.pk)
        pockets = (self.card.pk, self.about.pk)
        closed = self.set(*pockets, follows=True, closes={"day": str(TODAY + 2 * DAY), "at": None})["id"]
        away = self.set(*pockets, follows=True)["id"]
        open_ = self.set(*pockets, follows=True)["id"]
        self.ok(self.lead, "POST", f"{self.path}/handins/{away}/away")
        with self.at(NOW + 4 * DAY):
            added = self.add("Later one")
        self.assertEqual(self.collected(closed), ["About me", "Recipe card"])
        self.assertEqual(self.collected(away), ["About me", "Recipe card"])
        self.assertEqual(self.collected(open_), ["About me", "Later one", "Recipe card"])
        self.ok(self.lead, "DELETE", f"{self.path}/template/pockets/{added}")
        self.assertEqual(self.collected(open_), ["About me", "Recipe card"])

    def test_without_a_whole_section_there_is_nothing_to_follow(self) -> None:
        problem = self.problem(422, self.lead, "POST", f"{self.path}/handins", self.plan(self.card.pk, follows=True))
        self.assertEqual(problem["where"], "follows")


class NewRows(CollectingCase):
    def setUp(self) -> None:
        super().setUp()
        self.log = self.plot.pocket("Crop log", "log", log=COLUMNS, rows=3)
        self.first, self.second = (self.set(self.log.pk, title=f"Week {one}", since_last=True)["id"] for one in (1, 2))

    def row(self, crop: str) -> dict[str, Any]:
        path = f"/portfolios/{self.ada.pk}/pockets/{self.log.pk}/rows"
        body = {"values": {"a": crop}, "key": f"row-{crop}"}
        return dict(self.ok(self.ada.enrolment.person, "POST", path, body))

    def send(self, handin: int, seen: int = 0) -> list[str]:
        sent = builders.hand_in(self.ada, HandIn.objects.get(pk=handin), seen=seen)
        return [row["values"]["a"] for row in sent.snapshot["pockets"][0]["log"]["rows"]]

    def test_only_rows_that_came_since_go_in_and_all_of_them_count(self) -> None:
        self.row("Beet")
        self.assertEqual(self.send(self.first), ["Beet"])
        with self.assertRaisesMessage(Exception, "There is nothing of yours in this yet."):
            self.send(self.second)
        self.row("Kale")
        self.row("Leek")
        self.assertEqual(self.send(self.second), ["Kale", "Leek"])
        newest = HandIn.objects.get(pk=self.second).submissions.get()
        pocket = self.ok(self.lead, "GET", f"/submissions/{newest.pk}")["pockets"][0]
        self.assertEqual((pocket["before"], len(pocket["log"]["rows"])), (1, 2))
        self.assertEqual([(chip["done"], chip["wanted"]) for chip in pocket["chips"]], [(3, 3)])

    def test_what_was_taken_back_goes_in_with_the_next_one(self) -> None:
        self.row("Beet")
        self.send(self.first)
        sent = HandIn.objects.get(pk=self.first).submissions.get()
        self.ok(self.ada.enrolment.person, "POST", f"/submissions/{sent.pk}/take-back")
        self.row("Kale")
        self.assertEqual(self.send(self.second), ["Beet", "Kale"])

    def test_staff_who_hand_in_for_a_student_take_the_same(self) -> None:
        self.row("Beet")
        self.send(self.first)
        self.row("Kale")
        cells = [{"handin": self.second, "enrolment": self.ada.enrolment_id, "status": "working"}]
        self.ok(self.lead, "POST", f"{self.path}/cells/handed-in", {"cells": cells, "how": "paper"})
        rows = HandIn.objects.get(pk=self.second).submissions.get().snapshot["pockets"][0]["log"]["rows"]
        self.assertEqual([one["values"]["a"] for one in rows], ["Kale"])


class ForEachUnit(CollectingCase):
    def setUp(self) -> None:
        super().setUp()
        self.beside = self.plot.pocket("Plan", "page")
        template = f"{self.path}/template"
        self.pattern = self.ok(self.lead, "POST", f"{template}/sections", {"title": "Unit", "repeats": True})["id"]
        for title in ("{unit} in a word", "{unit} drawn"):
            self.add(title, self.pattern)
        self.units([("Soil", "2026-11-02"), ("Water", "2026-11-16"), ("Sun", "2026-11-23")])

    def units(self, units: list[tuple[str, str | None]]) -> None:
        body = [{"key": title.lower(), "title": title, "opens": opens, "questions": []} for title, opens in units]
        version = Section.objects.get(pk=self.pattern).version
        path = f"{self.path}/template/sections/{self.pattern}/units"
        self.ok(self.lead, "PUT", path, {"units": body, "version": version})

    def pocket(self, title: str) -> int:
        return Pocket.objects.get(title=title).pk

    def days(self) -> list[tuple[str, date, date | None]]:
        return list(HandIn.objects.order_by("series_place").values_list("title", "opens", "due_day"))

    def test_the_same_pockets_of_each_unit_due_as_long_after_it_opens(self) -> None:
        chosen = (self.pocket("Soil in a word"), self.beside.pk)
        builders.day_off(date(2026, 11, 19), "Orchard day")
        made = self.set(*chosen, repeat={"every": 0})
        # Friday 6 November is the fourth school day after Monday the 2nd; the 19th is off, so the 23rd is the fourth
        # after the 16th (counted by hand on the calendar).
        self.assertEqual(
            self.days(),
            [
                ("Review 1", TODAY, date(2026, 11, 6)),
                ("Review 2", date(2026, 11, 16), date(2026, 11, 23)),
                ("Review 3", date(2026, 11, 23), date(2026, 11, 27)),
            ],
        )
        self.assertEqual(made["count"], 3)
        series = list(HandIn.objects.order_by("series_place").values_list("pk", flat=True))
        self.assertEqual(self.collected(series[1]), ["Plan", "Water in a word"])
        self.assertEqual(self.collected(series[2]), ["Plan", "Sun in a word"])
        plan = {**self.plan(*chosen, title="Word 1"), "version": 1, "scope": "all"}
        self.ok(self.lead, "PUT", f"{self.path}/handins/{series[0]}", plan)
        self.assertEqual([one[0] for one in self.days()], ["Word 1", "Word 2", "Word 3"])
        self.assertEqual(self.collected(series[1]), ["Plan", "Water in a word"], "each keeps to its own unit")

    def test_from_a_later_unit_on(self) -> None:
        due = {"day": "2026-11-18", "at": "12:00"}
        self.set(self.pocket("Water drawn"), opens="2026-11-16", due=due, repeat={"every": 0})
        self.assertEqual([one[2] for one in self.days()], [date(2026, 11, 18), date(2026, 11, 25)])

    def test_bad_input(self) -> None:
        def refused(*pockets: int, **repeat: Any) -> str:
            body = self.plan(*pockets, repeat={"every": 0, **repeat})
            return str(self.problem(422, self.lead, "POST", f"{self.path}/handins", body)["where"])

        self.assertEqual(refused(self.beside.pk), "pockets")
        self.assertEqual(refused(self.pocket("Soil drawn"), self.pocket("Water drawn")), "pockets")
        self.assertEqual(refused(self.beside.pk, every=1), "until")
        self.units([("Soil", "2026-11-02"), ("Water", None)])
        self.assertEqual(refused(self.pocket("Soil drawn")), "pockets")
        self.assertEqual(HandIn.objects.count(), 0)


class AnythingThatFits(CollectingCase):
    def setUp(self) -> None:
        super().setUp()
        self.card = self.plot.pocket()

    def own(self) -> Pocket:
        return Pocket.objects.get(section__title="Anything that fits")

    def test_a_pocket_of_its_own_that_counts_for_nothing_and_what_lies_there_is_kept_elsewhere(self) -> None:
        student = self.ada.enrolment.person
        handin = self.set(title="A find", anything=True)["id"]
        self.assertEqual(self.collected(handin), ["A find"])
        book = self.ok(student, "GET", f"/portfolios/{self.ada.pk}")
        self.assertIn(("Anything that fits", "A find"), [(one["section"], one["title"]) for one in book["pockets"]])
        before = book["wanted"]
        found = builders.add_picture(self.ada, self.own())
        self.assertEqual(self.ok(student, "GET", f"/portfolios/{self.ada.pk}")["wanted"], before)
        builders.hand_in(self.ada, HandIn.objects.get(pk=handin))
        # Afterwards the student chooses where to keep it, although it is locked where it was handed in.
        path = f"/portfolios/{self.ada.pk}/pockets/{self.card.pk}/artefacts"
        self.ok(student, "POST", path, {"artefact": found.artefact_id})
        lying = self.ok(student, "GET", f"/portfolios/{self.ada.pk}/artefacts")
        self.assertEqual(sorted(one["title"] for one in lying[0]["pockets"]), ["A find", "Recipe card"])

    def test_taken_back_it_goes_with_its_pocket_unless_somebody_has_put_something_in(self) -> None:
        first = self.set(title="A find", anything=True)["id"]
        self.ok(self.lead, "DELETE", f"{self.path}/handins/{first}")
        self.assertFalse(Pocket.objects.filter(title="A find").exists())
        second = self.set(title="Another", anything=True)["id"]
        builders.add_picture(self.ada, self.own())
        self.ok(self.lead, "DELETE", f"{self.path}/handins/{second}")
        self.assertTrue(Pocket.objects.filter(title="Another").exists(), "a student's work is never taken away")

    def test_a_draft_has_its_pocket_once_it_is_set_and_a_series_one_each(self) -> None:
        plan = self.plan(title="A find", anything=True, draft=True)
        made = self.ok(self.lead, "POST", f"{self.path}/handins", plan)["id"]
        self.assertFalse(Pocket.objects.filter(title="A find").exists())
        self.ok(self.lead, "PUT", f"{self.path}/handins/{made}", {**plan, "draft": False, "version": 1})
        self.assertEqual(self.collected(made), ["A find"])
        self.set(title="Friday", anything=True, repeat={"every": 1, "until": str(TODAY + 9 * DAY)})
        self.assertEqual(
            sorted(Pocket.objects.filter(title__startswith="Friday").values_list("title", flat=True)),
            ["Friday 1", "Friday 2"],
        )

    def test_what_follows_the_template_leaves_it_out_and_without_a_pocket_it_must_ask_for_anything(self) -> None:
        follows = self.set(self.card.pk, follows=True)["id"]
        self.set(title="A find", anything=True)
        self.add("Later")
        self.assertEqual(self.collected(follows), ["Later", "Recipe card"])
        problem = self.problem(422, self.lead, "POST", f"{self.path}/handins", self.plan())
        self.assertEqual(problem["where"], "pockets")
