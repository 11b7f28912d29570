"""Units of a section that repeats, from the outline to a student's pockets."""

from playwright.sync_api import expect

from coatpeg.outlines.models import Pocket
from tests import builders
from tests.browser.case import BrowserCase, undo


class Units(BrowserCase):
    def test_three_questions_make_three_pockets_and_a_change_of_the_pattern_reaches_them(self) -> None:
        eight = self.plot()
        eight.pocket("About me", "page")
        thandi = eight.student("thandi")
        page = self.page(eight.lead, f"/g/{eight.group.pk}/template")
        page.get_by_role("button", name="Section that repeats").click()
        page.get_by_label("Name of what repeats").fill("Unit")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Units of “Unit”")).to_be_visible()
        page.get_by_label("New pocket in Unit").fill("Question")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Name of the pocket")).to_have_value("Question")
        page.get_by_label("It comes once for each question of a unit").check()
        page.get_by_role("button", name="Save for everyone").click()
        outline = page.get_by_role("navigation", name="Outline of the template")
        outline.get_by_role("button", name="Units none yet").click()
        page.get_by_role("button", name="Unit", exact=True).click()
        page.get_by_label("Name of the unit").fill("Soil")
        for place, text in enumerate(("What lives in it?", "What does it hold?", "Where does it come from?"), 1):
            page.get_by_label(f"Question {place} of unit 1", exact=True).fill(text)
            page.get_by_label(f"Question {place} of unit 1", exact=True).press("Enter")
        told = page.get_by_label("What saving means")
        expect(told).to_contain_text("adds 3 pockets in 1 portfolio at once. Asks 6 things more of 1 student.")
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("1 unit laid out in every portfolio.")).to_be_visible()
        expect(outline.get_by_role("button", name="What does it hold?")).to_be_visible()
        student = self.page(thandi.enrolment.person)
        for text in ("What lives in it?", "What does it hold?", "Where does it come from?"):
            expect(student.get_by_role("link", name=text)).to_be_visible()
        expect(student.get_by_role("link", name="Question", exact=True)).to_have_count(0)
        builders.fill(thandi, Pocket.objects.get(title="What lives in it?"), self.now)
        # A laid pocket says where it is changed; the pattern's change reaches it.
        outline.get_by_role("button", name="What lives in it?").click()
        expect(page.get_by_text("It is laid out from a pattern.")).to_be_visible()
        outline.get_by_role("button", name="Question each question").click()
        page.get_by_label("Prompt").fill("How do you know?")
        page.get_by_role("button", name="Save for everyone").click()
        student.get_by_role("link", name="What lives in it?").click()
        expect(student.get_by_label("How do you know?")).to_be_visible()
        # A unit that goes keeps what students put there, and Undo brings it back.
        outline.get_by_role("button", name="Units 1").click()
        page.get_by_role("button", name="Take away unit 1").click()
        expect(told).to_contain_text(
            "retires “What lives in it?” with the work in it, takes away 2 pockets that nobody used"
        )
        page.get_by_role("button", name="Save for everyone").click()
        expect(outline.get_by_role("button", name="Units none yet")).to_be_visible()
        expect(page.get_by_text("0 units laid out in every portfolio.")).to_be_visible()
        undo(page)
        expect(outline.get_by_role("button", name="What does it hold?")).to_be_visible()
        self.assertIsNone(Pocket.objects.get(title="What lives in it?").retired_at)

    def test_what_is_typed_right_after_saving_stands_while_the_server_still_looks_at_it(self) -> None:
        eight = self.plot()
        eight.pocket("About me", "page")
        page = self.page(eight.lead, f"/g/{eight.group.pk}/template")
        page.get_by_role("button", name="Section that repeats").click()
        page.get_by_label("Name of what repeats").fill("Unit")
        page.keyboard.press("Enter")
        page.get_by_label("New pocket in Unit").fill("Question")
        page.keyboard.press("Enter")
        page.get_by_label("It comes once for each question of a unit").check()
        expect(page.get_by_label("What saving means")).to_contain_text("adds")
        # No look is answered before its route is given up.
        page.route("**/template/draft/look", lambda _: None)
        page.get_by_role("button", name="Save for everyone").click()
        page.get_by_role("button", name="Units none yet").click()
        page.get_by_role("button", name="Unit", exact=True).click()
        page.get_by_label("Name of the unit").fill("Soil")
        for place, text in enumerate(("What lives in it?", "What does it hold?"), 1):
            page.get_by_label(f"Question {place} of unit 1", exact=True).fill(text)
            page.get_by_label(f"Question {place} of unit 1", exact=True).press("Enter")
        page.unroute("**/template/draft/look")
        expect(page.get_by_label("What saving means")).to_contain_text("adds 2 pockets")
        expect(page.get_by_label("Question 2 of unit 1", exact=True)).to_have_value("What does it hold?")
