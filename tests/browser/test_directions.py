"""Rich directions with a picture, a starter to work from: given by a teacher, read by a student."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import expect

from tests.browser.case import PHONE, BrowserCase, undo
from tests.builders import jpeg


class Directions(BrowserCase):
    def test_written_with_a_list_and_a_link_with_a_picture_and_a_starter(self) -> None:
        eight = self.plot()
        card = eight.pocket()
        thandi = eight.student("thandi")
        page = self.page(eight.lead, f"/g/{eight.group.pk}/template")
        field = page.get_by_role("textbox", name="Directions students see")
        tools = page.get_by_role("toolbar", name="Formatting: Directions students see")
        field.click()
        page.keyboard.type("Show ")
        tools.get_by_role("button", name="Bold").click()
        page.keyboard.type("both sides")
        tools.get_by_role("button", name="Bold").click()
        page.keyboard.press("Enter")
        tools.get_by_role("button", name="List", exact=True).click()
        page.keyboard.type("the front")
        page.keyboard.press("Enter")
        page.keyboard.type("the back")
        tools.get_by_role("button", name="Link", exact=True).click()
        page.get_by_label("Address of the link").fill("https://recipes.larkfield.example")
        page.get_by_role("button", name="Set the link").click()
        expect(page.get_by_label("Preview").get_by_role("listitem").first).to_have_text("the front")
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“Recipe card” is saved in 1 portfolio.")).to_be_visible()
        with tempfile.TemporaryDirectory() as folder:
            picture, frame = Path(folder) / "card.jpg", Path(folder) / "frame.txt"
            picture.write_bytes(jpeg())
            frame.write_text("Recipe: ____")
            page.get_by_label("Given with the directions: choose a file").set_input_files(str(picture))
            expect(page.get_by_role("link", name="card.jpg")).to_be_visible()
            page.get_by_label("Starter files: choose a file").set_input_files(str(frame))
            expect(page.get_by_role("link", name="frame.txt")).to_be_visible()
            self.no_violation(page)
            path = f"/g/{eight.group.pk}/portfolio/{thandi.pk}/{card.pk}"
            student = self.page(thandi.enrolment.person, path, PHONE)
            expect(student.get_by_text("both sides")).to_have_css("font-weight", "700")
            expect(student.get_by_role("link", name="https://recipes.larkfield.example")).to_be_visible()
            expect(student.get_by_role("img", name="card.jpg")).to_be_visible()
            expect(student.get_by_role("heading", name="frame.txt")).to_be_visible()
            with student.expect_download() as loading:
                student.get_by_role("link", name=re.compile("^Download")).click()
            self.assertEqual(loading.value.path().read_text(), "Recipe: ____")
            expect(student.get_by_text("0 of 2 things")).to_be_visible()
        self.no_violation(student)
        self.fits(student)
        page.get_by_role("button", name="Take away card.jpg").click()
        expect(page.get_by_role("link", name="card.jpg")).to_have_count(0)
        expect(page.get_by_text("“card.jpg” is taken away from the pocket.")).to_be_visible()
        undo(page)
        expect(page.get_by_role("link", name="card.jpg")).to_be_visible()
