"""A hand-in over the term: moved on after lost days, closed, taken along whole; a student's work over all classes."""

from __future__ import annotations

import re
import zipfile
from datetime import timedelta

from playwright.sync_api import expect

from coatpeg.core.policy import Role
from coatpeg.handins.many import closing
from coatpeg.handins.models import HandIn, Pack, Submission
from coatpeg.handins.packs import making
from coatpeg.people.models import Enrolment, StaffRole
from coatpeg.portfolios.models import Portfolio
from tests import builders
from tests.browser.case import PHONE, BrowserCase
from tests.builders import klass


class WholeTerm(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi")
        self.student = self.thandi.enrolment.person
        self.handin = self.eight.handin(
            self.card, title="Recipe card", opens=self.day(-9), due=self.day(1), now=self.now
        )
        self.base = f"/g/{self.eight.group.pk}"

    def test_all_dates_are_moved_on_after_a_lost_week_by_the_keyboard_alone(self) -> None:
        second = klass("9 Forge", "forge", today=self.today)
        StaffRole.objects.create(group=second.group, person=self.eight.lead, role=Role.CO_TEACHER.value)
        second.student(None, "Sam", "Reyes")
        there = second.handin(second.pocket(), title="Nails", opens=self.day(-2), due=self.day(3), now=self.now)
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        page.get_by_role("button", name="Move on …").press("Enter")
        dialog = page.get_by_role("dialog", name="Move on after lost days")
        expect(dialog.get_by_label("School days")).to_be_focused()
        expect(dialog.get_by_text("1 date moves:")).to_be_visible()
        page.keyboard.press("Control+A")
        page.keyboard.type("3")
        dialog.get_by_label("In all my classes").press(" ")
        expect(dialog.get_by_text("2 dates move:")).to_be_visible()
        expect(dialog.get_by_text("Nails · 9 Forge")).to_be_visible()
        self.no_violation(page)
        dialog.get_by_role("button", name="Move 2 dates").press("Enter")
        expect(page.get_by_text("2 dates are moved on; who is asked is told.")).to_be_visible()
        for one, before in ((self.handin, self.day(1)), (there, self.day(3))):
            one.refresh_from_db()
            self.assertGreater(one.due_day, before)
        page.get_by_role("button", name="Undo").press("Enter")
        expect(page.get_by_text("2 dates are as before.")).to_be_visible()
        self.handin.refresh_from_db()
        self.assertEqual(self.handin.due_day, self.day(1))

    def test_it_closes_and_takes_in_what_stands(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.page(self.eight.lead, f"{self.base}/hand-ins?change={self.handin.pk}")
        page.get_by_text("More: directions, closing, afterwards").click()
        expect(page.get_by_label("Once it has closed")).to_have_count(0)
        closes = page.get_by_label("Closes", exact=True)
        closes.fill(self.day(2).isoformat())
        closes.blur()
        page.get_by_label("Once it has closed").select_option(label="what lies there is handed in as it stands")
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“Recipe card” is changed.")).to_be_visible()
        self.assertTrue(closing.close(self.handin.pk, self.now + timedelta(days=3)))
        student = self.page(self.student, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}", PHONE)
        expect(student.get_by_text("It was taken in as it stood when it closed.")).to_be_visible()
        with student.expect_download() as saved:
            student.get_by_role("link", name="Receipt as PDF").first.click()
        receipt = Submission.objects.get().receipt
        self.assertEqual(saved.value.suggested_filename, f"receipt-{receipt}.pdf")
        self.assertEqual(saved.value.path().read_bytes()[:5], b"%PDF-")
        self.no_violation(student)

    def test_all_that_was_handed_in_is_taken_along_as_one_file(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        builders.hand_in(self.thandi, self.handin, self.now)
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        page.get_by_role("button", name="More to do with Recipe card").click()
        page.get_by_role("menuitem", name="All that was handed in, as a zip …").click()
        dialog = page.get_by_role("dialog", name="Recipe card: all that was handed in")
        expect(dialog.get_by_text("Putting it together: 0 of 1 student")).to_be_visible()
        self.no_violation(page)
        making.make_pack.func(Pack.objects.get().pk)
        expect(dialog.get_by_text(re.compile("^Ready: 1 student"))).to_be_visible()
        with page.expect_download() as saved:
            dialog.get_by_role("link", name="Save the file").click()
        with zipfile.ZipFile(saved.value.path()) as opened:
            self.assertTrue(all(name.startswith("Dube, Thandi/Recipe card") for name in opened.namelist()))

    def test_what_waits_in_other_classes_stands_below(self) -> None:
        crew = klass("Stage crew", "crew", today=self.today)
        enrolment = Enrolment.objects.create(
            group=crew.group, person=self.student, first=crew.group.first, picture="leaf"
        )
        there = Portfolio.objects.create(enrolment=enrolment)
        pocket = crew.pocket("Lights")
        crew.handin(pocket, title="Lighting plan", opens=self.day(-5), due=self.day(-1), now=self.now)
        page = self.page(self.student, f"{self.base}/to-hand-in", PHONE)
        others = page.get_by_role("region", name="In your other classes")
        expect(others.get_by_role("link")).to_contain_text("Stage crew")
        self.no_violation(page)
        self.fits(page)
        others.get_by_role("link").click()
        expect(page).to_have_url(f"{self.live_server_url}/g/{crew.group.pk}/portfolio/{there.pk}/{pocket.pk}")
        self.assertEqual(HandIn.objects.count(), 2)

    def test_a_series_is_set_and_changed_from_here_on(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins?new=1")
        page.get_by_label("Title").fill("Weekly look")
        page.get_by_role("checkbox", name="Recipe card").check()
        due = page.get_by_label("Due", exact=True)
        due.fill(self.day(2).isoformat())
        due.blur()
        page.get_by_role("combobox", name=re.compile("^Again")).select_option(label="every week")
        until = page.get_by_label("Until", exact=True)
        until.fill(self.day(2 + 3 * 7).isoformat())
        until.blur()
        who = page.get_by_role("region", name="Who will get it")
        expect(who.get_by_text("4 hand-ins, each opening the day after the one before:")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("4 hand-ins are set, from “Weekly look 1” on.")).to_be_visible()
        page.get_by_role("link", name="Change Weekly look 3").click()
        page.get_by_role("radio", name="from here on: this one and the 1 after it").check()
        page.get_by_label("Points").fill("6")
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“Weekly look 3” is changed.")).to_be_visible()
        found = HandIn.objects.filter(title__startswith="Weekly").order_by("series_place")
        self.assertEqual([one.points is not None for one in found], [False, False, True, True])
