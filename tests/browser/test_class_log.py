"""A log over the class, as a teacher reads it: all rows, filtered, in order, one student's, taken along, by keys."""

from pathlib import Path

from playwright.sync_api import Page, expect

from coatpeg.portfolios.logs.rows import add_row
from tests.browser.case import BrowserCase

COLUMNS = [
    {"key": "day", "title": "Day", "type": "date"},
    {"key": "crop", "title": "Crop", "type": "choice", "choices": ["Beans", "Kale"]},
    {"key": "grams", "title": "Harvest", "type": "number", "unit": "g", "required": True},
]


class ClassLog(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.log = self.eight.pocket("Crop log", "log", log={"columns": COLUMNS})
        for name, family, grams in (("Thandi", "Dube", ("120", "95.5")), ("Josh", "Ellery", ("1300",))):
            portfolio = self.eight.student(name.lower(), name, family, period="P3")
            for place, one in enumerate(grams):
                values = {"day": str(self.day(-place - 1)), "crop": ("Beans", "Kale")[place], "grams": one}
                add_row(portfolio.enrolment.person, portfolio.pk, self.log.pk, values, self.now)

    def names(self, page: Page, *names: str) -> None:
        rows = page.get_by_role("table", name="Crop log").get_by_role("rowheader")
        expect(rows).to_have_text(list(names))

    def test_all_rows_found_put_in_order_added_up_and_taken_along(self) -> None:
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/look/{self.log.pk}")
        page.get_by_role("button", name="Show: student by student").click()
        page.get_by_role("option", name="all rows").click()
        self.names(page, "Dube, Thandi", "Dube, Thandi", "Ellery, Josh")
        expect(page.get_by_text("3 rows, 3 finished · Harvest 1\u202f515.5 g")).to_be_visible()
        self.no_violation(page)

        # By the keyboard: a heading puts the rows in order, once more the other way round.
        head = page.get_by_role("table", name="Crop log").get_by_role("columnheader", name="Harvest (g)")
        head.get_by_role("button").focus()
        page.keyboard.press("Enter")
        expect(head).to_have_attribute("aria-sort", "ascending")
        page.keyboard.press("Enter")
        expect(head).to_have_attribute("aria-sort", "descending")
        self.names(page, "Ellery, Josh", "Dube, Thandi", "Dube, Thandi")

        page.get_by_label("Words in it").fill("kale")
        self.names(page, "Dube, Thandi")
        with page.expect_download() as coming:
            page.get_by_role("link", name="These rows as CSV").click()
        told = Path(coming.value.path()).read_text("utf-8-sig").splitlines()
        self.assertEqual([one.split(",")[0] for one in told], ["Family name", "Dube"])
        page.get_by_label("Words in it").fill("")
        page.get_by_role("complementary", name="Added up").get_by_role("button", name="Ellery, Josh").click()
        self.names(page, "Ellery, Josh")
        page.reload()
        self.names(page, "Ellery, Josh")
        page.get_by_role("button", name="Ellery, Josh only: show everybody again").click()
        self.names(page, "Ellery, Josh", "Dube, Thandi", "Dube, Thandi")
