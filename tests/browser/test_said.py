"""What is said on the work: pinned, drawn, highlighted, suggested, spoken at the desk; read, mended and answered by its student."""

from __future__ import annotations

from django.core.files.base import ContentFile
from playwright.sync_api import Page, expect

from coatpeg.marking.models import Annotation
from coatpeg.portfolios.evidence import commands as evidence
from coatpeg.portfolios.models import Evidence
from tests import builders, documents
from tests.background import run_waiting
from tests.browser.case import PHONE, BrowserCase, undo

WORDS = "The mulch kept the bed wet. This surprised me. Next I look at the weather."

CHOOSE = """(words) => {
  for (const box of document.querySelectorAll("[data-words]")) {
    const walker = document.createTreeWalker(box, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const at = node.data.indexOf(words);
      if (at < 0) continue;
      const range = document.createRange();
      range.setStart(node, at);
      range.setEnd(node, at + words.length);
      getSelection().removeAllRanges();
      getSelection().addRange(range);
    }
  }
}"""
SOME_MARKED = """() => CSS.highlights.get("said-rust")?.size > 0"""
MARKED = """(name) => [...(CSS.highlights.get(name) ?? [])].map(String)"""


class Said(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.pocket = self.eight.pocket("Water", artefacts=1)
        self.book = self.eight.student("thandi")
        self.thandi = self.book.enrolment.person
        one = builders.add_picture(self.book, self.pocket, self.now)
        evidence.write_reflection(self.thandi, one.pk, WORDS, one.version, self.now)
        self.handin = self.eight.handin(self.pocket, title="Water")
        self.handed = builders.hand_in(self.book, self.handin, self.now)

    def desk(self) -> Page:
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile/{self.handed.pk}")
        expect(page.get_by_role("heading", name="· Water")).to_be_visible()
        return page

    def choose(self, page: Page, words: str) -> None:
        page.evaluate(CHOOSE, words)
        expect(page.get_by_role("toolbar", name="Comment")).to_be_visible()

    def test_a_spot_words_ink_and_a_wording_reach_the_student_who_mends_and_answers(self) -> None:
        page = self.desk()
        # A spot, by the keyboard alone: the cross is walked, the words typed.
        page.keyboard.press("c")
        expect(page.get_by_role("button", name="The spot:")).to_be_focused()
        for _ in range(4):
            page.keyboard.press("ArrowLeft")
        page.keyboard.press("Enter")
        page.keyboard.type("Which bed is this?")
        page.keyboard.press("Control+Enter")
        expect(page.get_by_role("button", name="Comment 1: Which bed is this?")).to_be_visible()
        self.assertEqual(Annotation.objects.get().target["spot"]["x"], 4_000)
        # Words: highlighted, and another wording for some.
        self.choose(page, "wet")
        page.get_by_role("button", name="Highlight").click()
        expect(page.get_by_role("listitem").filter(has_text="wet")).to_be_visible()
        self.choose(page, "This surprised me.")
        page.get_by_role("button", name="Suggest wording").click()
        page.keyboard.type("I had not thought so.")
        page.keyboard.press("Control+Enter")
        expect(page.get_by_text("could read:")).to_be_visible()
        self.assertEqual(page.evaluate(MARKED, "said-rust"), ["wet"])
        self.assertEqual(page.evaluate(MARKED, "said-comment"), ["This surprised me."])
        # Ink: two strokes, one undone, drawn over a picture that lies on its side.
        page.get_by_role("button", name="Turn").click()
        page.keyboard.press("d")
        self.stroke(page, 0.2, 0.5)
        self.stroke(page, 0.6, 0.5)
        page.keyboard.press("Control+z")
        expect(page.get_by_text("Drawn by hand: 1 stroke")).to_be_visible()
        self.no_violation(page)
        page.keyboard.press("d")
        page.reload()
        expect(page.get_by_text("Drawn by hand: 1 stroke")).to_be_visible()
        page.get_by_role("button", name="Send back").click()
        page.keyboard.press("Enter")
        expect(page.get_by_text("sent back")).to_be_visible()

        student = self.page(self.thandi, f"/g/{self.eight.group.pk}/portfolio/{self.book.pk}/{self.pocket.pk}")
        said = student.get_by_role("region", name="What your teacher says about this")
        expect(said.get_by_role("status")).to_have_text("2 of 2 still to mend.")
        self.no_violation(student)
        said.get_by_role("button", name="Take this wording").click()
        expect(said.get_by_role("status")).to_have_text("1 of 2 still to mend.")
        text = Evidence.objects.get(pocket=self.pocket).text
        self.assertEqual(text, "The mulch kept the bed wet. I had not thought so. Next I look at the weather.")
        expect(student.get_by_label("What does this show?")).to_have_value(text)
        said.get_by_label("I have mended this").check()
        expect(said.get_by_role("status")).to_have_text("All mended.")
        said.get_by_role("button", name="Answer").first.click()
        student.keyboard.type("The north bed.")
        said.get_by_role("button", name="Send").click()
        expect(said.get_by_text("The north bed.")).to_be_visible()
        said.get_by_role("link", name="See it on the work").click()
        expect(student.get_by_role("button", name="Comment 1: Which bed is this?")).to_be_visible()
        expect(student.get_by_text("Drawn by hand: 1 stroke")).to_be_visible()
        expect(student.get_by_role("button", name="Comment on a spot")).to_have_count(0)
        # The teacher sees all of it, and settles the thread.
        page.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/pile/{self.handed.pk}")
        expect(page.get_by_text("The north bed.")).to_be_visible()
        expect(page.get_by_text("Mended, says the student")).to_be_visible()
        page.get_by_role("button", name="Settled").click()
        expect(page.get_by_text("Settled by")).to_be_visible()
        # All of it is on record.
        page.get_by_role("button", name="History").click()
        record = page.get_by_role("dialog")
        for said_there in (
            "handed in (submission 1)",
            "sent back (submission 1)",
            "a suggested wording taken",
            "settled",
        ):
            expect(record.get_by_text(said_there)).to_be_visible()
        self.no_violation(page)

    def stroke(self, page: Page, x: float, y: float) -> None:
        box = page.locator("[data-ink]").bounding_box()
        assert box
        page.mouse.move(box["x"] + x * box["width"], box["y"] + y * box["height"])
        page.mouse.down()
        for step in range(10):
            page.mouse.move(box["x"] + x * box["width"] + 4 * step, box["y"] + y * box["height"] + 2 * step)
        page.mouse.up()

    def test_words_of_a_document_are_chosen_and_marked_where_they_stand(self) -> None:
        josh = self.eight.student("josh", "Josh", "Ellery")
        body = "<w:p><w:r><w:t>The clay holds the water, the sand lets it through.</w:t></w:r></w:p>"
        content = ContentFile(documents.docx("Soil test", body))
        made = evidence.add_file(josh.enrolment.person, josh.pk, self.pocket.pk, content, "soil.docx", self.now)
        run_waiting()
        handed = builders.hand_in(josh, self.handin, self.now)
        page = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/pile/{handed.pk}")
        expect(page.get_by_role("region", name="soil.docx")).to_contain_text("The clay holds the water")
        self.choose(page, "the sand lets it through")
        page.get_by_role("button", name="Highlight").click()
        expect(page.get_by_role("listitem").filter(has_text="the sand lets it through")).to_be_visible()
        page.wait_for_function(SOME_MARKED)
        self.assertEqual(page.evaluate(MARKED, "said-rust"), ["the sand lets it through"])
        self.no_violation(page)
        target = Annotation.objects.get(submission=handed).target
        self.assertEqual((target["evidence"], target["part"]), (made[0].pk, "artefact"))
        self.assertEqual(target["words"]["start"], len("Soil test\nThe clay holds the water, "))
        builders.mark(self.eight.lead, handed, self.now, score=10)
        student = self.page(
            josh.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{josh.pk}/submission/{handed.pk}", PHONE
        )
        expect(student.get_by_role("region", name="soil.docx")).to_be_visible()
        student.wait_for_function(SOME_MARKED)
        self.assertEqual(student.evaluate(MARKED, "said-rust"), ["the sand lets it through"])
        self.fits(student)

    def test_what_is_typed_is_kept_when_the_page_goes_and_what_is_taken_back_comes_again(self) -> None:
        page = self.desk()
        page.get_by_role("button", name="Comment on the whole").click()
        page.keyboard.type("Well observed.")
        page.reload()
        expect(page.get_by_text("Well observed.")).to_be_visible()
        page.get_by_role("button", name="Change: Well observed.").click()
        page.get_by_role("textbox", name="Comment").fill("Well observed and well told.")
        page.get_by_role("button", name="Done").click()
        expect(page.get_by_text("Well observed and well told.")).to_be_visible()
        page.get_by_role("button", name="Take back: Well observed").click()
        expect(page.get_by_text("Well observed and well told.")).to_have_count(0)
        undo(page)
        expect(page.get_by_text("Well observed and well told.")).to_be_visible()

    def test_what_is_added_after_the_outcome_waits_until_it_is_shown(self) -> None:
        builders.mark(self.eight.lead, self.handed, self.now, score=None)
        page = self.desk()
        page.get_by_role("button", name="Comment on the whole").click()
        page.keyboard.type("One thing more.")
        page.get_by_role("button", name="Done").click()
        expect(page.get_by_text("1 comment of yours is not shown to Thandi yet.")).to_be_visible()
        page.get_by_role("button", name="Show now").click()
        expect(page.get_by_text("1 comment is shown.")).to_be_visible()
        student = self.page(
            self.thandi, f"/g/{self.eight.group.pk}/portfolio/{self.book.pk}/submission/{self.handed.pk}"
        )
        expect(student.get_by_text("One thing more.")).to_be_visible()

    def test_a_comment_is_spoken_with_its_gist(self) -> None:
        page = self.desk()
        page.get_by_role("button", name="Comment on the whole").click()
        page.get_by_role("button", name="Say it").click()
        page.get_by_role("button", name="Start recording").click()
        expect(page.get_by_role("timer")).to_contain_text("of 3:00")
        page.wait_for_timeout(1_200)
        page.get_by_role("button", name="Stop").click()
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_label("What it says, in a few words")).to_be_visible()
        page.get_by_label("What it says, in a few words").fill("Say why.")
        page.get_by_role("button", name="Done").click()
        expect(page.get_by_label(f"Spoken by {self.eight.lead.full_name}")).to_be_visible()
        self.assertEqual(Annotation.objects.get().text, "Say why.")
