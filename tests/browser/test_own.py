"""A student makes the portfolio their own."""

import tempfile
from pathlib import Path

from playwright.sync_api import Route, expect

from tests.browser.case import PHONE, TABLET, BrowserCase, undo
from tests.builders import jpeg


class Own(BrowserCase):
    def test_a_cover_and_pages_of_ones_own_in_ones_own_order(self) -> None:
        eight = self.plot()
        eight.pocket()
        thandi = eight.student("thandi")
        person = thandi.enrolment.person
        page = self.page(person, size=TABLET)
        page.get_by_role("button", name="Change the cover").click()
        page.get_by_label("Title", exact=True).fill("My term in the garden")
        page.get_by_label("Colour 3").check(force=True)
        picture = Path(self.enterContext(tempfile.TemporaryDirectory())) / "bed.jpg"
        picture.write_bytes(jpeg())
        page.get_by_label("Picture of the cover").set_input_files(str(picture))
        expect(page.get_by_role("img", name="bed.jpg")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Keep the cover").click()
        expect(page.get_by_text("My term in the garden")).to_be_visible()
        page.get_by_role("button", name="New page").click()
        page.get_by_label("Title of the page").fill("Ideas")
        page.get_by_label("Title of the page").press("Enter")
        own = page.get_by_role("navigation", name="Pages of my own")
        expect(own.get_by_role("link", name="Ideas")).to_be_visible()
        page.get_by_role("textbox", name="Your text").fill("Grow a pumpkin.")
        expect(page.get_by_text("Saved")).to_be_visible()
        expect(own.get_by_role("link", name="Ideas 3 words")).to_be_visible()
        page.get_by_role("button", name="New page").click()
        expect(own.get_by_role("link", name="New page")).to_be_visible()
        own.get_by_role("button", name="Move New page up").click()
        expect(own.get_by_role("listitem").first).to_contain_text("New page")
        self.no_violation(page)
        self.fits(page)
        phone = self.page(person, size=PHONE)
        phone.get_by_role("link", name="Ideas").click()
        expect(phone.get_by_role("textbox", name="Your text")).to_have_text("Grow a pumpkin.")
        self.fits(phone)
        phone.get_by_role("button", name="Put in the bin: Ideas").click()
        expect(phone.get_by_role("link", name="Ideas")).to_have_count(0)
        undo(phone)
        expect(phone.get_by_role("link", name="Ideas")).to_be_visible()
        look = self.page(eight.lead, f"/g/{eight.group.pk}/portfolio/{thandi.pk}")
        look.get_by_role("link", name="Ideas").click()
        expect(look.get_by_text("Grow a pumpkin.")).to_be_visible()
        expect(look.get_by_role("button", name="Change the cover")).to_have_count(0)

    def test_a_page_taken_out_while_it_is_asked_for_anew(self) -> None:
        eight = self.plot()
        eight.pocket()
        thandi = eight.student("thandi")
        page = self.page(thandi.enrolment.person)
        page.get_by_role("button", name="New page").click()
        expect(page.get_by_label("Title of the page")).to_have_value("New page")
        held: list[Route] = []
        page.route("**/api/pages/*", lambda one: held.append(one) if one.request.method == "GET" else one.continue_())
        with page.expect_request("**/api/pages/*"):
            page.evaluate("window.dispatchEvent(new Event('visibilitychange'))")
        page.get_by_role("button", name="Put in the bin: New page").click()
        expect(page.get_by_text("“New page” is in the bin.")).to_be_visible()
        for one in held:
            one.continue_()
        undo(page)
        expect(page.get_by_role("link", name="New page")).to_be_visible()
