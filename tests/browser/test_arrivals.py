"""A teacher looks through what came in: opens a picture, types scores by the keyboard, goes on to mark one."""

from playwright.sync_api import expect

from coatpeg.marking.models import DraftMark
from tests import builders
from tests.browser.case import BrowserCase


class Arrivals(BrowserCase):
    def test_looked_through_scored_in_place_and_one_opened(self) -> None:
        eight = self.plot()
        card = eight.pocket()
        people = [eight.student(None, *name) for name in (("Thandi", "Dube"), ("Josh", "Ellery"), ("Ana", "de Souza"))]
        handin = eight.handin(card, title="Recipe card", opens=self.day(-9), due=self.day(3), points=30, now=self.now)
        for one in people:
            builders.fill(one, card, self.now)
            submission = builders.hand_in(one, handin, self.now)
        builders.mark(eight.lead, submission, self.now)
        page = self.page(eight.lead, f"/g/{eight.group.pk}/pegs")
        page.get_by_role("button", name="List", exact=True).click()
        lines = page.get_by_role("list", name="What came in").locator("> li")
        expect(lines).to_have_count(3)
        expect(lines.filter(has_text="de Souza")).to_contain_text("accepted")
        page.get_by_role("button", name="To mark 2").click()
        expect(lines).to_have_count(2)
        expect(lines.first).to_contain_text("One thing.")
        self.no_violation(page)
        lines.first.get_by_role("button", name="look at it").click()
        expect(page.get_by_role("dialog").get_by_role("heading", name="card.jpg")).to_be_visible()
        page.keyboard.press("Escape")
        # Down the column by the keyboard alone.
        lines.first.get_by_role("textbox").focus()
        page.keyboard.type("27")
        page.keyboard.press("ArrowDown")
        expect(lines.nth(1).get_by_role("textbox")).to_be_focused()
        page.keyboard.type("99")
        page.keyboard.press("ArrowUp")
        self.expected_complaints.append("422")
        expect(lines.nth(1).get_by_role("alert")).to_contain_text("99")
        lines.nth(1).get_by_role("textbox").fill("19")
        page.keyboard.press("ArrowUp")
        expect(lines.nth(1).get_by_role("alert")).to_have_count(0)
        page.reload()
        expect(lines.first.get_by_role("textbox")).to_have_value("27")
        expect(lines.nth(1).get_by_role("textbox")).to_have_value("19")
        drafts = DraftMark.objects.exclude(submission=submission).values_list("score", flat=True)
        self.assertEqual(sorted(drafts), [19, 27])
        lines.first.get_by_role("link", name="Mark").click()
        marking = page.get_by_role("complementary", name="Marking")
        expect(marking.get_by_label("Score")).to_have_value("27")
        page.go_back()
        expect(lines).to_have_count(2)
