"""Six stories from sign-in on by the keyboard alone, and what Chromium tells a screen reader of each view."""

import re
from datetime import timedelta
from typing import Any

from playwright.sync_api import Locator, Page, expect

from coatpeg.handins.models import HandIn, Reminder, Submission
from coatpeg.marking.models import ReleasedMark
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Enrolment
from tests import builders
from tests.browser.case import BrowserCase
from tests.builders import PASSWORD

FAR = 60
"""Tabs that a thing may be away from where the keyboard is: beyond that nobody finds it."""


class KeysAlone(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.about = self.eight.pocket("About me", "page", prompt="Who are you?", least=3, measure="words")
        self.thandi = self.eight.student("thandi")
        self.handin = self.eight.handin(
            self.about, title="About me", opens=self.day(-20), due=self.day(3), now=self.now - timedelta(days=15)
        )

    def to(self, page: Page, wanted: Locator, key: str = "Tab") -> None:
        """Go on with one key until the thing has the focus, and the focus is seen."""
        expect(wanted.first).to_be_visible()
        for _ in range(FAR):
            if wanted.first.evaluate("one => one === document.activeElement"):
                seen = wanted.first.evaluate(
                    "one => getComputedStyle(one).outlineStyle !== 'none' || one.matches('input, textarea, [contenteditable]')"
                )
                self.assertTrue(seen, "where the keyboard is can be seen")
                return
            page.keyboard.press(key)
        self.fail(f"{FAR} times {key} do not lead to {wanted}")

    def press(self, page: Page, wanted: Locator) -> None:
        self.to(page, wanted)
        expect(wanted.first).to_be_enabled()
        page.keyboard.press("Enter")

    def sign_in(self, username: str) -> Page:
        page = self.page(None)
        self.to(page, page.get_by_label("User name"))
        page.keyboard.type(username)
        self.to(page, page.get_by_label("Password"))
        page.keyboard.type(PASSWORD)
        page.keyboard.press("Enter")
        expect(page.get_by_role("navigation").first).to_be_visible()
        return page

    def test_a_student_writes_and_hands_in(self) -> None:
        page = self.sign_in("thandi")
        self.press(page, page.get_by_role("link", name="Open About me"))
        self.to(page, page.get_by_role("textbox", name="Who are you?"))
        page.keyboard.type("I grow beans on a stick.")
        # In the text Tab belongs to nobody else: it goes on.
        self.press(page, page.get_by_role("button", name="Hand in"))
        expect(page.get_by_text("Locked: handed in")).to_be_visible()
        self.assertEqual(Submission.objects.count(), 1)

    def test_a_teacher_finds_a_peg_and_marks(self) -> None:
        builders.hand_in(self.thandi, self.handin, self.now, even_if_empty=True)
        page = self.sign_in("okafor")
        peg = page.get_by_role("button", name=re.compile("Dube, Thandi, About me: handed in"))
        self.to(page, page.locator('[role="grid"] [data-cell][tabindex="0"]'))
        self.to(page, peg, "ArrowDown") if not peg.evaluate("one => one === document.activeElement") else None
        page.keyboard.press("m")
        expect(page.get_by_role("region", name="Dube, Thandi · About me")).to_be_visible()
        page.keyboard.press("f")
        expect(page.get_by_label("Feedback")).to_be_focused()
        page.keyboard.type("Tell me more of the beans.")
        page.keyboard.press("Control+Enter")
        expect(page.get_by_text("The pile is empty")).to_be_visible()
        self.assertEqual(ReleasedMark.objects.get().feedback, "Tell me more of the beans.")

    def test_a_teacher_answers_what_the_pegs_ask(self) -> None:
        """Who owes, kept under a name; more time for them and none after all; told what is missing; the list."""
        josh = self.eight.student("josh", "Josh", "Ellery")
        card = self.eight.pocket()
        long_ago = self.now - timedelta(days=9)
        task = self.eight.handin(card, title="Recipe card", opens=self.day(-20), due=self.day(-3), now=long_ago)
        builders.fill(josh, card, long_ago)
        builders.hand_in(josh, task, long_ago)
        page = self.sign_in("okafor")
        self.press(page, page.get_by_role("button", name=re.compile("^Overdue 1")))
        expect(page.get_by_role("rowheader")).to_have_text(["Dube, Thandi"])
        self.press(page, page.get_by_role("button", name="Kept filters"))
        self.press(page, page.get_by_role("button", name="Keep what is shown"))
        expect(page.get_by_role("dialog").get_by_role("textbox", name="Name")).to_be_focused()
        page.keyboard.type("Owing")
        page.keyboard.press("Enter")
        expect(page.get_by_text("“Owing” is kept.")).to_be_visible()
        chosen = page.get_by_role("region", name="What to do with the chosen pegs")
        self.to(page, page.locator('[role="grid"] [data-cell][tabindex="0"]'))
        page.keyboard.press("Control+a")
        expect(chosen.get_by_role("status")).to_contain_text("of 1 student")
        self.press(page, chosen.get_by_role("button", name="More time"))
        expect(page.get_by_role("textbox", name="School days more")).to_be_focused()
        page.keyboard.press("Control+a")
        page.keyboard.type("9")
        self.press(page, page.get_by_role("button", name=re.compile("^Move [0-9]+ due date")))
        expect(page.get_by_text(re.compile("moved for 1 student"))).to_be_visible()
        self.press(page, page.get_by_role("button", name="Undo"))
        expect(page.get_by_text(re.compile("as before"))).to_be_visible()
        self.to(page, page.locator('[role="grid"] [data-cell][tabindex="0"]'))
        page.keyboard.press("Control+a")
        self.press(page, chosen.get_by_role("button", name="Remind …"))
        expect(page.get_by_role("dialog").get_by_label("Your words")).to_be_focused()
        self.press(page, page.get_by_role("button", name="Remind 1 student"))
        expect(page.get_by_text("1 student is reminded.")).to_be_visible()
        self.assertEqual(Reminder.objects.get().enrolment, self.thandi.enrolment)

    def test_a_teacher_sets_a_hand_in(self) -> None:
        page = self.sign_in("okafor")
        self.press(page, page.get_by_role("link", name="Hand-ins"))
        self.press(page, page.get_by_role("link", name="New hand-in"))
        expect(page.get_by_label("Title")).to_be_focused()
        page.keyboard.type("Second look")
        self.to(page, page.get_by_role("checkbox", name="About me"))
        page.keyboard.press("Space")
        self.to(page, page.get_by_label("Due", exact=True))
        page.keyboard.type("tomorrow")
        self.press(page, page.get_by_role("button", name="Set the hand-in"))
        expect(page.get_by_text("“Second look” is set. It hangs on the rail now.")).to_be_visible()
        self.assertEqual(HandIn.objects.get(title="Second look").due_day, self.day(1))

    def test_a_teacher_adds_a_pocket_and_moves_it(self) -> None:
        page = self.sign_in("okafor")
        self.press(page, page.get_by_role("link", name="Template"))
        self.press(page, page.get_by_role("button", name="Add a pocket to The kitchen"))
        expect(page.get_by_label("New pocket in The kitchen")).to_be_focused()
        page.keyboard.type("Seed diary")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Name of the pocket")).to_have_value("Seed diary")
        expect(page.get_by_label("What saving means")).to_contain_text("adds 1 pocket")
        outline = page.get_by_role("navigation", name="Outline of the template")
        line = outline.get_by_role("button", name=re.compile("^Seed diary"))
        self.to(page, line, "Shift+Tab")
        page.keyboard.press("Alt+ArrowUp")
        expect(outline.get_by_role("button", name=re.compile("^(Seed diary|About me)")).first).to_contain_text(
            "Seed diary"
        )
        self.press(page, page.get_by_role("button", name="Save for everyone"))
        expect(page.get_by_text("2 changes are saved")).to_have_count(0)
        expect(page.get_by_text("1 change is saved in")).to_be_visible()
        self.assertEqual(Pocket.objects.order_by("position").first().title, "Seed diary")

    def test_a_list_is_pasted_and_students_are_added(self) -> None:
        page = self.sign_in("okafor")
        self.press(page, page.get_by_role("link", name="Set-up"))
        self.press(page, page.get_by_role("link", name="Bring in a list"))
        self.to(page, page.get_by_label("Paste the list here"))
        page.keyboard.type("Ellery, Josh")
        self.press(page, page.get_by_role("button", name="See what it does"))
        self.press(page, page.get_by_role("button", name="Add 1 student"))
        expect(page.get_by_text("Add 1 student: done.")).to_be_visible()
        self.assertEqual(Enrolment.objects.count(), 2)

    def test_everything_that_can_be_pressed_has_a_name_in_chromium_s_own_tree(self) -> None:
        builders.hand_in(self.thandi, self.handin, self.now, even_if_empty=True)
        base, book = f"/g/{self.eight.group.pk}", f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}"
        staff = (
            "pegs",
            "pile",
            "hand-ins?new=1",
            f"template?pocket={self.about.pk}",
            "setup/list",
            "setup/groups",
            "setup/staff",
            "setup/calendar",
        )
        views = {
            self.eight.lead: tuple(f"{base}/{one}" for one in staff),
            self.thandi.enrolment.person: (book, f"{book}/{self.about.pk}", f"{base}/to-hand-in", f"{base}/feedback"),
        }
        for person, paths in views.items():
            page = self.page(person, "/health")
            for path in paths:
                page.goto(self.live_server_url + path)
                expect(page.locator("main h1, main h2, main nav").first).to_be_attached()
                page.wait_for_load_state("networkidle")
                with self.subTest(path):
                    nodes = told(page)
                    self.assertEqual([one for one in nodes if one["role"] in PRESSED and not one["name"]], [])
                    roles = {one["role"] for one in nodes}
                    self.assertLessEqual({"banner", "main", "heading", "navigation"}, roles)
                    self.assertIn(page.title(), [one["name"] for one in nodes if one["role"] == "RootWebArea"])


PRESSED = {
    "button",
    "link",
    "textbox",
    "checkbox",
    "radio",
    "combobox",
    "searchbox",
    "option",
    "menuitem",
    "spinbutton",
}


def told(page: Page) -> list[dict[str, Any]]:
    """Role and name of every node that Chromium's accessibility tree tells of."""
    session = page.context.new_cdp_session(page)
    found = session.send("Accessibility.getFullAXTree")["nodes"]
    session.detach()
    return [
        {"role": one["role"]["value"], "name": one.get("name", {}).get("value", "").strip()}
        for one in found
        if not one["ignored"] and "role" in one
    ]
