"""A student's day on a phone: what is to do, putting in, writing, handing in, reading what came back."""

import re
import tempfile
from datetime import timedelta
from pathlib import Path

from playwright.sync_api import Page, expect

from coatpeg.handins.models import Submission
from coatpeg.portfolios.models import Evidence
from tests import builders
from tests.browser.case import PHONE, BrowserCase, choose, picture_file, undo


class OnAPhone(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.about = self.eight.pocket(
            "About me", "page", prompt="Who are you?", starter="I am …", measure="sentences", least=2, most=4
        )
        self.card = self.eight.pocket()
        self.finds = self.eight.pocket("Useful finds", "links", artefacts=2)
        self.thandi = self.eight.student("thandi")
        self.person = self.thandi.enrolment.person
        self.base = f"/g/{self.eight.group.pk}"
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def ask(self, *pockets: object, title: str, due: int, opens: int = -20) -> object:
        return self.eight.handin(
            *pockets, title=title, due=self.day(due), opens=self.day(opens), now=self.now - timedelta(days=15)
        )

    def phone(self, path: str = "") -> Page:
        return self.page(self.person, f"{self.base}{path}", PHONE)

    def pocket(self, pocket: object) -> Page:
        return self.phone(f"/portfolio/{self.thandi.pk}/{pocket.pk}")

    def test_what_is_to_do_stands_in_a_calm_order(self) -> None:
        self.ask(self.about, title="Next week", due=7)
        self.ask(self.finds, title="Was due", due=-2)
        back = self.ask(self.card, title="Back again", due=9)
        builders.fill(self.thandi, self.card, self.now)
        done = builders.hand_in(self.thandi, back, self.now)
        builders.mark(self.eight.lead, done, self.now, accept=False, feedback="Say why.")
        self.ask(self.about, title="Opens later", due=30, opens=20)
        page = self.phone("/to-hand-in")
        links = page.get_by_role("main").get_by_role("list").first.get_by_role("link")
        expect(links).to_have_text([re.compile("Back again"), re.compile("Was due"), re.compile("Next week")])
        expect(links.nth(0)).to_contain_text("Hand in again when it is better")
        expect(links.nth(1)).to_contain_text("which has passed")
        expect(
            page.get_by_role("region", name="In already, or opens later").get_by_text("Opens later").first
        ).to_be_visible()
        expect(page.get_by_role("link", name="To hand in 3 to hand in")).to_be_visible()
        self.fits(page)
        links.nth(0).click()
        expect(page.get_by_text("Say why.")).to_be_visible()

    def test_a_page_begins_with_its_starter_and_counts_while_typing(self) -> None:
        handin = self.ask(self.about, title="About me", due=3)
        self.expected_complaints.append("422")
        page = self.pocket(self.about)
        field = page.get_by_role("textbox", name="Who are you?")
        expect(field).to_have_text("I am …")
        page.get_by_role("button", name="Hand in").click()
        expect(page.get_by_text("There is nothing of yours in this yet.")).to_be_visible()
        self.assertFalse(Submission.objects.exists(), "an untouched starter is asked about once")
        field.fill("I am Thandi. I would like to grow beans.")
        expect(page.get_by_text(re.compile("Saved \\d\\d:\\d\\d"))).to_be_visible()
        expect(page.get_by_role("list", name="Still wanted").get_by_text("still wanted")).to_have_count(0)
        page.get_by_role("button", name="Hand in", exact=True).click()
        expect(page.get_by_text("Locked: handed in")).to_be_visible()
        self.assertEqual(Submission.objects.get(handin=handin).snapshot["empty"], False)
        self.fits(page)
        self.no_violation(page)

    def test_a_photo_lies_beside_the_text_of_a_page(self) -> None:
        builders.add_picture(self.thandi, self.about, name="bed.jpg", now=self.now)
        page = self.pocket(self.about)
        page.get_by_role("textbox", name="Who are you?").fill("I am Thandi. I would like to grow beans.")
        expect(page.get_by_role("list", name="Still wanted").get_by_text("still wanted")).to_have_count(0)
        expect(page.get_by_role("heading", name="bed.jpg")).to_be_visible()
        page.get_by_role("button", name="Link", exact=True).click()
        page.get_by_label("Link", exact=True).fill("https://seeds.larkfield.example/beans")
        page.get_by_label("Title (yours)").fill("Where beans come from")
        page.get_by_role("button", name="Add the link").click()
        expect(page.get_by_role("heading", name="Where beans come from")).to_be_visible()
        page.get_by_role("button", name="Put in the bin: bed.jpg").click()
        expect(page.get_by_role("heading", name="bed.jpg")).to_have_count(0)
        expect(page.get_by_role("textbox", name="Who are you?")).to_contain_text("I am Thandi.")
        self.fits(page)
        self.no_violation(page)

    def test_handed_in_empty_after_being_asked_once(self) -> None:
        self.ask(self.card, title="Recipe card", due=3)
        self.expected_complaints.append("422")
        page = self.pocket(self.card)
        page.get_by_role("button", name="Hand in").click()
        page.get_by_role("button", name="Hand in anyway").click()
        expect(page.get_by_text("Locked: handed in")).to_be_visible()
        self.assertTrue(Submission.objects.get().snapshot["empty"])

    def test_taken_out_by_mistake_and_brought_back(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.pocket(self.card)
        page.get_by_role("button", name="Put in the bin: card.jpg").click()
        expect(page.get_by_text("“card.jpg” is in the bin, with its reflection.")).to_be_visible()
        expect(page.get_by_role("heading", name="card.jpg")).to_have_count(0)
        undo(page)
        expect(page.get_by_role("heading", name="card.jpg")).to_be_visible()
        expect(page.get_by_role("textbox").first).to_have_value("One thing. Another thing.")
        self.assertEqual(Evidence.objects.filter(removed_at=None).count(), 1)

    def test_links_are_judged_at_once_and_a_pocket_of_links_takes_nothing_else(self) -> None:
        self.expected_complaints.append("422")
        page = self.pocket(self.finds)
        expect(page.get_by_role("button", name="File", exact=True)).to_have_count(0)
        page.get_by_role("button", name="Link", exact=True).click()
        field = page.get_by_label("Link", exact=True)
        for wrong, words in (
            ("plants.example/seeds", "Write https://plants.example/seeds if that is it."),
            ("C:\\Users\\me\\seeds.docx", "is a file on one device; nobody else can open it."),
            ("javascript:alert(1)", "“javascript:” links are not opened here."),
        ):
            field.fill(wrong)
            page.get_by_role("button", name="Add the link").click()
            expect(page.get_by_text(words)).to_be_visible()
        field.fill("https://plants.example/seeds")
        page.get_by_role("button", name="Add the link").click()
        expect(page.get_by_text("1 of 2 links")).to_be_visible()
        self.fits(page)

    def test_a_file_that_is_no_picture_says_what_to_do(self) -> None:
        self.expected_complaints.append("422")
        page = self.pocket(self.card)
        for data, words in ((b"", "is empty (0 bytes)"), (b"not a picture at all", "what is in it is not a picture")):
            choose(page, picture_file(self.folder, data=data))
            expect(page.get_by_text(words)).to_be_visible()
            page.get_by_role("button", name="Let it go").click()
        self.assertFalse(Evidence.objects.exists())
        self.no_violation(page)

    def test_taken_back_before_it_is_marked_and_handed_in_again(self) -> None:
        self.ask(self.card, title="Recipe card", due=3)
        builders.fill(self.thandi, self.card, self.now)
        page = self.pocket(self.card)
        page.get_by_role("button", name="Hand in").click()
        page.get_by_role("button", name="Take back").click()
        expect(page.get_by_role("textbox").first).to_be_editable()
        expect(page.get_by_role("list", name="All submissions")).to_contain_text("taken back")
        page.get_by_role("button", name="Hand in", exact=True).click()
        expect(page.get_by_role("list", name="All submissions").get_by_role("listitem")).to_have_count(2)
        self.assertEqual([one.voided_at is None for one in Submission.objects.order_by("number")], [False, True])

    def test_feedback_newest_first_with_what_it_belongs_to(self) -> None:
        first = self.ask(self.card, title="Recipe card", due=3)
        second = self.ask(self.about, title="About me", due=3)
        builders.fill(self.thandi, self.card, self.now)
        builders.commands.write_page(
            self.person, self.thandi.pk, self.about.pk, "I am Thandi. I grow beans.", 0, self.now
        )
        for minutes, handin, words in ((9, first, "Clear scaling."), (5, second, "Nice to meet you.")):
            done = builders.hand_in(self.thandi, handin, self.now - timedelta(minutes=minutes + 1))
            builders.mark(self.eight.lead, done, self.now - timedelta(minutes=minutes), feedback=words, score=20)
        page = self.phone("/feedback")
        cards = page.get_by_role("region", name=re.compile("^Feedback: Accepted"))
        expect(cards).to_have_count(2)
        expect(cards.first).to_contain_text("Nice to meet you.")
        expect(cards.last).to_contain_text("20 of 30 points")
        self.fits(page)
        self.no_violation(page)

    def test_excused_and_a_pocket_that_opens_later_say_so(self) -> None:
        handin = self.ask(self.card, title="Recipe card", due=3)
        builders.handing.set_excused(self.eight.lead, handin.pk, self.thandi.enrolment_id, self.now, excused=True)
        page = self.pocket(self.card)
        expect(page.get_by_text("You are excused from “Recipe card”: there is nothing to hand in.")).to_be_visible()
        later = self.eight.pocket("Harvest", opens=self.day(9))
        page.goto(f"{self.live_server_url}{self.base}/portfolio/{self.thandi.pk}/{later.pk}")
        expect(page.get_by_text("This pocket opens on")).to_be_visible()
        expect(page.get_by_role("button", name="File", exact=True)).to_have_count(0)

    def test_who_has_left_still_reads_everything(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        self.thandi.enrolment.last = self.day(-1)
        self.thandi.enrolment.save()
        page = self.pocket(self.card)
        expect(page.get_by_role("heading", name="card.jpg")).to_be_visible()
        expect(page.get_by_role("textbox").first).not_to_be_editable()
        expect(page.get_by_role("button", name="File", exact=True)).to_have_count(0)
