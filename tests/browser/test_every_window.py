"""Every view in a window of 320 × 256, at 200 % and with texts spaced out; names of every kind; help until it is put away."""

import re
from datetime import timedelta

from playwright.sync_api import Page, expect

from coatpeg.people.models import Person
from operations import eyes
from tests import builders
from tests.browser.case import DESK, PHONE, BrowserCase

NARROW, ENLARGED = (320, 256), (640, 400)
"""WCAG 2.2, 1.4.10: 320 × 256 CSS pixels are 1280 × 1024 at 400 %; 640 × 400 is a desk of 1280 × 800 at 200 %."""
LONG = ("Maximiliana-Josephine-Alexandrina-Wilhelm", "van-der-Berg-Oyelaran-Featherstonehaugh-x")
NAMES = (LONG, ("عبد الرحمن", "الفارسي"), ("Ź̵̢͎̮̓a̴̛͓̥͌l̷̩͋g̸̱̈́ơ̶̱", "Ṱ̺̺̕o͞ ̷i̲̬͇̪"), ("小明", "王"), ("Ω", "Ж"))


class EveryWindow(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket("Q3 · What is a good harvest, and how would you know one if you saw it?")
        self.about = self.eight.pocket("About me", "page", starter="I am …")
        self.students = [self.eight.student(f"s{at}", *name) for at, name in enumerate(NAMES)]
        self.first = self.students[0]
        self.handin = self.eight.handin(
            self.card, title="A" * 80, opens=self.day(-20), due=self.day(3), now=self.now - timedelta(days=15)
        )
        builders.fill(self.first, self.card, self.now)
        self.sent = builders.hand_in(self.first, self.handin, self.now)
        builders.mark(self.eight.lead, self.sent, self.now, accept=False, feedback="Say why.")
        builders.fill(self.students[1], self.card, self.now)
        self.waits = builders.hand_in(self.students[1], self.handin, self.now)
        base = f"/g/{self.eight.group.pk}"
        book = f"{base}/portfolio/{self.first.pk}"
        cell = f"student={self.students[1].enrolment_id}&handin={self.handin.pk}"
        self.staff = (
            f"{base}/pegs",
            f"{base}/pegs?{cell}",
            f"{base}/pile/{self.waits.pk}",
            f"{base}/hand-ins?new=1",
            f"{base}/hand-ins/{self.handin.pk}/marking",
            f"{base}/template?pocket={self.card.pk}",
            f"{base}/setup/list",
            f"{base}/setup/groups",
            f"{base}/setup/staff",
            f"{base}/look/{self.card.pk}",
            f"{base}/look/own",
            f"{book}/{self.card.pk}",
            "/classes",
            "/start",
            f"{base}/pegs?as=list",
            f"{base}/pegs?as=patterns",
            f"{base}/pegs?as=scores",
        )
        self.student = (
            book,
            f"{book}/{self.card.pk}",
            f"{book}/{self.about.pk}",
            f"{book}/submission/{self.sent.pk}",
            f"{base}/to-hand-in",
            f"{base}/feedback",
        )
        self.person = self.first.enrolment.person

    def look(self, person: Person, paths: tuple[str, ...], *sizes: tuple[int, int]) -> None:
        for size in sizes:
            page = self.page(person, "/health", size)
            heard = eyes.Heard(page)
            for path in paths:
                page.goto(self.live_server_url + path)
                expect(page.locator("main h1, main h2, main nav").first).to_be_attached()
                page.wait_for_load_state("networkidle")
                with self.subTest(f"{size} {path}"):
                    self.fits(page)
                    if size == DESK:
                        self.assertEqual(eyes.lost_when_spaced(page, heard), [])
                    if size == ENLARGED:
                        self.no_violation(page)
            self.leave(page)

    def test_no_view_of_the_staff_is_wider_than_a_narrow_window_or_loses_text_that_is_spaced_out(self) -> None:
        self.look(self.eight.lead, self.staff, NARROW, ENLARGED, DESK)

    def test_no_view_of_a_student_is_wider_than_a_narrow_window_or_loses_text_that_is_spaced_out(self) -> None:
        self.look(self.person, self.student, NARROW, ENLARGED, DESK)

    def test_pictures_that_never_load_leave_their_words_and_their_place(self) -> None:
        self.expected_complaints = ["Failed to load resource"]
        page = self.page(self.person, "/health", PHONE)
        page.route("**/thumbnails/**", lambda one: one.abort())
        page.goto(self.live_server_url + self.student[1])
        expect(page.get_by_text("card.jpg").first).to_be_visible()
        self.fits(page)
        self.no_violation(page)

    def test_a_form_that_opens_below_what_was_looked_at_is_seen_and_has_the_keyboard(self) -> None:
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/hand-ins", ENLARGED)
        page.get_by_role("link", name="New hand-in").click()
        title = page.get_by_label("Title")
        expect(title).to_be_focused()
        expect(title).to_be_in_viewport()
        page.keyboard.type("Menu")
        expect(title).to_have_value("Menu")
        self.nothing_hides_what_has_the_focus(page)

    def nothing_hides_what_has_the_focus(self, page: Page) -> None:
        """WCAG 2.2, 2.4.11: whatever the tab key reaches in the form is on top where it stands."""
        for _ in range(12):
            page.keyboard.press("Tab")
            hidden = page.evaluate(
                """() => {
                  const one = document.activeElement, box = one.getBoundingClientRect();
                  const top = document.elementFromPoint(box.left + box.width / 2, box.top + Math.min(box.height / 2, 12));
                  return top && (one.contains(top) || top.contains(one) || one.labels?.[0]?.contains(top)) ? null : one.outerHTML.slice(0, 120);
                }"""
            )
            self.assertIsNone(hidden)

    def test_what_a_view_is_for_is_said_once_until_it_is_put_away(self) -> None:
        Person.objects.filter(pk=self.eight.lead.pk).update(reading={})
        page = self.page(self.eight.lead, self.staff[0])
        help_ = page.get_by_role("complementary", name="What this view is for")
        expect(help_).to_contain_text("a coat says how each of them stands")
        self.no_violation(page)
        help_.get_by_role("button", name="Put away").click()
        expect(help_).to_have_count(0)
        expect(page.get_by_role("main")).to_be_focused()
        page.get_by_role("link", name="Marking pile").click()
        expect(help_).to_contain_text("the oldest first")
        page.goto(self.live_server_url + self.staff[0])
        expect(page.get_by_role("grid")).to_be_visible()
        expect(help_).to_have_count(0)
        page.keyboard.press("?")
        expect(page.get_by_role("dialog")).to_contain_text("a coat says how each of them stands")

    def test_next_up_says_what_needs_the_student_what_came_back_and_what_is_new(self) -> None:
        page = self.page(self.person, self.student[0])
        main = page.get_by_role("main")
        expect(main.get_by_role("link", name=re.compile("^Open Q3"))).to_be_visible()
        expect(main.get_by_role("region", name="What came back").get_by_role("link")).to_contain_text("Sent back")
        expect(main.get_by_role("region", name="What is new")).to_be_visible()
        self.no_violation(page)
        main.get_by_role("region", name="What came back").get_by_role("link").click()
        expect(page.get_by_role("heading", name=re.compile("submission 1"))).to_be_visible()
