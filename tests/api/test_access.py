"""Nobody gets at a student by a list, a card, a caseload or a class; and what gave access takes it away again."""

from datetime import timedelta

from django.db.models import QuerySet
from django.test import Client

from coatpeg.core.people.roster_table import Column
from coatpeg.core.policy import Role
from coatpeg.marking.models import DraftMark
from coatpeg.notices.fanning import fan_out
from coatpeg.people import cards
from coatpeg.people.models import (
    Enrolment,
    JoinRequest,
    People,
    Person,
    RosterDrop,
    SignInCard,
    StaffRole,
    TeachingGroup,
)
from coatpeg.setup.roster import enrolling
from coatpeg.setup.roster.class_lists import ClassList
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, Class, klass

MONDAY_AFTER_TEN = NOW + timedelta(days=15)
"""Ten school days after the day of the tests is Wednesday the 18th; by this day a request has lapsed."""


class WhoeverIsSignedIn(ApiCase):
    def test_is_found_among_all_people_and_nobody_beside_those_of_a_relation(self) -> None:
        class Some(People):
            """As a relation's manager looks among fewer."""

            def get_queryset(self) -> QuerySet[Person]:
                return super().get_queryset().exclude(username="kerr")

        kerr = builders.person("kerr", "Al", "Kerr", staff=True)
        self.assertEqual(Person.objects.get(pk=kerr.pk).reading, kerr.reading)
        some = Some()
        some.model = Person
        with self.assertRaises(Person.DoesNotExist):
            some.get(pk=kerr.pk)
        with self.assertRaises(Person.DoesNotExist):
            Person.objects.get(pk=kerr.pk + 1_000)


class OfStudents(ApiCase):
    """A class whose lead has Thandi, and a stranger of the staff with a class of their own."""

    def setUp(self) -> None:
        super().setUp()
        self.eight = klass()
        self.card = self.eight.pocket(artefacts=1)
        self.thandi = self.eight.student("thandi")
        self.person = self.thandi.enrolment.person
        Person.objects.filter(pk=self.person.pk).update(email="thandi@larkfield.example", number="8123")
        self.stranger = builders.person("stranger", "Al", "Kerr", staff=True)
        self.admin = builders.person("admin", administrator=True)

    def start(self, by: Person) -> int:
        body = {"name": "9 Forge", "first": "2026-09-01", "last": "2026-12-18"}
        return self.ok(by, "POST", "/groups", body)["id"]

    def bring(self, by: Person, group: int, *rows: list[str], columns: tuple[str, ...] = ("name",), **more: object):
        """Preview a list and apply what was seen; returns the lines of the preview."""
        of = {"rows": list(rows), "columns": list(columns), **more}
        seen = self.ok(by, "POST", f"/groups/{group}/roster/preview", of)
        self.ok(by, "POST", f"/groups/{group}/roster", {**of, "seen": seen["seen"]})
        return seen["lines"]

    def enrolled(self, group: int) -> list[str]:
        return list(Enrolment.objects.filter(group=group).values_list("person__username", flat=True))


