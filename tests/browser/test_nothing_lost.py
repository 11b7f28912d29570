"""Bad input and bad luck, in the browser: a clear word each time, and nothing lost."""

import re
import tempfile
from pathlib import Path
from unittest import mock

from django.contrib.sessions.models import Session
from django.db import OperationalError
from django.test import override_settings
from playwright.sync_api import Page, expect

from coatpeg.handins.models import Submission
from coatpeg.notices.fanning import fan_out
from coatpeg.portfolios.models import Evidence
from tests import builders
from tests.background import run_waiting
from tests.browser.case import BrowserCase, choose, picture_file, undo

SLOW_LOOKUP = """
const get = IDBObjectStore.prototype.get;
IDBObjectStore.prototype.get = function (key) {
  const asked = get.call(this, key), slow = {};
  asked.onsuccess = () => setTimeout(() => { slow.result = asked.result; slow.onsuccess?.(); }, 1500);
  return slow;
};
"""
"""What the browser's own database keeps is found a while after it was asked for."""
STATUS = r"the server responded with a status of (401|403|404|409|413|422|503)"
LOST = r"net::ERR_(INTERNET_DISCONNECTED|CONNECTION|FAILED|EMPTY_RESPONSE)"


class NothingLost(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.expected_complaints = [STATUS]
        self.eight = self.plot()
        self.card = self.eight.pocket(artefacts=1)
        self.thandi = self.eight.student("thandi")
        self.person = self.thandi.enrolment.person
        self.handin = self.eight.handin(self.card, due=self.day(3), opens=self.day(-7), now=self.now)
        self.path = f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}/{self.card.pk}"
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def open(self) -> Page:
        return self.page(self.person, self.path)

    def choose(self, page: Page, name: str, data: bytes) -> None:
        choose(page, picture_file(self.folder, name, data))

    def saved(self, page: Page) -> None:
        expect(page.get_by_text(re.compile(r"Saved \d\d:\d\d"))).to_be_visible()

    def text(self) -> str:
        return Evidence.objects.get().text

    @override_settings(CLEAN_PICTURES_LATER=True)
    def test_a_photo_is_handed_in_while_it_is_being_made_ready(self) -> None:
        self.expected_complaints = [STATUS, "status of 423"]
        page = self.open()
        self.choose(page, "card.jpg", builders.jpeg(size=(300, 300)))
        expect(page.get_by_text("is in your pocket and is being made ready")).to_be_visible()
        waits = "This picture is being made ready."
        expect(page.get_by_text(waits)).to_be_visible()
        page.get_by_role("button", name="Hand in", exact=True).click()
        expect(page.get_by_text(re.compile("Receipt")).first).to_be_visible()
        desk = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile")
        expect(desk.get_by_text(waits).first).to_be_visible()
        run_waiting()
        for each in (page, desk):
            expect(each.get_by_text(waits)).to_have_count(0)
            expect(each.locator("main img").first).to_be_visible()
        expect(page.get_by_text("is in your pocket and is being made ready")).to_have_count(0)

    @override_settings(CLEAN_PICTURES_LATER=True)
    def test_a_photo_that_turns_out_to_be_broken_leaves_its_pocket_and_says_why(self) -> None:
        self.expected_complaints = [STATUS, "status of 423"]
        page = self.open()
        whole = builders.jpeg(size=(300, 300))
        self.choose(page, "half.jpg", whole[: len(whole) // 2])
        expect(page.get_by_role("heading", name="half.jpg")).to_be_visible()
        run_waiting()
        expect(page.get_by_role("alert").first).to_contain_text(
            "“half.jpg” is a picture that cannot be read to its end"
        )
        expect(page.get_by_role("heading", name="half.jpg")).to_have_count(0)
        page.get_by_role("button", name="Let it go").click()
        expect(page.get_by_role("alert")).to_have_count(0)
        fan_out.func()
        page.reload()
        page.get_by_role("button", name=re.compile("^News")).click()
        expect(page.get_by_text("could not be read: add it once more")).to_be_visible()

    def test_what_a_lock_overtook_stands_beside_and_holds_up_no_other_hand_in(self) -> None:
        self.expected_complaints = [STATUS, LOST]
        evidence = builders.add_picture(self.thandi, self.card, self.now)
        self.eight.handin(self.card, title="Whole term", due=self.day(5), opens=self.day(-7), now=self.now)
        page = self.open()
        expect(page.get_by_role("textbox")).to_be_editable()
        page.context.set_offline(True)
        page.get_by_role("textbox").fill("Typed too late. It is here.")
        builders.hand_in(self.thandi, self.handin, self.now)
        page.context.set_offline(False)
        expect(page.get_by_text("Typed too late. It is here.")).to_be_visible()
        expect(page.get_by_text("What you typed last was not saved before the pocket was locked.")).to_be_visible()
        page.get_by_role("region", name="Hand in: Whole term").get_by_role("button", name="Hand in").click()
        expect(page.get_by_text(re.compile("Receipt")).nth(1)).to_be_visible()
        evidence.refresh_from_db()
        self.assertEqual(evidence.text, "")

    def test_files_that_cannot_be_taken(self) -> None:
        page = self.open()
        self.choose(page, "card.jpg", b"only words")
        alert = page.get_by_role("alert").first
        expect(alert).to_contain_text("“card.jpg” is named like a picture, but what is in it is not a picture.")
        page.get_by_role("button", name="Let it go").click()
        whole = builders.jpeg(size=(300, 300))
        self.choose(page, "half.jpg", whole[: len(whole) // 2])
        expect(alert).to_contain_text("broken or only partly there")
        page.get_by_role("button", name="Let it go").click()
        self.choose(page, "nothing.txt", b"")
        expect(alert).to_contain_text("is empty (0 bytes)")
        page.get_by_role("button", name="Let it go").click()
        with override_settings(UPLOAD_LIMIT=2 * 1024 * 1024):
            page.reload()
            self.choose(page, "long.bin", b"x" * (3 * 1024 * 1024))
            expect(alert).to_contain_text("“long.bin” is larger than 2 MB, the most this school takes.")
        self.assertEqual(Evidence.objects.count(), 0)

    def test_a_link_that_is_none_stays_in_its_field(self) -> None:
        page = self.open()
        page.get_by_role("button", name="Link", exact=True).click()
        for bad, words in (
            ("recipes.example", "Write https://recipes.example"),
            ("javascript:alert(1)", "not opened here"),
        ):
            page.get_by_label("Link", exact=True).fill(bad)
            page.get_by_role("button", name="Add the link").click()
            expect(page.get_by_role("alert")).to_contain_text(words)
            expect(page.get_by_label("Link", exact=True)).to_have_value(bad)

    def test_a_text_that_is_too_long_stays_and_says_so(self) -> None:
        builders.add_picture(self.thandi, self.card, self.now)
        page = self.open()
        field = page.get_by_role("textbox")
        field.fill("Bean " * 20_000)
        expect(page.get_by_text("100000 characters; 20000 is the most").first).to_be_visible()
        expect(page.get_by_role("alert")).to_contain_text("20000 is the most")
        self.assertEqual(len(field.input_value()), 100_000)
        field.fill("Short again. Really short.")
        self.saved(page)
        self.assertEqual(self.text(), "Short again. Really short.")

    def test_handed_in_from_two_tabs(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        first, second = self.open(), self.open()
        expect(second.get_by_role("button", name="Hand in")).to_be_visible()
        second.route("**/changes*", lambda route: route.abort())
        self.expected_complaints.append(LOST)
        first.get_by_role("button", name="Hand in").click()
        expect(first.get_by_text("Locked: handed in")).to_be_visible()
        second.get_by_role("button", name="Hand in").click()
        receipt = Submission.objects.get().receipt
        expect(second.get_by_role("alert")).to_contain_text(f"This is already handed in. Receipt {receipt}.")
        self.assertEqual(Submission.objects.count(), 1)

    def test_a_save_that_arrives_after_the_lock_keeps_the_words_to_copy(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.open()
        field = page.get_by_role("textbox")
        expect(field).to_be_editable()
        page.route("**/changes*", lambda route: route.abort())
        self.expected_complaints.append(LOST)
        builders.hand_in(self.thandi, self.handin, self.now)
        field.fill("Typed on the other device.")
        expect(page.get_by_role("alert")).to_contain_text("is locked: it was handed in")
        expect(field).to_have_value("Typed on the other device.")
        expect(page.get_by_role("button", name="Copy my text")).to_be_visible()
        self.assertEqual(self.text(), "One thing. Another thing.")

    def test_two_devices_in_one_text_the_person_chooses(self) -> None:
        evidence = builders.fill(self.thandi, self.card, self.now)
        page = self.open()
        field = page.get_by_role("textbox")
        expect(field).to_have_value("One thing. Another thing.")
        page.route("**/changes*", lambda route: route.abort())
        self.expected_complaints.append(LOST)
        builders.reflect(evidence, "From the phone.", self.now)
        field.fill("From the tablet.")
        both = page.get_by_role("region", name="This text was changed in two places")
        expect(both.get_by_text("From the phone.")).to_be_visible()
        expect(both.get_by_text("From the tablet.")).to_be_visible()
        both.get_by_role("button", name="Put both together").click()
        self.saved(page)
        self.assertEqual(self.text(), "From the tablet.\n\nFrom the phone.")

    def test_signed_out_while_typing_comes_back_after_signing_in_and_only_for_that_person(self) -> None:
        builders.add_picture(self.thandi, self.card, self.now)
        other = self.eight.student("josh", "Josh", "Ellery").enrolment.person
        page = self.open()
        expect(page.get_by_role("textbox")).to_be_editable()
        # The save shall find out, not the poll, which may come at any moment.
        quiet = {"cursor": 0, "all_changed": False, "kinds": [], "rows": []}
        page.route("**/api/groups/*/changes*", lambda route: route.fulfill(json=quiet))
        Session.objects.all().delete()
        page.get_by_role("textbox").fill("Typed while signed out. Still here.")
        expect(page.get_by_text("You were signed out.")).to_be_visible()
        page.unroute("**/api/groups/*/changes*")
        self.sign_in(page, other.username)
        expect(page.get_by_text("There is nothing here for you.")).to_be_visible()
        page.get_by_role("button", name="JE, account of Josh Ellery").click()
        page.get_by_role("menuitem", name="Sign out").click()
        self.sign_in(page, "thandi")
        page.goto(self.live_server_url + self.path)
        expect(page.get_by_role("textbox")).to_have_value("Typed while signed out. Still here.")
        for _ in range(80):  # whichever view it was that sent it
            if self.text():
                break
            page.wait_for_timeout(100)
        self.assertEqual(self.text(), "Typed while signed out. Still here.")

    def sign_in(self, page: Page, username: str | None) -> None:
        page.get_by_label("User name").fill(username or "")
        page.get_by_label("Password").fill(builders.PASSWORD)
        page.get_by_role("button", name="Sign in", exact=True).click()
        expect(page.get_by_label("Password")).not_to_be_visible()

    def test_the_server_gone_for_a_while(self) -> None:
        self.expected_complaints.append(LOST)
        builders.add_picture(self.thandi, self.card, self.now)
        page = self.open()
        expect(page.get_by_role("textbox")).to_be_editable()
        page.context.set_offline(True)
        page.get_by_role("textbox").fill("Typed while the server was gone. It stays.")
        expect(page.get_by_text("Coat Peg cannot be reached just now.")).to_be_visible()
        expect(page.get_by_text("Kept on this device; goes up by itself")).to_be_visible()
        page.context.set_offline(False)
        self.saved(page)
        expect(page.get_by_text("Coat Peg cannot be reached just now.")).not_to_be_visible()
        self.assertEqual(self.text(), "Typed while the server was gone. It stays.")

    def test_the_database_gone_and_the_tab_closed_meanwhile(self) -> None:
        builders.add_picture(self.thandi, self.card, self.now)
        page = self.open()
        expect(page.get_by_role("textbox")).to_be_editable()
        with mock.patch("coatpeg.portfolios.writing.locked_portfolio", side_effect=OperationalError(2006, "gone away")):
            page.get_by_role("textbox").fill("Typed while the database was gone. It stays.")
            expect(page.get_by_text("Kept on this device; goes up by itself")).to_be_visible()
            context = page.context
            page.close()
        again = context.new_page()
        again.goto(self.live_server_url + self.path)
        expect(again.get_by_role("textbox")).to_have_value("Typed while the database was gone. It stays.")
        # The closing tab's last try may be what saved it: what counts is that the server has it.
        for _ in range(80):
            if self.text() == "Typed while the database was gone. It stays.":
                break
            again.wait_for_timeout(100)
        self.assertEqual(self.text(), "Typed while the database was gone. It stays.")

    def test_taken_out_and_undone(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.open()
        page.get_by_role("button", name="Put in the bin: card.jpg").click()
        expect(page.get_by_role("heading", name="card.jpg")).not_to_be_visible()
        undo(page)
        expect(page.get_by_role("textbox")).to_have_value("One thing. Another thing.")

    def test_nothing_in_it_is_asked_once(self) -> None:
        page = self.open()
        page.get_by_role("button", name="Hand in").click()
        expect(page.get_by_role("alert")).to_contain_text("There is nothing of yours in this yet.")
        page.get_by_role("button", name="Hand in anyway").click()
        expect(page.get_by_text("Locked: handed in")).to_be_visible()

    def test_a_form_left_half_done_is_back_and_the_word_about_it_hides_no_button(self) -> None:
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/hand-ins?new=1")
        title = page.get_by_label("Title")
        title.fill("Harvest lunch")
        expect(page.get_by_text("Give it a title")).to_be_visible()
        page.wait_for_timeout(1000)  # kept a moment after the last key
        page.reload()
        expect(title).to_have_value("Harvest lunch")
        word = page.get_by_text("What you typed here before is back.").bounding_box()
        button = page.get_by_role("button", name="Set the hand-in").bounding_box()
        assert word is not None
        assert button is not None
        self.assertLess(word["y"] + word["height"], button["y"], "it lies above the bar")
        undo(page)
        expect(title).to_have_value("")
        page.wait_for_timeout(1000)
        page.reload()
        expect(title).to_have_value("")
        expect(page.get_by_text("What you typed here before is back.")).to_have_count(0)

    def test_what_is_typed_before_an_earlier_draft_was_looked_for_is_kept_beside_it(self) -> None:
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/hand-ins?new=1")
        page.add_init_script(SLOW_LOOKUP)
        page.reload()
        title, points = page.get_by_label("Title"), page.get_by_label("Points")
        title.fill("Harvest lunch")
        page.wait_for_timeout(2500)  # looked for, and kept after that
        page.reload()
        points.fill("30")
        expect(title).to_have_value("Harvest lunch")
        expect(points).to_have_value("30")
        page.wait_for_timeout(500)
        page.reload()
        expect(title).to_have_value("Harvest lunch")
        expect(points).to_have_value("30")
