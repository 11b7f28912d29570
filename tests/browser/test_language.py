"""Every view in a made-up language: longer words, no plain letter, dates of another alphabet."""

import pickle
import subprocess
from datetime import timedelta

from django.conf import settings
from playwright.sync_api import Page, expect

from coatpeg.people.models import Person
from operations import eyes
from tests import builders
from tests.browser.case import DESK, PHONE, BrowserCase


def in_it(text: str) -> str:
    """A text as the made-up language has it."""
    script = 'import { pseudo } from "./texts.js"; process.stdout.write(pseudo(process.argv[1]));'
    words = ["node", "--input-type=module", "-e", script, text]
    return subprocess.run(words, cwd=settings.BASE_DIR / "frontend", capture_output=True, text=True, check=True).stdout


class Language(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.about = self.eight.pocket("About me", "page", starter="I am …")
        self.thandi = self.eight.student("thandi")
        self.josh = self.eight.student("josh", "Josh", "Ellery", period="P4")
        self.base = f"/g/{self.eight.group.pk}"
        self.handins = [
            self.eight.handin(
                self.card, title=title, opens=self.day(-20), due=self.day(due), now=self.now - timedelta(days=15)
            )
            for title, due in (("Recipe card", 3), ("Menu", -4))
        ]
        builders.fill(self.thandi, self.card, self.now)
        self.first = builders.hand_in(self.thandi, self.handins[0], self.now)
        builders.mark(self.eight.lead, self.first, self.now, accept=False, feedback="Say why.")
        builders.fill(self.josh, self.card, self.now)
        self.waits = builders.hand_in(self.josh, self.handins[1], self.now)

    def walk(self, person: Person, paths: tuple[str, ...], size: tuple[int, int]) -> None:
        page = self.page(person, "/health", size, locale=eyes.PSEUDO)
        heard = eyes.Heard(page)
        for path in paths:
            page.goto(self.live_server_url + path)
            expect(page.locator("main h1, main h2, main nav").first).to_be_attached()
            page.wait_for_load_state("networkidle")
            with self.subTest(f"{size} {path}"):
                self.in_the_language(page, heard)

    def in_the_language(self, page: Page, heard: eyes.Heard) -> None:
        self.assertEqual(page.evaluate("document.documentElement.lang"), eyes.PSEUDO)
        self.assertEqual(heard.told(lambda: eyes.plain_english(page, heard)), [])
        self.assertEqual(eyes.cut_off(page, heard), [])
        self.fits(page)

    def test_the_staff_s_views(self) -> None:
        cell = f"student={self.josh.enrolment_id}&handin={self.handins[1].pk}"
        paths = (
            "/classes",
            "/start",
            f"{self.base}/pegs",
            f"{self.base}/pegs?{cell}",
            f"{self.base}/pegs?as=list",
            f"{self.base}/pegs?as=patterns",
            f"{self.base}/pegs?as=scores",
            f"{self.base}/pile",
            f"{self.base}/pile/{self.waits.pk}",
            f"{self.base}/hand-ins",
            f"{self.base}/hand-ins?new=1",
            f"{self.base}/hand-ins/{self.handins[1].pk}/marking",
            f"{self.base}/template?pocket={self.card.pk}",
            f"{self.base}/template?pocket={self.about.pk}",
            f"{self.base}/setup/list",
            f"{self.base}/setup/list?bring=1",
            f"{self.base}/setup/groups",
            f"{self.base}/setup/staff",
            f"{self.base}/setup/calendar",
            f"{self.base}/look/{self.card.pk}",
            f"{self.base}/shows",
            f"{self.base}/portfolio/{self.thandi.pk}/{self.card.pk}",
        )
        self.walk(self.eight.lead, paths, DESK)

    def test_the_student_s_views(self) -> None:
        book = f"{self.base}/portfolio/{self.thandi.pk}"
        paths = (
            book,
            f"{book}/{self.card.pk}",
            f"{book}/{self.about.pk}",
            f"{book}/whole",
            f"{book}/show",
            f"{book}/taken-out",
            f"{book}/submission/{self.first.pk}",
            f"{self.base}/to-hand-in",
            f"{self.base}/feedback",
        )
        for size in (DESK, PHONE):
            self.walk(self.thandi.enrolment.person, paths, size)

    def test_a_failing_part_is_told_by_the_process_that_runs_the_tests(self) -> None:
        self.page(None, "/health")
        self.addCleanup(lambda: None)
        with self.subTest("a part"):
            self.assertEqual(pickle.loads(pickle.dumps(self._subtest)).id(), self._subtest.id())

    def test_the_school_s_views_and_signing_in(self) -> None:
        caseload = builders.klass("Caseload", "lindqvist", "caseload", today=self.today)
        self.walk(caseload.lead, (f"/g/{caseload.group.pk}/caseload",), DESK)
        self.walk(
            builders.person("bright", administrator=True),
            ("/school", "/school?part=late", "/school?part=accounts", "/school?part=mail", "/requests"),
            DESK,
        )
        page = self.page(None, "/health", locale=eyes.PSEUDO)
        heard = eyes.Heard(page)
        page.goto(self.live_server_url)
        expect(page.get_by_role("textbox").first).to_be_visible()
        self.in_the_language(page, heard)

    def opened(self, page: Page, heard: eyes.Heard, path: str, name: str) -> None:
        """The dialog that a button of a view opens."""
        page.goto(self.live_server_url + path)
        page.get_by_role("button", name=in_it(name), exact=True).first.click()
        self.looked_at(page, heard, name)

    def looked_at(self, page: Page, heard: eyes.Heard, name: str) -> None:
        expect(page.get_by_role("dialog").get_by_role("heading").first).to_be_visible()
        page.wait_for_load_state("networkidle")
        with self.subTest(name):
            self.in_the_language(page, heard)

    def test_the_staff_s_dialogs(self) -> None:
        page = self.page(self.eight.lead, "/health", locale=eyes.PSEUDO)
        heard = eyes.Heard(page)
        for name in ("How I like to read", "Due dates in your calendar", "Password and sign-ins"):
            page.goto(f"{self.live_server_url}{self.base}/pegs")
            page.get_by_role("banner").get_by_role("button").last.click()
            page.get_by_role("menuitem", name=in_it(name)).click()
            self.looked_at(page, heard, name)
        self.opened(page, heard, f"{self.base}/template?pocket={self.card.pk}", "Bring in a template")
        self.opened(page, heard, f"{self.base}/pile/{self.waits.pk}", "Send back")

    def test_a_student_s_dialogs(self) -> None:
        menu = self.eight.pocket("Menu")
        page = self.page(self.thandi.enrolment.person, "/health", PHONE, locale=eyes.PSEUDO)
        heard = eyes.Heard(page)
        book = f"{self.base}/portfolio/{self.thandi.pk}"
        self.opened(page, heard, book, "Change the cover")
        for name in ("Recording", "From my portfolio"):
            self.opened(page, heard, f"{book}/{menu.pk}", name)

    def test_a_language_that_nobody_knows_is_english(self) -> None:
        for locale in ("fr-FR", "tlh", "en-US"):
            page = self.page(None, locale=locale)
            expect(page.get_by_role("button", name="Sign in", exact=True)).to_be_visible()
            self.assertEqual(page.evaluate("document.documentElement.lang"), "en")
