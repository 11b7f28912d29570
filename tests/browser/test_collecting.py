"""What a hand-in collects, looked at and taken along: told as a teacher and a student do it."""

import re
from pathlib import Path
from tempfile import TemporaryDirectory

import pypdfium2
from playwright.sync_api import Page, expect

from coatpeg.handins.models import HandIn
from coatpeg.outlines.models import Pocket
from coatpeg.portfolios.logs.rows import add_row
from tests import builders
from tests.background import run_waiting
from tests.browser.case import BrowserCase, choose, picture_file, undo

COLUMNS = [{"key": "crop", "title": "Crop", "type": "text", "required": True}]


class Collecting(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card, self.about = self.eight.pocket(), self.eight.pocket("About me", "page")
        self.thandi, self.josh = self.eight.student("thandi"), self.eight.student("josh", "Josh", "Ellery")
        self.group = f"/g/{self.eight.group.pk}"

    def form(self, title: str) -> Page:
        page = self.page(self.eight.lead, f"{self.group}/hand-ins?new=1")
        page.get_by_label("Title", exact=True).fill(title)
        return page

    def test_a_section_with_what_is_added_to_it_later(self) -> None:
        page = self.form("Kitchen review")
        later = page.get_by_label(re.compile("^What is added later to"))
        expect(later).to_have_count(0)
        page.get_by_label("The whole portfolio").check()
        later.check()
        page.get_by_label("About me").uncheck()
        expect(later).to_have_count(0)
        page.get_by_label("About me").check()
        expect(later).not_to_be_checked()
        later.check()
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Kitchen review” is set.")).to_be_visible()

        page.goto(f"{page.url.split('/g/')[0]}{self.group}/template")
        page.get_by_role("button", name=re.compile("Add a pocket to")).last.click()
        page.get_by_label(re.compile("^New pocket in")).fill("Menu")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Name of the pocket")).to_have_value("Menu")
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("1 change is saved")).to_be_visible()
        self.assertIn("Menu", list(HandIn.objects.get().pockets.values_list("title", flat=True)))

    def test_anything_that_fits_is_put_in_and_handed_in(self) -> None:
        page = self.form("A find")
        page.get_by_label("Anything: students put in what fits").check()
        expect(page.get_by_text("It has a pocket of its own then")).to_be_visible()
        expect(page.get_by_label("Recipe card")).to_have_count(0)
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“A find” is set.")).to_be_visible()
        student = self.page(self.thandi.enrolment.person, f"{self.group}/to-hand-in")
        student.get_by_role("link", name=re.compile("A find")).first.click()
        folder = Path(self.enterContext(TemporaryDirectory()))
        choose(student, picture_file(folder, data=builders.jpeg()))
        expect(student.get_by_role("heading", name="card.jpg")).to_be_visible()
        student.get_by_role("button", name="Hand in", exact=True).click()
        expect(student.get_by_text("Receipt").first).to_be_visible()

    def test_only_the_new_rows_of_a_log(self) -> None:
        log = self.eight.pocket("Crop log", "log", log={"columns": COLUMNS})
        person = self.thandi.enrolment.person
        page = self.form("Week 1")
        page.get_by_label("Crop log").check()
        page.get_by_label("Of a log only the rows that were not handed in before").check()
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Week 1” is set.")).to_be_visible()
        page.get_by_role("button", name="More to do with Week 1").click()
        page.get_by_role("menuitem", name="Another one like it").click()
        page.get_by_label("Title", exact=True).fill("Week 2")
        expect(page.get_by_label("Of a log only the rows that were not handed in before")).to_be_checked()
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Week 2” is set.")).to_be_visible()
        first, second = HandIn.objects.order_by("pk")
        add_row(person, self.thandi.pk, log.pk, {"crop": "Beet"}, self.now)
        builders.hand_in(self.thandi, first, self.now)
        add_row(person, self.thandi.pk, log.pk, {"crop": "Kale"}, self.now)
        sent = builders.hand_in(self.thandi, second, self.now)
        page.goto(f"{page.url.split('/g/')[0]}{self.group}/pile/{sent.pk}")
        expect(page.get_by_text("One row of this log came in with earlier hand-ins")).to_be_visible()
        expect(page.get_by_role("cell", name="Kale")).to_be_visible()
        expect(page.get_by_role("cell", name="Beet")).to_have_count(0)
        self.no_violation(page)

    def test_flags_say_what_to_look_at_and_combine(self) -> None:
        handin = self.eight.handin(self.card, due=self.day(3), opens=self.day(-9), now=self.now)
        builders.hand_in(self.josh, handin, self.now, even_if_empty=True)
        builders.fill(self.thandi, self.card, self.now)
        builders.hand_in(self.thandi, handin, self.now)
        page = self.page(self.eight.lead, f"{self.group}/pegs")
        page.get_by_role("button", name="More filters").click()
        more = page.locator("[id^=headlessui-popover-panel]")
        blank = more.locator("label", has_text="Handed in with nothing in it")
        expect(blank).to_contain_text("1")
        blank.click()
        expect(page.get_by_role("rowheader")).to_have_text(["Ellery, Josh"])
        page.reload()
        expect(page.get_by_role("rowheader")).to_have_text(["Ellery, Josh"])
        page.goto(page.url + "&show=late")
        expect(page.get_by_role("rowheader")).to_have_count(0)

    def test_columns_in_bands_and_one_pinned_in_a_wide_class(self) -> None:
        kitchen = self.eight.section
        plot = kitchen.template.sections.create(title="Along the way", position=5)
        Pocket.objects.filter(pk=self.about.pk).update(section=plot)
        for number in range(24):
            pocket = self.about if number % 2 else self.card
            self.eight.handin(pocket, title=f"Task {number:02}", due=self.day(number), opens=self.day(-9), now=self.now)
        page = self.page(self.eight.lead, f"{self.group}/pegs")
        page.get_by_role("button", name="More filters").click()
        more = page.locator("[id^=headlessui-popover-panel]")
        more.get_by_label("In bands by section").click()
        more.get_by_text(re.compile("^One by one")).click()
        more.get_by_role("button", name="Keep “Task 23” beside the names").click()
        more.get_by_role("button", name="Done").click()
        heads = page.get_by_role("columnheader")
        expect(heads.nth(3)).to_contain_text("Task 23")
        expect(heads.nth(4)).to_contain_text("The kitchen")
        expect(heads.nth(4)).to_contain_text("Task 00")
        expect(heads.nth(5)).to_contain_text("Task 02")
        pinned = heads.filter(has_text="Task 23")
        # The keyboard goes to the far end: what is pinned is still there, and the peg that has the focus is beside it.
        page.locator("[data-cell='0 0']").click()
        page.keyboard.press("Escape")
        expect(page.locator("[data-cell='0 0']")).to_be_focused()
        page.keyboard.press("End")
        last = page.locator("[data-cell='0 23']")
        expect(last).to_be_focused()
        expect(last).to_be_in_viewport()
        expect(pinned).to_be_in_viewport()
        expect(page.locator("[data-cell='0 0']")).to_be_in_viewport()
        beside = "([cell, head]) => cell.getBoundingClientRect().x >= head.getBoundingClientRect().right - 1"
        # It may still be scrolling.
        page.wait_for_function(beside, arg=[last.element_handle(), pinned.element_handle()])
        page.keyboard.press("Home")
        expect(page.locator("[data-cell='0 0']")).to_be_focused()
        self.no_violation(page)

    def test_all_that_came_in_as_one_pdf(self) -> None:
        handin = self.eight.handin(self.card, due=self.day(3), opens=self.day(-9), now=self.now)
        for one in (self.thandi, self.josh):
            builders.fill(one, self.card, self.now)
            builders.hand_in(one, handin, self.now)
        page = self.page(self.eight.lead, f"{self.group}/hand-ins")
        page.get_by_role("button", name="More to do with Recipe card").click()
        page.get_by_role("menuitem", name="All of it as one PDF, to print").click()
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("0 of 2 students")
        run_waiting()
        with page.expect_download() as coming:
            dialog.get_by_role("link", name="Save the file").click()
        document = pypdfium2.PdfDocument(Path(coming.value.path()).read_bytes())
        self.assertEqual(
            [one.get_textpage().get_text_range().splitlines()[0] for one in document], ["Dube, Thandi", "Ellery, Josh"]
        )

    def test_a_portfolio_on_one_page_its_submissions_found_by_day_and_printed(self) -> None:
        handin = self.eight.handin(self.card, due=self.day(3), opens=self.day(-9), now=self.now)
        builders.fill(self.thandi, self.card, self.now)
        sent = builders.hand_in(self.thandi, handin, self.now)
        base = f"{self.group}/portfolio/{self.thandi.pk}"
        for person in (self.eight.lead, self.thandi.enrolment.person):
            page = self.page(person, base)
            page.get_by_role("link", name="All on one page").click()
            work = page.get_by_role("article")
            expect(work.get_by_role("img", name="card.jpg")).to_be_visible()
            expect(work.get_by_text("One thing. Another thing.")).to_be_visible()
            expect(work.get_by_role("region", name="About me")).to_contain_text("Nothing in it yet.")
            day = work.get_by_label("On the day")
            day.fill(self.day(-40).isoformat())
            day.blur()
            expect(work.get_by_text("Nothing was handed in that day.")).to_be_visible()
            day.fill(self.now.date().isoformat())
            day.blur()
            expect(work.get_by_role("link", name="Recipe card")).to_be_visible()
            self.no_violation(page)
            page.emulate_media(media="print")
            expect(page.get_by_role("navigation")).to_have_count(0)
            expect(work.get_by_text("One thing. Another thing.")).to_be_visible()
            self.assertGreater(len(pypdfium2.PdfDocument(page.pdf(prefer_css_page_size=True))), 0)
            page.emulate_media(media="screen")
            work.get_by_role("link", name="Recipe card").click()
            expect(page).to_have_url(re.compile(f"/submission/{sent.pk}$"))