class Lists(OfStudents):
    def test_a_student_known_from_elsewhere_is_asked_for_and_nothing_of_them_is_shown(self) -> None:
        group = self.start(self.stranger)
        for columns, row in (
            (("name",), ["Dube, Thandi"]),
            (("name", "email"), ["Someone Else", "thandi@larkfield.example"]),
            (("name", "number"), ["Someone Else", "8123"]),
        ):
            with self.subTest(columns):
                (line,) = self.bring(self.stranger, group, row, columns=columns)
                self.assertEqual((line["verdict"], line["changes"]), ("asked", []))
                self.assertNotIn("8 Plot", line["why"] + line["fix"])
                roster = self.call(self.stranger, "GET", f"/groups/{group}/roster").content.decode()
                asked = self.call(self.stranger, "GET", f"/groups/{group}/roster/requests").content.decode()
                for known in ("thandi", "8123", "8 Plot"):
                    self.assertNotIn(known, roster + asked)
                self.assertEqual(self.enrolled(group), [])
        self.assertEqual(JoinRequest.objects.count(), 1, "the same student is asked for once")

    def test_the_lead_who_has_them_or_an_administrator_lets_them_in_and_nobody_else(self) -> None:
        for by, status in (
            (self.eight.lead, 204),
            (self.admin, 204),
            (self.stranger, 404),
            (self.eight.staff("co", Role.CO_TEACHER), 404),
            (klass("Load", "coordinator", "caseload").lead, 404),
            (self.person, 404),
        ):
            with self.subTest(by.username):
                asker = builders.person(f"for-{by.username}", staff=True)
                group = self.start(asker)
                self.bring(asker, group, ["Dube, Thandi"])
                request = JoinRequest.objects.get(group=group)
                shown = self.ok(by, "GET", "/join-requests")
                self.assertEqual(
                    [one["name"] for one in shown if one["id"] == request.pk], ["Dube, Thandi"][: status == 204]
                )
                answer = self.call(by, "POST", f"/join-requests/{request.pk}", {"confirm": True})
                self.assertEqual(answer.status_code, status)
                self.assertEqual(self.enrolled(group), ["thandi"][: status == 204])

    def test_a_request_is_declined_withdrawn_settled_once_and_lapses_after_ten_school_days(self) -> None:
        group = self.start(self.stranger)
        self.bring(self.stranger, group, ["Dube, Thandi"])
        first = JoinRequest.objects.get()
        self.assertEqual(first.lapses, (TODAY + timedelta(days=14)))
        self.ok(self.eight.lead, "POST", f"/join-requests/{first.pk}", {"confirm": False})
        self.problem(404, self.eight.lead, "POST", f"/join-requests/{first.pk}", {"confirm": True})
        self.bring(self.stranger, group, ["Dube, Thandi"])
        second = JoinRequest.objects.last()
        self.ok(self.stranger, "DELETE", f"/groups/{group}/roster/requests/{second.pk}")
        self.problem(404, self.stranger, "DELETE", f"/groups/{group}/roster/requests/{second.pk}")
        self.problem(404, self.eight.lead, "POST", f"/join-requests/{second.pk}", {"confirm": True})
        self.bring(self.stranger, group, ["Dube, Thandi"])
        third = JoinRequest.objects.last()
        with self.at(MONDAY_AFTER_TEN):
            self.assertEqual(self.ok(self.eight.lead, "GET", "/join-requests"), [])
            self.problem(404, self.eight.lead, "POST", f"/join-requests/{third.pk}", {"confirm": True})
        self.assertEqual(self.enrolled(group), [])

    def test_a_lead_brings_their_own_students_into_another_class_of_theirs(self) -> None:
        group = self.start(self.eight.lead)
        (line,) = self.bring(self.eight.lead, group, ["Dube, Thandi"])
        self.assertEqual((line["verdict"], line["why"]), ("joins", "Known from 8 Plot."))
        self.assertEqual(self.enrolled(group), ["thandi"])

    def test_to_lead_a_class_that_is_over_or_a_caseload_gives_no_right(self) -> None:
        group = self.start(self.eight.lead)
        TeachingGroup.objects.filter(pk=self.eight.group.pk).update(last=TODAY - timedelta(days=1))
        self.assertEqual(self.bring(self.eight.lead, group, ["Dube, Thandi"])[0]["verdict"], "asked")

    def test_name_address_and_number_are_changed_by_who_alone_has_the_student(self) -> None:
        columns = ("name", "number", "email")
        row = ["Dube, Thandeka", "8123", "new@larkfield.example"]
        group = self.start(self.stranger)
        self.bring(self.stranger, group, ["Dube, Thandi"])
        self.ok(self.admin, "POST", f"/join-requests/{JoinRequest.objects.get().pk}", {"confirm": True})
        for by, where in ((self.stranger, group), (self.eight.lead, self.eight.group.pk)):
            (line,) = self.bring(by, where, row, columns=columns)
            self.assertEqual((line["verdict"], line["changes"]), ("here", []))
            self.assertIn("another given name and e-mail address", line["why"])
        self.person.refresh_from_db()
        self.assertEqual((self.person.given_name, self.person.email), ("Thandi", "thandi@larkfield.example"))
        Enrolment.objects.filter(group=group).delete()
        self.bring(self.eight.lead, self.eight.group.pk, row, columns=columns)
        self.person.refresh_from_db()
        self.assertEqual((self.person.given_name, self.person.email), ("Thandeka", "new@larkfield.example"))

    def test_the_schools_own_list_brings_in_and_changes_and_only_as_it_came(self) -> None:
        group = self.start(self.stranger)
        table = {
            "heading": [],
            "rows": [["Dube, Thandi", "8123", "b@larkfield.example"]],
            "columns": ["name", "number", "email"],
        }
        drop = RosterDrop.objects.create(group_id=group, name="9 Forge.csv", at=NOW, table=table)
        other = self.eight.student("sam", "Sam", "Reyes").enrolment.person
        lines = self.bring(
            self.stranger,
            group,
            table["rows"][0],
            ["Reyes, Sam", "", ""],
            columns=("name", "number", "email"),
            drop=drop.pk,
        )
        self.assertEqual([line["verdict"] for line in lines], ["joins", "asked"])
        self.assertEqual(self.enrolled(group), ["thandi"])
        self.assertFalse(Enrolment.objects.filter(group=group, person=other).exists())
        self.person.refresh_from_db()
        self.assertEqual(self.person.email, "b@larkfield.example")
        again = {"rows": table["rows"], "columns": ["name", "number", "email"], "drop": drop.pk}
        self.assertEqual(RosterDrop.objects.get(pk=drop.pk).state, "applied")
        third = builders.person("third", staff=True)
        line = self.ok(third, "POST", f"/groups/{self.start(third)}/roster/preview", again)["lines"][0]
        self.assertEqual(line["verdict"], "asked", "a list that was applied, or of another class, is nobody's word")

    def test_what_belongs_to_another_student_is_given_to_nobody(self) -> None:
        group = self.start(self.stranger)
        (line,) = self.bring(self.stranger, group, ["Ama Boateng", "8123"], columns=("name", "number"), as_new=[1])
        self.assertEqual((line["verdict"], self.enrolled(group)), ("unreadable", []))
        self.assertEqual(line["why"], "This number belongs to another student.")

    def test_nothing_is_applied_that_was_not_seen(self) -> None:
        group = self.eight.group.pk
        of = {"rows": [["Okonkwo, Chidi"]], "columns": ["name"]}
        seen = self.ok(self.eight.lead, "POST", f"/groups/{group}/roster/preview", of)["seen"]
        self.eight.student("chidi", "Chidi", "Okonkwo")
        found = self.problem(409, self.eight.lead, "POST", f"/groups/{group}/roster", {**of, "seen": seen})
        self.assertIn("Look at what it does now", found["fix"])
        self.problem(409, self.eight.lead, "POST", f"/groups/{group}/roster", {**of, "seen": ""})


