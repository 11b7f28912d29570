"""A hand-in that changes: said before, saved, undone; by two at once; closed, copied, taken away and brought back."""

from __future__ import annotations

from datetime import timedelta

from playwright.sync_api import Page, expect

from coatpeg.core.policy import Role
from coatpeg.handins.models import HandIn
from coatpeg.people.models import StaffRole
from coatpeg.portfolios.models import StandingHold
from tests import builders
from tests.browser.case import DESK, PHONE, BrowserCase, undo
from tests.builders import klass


class Changing(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi")
        self.bea = self.eight.student("bea", "Bea", "Abel")
        early = self.now - timedelta(days=8)
        self.handin = self.eight.handin(
            self.card, opens=self.day(-20), due=self.day(-3), now=early, title="Recipe card"
        )
        builders.fill(self.thandi, self.card, early)
        builders.hand_in(self.thandi, self.handin, early)
        self.base = f"/g/{self.eight.group.pk}"

    def open(self, page: Page, title: str = "Recipe card") -> None:
        page.get_by_role("link", name=f"Change {title}").click()
        expect(page.get_by_label("Title")).to_be_focused()

    def test_a_later_date_says_whom_it_moves_is_saved_and_undone(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        self.open(page)
        page.get_by_label("Due", exact=True).fill(self.day(4).isoformat())
        meant = page.get_by_role("region", name="Who will get it")
        expect(meant.get_by_text("1 student is no longer overdue")).to_be_visible()
        expect(meant.get_by_text("The one who has handed in keeps what they gave.")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“Recipe card” is changed.")).to_be_visible()
        row = page.get_by_role("row", name="Recipe card")
        expect(row.get_by_role("cell").last.locator("xpath=preceding-sibling::td[1]")).to_have_text("–")
        undo(page)
        expect(page.get_by_text("“Recipe card” is as it was.")).to_be_visible()
        self.assertEqual(HandIn.objects.get().due_day, self.day(-3))

    def test_two_change_it_at_once_and_neither_loses_anything(self) -> None:
        self.expected_complaints.append("409")
        co = self.eight.staff("co", Role.CO_TEACHER)
        mine, theirs = (self.page(one, f"{self.base}/hand-ins") for one in (self.eight.lead, co))
        for page, title in ((mine, "Recipe card, all"), (theirs, "Recipe card, tidy")):
            self.open(page)
            page.get_by_label("Title").fill(title)
        theirs.get_by_label("Points").fill("12")
        theirs.get_by_role("button", name="Save for everyone").click()
        expect(theirs.get_by_text("“Recipe card, tidy” is changed.")).to_be_visible()
        told = mine.get_by_role("status").filter(has_text="Somebody else has changed this meanwhile.")
        expect(told).to_contain_text("It says “Recipe card, tidy” now; you have “Recipe card, all”.")
        expect(mine.get_by_label("Title")).to_have_value("Recipe card, all")
        told.get_by_role("button", name="Keep mine").click()
        mine.get_by_role("button", name="Save for everyone").click()
        expect(mine.get_by_text("“Recipe card, all” is changed.")).to_be_visible()
        self.assertEqual(HandIn.objects.get().version, 3)

    def test_what_was_filled_in_survives_a_reload(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins?change={self.handin.pk}")
        page.get_by_label("Title").fill("Recipe card, half done")
        page.get_by_text("More: directions, closing, afterwards").click()
        page.get_by_role("textbox", name="Directions of its own").fill("Bring a spoon.")
        expect(page.get_by_role("button", name="Save for everyone")).not_to_have_attribute("aria-disabled", "true")
        page.wait_for_timeout(700)  # what is typed is kept when it has rested
        page.reload()
        expect(page.get_by_label("Title")).to_have_value("Recipe card, half done")
        expect(page.get_by_role("textbox", name="Directions of its own")).to_have_text("Bring a spoon.")
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("is changed.")).to_be_visible()
        student = self.page(self.bea.enrolment.person, f"{self.base}/portfolio/{self.bea.pk}/{self.card.pk}", PHONE)
        expect(student.get_by_text("Bring a spoon.")).to_be_visible()

    def test_closed_a_student_sees_that_it_takes_nothing_more_until_it_is_open_again(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        student = self.page(self.bea.enrolment.person, f"{self.base}/portfolio/{self.bea.pk}/{self.card.pk}", PHONE)
        hand_in = student.get_by_role("button", name="Hand in", exact=True)
        expect(hand_in).to_be_visible()
        more = page.get_by_role("button", name="More to do with Recipe card")
        more.click()
        page.get_by_role("menuitem", name="Close it now").click()
        expect(page.get_by_text("“Recipe card” is closed: it takes nothing more.")).to_be_visible()
        expect(student.get_by_text("It closed on")).to_be_visible(timeout=8_000)
        expect(hand_in).to_have_count(0)
        self.no_violation(student)
        student.get_by_role("link", name="To hand in").first.click()
        expect(student.get_by_text("Nothing is waiting for you.")).to_be_visible()
        expect(student.get_by_text("closed: it takes nothing more")).to_be_visible()
        more.click()
        page.get_by_role("menuitem", name="Open it again").click()
        expect(page.get_by_text("“Recipe card” is open again.")).to_be_visible()
        expect(student.get_by_text("Nothing is waiting for you.")).to_have_count(0, timeout=8_000)

    def test_taken_away_by_the_keyboard_it_stays_readable_and_comes_back(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        more = page.get_by_role("button", name="More to do with Recipe card")
        more.focus()
        page.keyboard.press("Enter")
        away = page.get_by_role("menuitem", name="Take away …")
        expect(away).to_be_visible()
        page.keyboard.press("End")
        page.keyboard.press("Enter")
        dialog = page.get_by_role("dialog", name="Take “Recipe card” away?")
        expect(dialog).to_contain_text("What 1 student handed in stays readable, with its receipt.")
        self.no_violation(page)
        dialog.get_by_role("button", name="Take it away").press("Enter")
        expect(page.get_by_text("“Recipe card” is taken away.")).to_be_visible()
        expect(page.get_by_text("Nothing is asked for yet.")).to_be_visible()
        self.assertFalse(StandingHold.objects.exists())
        submission = self.thandi.enrolment.submissions.get()
        read = self.page(
            self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}/submission/{submission.pk}"
        )
        expect(read.get_by_text(submission.receipt)).to_be_visible()
        page.get_by_role("button", name="Bring back Recipe card").click()
        expect(page.get_by_text("“Recipe card” is back as it was.")).to_be_visible()
        expect(page.get_by_role("row", name="Recipe card")).to_contain_text("1 of 2")
        self.assertEqual(StandingHold.objects.count(), 1)

    def test_one_like_it_in_another_class_is_looked_at_before_it_is_set(self) -> None:
        other = klass("7 Shed", "shed", today=self.today)
        StaffRole.objects.create(group=other.group, person=self.eight.lead, role=Role.LEAD.value)
        other.pocket()
        other.student("cyr", "Cyr", "Cole")
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        page.get_by_role("button", name="More to do with Recipe card").click()
        page.get_by_role("menuitem", name="One like it in 7 Shed").click()
        expect(page.get_by_label("Title")).to_have_value("Recipe card")
        expect(page.get_by_role("checkbox", name="Recipe card")).to_be_checked()
        expect(page.get_by_text("1 student will be asked")).to_be_visible()
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Recipe card” is set.")).to_be_visible()
        self.assertEqual(HandIn.objects.filter(group=other.group).count(), 1)

    def test_every_window(self) -> None:
        for size in (DESK, (640, 400), PHONE):
            page = self.page(self.eight.lead, f"{self.base}/hand-ins?change={self.handin.pk}", size)
            expect(page.get_by_label("Title")).to_be_focused()
            self.fits(page)
            self.no_violation(page)
