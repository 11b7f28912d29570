"""Versions of a pocket: laid out by a teacher, read by students."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import expect

from coatpeg.outlines.models import Pocket
from tests import documents
from tests.background import run_waiting
from tests.browser.case import PHONE, BrowserCase


class Versions(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.about = self.eight.pocket("About me", "page")
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery")

    def test_by_surname_with_the_gap_named_then_by_hand(self) -> None:
        self.expected_complaints.append("422")
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/template")
        page.get_by_label("Dealt").select_option("by surname range")
        first, second = page.get_by_role("listitem", name="Version 1"), page.get_by_role("listitem", name="Version 2")
        expect(first.get_by_label("from")).to_have_value("A")
        first.get_by_label("to", exact=True).fill("D")
        first.get_by_role("textbox", name="Directions of this version").fill("Write about the north bed.")
        second.get_by_label("from").fill("F")
        second.get_by_role("textbox", name="Directions of this version").fill("Write about the south bed.")
        expect(page.get_by_text("No version has E. It leaves out: Ellery, Josh.")).to_be_visible()
        expect(page.get_by_role("button", name="Save for everyone")).to_be_disabled()
        second.get_by_label("from").fill("e")
        second.get_by_role("button", name="1 student").click()
        expect(second.get_by_text("Ellery, Josh")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“About me” is saved in 2 portfolios.")).to_be_visible()
        path = f"/g/{self.eight.group.pk}/portfolio/{self.josh.pk}/{self.about.pk}"
        student = self.page(self.josh.enrolment.person, path)
        expect(student.get_by_text("Write about the south bed.")).to_be_visible()
        page.get_by_label("Dealt").select_option("by hand")
        page.get_by_role("list", name="Dealt by hand").get_by_label("Ellery, Josh").select_option("Version 1")
        page.get_by_role("button", name="Save for everyone").click()
        expect(student.get_by_text("Write about the north bed.")).to_be_visible()
        look = self.page(self.eight.lead, path)
        expect(look.get_by_text("Version “Version 1”")).to_be_visible()

    def test_a_table_to_write_in_and_a_sheet_for_each(self) -> None:
        """A rich starter for all, another one for a version, a file for each at once."""
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/template")
        starter = page.get_by_role("textbox", name="Starter", exact=True)
        starter.click()
        page.keyboard.type("My beds")
        page.keyboard.press("Enter")
        page.get_by_role("toolbar", name="Formatting: Starter").get_by_role("button", name="Table", exact=True).click()
        page.keyboard.type("Bed")
        expect(page.get_by_label("Preview").get_by_role("table")).to_contain_text("Bed")
        page.get_by_label("Dealt").select_option("by surname range")
        ranges = page.get_by_label("Ranges", exact=True)
        ranges.fill("A–D, E–Z")
        ranges.press("Enter")
        second = page.get_by_role("listitem", name="Version 2")
        second.get_by_role("textbox", name="Starter of this version").click()
        page.keyboard.type("The south bed is …")
        with tempfile.TemporaryDirectory() as folder:
            north, south = Path(folder) / "1 north.pdf", Path(folder) / "2 south.pdf"
            north.write_bytes(documents.pdf(1))
            south.write_bytes(documents.pdf(2))
            page.get_by_label("A file for each version").locator("input").set_input_files([str(south), str(north)])
            expect(
                page.get_by_role("listitem", name="Version 1").get_by_role("link", name="1 north.pdf")
            ).to_be_visible()
            expect(second.get_by_role("link", name="2 south.pdf")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“About me” is saved in 2 portfolios.")).to_be_visible()
        path = f"/g/{self.eight.group.pk}/portfolio/{{}}/{self.about.pk}"
        josh = self.page(self.josh.enrolment.person, path.format(self.josh.pk))
        expect(josh.get_by_role("textbox", name="About me")).to_have_text("The south bed is …")
        expect(josh.get_by_text("1 north.pdf")).to_have_count(0)
        # A PDF is read where it stands.
        sheet = josh.get_by_role("region", name="2 south.pdf")
        expect(sheet.get_by_text("It is being made readable.")).to_be_visible()
        run_waiting()
        expect(sheet.get_by_role("img", name=re.compile("page 2 of 2"))).to_be_visible()
        self.no_violation(josh)
        thandi = self.page(self.thandi.enrolment.person, path.format(self.thandi.pk), PHONE)
        field = thandi.get_by_role("textbox", name="About me")
        expect(field.get_by_role("table")).to_contain_text("Bed")
        expect(thandi.get_by_role("region", name="1 north.pdf")).to_be_visible()
        self.fits(thandi)
        field.get_by_role("cell").first.click()
        thandi.keyboard.type("Chard grows in A.")
        expect(thandi.get_by_text(re.compile("Saved \\d\\d:\\d\\d"))).to_be_visible()
        self.assertIn("<table>", Pocket.objects.get(pk=self.about.pk).starter)

    def test_the_whole_portfolio_is_looked_at_as_any_student_before_it_is_saved(self) -> None:
        self.eight.pocket("Recipe card")
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/template")
        page.get_by_label("Dealt").select_option("by surname range")
        ranges = page.get_by_label("Ranges", exact=True)
        ranges.fill("A–D, E–Z")
        ranges.press("Enter")
        second = page.get_by_role("listitem", name="Version 2")
        second.get_by_role("textbox", name="Directions of this version").fill("Write about the south bed.")
        page.get_by_role("button", name="The whole portfolio").click()
        whole = page.get_by_role("dialog", name="The portfolio, as it would begin")
        pocket = whole.get_by_role("region", name="The chosen pocket")
        expect(pocket.get_by_text("About me")).to_be_visible()
        whole.get_by_role("combobox").select_option("Ellery, Josh")
        expect(pocket.get_by_text("Write about the south bed.")).to_be_visible()
        whole.get_by_role("combobox").select_option("Dube, Thandi")
        expect(pocket.get_by_text("Write about the south bed.")).to_have_count(0)
        whole.get_by_role("button", name="Recipe card").click()
        expect(pocket.get_by_text("0 of 2 things")).to_be_visible()
        self.no_violation(page)
        whole.get_by_role("button", name="Phone").click()
        whole.get_by_role("button", name="All pockets").click()
        whole.get_by_role("navigation", name="All pockets").get_by_role("button", name="About me").click()
        whole.get_by_role("button", name="staff", exact=True).click()
        expect(pocket.get_by_text("0 students have work in it.", exact=False)).to_be_visible()
        self.no_violation(page)
        page.set_viewport_size({"width": 390, "height": 844})
        whole.get_by_role("button", name="Desk").click()
        self.fits(page)
        page.keyboard.press("Escape")
        expect(whole).to_have_count(0)
        self.assertEqual(Pocket.objects.get(pk=self.about.pk).variants, {}, "only looked at")
