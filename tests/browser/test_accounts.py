"""Nobody becomes a student, and nothing of a student's stays behind: told as stories in the browser."""

import re
from unittest import mock

from django.db import OperationalError
from playwright.sync_api import Page, expect

from coatpeg.core.policy import Role
from coatpeg.notices.fanning import fan_out
from coatpeg.people import cards
from coatpeg.people.models import Enrolment, SignInCard, TeachingGroup
from coatpeg.portfolios.models import Evidence
from tests import builders
from tests.browser.case import BrowserCase

LEFT_HERE = """async () => {
  const found = [];
  for (const { name } of await indexedDB.databases()) {
    const base = await new Promise((ok) => { const asked = indexedDB.open(name); asked.onsuccess = () => ok(asked.result); });
    for (const store of base.objectStoreNames) {
      const keys = base.transaction(store).objectStore(store).getAllKeys();
      found.push(...await new Promise((ok) => { keys.onsuccess = () => ok(keys.result); }));
    }
    base.close();
  }
  return found;
}"""
"""Everything that the browser's own databases hold, by its keys."""


class Attack(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.about = self.eight.pocket("About me", "page")
        self.thandi = self.eight.student("thandi")
        builders.fill(self.thandi, self.eight.pocket(artefacts=1), self.now)
        self.observer = self.eight.staff("observer", Role.OBSERVER)

    def secret(self, group: int, enrolment: int, by: object) -> str:
        found: dict[int, str] = {}

        def lay_out(secrets: dict[int, str], passwords: dict[int, str]) -> bytes:
            found.update(secrets)
            return b""

        cards.make(by, group, [enrolment], self.now, lay_out)  # type: ignore[arg-type]  # a person
        return found[enrolment]

    def test_an_observer_cannot_become_a_student_by_list_card_class_or_caseload(self) -> None:
        page = self.page(self.observer, f"/g/{self.eight.group.pk}/setup")
        # A class of their own, and the name of any student of the school.
        page.get_by_role("button", name=re.compile("account of")).click()
        expect(page.get_by_role("menuitem", name="The school")).to_have_count(0)
        page.get_by_role("menuitem", name="Start a class").click()
        expect(page.get_by_label("Name as students know it")).to_be_visible()
        expect(page.get_by_role("option", name="caseload")).to_have_count(0)
        page.get_by_label("Name as students know it").fill("9 Forge")
        page.get_by_role("button", name="Start the class").click()
        page.get_by_role("link", name="Bring in a list").click()
        page.get_by_label("Paste the list here").fill("Thandi Dube")
        page.get_by_role("button", name="See what it does").click()
        expect(page.get_by_text("To be asked for").first).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Ask for 1 student").click()
        expect(page.get_by_text("1 student waits for somebody’s word")).to_be_visible()
        expect(page.get_by_role("heading", name="There is nobody in this class yet")).to_be_visible()
        forge = TeachingGroup.objects.get(name="9 Forge")
        self.assertFalse(Enrolment.objects.filter(group=forge).exists())
        # Whoever has her says so, by one click from the bell.
        fan_out.func()
        lead = self.page(self.eight.lead)
        lead.get_by_role("button", name=re.compile("^News, 1 new")).click()
        lead.get_by_role("link", name=re.compile("9 Forge asks for a student")).click()
        expect(lead.get_by_text("Dube, Thandi into 9 Forge")).to_be_visible()
        self.no_violation(lead)
        lead.get_by_role("button", name="Let them in Dube, Thandi").click()
        expect(lead.get_by_text("Dube, Thandi is in 9 Forge now.")).to_be_visible()
        # A card of that class opens that class, and none of her work elsewhere.
        hers = Enrolment.objects.get(group=forge)
        device = self.page(None, f"/card#{self.secret(forge.pk, hers.pk, self.observer)}")
        expect(device.get_by_text("9 Forge").first).to_be_visible()
        expect(device.get_by_text("8 Plot")).to_have_count(0)
        self.expected_complaints.append("404")
        device.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}")
        expect(device.get_by_text("One thing. Another thing.")).to_have_count(0)
        device.goto(self.live_server_url)
        device.get_by_role("button", name=re.compile("account of")).click()
        for of_the_account in ("How I like to read", "Due dates in your calendar", "Password and sign-ins"):
            expect(device.get_by_role("menuitem", name=of_the_account)).to_have_count(0)
        # Void is void, at once.
        self.expected_complaints.append("401")
        SignInCard.objects.update(voided_at=self.now)
        device.reload()
        expect(device.get_by_label("User name")).to_be_visible()

    def test_two_accounts_of_one_student_are_put_together_and_taken_apart(self) -> None:
        forge = builders.klass("9 Forge", "forge", today=self.today)
        twice = forge.student("thandi2", "Thandi", "Dube").enrolment.person
        admin = self.page(builders.person("bright", administrator=True), "/school?part=accounts")
        admin.get_by_label("Find a student").fill("dube")
        admin.get_by_role("button", name=re.compile("^Put together")).first.click()
        dialog = admin.get_by_role("dialog", name="Two accounts of one student")
        expect(dialog.get_by_text("Comes over with all work: 9 Forge")).to_be_visible()
        self.no_violation(admin)
        dialog.get_by_role("button", name="Put them together").click()
        expect(admin.get_by_text("Dube, Thandi has one account now.")).to_be_visible()
        expect(admin.get_by_role("button", name=re.compile("^Put together"))).to_have_count(1)
        self.no_violation(admin)
        student = self.page(self.thandi.enrolment.person)
        student.get_by_role("button", name=re.compile("^Choose a class")).click()
        expect(student.get_by_role("option", name=re.compile("^9 Forge"))).to_be_visible()
        admin.get_by_role("button", name="Take apart Dube, Thandi").click()
        expect(admin.get_by_text("They are two accounts again.")).to_be_visible()
        self.assertEqual(Enrolment.objects.get(group=forge.group).person_id, twice.pk)

    def test_a_card_over_somebodys_sign_in_asks_first(self) -> None:
        secret = self.secret(self.eight.group.pk, self.thandi.enrolment_id, self.eight.lead)
        self.expected_complaints.append("409")
        page = self.page(self.observer, f"/card#{secret}")
        expect(page.get_by_text("Sam Observer is signed in here.")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Sign in with the card").click()
        expect(page.get_by_text("Thandi’s portfolio")).to_be_visible()


class SigningOut(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.about = self.eight.pocket("About me", "page")
        self.thandi = self.eight.student("thandi")
        self.path = f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}/{self.about.pk}"
        self.expected_complaints += ["401", "503"]

    def leave(self, page: Page) -> None:
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Sign out").click()

    def test_what_was_just_typed_is_saved_and_nothing_stays_on_the_device(self) -> None:
        page = self.page(self.thandi.enrolment.person, self.path)
        page.get_by_role("textbox").fill("Typed a blink before.")
        self.leave(page)
        expect(page.get_by_label("User name")).to_be_visible()
        self.assertEqual(Evidence.objects.get().text, "Typed a blink before.")
        self.assertEqual(page.evaluate(LEFT_HERE), [])

    def test_what_cannot_be_saved_is_asked_about(self) -> None:
        page = self.page(self.thandi.enrolment.person, self.path)
        page.get_by_role("textbox").fill("Not yet.")
        with mock.patch("coatpeg.portfolios.evidence.commands.write_page", side_effect=OperationalError(2002, "x")):
            self.leave(page)
            dialog = page.get_by_role("dialog", name="Not everything is up yet")
            expect(dialog.get_by_text("A text is not saved yet.")).to_be_visible()
            self.no_violation(page)
            dialog.get_by_role("button", name="Stay signed in").click()
            expect(page.get_by_role("textbox")).to_have_text("Not yet.")
        self.leave(page)
        expect(page.get_by_label("User name")).to_be_visible()
        self.assertEqual(Evidence.objects.get().text, "Not yet.")

    def test_a_sign_out_that_fails_says_so(self) -> None:
        self.expected_complaints.append("ERR_INTERNET_DISCONNECTED")
        page = self.page(self.thandi.enrolment.person, self.path)
        expect(page.get_by_role("textbox")).to_be_visible()
        page.get_by_role("button", name=re.compile("account of")).click()
        page.wait_for_timeout(500)  # what asks about it is loaded as the menu opens
        page.context.set_offline(True)
        page.get_by_role("menuitem", name="Sign out").click()
        expect(page.get_by_text("You are still signed in: Coat Peg cannot be reached just now.")).to_be_visible()
        page.context.set_offline(False)
        page.get_by_role("button", name="Try again").click()
        expect(page.get_by_label("User name")).to_be_visible()

    def test_a_password_is_changed_and_every_sign_in_ended(self) -> None:
        person = self.thandi.enrolment.person
        page, other = self.page(person, self.path), self.page(person, self.path)
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Password and sign-ins").click()
        self.no_violation(page)
        page.get_by_label("Your password now").fill(builders.PASSWORD)
        page.get_by_label("The new one").fill("barrow hoe trowel")
        page.get_by_role("button", name="Change the password").click()
        expect(page.get_by_text("Your password is changed.")).to_be_visible()
        other.reload()
        expect(other.get_by_label("User name")).to_be_visible()
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Password and sign-ins").click()
        page.get_by_role("button", name="Sign out everywhere").click()
        expect(page.get_by_label("User name")).to_be_visible()
