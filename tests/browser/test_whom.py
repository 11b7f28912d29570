"""A hand-in for some: a teacher sets one for two students by their names, then for all but one of a group."""

from playwright.sync_api import expect

from tests.browser.case import BrowserCase
from tests.builders import working_group


class Whom(BrowserCase):
    def test_by_name_then_all_but_one_then_a_group(self) -> None:
        eight = self.plot()
        eight.pocket()
        thandi = eight.student("thandi", "Thandi", "Dube")
        josh = eight.student(None, "Josh", "Ellery")
        eight.student(None, "Ana", "de Souza")
        working_group(eight.group, "Beds").members.set([thandi.enrolment, josh.enrolment])
        page = self.page(eight.lead, f"/g/{eight.group.pk}/hand-ins?new=1")
        page.get_by_label("Title").fill("Second try")
        page.get_by_label("Recipe card").check()
        page.get_by_label("Due", exact=True).fill(self.day(5).isoformat())
        page.get_by_label("Chosen students").click()
        told = page.get_by_label("Who will get it")
        expect(page.get_by_text("Choose whom it is for.")).to_be_visible()
        # By the keyboard alone: a name that is the only one left is chosen by Enter.
        find = page.get_by_label("Find a name")
        find.fill("thand")
        find.press("Enter")
        find.fill("elle")
        find.press("Enter")
        expect(page.get_by_text("2 chosen")).to_be_visible()
        expect(told).to_contain_text("2 students will be asked")
        self.no_violation(page)
        page.reload()
        expect(page.get_by_text("2 chosen")).to_be_visible()
        page.get_by_label("All but some").click()
        expect(told).to_contain_text("1 student will be asked")
        page.get_by_role("list", name="All but some").get_by_label("Ellery, Josh").click()
        expect(told).to_contain_text("2 students will be asked")
        page.get_by_label("Some groups").click()
        page.get_by_role("list", name="Groups").get_by_label("Beds").click()
        expect(told).to_contain_text("2 students will be asked")
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Second try” is set")).to_be_visible()
        page.get_by_role("link", name="Pegs").click()
        expect(page.get_by_role("button", name="de Souza, Ana, Second try: not asked")).to_be_attached()
        expect(page.get_by_role("button", name="Ellery, Josh, Second try: nothing yet")).to_be_visible()
        student = self.page(thandi.enrolment.person)
        student.get_by_role("link", name="To hand in").click()
        expect(student.get_by_text("Second try").first).to_be_visible()
