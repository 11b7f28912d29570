"""A teacher asks when work comes and who needs a word."""

from datetime import timedelta

from playwright.sync_api import expect

from tests import builders
from tests.browser.case import BrowserCase


class Patterns(BrowserCase):
    def test_the_curve_who_is_usually_late_and_who_is_behind(self) -> None:
        eight = self.plot()
        card = eight.pocket()
        thandi, josh = eight.student(None, "Thandi", "Dube"), eight.student(None, "Josh", "Ellery")
        before = self.now - timedelta(days=30)
        for title, due in (("Soil test", 12), ("Recipe card", 5)):
            handin = eight.handin(card, title=title, opens=self.day(-25), due=self.day(-due), now=before)
            builders.hand_in(thandi, handin, self.now - timedelta(days=due + 2), even_if_empty=True)
            builders.hand_in(josh, handin, self.now - timedelta(days=due - 3), even_if_empty=True)
            builders.mark(eight.lead, thandi.enrolment.submissions.get(handin=handin), self.now, accept=False)
        builders.fill(thandi, card, self.now)
        page = self.page(eight.lead, f"/g/{eight.group.pk}/pegs")
        page.get_by_role("button", name="Patterns", exact=True).click()
        came = page.get_by_role("listitem").filter(has=page.get_by_role("link", name="Soil test"))
        expect(came).to_contain_text("2 of 2 in")
        expect(came).to_contain_text("1 late")
        expect(came.get_by_role("img", name="How Soil test came in")).to_be_visible()
        self.no_violation(page)
        expect(page.get_by_role("main")).to_contain_text("2 of 2 late")
        page.get_by_role("button", name="To mark").click()
        expect(page.get_by_role("main")).not_to_contain_text("Dube, Thandi")
        page.get_by_role("button", name="To mark").click()
        expect(page.get_by_role("main")).to_contain_text("Dube, Thandi")
        page.get_by_role("link", name="Recipe card").first.click()
        expect(page.get_by_role("grid")).to_be_visible()
