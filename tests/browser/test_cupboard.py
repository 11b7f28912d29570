"""The cupboard beside every view: put in, read, copied, given out, looked into, stopped, taken back."""

from __future__ import annotations

import re
from datetime import timedelta
from pathlib import Path
from tempfile import TemporaryDirectory

from django.core.files.base import ContentFile
from playwright.sync_api import Locator, Page, expect

from coatpeg.core.cupboard.items import ItemKind
from coatpeg.core.policy import Role
from coatpeg.cupboard import giving, keeping
from coatpeg.cupboard.models import CupboardCopy, CupboardItem
from coatpeg.outlines.models import GivenFile
from coatpeg.people.models import StaffRole
from coatpeg.portfolios.models import Evidence, StandingHold
from tests.browser.case import PHONE, TABLET, BrowserCase, undo
from tests.builders import klass


class Cupboard(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.log = self.eight.pocket("Crop log", "log")
        self.thandi = self.eight.student("thandi", period="P3")
        self.josh = self.eight.student("josh", "Josh", "Ellery", period="P4")
        self.base = f"/g/{self.eight.group.pk}"

    def item(self, title: str = "Kitchen safety check", **more: object) -> CupboardItem:
        plan = keeping.ItemPlan(title, "Week 9", html="<p>I wash my hands …</p>", **more)  # type: ignore[arg-type]
        return keeping.put_in(self.eight.lead, self.eight.group.pk, ItemKind.PAGE, plan, self.now)

    def drawer(self, page: Page) -> Locator:
        return page.get_by_role("complementary", name="Cupboard")

    def drag(self, page: Page, source: Locator, target: Locator) -> None:
        """As a mouse drags: the browser's own drag and drop."""
        expect(target).to_be_visible()
        source.drag_to(target)

    def test_a_page_a_link_and_files_are_put_in_shown_changed_and_taken_out(self) -> None:
        self.expected_complaints.append("422")
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("grid").wait_for()
        page.keyboard.press("c")
        drawer = self.drawer(page)
        expect(drawer.get_by_text("Nothing lies here yet.")).to_be_visible()
        drawer.get_by_role("button", name="Put in").click()
        page.get_by_role("menuitem", name="A page to write").click()
        dialog = page.get_by_role("dialog", name="A page for the cupboard")
        expect(dialog.get_by_label("Title")).to_be_focused()
        dialog.get_by_role("button", name="Put it in", exact=True).click()
        expect(dialog.get_by_text("It has no title yet.")).to_be_visible()
        dialog.get_by_label("Title").fill("Words of the garden")
        dialog.get_by_label("Under").fill("All term")
        dialog.get_by_role("textbox", name="What stands on it").fill("Mulch covers the soil.")
        self.no_violation(page)
        # What was typed is not lost with the page.
        page.reload()
        drawer.get_by_role("button", name="Put in").click()
        page.get_by_role("menuitem", name="A page to write").click()
        expect(dialog.get_by_label("Title")).to_have_value("Words of the garden")
        dialog.get_by_label("Title").press("Enter")
        expect(drawer.get_by_role("heading", name="Words of the garden")).to_be_visible()
        expect(drawer.get_by_text("Mulch covers the soil.")).to_be_visible()
        page.keyboard.press("Escape")
        with TemporaryDirectory() as folder:
            sheet = Path(folder) / "knots.txt"
            sheet.write_text("Bowline.")
            drawer.get_by_label("Files").set_input_files(sheet)
            expect(page.get_by_text("It is in: for staff only until you show it.")).to_be_visible()
        drawer.get_by_role("button", name=re.compile("^knots.txt")).click()
        drawer.get_by_role("button", name="Show it to students").click()
        expect(page.get_by_text("“knots.txt” is shown to students.")).to_be_visible()
        # Whether its preview is ready may be asked in the very moment in which it is taken out.
        self.expected_complaints.append("404")
        drawer.get_by_role("button", name="Take out").click()
        expect(page.get_by_text("“knots.txt” is taken out of the cupboard. Copies stay.")).to_be_visible()
        expect(drawer.get_by_role("button", name=re.compile("^knots.txt"))).to_have_count(0)
        undo(page)
        expect(drawer.get_by_role("button", name=re.compile("^knots.txt"))).to_be_visible()
        drawer.get_by_role("searchbox").fill("garden")
        expect(drawer.get_by_role("listitem")).to_have_count(1)
        page.keyboard.press("Escape")
        expect(drawer).to_have_count(0)
        expect(page.get_by_role("button", name="Cupboard")).to_be_focused()

    def test_staff_look_at_it_as_students_see_it(self) -> None:
        three = self.eight.period("P3")
        self.item("For all")
        self.item("For P3", periods=(three.pk,))
        self.item("Next week", opens=self.day(7))
        self.item("Hidden", staff_only=True)
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="Cupboard", exact=True).click()
        drawer = self.drawer(page)
        expect(drawer.get_by_role("listitem")).to_have_count(4)
        for eyes, titles in (
            ("students of P3", ["For all", "For P3"]),
            ("students of no period or group", ["For all"]),
        ):
            drawer.get_by_role("button", name=re.compile("^Seen by")).click()
            page.get_by_role("option", name=eyes).click()
            expect(drawer.get_by_role("listitem")).to_have_count(len(titles))
            for title in titles:
                expect(drawer.get_by_role("button", name=re.compile(f"^{title}"))).to_be_visible()
        expect(drawer.get_by_role("button", name="Put in")).to_have_count(0)
        self.no_violation(page)
        drawer.get_by_role("button", name=re.compile("^For all")).click()
        expect(drawer.get_by_text("I wash my hands …")).to_be_visible()
        expect(drawer.get_by_role("button", name="Give out")).to_have_count(0)

    def test_an_item_is_lent_to_another_class_and_changed_where_it_comes_from(self) -> None:
        self.item()
        nine = klass("9 Forge", "marsh", today=self.today)
        StaffRole.objects.create(group=nine.group, person=self.eight.lead, role=Role.CO_TEACHER.value)
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="Cupboard").click()
        drawer = self.drawer(page)
        drawer.get_by_role("button", name=re.compile("^Kitchen safety check")).click()
        drawer.get_by_role("button", name="Lend to other classes").click()
        dialog = page.get_by_role("dialog", name="Lend “Kitchen safety check”")
        expect(dialog.get_by_label("9 Forge")).to_be_focused()
        self.no_violation(page)
        page.keyboard.press("Space")
        page.keyboard.press("Enter")
        expect(page.get_by_text("It is lent to 1 class.")).to_be_visible()
        there = self.page(nine.lead, f"/g/{nine.group.pk}/pegs")
        there.get_by_role("button", name="Cupboard").click()
        lent = self.drawer(there)
        lent.get_by_role("button", name=re.compile("^Kitchen safety check")).click()
        expect(lent.get_by_text(re.compile("lent from 8 Plot"))).to_be_visible()
        expect(lent.get_by_role("button", name="Lend to other classes")).to_have_count(0)
        lent.get_by_role("button", name="Change", exact=True).click()
        form = there.get_by_role("dialog", name="Change “Kitchen safety check”")
        expect(form.get_by_text(re.compile("what is in it is changed there"))).to_be_visible()
        expect(form.get_by_role("textbox", name="What stands on it")).to_have_count(0)
        form.get_by_label("staff only, until it is shown or given out").check()
        self.no_violation(there)
        form.get_by_role("button", name="Save").click()
        expect(there.get_by_text("“Kitchen safety check” is saved.")).to_be_visible()
        # It stands open in the other class, where it is gone with this.
        self.expected_complaints.append("404")
        undo(page)
        expect(page.get_by_text("It is lent to no class of yours.")).to_be_visible()

    def test_an_item_is_laid_with_a_pocket_of_the_template_by_dragging_and_by_a_press(self) -> None:
        self.item()
        sheet = keeping.put_file_in(
            self.eight.lead, self.eight.group.pk, ContentFile(b"Bowline."), "knots.txt", self.now
        )
        page = self.page(self.eight.lead, f"{self.base}/template?pocket={self.card.pk}")
        directions = page.get_by_role("textbox", name="Directions students see")
        expect(directions).to_be_visible()
        page.get_by_role("button", name="Cupboard", exact=True).click()
        drawer = self.drawer(page)
        line = drawer.get_by_role("button", name=re.compile("^Kitchen safety check"))
        self.drag(page, line, directions)
        expect(directions).to_contain_text("I wash my hands …")
        expect(page.get_by_text("“Kitchen safety check” stands in “Recipe card” now.")).to_be_visible()
        undo(page)
        expect(directions).not_to_contain_text("I wash my hands …")
        drawer.get_by_role("button", name=re.compile("^knots.txt")).click()
        drawer.get_by_role("button", name="Lay it with “Recipe card”").click()
        expect(page.get_by_text("“knots.txt” is given with “Recipe card”.")).to_be_visible()
        given = page.get_by_role("region", name="Given with the directions")
        expect(given.get_by_role("link", name="knots.txt")).to_be_visible()
        self.no_violation(page)
        made = GivenFile.objects.get(pocket=self.card)
        self.assertEqual((made.stored_id, made.role), (sheet.stored_id, "directions"), "the very bytes, kept once")

    def test_what_is_written_on_the_spot_is_given_out_in_one_go(self) -> None:
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        page.get_by_role("button", name="Cupboard").click()
        self.drawer(page).get_by_role("button", name="Put in").click()
        page.get_by_role("menuitem", name="A page to write").click()
        dialog = page.get_by_role("dialog", name="A page for the cupboard")
        dialog.get_by_label("Title").fill("Before you go")
        dialog.get_by_role("textbox", name="What stands on it").fill("One thing you learnt today …")
        self.no_violation(page)
        dialog.get_by_role("button", name="Put it in and give it out …").click()
        giving_it = page.get_by_role("dialog", name="Give out “Before you go”")
        giving_it.get_by_label("Into the pocket").select_option(str(self.card.pk))
        expect(giving_it.get_by_text("2 students get a copy.")).to_be_visible()
        giving_it.get_by_role("button", name="Give 2 copies").click()
        expect(giving_it).to_have_count(0)
        self.assertEqual(CupboardCopy.objects.count(), 2)
        self.assertTrue(CupboardItem.objects.get().staff_only, "nothing of it is seen but by who got a copy")

    def test_what_was_given_out_hangs_on_the_rail_and_leads_to_its_line(self) -> None:
        item = self.item()
        given = giving.give(self.eight.lead, giving.Giving(item.pk, self.card.pk), "rail", self.now)
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        tag = page.get_by_role("link", name=re.compile("^Kitchen safety check, given out"))
        expect(tag).to_be_visible()
        self.no_violation(page)
        tag.click()
        expect(page).to_have_url(re.compile(f"hand-ins.given={given.pk}$"))
        line = (
            page.get_by_role("listitem").filter(has_text="Kitchen safety check").filter(has=page.get_by_role("button"))
        )
        expect(line).to_be_focused()

    def test_where_a_hand_in_hangs_what_was_given_out_stands_on_the_plank_and_moves_nothing(self) -> None:
        hanging = self.eight.handin(self.card, due=self.today)
        page = self.page(self.eight.lead, f"{self.base}/pegs")
        rail = page.get_by_role("region", name=re.compile("^The term's weeks"))
        expect(rail.get_by_role("button", name=hanging.title)).to_be_visible()
        height = rail.evaluate("(one) => one.offsetHeight")
        first, second = self.item(), self.item("Knife sheet")
        giving.give(self.eight.lead, giving.Giving(first.pk, self.card.pk), "rail", self.now)
        page.reload()
        expect(rail.get_by_role("link", name=re.compile("^Kitchen safety check, given out"))).to_be_visible()
        giving.give(self.eight.lead, giving.Giving(second.pk, self.card.pk), "rail too", self.now)
        page.reload()
        rail.get_by_role("button", name="2 given out this week").click()
        self.no_violation(page)
        expect(page.get_by_role("menuitem", name=re.compile("^Knife sheet, given out"))).to_be_visible()
        self.assertEqual(rail.evaluate("(one) => one.offsetHeight"), height)
        page.get_by_role("menuitem", name=re.compile("^Kitchen safety check, given out")).click()
        expect(page).to_have_url(re.compile("hand-ins.given="))

    def test_a_copy_by_touch_is_the_students_own_and_can_be_put_back(self) -> None:
        self.item()
        for size in (TABLET, PHONE):
            with self.subTest(str(size)):
                page = self.page(self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}", size)
                page.get_by_role("button", name="Cupboard").click()
                drawer = self.drawer(page)
                drawer.get_by_role("button", name=re.compile("^Kitchen safety check")).click()
                expect(drawer.get_by_text("I wash my hands …")).to_be_visible()
                self.no_violation(page)
                drawer.get_by_role("button", name="Take a copy").click()
                expect(drawer.get_by_role("button", name="Crop log")).to_have_count(0)
                drawer.get_by_role("button", name="Recipe card").click()
                expect(page.get_by_text("Your copy lies in “Recipe card”.")).to_be_visible()
                drawer.get_by_role("link", name="Go to your copy in “Recipe card”").click()
                expect(page.get_by_text("A copy of “Kitchen safety check” from the cupboard")).to_be_visible()
                undo(page)
                expect(page.get_by_text("The copy is put back.")).to_be_visible()
                expect(page.get_by_text("A copy of “Kitchen safety check”")).to_have_count(0)

    def test_dragged_onto_a_pocket_it_is_copied_there(self) -> None:
        self.item()
        page = self.page(self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}")
        page.get_by_role("heading", name="Recipe card").wait_for()
        page.keyboard.press("c")
        source = self.drawer(page).get_by_role("button", name=re.compile("^Kitchen safety check"))
        pocket = page.get_by_role("navigation", name="Pockets").get_by_role("link", name=re.compile("^Recipe card"))
        self.drag(page, source, pocket)
        expect(page.get_by_text("Your copy lies in “Recipe card”.")).to_be_visible()
        writing = page.get_by_role("textbox", name=re.compile("Kitchen safety check"))
        expect(writing).to_contain_text("I wash my hands")
        writing.fill("I wash mine twice.")
        expect(page.get_by_text("Saved", exact=False).first).to_be_visible()

    def test_prepared_in_private_given_to_some_stepped_through_stopped_and_gone_on_with(self) -> None:
        item = self.item(staff_only=True)
        self.eight.handin(self.card)
        page = self.page(self.eight.lead, f"{self.base}/pegs?period=P3")
        page.get_by_role("grid").wait_for()
        page.get_by_role("button", name="Cupboard").click()
        source = self.drawer(page).get_by_role("button", name=re.compile("^Kitchen safety check"))
        self.drag(page, source, page.get_by_role("grid").get_by_text("Dube"))
        dialog = page.get_by_role("dialog", name="Give out “Kitchen safety check”")
        expect(dialog.get_by_role("radio", name="chosen students")).to_be_checked()
        dialog.get_by_label("Into the pocket").select_option(label="Recipe card")
        expect(dialog.get_by_text("1 student gets a copy.")).to_be_visible()
        dialog.get_by_label("the whole class").check()
        expect(dialog.get_by_text("2 students get a copy.")).to_be_visible()
        dialog.get_by_role("radio", name="at a moment; until then students see nothing of it").check()
        expect(dialog.get_by_role("button", name="Give 2 copies then")).to_have_attribute("aria-disabled", "true")
        dialog.get_by_label("Day").fill("tomorrow")
        self.no_violation(page)
        dialog.get_by_role("button", name="Give 2 copies then").click()
        expect(page.get_by_text(re.compile("“Kitchen safety check” is given out .*, in “Recipe card”"))).to_be_visible()
        page.get_by_role("link", name="Hand-ins").click()
        waits = page.get_by_role("region", name="Given out")
        expect(waits.get_by_text("waits for", exact=False)).to_be_visible()
        waits.get_by_role("button", name="Not after all").click()
        expect(waits.get_by_text("taken back", exact=False)).to_be_visible()
        page.get_by_role("link", name="Pegs").click()
        self.drag(page, source, page.get_by_role("grid").get_by_text("Dube"))
        dialog.get_by_label("Into the pocket").select_option(label="Recipe card")
        dialog.get_by_label("the whole class").check()
        expect(dialog.get_by_text("2 students get a copy.")).to_be_visible()
        self.no_violation(page)
        dialog.get_by_role("button", name="Give 2 copies").click()
        expect(page.get_by_text("“Kitchen safety check” is given to 2 students, in “Recipe card”.")).to_be_visible()
        student = self.page(
            self.thandi.enrolment.person, f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}", PHONE
        )
        writing = student.get_by_role("textbox", name=re.compile("Kitchen safety check"))
        writing.fill("I wash mine twice.")
        expect(student.get_by_text("Saved", exact=False).first).to_be_visible()
        page.get_by_role("link", name="Hand-ins").click()
        part = page.get_by_role("region", name="Given out")
        expect(part.get_by_text("1 not opened · 1 begun")).to_be_visible()
        self.no_violation(page)
        part.get_by_role("link", name="Look in: everybody’s “Recipe card”").first.click()
        expect(page.get_by_role("link", name=re.compile("Ellery, Josh.*Not opened"))).to_be_visible()
        page.get_by_role("button", name="Stop work for 2").click()
        page.get_by_role("dialog").get_by_role("button", name=re.compile("^Lock")).click()
        expect(page.get_by_role("button", name="Let 2 go on")).to_be_visible()
        expect(student.get_by_text("Locked", exact=False).first).to_be_visible()
        self.no_violation(page)
        # Those who have begun come first, one after the other by one key.
        page.keyboard.press("n")
        expect(page.get_by_role("region", name="Looking in").get_by_text("Thandi Dube")).to_be_visible()
        page.keyboard.press("n")
        expect(page.get_by_role("region", name="Looking in").get_by_text("Josh Ellery")).to_be_visible()
        page.get_by_role("link", name="The class").click()
        page.get_by_role("button", name="Let 2 go on").click()
        page.get_by_role("dialog").get_by_role("button", name=re.compile("^Open")).click()
        expect(page.get_by_role("button", name="Stop work for 2")).to_be_visible()
        expect(student.get_by_role("textbox", name=re.compile("Kitchen safety check"))).to_have_text(
            "I wash mine twice."
        )
        self.assertFalse(StandingHold.objects.exists())
        self.assertEqual(CupboardCopy.objects.filter(item=item).count(), 2)

    def test_taken_back_by_the_keyboard_from_whoever_has_not_begun(self) -> None:
        item = self.item()
        giving.give(self.eight.lead, giving.Giving(item.pk, self.card.pk), "key", self.now - timedelta(minutes=5))
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        take = page.get_by_role("button", name=re.compile("^Take back “Kitchen safety check”"))
        take.focus()
        page.keyboard.press("Enter")
        expect(page.get_by_text("It is taken back from everybody.")).to_be_visible()
        expect(page.get_by_text("2 taken out")).to_be_visible()
        undo(page)
        expect(page.get_by_text("It is given again.")).to_be_visible()
        self.assertEqual(Evidence.objects.filter(removed_at=None).count(), 2)

    def test_dragged_onto_a_week_it_is_shown_from_then_on(self) -> None:
        item = self.item(staff_only=True)
        page = self.page(self.eight.lead, f"{self.base}/hand-ins")
        page.get_by_role("button", name="Cupboard").click()
        source = self.drawer(page).get_by_role("button", name=re.compile("^Kitchen safety check"))
        week = (
            page.get_by_role("region", name=re.compile("weeks"))
            .get_by_role("listitem")
            .filter(has_text="this week")
            .first
        )
        self.drag(page, source, week)
        expect(page.get_by_text("Students see “Kitchen safety check” from", exact=False)).to_be_visible()
        item.refresh_from_db()
        self.assertFalse(item.staff_only)
        self.assertIsNotNone(item.opens)
        undo(page)
        expect(page.get_by_text("is shown as it was before")).to_be_visible()
        item.refresh_from_db()
        self.assertTrue(item.staff_only)
