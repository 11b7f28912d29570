"""Undo of what a template or a hand-in was changed by: back as itself, and never over a student's work."""

from datetime import timedelta
from typing import Any

from django.test import TransactionTestCase

from coatpeg.core.errors import CoatPegError, Gone, Invalid
from coatpeg.handins.asked import taking_back
from coatpeg.handins.handing.commands import set_own_due
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import GivenFile, Pocket, Section, TakenAway, Template, VariantDeal
from coatpeg.setup.template import undoing
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.test_pocket_files import FileCase
from tests.api.test_races import at_once
from tests.api.test_units import SOIL, WATER
from tests.background import run_waiting
from tests.builders import NOW, klass


class UndoCase(FileCase):
    def as_it_is(self) -> Any:
        return self.lead("GET", "")["sections"]

    def mine(self) -> list[str]:
        book = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}")
        return [one["title"] for one in book["pockets"]]


class TakenAwayAndBack(UndoCase):
    def test_a_pocket_comes_back_as_itself_with_files_and_versions(self) -> None:
        self.give(self.about, "trowel.txt", b"how to hold a trowel")
        body = self.settings(self.about, directions="<p>Say it in <b>your</b> words.</p>", opens="2026-09-14")
        half = {"key": "a", "name": "North", "directions": "", "starter": "", "first": "A", "last": "D"}
        versions = [half, {**half, "key": "b", "name": "South", "first": "E", "last": "Z"}]
        self.lead("PUT", f"/pockets/{self.about.pk}", {**body, "variants": {"by": "surname", "versions": versions}})
        before, deals = self.as_it_is(), list(VariantDeal.objects.order_by("pk").values_list())
        kept = self.lead("DELETE", f"/pockets/{self.about.pk}")["taken_away"]
        self.assertFalse(Pocket.objects.filter(pk=self.about.pk).exists() or GivenFile.objects.exists())
        self.lead("POST", f"/taken-away/{kept}/restore")
        self.assertEqual(self.as_it_is(), before)
        self.assertEqual(list(VariantDeal.objects.order_by("pk").values_list()), deals)
        self.refused(404, "POST", f"/taken-away/{kept}/restore")

    def test_a_pattern_s_pocket_is_laid_out_again(self) -> None:
        pattern = self.lead("POST", "/sections", {"title": "Unit", "repeats": True})["id"]
        word = self.lead("POST", f"/sections/{pattern}/pockets", {"title": "{unit} in a word", "kind": "page"})["id"]
        self.lead("PUT", f"/sections/{pattern}/units", {"units": [SOIL, WATER], "version": 1})
        before = self.mine()
        self.assertEqual(len(before), 4)
        kept = self.lead("DELETE", f"/pockets/{word}")["taken_away"]
        self.assertEqual(len(self.mine()), 2)
        self.lead("POST", f"/taken-away/{kept}/restore")
        self.assertEqual(self.mine(), before)

    def test_a_section_comes_back_in_its_place_and_a_pocket_without_one_says_so(self) -> None:
        spare = self.lead("POST", "/sections", {"title": "Spare"})["id"]
        self.lead("POST", f"/sections/{spare}/move", {"before": self.plot.section.pk})
        pocket = self.lead("POST", f"/sections/{spare}/pockets", {"title": "Tools", "kind": "page"})["id"]
        before = self.as_it_is()
        of_pocket = self.lead("DELETE", f"/pockets/{pocket}")["taken_away"]
        of_section = self.lead("DELETE", f"/sections/{spare}")["taken_away"]
        said = self.refused(404, "POST", f"/taken-away/{of_pocket}/restore")
        self.assertIn("The section of “Tools” has been taken away too.", said["title"])
        self.lead("POST", f"/taken-away/{of_section}/restore")
        self.lead("POST", f"/taken-away/{of_pocket}/restore")
        self.assertEqual(self.as_it_is(), before)

    def test_after_thirty_days_it_is_gone(self) -> None:
        kept = self.lead("DELETE", f"/pockets/{self.about.pk}")["taken_away"]
        TakenAway.objects.update(at=NOW - timedelta(days=31))
        self.refused(404, "POST", f"/taken-away/{kept}/restore")
        self.lead("DELETE", f"/pockets/{self.card.pk}")
        self.assertEqual(TakenAway.objects.filter(pk=kept).count(), 0, "and not kept for ever")

    def test_nobody_brings_back_what_is_another_class_s(self) -> None:
        kept = self.lead("DELETE", f"/pockets/{self.about.pk}")["taken_away"]
        other = klass("9 Forge", "marsh")
        self.problem(404, other.lead, "POST", f"/groups/{other.group.pk}/template/taken-away/{kept}/restore")
        self.assertTrue(TakenAway.objects.filter(pk=kept).exists())


