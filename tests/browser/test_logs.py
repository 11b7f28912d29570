"""A log from the teacher's first column to the student's last row."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page, expect

from coatpeg.outlines.models import Pocket
from coatpeg.portfolios.models import LogRow
from tests.api.test_logs import LOG, crop_log
from tests.browser.case import PHONE, TABLET, BrowserCase, picture_file, undo
from tests.builders import jpeg


class Logs(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.thandi = self.eight.student("thandi")

    def open_log(self, log: Pocket, size: tuple[int, int] = TABLET) -> Page:
        path = f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}/{log.pk}"
        return self.page(self.thandi.enrolment.person, path, size)

    def test_a_teacher_lays_out_a_log_and_a_student_sees_it_at_once(self) -> None:
        self.eight.pocket("About me", "page")
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/template")
        page.get_by_role("button", name="Add a pocket to The kitchen").click()
        page.get_by_label("New pocket in The kitchen").fill("Rain gauge")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Name of the pocket")).to_have_value("Rain gauge")
        page.get_by_text("Log", exact=True).click()
        expect(page.get_by_label("Heading of column 1")).to_have_value("Date")
        page.get_by_role("button", name="Column", exact=True).click()
        page.get_by_label("Heading of column 2").fill("Rain")
        page.get_by_label("Type of column 2").select_option("Number")
        page.get_by_label("Unit").fill("mm")
        page.get_by_role("listitem", name="Column 2").get_by_label("needed").check()
        page.get_by_label("rows over all").fill("3")
        page.get_by_label("A target of").fill("60")
        page.get_by_label("What the target counts").select_option("Rain (mm)")
        expect(page.get_by_label("Preview").get_by_text("Rain (mm)").first).to_be_visible()
        expect(page.get_by_label("Preview").get_by_text("0 of 3 rows")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“Rain gauge” is saved in 1 portfolio.")).to_be_visible()
        log = Pocket.objects.get(title="Rain gauge")
        student = self.open_log(log)
        form = student.get_by_role("form", name="New row")
        form.get_by_label("Rain (mm)").fill("12,5")
        form.get_by_label("Rain (mm)").press("Enter")
        expect(student.get_by_text("1 of 3 rows")).to_be_visible()
        expect(student.get_by_role("img", name="Rain: 12.5 of 60 mm.")).to_be_visible()
        # The keyboard goes on where the next row begins.
        expect(form.get_by_label("Date")).to_be_focused()
        self.no_violation(student)
        self.fits(student)

    def test_what_does_not_fit_says_so_at_its_field_and_nothing_typed_is_lost(self) -> None:
        self.expected_complaints.append("422")
        log = crop_log(self.eight)
        page = self.open_log(log)
        form = page.get_by_role("form", name="New row")
        form.get_by_label("Harvest (g)").fill("1e309")
        form.get_by_label("Note").fill("Two words")
        page.get_by_role("button", name="Add the row").click()
        expect(form.get_by_text("“1e309” is not a number that can be kept.")).to_be_visible()
        expect(form.get_by_label("Harvest (g)")).to_have_attribute("aria-invalid", "true")
        page.reload()
        expect(form.get_by_label("Note")).to_have_value("Two words")
        form.get_by_label("Harvest (g)").fill("80")
        path = picture_file(Path(self.enterContext(tempfile.TemporaryDirectory())), "bed.jpg", jpeg())
        form.locator("input[type=file]").set_input_files(path)
        expect(form.get_by_text("bed.jpg")).to_be_visible()
        page.get_by_role("button", name="Add the row").click()
        rows = page.get_by_role("table", name="Rows of the log").get_by_role("row")
        expect(rows).to_have_count(2)
        expect(rows.nth(1).get_by_role("img", name="bed.jpg")).to_be_visible()
        rows.nth(1).get_by_role("button", name="Change this row").click()
        page.get_by_role("form", name="Change the row").get_by_label("Bed").select_option("South")
        page.get_by_role("button", name="Keep the changes").click()
        expect(rows.nth(1).get_by_text("South")).to_be_visible()
        rows.nth(1).get_by_role("button", name="Take this row out").click()
        expect(page.get_by_text("No rows yet. Write the first one above.")).to_be_visible()
        undo(page)
        expect(rows).to_have_count(2)

    def test_rows_come_from_a_spreadsheet_and_go_back_to_one(self) -> None:
        log = crop_log(self.eight)
        page = self.open_log(log)
        page.get_by_role("button", name="Paste rows").click()
        page.get_by_label(re.compile("Rows from a spreadsheet")).fill(
            "Date\tHarvest (g)\n2.11.2026\t120\n31.2.2026\t5\n4.11.2026\t80"
        )
        read = page.get_by_role("list", name="What was read")
        expect(read.get_by_text("There is no such day as “31.2.2026”.")).to_be_visible()
        page.get_by_role("button", name="Add 2 rows").click()
        expect(page.get_by_text("2 of 3 rows")).to_be_visible()
        # What did not fit stays there to be mended.
        expect(page.get_by_label(re.compile("Rows from a spreadsheet"))).to_have_value("Date\tHarvest\n31.2.2026\t5")
        with page.expect_download() as loading:
            page.get_by_role("link", name="Download as CSV").click()
        text = loading.value.path().read_text("utf-8-sig")
        self.assertIn("2026-11-02,,120,,", text)

    def test_on_a_phone_and_after_handing_in(self) -> None:
        log = crop_log(self.eight, rows=1)
        self.eight.handin(log, title="Harvest", opens=self.day(-3), due=self.day(3), now=self.now)
        page = self.open_log(log, PHONE)
        form = page.get_by_role("form", name="New row")
        form.get_by_label("Harvest (g)").fill("5")
        page.get_by_role("button", name="Add the row").click()
        expect(page.get_by_text("1 of 1 row")).to_be_visible()
        page.get_by_role("button", name="Hand in", exact=True).click()
        expect(page.get_by_text("The rows handed in stay as they are. You can write new ones.")).to_be_visible()
        rows = page.get_by_role("list", name="Rows of the log").get_by_role("listitem")
        expect(rows.get_by_text("handed in")).to_be_visible()
        expect(rows.get_by_role("button", name="Change this row")).to_have_count(0)
        form.get_by_label("Harvest (g)").fill("7")
        page.get_by_role("button", name="Add the row").click()
        expect(rows).to_have_count(2)
        self.fits(page)
        self.no_violation(page)
        self.assertEqual(LogRow.objects.count(), 2)
        # The marker sees what was handed in, and not the row after it.
        pile = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile")
        expect(pile.get_by_role("table", name="Rows of the log").get_by_role("row")).to_have_count(2)
        self.assertEqual(LOG["columns"][2]["unit"], "g")
        self.no_violation(pile)
