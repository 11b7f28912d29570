"""Acting on many pegs at once: chosen by mouse, keys, row and column; said before, done, undone."""

from __future__ import annotations

import re
from datetime import timedelta
from pathlib import Path

from playwright.sync_api import Page, expect

from coatpeg.core.policy import Role
from coatpeg.handins.models import KeptFacts, OwnDue, Reminder
from tests import builders
from tests.browser.case import PHONE, BrowserCase, undo

NAMES = ("Ada", "Bea", "Cyr", "Dee", "Eve")


class Many(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        card, menu = self.eight.pocket(), self.eight.pocket("Menu")
        self.books = [self.eight.student(f"s{at}", name, "Abel") for at, name in enumerate(NAMES)]
        early = self.now - timedelta(days=5)
        self.card = self.eight.handin(card, opens=self.day(-20), due=self.day(-3), now=early)
        self.menu = self.eight.handin(menu, title="Menu", opens=self.day(-20), due=self.day(9), now=early)
        builders.fill(self.books[0], card, early)
        builders.hand_in(self.books[0], self.card, early)
        self.base = f"/g/{self.eight.group.pk}"

    def cell(self, page: Page, row: int, column: int):  # type: ignore[no-untyped-def]
        return page.locator(f'[role="grid"] [data-cell="{row} {column}"]')

    def chosen(self, page: Page, words: str) -> None:
        expect(
            page.get_by_role("region", name="What to do with the chosen pegs").get_by_role("status")
        ).to_contain_text(words)

    def test_more_time_for_a_stretch_chosen_by_the_keyboard_alone(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        self.cell(page, 1, 0).focus()
        for key in ("Shift+ArrowDown", "Shift+ArrowDown", "Shift+ArrowRight"):
            page.keyboard.press(key)
        self.chosen(page, "6 pegs chosen of 3 students")
        self.no_violation(page)
        more = page.get_by_role("button", name="More time")
        more.press("Enter")
        dialog = page.get_by_role("dialog", name="More time")
        days = dialog.get_by_role("textbox", name="School days more")
        expect(days).to_be_focused()
        page.keyboard.press("Control+A")
        page.keyboard.type("4")
        expect(dialog.get_by_text("6 pegs of 3 students.")).to_be_visible()
        self.no_violation(page)
        move = dialog.get_by_role("button", name="Move 6 due dates")
        expect(move).to_be_enabled()
        move.press("Enter")
        expect(page.get_by_text("6 due dates moved for 3 students.")).to_be_visible()
        self.assertEqual(OwnDue.objects.count(), 6)
        expect(page.get_by_role("region", name="What to do with the chosen pegs")).to_have_count(0)
        page.get_by_role("button", name="Undo").press("Enter")
        expect(page.get_by_text("6 due dates are as before.")).to_be_visible()
        self.assertEqual(OwnDue.objects.count(), 0)

    def test_excused_by_dragging_and_a_row_and_a_column(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="Choose pegs").click()
        self.chosen(page, "No peg is chosen.")
        first, last = (self.cell(page, row, column).bounding_box() for row, column in ((0, 0), (2, 0)))
        assert first
        assert last
        page.mouse.move(first["x"] + 9, first["y"] + 9)
        page.mouse.down()
        page.mouse.move(last["x"] + 9, last["y"] + 9, steps=6)
        page.mouse.up()
        self.chosen(page, "3 pegs chosen of 3 students")
        page.get_by_role("checkbox", name="Choose all of Abel, Eve").check()
        self.chosen(page, "5 pegs chosen of 4 students")
        self.cell(page, -1, 1).click()
        self.chosen(page, "9 pegs chosen of 5 students")
        self.cell(page, 0, 0).click()  # not this one after all
        self.chosen(page, "8 pegs chosen of 5 students")
        self.no_violation(page)
        page.get_by_role("button", name="Excuse").click()
        # Meanwhile one of them is handed in: it is left alone and said.
        builders.fill(self.books[4], self.card.pockets.get(), self.now)
        builders.hand_in(self.books[4], self.card, self.now)
        page.get_by_role("dialog").get_by_role("button", name="Excuse").click()
        expect(page.get_by_text("5 students are excused (7 pegs).")).to_be_visible()
        self.assertEqual(KeptFacts.objects.filter(excused=True).count(), 7)
        undo(page)
        expect(page.get_by_text("The excuse is ended for 5 students (7 pegs).")).to_be_visible()
        self.assertEqual(KeptFacts.objects.filter(excused=True).count(), 0)

    def test_those_who_owe_are_reminded_each_of_their_own(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        self.cell(page, 0, 0).focus()
        page.keyboard.press("Control+a")
        page.get_by_role("button", name="Remind …").click()
        dialog = page.get_by_role("dialog", name="Remind")
        words = dialog.get_by_label("Your words")
        expect(words).to_be_focused()
        words.fill("Dear {name}, still missing:\n{missing}")
        expect(dialog.get_by_text("5 students are told this")).to_be_visible()
        expect(dialog.get_by_text("Dear Ada, still missing:")).to_be_visible()
        expect(dialog.get_by_text("1 is left alone: handed in (Abel, Ada)")).to_be_visible()
        dialog.get_by_text("Abel, Bea", exact=True).click()
        expect(dialog.get_by_text("which has passed").first).to_be_visible()
        self.no_violation(page)
        dialog.get_by_role("button", name="Remind 5 students").click()
        expect(page.get_by_text("5 students are reminded.")).to_be_visible()
        student = self.page(self.books[1].enrolment.person, f"{self.base}/to-hand-in", PHONE)
        told = student.get_by_role("region", name="Reminder")
        expect(told).to_contain_text("Dear Bea, still missing:")
        expect(told).to_contain_text("Recipe card")
        self.no_violation(student)
        self.cell(page, 1, 0).click()
        panel = page.get_by_role("complementary", name="The chosen peg")
        expect(panel.get_by_role("heading", name="Reminded")).to_be_visible()
        # Once more on the same day is asked about first; the words are still there.
        self.cell(page, 1, 1).focus()
        page.keyboard.press("Control+ ")
        page.get_by_role("button", name="Remind …").click()
        expect(words).to_have_value("Dear {name}, still missing:\n{missing}")
        expect(dialog.get_by_role("button", name="Remind", exact=True)).to_have_attribute("aria-disabled", "true")
        dialog.get_by_label("Also those reminded today already: Abel, Bea").check()
        dialog.get_by_role("button", name="Remind 1 student").click()
        expect(page.get_by_text("1 student is reminded.")).to_be_visible()
        self.assertEqual(Reminder.objects.count(), 6)

    def test_what_a_filter_hides_is_not_touched_and_escape_lets_go(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        self.cell(page, 0, 0).focus()
        page.keyboard.press("Control+a")
        self.chosen(page, "10 pegs chosen of 5 students")
        page.get_by_role("button", name="Overdue 4").click()
        self.chosen(page, "8 pegs chosen of 4 students")
        self.cell(page, 0, 0).focus()
        page.keyboard.press("Escape")
        expect(page.get_by_role("region", name="What to do with the chosen pegs")).to_have_count(0)

    def test_ordered_filtered_and_taken_along_as_shown(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.context.grant_permissions(["clipboard-read", "clipboard-write"])
        order = page.get_by_role("button", name="Order of the students: by surname")
        order.press("ArrowDown")  # leads into its list, not along the pegs
        page.get_by_role("option", name="most to mark first").click()
        expect(page).to_have_url(re.compile("order=to_mark"))
        expect(page.get_by_role("rowheader").first).to_contain_text("Ada")
        page.get_by_role("button", name="Order of the students: most to mark first").click()
        page.get_by_role("option", name="most overdue first").click()
        expect(page.get_by_role("rowheader").first).to_contain_text("Bea")
        expect(page.get_by_role("rowheader").last).to_contain_text("Ada")
        page.get_by_role("button", name="Overdue 4").click()
        along = page.get_by_role("button", name="Take these pegs along")
        along.click()
        expect(page.get_by_text("4 students, 2 hand-ins, as shown")).to_be_visible()
        with page.expect_download() as taken:
            page.get_by_role("menuitem", name="Plain table (CSV)").click()
        text = Path(taken.value.path()).read_text("utf-8-sig")
        self.assertEqual([line.split(",")[1] for line in text.splitlines()[1:]], ["Bea", "Cyr", "Dee", "Eve"])
        along.click()
        page.get_by_role("menuitem", name="Copy as a table").click()
        expect(page.get_by_text("Copied: 4 students by 2 hand-ins.")).to_be_visible()
        copied = page.evaluate("() => navigator.clipboard.readText()").splitlines()
        self.assertEqual(
            [line.split("\t")[0] for line in copied[1:]], ["Abel, Bea", "Abel, Cyr", "Abel, Dee", "Abel, Eve"]
        )
        self.assertIn("overdue", copied[1])
        page.evaluate("window.print = () => { document.title = 'printing'; }")
        along.click()
        page.get_by_role("menuitem", name="Print").click()
        page.wait_for_function("document.title === 'printing'")
        (sheet,) = self.printed(page)
        self.assertIn("8Plot·Growing&Cooking·Overdue·", sheet)
        self.assertIn("4of5students", sheet)
        self.assertTrue("Abel,Bea" in sheet and "Abel,Ada" not in sheet)
        self.assertNotIn("Takethesepegs", sheet)
        page.reload()
        expect(page.get_by_role("button", name="Order of the students: most overdue first")).to_be_visible()
        self.no_violation(page)

    def test_a_click_still_opens_a_peg_and_who_only_looks_chooses_nothing(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        self.cell(page, 1, 0).click()
        expect(page.get_by_role("complementary", name="The chosen peg")).to_be_visible()
        observer = self.page(self.eight.staff("obs", Role.OBSERVER), f"{self.base}/pegs")
        self.cell(observer, 0, 0).focus()
        observer.keyboard.press("Control+a")
        expect(observer.get_by_role("button", name="Choose pegs")).to_have_count(0)
        expect(observer.get_by_role("region", name="What to do with the chosen pegs")).to_have_count(0)

    def test_by_touch_on_a_phone(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs", PHONE)
        page.get_by_role("button", name="Choose pegs").click()
        self.cell(page, 0, 0).press("Enter")
        self.cell(page, 1, 0).press("Enter")
        self.chosen(page, "2 pegs chosen of 2 students")
        self.fits(page)
