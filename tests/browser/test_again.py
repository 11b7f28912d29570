"""Handing in again until it is due, as a teacher allows it and a student does it; drafts, kept, set and laid out."""

from playwright.sync_api import expect

from coatpeg.core.policy import Role
from coatpeg.handins.models import HandIn, Submission
from coatpeg.people.models import StaffRole
from tests import builders
from tests.browser.case import BrowserCase, undo


class Again(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi", period="P3")
        self.handin = self.eight.handin(self.card, due=self.day(3), opens=self.day(-7), now=self.now)
        builders.fill(self.thandi, self.card, self.now)

    def test_allowed_handed_in_changed_and_handed_in_again(self) -> None:
        self.expected_complaints.append("409")
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/hand-ins?change={self.handin.pk}")
        page.get_by_text("More: directions, closing, afterwards").click()
        page.get_by_label("Until it is due, it can be handed in again").check()
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("is changed.")).to_be_visible()
        self.assertTrue(HandIn.objects.get().again)

        page = self.page(
            self.thandi.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}/{self.card.pk}"
        )
        bar = page.get_by_role("region", name="Hand in: Recipe card")
        expect(bar.get_by_text("you can hand in now", exact=False)).to_be_visible()
        bar.get_by_role("button", name="Hand in", exact=True).click()
        expect(bar.get_by_text("It stays open until")).to_be_visible()
        bar.get_by_role("button", name="Hand in again").click()
        expect(page.get_by_text("Nothing has changed since you handed this in.")).to_be_visible()

        page.get_by_label("What does this show?").fill("I cut it down by half. The pot was small.")
        bar.get_by_role("button", name="Hand in again").click()
        expect(bar.get_by_role("list", name="All submissions").get_by_role("listitem")).to_have_count(2)
        newest = Submission.objects.get(number=2)
        self.assertIn("by half", newest.snapshot["pockets"][0]["evidence"][0]["text"])
        expect(bar.get_by_text(newest.receipt).first).to_be_visible()
        expect(page.get_by_text("Nothing has changed since")).to_have_count(0)
        self.no_violation(page)
        page.get_by_role("link", name="To hand in").click()
        expect(page.get_by_text("Can be handed in again until")).to_be_visible()


class Drafts(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi", period="P3")
        self.base = f"/g/{self.eight.group.pk}"

    def test_kept_as_a_draft_looked_at_and_set(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins?new=1")
        page.get_by_label("Title").fill("Taste test")
        page.get_by_role("checkbox", name="Recipe card").check()
        page.get_by_role("button", name="Keep as a draft").click()
        expect(page.get_by_text("“Taste test” is kept as a draft: only staff see it.")).to_be_visible()
        drafts = page.get_by_role("region", name="Drafts")
        expect(drafts.get_by_text("Taste test")).to_be_visible()
        self.no_violation(page)
        student = self.page(self.thandi.enrolment.person, f"{self.base}/to-hand-in")
        expect(student.get_by_text("Nothing is waiting for you.")).to_be_visible()

        drafts.get_by_role("link", name="Look at it, and set it: Taste test").click()
        expect(page.get_by_label("Title")).to_have_value("Taste test")
        expect(page.get_by_role("region", name="Who will get it")).to_contain_text("1 student")
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Taste test” is set.")).to_be_visible()
        expect(drafts).to_have_count(0)
        expect(student.get_by_role("link", name="Taste test")).to_be_visible()
        undo(page)
        expect(drafts.get_by_text("Taste test")).to_be_visible()
        expect(student.get_by_text("Nothing is waiting for you.")).to_be_visible()

    def test_another_classs_hand_ins_are_laid_out_as_drafts(self) -> None:
        old = builders.klass("7 Plot", "frith", today=self.today)
        StaffRole.objects.create(group=old.group, person=self.eight.lead, role=Role.CO_TEACHER.value)
        soup = old.pocket("Soup")
        old.student("bea", "Bea", "Abel")
        old.handin(soup, title="Soup", due=self.day(5), opens=self.day(-7), now=self.now)
        here = self.eight.pocket("Soup")
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        page.get_by_role("button", name="From another class").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_text("Choose the class whose hand-ins")).to_be_visible()
        dialog.get_by_label("Class").select_option("7 Plot")
        dialog.get_by_role("button", name="Lay out 1 as a draft").click()
        expect(page.get_by_text("1 draft is laid out. Look at each, and set it.")).to_be_visible()
        expect(page.get_by_role("region", name="Drafts").get_by_text("Soup").first).to_be_visible()
        self.assertEqual(list(HandIn.objects.get(draft=True).pockets.all()), [here])
        undo(page)
        expect(page.get_by_role("region", name="Drafts")).to_have_count(0)
