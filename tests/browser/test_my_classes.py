"""A morning of somebody with several classes: over all of them, into the one that needs them, and back."""

from playwright.sync_api import expect

from coatpeg.core.policy import Role
from coatpeg.people.models import StaffRole
from tests import builders
from tests.browser.case import BrowserCase
from tests.builders import klass


class MyClasses(BrowserCase):
    def test_from_the_start_to_those_who_owe_and_to_the_oldest_in_the_pile(self) -> None:
        eight = self.plot()
        card = eight.pocket()
        josh = eight.student(None, "Josh", "Ellery")
        eight.student(None, "Thandi", "Dube")
        handin = eight.handin(card, title="Recipe card", opens=self.day(-9), due=self.day(-1), now=self.now)
        builders.fill(josh, card, self.now)
        builders.hand_in(josh, handin, self.now)
        forge = klass("9 Forge", "forge", today=self.today)
        StaffRole.objects.create(group=forge.group, person=eight.lead, role=Role.MARKER.value)
        page = self.page(eight.lead)
        expect(page.get_by_role("heading", name="My classes")).to_be_visible()
        expect(page).to_have_title("My classes · Coat Peg")
        expect(page.get_by_role("row", name="9 Forge")).to_contain_text("No hand-in yet")
        self.no_violation(page)
        page.get_by_role("link", name="1 student owes something in 8 Plot · Growing & Cooking").click()
        expect(page.get_by_role("rowheader")).to_have_text(["Dube, Thandi"])
        page.get_by_role("link", name="My classes").click()
        page.get_by_role("link", name="Mark 1, oldest first").click()
        expect(page.get_by_role("button", name="Accept")).to_be_visible()
        page.go_back()
        page.get_by_role("link", name="9 Forge").click()
        expect(page.get_by_text("Nobody is in this class yet")).to_be_visible()

    def test_one_class_is_opened_at_once_and_none_says_what_to_do(self) -> None:
        eight = self.plot()
        page = self.page(eight.lead)
        expect(page).to_have_url(f"{self.live_server_url}/g/{eight.group.pk}/pegs")
        expect(page.get_by_role("link", name="My classes")).to_have_count(0)
        page.goto(f"{self.live_server_url}/classes")
        expect(page.get_by_role("link", name="8 Plot · Growing & Cooking")).to_be_visible()
        student = self.page(eight.student("thandi").enrolment.person, "/classes")
        expect(student.get_by_text("You are in no class yet")).to_be_visible()
