"""Handing in for students, sending back and locking many at once, as staff and student see it."""

from __future__ import annotations

from datetime import timedelta

from playwright.sync_api import Page, expect

from coatpeg.handins.models import Submission
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.browser.case import PHONE, BrowserCase, undo


class Deeds(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card, self.menu = self.eight.pocket(), self.eight.pocket("Menu")
        self.ada, self.bea = (self.eight.student(f"s{at}", name, "Abel") for at, name in enumerate(("Ada", "Bea")))
        early = self.now - timedelta(days=5)
        self.one = self.eight.handin(self.card, opens=self.day(-20), due=self.day(-3), now=early)
        self.two = self.eight.handin(self.menu, title="Menu", opens=self.day(-20), due=self.day(9), now=early)
        builders.fill(self.ada, self.card, early)
        builders.hand_in(self.ada, self.one, early)
        self.base = f"/g/{self.eight.group.pk}"

    def cell(self, page: Page, row: int, column: int):  # type: ignore[no-untyped-def]
        return page.locator(f'[role="grid"] [data-cell="{row} {column}"]')

    def test_what_came_on_paper_is_handed_in_for_its_student(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        self.cell(page, 1, 0).click()
        panel = page.get_by_role("complementary", name="The chosen peg")
        panel.get_by_role("button", name="Hand in for …").click()
        dialog = page.get_by_role("dialog", name="Hand in for students")
        expect(dialog.get_by_role("radio", name="on paper")).to_be_focused()
        dialog.get_by_label("Day", exact=True).fill(self.day(9).isoformat())
        dialog.get_by_label("Day", exact=True).blur()
        expect(dialog.get_by_text("That moment has not come yet.")).to_be_visible()
        self.expected_complaints.append("422")
        dialog.get_by_label("Day", exact=True).fill(self.day(-4).isoformat())
        dialog.get_by_label("Day", exact=True).blur()
        expect(dialog.get_by_text("1 peg of 1 student.")).to_be_visible()
        self.no_violation(page)
        dialog.get_by_role("button", name="Hand in for 1 student").click()
        expect(page.get_by_text("Handed in for 1 student (1 peg).")).to_be_visible()
        expect(panel.get_by_text("R. Okafor handed it in: the work came on paper.")).to_be_visible()
        self.assertEqual(Submission.objects.get(enrolment=self.bea.enrolment).how, "paper")
        student = self.page(self.bea.enrolment.person, f"{self.base}/portfolio/{self.bea.pk}/{self.card.pk}", PHONE)
        expect(student.get_by_text("R. Okafor handed it in: the work came on paper.")).to_be_visible()
        expect(student.get_by_text("Locked: handed in")).to_be_visible()
        undo(page)
        expect(page.get_by_text("1 student is as before.")).to_be_visible()
        self.assertIsNotNone(Submission.objects.get(enrolment=self.bea.enrolment).voided_at)

    def test_a_column_is_sent_back_with_the_same_words(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="Choose pegs").click()
        self.cell(page, -1, 0).click()
        page.get_by_role("button", name="Send back …").click()
        dialog = page.get_by_role("dialog", name="Send back")
        words = dialog.get_by_label("What is to be done")
        expect(words).to_be_focused()
        words.fill("Add how much it weighs.")
        expect(dialog.get_by_text("1 is left alone: not handed in, or decided already (Abel, Bea)")).to_be_visible()
        self.no_violation(page)
        dialog.get_by_role("button", name="Send 1 back").click()
        expect(page.get_by_text("Sent back to 1 student (1 peg).")).to_be_visible()
        path = f"{self.base}/portfolio/{self.ada.pk}/{self.card.pk}"
        student = self.page(self.ada.enrolment.person, path, PHONE)
        expect(student.get_by_text("Add how much it weighs.")).to_be_visible()
        undo(page)
        expect(page.get_by_text("1 student is as before.")).to_be_visible()
        expect(student.get_by_text("Add how much it weighs.")).to_have_count(0)

    def test_chosen_pegs_are_accepted_with_the_same_words_reopened_and_both_undone(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="Choose pegs").click()
        self.cell(page, -1, 0).click()
        page.get_by_role("button", name="Accept …").click()
        dialog = page.get_by_role("dialog", name="Accept")
        dialog.get_by_label("Words to all").fill("Ready for the kitchen.")
        self.no_violation(page)
        dialog.get_by_role("button", name="Accept 1").click()
        expect(page.get_by_text("Accepted of 1 student (1 peg).")).to_be_visible()
        path = f"{self.base}/portfolio/{self.ada.pk}/{self.card.pk}"
        student = self.page(self.ada.enrolment.person, path, PHONE)
        expect(student.get_by_text("Ready for the kitchen.")).to_be_visible()
        page.get_by_role("button", name="Choose pegs").click()
        self.cell(page, -1, 0).click()
        page.get_by_role("button", name="Reopen …").click()
        dialog = page.get_by_role("dialog", name="Reopen")
        expect(dialog.get_by_text("nothing is decided yet")).to_be_visible()
        self.no_violation(page)
        dialog.get_by_role("button", name="Reopen 1").click()
        expect(page.get_by_text("Reopened for 1 student (1 peg).")).to_be_visible()
        expect(student.get_by_text("Ready for the kitchen.")).to_have_count(0)
        undo(page)
        expect(page.get_by_text("1 student is as before.")).to_be_visible()
        expect(student.get_by_text("Ready for the kitchen.")).to_be_visible()

    def test_locked_from_the_pegs_from_one_portfolio_and_from_the_template(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        self.cell(page, 1, 1).focus()
        page.keyboard.press("Control+ ")
        page.get_by_role("button", name="Lock …").press("Enter")
        dialog = page.get_by_role("dialog", name="Lock or open")
        expect(dialog.get_by_role("radio", name="Lock: it can be read, and not changed")).to_be_focused()
        dialog.get_by_label("Why").fill("We print on Friday.")
        self.no_violation(page)
        dialog.get_by_role("button", name="Lock", exact=True).click()
        expect(page.get_by_text("Locked for 1 student.")).to_be_visible()
        path = f"{self.base}/portfolio/{self.bea.pk}/{self.menu.pk}"
        student = self.page(self.bea.enrolment.person, path, PHONE)
        expect(student.get_by_text("R. Okafor locked it on")).to_contain_text("We print on Friday.")
        expect(student.get_by_label("File", exact=True)).to_have_count(0)
        self.no_violation(student)
        page.goto(self.live_server_url + path)
        page.get_by_role("button", name="Open …").click()
        expect(dialog.get_by_role("radio", name="Open: work goes on")).to_be_checked()
        dialog.get_by_role("button", name="Open", exact=True).click()
        expect(page.get_by_text("Open for 1 student.")).to_be_visible()
        expect(student.get_by_text("R. Okafor locked it on")).to_have_count(0)
        page.goto(f"{self.live_server_url}{self.base}/template?pocket={self.menu.pk}")
        page.get_by_role("button", name="Lock or open …").click()
        dialog.get_by_role("button", name="Lock all 2").click()
        expect(page.get_by_text("Locked for 2 students.")).to_be_visible()
        self.assertEqual(StandingHold.objects.filter(handin_id=0, pocket=self.menu).count(), 2)
        undo(page)
        expect(page.get_by_text("2 students are as before.")).to_be_visible()
