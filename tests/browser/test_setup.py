"""Setting up a term: a list pasted, a template changed with work in it, an adjustment, the calendar, the staff."""

import io
import os
import re
import tempfile
import time
from datetime import timedelta
from pathlib import Path

import pypdfium2
import zxingcpp
from openpyxl import Workbook
from playwright.sync_api import Page, Route, expect

from coatpeg.core.policy import Role
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Enrolment, NonSchoolDay, Person, StaffRole, TeachingGroup
from coatpeg.portfolios.models import Artefact, Portfolio
from coatpeg.setup.roster.roster_folder import pick_up
from tests import builders
from tests.browser.case import BrowserCase, undo
from tests.builders import klass
from tests.reference.test_oneroster import packed

LIST = (
    "Surname\tForename\tE-mail\tPeriod\n"
    "Dube\tThandi\tthandi@larkfield.example\tP3\n"
    "Okonkwo\tChidi\tchidi@larkfeild\tP4\n"
    "Ellery\tJosh\t\tP4\n"
)


class SettingUp(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.setup = f"/g/{self.eight.group.pk}/setup"

    def bring(self, page: Page, text: str) -> None:
        page.get_by_role("link", name="Bring in a list").click()
        page.get_by_label("Paste the list here").fill(text)
        page.get_by_role("button", name="See what it does").click()

    def test_a_pasted_list_previewed_added_and_a_portfolio_open_in_a_second_browser_within_a_minute(self) -> None:
        self.eight.pocket("About me", "page")
        begun = time.monotonic()
        page = self.page(self.eight.lead, self.setup)
        expect(page.get_by_role("heading", name="There is nobody in this class yet")).to_be_visible()
        self.bring(page, LIST)
        lines = page.get_by_role("table", name="Lines of the list")
        expect(lines.get_by_text("New", exact=True)).to_have_count(2)
        expect(lines.get_by_text("“chidi@larkfeild” is not a complete e-mail address.")).to_be_visible()
        self.assertFalse(Enrolment.objects.exists(), "nothing is written before")
        self.no_violation(page)
        # Mended in place.
        page.get_by_label("Line 2, E-mail").fill("chidi@larkfield.example")
        page.get_by_label("Line 2, E-mail").press("Enter")
        expect(lines.get_by_text("New", exact=True)).to_have_count(3)
        page.get_by_role("button", name="Add 3 students").click()
        expect(page.get_by_text("Add 3 students: done.")).to_be_visible()
        table = page.get_by_role("table", name="Class list")
        expect(table.get_by_text("thandi.dube")).to_be_visible()
        student = self.page(Person.objects.get(username="thandi.dube"))
        expect(student.get_by_text("Thandi’s portfolio")).to_be_visible()
        expect(student.get_by_role("link", name=re.compile("^About me"))).to_be_visible()
        self.assertLess(time.monotonic() - begun, 60)
        self.no_violation(page)
        self.expected_complaints.append("401")
        undo(page)
        expect(page.get_by_role("heading", name="There is nobody in this class yet")).to_be_visible()
        self.assertFalse(Portfolio.objects.exists())
        # The account went with the undone list: whoever was signed in with it is told so at the next poll.
        expect(student.get_by_text("You were signed out", exact=False)).to_be_visible()

    def test_a_part_of_a_name_without_accents_finds_its_student(self) -> None:
        for given, family in (("Bo", "Ångström"), ("Zoë", "O'Neill"), ("Łukasz", "Groß"), ("Thandi", "Dube")):
            self.eight.student(None, given, family)
        page = self.page(self.eight.lead, self.setup)
        rows = page.get_by_role("table", name="Class list").get_by_role("row")
        expect(rows).to_have_count(5)
        for typed, named in (
            ("angs", "Ångström, Bo"),
            ("zoe", "O'Neill, Zoë"),
            ("ßGR", None),
            ("du th", "Dube, Thandi"),
        ):
            page.get_by_label("Find in the list").fill(typed)
            expect(rows).to_have_count(2 if named else 1)
            if named:
                expect(rows.nth(1)).to_contain_text(named)
        expect(page.get_by_text("Nobody of that name is in the list.")).to_have_count(0)
        page.get_by_label("Find in the list").fill("nobody")
        expect(page.get_by_text("Nobody of that name is in the list.")).to_be_visible()

    def test_a_guess_of_a_column_is_corrected_over_the_column(self) -> None:
        page = self.page(self.eight.lead, self.setup)
        self.bring(page, "Thandi\tDube\nJosh\tEllery\nAda\tBo\n")
        heads = page.get_by_role("table", name="Lines of the list")
        expect(heads.get_by_text("Thandi, Dube").or_(heads.get_by_text("Dube, Thandi")).first).to_be_visible()
        page.get_by_role("button", name=re.compile("^Column 1")).click()
        page.get_by_role("option", name="Given name").click()
        page.get_by_role("button", name=re.compile("^Column 2")).click()
        page.get_by_role("option", name="Family name").click()
        expect(heads.get_by_text("Dube, Thandi")).to_be_visible()

    def test_names_are_said_to_be_written_family_name_first(self) -> None:
        page = self.page(self.eight.lead, self.setup)
        self.bring(page, "Name\nNguyễn Thị Minh Khai\nThandi Dube\n王 小明\n")
        lines = page.get_by_role("table", name="Lines of the list")
        expect(lines.get_by_text("Khai, Nguyễn Thị Minh")).to_be_visible()
        expect(lines.get_by_role("button", name="王 小明: family name first", pressed=True)).to_be_visible()
        page.get_by_role("checkbox", name=re.compile("^Family name first")).check()
        expect(lines.get_by_text("Thandi Dube", exact=True).first).to_be_visible()
        lines.get_by_role("button", name="Thandi Dube: family name first", pressed=True).click()
        expect(lines.get_by_text("Dube, Thandi")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Add 3 students").click()
        names = page.get_by_role("table", name="Class list")
        for row, name in enumerate(("Dube, Thandi", "Nguyễn Thị Minh Khai", "王 小明"), start=1):
            expect(names.get_by_role("row").nth(row)).to_contain_text(name)
        page.get_by_role("button", name="Add a student").click()
        page.get_by_label("Name of the student").fill("Nagy Éva")
        page.get_by_role("checkbox", name="Family name first").check()
        expect(page.get_by_text("Nagy Éva: New.")).to_be_visible()

    def test_a_workbook_is_dropped_in_and_someone_missing_is_marked_as_left(self) -> None:
        self.eight.student(None, "Josh", "Ellery")
        book = Workbook()
        for row in (("Surname", "Forename"), ("Dube", "Thandi")):
            book.active.append(row)
        target = io.BytesIO()
        book.save(target)
        page = self.page(self.eight.lead, f"{self.setup}/list?bring=1")
        with page.expect_file_chooser() as chosen:
            page.get_by_role("button", name="Or choose a file").click()
        kind = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
        chosen.value.set_files({"name": "list.xlsx", "mimeType": kind, "buffer": target.getvalue()})
        page.get_by_text("1 student of the class is not in this list").click()
        page.get_by_label("Ellery, Josh").check()
        page.get_by_role("button", name="Add 1 student and mark 1 as left").click()
        expect(page.get_by_text(re.compile("until \\d"))).to_be_visible()
        self.assertEqual(Enrolment.objects.get(person__family_name="Ellery").last, self.today)

    def test_a_year_group_of_two_thousand(self) -> None:
        cohort = klass("Leavers 2030", "whitcombe", "cohort", today=self.today)
        lines = "\n".join(f"Student{number:04}\tAda\tTutor {number % 8}" for number in range(2000))
        page = self.page(cohort.lead, f"/g/{cohort.group.pk}/setup")
        page.get_by_role("link", name="Bring in a list").click()
        # As the clipboard brings it: read at once, without a button.
        page.get_by_label("Paste the list here").evaluate(
            """(field, text) => {
              const clipboardData = new DataTransfer();
              clipboardData.setData("text/plain", text);
              field.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true }));
            }""",
            f"Surname\tForename\tPeriod\n{lines}",
        )
        add = page.get_by_role("button", name="Add 2,000 students")
        expect(add).to_be_enabled()
        add.click()
        expect(page.get_by_text("Add 2,000 students: done.")).to_be_visible(timeout=30_000)
        expect(page.get_by_text("2,000 students", exact=True)).to_be_visible()
        table = page.get_by_role("table", name="Class list")
        self.assertLess(table.get_by_role("row").count(), 80, "a long list is drawn by need")
        page.get_by_label("Find in the list").fill("student1999")
        expect(table.get_by_role("row")).to_have_count(2)
        page.goto(f"{self.live_server_url}/g/{cohort.group.pk}/pegs")
        expect(page.get_by_role("grid").get_by_role("rowheader").first).to_have_text("Student0000, Ada")

    def test_a_sign_in_card_opens_the_students_portfolio_on_a_class_device(self) -> None:
        self.eight.pocket("About me", "page")
        thandi = self.eight.student("thandi")
        page = self.page(self.eight.lead, self.setup)
        page.get_by_label("Choose all that are shown").check()
        with page.expect_download() as printed:
            page.get_by_role("button", name="Sign-in cards").click()
        self.assertEqual(printed.value.suggested_filename, "sign-in-cards.pdf")
        expect(page.get_by_text("1 sign-in card made.")).to_be_visible()
        expect(page.get_by_text("has a sign-in card")).to_be_attached()
        document = pypdfium2.PdfDocument(printed.value.path())
        (code,) = zxingcpp.read_barcodes(document[0].render(scale=3).to_pil())
        document.close()
        device = self.page(None, code.text.removeprefix(self.live_server_url))
        expect(device.get_by_text("Thandi’s portfolio")).to_be_visible()
        self.assertTrue(device.url.endswith(f"/portfolio/{thandi.pk}"), "the secret is gone from the address")
        page.get_by_role("button", name="Make their cards void").click()
        expect(page.get_by_text("Their cards no longer work.")).to_be_visible()
        self.expected_complaints += ["401", "403"]
        expect(device.get_by_label("User name")).to_be_visible()
        late = self.page(None, code.text.removeprefix(self.live_server_url))
        expect(late.get_by_text("This card no longer works.")).to_be_visible()
        self.no_violation(late)

    def test_staff_are_added_by_name_and_the_last_lead_stays(self) -> None:
        builders.person("marsh", "J.", "Marsh", staff=True)
        page = self.page(self.eight.lead, f"{self.setup}/staff")
        page.get_by_label("Add somebody by name or e-mail").fill("mar")
        page.get_by_role("button", name="Add Marsh, J.").click()
        expect(page.get_by_text("Marsh, J. is co-teacher now.")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Role of Marsh, J.")).click()
        page.get_by_role("listbox").get_by_role("option", name="observer").click()
        expect(page.get_by_text("Marsh, J. is observer now.")).to_be_visible()
        self.assertEqual(StaffRole.objects.get(person__username="marsh").role, Role.OBSERVER)
        self.expected_complaints.append("403")
        page.get_by_role("button", name="Leave the class Okafor, R.").click()
        page.get_by_role("dialog").get_by_role("button", name="Leave the class").click()
        expect(page.get_by_text("This is the only lead of the class.")).to_be_visible()
        self.no_violation(page)
        # A co-teacher sees who is lead and cannot change it.
        StaffRole.objects.filter(person__username="marsh").update(role=Role.CO_TEACHER)
        other = self.page(Person.objects.get(username="marsh"), f"{self.setup}/staff")
        expect(other.get_by_label("Role of Marsh, J.")).to_be_visible()
        expect(other.get_by_label("Role of Okafor, R.")).to_have_count(0)

    def test_who_leaves_a_class_goes_on_in_another_of_theirs(self) -> None:
        nine = klass("9 Forge", "marsh", today=self.today)
        StaffRole.objects.create(group=self.eight.group, person=nine.lead, role=Role.CO_TEACHER)
        page = self.page(nine.lead, f"{self.setup}/staff")
        page.get_by_role("button", name=re.compile("^Leave the class .*Marsh")).click()
        page.get_by_role("dialog").get_by_role("button", name="Leave the class").click()
        expect(page).to_have_url(re.compile(f"/g/{nine.group.pk}/pegs"))
        # Where the class was, and where none ever was, nothing is asked for.
        page.go_back()
        expect(page.get_by_role("heading", name="There is nothing here for you")).to_be_visible()
        page.goto(f"{self.live_server_url}/g/99999/setup/staff")
        expect(page.get_by_role("heading", name="There is nothing here for you")).to_be_visible()

    def test_who_is_taken_out_of_the_staff_is_led_away(self) -> None:
        self.eight.student("amir", "Amir", "Haddad")
        marsh = self.eight.staff("marsh", Role.CO_TEACHER)
        other = self.page(marsh, f"/g/{self.eight.group.pk}/pegs")
        expect(other.get_by_role("grid")).to_be_visible()
        page = self.page(self.eight.lead, f"{self.setup}/staff")
        self.expected_complaints.append("403|404")  # what the open view asked for once more
        page.get_by_role("button", name=re.compile("^Take out Marsh")).click()
        expect(page.get_by_text("is no longer in this class.")).to_be_visible()
        expect(other.get_by_text("There is nothing here for you")).to_be_visible()
        expect(other.get_by_role("grid")).to_have_count(0)
        other.get_by_role("link", name="Go to the start").click()
        expect(other.get_by_role("heading", name="You are in no class yet")).to_be_visible()
        # Taken in again, their page learns of it where something leads them there.
        StaffRole.objects.create(group=self.eight.group, person=marsh, role=Role.CO_TEACHER)
        other.evaluate(f"history.pushState({{}}, '', '/g/{self.eight.group.pk}/pegs')")
        other.evaluate("window.dispatchEvent(new PopStateEvent('popstate'))")
        expect(other.get_by_role("grid")).to_be_visible()
        with other.expect_request(re.compile(f"groups/{self.eight.group.pk}/changes")):
            pass

    def test_a_class_is_lent_for_some_days_and_then_handed_over(self) -> None:
        builders.person("marsh", "J.", "Marsh", staff=True)
        page = self.page(self.eight.lead, f"{self.setup}/staff")
        page.get_by_label("until").fill("next Fri")
        page.get_by_label("until").press("Tab")
        page.get_by_label("Add somebody").fill("mars")
        page.get_by_role("button", name="Add Marsh, J.").click()
        expect(page.get_by_text(re.compile("^Marsh, J. is co-teacher until Fri"))).to_be_visible()
        page.get_by_role("button", name="Days … Marsh, J.").click()
        self.no_violation(page)
        first = page.get_by_role("dialog").get_by_label("First day")
        first.fill("tomorrow")
        first.press("Enter")
        expect(page.get_by_role("listitem").get_by_text(re.compile(r"^from \w+ .* until Fri"))).to_be_visible()
        expect(page.get_by_text(re.compile("^Marsh, J. is co-teacher from"))).to_be_visible()
        undo(page)
        expect(page.get_by_role("listitem").get_by_text(re.compile("^until Fri"))).to_be_visible()
        page.get_by_role("button", name="Hand the class over …").click()
        expect(page.get_by_label("To whom")).to_contain_text("Marsh, J.")
        page.get_by_label("You stay as").select_option("not at all")
        self.no_violation(page)
        # What the view asks for in the very moment in which the class is handed over is no longer there.
        self.expected_complaints += ["404"]
        page.get_by_role("button", name="Hand it over").click()
        expect(page.get_by_text("Marsh, J. leads the class now.")).to_be_visible()
        expect(page.get_by_role("link", name="Set-up")).to_have_count(0)
        role = StaffRole.objects.get(group=self.eight.group)
        self.assertEqual((role.person.username, role.role, role.last), ("marsh", "lead", None))

    def test_a_student_moves_to_a_parallel_class_with_their_work_and_back(self) -> None:
        nine = klass("9 Forge", "marsh", today=self.today)
        StaffRole.objects.create(group=nine.group, person=self.eight.lead, role=Role.LEAD.value)
        card, there = self.eight.pocket(), nine.pocket()
        thandi = self.eight.student("thandi")
        builders.fill(thandi, card, self.now)
        page = self.page(self.eight.lead, f"{self.setup}/list")
        page.get_by_label("Choose Thandi Dube").check()
        page.get_by_role("button", name="Move to another class …").click()
        self.no_violation(page)
        page.get_by_role("button", name="Move", exact=True).click()
        expect(page.get_by_text("Dube, Thandi is in 9 Forge now, with 1 piece of work.")).to_be_visible()
        new = Portfolio.objects.get(enrolment__group=nine.group)
        student = self.page(thandi.enrolment.person, f"/g/{nine.group.pk}/portfolio/{new.pk}/{there.pk}")
        expect(student.get_by_text("1 of 2 things")).to_be_visible()
        undo(page)
        expect(page.get_by_text("Dube, Thandi is in this class as before.")).to_be_visible()
        self.assertFalse(Portfolio.objects.filter(enrolment__group=nine.group).exists())
        self.expected_complaints += ["404"]

    def test_a_calendar_address_stays_where_what_was_there_before_is_told_late(self) -> None:
        page = self.page(self.eight.lead)
        slow: list[Route] = []
        page.route(
            "**/api/feed", lambda route: slow.append(route) if route.request.method == "GET" else route.continue_()
        )
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Due dates in your calendar").click()
        page.get_by_role("button", name="Make an address").click()
        address = page.get_by_label("Your address, shown this once")
        expect(address).to_be_visible()
        slow[0].fulfill(json={"address": None, "since": None})
        page.wait_for_timeout(300)
        expect(address).to_be_visible()

    def test_a_calendar_address_is_shown_once_and_ended(self) -> None:
        page = self.page(self.eight.lead)
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Due dates in your calendar").click()
        page.get_by_role("button", name="Make an address").click()
        address = page.get_by_label("Your address, shown this once").input_value()
        self.assertTrue(address.startswith(f"{self.live_server_url}/calendar/"))
        self.no_violation(page)
        page.get_by_role("button", name="Close").click()
        page.reload()
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Due dates in your calendar").click()
        expect(page.get_by_text(re.compile("^You made an address on"))).to_be_visible()
        expect(page.get_by_label("Your address, shown this once")).to_have_count(0)
        page.get_by_role("button", name="End it").click()
        expect(page.get_by_role("button", name="Make an address")).to_be_visible()

    def test_the_lead_renames_the_class_and_undoes_it_others_read(self) -> None:
        page = self.page(self.eight.lead, f"{self.setup}/class")
        name = page.get_by_label("Name", exact=True)
        expect(name).to_have_value("8 Plot · Growing & Cooking")
        name.fill("")
        self.expected_complaints.append("422")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("The class has no name.")).to_be_visible()
        name.fill("8 Plot and kitchen")
        page.get_by_role("button", name="Save").click()
        expect(page.get_by_text("The class is changed.")).to_be_visible()
        expect(page.get_by_role("banner")).to_contain_text("8 Plot and kitchen")
        self.no_violation(page)
        undo(page)
        expect(page.get_by_text("The class is as it was.")).to_be_visible()
        expect(page.get_by_label("Name", exact=True)).to_have_value("8 Plot · Growing & Cooking")
        other = self.page(self.eight.staff("marsh", Role.CO_TEACHER), f"{self.setup}/class")
        expect(other.get_by_text(re.compile("^8 Plot .* runs from "))).to_be_visible()
        expect(other.get_by_role("button", name="Save")).to_have_count(0)

    def test_one_student_is_added_by_name_and_taken_back(self) -> None:
        self.eight.student("thandi")
        page = self.page(self.eight.lead, f"{self.setup}/list")
        page.get_by_role("button", name="Add a student").click()
        name = page.get_by_label("Name of the student")
        name.fill("Thandi Dube")
        expect(page.get_by_text("Dube, Thandi: Already here.")).to_be_visible()
        expect(page.get_by_role("button", name="Add", exact=True)).to_be_disabled()
        nine = klass("9 Forge", "marsh", today=self.today)
        StaffRole.objects.create(group=nine.group, person=self.eight.lead, role=Role.LEAD.value)
        nine.student("zoe", "Zoë", "Young")
        name.fill("you")
        page.get_by_role("button", name="Young, Zoë 9 Forge").click()
        expect(page.get_by_text("Young, Zoë: Joins from another class. Known from 9 Forge.")).to_be_visible()
        expect(name).to_be_focused()
        name.fill("Amir Haddad")
        expect(page.get_by_text("Haddad, Amir: New.")).to_be_visible()
        self.no_violation(page)
        name.press("Enter")
        expect(page.get_by_text("Haddad, Amir is in the class, with a portfolio.")).to_be_visible()
        expect(page.get_by_role("table", name="Class list")).to_contain_text("Haddad, Amir")
        expect(name).to_have_value("")
        undo(page)
        expect(page.get_by_role("table", name="Class list")).not_to_contain_text("Haddad")

    def test_a_class_in_which_nobody_has_begun_is_deleted(self) -> None:
        nine = klass("9 Forge", "marsh", today=self.today)
        card = nine.pocket()
        thandi = nine.student("sue", "Sue", "Iron")
        page = self.page(nine.lead, f"/g/{nine.group.pk}/setup/class")
        page.get_by_role("button", name="Delete the class …").click()
        expect(page.get_by_role("heading", name="Delete “9 Forge”?")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("button", name="Delete the class …")).to_be_focused()
        # Somebody begins while it is asked about.
        page.get_by_role("button", name="Delete the class …").click()
        evidence = builders.fill(thandi, card, self.now)
        # The page may hear of it meanwhile: the question stays until it is answered.
        heard: list[str] = []
        page.on("response", lambda one: heard.append(one.url))
        while not any(one.endswith(f"/api/groups/{nine.group.pk}") for one in heard):
            page.evaluate("window.dispatchEvent(new Event('visibilitychange'))")
            page.wait_for_timeout(500)
        self.expected_complaints.append("422")
        page.get_by_role("button", name="Delete it for good").click()
        expect(page.get_by_text("Somebody has begun in “9 Forge”.")).to_be_visible()
        evidence.delete()
        Artefact.objects.all().delete()
        page.get_by_role("button", name="Delete it for good").click()
        expect(page.get_by_text("“9 Forge” is deleted.")).to_be_visible()
        expect(page.get_by_text("9 Forge", exact=True)).to_have_count(0)
        self.assertFalse(nine.group.__class__.objects.filter(pk=nine.group.pk).exists())

    def test_a_class_is_not_asked_for_while_it_is_taken_away_and_elsewhere_no_more_after_it(self) -> None:
        nine = klass("9 Forge", "marsh", today=self.today)
        nine.pocket()
        page = self.page(nine.lead, f"/g/{nine.group.pk}/setup/class")
        elsewhere = self.page(nine.lead, f"/g/{nine.group.pk}/pegs")
        elsewhere.wait_for_load_state("networkidle")
        held: list[Route] = []
        page.route(
            f"**/api/groups/{nine.group.pk}",
            lambda one: held.append(one) if one.request.method == "DELETE" else one.continue_(),
        )
        page.get_by_role("button", name="Delete the class …").click()
        page.get_by_role("button", name="Delete it for good").click()
        while not held:
            page.wait_for_timeout(50)
        # The other tab asks once more, is told, and leads on.
        self.expected_complaints.append(f"groups/{nine.group.pk}/changes.after=\\d+&board=true")
        answer = held[0].fetch()
        polls: list[str] = []
        page.on("request", lambda one: polls.append(one.url) if "/changes" in one.url else None)
        page.wait_for_timeout(4_000)
        self.assertEqual(polls, [])
        held[0].fulfill(response=answer)
        expect(page.get_by_text("“9 Forge” is deleted.")).to_be_visible()
        expect(elsewhere.get_by_text("There is nothing here for you")).to_be_visible()

    def test_a_class_is_put_away_found_again_and_brought_back(self) -> None:
        thandi = self.eight.student("putaway", "Amir", "Haddad")
        card = self.eight.pocket("Menu")
        page = self.page(self.eight.lead, f"{self.setup}/class")
        page.get_by_role("button", name="Put the class away").click()
        expect(page.get_by_text("The class is put away: it can be read")).to_be_visible()
        expect(page.get_by_text(re.compile("^This class was put away on"))).to_be_visible()
        self.no_violation(page)
        student = self.page(thandi.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{thandi.pk}/{card.pk}")
        expect(student.get_by_role("heading", name="Menu")).to_be_visible()
        expect(student.get_by_role("button", name="Photo")).to_have_count(0)
        page.goto(f"{self.live_server_url}/classes")
        page.get_by_text("1 class is put away").click()
        page.get_by_role("link", name=re.compile("^Bring 8 Plot")).click()
        page.get_by_role("button", name="Bring it back").click()
        expect(page.get_by_text("The class is back as it was.")).to_be_visible()
        expect(page.get_by_role("button", name="Put the class away")).to_be_visible()
        student.reload()
        expect(student.get_by_role("button", name="Photo").first).to_be_visible()

    def test_a_class_is_started_with_its_name_alone(self) -> None:
        page = self.page(self.eight.lead)
        page.get_by_role("button", name=re.compile("account of")).click()
        page.get_by_role("menuitem", name="Start a class").click()
        page.get_by_label("Name as students know it").fill("9 Forge")
        self.no_violation(page)
        page.get_by_role("button", name="Start the class").click()
        expect(page.get_by_role("heading", name="There is nobody in this class yet")).to_be_visible()
        page.get_by_role("link", name="Template").click()
        expect(page.get_by_role("heading", name="This template is empty")).to_be_visible()
        page.get_by_role("link", name="Pegs").click()
        expect(page.get_by_role("navigation", name="To begin with")).to_be_visible()
        page.get_by_role("link", name="Lay out the portfolio").click()
        expect(page.get_by_role("heading", name="This template is empty")).to_be_visible()


class Calendar(BrowserCase):
    def test_a_day_off_says_what_moves_before_it_is_kept(self) -> None:
        eight = self.plot()
        thandi = eight.student("thandi")
        card = eight.pocket()
        due = next(day for day in (self.day(place) for place in range(2, 9)) if day.weekday() == 0)
        eight.handin(card, due=due - timedelta(days=3), opens=self.day(-20), now=self.now)
        builders.adjust(thandi, 1, self.day(-60))
        page = self.page(builders.person("bright", "S.", "Bright", administrator=True))
        expect(page.get_by_role("heading", name="Calendar of Larkfield School")).to_be_visible()
        page.get_by_role("button", name="Days off").click()
        page.get_by_label("Name of days off 2").fill("Snow")
        page.get_by_label("First day of days off 2").fill(due.isoformat())
        page.get_by_label("Last day of days off 2").fill(due.isoformat())
        means = page.get_by_role("status", name="What this changes")
        expect(means.get_by_text("1 school day fewer")).to_be_visible()
        expect(means.get_by_text("1 due moment and 0 statuses move.")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Keep the calendar").click()
        expect(page.get_by_text("The calendar is kept.")).to_be_visible()
        self.assertTrue(NonSchoolDay.objects.filter(day=due, name="Snow").exists())
        reader = self.page(eight.lead, f"/g/{eight.group.pk}/setup/calendar")
        expect(reader.get_by_text("Snow")).to_be_visible()
        expect(reader.get_by_role("button", name="Keep the calendar")).to_have_count(0)
        page.get_by_role("button", name="Accounts").click()
        page.get_by_label("Given name").fill("Ida")
        page.get_by_label("Family name").fill("Blom")
        page.get_by_role("button", name="Add the account").click()
        dialog = page.get_by_role("dialog", name="A new password")
        expect(dialog.get_by_text("ida.blom")).to_be_visible()
        self.no_violation(page)
        dialog.get_by_role("button", name="I have it").click()
        page.get_by_label("Find a student").fill("dube")
        page.get_by_role("button", name="Close the account of Dube, Thandi").click()
        expect(page.get_by_text("closed")).to_be_visible()
        self.assertFalse(Person.objects.get(username="thandi").is_active)


class Templates(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi")
        self.eight.student("josh", "Josh", "Ellery")
        self.page_ = self.page(self.eight.lead, f"/g/{self.eight.group.pk}/template?pocket={self.card.pk}")

    def test_a_running_class_with_work_in_it_is_asked_for_more(self) -> None:
        for _ in range(2):
            builders.fill(self.thandi, self.card, self.now)
        student = self.page(
            self.thandi.enrolment.person, f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}/{self.card.pk}"
        )
        expect(student.get_by_text("2 of 2 things")).to_be_visible()
        page = self.page_
        page.get_by_label("artefacts", exact=True).fill("3")
        means = page.get_by_role("status", name="What saving means")
        expect(means.get_by_text("1 student goes from filled to not filled.")).to_be_visible()
        means.get_by_role("button", name="See the name").click()
        expect(means.get_by_text("Dube, Thandi")).to_be_visible()
        expect(page.get_by_role("complementary", name="Preview").get_by_text("0 of 3 things")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“Recipe card” is saved in 2 portfolios.")).to_be_visible()
        expect(student.get_by_text("2 of 3 things")).to_be_visible(timeout=6000)
        undo(page)
        expect(student.get_by_text("2 of 2 things")).to_be_visible(timeout=6000)

    def test_what_comes_while_the_page_starts_is_not_missed(self) -> None:
        page = self.page(self.eight.lead)
        held = []

        def hold(route: Route) -> None:
            if not held:
                held.append(builders.fill(self.thandi, self.card, self.now))
            route.continue_()

        page.route("**/changes*", hold)
        page.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/template?pocket={self.card.pk}")
        expect(page.get_by_role("button", name="Retire this pocket")).to_be_visible()
        expect(page.get_by_role("button", name="Take it away")).to_have_count(0)
        self.assertTrue(held)

    def test_the_outline_is_typed_into_dragged_and_moved_by_keyboard(self) -> None:
        page = self.page_
        outline = page.get_by_role("navigation", name="Outline of the template")
        outline.get_by_role("button", name="Section", exact=True).click()
        outline.get_by_label("Name of the new section").fill("The shed")
        outline.get_by_label("Name of the new section").press("Enter")
        expect(outline.get_by_role("region", name="The shed")).to_be_visible()
        expect(outline.get_by_label("New pocket in The shed")).to_be_focused()
        outline.get_by_label("New pocket in The shed").press("Escape")
        expect(outline.get_by_role("button", name="Add a pocket to The shed")).to_be_focused()
        outline.get_by_role("button", name="Add a pocket to The kitchen").click()
        outline.get_by_label("New pocket in The kitchen").fill("Tools: page")
        outline.get_by_label("New pocket in The kitchen").press("Enter")
        expect(page.get_by_label("Name of the pocket")).to_have_value("Tools")
        expect(page.get_by_role("radio", name="Page")).to_be_checked()
        kitchen = outline.get_by_role("region", name="The kitchen")
        expect(kitchen.locator("li > button")).to_have_text([re.compile("Recipe card"), re.compile("Tools")])
        kitchen.locator("li > button", has_text="Tools").press("Alt+ArrowUp")
        expect(kitchen.locator("li > button")).to_have_text([re.compile("Tools"), re.compile("Recipe card")])
        tools = kitchen.get_by_role("listitem").filter(has_text="Tools")
        tools.drag_to(outline.get_by_role("region", name="The shed"))
        expect(outline.get_by_role("region", name="The shed").locator("li > button", has_text="Tools")).to_be_visible()
        self.no_violation(page)

    def test_a_pocket_with_work_is_retired_and_comes_back(self) -> None:
        builders.fill(self.thandi, self.card, self.now)
        page = self.page_
        expect(page.get_by_role("button", name="Take it away")).to_have_count(0)
        page.get_by_role("button", name="Retire this pocket").click()
        told = page.get_by_label("What saving means")
        expect(told).to_contain_text("retires “Recipe card” with the work in it in 2 portfolios at once.")
        expect(page.get_by_role("region", name="Retired").get_by_text("work of 1")).to_be_visible()
        self.assertIsNone(Pocket.objects.get(pk=self.card.pk).retired_at, "nobody sees it before it is saved")
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("1 change is saved in 2 portfolios.")).to_be_visible()
        self.assertIsNotNone(Pocket.objects.get(pk=self.card.pk).retired_at)
        page.get_by_role("button", name="Bring it back").click()
        expect(page.get_by_role("region", name="Retired")).to_have_count(0)
        expect(told).to_contain_text("brings back “Recipe card”")
        page.get_by_role("button", name="Save for everyone").click()
        expect(told).to_have_count(0)
        self.assertIsNone(Pocket.objects.get(pk=self.card.pk).retired_at)

    def test_published_adopted_elsewhere_and_a_change_brought_in(self) -> None:
        page = self.page_
        page.get_by_role("button", name="Publish").click()
        page.get_by_label("Name in the gallery").fill("Growing & Cooking")
        page.get_by_role("button", name="Publish", exact=True).click()
        expect(page.get_by_text("“Growing & Cooking” is in the gallery")).to_be_visible()
        forge = klass("9 Forge", "marsh", today=self.today)
        other = self.page(forge.lead, f"/g/{forge.group.pk}/template")
        other.get_by_role("button", name="Bring in a template").click()
        other.get_by_label("Find a template").fill("cooking")
        self.no_violation(other)
        other.get_by_role("button", name="Adopt Growing & Cooking").click()
        expect(other.get_by_text("1 pocket more, in every portfolio.")).to_be_visible()
        expect(other.get_by_label("Name of the pocket")).to_have_value("Recipe card")
        page.get_by_label("artefacts", exact=True).fill("3")
        page.get_by_role("button", name="Save for everyone").click()
        expect(page.get_by_text("“Recipe card” is saved in 2 portfolios.")).to_be_visible()
        page.get_by_role("button", name="In the gallery").click()
        page.get_by_role("button", name="Publish a new version").click()
        expect(page.get_by_role("form", name="Publish in the gallery")).to_have_count(0)
        other.reload()
        news = other.get_by_role("region", name="New in the gallery")
        expect(news.get_by_text("Changed: Recipe card")).to_be_visible()
        self.no_violation(other)
        news.get_by_role("button", name="Bring in Recipe card").click()
        expect(news).to_have_count(0)
        expect(other.get_by_label("artefacts", exact=True)).to_have_value("3")

    def test_an_observer_sees_the_template_and_cannot_change_it(self) -> None:
        page = self.page(self.eight.staff("head", Role.OBSERVER), f"/g/{self.eight.group.pk}/template")
        expect(page.get_by_label("Name of the pocket")).to_be_disabled()
        for name in ("Save for everyone", "Pocket", "Retire this pocket"):
            expect(page.get_by_role("button", name=name, exact=True)).to_have_count(0)


class Caseloads(BrowserCase):
    def test_an_adjustment_changes_the_board_and_the_students_pocket(self) -> None:
        eight = self.plot()
        card = eight.pocket()
        thandi = eight.student("thandi", period="P3")
        eight.handin(card, due=self.day(-1), opens=self.day(-20), now=self.now - timedelta(days=10))
        caseload = klass("Caseload", "lindqvist", "caseload", today=self.today)
        Enrolment.objects.create(group=caseload.group, person=thandi.enrolment.person, first=self.today, picture="leaf")
        board = self.page(eight.lead, f"/g/{eight.group.pk}/pegs")
        expect(
            board.get_by_role("button", name=re.compile("Dube, Thandi, Recipe card: nothing yet, overdue"))
        ).to_be_visible()
        page = self.page(caseload.lead)
        expect(page.get_by_text("1 overdue: Recipe card")).to_be_visible()
        page.get_by_role("button", name=re.compile("Dube, Thandi")).click()
        page.get_by_role("button", name="Agree something new").click()
        page.get_by_label("Extra school days").fill("5")
        page.get_by_label("Fewer artefacts").fill("1")
        page.get_by_label("From", exact=True).fill(self.day(-30).isoformat())
        page.get_by_label(re.compile("^Reason")).fill("Agreed at the review.")
        self.no_violation(page)
        page.get_by_role("button", name="Keep it").click()
        panel = page.get_by_role("complementary", name="The chosen student")
        expect(panel.get_by_text("5 school days more, 1 artefact fewer")).to_be_visible()
        expect(page.get_by_text("1 to hand in")).to_be_visible()
        cell = board.get_by_role("button", name="Dube, Thandi, Recipe card: nothing yet", exact=True)
        expect(cell).to_be_visible(timeout=6000)
        cell.click()
        expect(board.get_by_text("5 school days added")).to_be_visible()
        expect(board.get_by_text("Agreed at the review.")).to_have_count(0)
        student = self.page(thandi.enrolment.person, f"/g/{eight.group.pk}/portfolio/{thandi.pk}/{card.pk}")
        expect(student.get_by_text("0 of 1 thing")).to_be_visible()
        panel.get_by_role("button", name=re.compile("^Take away")).click()
        expect(panel.get_by_text("Nothing is agreed.")).to_be_visible()
        undo(page)
        expect(panel.get_by_text("5 school days more, 1 artefact fewer")).to_be_visible()
        page.get_by_role("link", name="8 Plot · Growing & Cooking").click()
        expect(page.get_by_role("link", name=re.compile("^Recipe card"))).to_be_visible()

    def test_a_newcomer_is_asked_all_the_same_from_the_panel(self) -> None:
        eight = self.plot()
        eight.student(None, "Noor", "Vale", first=self.today)
        eight.student(None)
        eight.handin(eight.pocket(), due=self.day(-3), opens=self.day(-20), now=self.now - timedelta(days=10))
        page = self.page(eight.lead, f"/g/{eight.group.pk}/pegs")
        page.get_by_role("button", name="Vale, Noor, Recipe card: not asked").click()
        page.get_by_role("button", name="Ask all the same").click()
        page.get_by_label("Ask all the same, due on").fill(self.day(10).isoformat())
        page.get_by_role("button", name="Set the date").click()
        expect(page.get_by_role("button", name="Vale, Noor, Recipe card: nothing yet")).to_be_visible()
        expect(page.get_by_text("their own date")).to_be_visible()
        undo(page)
        expect(page.get_by_role("button", name="Vale, Noor, Recipe card: not asked")).to_be_visible()


class ByKeyboard(BrowserCase):
    def test_a_list_is_brought_in_without_a_mouse(self) -> None:
        eight = self.plot()
        page = self.page(eight.lead, f"/g/{eight.group.pk}/setup/list?bring=1")
        field = page.get_by_label("Paste the list here")
        expect(field).to_be_visible()
        field.focus()
        page.keyboard.insert_text("Thandi Dube\nJosh Ellery\n")
        page.keyboard.press("Tab")
        expect(page.get_by_role("button", name="See what it does")).to_be_focused()
        page.keyboard.press("Enter")
        column = page.get_by_role("button", name=re.compile("^Column 1"))
        expect(column).to_be_visible()
        column.focus()
        page.keyboard.press("Space")
        expect(page.get_by_role("option", name="Name", exact=True)).to_be_visible()
        page.keyboard.press("Escape")
        expect(column).to_be_focused()
        add = page.get_by_role("button", name="Add 2 students")
        expect(add).to_be_enabled()
        add.focus()
        page.keyboard.press("Enter")
        expect(page.get_by_text("Add 2 students: done.")).to_be_visible()
        self.assertEqual(set(Enrolment.objects.values_list("person__family_name", flat=True)), {"Dube", "Ellery"})

    def test_a_dialog_keeps_the_focus_and_gives_it_back(self) -> None:
        eight = self.plot()
        page = self.page(eight.lead, f"/g/{eight.group.pk}/template")
        opener = page.get_by_role("button", name="Bring in a template")
        opener.focus()
        page.keyboard.press("Enter")
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_role("heading", name="Bring in a template")).to_be_visible()
        for _ in range(12):
            page.keyboard.press("Tab")
            self.assertTrue(page.evaluate("document.activeElement.closest('[role=dialog]') !== null"))
        page.keyboard.press("Escape")
        expect(dialog).to_have_count(0)
        expect(opener).to_be_focused()


class RosterFolder(BrowserCase):
    """What the school's information system puts into the folder, looked at and applied."""

    def setUp(self) -> None:
        super().setUp()
        self.eight = self.plot()
        self.setup = f"/g/{self.eight.group.pk}/setup/list"

    def test_a_list_from_the_folder_is_looked_at_and_applied_on_a_click(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "8 plot growing cooking.csv"
            path.write_text("Family name,Given name\nDube,Thandi\nEllery,Josh\n")
            os.utime(path, (0, 0))
            pick_up(Path(folder), self.now)
        page = self.page(self.eight.lead, self.setup)
        expect(page.get_by_text("“8 plot growing cooking.csv” came from the school’s system")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("link", name="See what it does").click()
        page.get_by_role("button", name="Add 2 students").click()
        expect(page.get_by_role("table", name="Class list").get_by_text("Dube, Thandi")).to_be_visible()
        expect(page.get_by_text("came from the school’s system")).to_have_count(0)

    def test_who_vanished_from_a_list_that_applied_itself_is_told_and_marked_as_left(self) -> None:
        gone, stays = self.eight.student("lee", "Lee", "Moss"), self.eight.student("thandi")
        TeachingGroup.objects.filter(pk=self.eight.group.pk).update(takes_lists_by=self.eight.lead)
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "8 plot growing cooking.csv"
            path.write_text("Family name,Given name\nEllery,Josh\n")
            os.utime(path, (0, 0))
            pick_up(Path(folder), self.now)
        page = self.page(self.eight.lead, self.setup)
        expect(page.get_by_text("2 students of this class are not in “8 plot growing cooking.csv”")).to_be_visible()
        expect(page.get_by_text("Dube, Thandi; Moss, Lee")).to_be_visible()
        self.no_violation(page)
        page.get_by_role("button", name="Mark all 2 as left").click()
        expect(page.get_by_text("2 students marked as left")).to_be_visible()
        expect(page.get_by_text("2 students of this class are not in")).to_have_count(0)
        self.assertFalse(Enrolment.objects.filter(pk__in=[gone.enrolment_id, stays.enrolment_id], last=None).exists())
        undo(page)
        page.get_by_role("button", name="They are still here").click()
        expect(page.get_by_text("2 students of this class are not in")).to_have_count(0)
        self.assertEqual(Enrolment.objects.filter(group=self.eight.group, last=None).count(), 3)

    def test_a_class_is_chosen_from_a_zip_of_many(self) -> None:
        page = self.page(self.eight.lead, self.setup + "?bring=1")
        expect(page.get_by_label("Take lists that come through the roster folder by themselves")).not_to_be_checked()
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "roster.zip"
            path.write_bytes(packed())
            page.locator("input[type=file]").set_input_files(str(path))
            expect(page.get_by_label("Class in the file")).to_be_visible()
            page.get_by_role("button", name=re.compile("^Class in the file")).click()
            page.get_by_role("option", name="9 Forge (1)").click()
            expect(page.get_by_role("button", name="Add 1 student")).to_be_visible()
            page.get_by_role("button", name=re.compile("^Class in the file")).click()
            page.get_by_role("option", name="8 Plot: Growing and Cooking (2)").click()
            # What is chosen in the file is read out of it anew: it stays where it is until then.
            expect(page.get_by_role("button", name="Add 2 students")).to_be_visible()
            self.no_violation(page)
            page.get_by_role("button", name="Add 2 students").click()
            expect(page.get_by_role("table", name="Class list").get_by_text("Dube, Thandi")).to_be_visible()


class Joining(BrowserCase):
    """Somebody joins in the middle of the term."""

    def test_what_a_joiner_is_asked_for_stands_in_two_lists_and_each_line_can_be_changed(self) -> None:
        eight = self.plot()
        card, about = eight.pocket(), eight.pocket("About me", "page")
        eight.student("thandi")
        eight.student("josh", "Josh", "Ellery", first=self.day(-1))
        eight.handin(about, title="About me", due=self.day(-9), opens=self.day(-20), now=self.now)
        eight.handin(card, title="Recipe card", due=self.day(3), now=self.now)
        page = self.page(eight.lead, f"/g/{eight.group.pk}/setup/list")
        page.get_by_role("row").filter(has_text="Ellery").get_by_role("link", name=re.compile("^since")).click()
        asked, left_out = (
            page.get_by_role("region", name="Asked for", exact=True),
            page.get_by_role("region", name="Not asked for"),
        )
        expect(asked.get_by_text("Recipe card")).to_be_visible()
        expect(left_out.get_by_text("About me")).to_be_visible()
        self.no_violation(page)
        left_out.get_by_role("button", name="Ask all the same").click()
        page.get_by_label("Due on").fill(self.day(7).isoformat())
        page.get_by_role("button", name="Ask", exact=True).click()
        expect(asked.get_by_text("About me")).to_be_visible()
        asked.get_by_role("listitem").filter(has_text="Recipe card").get_by_role("button", name="Excuse").click()
        expect(asked.get_by_text("excused")).to_be_visible()
        # Put into a working group by the list, with undo.
        page.get_by_label("Choose Josh Ellery").check()
        page.get_by_role("button", name="Put into a group or period").click()
        page.get_by_label("Its name").fill("Table 3")
        page.get_by_role("button", name="Put them in").click()
        expect(page.get_by_role("table", name="Class list").get_by_text("Table 3")).to_be_visible()