class Cards(OfStudents):
    def setUp(self) -> None:
        super().setUp()
        self.nine = klass("9 Forge", "smith")
        self.in_nine = self.nine.student(existing=self.person)
        self.handin = self.nine.handin(self.nine.pocket("Hook"))

    def secret(self, of: Class = None, enrolment: int = 0) -> str:  # type: ignore[assignment]  # the usual class
        of = of or self.eight
        found: dict[int, str] = {}
        chosen = enrolment or self.thandi.enrolment_id

        def lay_out(secrets: dict[int, str], passwords: dict[int, str]) -> bytes:
            found.update(secrets)
            return b""

        cards.make(of.lead, of.group.pk, [chosen], NOW, lay_out)
        return found[chosen]

    def by_card(self, secret: str) -> Client:
        client = Client()
        answer = client.post("/api/session/card", {"secret": secret}, content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content)
        return client

    def test_it_opens_the_class_that_printed_it_and_nothing_else(self) -> None:
        builders.fill(self.thandi, self.card)
        client = self.by_card(self.secret())
        session = client.get("/api/session").json()
        self.assertEqual([one["name"] for one in session["groups"]], ["8 Plot"])
        self.assertTrue(session["person"]["card"])
        self.assertEqual(client.get(f"/api/portfolios/{self.thandi.pk}").status_code, 200)
        for path in (
            f"portfolios/{self.in_nine.pk}",
            f"groups/{self.nine.group.pk}/changes",
            f"portfolios/{self.in_nine.pk}/worklist",
        ):
            self.assertEqual(client.get(f"/api/{path}").status_code, 404, path)
        body = "application/json"
        for method, path, data in (
            ("get", "feed", None),
            ("post", "feed", {}),
            ("put", "reading", {}),
            ("put", "notices/mail", {"how": "daily"}),
            ("put", "session/password", {"current": builders.PASSWORD, "new": "something new"}),
            ("post", "session/everywhere", {}),
        ):
            answer = getattr(client, method)(f"/api/{path}", data, content_type=body)
            self.assertIn(answer.status_code, (403, 422), path)

    def test_the_bell_rings_for_that_class_only(self) -> None:
        fan_out.func()
        with_name = self.ok(self.person, "GET", "/notices")["lines"]
        self.assertEqual([one["what"] for one in with_name], ["handin_set"])
        self.assertEqual(self.by_card(self.secret()).get("/api/notices").json()["lines"], [])

    def test_a_void_cards_session_is_over(self) -> None:
        secret = self.secret()
        client = self.by_card(secret)
        named = self.client_of(self.person)
        self.ok(
            self.eight.lead,
            "POST",
            f"/groups/{self.eight.group.pk}/cards/void",
            {"students": [self.thandi.enrolment_id]},
        )
        answer = client.put(f"/api/portfolios/{self.thandi.pk}/cover", {"title": "x"}, content_type="application/json")
        self.assertEqual(answer.status_code, 401)
        self.assertEqual(
            client.post("/api/session/card", {"secret": secret}, content_type="application/json").status_code, 403
        )
        self.assertEqual(named.get(f"/api/portfolios/{self.thandi.pk}").status_code, 200, "signed in by name: goes on")

    def test_old_cards_work_until_the_new_ones_are_laid_out(self) -> None:
        old = self.secret()

        def torn(secrets: dict[int, str], passwords: dict[int, str]) -> bytes:
            raise OSError("no paper")

        with self.assertRaises(OSError):
            cards.make(self.eight.lead, self.eight.group.pk, [self.thandi.enrolment_id], NOW, torn)
        self.by_card(old)
        self.secret(self.nine, self.in_nine.enrolment_id)
        self.by_card(old)
        self.assertEqual(SignInCard.objects.filter(voided_at=None).count(), 2, "one a class")

    def test_over_a_running_sign_in_it_asks_first(self) -> None:
        secret = self.secret()
        client = self.client_of(self.stranger)
        answer = client.post("/api/session/card", {"secret": secret}, content_type="application/json")
        self.assertEqual((answer.status_code, answer.json()["signed_in"]), (409, "Al Kerr"))
        self.assertEqual(client.get("/api/session").json()["person"]["id"], self.stranger.pk)
        instead = {"secret": secret, "instead": True}
        self.assertEqual(client.post("/api/session/card", instead, content_type="application/json").status_code, 200)
        self.assertEqual(client.get("/api/session").json()["person"]["id"], self.person.pk)


