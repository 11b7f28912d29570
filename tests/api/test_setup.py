"""Setting up a class: calendar, class list, staff, accounts, starting one."""

import csv
import io
from datetime import date, timedelta
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from openpyxl import Workbook

from coatpeg.core.policy import TABLE, Action, Relation, Role
from coatpeg.events.models import Event
from coatpeg.people import directory, staffing
from coatpeg.people.access import leads_of
from coatpeg.people.models import (
    Absence,
    Enrolment,
    JoinRequest,
    PeriodMembership,
    Person,
    RosterChange,
    StaffRole,
    TeachingGroup,
)
from coatpeg.portfolios.models import Portfolio
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass


class Calendars(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.thandi = self.plot.student("thandi", period="P3")
        self.card = self.plot.pocket()
        self.admin = builders.person("bright", administrator=True)

    def body(self, **changes: Any) -> dict[str, Any]:
        kept = self.ok(self.admin, "GET", "/calendar")
        return {**{name: kept[name] for name in ("key", "zone", "weekdays", "terms", "days_off")}, **changes}

    def test_staff_read_it_and_only_an_administrator_changes_it(self) -> None:
        seen = self.ok(self.plot.lead, "GET", "/calendar")
        self.assertFalse(seen["may_change"])
        self.assertEqual(seen["days_off"], [{"name": "Half-term holiday", "first": "2026-10-19", "last": "2026-10-23"}])
        self.assertTrue(self.ok(self.admin, "GET", "/calendar")["may_change"])
        self.problem(403, self.plot.lead, "PUT", "/calendar", self.body())

    def test_a_change_moves_due_moments_and_statuses_and_says_how_many(self) -> None:
        builders.adjust(self.thandi, 2)
        self.plot.handin(self.card, due=date(2026, 11, 2))
        before = self.cell()
        self.assertEqual((before["due"], before["overdue"]), ("2026-11-04", False))
        snow = {"name": "Snow", "first": "2026-11-03", "last": "2026-11-03"}
        body = self.body(days_off=[snow])
        preview = self.ok(self.admin, "POST", "/calendar/preview", body)
        self.assertEqual(preview["lost"], ["2026-11-03"])
        self.assertEqual(preview["gained"], [f"2026-10-{day}" for day in range(19, 24)])
        self.assertEqual(preview["moved"], [{"group": "8 Plot", "dues": 1, "statuses": 0}])
        self.assertEqual(self.cell()["due"], "2026-11-04", "a preview changes nothing")
        done = self.ok(self.admin, "PUT", "/calendar", body)
        self.assertEqual(done, preview)
        self.assertEqual(self.cell()["due"], "2026-11-05")
        event = Event.objects.get(verb="calendar_changed")
        self.assertEqual((event.group_id, event.data["dues"]), (self.plot.group.pk, 1))

    def cell(self) -> dict[str, Any]:
        return self.pegs(self.plot.lead, self.plot.group.pk)["students"][0]["cells"][0]

    def test_a_late_day_less_is_a_status_that_moves(self) -> None:
        handin = self.plot.handin(self.card, due=date(2026, 10, 30))
        builders.fill(self.thandi, self.card)
        builders.hand_in(self.thandi, handin)
        self.assertEqual(self.cell()["late_days"], 3)
        snow = [{"name": "Snow", "first": "2026-11-02", "last": "2026-11-03"}]
        preview = self.ok(self.admin, "POST", "/calendar/preview", self.body(days_off=snow))
        self.assertEqual(preview["moved"], [{"group": "8 Plot", "dues": 0, "statuses": 1}])

    def test_two_who_change_it_at_once(self) -> None:
        old = self.body(weekdays=[0, 1, 2, 3])
        self.ok(self.admin, "PUT", "/calendar", self.body(weekdays=[0, 1, 2, 3, 4, 5]))
        self.problem(409, self.admin, "PUT", "/calendar", old)
        self.assertEqual(self.ok(self.admin, "GET", "/calendar")["weekdays"], [0, 1, 2, 3, 4, 5])

    def test_a_hand_in_due_on_a_new_day_off_is_told(self) -> None:
        self.plot.handin(self.card, due=date(2026, 11, 6))
        snow = [{"name": "Snow", "first": "2026-11-06", "last": "2026-11-06"}]
        preview = self.ok(self.admin, "POST", "/calendar/preview", self.body(days_off=snow))
        self.assertEqual(preview["due_on_days_off"], ["8 Plot: “Recipe card” is due on Fri 6 Nov, Snow."])

    def test_what_cannot_be_taken_names_its_line(self) -> None:
        terms = [{"name": "Autumn", "first": "2026-12-18", "last": "2026-09-01"}]
        problem = self.problem(422, self.admin, "PUT", "/calendar", self.body(terms=terms))
        self.assertEqual(problem["where"], "terms.0")

    def test_a_calendar_file_is_read_over_the_terms(self) -> None:
        text = (
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:test\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Half-term\r\n"
            "DTSTART;VALUE=DATE:20261019\r\nDTEND;VALUE=DATE:20261024\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:2\r\n"
            "SUMMARY:Next year\r\nDTSTART;VALUE=DATE:20271019\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
        )
        client = self.client_of(self.admin)
        answer = client.post("/api/calendar/files", {"file": SimpleUploadedFile("days.ics", text.encode())})
        self.assertEqual(
            answer.json(),
            {"days_off": [{"name": "Half-term", "first": "2026-10-19", "last": "2026-10-23"}], "left_out": []},
        )
        wrong = client.post("/api/calendar/files", {"file": SimpleUploadedFile("days.ics", b"Half-term in October")})
        self.assertEqual(wrong.status_code, 422)


class NameAndDays(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.thandi = self.plot.student("thandi", period="P3")
        self.late = self.plot.student("late", "Ida", "Cole", first=TODAY)
        self.path = f"/groups/{self.plot.group.pk}"

    def test_renamed_and_moved_with_whoever_was_in_it_from_the_start(self) -> None:
        self.plot.handin(self.plot.pocket(), due=TODAY + timedelta(days=2))
        group = self.plot.group
        earlier, over = group.first - timedelta(days=7), TODAY + timedelta(days=1)
        body = {"name": "  8 Plot  and kitchen ", "first": str(earlier), "last": str(over)}
        made = self.ok(self.plot.lead, "PUT", self.path, body)
        self.assertEqual((made["title"], made["outside"]), ("8 Plot and kitchen", ["Recipe card"]))
        firsts = dict(Enrolment.objects.values_list("person__username", "first"))
        self.assertEqual(firsts, {"thandi": earlier, "late": TODAY})
        self.assertEqual(PeriodMembership.objects.get().first, earlier)
        seen = self.ok(self.plot.lead, "GET", "/session")["groups"]
        self.assertEqual([one["name"] for one in seen], ["8 Plot and kitchen"])
        board = self.pegs(self.plot.lead, group.pk)["students"]
        self.assertEqual(
            {row["cells"][0]["status"] for row in board}, {"empty"}, "it is named, and nothing moves by itself"
        )
        back = {"name": "8 Plot", "first": str(group.first), "last": str(group.last)}
        self.assertEqual(self.ok(self.plot.lead, "PUT", self.path, back)["outside"], [])
        self.assertEqual(Enrolment.objects.get(pk=self.thandi.enrolment_id).first, group.first)
        events = Event.objects.filter(verb="class_changed").count()
        self.ok(self.plot.lead, "PUT", self.path, back)
        self.assertEqual(Event.objects.filter(verb="class_changed").count(), events, "the same again is nothing new")

    def test_bad_input_names_its_field(self) -> None:
        days = {"first": "2026-09-01", "last": "2026-12-18"}
        self.assertEqual(self.problem(422, self.plot.lead, "PUT", self.path, {"name": " ", **days})["where"], "name")
        other = {"name": "8", "first": "2026-12-18", "last": "2026-09-01"}
        self.assertEqual(self.problem(422, self.plot.lead, "PUT", self.path, other)["where"], "last")


class Lists(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.path = f"/groups/{self.plot.group.pk}/roster"

    def bring(self, text: str, **more: Any) -> dict[str, Any]:
        table = self.ok(self.plot.lead, "POST", f"{self.path}/read", {"text": text})
        return self.apply_list(self.plot.lead, self.path, {"rows": table["rows"], "columns": table["columns"], **more})

    def preview(self, text: str, **more: Any) -> dict[str, Any]:
        table = self.ok(self.plot.lead, "POST", f"{self.path}/read", {"text": text})
        return self.ok(
            self.plot.lead, "POST", f"{self.path}/preview", {"rows": table["rows"], "columns": table["columns"], **more}
        )

    def roster(self) -> list[dict[str, Any]]:
        return self.ok(self.plot.lead, "GET", self.path)["students"]

    TWO = (
        "Surname\tForename\tNumber\tPeriod\tGroup\nDube\tThandi\t20101\tP3\tTable 1\nEllery\tJosh\t20102\tP4\tTable 1\n"
    )

    def test_a_pasted_list_makes_students_with_portfolios_at_once(self) -> None:
        shown = self.preview(self.TWO)
        self.assertEqual([line["verdict"] for line in shown["lines"]], ["new", "new"])
        self.assertFalse(Enrolment.objects.exists(), "nothing is written before")
        done = self.bring(self.TWO)
        self.assertEqual((done["counts"], done["left"]), ({"new": 2}, 0))
        thandi, josh = self.roster()
        self.assertEqual(
            (thandi["username"], thandi["number"], thandi["period"], thandi["groups"]),
            ("thandi.dube", "20101", "P3", ["Table 1"]),
        )
        self.assertEqual(thandi["first"], self.plot.group.first.isoformat(), "the first list counts from the first day")
        self.assertNotEqual((thandi["picture"], thandi["tint"]), (josh["picture"], josh["tint"]))
        self.assertEqual(Portfolio.objects.count(), 2)
        student = Person.objects.get(number="20101")
        portfolio = Portfolio.objects.get(enrolment__person=student)
        self.assertTrue(self.ok(student, "GET", f"/portfolios/{portfolio.pk}")["mine"])
        self.problem(404, student, "GET", f"/portfolios/{Portfolio.objects.exclude(pk=portfolio.pk).get().pk}")

    def test_the_same_list_again_changes_nothing(self) -> None:
        self.bring(self.TWO)
        shown = self.preview(self.TWO)
        self.assertEqual([line["verdict"] for line in shown["lines"]], ["here", "here"])
        events = Event.objects.count()
        self.assertEqual(self.bring(self.TWO)["change"], None)
        self.assertEqual((Enrolment.objects.count(), Event.objects.count()), (2, events))

    def test_names_written_family_name_first_are_listed_said_and_sorted_so(self) -> None:
        text = "Name\nNguyễn Thị Minh Khai\nThandi Dube\n王 小明\n"
        shown = self.preview(text, family_first=True, turned=[2])
        names = ["Nguyễn Thị Minh Khai", "Dube, Thandi", "王 小明"]
        self.assertEqual([one["name"] for one in shown["lines"]], names)
        self.assertEqual([one["family_first"] for one in shown["lines"]], [True, False, True])
        done = self.bring(text, family_first=True, turned=[2])
        self.assertEqual(
            [(one["family_name"], one["family_first"], one["username"]) for one in self.roster()],
            [("Dube", False, "thandi.dube"), ("Nguyễn", True, "nguyen.thiminhkhai"), ("王", True, "wang.xiaoming")],
        )
        board = self.pegs(self.plot.lead, self.plot.group.pk)["students"]
        self.assertEqual([one["family_first"] for one in board], [False, True, True])
        xiao = Person.objects.get(family_name="王")
        self.assertEqual((xiao.listed, xiao.full_name), ("王 小明", "王 小明"))
        self.assertEqual(self.ok(xiao, "GET", "/session")["person"]["full_name"], "王 小明")
        # The same list again changes nothing; turned the other way it does, and that is undone.
        self.assertEqual(self.bring(text, family_first=True, turned=[2])["change"], None)
        turned = self.bring("Name\nThandi Dube\n", family_first=False, turned=[1])
        self.assertEqual(turned["counts"], {"changed": 1})
        thandi = Person.objects.get(username="thandi.dube")
        self.assertEqual((thandi.family_name, thandi.given_name, thandi.family_first), ("Thandi", "Dube", True))
        self.ok(self.plot.lead, "POST", f"{self.path}/changes/{turned['change']}/undo")
        thandi.refresh_from_db()
        self.assertEqual((thandi.family_name, thandi.given_name, thandi.family_first), ("Dube", "Thandi", False))
        self.ok(self.plot.lead, "POST", f"{self.path}/changes/{done['change']}/undo")
        self.assertEqual(self.roster(), [])

    def test_somebody_known_is_found_by_a_part_of_the_name_by_whoever_may_bring_them_in(self) -> None:
        forge = klass("9 Forge", "forge")
        forge.student("zoe", "Zoë", "Young")
        forge.student("moses", "Moses", "Young")
        forge.student("gone", "Zoe", "Younger", last=TODAY - timedelta(days=3))
        path = f"{self.path}/find?text="
        self.assertEqual(
            self.ok(self.plot.lead, "GET", path + "young"), [], "whom one does not have nothing is said of"
        )
        StaffRole.objects.create(group=forge.group, person=self.plot.lead, role="lead")
        found = self.ok(self.plot.lead, "GET", path + "zoe%20you")
        self.assertEqual([(one["name"], one["classes"]) for one in found], [("Young, Zoë", ["9 Forge"])])
        self.assertEqual(self.ok(self.plot.lead, "GET", path + "y"), [], "one letter is too few")
        row = [found[0][name] for name in ("family", "given", "number", "email")]
        body = {"rows": [row], "columns": ["family", "given", "number", "email"]}
        self.apply_list(self.plot.lead, self.path, body)
        self.assertEqual([one["username"] for one in self.roster()], ["zoe"])
        self.assertEqual(self.ok(self.plot.lead, "GET", path + "zoe"), [], "who is here is not offered")
        admin = builders.person("bright", administrator=True)
        self.problem(404, admin, "GET", path + "zoe")

    def test_a_bad_line_never_blocks_the_others(self) -> None:
        text = "Name\tE-mail\tPeriod\nThandi Dube\tthandi@larkfield.example\nChidi Okonkwo\tchidi@larkfeild\n\t\tP4\n"
        done = self.bring(text)
        self.assertEqual(done["counts"], {"new": 1, "unreadable": 1, "incomplete": 1})
        self.assertEqual([one["family_name"] for one in self.roster()], ["Dube"])

    def test_the_bad_lines_come_back_as_a_file_with_the_reason(self) -> None:
        rows = [["Thandi Dube", "t@larkfield.example"], ["=HYPERLINK(1)", "chidi@larkfeild"]]
        body = {"heading": ["Name", "E-mail"], "rows": rows, "columns": ["name", "email"]}
        answer = self.call(self.plot.lead, "POST", f"{self.path}/rejected", body)
        self.assertIn("attachment", answer["Content-Disposition"])
        lines = list(csv.reader(io.StringIO(answer.content.decode("utf-8-sig"))))
        self.assertEqual(lines[0], ["Name", "E-mail", "reason"])
        self.assertEqual(lines[1][:2], ["'=HYPERLINK(1)", "chidi@larkfeild"])
        self.assertIn("not a complete e-mail address", lines[1][2])

    def test_someone_missing_can_be_marked_as_left_and_comes_back(self) -> None:
        self.bring(self.TWO)
        one = "Surname\tForename\tNumber\nDube\tThandi\t20101\n"
        missing = self.preview(one)["missing"]
        self.assertEqual([who["name"] for who in missing], ["Ellery, Josh"])
        done = self.bring(one, leave=[missing[0]["id"]])
        self.assertEqual(done["left"], 1)
        josh = Enrolment.objects.get(person__number="20102")
        self.assertEqual((josh.last, Portfolio.objects.count()), (TODAY, 2))
        with self.at(NOW.replace(day=18)):
            self.assertEqual([line["verdict"] for line in self.preview(self.TWO)["lines"]], ["here", "back"])
            self.bring(self.TWO)
            josh.refresh_from_db()
            away = Absence.objects.get(enrolment=josh)
            self.assertEqual((josh.last, away.first, away.last), (None, date(2026, 11, 5), date(2026, 11, 17)))
            self.assertFalse(self.roster()[1]["left"])

    def test_who_was_away_is_not_asked_for_what_was_due_then(self) -> None:
        self.bring(self.TWO)
        card = self.plot.pocket()
        josh = Enrolment.objects.get(person__number="20102")
        self.ok(self.plot.lead, "POST", f"{self.path}/leave", {"students": [josh.pk]})
        with self.at(NOW.replace(day=18)):
            self.bring(self.TWO)
            self.plot.handin(card, due=date(2026, 11, 10), title="Between")
            self.plot.handin(card, due=date(2026, 11, 20), title="After")
            row = self.pegs(self.plot.lead, self.plot.group.pk)["students"][1]
            self.assertEqual([cell["status"] for cell in row["cells"]], ["not_asked", "empty"])

    def test_a_move_to_another_period_counts_from_today(self) -> None:
        self.bring(self.TWO)
        self.bring("Number\tSurname\tForename\tPeriod\n20101\tDube\tThandi\tP4\n")
        spans = PeriodMembership.objects.filter(enrolment__person__number="20101").order_by("first")
        self.assertEqual([(one.period.name, one.last) for one in spans], [("P3", date(2026, 11, 3)), ("P4", None)])

    def test_a_period_given_by_mistake_today_is_set_right_at_once(self) -> None:
        self.bring(self.TWO)
        self.bring("Number\tSurname\tForename\tPeriod\n7\tBo\tAda\tP3\n")
        done = self.bring("Number\tSurname\tForename\tPeriod\n7\tBo\tAda\tP4\n")
        self.assertEqual([one["period"] for one in self.roster() if one["number"] == "7"], ["P4"])
        self.assertEqual(PeriodMembership.objects.filter(enrolment__person__number="7").count(), 1)
        self.ok(self.plot.lead, "POST", f"{self.path}/changes/{done['change']}/undo")
        self.assertEqual([one["period"] for one in self.roster() if one["number"] == "7"], ["P3"])

    def test_who_has_left_already_keeps_their_last_day(self) -> None:
        self.bring(self.TWO)
        josh = Enrolment.objects.get(person__number="20102")
        josh.last = date(2026, 10, 16)
        josh.save()
        done = self.ok(self.plot.lead, "POST", f"{self.path}/leave", {"students": [josh.pk]})
        josh.refresh_from_db()
        self.assertEqual((done, josh.last), ({"change": None, "counts": {}, "left": 0}, date(2026, 10, 16)))

    def test_a_student_of_another_class_joins_with_a_portfolio_of_this_one(self) -> None:
        other = klass("9 Forge", "marsh")
        StaffRole.objects.filter(group=other.group).update(person=self.plot.lead)
        lee = other.student("lee", "Lee", "Moss").enrolment.person
        shown = self.preview("Lee Moss\n")["lines"][0]
        self.assertEqual((shown["verdict"], shown["why"]), ("joins", "Known from 9 Forge."))
        self.bring("Lee Moss\n")
        self.assertEqual(Portfolio.objects.filter(enrolment__person=lee).count(), 2)
        as_new = self.preview("Lee Moss\n", as_new=[1])["lines"][0]
        self.assertEqual(as_new["verdict"], "new")

    def test_a_joiner_of_today_is_enrolled_from_today_or_the_day_given(self) -> None:
        self.bring(self.TWO)
        self.bring("Chidi Okonkwo\n")
        self.bring("Ada Bo\n", first="2026-10-12")
        first = dict(Enrolment.objects.values_list("person__family_name", "first"))
        self.assertEqual((first["Okonkwo"], first["Bo"]), (TODAY, date(2026, 10, 12)))

    def test_undo_takes_everything_back(self) -> None:
        self.bring(self.TWO)
        before = self.roster()
        done = self.bring(
            "Number\tSurname\tForename\tPeriod\tGroup\n20101\tDube-Nkosi\tThandi\tP9\tTable 2\n\tOkonkwo\tChidi\tP3\t\n"
        )
        self.assertEqual(done["counts"], {"changed": 1, "new": 1})
        self.assertNotEqual(self.roster(), before)
        self.ok(self.plot.lead, "POST", f"{self.path}/changes/{done['change']}/undo")
        self.assertEqual(self.roster(), before)
        self.assertFalse(Person.objects.filter(family_name="Okonkwo").exists())
        self.assertEqual(RosterChange.objects.get(pk=done["change"]).data, {}, "what it held is forgotten")
        self.problem(404, self.plot.lead, "POST", f"{self.path}/changes/{done['change']}/undo")

    def test_a_period_is_the_one_that_people_mean(self) -> None:
        self.bring(self.TWO)
        again = "Surname\tForename\tNumber\tPeriod\nDube\tThandi\t20101\tPeriod 3\nEllery\tJosh\t20102\t4\n"
        self.assertEqual({one["verdict"] for one in self.preview(again)["lines"]}, {"here"})
        self.bring(again + "Blom\tAda\t20103\tPer. 5\nCole\tIda\t20104\tp5\n")
        self.assertEqual([one["period"] for one in self.roster()], ["Per. 5", "Per. 5", "P3", "P4"])
        # By hand too.
        student = next(one["id"] for one in self.roster() if one["number"] == "20103")
        self.ok(
            self.plot.lead, "POST", f"{self.path}/place", {"students": [student], "where": "period", "name": "period 3"}
        )
        self.assertEqual(sorted({one["period"] for one in self.roster()}), ["P3", "P4", "Per. 5"])

    def test_changes_are_undone_in_the_reverse_order_and_every_one_can_be(self) -> None:
        first = self.bring(self.TWO)
        second = self.bring("Number\tSurname\tForename\tPeriod\n20101\tDube\tThandi\tP9\n")
        undo = f"{self.path}/changes/{{}}/undo"
        found = self.problem(403, self.plot.lead, "POST", undo.format(first["change"]))
        self.assertIn("Undo the later change first", found["fix"])
        shown = self.ok(self.plot.lead, "GET", f"{self.path}/changes")
        self.assertEqual([(one["added"], one["placed"], one["newest"]) for one in shown], [(0, 1, True), (2, 4, False)])
        self.ok(self.plot.lead, "POST", undo.format(second["change"]))
        thandi = self.roster()[0]
        self.assertEqual((thandi["period"], PeriodMembership.objects.filter(last=None).count()), ("P3", 2))
        self.ok(self.plot.lead, "POST", undo.format(first["change"]))
        self.assertEqual((self.roster(), self.ok(self.plot.lead, "GET", f"{self.path}/changes")), ([], []))

    def test_undo_is_refused_once_somebody_works(self) -> None:
        done = self.bring(self.TWO)
        portfolio = Portfolio.objects.get(enrolment__person__number="20101")
        builders.fill(portfolio, self.plot.pocket())
        problem = self.problem(403, self.plot.lead, "POST", f"{self.path}/changes/{done['change']}/undo")
        self.assertIn("Work has begun", problem["title"])
        self.assertEqual(Portfolio.objects.count(), 2)

    def test_a_workbook_and_a_csv_file(self) -> None:
        book = Workbook()
        for row in (("Surname", "Forename"), ("Dube", "Thandi"), ("Ellery", "Josh")):
            book.active.append(row)
        target = io.BytesIO()
        book.save(target)
        client = self.client_of(self.plot.lead)
        for name, data in (
            ("list.xlsx", target.getvalue()),
            ("list.csv", b"Surname;Forename\r\nDube;Thandi\r\nEllery;Josh\r\n"),
        ):
            answer = client.post(f"/api{self.path}/files", {"file": SimpleUploadedFile(name, data)}).json()
            self.assertEqual((answer["columns"], len(answer["rows"])), (["family", "given"], 2))
        wrong = client.post(f"/api{self.path}/files", {"file": SimpleUploadedFile("list.xlsx", b"PK\x03\x04broken")})
        self.assertEqual(wrong.status_code, 422)

    def test_input_that_makes_no_sense_is_refused_with_words(self) -> None:
        for body in (
            {"rows": [["A"]], "columns": ["ignore"]},
            {"rows": [["A", "B"], ["C"]], "columns": ["family", "given"]},
            {"rows": [["A"]], "columns": ["name", "name"]},
            {"rows": [["A"]], "columns": ["name"], "leave": [999]},
        ):
            self.problem(422, self.plot.lead, "POST", self.path, body)
        self.problem(422, self.plot.lead, "POST", f"{self.path}/read", {"text": " "})
        self.problem(404, self.plot.lead, "POST", f"{self.path}/leave", {"students": [999]})

    def test_two_students_swap_pegs(self) -> None:
        self.bring(self.TWO)
        thandi, josh = self.roster()
        self.ok(self.plot.lead, "POST", f"{self.path}/pegs", {"one": thandi["id"], "other": josh["id"]})
        after = self.roster()
        self.assertEqual((after[0]["picture"], after[1]["tint"]), (josh["picture"], thandi["tint"]))
        self.problem(404, self.plot.lead, "POST", f"{self.path}/pegs", {"one": thandi["id"], "other": 999})

    def test_a_year_group_of_two_thousand_in_a_fixed_number_of_statements(self) -> None:
        lines = "\n".join(f"Student{number}\tAda\t{30000 + number}" for number in range(2000))
        text = f"Surname\tForename\tNumber\n{lines}\n"
        table = self.ok(self.plot.lead, "POST", f"{self.path}/read", {"text": text})
        body = {"rows": table["rows"], "columns": table["columns"]}
        client = self.client_of(self.plot.lead)
        with self.assertNumQueries(14):
            client.post(f"/api{self.path}/preview", body, content_type="application/json")
        self.apply_list(self.plot.lead, self.path, body)
        self.assertEqual(Portfolio.objects.count(), 2000)
        self.assertEqual(Enrolment.objects.filter(lap=2).count(), 2000 - 2 * 112 * 8)

    def test_a_caseload_makes_no_portfolios(self) -> None:
        self.plot.student("thandi", period="P3")
        caseload = klass("Caseload", "lindqvist", "caseload")
        path = f"/groups/{caseload.group.pk}/roster"
        self.apply_list(caseload.lead, path, {"rows": [["Thandi Dube"]], "columns": ["name"]})
        self.ok(self.plot.lead, "POST", f"/join-requests/{JoinRequest.objects.get().pk}", {"confirm": True})
        self.assertEqual((caseload.group.enrolments.count(), Portfolio.objects.count()), (1, 1))


class Staff(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.path = f"/groups/{self.plot.group.pk}/staff"
        self.marsh = builders.person("marsh", "J.", "Marsh", staff=True)
        self.student = self.plot.student("thandi").enrolment.person

    def test_found_by_a_part_of_the_name_and_added(self) -> None:
        found = self.ok(self.plot.lead, "GET", f"{self.path}/find?text=mar")
        self.assertEqual([one["name"] for one in found], ["Marsh, J."])
        self.assertEqual(self.ok(self.plot.lead, "GET", f"{self.path}/find?text=thandi"), [], "students are no staff")
        self.ok(self.plot.lead, "PUT", f"{self.path}/{self.marsh.pk}", {"role": "marker"})
        self.assertEqual(
            [one["name"] for one in self.ok(self.marsh, "GET", self.path)["staff"]], ["Marsh, J.", "Okafor, R."]
        )
        self.problem(403, self.marsh, "PUT", f"{self.path}/{self.marsh.pk}", {"role": "lead"})

    def test_a_student_cannot_be_given_a_role(self) -> None:
        self.problem(404, self.plot.lead, "PUT", f"{self.path}/{self.student.pk}", {"role": "observer"})

    def test_the_last_lead_stays(self) -> None:
        for role in ("co_teacher", None):
            problem = self.problem(403, self.plot.lead, "PUT", f"{self.path}/{self.plot.lead.pk}", {"role": role})
            self.assertIn("only lead", problem["title"])
        self.ok(self.plot.lead, "PUT", f"{self.path}/{self.marsh.pk}", {"role": "lead"})
        self.ok(self.plot.lead, "PUT", f"{self.path}/{self.plot.lead.pk}", {"role": None})
        self.assertEqual(StaffRole.objects.get().person_id, self.marsh.pk)
        self.problem(404, self.plot.lead, "GET", self.path)

    def test_lent_to_a_cover_teacher_for_some_days(self) -> None:
        self.plot.pocket("About me", "page")
        portfolio = Portfolio.objects.get()
        group, cover = self.plot.group, f"{self.path}/{self.marsh.pk}"

        def lend(first: int | None, last: int | None) -> None:
            days = [None if one is None else str(TODAY + timedelta(days=one)) for one in (first, last)]
            self.ok(self.plot.lead, "PUT", cover, {"role": "co_teacher", "first": days[0], "last": days[1]})

        def sees() -> bool:
            board = self.client_of(self.marsh).get(f"/api/groups/{group.pk}/pegs").status_code
            work = self.client_of(self.marsh).get(f"/api/portfolios/{portfolio.pk}").status_code
            self.assertIn((board, work), ((200, 200), (404, 404)))
            named = group.pk in [one["id"] for one in self.ok(self.marsh, "GET", "/session")["groups"]]
            told = self.marsh.pk in directory.staff_of(group.pk, Role.LEAD, Role.CO_TEACHER)
            self.assertEqual({named, told}, {board == 200})
            return board == 200

        for first, last, seen in ((0, 0, True), (1, None, False), (None, 5, True), (-9, 2, True), (1, 9, False)):
            lend(first, last)
            self.assertEqual(sees(), seen, (first, last))
        line = next(one for one in self.ok(self.plot.lead, "GET", self.path)["staff"] if not one["me"])
        self.assertEqual((line["first"], line["last"]), tuple(str(TODAY + timedelta(days=one)) for one in (1, 9)))
        lend(None, 3)
        StaffRole.objects.filter(person=self.marsh).update(last=TODAY - timedelta(days=1))
        self.assertFalse(sees(), "over by itself")
        self.assertEqual(leads_of(self.student.pk), [self.plot.lead.pk])

    def test_days_that_cannot_be(self) -> None:
        cover, today = f"{self.path}/{self.marsh.pk}", str(TODAY)
        yesterday, tomorrow = str(TODAY - timedelta(days=1)), str(TODAY + timedelta(days=1))
        body = {"role": "co_teacher", "first": tomorrow, "last": today}
        self.assertIn("before the first", self.problem(422, self.plot.lead, "PUT", cover, body)["title"])
        body = {"role": "co_teacher", "last": yesterday}
        self.assertIn("over already", self.problem(422, self.plot.lead, "PUT", cover, body)["title"])
        # The lead that stays is one for good; nobody says their own days.
        own = f"{self.path}/{self.plot.lead.pk}"
        self.problem(403, self.plot.lead, "PUT", own, {"role": "lead", "last": tomorrow})
        self.ok(self.plot.lead, "PUT", cover, {"role": "lead", "last": tomorrow})
        self.assertIn("only lead", self.problem(403, self.plot.lead, "PUT", own, {"role": "observer"})["title"])
        self.problem(403, self.marsh, "PUT", own, {"role": "lead", "last": tomorrow})
        self.problem(403, self.marsh, "PUT", cover, {"role": "lead"})

    def test_handed_over_in_one_step(self) -> None:
        path = f"/groups/{self.plot.group.pk}/hand-over"
        self.ok(self.plot.lead, "PUT", f"{self.path}/{self.marsh.pk}", {"role": "observer", "last": str(TODAY)})
        self.problem(403, self.marsh, "POST", path, {"person": self.marsh.pk, "stays": None})
        self.problem(422, self.plot.lead, "POST", path, {"person": self.plot.lead.pk, "stays": "marker"})
        self.problem(404, self.plot.lead, "POST", path, {"person": self.student.pk, "stays": "marker"})
        self.assertEqual(StaffRole.objects.get(person=self.plot.lead).role, "lead", "not by half")
        self.ok(self.plot.lead, "POST", path, {"person": self.marsh.pk, "stays": "marker"})
        roles = {one.person_id: (one.role, one.last) for one in StaffRole.objects.all()}
        self.assertEqual(roles, {self.marsh.pk: ("lead", None), self.plot.lead.pk: ("marker", None)})
        self.problem(403, self.plot.lead, "POST", path, {"person": self.plot.lead.pk, "stays": None})
        self.ok(self.marsh, "POST", path, {"person": self.plot.lead.pk, "stays": None})
        self.assertEqual(StaffRole.objects.get().person_id, self.plot.lead.pk)

    def test_what_each_role_may_do_is_said_as_the_policy_has_it(self) -> None:
        writes = {Action.SET_HANDIN, Action.MARK, Action.KEEP_ROSTER, Action.KEEP_STAFF, Action.EXCUSE}
        may = {
            role: {action for action, of, relation in TABLE if of is role and relation is Relation.CLASS}
            for role in staffing.STAFF_ROLES
        }
        only_lead = {Action.BRING_IN_KNOWN, Action.GIVE_PASSWORD, Action.KEEP_CLASS, Action.DECIDE_ALONE}
        self.assertEqual(may[Role.LEAD] - only_lead, may[Role.CO_TEACHER])
        self.assertFalse(may[Role.OBSERVER] & writes)
        self.assertEqual(may[Role.MARKER] & writes, {Action.MARK})
        self.assertIn("changes nothing", staffing.MAY[Role.OBSERVER])

    def test_accounts_are_made_closed_and_given_new_passwords(self) -> None:
        admin = builders.person("bright", administrator=True)
        made = self.ok(
            admin, "POST", "/accounts", {"family": "Whitcombe", "given": "A.", "email": "a.whitcombe@larkfield.example"}
        )
        self.assertEqual(made["username"], "a.whitcombe")
        sign_in = {"username": made["username"], "password": made["password"]}
        self.assertTrue(self.try_sign_in(sign_in))
        again = self.ok(admin, "POST", f"/accounts/{made['person']}/password")
        self.assertFalse(self.try_sign_in(sign_in))
        sign_in["password"] = again["password"]
        self.assertTrue(self.try_sign_in(sign_in))
        self.ok(admin, "PUT", f"/accounts/{made['person']}/active", {"active": False})
        self.assertFalse(self.try_sign_in(sign_in))
        self.problem(403, admin, "PUT", f"/accounts/{admin.pk}/active", {"active": False})
        for body in (
            {"family": " "},
            {"family": "X", "email": "nope"},
            {"family": "X", "email": "A.Whitcombe@larkfield.example"},
        ):
            self.problem(422, admin, "POST", "/accounts", body)
        shown = {one["name"]: one["classes"] for one in self.ok(admin, "GET", "/accounts")}
        self.assertEqual(shown["Okafor, R."], ["8 Plot"])
        self.assertNotIn("Dube, Thandi", shown)

    def try_sign_in(self, body: dict[str, str]) -> bool:
        return self.call(None, "POST", "/session", body).status_code == 200

    def test_starting_a_class(self) -> None:
        body = {"name": " 9 Forge ", "first": "2026-11-02", "last": "2026-12-18"}
        made = self.ok(self.marsh, "POST", "/groups", body)
        group = TeachingGroup.objects.get(pk=made["id"])
        self.assertEqual((group.name, group.template.sections.count()), ("9 Forge", 1))
        self.assertEqual(self.pegs(self.marsh, group.pk)["students"], [])
        self.problem(403, self.student, "POST", "/groups", body)
        self.problem(403, self.marsh, "POST", "/groups", {**body, "kind": "caseload"})
        for wrong in ({"name": "  "}, {"last": "2026-01-01"}, {"last": "2046-01-01"}, {"name": "x" * 150}):
            self.problem(422, self.marsh, "POST", "/groups", {**body, **wrong})
        admin = builders.person("bright", administrator=True)
        caseload = self.ok(admin, "POST", "/groups", {**body, "kind": "caseload", "lead": self.marsh.pk})
        self.assertEqual(StaffRole.objects.get(group_id=caseload["id"]).person_id, self.marsh.pk)
        self.problem(404, admin, "POST", "/groups", {**body, "lead": self.student.pk})