class SaidBefore(BrowserCase):
    """What a teacher gives with a hand-in and is told of it, and what a student may do with it."""

    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi")
        self.group = f"/g/{self.eight.group.pk}"
        self.folder = Path(self.enterContext(TemporaryDirectory()))

    def test_files_go_with_the_directions_and_what_another_one_collects_too_is_told(self) -> None:
        self.eight.handin(self.card, title="First look", due=self.day(9), opens=self.day(-9), now=self.now)
        page = self.page(self.eight.lead, f"{self.group}/hand-ins?new=1")
        page.get_by_label("Title", exact=True).fill("Kitchen")
        page.get_by_label("Recipe card").check()
        told = page.get_by_role("region", name="Who will get it")
        expect(told).to_contain_text("“First look” collects “Recipe card” too while this is open.")
        page.get_by_text("More: directions, closing, afterwards").click()
        field = page.get_by_label("Pictures and files with them: choose a file")
        given = page.get_by_role("region", name="Pictures and files with them")
        for name in ("beds.txt", "mistake.txt"):
            (self.folder / name).write_text(f"What stands in {name}")
            field.set_input_files(self.folder / name)
            expect(given.get_by_role("link", name=name)).to_be_visible()
        given.get_by_role("button", name="Take away mistake.txt").click()
        expect(given.get_by_role("listitem")).to_have_count(1)
        undo(page)
        expect(given.get_by_role("listitem")).to_have_count(2)
        given.get_by_role("button", name="Take away mistake.txt").click()
        # What was chosen is kept as what is typed is.
        page.reload()
        expect(page.get_by_label("Title", exact=True)).to_have_value("Kitchen")
        expect(given.get_by_role("listitem")).to_have_count(1)
        page.get_by_label("Until it is due, students can take back").uncheck()
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Kitchen” is set.")).to_be_visible()
        page.get_by_role("link", name="Change Kitchen").click()
        expect(given.get_by_role("link", name="beds.txt")).to_be_visible()
        expect(page.get_by_label("Until it is due, students can take back")).not_to_be_checked()
        self.no_violation(page)

        student = self.page(self.thandi.enrolment.person, f"{self.group}/portfolio/{self.thandi.pk}/{self.card.pk}")
        bar = student.get_by_role("region", name="Hand in: Kitchen")
        bar.get_by_text("beds.txt").first.click()
        expect(bar.get_by_text("It is being made readable.")).to_be_visible()
        run_waiting()
        expect(bar.get_by_text("What stands in beds.txt")).to_be_visible()
        expect(bar).to_contain_text("You cannot take it back")
        self.no_violation(student)

    def test_taken_back_until_it_is_due(self) -> None:
        handin = self.eight.handin(self.card, due=self.day(3), opens=self.day(-9), now=self.now)
        builders.fill(self.thandi, self.card, self.now)
        builders.hand_in(self.thandi, handin, self.now)
        student = self.page(self.thandi.enrolment.person, f"{self.group}/portfolio/{self.thandi.pk}/{self.card.pk}")
        back = student.get_by_role("button", name="Take back")
        back.click()
        expect(student.get_by_role("button", name="Hand in", exact=True)).to_be_visible()
        student.get_by_role("button", name="Hand in", exact=True).click()
        expect(back).to_be_visible()
        HandIn.objects.update(due_day=self.day(-1))
        student.reload()
        expect(student.get_by_text("Receipt").first).to_be_visible()
        expect(back).to_have_count(0)