class TakenBack(UndoCase):
    def set_one(self) -> HandIn:
        return self.plot.handin(self.card, now=NOW)

    def take_back(self, handin: HandIn) -> str:
        return f"/groups/{self.plot.group.pk}/handins/{handin.pk}"

    def test_a_hand_in_just_set_is_as_if_it_had_never_been(self) -> None:
        handin = self.set_one()
        set_own_due(self.plot.lead, handin.pk, self.thandi.enrolment_id, builders.Due(builders.TODAY), NOW)
        run_waiting()
        self.assertTrue(self.ok(self.thandi.enrolment.person, "GET", "/notices")["lines"])
        self.ok(self.plot.lead, "DELETE", self.take_back(handin))
        self.assertFalse(HandIn.objects.exists())
        self.assertEqual(self.ok(self.thandi.enrolment.person, "GET", "/notices")["lines"], [])
        self.assertEqual(self.pegs(self.plot.lead, self.plot.group.pk)["handins"], [])
        self.problem(404, self.plot.lead, "DELETE", self.take_back(handin))

    def test_once_somebody_has_handed_in_or_is_excused_it_stays(self) -> None:
        handin, other = self.set_one(), self.set_one()
        builders.fill(self.thandi, self.card)
        builders.hand_in(self.thandi, handin)
        said = self.problem(422, self.plot.lead, "DELETE", self.take_back(handin))
        self.assertIn("Somebody has handed in", said["title"])
        self.ok(
            self.plot.lead,
            "PUT",
            f"/handins/{other.pk}/students/{self.josh.enrolment_id}/excused",
            {"excused": True},
        )
        self.problem(422, self.plot.lead, "DELETE", self.take_back(other))
        self.assertEqual(HandIn.objects.count(), 2)

    def test_another_class_s_hand_in_is_not_there(self) -> None:
        handin, other = self.set_one(), klass("9 Forge", "marsh")
        self.problem(404, other.lead, "DELETE", f"/groups/{other.group.pk}/handins/{handin.pk}")


