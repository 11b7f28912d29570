"""The marking pile as a marker works it off: order, keys, two markers, what is told beside the evidence."""

import re
from datetime import timedelta

from playwright.sync_api import Page, Route, expect

from coatpeg.core.policy import Role
from coatpeg.handins.models import HandIn, Outcome, Submission
from coatpeg.marking.models import DraftMark
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import StaffRole
from tests import builders
from tests.browser.case import BrowserCase, undo


class Marking(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.menu = self.eight.pocket("Menu", artefacts=1)
        self.thandi = self.eight.student("thandi", period="P3")
        self.josh = self.eight.student("josh", "Josh", "Ellery", period="P4")
        self.handin = self.eight.handin(
            self.card, self.menu, due=self.day(-4), opens=self.day(-30), now=self.now - timedelta(days=20)
        )
        self.pile = f"/g/{self.eight.group.pk}/pile"

    def both_in(self) -> list[Submission]:
        """Josh first, then Thandi."""
        made = []
        for minutes, portfolio in ((40, self.josh), (20, self.thandi)):
            at = self.now - timedelta(minutes=minutes)
            builders.fill(portfolio, self.card, at)
            made.append(builders.hand_in(portfolio, self.handin, at))
        return made

    def desk(self, page: Page, name: str) -> None:
        expect(page.get_by_role("region", name=f"{name} · Recipe card")).to_be_visible()

    def test_oldest_first_late_is_told_and_skipping_leaves_it_on_the_pile(self) -> None:
        self.both_in()
        page = self.page(self.eight.lead, self.pile)
        self.desk(page, "Ellery, Josh")
        lines = page.get_by_role("region", name="2 to mark").get_by_role("listitem")
        expect(lines).to_have_text([re.compile("Ellery, Josh"), re.compile("Dube, Thandi")])
        expect(lines.first).to_contain_text("late")
        page.get_by_role("button", name="Skip", exact=True).click()
        self.desk(page, "Dube, Thandi")
        expect(lines).to_have_count(2)
        page.get_by_role("button", name="Skip", exact=True).click()
        self.desk(page, "Ellery, Josh")

    def test_a_score_that_does_not_fit_is_said_and_nothing_is_released(self) -> None:
        self.both_in()
        self.expected_complaints.append("422")
        page = self.page(self.eight.lead, self.pile)
        page.get_by_label("Feedback").fill("Clear.")
        for written, words in (
            ("lots", "“lots” is not a number."),
            ("31", "31 is not between 0 and 30."),
            ("7.5", "step of 1"),
        ):
            page.get_by_label("Score of 30 points").fill(written)
            page.get_by_role("button", name=re.compile("Accept and next")).click()
            expect(page.get_by_text(words).first).to_be_visible()
        self.assertFalse(Outcome.objects.exists())
        page.get_by_label("Score of 30 points").fill("30")
        page.get_by_role("button", name=re.compile("Accept and next")).click()
        self.desk(page, "Dube, Thandi")
        self.assertEqual(Outcome.objects.get().mark.score, 30)

    def test_a_draft_stays_when_the_marker_goes_away_and_comes_back(self) -> None:
        self.both_in()
        page = self.page(self.eight.lead, self.pile)
        page.get_by_label("Feedback").fill("Half a thought")
        expect(page.get_by_text("Draft saved; the student sees it with the outcome")).to_be_visible()
        page.get_by_role("link", name="Pegs", exact=True).click()
        expect(page.get_by_role("grid")).to_be_visible()
        page.get_by_role("link", name=re.compile("Marking pile")).click()
        expect(page.get_by_label("Feedback")).to_have_value("Half a thought")

    def test_one_draft_in_two_windows_is_shown_both_texts_and_another_marker_none(self) -> None:
        first, _ = self.both_in()
        marker = self.eight.staff("marker", Role.MARKER)
        self.expected_complaints.append("409")
        page, other = self.page(self.eight.lead, self.pile), self.page(self.eight.lead, self.pile)
        for one in (page, other):
            self.desk(one, "Ellery, Josh")
        page.get_by_label("Feedback").fill("From the teacher.")
        expect(page.get_by_text("Draft saved")).to_be_visible()
        other.get_by_label("Feedback").fill("From the other window.")
        expect(other.get_by_text("You changed this draft in another window meanwhile")).to_be_visible()
        expect(other.get_by_role("alert")).to_contain_text("From the teacher.")
        self.no_violation(other)
        other.get_by_role("button", name="Take theirs").click()
        expect(other.get_by_label("Feedback")).to_have_value("From the teacher.")
        self.assertEqual(DraftMark.objects.get(submission=first).feedback, "From the teacher.")
        second = self.page(marker, self.pile)
        self.desk(second, "Ellery, Josh")
        expect(second.get_by_label("Feedback")).to_have_value("")

    def test_an_older_draft_of_this_device_never_overwrites_newer_work(self) -> None:
        first, _ = self.both_in()
        self.expected_complaints += ["409", "ERR_INTERNET_DISCONNECTED"]
        page = self.page(self.eight.lead, self.pile)
        self.desk(page, "Ellery, Josh")
        page.context.set_offline(True)
        page.get_by_label("Feedback").fill("Typed on the train.")
        expect(page.get_by_text("Kept on this device")).to_be_visible()
        again = page.context.new_page()
        page.close()
        school = self.page(self.eight.lead, self.pile)
        school.get_by_label("Feedback").fill("Typed at school since.")
        expect(school.get_by_text("Draft saved")).to_be_visible()
        again.context.set_offline(False)
        again.goto(self.live_server_url + self.pile)
        expect(again.get_by_label("Feedback")).to_have_value("Typed on the train.")
        expect(again.get_by_role("alert")).to_contain_text("Typed at school since.")
        self.assertEqual(DraftMark.objects.get(submission=first).feedback, "Typed at school since.")
        again.get_by_role("button", name="Keep mine").click()
        expect(again.get_by_text("Draft saved")).to_be_visible()
        self.assertEqual(DraftMark.objects.get(submission=first).feedback, "Typed on the train.")

    def test_typed_on_and_accepted_while_a_save_is_under_way_is_one_marker_not_two(self) -> None:
        first, _ = self.both_in()
        page = self.page(self.eight.lead, self.pile)
        held: list[Route] = []
        free: list[bool] = []
        page.route("**/draft", lambda route: route.continue_() if free else held.append(route))
        feedback = page.get_by_label("Feedback")
        feedback.fill("Clear")
        while not held:
            page.wait_for_timeout(50)
        feedback.fill("Clear, and more.")
        page.wait_for_timeout(1200)  # longer than the rest after which it is saved
        page.keyboard.press("Control+Enter")
        page.wait_for_timeout(200)
        free.append(True)
        for one in held:
            one.continue_()
        self.desk(page, "Dube, Thandi")
        self.assertEqual(Outcome.objects.get(submission=first).mark.feedback, "Clear, and more.")

    def test_sent_back_in_part_with_a_new_date(self) -> None:
        self.both_in()
        page = self.page(self.eight.lead, self.pile)
        page.get_by_role("button", name="Send back").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_text("There is no feedback yet.")).to_be_visible()
        dialog.get_by_label("Menu").uncheck()
        dialog.get_by_label("Due again by").fill(self.day(5).isoformat())
        self.no_violation(page)
        dialog.get_by_role("button", name="Send back and next").click()
        self.desk(page, "Dube, Thandi")
        outcome = Outcome.objects.get()
        self.assertEqual((outcome.kind, outcome.pockets), ("sent_back", [self.card.pk]))
        student = self.page(
            self.josh.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.josh.pk}/{self.menu.pk}"
        )
        expect(student.get_by_text("Locked: handed in")).to_be_visible()
        student.get_by_role("link", name=re.compile("^Recipe card")).click()
        expect(student.get_by_role("textbox").first).to_be_editable()
        expect(student.get_by_text("Hand in again by")).to_be_visible()

    def test_an_earlier_submission_is_laid_beside(self) -> None:
        first, _ = self.both_in()
        builders.mark(self.eight.lead, first, self.now - timedelta(minutes=10), accept=False, feedback="Say why.")
        evidence = self.josh.evidence.get(pocket=self.card)
        builders.reflect(evidence, "Because of the frost. It was cold.", self.now - timedelta(minutes=5))
        second = builders.hand_in(self.josh, self.handin, self.now - timedelta(minutes=4), seen=1)
        page = self.page(self.eight.lead, f"{self.pile}/{second.pk}")
        self.desk(page, "Ellery, Josh")
        expect(page.get_by_text("submission 2 of 2")).to_be_visible()
        changed = page.get_by_role("group").filter(has_text="Changed since submission 1")
        expect(changed.locator("ins").first).to_contain_text("Because")
        expect(changed.locator("del").first).to_contain_text("One")
        changed.get_by_text("Changed since submission 1").click()
        page.get_by_role("button", name="Lay beside").click()
        page.get_by_role("option", name="Submission 1").click()
        expect(page.get_by_role("heading", name="Submission 1")).to_be_visible()
        expect(page.get_by_text("One thing. Another thing.")).to_be_visible()
        expect(page.get_by_text("Because of the frost. It was cold.")).to_be_visible()
        expect(page.get_by_text("Say why.")).to_be_visible()
        self.no_violation(page)

    def test_another_student_and_what_was_given_are_laid_beside(self) -> None:
        Pocket.objects.filter(pk=self.card.pk).update(starter="<p>Name of the dish:</p>")
        first, second = self.both_in()
        builders.mark(self.eight.lead, second, self.now, feedback="Just so.", score=20)
        page = self.page(self.eight.lead, f"{self.pile}/{first.pk}")
        self.desk(page, "Ellery, Josh")
        page.get_by_role("button", name="Lay beside").click()
        page.get_by_role("option", name="Dube, Thandi").click()
        expect(page.get_by_role("heading", name="Dube, Thandi, submission 1")).to_be_visible()
        expect(page.get_by_text("Just so.")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Lay beside").click()
        page.get_by_role("option", name="What they began with").click()
        expect(page.get_by_text("Name of the dish:")).to_be_visible()
        expect(page.get_by_role("heading", name="Ellery, Josh, submission 1")).to_be_visible()
        page.keyboard.press("w")
        page.get_by_role("option", name="Nothing beside it").click()
        expect(page.get_by_text("Name of the dish:")).to_have_count(0)

    def test_every_filter_of_the_pegs_filters_the_pile_and_next_stays_among_them(self) -> None:
        self.both_in()
        kim = self.eight.student("kim", "Kim", "Vale", period="P4")
        builders.hand_in(kim, self.handin, self.now, even_if_empty=True)
        page = self.page(self.eight.lead, self.pile)
        self.desk(page, "Ellery, Josh")
        page.get_by_role("button", name="More filters").click()
        page.get_by_role("checkbox", name="P4").click()
        expect(page.get_by_role("region", name="2 to mark")).to_be_visible()
        page.get_by_role("checkbox", name=re.compile("with nothing in it")).click()
        expect(page.get_by_role("region", name="1 to mark")).to_be_visible()
        page.get_by_role("button", name="Done").click()
        page.keyboard.press("n")
        self.desk(page, "Vale, Kim")
        expect(page).to_have_url(re.compile("period=P4"))
        page.get_by_role("button", name="Kept filters").click()
        page.get_by_role("button", name="Keep what is shown").click()
        page.get_by_label("Name", exact=True).fill("P4 with nothing")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_text("“P4 with nothing” is kept.")).to_be_visible()
        page.reload()
        expect(page.get_by_role("region", name="1 to mark")).to_be_visible()
        page.get_by_role("button", name=re.compile("More filters")).click()
        page.get_by_role("button", name="Clear all filters").click()
        expect(page.get_by_role("region", name="3 to mark")).to_be_visible()

    def test_all_my_classes_in_one_pile_and_next_goes_from_one_to_the_other(self) -> None:
        first, _ = self.both_in()
        crew = builders.klass("Stage crew", lead="okafor2", today=self.today)
        crew.lead = self.eight.lead
        StaffRole.objects.create(group=crew.group, person=self.eight.lead, role=Role.CO_TEACHER.value)
        nell = crew.student("nell", "Nell", "Haas")
        script = crew.handin(crew.pocket("Script"), title="Script", now=self.now - timedelta(days=3))
        builders.hand_in(nell, script, self.now - timedelta(minutes=30), even_if_empty=True)
        page = self.page(self.eight.lead, f"{self.pile}/{first.pk}")
        self.desk(page, "Ellery, Josh")
        page.get_by_role("button", name="Classes: This class").click()
        page.get_by_role("option", name="All my classes").click()
        lines = page.get_by_role("region", name="3 to mark").get_by_role("listitem")
        expect(lines).to_have_text(
            [re.compile("Ellery, Josh.*8 Plot"), re.compile("Haas, Nell.*Stage crew"), re.compile("Dube")]
        )
        self.no_violation(page)
        page.get_by_label("Feedback").fill("Well done.")
        page.get_by_role("button", name="Accept and next").click()
        expect(page.get_by_role("region", name="Haas, Nell · Script")).to_be_visible()
        expect(page).to_have_url(re.compile(f"/g/{crew.group.pk}/pile/.*all=1"))
        expect(page.get_by_role("region", name="2 to mark")).to_be_visible()
        undo(page)
        expect(page.get_by_role("region", name="3 to mark")).to_be_visible()

    def test_the_same_file_from_two_students_and_an_empty_submission_are_told(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        builders.fill(self.josh, self.card, self.now)
        builders.hand_in(self.josh, self.handin, self.now)
        page = self.page(self.eight.lead, self.pile)
        expect(page.get_by_text("“card.jpg” is the very file that Dube, Thandi brought in.")).to_be_visible()
        late = self.eight.student(None, "Noor", "Vale")
        empty = builders.hand_in(late, self.handin, self.now, even_if_empty=True)
        page.goto(f"{self.live_server_url}{self.pile}/{empty.pk}")
        expect(page.get_by_text("Handed in empty: the student was asked, and did so anyway.")).to_be_visible()

    def test_taken_back_while_it_lies_on_the_desk(self) -> None:
        first, _ = self.both_in()
        HandIn.objects.filter(pk=self.handin.pk).update(due_day=self.day(3))
        page = self.page(self.eight.lead, self.pile)
        self.desk(page, "Ellery, Josh")
        builders.handing.take_back(self.josh.enrolment.person, first.pk, self.now)
        expect(page.get_by_text("There is nothing to decide here now.")).to_be_visible(timeout=6000)
        expect(page.get_by_text(re.compile("^Taken back"))).to_be_visible()
        page.get_by_role("button", name="Next to mark").click()
        self.desk(page, "Dube, Thandi")

    def test_a_decided_one_is_reopened_from_the_desk(self) -> None:
        first, _ = self.both_in()
        builders.mark(self.eight.lead, first, self.now)
        page = self.page(self.eight.lead, f"{self.pile}/{first.pk}")
        expect(page.get_by_text("This is accepted.")).to_be_visible()
        page.get_by_role("button", name="Reopen").click()
        expect(page.get_by_role("textbox", name="Feedback")).to_have_value("Good careful work.")
        expect(page.get_by_role("link", name="Marking pile 2 to mark")).to_be_visible()

    def test_a_student_says_that_they_have_read_it_and_the_desk_shows_it(self) -> None:
        first, _ = self.both_in()
        builders.mark(self.eight.lead, first, self.now)
        desk = self.page(self.eight.lead, f"{self.pile}/{first.pk}")
        expect(desk.get_by_text("Josh has not said yet that this is read.")).to_be_visible()
        page = self.page(self.josh.enrolment.person, f"/g/{self.eight.group.pk}/feedback")
        page.get_by_role("button", name="I have read this").press("Enter")
        expect(page.get_by_text(re.compile(r"^You have read this \("))).to_be_visible()
        expect(page.get_by_role("button", name="I have read this")).to_have_count(0)
        self.no_violation(page)
        expect(desk.get_by_text(re.compile(r"^Josh has read this \("))).to_be_visible(timeout=8000)


class Looking(BrowserCase):
    def test_staff_look_into_a_portfolio_and_change_nothing(self) -> None:
        eight = self.plot()
        card, about = eight.pocket(), eight.pocket("About me", "page", prompt="Who are you?")
        thandi = eight.student("thandi")
        builders.fill(thandi, card, self.now)
        builders.commands.write_page(thandi.enrolment.person, thandi.pk, about.pk, "I am Thandi.", 0, self.now)
        page = self.page(eight.lead, f"/g/{eight.group.pk}/portfolio/{thandi.pk}/{about.pk}")
        expect(page.get_by_text("I am Thandi.")).to_be_visible()
        expect(page.get_by_role("textbox", name="Who are you?")).to_have_count(0)
        page.get_by_role("link", name=re.compile("^Recipe card")).click()
        expect(page.get_by_text("One thing. Another thing.")).to_be_visible()
        for name in ("File", "Hand in", "Put in the bin: card.jpg"):
            expect(page.get_by_role("button", name=name)).to_have_count(0)
        self.no_violation(page)