class Accounts(OfStudents):
    def test_a_changed_password_and_signing_out_everywhere_end_every_other_session(self) -> None:
        here, there = self.client_of(self.person), self.client_of(self.person)
        body = {"current": builders.PASSWORD, "new": "barrow hoe trowel"}
        for wrong in ({**body, "current": "guessed"}, {**body, "new": "short"}, {**body, "new": builders.PASSWORD}):
            answer = here.put("/api/session/password", wrong, content_type="application/json")
            self.assertEqual(answer.status_code, 422)
        self.assertEqual(here.put("/api/session/password", body, content_type="application/json").status_code, 204)
        self.assertIsNotNone(here.get("/api/session").json()["person"])
        self.assertIsNone(there.get("/api/session").json()["person"])
        self.person.refresh_from_db()
        third = self.client_of(self.person)
        self.assertEqual(here.post("/api/session/everywhere").status_code, 204)
        for client in (here, third):
            self.assertIsNone(client.get("/api/session").json()["person"])

    def test_a_password_that_is_guessed_first_is_refused(self) -> None:
        """Django's own list of common passwords is the measure."""
        client = self.client_of(self.person)
        for guess in ("password1", "iloveyou", "19283746", "thandidube"):
            body = {"current": builders.PASSWORD, "new": guess}
            answer = client.put("/api/session/password", body, content_type="application/json")
            self.assertEqual((answer.status_code, answer.json()["where"]), (422, "new"), guess)
            self.assertIn("three words", answer.json()["fix"])

    def test_a_students_account_is_closed_and_given_a_password(self) -> None:
        client = self.client_of(self.person)
        self.ok(self.admin, "PUT", f"/accounts/{self.person.pk}/active", {"active": False})
        self.assertEqual(client.get(f"/api/portfolios/{self.thandi.pk}").status_code, 401)
        self.ok(self.admin, "PUT", f"/accounts/{self.person.pk}/active", {"active": True})
        client = self.client_of(self.person)
        made = self.ok(self.eight.lead, "POST", f"/students/{self.thandi.enrolment_id}/password")
        self.assertEqual(client.get(f"/api/portfolios/{self.thandi.pk}").status_code, 401)
        self.assertEqual(made["username"], "thandi")
        body = {"username": "thandi", "password": made["password"]}
        self.assertEqual(Client().post("/api/session", body, content_type="application/json").status_code, 200)

    def test_only_a_lead_of_every_class_gives_a_password(self) -> None:
        klass("9 Forge", "smith").student(existing=self.person)
        path = f"/students/{self.thandi.enrolment_id}/password"
        found = self.problem(403, self.eight.lead, "POST", path)
        self.assertIn("a lead of every class", found["title"])
        self.ok(self.admin, "POST", path)

    def test_students_accounts_are_found_by_who_keeps_the_accounts(self) -> None:
        found = self.ok(self.admin, "GET", "/accounts/students?text=dube")
        self.assertEqual([(one["name"], one["classes"]) for one in found], [("Dube, Thandi", ["8 Plot"])])
        self.assertEqual(self.ok(self.admin, "GET", "/accounts/students?text=d"), [])


