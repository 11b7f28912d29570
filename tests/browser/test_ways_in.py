"""Every way of putting work in, at tablet and phone size.

Chromium's own camera and microphone stand in for the devices.
"""

from __future__ import annotations

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Page, expect

from coatpeg.portfolios.models import Artefact, Evidence, WrittenText
from coatpeg.setup.template import changing
from tests import builders, documents
from tests.background import run_waiting
from tests.browser.case import PHONE, TABLET, BrowserCase, choose, picture_file, undo

SAVED = re.compile(r"Saved \d\d:\d\d")


class WaysIn(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket(spoken=True)
        self.menu = self.eight.pocket("Menu", artefacts=1)
        self.about = self.eight.pocket("About me", "page", prompt="Who are you?", measure="words", least=4)
        self.thandi = self.eight.student("thandi")
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def open(self, pocket: object = None, size: tuple[int, int] = TABLET) -> Page:
        path = f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}/{(pocket or self.card).pk}"  # type: ignore[attr-defined]
        return self.page(self.thandi.enrolment.person, path, size)

    def until(self, page: Page, true: str) -> None:
        """Wait for something in the page, without the functions from text that our policy forbids."""
        for _ in range(100):
            if page.evaluate(true):
                return
            page.wait_for_timeout(100)
        self.fail(true)

    def picture(self, name: str, colour: tuple[int, int, int]) -> str:
        return picture_file(self.folder, name, builders.jpeg(colour, (300, 200)))

    def test_photos_straight_from_the_camera_on_a_phone(self) -> None:
        page = self.open(size=PHONE)
        page.get_by_role("button", name="Photo", exact=True).click()
        page.get_by_role("button", name="Take it").click()
        page.get_by_role("button", name="Take another photo").click()
        page.get_by_role("button", name="Take it").click()
        expect(page.get_by_role("list", name="Photos in their order").get_by_role("listitem")).to_have_count(2)
        self.no_violation(page)
        self.fits(page)
        page.get_by_role("button", name="Add 2 photos").click()
        expect(page.get_by_role("heading", name="Photo 2.jpg")).to_be_visible()
        self.assertEqual([one.kind for one in Artefact.objects.all()], ["picture", "picture"])
        self.fits(page)
        self.no_violation(page)

    def test_several_photos_ordered_turned_cropped_and_joined_to_pages(self) -> None:
        page = self.open()
        files = [
            self.picture("a.jpg", (250, 0, 0)),
            self.picture("b.jpg", (0, 250, 0)),
            self.picture("c.jpg", (0, 0, 250)),
        ]
        page.get_by_label("File", exact=True).set_input_files(files)
        page.get_by_role("button", name="Move back: a.jpg").click()
        page.get_by_role("button", name="Turn: c.jpg").click()
        page.get_by_role("button", name="Crop: b.jpg").click()
        page.get_by_label("Right edge").fill("50")
        self.no_violation(page)
        page.get_by_role("button", name="Crop it so").click()
        expect(page.get_by_text("cropped")).to_be_visible()
        page.get_by_label("Join them").check()
        page.get_by_role("button", name="Leave it out: a.jpg").click()
        page.get_by_role("button", name="Add as one").click()
        expect(page.get_by_role("heading", name=re.compile(r"^Pages \d"))).to_be_visible()
        scan = Artefact.objects.get()
        assert scan.stored
        self.assertEqual((scan.kind, scan.stored.width, scan.stored.height), ("scan", 150, 200))
        run_waiting()
        page.get_by_role("button", name=re.compile("^Look at it: Pages")).click()
        expect(page.get_by_role("img", name=re.compile("page 2 of 2"))).to_be_visible()
        self.no_violation(page)

    def test_a_file_is_looked_at_in_the_page_once_it_is_readable(self) -> None:
        page = self.open()
        choose(page, picture_file(self.folder, "harvest.xlsx", documents.xlsx()))
        page.get_by_role("button", name="Look at it: harvest.xlsx").click()
        expect(page.get_by_text("It is being made readable.")).to_be_visible()
        run_waiting()
        expect(page.get_by_role("cell", name="240")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Empty").click()
        expect(page.get_by_text("This table is empty.")).to_be_visible()
        page.keyboard.press("Escape")
        choose(page, picture_file(self.folder, "water.pptx", documents.pptx()))
        expect(page.get_by_role("heading", name="water.pptx")).to_be_visible()
        run_waiting()
        page.get_by_role("button", name="Look at it: water.pptx").click()
        expect(page.get_by_role("img", name=re.compile("page 1 of 1"))).to_be_visible()
        with page.expect_download() as kept:
            page.get_by_role("link", name="Download the original").click()
        self.assertEqual(kept.value.suggested_filename, "water.pptx")

    def test_sound_recorded_paused_listened_to_and_kept(self) -> None:
        page = self.open(size=PHONE)
        page.get_by_role("button", name="Recording", exact=True).click()
        page.get_by_role("button", name="Start recording").click()
        expect(page.get_by_role("timer")).to_contain_text(re.compile("0:(0[1-9]|1)"))
        self.until(page, "document.querySelector('meter').value > 0")
        self.no_violation(page)
        page.get_by_role("button", name="Pause").click()
        expect(page.get_by_text("Nothing is recorded just now.")).to_be_visible()
        page.get_by_role("button", name="Go on").click()
        page.get_by_role("button", name="Stop").click()
        expect(page.get_by_label("Listen again")).to_be_visible()
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("heading", name=re.compile(r"^Sound .*\.webm"))).to_be_visible()
        self.assertEqual(Artefact.objects.get().kind, "sound")
        self.fits(page)

    def test_a_recording_is_not_lost_by_escape_or_a_click_outside(self) -> None:
        page = self.open()
        page.get_by_role("button", name="Recording", exact=True).click()
        page.get_by_role("button", name="Start recording").click()
        expect(page.get_by_role("timer")).to_contain_text(re.compile("0:(0[1-9]|1)"))
        dialog = page.get_by_role("dialog")
        for leave in (lambda: page.keyboard.press("Escape"), lambda: page.mouse.click(5, 400)):
            leave()
            expect(dialog.get_by_text("What you recorded is not kept yet. Let it go?")).to_be_visible()
            self.no_violation(page)
            dialog.get_by_role("button", name="Stay here").click()
        dialog.get_by_role("button", name="Stop").click()
        page.keyboard.press("Escape")
        dialog.get_by_role("button", name="Stay here").click()
        dialog.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("heading", name=re.compile(r"^Sound .*\.webm"))).to_be_visible()

    def test_video_from_the_camera(self) -> None:
        page = self.open()
        page.get_by_role("button", name="Recording", exact=True).click()
        page.get_by_role("radio", name="Video").click()
        page.get_by_role("button", name="Start recording").click()
        expect(page.get_by_role("timer")).to_contain_text(re.compile("0:(0[1-9]|1)"))
        page.get_by_role("button", name="Stop").click()
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("heading", name=re.compile(r"^Video .*\.webm"))).to_be_visible()
        page.get_by_role("button", name=re.compile("^Look at it: Video")).click()
        self.until(page, "document.querySelector('[role=dialog] video')?.readyState > 0")
        self.assertEqual(Artefact.objects.get().kind, "video")

    def test_a_reflection_that_is_said_with_a_transcript(self) -> None:
        builders.add_picture(self.thandi, self.card, self.now)
        page = self.open()
        page.get_by_role("button", name="Say it instead").click()
        page.get_by_role("button", name="Start recording").click()
        expect(page.get_by_role("timer")).to_contain_text(re.compile("0:(0[1-9]|1)"))
        page.get_by_role("button", name="Stop").click()
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_label(re.compile("^As you said it"))).to_be_visible()
        expect(page.get_by_role("list", name="Still wanted")).to_contain_text("reflection on card.jpg, done")
        page.get_by_label("In writing (if you like)").fill("It shows roots.")
        expect(page.get_by_text(SAVED)).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Take the recording away").click()
        expect(page.get_by_label(re.compile("^As you said it"))).to_have_count(0)
        expect(page.get_by_text("The recording was taken away.")).to_be_visible()
        undo(page)
        expect(page.get_by_label(re.compile("^As you said it"))).to_be_visible()

    def test_a_link_that_gives_cause_for_doubt_is_asked_once(self) -> None:
        self.expected_complaints.append("422")
        page = self.open(size=PHONE)
        page.get_by_role("button", name="Link", exact=True).click()
        page.get_by_label("Link", exact=True).fill("https://docs.example/d/1/edit")
        page.get_by_role("button", name="Add the link").click()
        expect(page.get_by_role("alert")).to_contain_text("the address for editing")
        page.get_by_role("button", name="Add it even so").click()
        expect(page.get_by_role("link", name="https://docs.example/d/1/edit")).to_be_visible()

    def test_a_text_with_a_heading_a_table_and_a_formula(self) -> None:
        page = self.open()
        page.get_by_role("button", name="Text", exact=True).click()
        field = page.get_by_role("textbox", name="Your text: Text")
        field.click()
        page.get_by_role("button", name="Heading", exact=True).click()
        page.keyboard.type("Pea soup")
        page.keyboard.press("Enter")
        page.keyboard.type("Half of it: ")
        page.get_by_role("button", name="Formula").click()
        page.get_by_label("In TeX").fill("\\frac{1}{2}")
        page.get_by_role("button", name="Put it in").click()
        expect(field.locator(".formula .katex")).to_be_visible()
        field.press("End")
        page.get_by_role("button", name="Table", exact=True).click()
        page.keyboard.type("Peas")
        page.keyboard.press("Tab")
        page.keyboard.type("400 g")
        page.get_by_role("button", name="Take the row out").click()
        expect(page.get_by_text(SAVED)).to_be_visible()
        self.no_violation(page)
        for _ in range(50):
            if WrittenText.objects.filter(html__contains="<table>").exists():
                break
            page.wait_for_timeout(100)
        written = WrittenText.objects.get()
        self.assertIn("<h2>Pea soup</h2>", written.html)
        self.assertIn('<span data-tex="\\frac{1}{2}"></span>', written.html)
        page.reload()
        expect(page.get_by_role("textbox", name="Your text: Text").locator(".katex")).to_be_visible()
        expect(page.get_by_text(f"{written.words} words")).to_be_visible()
        staff = self.page(self.eight.lead, page.url.removeprefix(self.live_server_url))
        expect(staff.get_by_role("heading", name="Pea soup")).to_be_visible()
        self.no_violation(staff)

    def test_a_picture_of_the_portfolio_in_a_page(self) -> None:
        builders.add_picture(self.thandi, self.card, self.now)
        page = self.open(self.about)
        field = page.get_by_role("textbox", name="Who are you?")
        field.fill("I am Thandi and I grow beans.")
        page.get_by_role("button", name="Picture", exact=True).click()
        page.get_by_role("button", name=re.compile("card.jpg")).click()
        expect(page.get_by_label("In words, for whoever cannot see it")).to_be_focused()
        self.no_violation(page)
        page.keyboard.type("Beans on a stick")
        page.keyboard.press("Enter")
        expect(field.get_by_role("img", name="Beans on a stick")).to_be_visible()
        field.get_by_role("img").click()
        page.get_by_role("button", name="Say what the picture shows").click()
        page.get_by_label("In words, for whoever cannot see it").fill("Runner beans")
        page.get_by_role("button", name="Put it in").click()
        expect(field.get_by_role("img", name="Runner beans")).to_be_visible()
        expect(page.get_by_text("7 of at least 4 words")).to_be_visible()
        for _ in range(50):
            if Evidence.objects.filter(artefact=None, html__contains="<img").exists():
                break
            page.wait_for_timeout(100)
        self.assertIn("/thumbnails/large", Evidence.objects.get(artefact=None).html)
        staff = self.page(self.eight.lead, page.url.removeprefix(self.live_server_url))
        expect(staff.get_by_role("article").get_by_role("img", name="Runner beans")).to_be_visible()

    def test_what_is_in_the_portfolio_already_with_a_reflection_of_its_own(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.open(self.menu, PHONE)
        page.get_by_role("button", name="From my portfolio").click()
        page.get_by_role("button", name=re.compile("card.jpg")).click()
        expect(page.get_by_role("heading", name="card.jpg")).to_be_visible()
        page.get_by_label("What does this show?").fill("Part of the menu.")
        expect(page.get_by_text(SAVED)).to_be_visible()
        self.assertEqual(Artefact.objects.count(), 1)
        self.assertEqual(
            [one.text for one in Evidence.objects.order_by("pk")], ["One thing. Another thing.", "Part of the menu."]
        )
        self.fits(page)

    def test_a_starter_file_is_there_as_ones_own_copy_until_ones_version_takes_its_place(self) -> None:
        frame = builders.ContentFile(b"RECIPE CARD\n\nName:\n")
        changing.add_file(self.eight.lead, self.eight.group.pk, self.card.pk, frame, "frame.txt", "starter", self.now)
        page = self.open()
        expect(page.get_by_role("heading", name="frame.txt")).to_be_visible()
        expect(page.get_by_text("This is your copy, as everybody began.")).to_be_visible()
        expect(page.get_by_role("list", name="Still wanted")).to_contain_text("0 of 2 things")
        page.get_by_label("A newer version: frame.txt").set_input_files(
            picture_file(self.folder, "my card.txt", b"RECIPE CARD\n\nName: soup\n")
        )
        expect(page.get_by_role("heading", name="my card.txt")).to_be_visible()
        expect(page.get_by_text("This is your copy")).to_have_count(0)
        expect(page.get_by_role("list", name="Still wanted")).to_contain_text("1 of 2 things")
        page.reload()
        expect(page.get_by_role("heading", name="my card.txt")).to_be_visible()
        self.assertEqual(Evidence.objects.count(), 1)
