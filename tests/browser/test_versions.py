"""Versions of a pocket: laid out by a teacher, read by students."""

from playwright.sync_api import expect

from tests.browser.case import BrowserCase


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