class BroughtAndUndone(UndoCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot.handin(self.card)
        self.forge = klass("9 Forge", "marsh")
        Section.objects.filter(pk=self.forge.section.pk).update(title="Start")
        builders.StaffRole.objects.create(group=self.plot.group, person=self.forge.lead, role="observer")
        self.there = f"/groups/{self.forge.group.pk}/template"

    def carry(self) -> dict[str, Any]:
        body = {"source": self.plot.group.pk, "handins": True}
        done: dict[str, Any] = self.ok(self.forge.lead, "POST", f"{self.there}/carry-over", body)
        return done

    def undo(self, done: dict[str, Any], status: int = 204) -> Any:
        body = {"sections": done["sections"]}
        if status != 204:
            return self.problem(status, self.forge.lead, "POST", f"{self.there}/brought/undo", body)
        return self.ok(self.forge.lead, "POST", f"{self.there}/brought/undo", body)

    def titles(self) -> list[tuple[str, int]]:
        sections = self.ok(self.forge.lead, "GET", self.there)["sections"]
        return [(one["title"], len(one["pockets"])) for one in sections]

    def test_what_was_carried_over_goes_with_its_hand_ins(self) -> None:
        before = self.titles()
        done = self.carry()
        self.assertEqual((done["pockets"], done["handins"], self.titles()), (2, 1, [("The kitchen", 2)]))
        self.undo(done)
        self.assertEqual(self.titles(), before)
        self.assertEqual(HandIn.objects.filter(group=self.forge.group).count(), 0)
        self.assertEqual(HandIn.objects.filter(group=self.plot.group).count(), 1, "the class it came from has its own")
        self.undo(done, 404)

    def test_what_was_there_before_stays_and_so_does_what_it_was_made_from(self) -> None:
        own = self.forge.pocket("Own")
        shipped = self.ok(self.forge.lead, "GET", "/gallery")[0]["id"]
        before = self.titles()
        done = self.ok(self.forge.lead, "POST", f"{self.there}/adopt", {"template": shipped})
        self.assertTrue(Template.objects.get(group=self.forge.group).adopted_id)
        self.undo(done)
        self.assertEqual(self.titles(), before)
        self.assertIsNone(Template.objects.get(group=self.forge.group).adopted_id)
        self.assertTrue(Pocket.objects.filter(pk=own.pk).exists())

    def test_all_of_it_or_nothing_once_somebody_has_begun(self) -> None:
        done = self.carry()
        student = self.forge.student("wren", "Wren", "Adeyemi")
        card = Pocket.objects.get(section__template=self.forge.template, title="Recipe card")
        builders.fill(student, card)
        self.assertIn("Somebody has begun in “Recipe card”", self.undo(done, 422)["title"])
        self.assertEqual(self.titles(), [("The kitchen", 2)])
        self.assertEqual(HandIn.objects.filter(group=self.forge.group).count(), 1, "rolled back as a whole")

    def test_only_the_last_one_and_only_what_it_named(self) -> None:
        done = self.carry()
        shipped = self.ok(self.forge.lead, "GET", "/gallery")[0]["id"]
        self.ok(self.forge.lead, "POST", f"{self.there}/adopt", {"template": shipped})
        self.undo(done, 409)
        self.undo({"sections": []}, 409)
        self.undo({"sections": [self.plot.section.pk]}, 409)
        self.assertTrue(Section.objects.filter(pk=self.plot.section.pk).exists())


class AtTheSameMoment(TransactionTestCase):
    """A student works while a teacher takes back; each on a connection of their own."""

    def setUp(self) -> None:
        self.plot = klass()
        self.card, self.about = self.plot.pocket(), self.plot.pocket("About me", "page")
        self.thandi = self.plot.student("thandi")

    def tearDown(self) -> None:
        self.assertEqual(list(differences()), [])

    def both(self, student: Any, teacher: Any, refusals: tuple[type[CoatPegError], ...]) -> None:
        """One of them wins, the other is told."""
        told = [one for one in at_once(student, teacher) if isinstance(one, Exception)]
        self.assertEqual(len(told), 1, told)
        self.assertIsInstance(told[0], refusals)

    def test_handing_in(self) -> None:
        for round in range(4):
            handin = self.plot.handin(self.card, title=f"Card {round}")
            if round == 0:
                builders.fill(self.thandi, self.card)
            self.both(
                lambda handin=handin: builders.hand_in(self.thandi, handin),
                lambda handin=handin: taking_back.take_back_handin(self.plot.lead, self.plot.group.pk, handin.pk, NOW),
                (Gone, Invalid, CoatPegError),
            )

    def test_writing_into_a_pocket(self) -> None:
        def take_away() -> int:
            return undoing.remove_pocket(self.plot.lead, self.plot.group.pk, self.about.pk, NOW)

        self.both(lambda: builders.fill(self.thandi, self.about), take_away, (Gone, Invalid))
