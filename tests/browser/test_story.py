"""The whole way of one hand-in, as the teacher and the student go it, each in a browser of their own."""

import re
import tempfile
import time
from datetime import timedelta
from pathlib import Path

from playwright.sync_api import Page, expect

from coatpeg.handins.models import HandIn, Submission
from coatpeg.people.models import StaffRole
from tests import builders
from tests.browser.case import BrowserCase, choose, picture_file, undo


class Story(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.log = self.eight.pocket("Crop log", artefacts=1)
        self.thandi = self.eight.student("thandi", period="P3")
        self.josh = self.eight.student("josh", "Josh", "Ellery", period="P4")
        self.handin = self.eight.handin(self.card, due=self.day(3), opens=self.day(-7), now=self.now)
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def student(self) -> Page:
        return self.page(
            self.thandi.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}/{self.card.pk}"
        )

    def fill(self, page: Page) -> None:
        """Add a picture from the device and a link, and write a reflection on each."""
        picture = picture_file(self.folder, data=builders.jpeg(size=(900, 600)))
        choose(page, picture)
        expect(page.get_by_role("heading", name="card.jpg")).to_be_visible()
        page.get_by_role("button", name="Link", exact=True).click()
        page.get_by_label("Link", exact=True).fill("https://recipes.example/soup")
        page.get_by_label("Title (yours)").fill("Where I found it")
        page.get_by_role("button", name="Add the link").click()
        expect(page.get_by_role("heading", name="Where I found it")).to_be_visible()
        for number, text in enumerate(("I cut it down. The pot was small.", "It had soup. I scaled it.")):
            page.get_by_role("textbox").nth(number).fill(text)
        expect(page.get_by_text(re.compile(r"Saved \d\d:\d\d"))).to_have_count(2)

    def test_2_the_teacher_lands_on_pegs(self) -> None:
        self.eight.student(None, "Bo", "Ångström", period="P4")
        self.eight.student(None, "Ana", "de Souza", period="P3")
        builders.fill(self.josh, self.card, self.now)
        builders.hand_in(self.josh, self.handin, self.now)
        page = self.page(None)
        page.get_by_label("User name").fill("okafor")
        page.get_by_label("Password").fill(builders.PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        grid = page.get_by_role("grid")
        expect(grid).to_be_visible()
        self.assertTrue(page.url.endswith(f"/g/{self.eight.group.pk}/pegs"))
        names = grid.get_by_role("rowheader").all_inner_texts()
        self.assertEqual(
            [name.strip() for name in names], ["Ångström, Bo", "de Souza, Ana", "Dube, Thandi", "Ellery, Josh"]
        )
        expect(page.get_by_role("region", name="The term's weeks and hand-ins").get_by_role("listitem")).to_have_count(
            14
        )
        expect(page.get_by_role("button", name="Recipe card 1/4 in")).to_be_visible()
        self.no_violation(page)

        page.get_by_role("button", name="Not handed in 3").click()
        expect(grid.get_by_role("rowheader")).to_have_count(3)
        page.get_by_role("button", name="All periods").click()
        page.get_by_role("option", name="P4").click()
        expect(grid.get_by_role("rowheader")).to_have_count(1)
        self.assertIn("show=not_in", page.url)
        self.assertIn("period=P4", page.url)
        page.reload()
        expect(grid.get_by_role("rowheader")).to_have_text(["Ångström, Bo"])

    def test_2b_the_board_by_keyboard_and_its_side_panel(self) -> None:
        builders.fill(self.josh, self.card, self.now)
        builders.hand_in(self.josh, self.handin, self.now)
        page = self.page(self.eight.lead)
        first = page.get_by_role("button", name="Dube, Thandi, Recipe card: nothing yet")
        first.focus()
        page.keyboard.press("ArrowDown")
        below = page.get_by_role("button", name=re.compile("Ellery, Josh, Recipe card: handed in"))
        expect(below).to_be_focused()
        page.keyboard.press("Enter")
        panel = page.get_by_role("complementary", name="The chosen peg")
        expect(panel.get_by_text("One thing. Another thing.")).to_be_visible()
        expect(panel.get_by_text("1 of 2 artefacts")).to_be_visible()
        self.no_violation(page)
        page.go_back()
        expect(panel).not_to_be_visible()
        below.focus()
        page.keyboard.press("m")
        expect(page.get_by_role("region", name="Ellery, Josh · Recipe card")).to_be_visible()
        page.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/pegs")
        expect(page.get_by_role("grid")).to_be_visible()
        page.keyboard.press("/")
        page.keyboard.type("thandi du")
        expect(page.get_by_role("rowheader")).to_have_text(["Dube, Thandi"])

    def test_3_the_student_fills_a_pocket_and_hands_in(self) -> None:
        page = self.page(self.thandi.enrolment.person)
        expect(page.get_by_role("heading", name="Next up")).to_be_visible()
        page.get_by_role("link", name="Open Recipe card").click()
        wanted = page.get_by_role("list", name="Still wanted")
        expect(wanted.get_by_text("still wanted")).to_have_count(3)
        self.fill(page)
        expect(wanted.get_by_text("still wanted")).to_have_count(0)
        self.no_violation(page)
        page.get_by_role("button", name="Hand in").click()
        receipt = Submission.objects.get().receipt if self.wait_for_submission(1) else ""
        expect(page.get_by_text(f"Receipt {receipt}")).to_be_visible()
        expect(page.get_by_text("Locked: handed in")).to_be_visible()
        expect(page.get_by_text("1 link in it: the address is kept")).to_be_visible()
        expect(page.get_by_role("textbox").first).not_to_be_editable()
        expect(page.get_by_role("button", name="File", exact=True)).not_to_be_visible()
        self.no_violation(page)

    def wait_for_submission(self, number: int) -> bool:
        end = time.monotonic() + 8
        while Submission.objects.count() < number and time.monotonic() < end:
            time.sleep(0.05)
        return Submission.objects.count() == number

    def test_4_the_board_shows_it_within_five_seconds_and_the_pile_is_worked_off(self) -> None:
        builders.fill(self.josh, self.card, self.now)
        builders.hand_in(self.josh, self.handin, self.now)
        board = self.page(self.eight.lead)
        waiting = board.get_by_role("button", name="Dube, Thandi, Recipe card: nothing yet")
        expect(waiting).to_be_visible()
        board.wait_for_timeout(500)
        builders.fill(self.thandi, self.card, self.now)
        builders.hand_in(self.thandi, self.handin, self.now + timedelta(seconds=1))
        coat = board.get_by_role("button", name=re.compile("Dube, Thandi, Recipe card: handed in"))
        expect(coat).to_be_visible(timeout=5000)

        board.get_by_role("link", name="Marking pile 2 to mark").click()
        desk = board.get_by_role("region", name="Ellery, Josh · Recipe card")
        expect(desk.get_by_role("img", name="card.jpg")).to_be_visible()
        expect(desk.get_by_text("One thing. Another thing.")).to_be_visible()
        self.no_violation(board)
        board.get_by_label("Score of 30 points").fill("21")
        board.get_by_label("Feedback").fill("Clear scaling, Josh.")
        expect(board.get_by_text("Draft saved; the student sees it with the outcome")).to_be_visible()
        board.keyboard.press("Control+Enter")
        expect(board.get_by_role("region", name="Dube, Thandi · Recipe card")).to_be_visible()
        expect(board.get_by_text("Ellery, Josh, Recipe card: accepted.")).to_be_visible()

        board.get_by_label("Feedback").fill("Say why the pot was too small.")
        board.get_by_role("button", name="Send back").click()
        board.get_by_role("button", name="Send back and next").click()
        expect(board.get_by_text("The pile is empty")).to_be_visible()
        board.get_by_role("link", name="Pegs").click()
        expect(board.get_by_role("button", name=re.compile("Ellery, Josh, Recipe card: accepted"))).to_be_visible()
        expect(board.get_by_role("button", name=re.compile("Dube, Thandi, Recipe card: sent back"))).to_be_visible()

    def test_4b_an_outcome_can_be_undone_from_its_message(self) -> None:
        builders.fill(self.josh, self.card, self.now)
        builders.hand_in(self.josh, self.handin, self.now)
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile")
        page.get_by_role("button", name=re.compile("Accept and next")).click()
        undo(page)
        expect(page.get_by_role("link", name="Marking pile 1 to mark")).to_be_visible()

    def test_5_sent_back_changed_and_handed_in_again(self) -> None:
        evidence = builders.fill(self.thandi, self.card, self.now)
        first = builders.hand_in(self.thandi, self.handin, self.now)
        page = self.student()
        expect(page.get_by_text("Locked: handed in")).to_be_visible()
        builders.mark(self.eight.lead, first, self.now, accept=False, feedback="Say why.")
        expect(page.get_by_text("Say why.")).to_be_visible()
        field = page.get_by_role("textbox").first
        field.fill("One thing, because of the frost. Another thing.")
        page.get_by_role("button", name="Hand in again").click()
        self.assertTrue(self.wait_for_submission(2))
        second = Submission.objects.get(number=2)
        expect(page.get_by_text(f"Receipt {second.receipt}")).to_be_visible()
        for submission, text in ((first, evidence.text), (second, "because of the frost")):
            page.get_by_role("link", name=f"Submission {submission.number}, ").click()
            expect(page.get_by_text(text)).to_be_visible()
            expect(page.get_by_text(submission.receipt)).to_be_visible()
            page.go_back()
        page.get_by_role("link", name="Feedback").click()
        expect(page.get_by_text("Say why.")).to_be_visible()
        self.no_violation(page)

    def test_6_a_new_hand_in_appears_on_rail_board_and_worklist(self) -> None:
        student = self.page(self.thandi.enrolment.person, f"/g/{self.eight.group.pk}/to-hand-in")
        expect(student.get_by_role("link", name=re.compile("^Recipe card"))).to_be_visible()
        self.no_violation(student)
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pegs")
        page.get_by_role("link", name="New hand-in").click()
        page.get_by_label("Title").fill("Harvest so far")
        page.get_by_label("Crop log").check()
        page.get_by_label("Due", exact=True).fill(self.day(9).isoformat())
        page.get_by_label("Another due date for some periods").check()
        page.get_by_label("P4 due", exact=True).fill(self.day(10).isoformat())
        page.get_by_label("Points").fill("12")
        preview = page.get_by_role("region", name="Who will get it")
        expect(preview.get_by_text("2 students will be asked")).to_be_visible()
        expect(preview.get_by_role("listitem")).to_have_count(2)
        self.no_violation(page)
        page.get_by_role("button", name="Set the hand-in").click()
        expect(page.get_by_text("“Harvest so far” is set.")).to_be_visible()
        expect(page.get_by_role("button", name=re.compile("Harvest so far|more due this week")).first).to_be_visible()
        page.get_by_role("link", name="Pegs", exact=True).click()
        expect(page.get_by_role("button", name="Dube, Thandi, Harvest so far: nothing yet")).to_be_visible()
        expect(student.get_by_role("link", name=re.compile("^Harvest so far"))).to_be_visible()
        made = HandIn.objects.get(title="Harvest so far")
        self.assertEqual((made.points, made.periods.filter(due_day__isnull=False).count()), (12, 1))

    def test_an_observer_reads_and_is_offered_nothing_to_change(self) -> None:
        StaffRole.objects.update(role="observer")
        builders.fill(self.josh, self.card, self.now)
        page = self.page(self.eight.lead)
        expect(page.get_by_role("grid")).to_be_visible()
        for name in ("New hand-in", "Marking pile"):
            expect(page.get_by_role("link", name=name)).to_have_count(0)
        page.get_by_role("button", name=re.compile("Ellery, Josh, Recipe card")).click()
        expect(page.get_by_role("button", name="Excuse")).to_have_count(0)
        page.get_by_role("link", name="Portfolio").click()
        expect(page.get_by_text("One thing. Another thing.")).to_be_visible()
        expect(page.get_by_role("textbox", name="Find a student")).to_have_count(0)

    def test_excused_from_the_panel_and_undone(self) -> None:
        page = self.page(self.eight.lead)
        page.get_by_role("button", name="Dube, Thandi, Recipe card: nothing yet").click()
        page.get_by_role("button", name="Excuse").click()
        expect(page.get_by_role("button", name="Dube, Thandi, Recipe card: excused")).to_be_visible()
        undo(page)
        expect(page.get_by_role("button", name="Dube, Thandi, Recipe card: nothing yet")).to_be_visible()
