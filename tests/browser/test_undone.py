"""What is taken away, set or carried over has its undo; and what is said of a pocket is so."""

from datetime import timedelta

from playwright.sync_api import Route, expect

from coatpeg.core.policy import Role
from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket
from coatpeg.setup.template import changing
from tests import builders
from tests.browser.case import PHONE, BrowserCase, undo
from tests.browser.test_logs import crop_log
from tests.builders import klass


class Undone(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.spare = self.eight.pocket("Tools", "page")
        self.thandi = self.eight.student("thandi")
        self.base = f"/g/{self.eight.group.pk}"

    def test_a_pocket_taken_away_is_brought_back_and_an_open_form_of_it_says_that_it_is_gone(self) -> None:
        co = self.eight.staff("co", Role.CO_TEACHER)
        other = self.page(co, f"{self.base}/template?pocket={self.spare.pk}")
        name = other.get_by_label("Name of the pocket")
        name.fill("Tools of the shed")
        page = self.page(self.eight.lead, f"{self.base}/template?pocket={self.spare.pk}")
        page.get_by_role("button", name="Take it away").click()
        expect(page.get_by_label("What saving means")).to_contain_text("takes away 1 pocket that nobody used")
        expect(page.get_by_label("Name of the pocket")).to_have_value("Recipe card")
        expect(name).to_be_visible()
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("1 change is saved in 1 portfolio.")).to_be_visible()
        # Nothing typed vanishes: it stands where the form was, and no other pocket's form takes its place.
        expect(other.get_by_text("This pocket is not in the template any more")).to_be_visible(timeout=8_000)
        expect(other.get_by_text("Tools of the shed")).to_be_visible()
        expect(name).to_have_count(0)
        expect(other.get_by_text("There is no such pocket in this template.")).to_be_visible()
        expect(other.get_by_role("button", name="Save for everyone")).to_be_disabled()
        self.no_violation(other)
        undo(page)
        expect(page.get_by_text("Undone.")).to_be_visible()
        page.get_by_role("navigation", name="Outline of the template").get_by_role("button", name="Tools").click()
        expect(page.get_by_label("Name of the pocket")).to_have_value("Tools")
        expect(name).to_have_value("Tools of the shed", timeout=8_000)
        self.assertTrue(Pocket.objects.filter(pk=self.spare.pk).exists())

    def test_a_section_taken_away_comes_back(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/template")
        outline = page.get_by_role("navigation", name="Outline of the template")
        outline.get_by_role("button", name="Section", exact=True).click()
        outline.get_by_label("Name of the new section").fill("The shed")
        page.keyboard.press("Enter")
        save = page.get_by_role("button", name="Save for everyone")
        save.click()
        expect(page.get_by_text("1 change is saved")).to_have_count(1)
        outline.get_by_role("button", name="Take away the section The shed").click()
        expect(outline.get_by_label("Name of the section The shed")).to_have_count(0)
        save.click()
        expect(page.get_by_text("1 change is saved")).to_have_count(2)
        undo(page)
        expect(outline.get_by_label("Name of the section The shed")).to_be_visible()

    def test_a_hand_in_just_set_is_taken_back_and_its_form_is_kept(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/hand-ins?new=1")
        page.get_by_role("button", name="New hand-in").or_(
            page.get_by_role("heading", name="New hand-in")
        ).first.click()
        page.get_by_label("Title").fill("Harvest so far")
        page.get_by_label("Recipe card").check()
        page.get_by_label("Due", exact=True).fill(self.day(9).isoformat())
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Harvest so far” is set.")).to_be_visible()
        undo(page)
        expect(page.get_by_text("“Harvest so far” is taken back. Its form is kept")).to_be_visible()
        self.assertFalse(HandIn.objects.exists())
        page.get_by_role("link", name="New hand-in").click()
        expect(page.get_by_label("Title")).to_have_value("Harvest so far")
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Harvest so far” is set.").last).to_be_visible()
        builders.fill(self.thandi, self.card, self.now)
        builders.hand_in(self.thandi, HandIn.objects.get(), self.now)
        self.expected_complaints.append("422")
        undo(page)
        expect(page.get_by_text("Somebody has handed in “Harvest so far” already")).to_be_visible()
        self.assertTrue(HandIn.objects.exists())

    def test_what_was_carried_over_goes_again_as_a_whole(self) -> None:
        self.eight.handin(self.card, due=self.day(3), opens=self.day(-3), now=self.now)
        self.expected_complaints.append("404")
        nine = klass("9 Forge", "marsh", today=self.today)
        builders.StaffRole.objects.create(group=self.eight.group, person=nine.lead, role=Role.OBSERVER)
        page = self.page(nine.lead, f"/g/{nine.group.pk}/template")
        page.get_by_role("button", name="Bring in a template").click()
        page.get_by_role("button", name="From another class").click()
        page.get_by_role("button", name="Carry over").click()
        expect(page.get_by_text("2 pockets and 1 hand-in carried over.")).to_be_visible()
        outline = page.get_by_role("navigation", name="Outline of the template")
        expect(outline.locator("li > button", has_text="Recipe card")).to_be_visible()
        undo(page)
        expect(page.get_by_text("Undone: the template is as it was.")).to_be_visible()
        expect(outline.locator("li > button", has_text="Recipe card")).to_have_count(0)
        self.assertFalse(HandIn.objects.filter(group=nine.group).exists())

    def test_a_message_lies_over_no_button_that_cannot_be_scrolled_clear_of_it(self) -> None:
        for number in range(30):
            self.eight.pocket(f"Pocket {number}", "page")
        page = self.page(self.eight.lead, f"{self.base}/template?pocket={self.spare.pk}")
        page.get_by_role("button", name="Take it away").click()
        page.get_by_role("button", name="Save for everyone").click()
        message = page.get_by_text("1 change is saved in 1 portfolio.")
        expect(message).to_be_visible()
        outline = page.get_by_role("navigation", name="Outline of the template")
        outline.evaluate("one => one.scrollTo(0, one.scrollHeight)")
        last = outline.get_by_role("button").last
        foot, top = last.bounding_box(), message.locator("..").bounding_box()
        assert foot is not None
        assert top is not None
        self.assertLessEqual(foot["y"] + foot["height"], top["y"])
        # A message that somebody is about to use waits for them.
        page.get_by_role("button", name="Undo").focus()
        page.wait_for_timeout(14_000)
        page.keyboard.press("Enter")
        expect(page.get_by_text("Undone.")).to_be_visible()

    def test_the_board_is_printed_whole(self) -> None:
        for number in range(70):
            self.eight.student(f"s{number}", "Ann", f"Fam{number}z")
        for number in range(14):
            self.eight.handin(self.card, title=f"Card {number}", due=self.day(3), opens=self.day(-3), now=self.now)
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        # What is printed has come.
        came = "performance.getEntriesByType('resource').some((one) => one.name.includes('PrintedBoard'))"
        for _ in range(100):
            if page.evaluate(came):
                break
            page.wait_for_timeout(100)
        page.wait_for_timeout(500)
        pages = self.printed(page)
        text = "".join(pages)
        for number in range(70):
            self.assertEqual(text.count(f"Fam{number}z,Ann"), 2, "once with each dozen of hand-ins")
        for one in pages:
            self.assertIn("Student", one, "the head stands on every page")
        self.assertTrue("Card13" in text and "handedin" in text)
        self.assertNotIn("Markingpile", text)
        expect(page.get_by_role("grid")).to_be_visible()
        expect(page.locator(".on-paper")).to_have_count(0)


class WhatIsSaid(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery")
        self.base = f"/g/{self.eight.group.pk}"

    def test_it_stays_locked_stands_only_beside_what_is_locked(self) -> None:
        one, two = (
            self.eight.handin(
                self.card, title=title, opens=self.day(-9), due=self.day(3), now=self.now - timedelta(days=9)
            )
            for title in ("First", "Second")
        )
        builders.fill(self.thandi, self.card, self.now)
        accepted = builders.hand_in(self.thandi, one, self.now)
        again = builders.hand_in(self.thandi, two, self.now)
        builders.mark(self.eight.lead, accepted, self.now)
        page = self.page(self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}", PHONE)
        expect(page.get_by_text("It stays locked.")).to_be_visible()
        expect(page.get_by_role("textbox").first).not_to_be_editable()
        builders.mark(self.eight.lead, again, self.now, accept=False)
        page.reload()
        expect(page.get_by_role("textbox").first).to_be_editable()
        expect(page.get_by_text("This pocket is open again. What was handed in stays as it was.")).to_be_visible()
        expect(page.get_by_text("It stays locked.")).to_have_count(0)

    def test_a_locked_starter_does_not_say_how_to_change_it(self) -> None:
        frame = builders.ContentFile(b"RECIPE CARD\n\nName:\n")
        changing.add_file(self.eight.lead, self.eight.group.pk, self.card.pk, frame, "frame.txt", "starter", self.now)
        handin = self.eight.handin(self.card, opens=self.day(-3), due=self.day(3), now=self.now)
        page = self.page(self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}")
        expect(page.get_by_text("Download it, make it yours, then put your own version in its place.")).to_be_visible()
        builders.hand_in(self.thandi, handin, self.now, even_if_empty=True)
        page.reload()
        expect(page.get_by_text("This is your copy, as everybody began.")).to_be_visible()
        expect(page.get_by_text("put your own version in its place")).to_have_count(0)
        expect(page.get_by_label("A newer version: frame.txt")).to_have_count(0)

    def test_the_key_for_the_next_student_waits_until_it_is_known_who_that_is(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.page(self.eight.lead, "/")
        held: list[Route] = []
        page.route("**/api/groups/*/pockets/*", lambda one: held.append(one))
        page.goto(f"{self.live_server_url}{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}")
        expect(page.get_by_role("heading", name="card.jpg")).to_be_visible()
        page.keyboard.press("n")
        self.assertTrue(held, "the list of the class is still on its way")
        for one in held:
            one.continue_()
        expect(page.get_by_text("Nothing is in this pocket yet.")).to_be_visible()
        self.assertTrue(page.url.endswith(f"/portfolio/{self.josh.pk}/{self.card.pk}"))

    def test_a_row_s_form_stands_once_on_every_size(self) -> None:
        log = crop_log(self.eight)
        path = f"{self.base}/portfolio/{self.thandi.pk}/{log.pk}"
        for size in ((1280, 800), PHONE):
            page = self.page(self.thandi.enrolment.person, path, size)
            expect(page.get_by_role("form", name="New row")).to_be_visible()
            self.assertEqual(page.locator("form[aria-label='New row']").count(), 1, size)
            page.get_by_label("Harvest (g)").fill("80")
            page.get_by_role("button", name="Add the row").click()
            page.get_by_role("button", name="Change this row").first.click()
            expect(page.get_by_role("form", name="Change the row")).to_be_visible()
            self.assertEqual(page.locator("form[aria-label='Change the row']").count(), 1, size)