class Staff(OfStudents):
    def test_nobody_gives_themselves_what_shows_students_work(self) -> None:
        body = {"name": "Load", "kind": "caseload", "first": "2026-09-01", "last": "2026-12-18"}
        for lead in (None, self.admin.pk):
            self.problem(403, self.admin, "POST", "/groups", {**body, "lead": lead})
        made = self.ok(self.admin, "POST", "/groups", {**body, "lead": self.stranger.pk})
        self.assertEqual(StaffRole.objects.get(group=made["id"]).person, self.stranger)
        self.problem(404, self.admin, "PUT", f"/groups/{made['id']}/staff/{self.admin.pk}", {"role": "lead"})

    def test_a_co_teacher_neither_becomes_lead_nor_removes_the_lead(self) -> None:
        co = self.eight.staff("co", Role.CO_TEACHER)
        marker = self.eight.staff("marker", Role.MARKER)
        for other, role in ((co, "lead"), (self.eight.lead, "marker"), (self.eight.lead, None), (marker, "lead")):
            self.problem(403, co, "PUT", f"/groups/{self.eight.group.pk}/staff/{other.pk}", {"role": role})
        self.ok(co, "PUT", f"/groups/{self.eight.group.pk}/staff/{marker.pk}", {"role": "co_teacher"})
        self.ok(co, "PUT", f"/groups/{self.eight.group.pk}/staff/{co.pk}", {"role": None})

    def test_drafts_are_the_markers_own_and_other_eyes_see_what_was_released(self) -> None:
        josh = self.eight.student("josh", "Josh", "Ellery")
        handin = self.eight.handin(self.card)
        builders.fill(josh, self.card)
        builders.fill(self.thandi, self.card)
        submission = builders.hand_in(self.thandi, handin)
        path = f"/submissions/{submission.pk}"
        marker = self.eight.staff("marker", Role.MARKER)
        self.ok(self.eight.lead, "PUT", f"{path}/draft", {"feedback": "Mine alone.", "version": 0})
        self.ok(marker, "PUT", f"{path}/draft", {"feedback": "The second's.", "version": 0})
        self.assertEqual(DraftMark.objects.count(), 2)
        seen = self.ok(marker, "GET", path)
        self.assertEqual((seen["draft"]["feedback"], len(seen["same_files"])), ("The second's.", 1))
        caseload = klass("Load", "coordinator", "caseload")
        Enrolment.objects.create(group=caseload.group, person=self.person, first=caseload.group.first, picture="leaf")
        self.ok(self.eight.lead, "POST", f"{path}/accept", {"feedback": "Hasty.", "version": 1})
        self.ok(self.eight.lead, "POST", f"{path}/reopen")
        for other in (self.eight.staff("observer", Role.OBSERVER), caseload.lead):
            answer = self.call(other, "GET", path)
            found = answer.json()
            self.assertEqual((found["draft"], found["same_files"], found["outcomes"]), (None, [], []))
            for hidden in ("Mine alone", "The second", "Hasty", "Ellery"):
                self.assertNotIn(hidden, answer.content.decode())

    def test_the_session_says_what_may_be_done_in_each_class(self) -> None:
        observer = self.eight.staff("observer", Role.OBSERVER)
        for person, may, not_may in (
            (
                self.eight.lead,
                {"mark", "set_handin", "keep_staff"},
                {"fill_pocket", "hand_in", "see_caseload"} - {"see_caseload"},
            ),
            (observer, {"see_board", "see_submission"}, {"mark", "see_pile", "set_handin"}),
            (self.person, {"fill_pocket", "hand_in", "follow_changes"}, {"see_board", "mark"}),
        ):
            found = set(self.ok(person, "GET", "/session")["groups"][0]["may"])
            self.assertLessEqual(may, found)
            self.assertFalse(not_may & found)

    def test_a_list_is_undone_by_who_may_after_a_request_was_confirmed(self) -> None:
        done = enrolling.apply_list(
            self.eight.lead, self.eight.group.pk, ClassList((("Okonkwo, Chidi",),), (Column.NAME,)), NOW
        )
        self.ok(self.eight.lead, "POST", f"/groups/{self.eight.group.pk}/roster/changes/{done.change_id}/undo")
        self.assertFalse(Person.objects.filter(family_name="Okonkwo").exists())
