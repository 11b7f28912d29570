"""The board, setting hand-ins, the changes feed, the session."""

from datetime import UTC, datetime, timedelta

from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.test import Client, override_settings

from coatpeg.events.models import Event
from coatpeg.handins.board import kept
from coatpeg.handins.board.shapes import BoardShape
from coatpeg.people.models import Adjustment, StaffRole, Term
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, TODAY, klass

QUERIES = 14
"""Statements of one board that nobody has laid ready, session and person among them: however many students and hand-ins."""


class Board(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.path = f"/groups/{self.plot.group.pk}/pegs"

    def test_the_number_of_queries_does_not_grow(self) -> None:
        client = self.client_of(self.plot.lead)
        self.plot.student(None)
        self.plot.handin(self.card)
        client.get(f"/api{self.path}")  # the first one also reads the calendar, which the process keeps
        kept.forget()
        with self.assertNumQueries(QUERIES):
            client.get(f"/api{self.path}")
        for number in range(20):
            portfolio = self.plot.student(None, f"S{number}", "Blom", period=f"P{number % 3}")
            Adjustment.objects.create(person=portfolio.enrolment.person, extra_days=1, first=TODAY)
        for number in range(8):
            builders.hand_in(portfolio, self.plot.handin(self.card, title=f"H{number}"), even_if_empty=True)
        kept.forget()
        with self.assertNumQueries(QUERIES):
            client.get(f"/api{self.path}")

    def test_one_that_is_named_and_still_stands_has_no_body(self) -> None:
        thandi = self.plot.student("thandi")
        self.plot.handin(self.card)
        client = self.client_of(self.plot.lead)

        def asked(tag: str = "", at: datetime = NOW) -> tuple[int, str]:
            with self.at(at):
                answer = client.get(f"/api{self.path}", headers={"If-None-Match": tag} if tag else {})
            return answer.status_code, answer.headers["ETag"]

        _, tag = asked()
        with self.assertNumQueries(4):  # two of them are the session and its person
            self.assertEqual(asked(tag), (304, tag))
        # As it comes back where the answer was compressed on its way (RFC 9110, weak comparison).
        self.assertEqual(asked(f"W/{tag}")[0], 304)
        for other in ("x", f'"{self.plot.group.pk + 1}{tag[tag.index("-") :]}', tag.replace("-", "-9", 1), '"1-2"'):
            self.assertEqual(asked(other), (200, tag))
        self.assertEqual(asked(tag, NOW + timedelta(days=1))[0], 200, "another day")
        builders.fill(thandi, self.card)
        status, newer = asked(tag)
        self.assertEqual((status, newer == tag), (200, False))
        self.assertEqual(asked(newer, datetime(2026, 11, 5, 23, 59, 59, tzinfo=UTC))[0], 200, "midnight came between")
        with self.at(datetime(2026, 11, 5, 12, tzinfo=UTC)):
            tag = client.get(f"/api{self.path}").headers["ETag"]
            self.assertEqual(client.get(f"/api{self.path}", headers={"If-None-Match": tag}).status_code, 304)
        self.assertEqual(asked(tag, datetime(2026, 11, 6, 0, 0, 0, tzinfo=UTC))[0], 200, "it is overdue by now")

    def test_alike_cells_are_sent_once(self) -> None:
        for number in range(6):
            self.plot.student(None, f"S{number}", "Blom")
        for number in range(4):
            self.plot.handin(self.card, title=f"H{number}")
        found = self.ok(self.plot.lead, "GET", self.path)
        self.assertEqual(len(found["states"]), 1)
        self.assertEqual([row["cells"] for row in found["students"]], [[0] * 4] * 6)

    def test_who_may_not_see_what_was_agreed_is_not_told_that_something_was(self) -> None:
        adjusted = self.plot.student(None, "Ana", "de Souza")
        self.plot.student(None, "Bo", "Blom")
        Adjustment.objects.create(person=adjusted.enrolment.person, extra_days=2, first=TODAY)
        marker = builders.person("marker")
        StaffRole.objects.create(group=self.plot.group, person=marker, role="marker")
        for who, told in ((self.plot.lead, [False, True]), (marker, [False, False])):
            found = self.pegs(who, self.plot.group.pk)["students"]
            self.assertEqual([row["adjusted"] for row in found], told)

    def test_the_answer_has_the_shape_it_promises(self) -> None:
        self.plot.student(None, period="P3")
        self.plot.handin(self.card)
        BoardShape.model_validate(self.ok(self.plot.lead, "GET", self.path), extra="forbid")

    def test_by_surname_with_each_ones_due_and_the_next_change(self) -> None:
        self.plot.student(None, "Bo", "Ångström", period="P4")
        adjusted = self.plot.student(None, "Ana", "de Souza", period="P3")
        self.plot.student(None, "Sukarni", "", period="P3")
        Adjustment.objects.create(person=adjusted.enrolment.person, extra_days=2, first=TODAY)
        self.plot.handin(self.card, period_dues={"P3": TODAY + timedelta(days=1)})
        board = self.pegs(self.plot.lead, self.plot.group.pk)
        self.assertEqual([row["given_name"] for row in board["students"]], ["Bo", "Ana", "Sukarni"])
        self.assertEqual(
            [row["cells"][0]["due"] for row in board["students"]], ["2026-11-06", "2026-11-09", "2026-11-05"]
        )
        self.assertEqual(board["changes_at"], "2026-11-06T00:00:00Z")
        self.assertEqual(board["handins"][0]["asked"], 3)

    def test_a_joiner_owes_nothing_from_before_and_who_left_is_not_counted(self) -> None:
        self.plot.student(None, "Here", "Always")
        self.plot.student(None, "Late", "Joiner", first=TODAY - timedelta(days=1))
        self.plot.student(None, "Gone", "Leaver", last=TODAY - timedelta(days=1))
        self.plot.handin(self.card, title="Old", due=TODAY - timedelta(days=5))
        self.plot.handin(self.card, title="New")
        board = self.pegs(self.plot.lead, self.plot.group.pk)
        statuses = {row["given_name"]: [cell["status"] for cell in row["cells"]] for row in board["students"]}
        self.assertEqual(statuses["Late"], ["not_asked", "empty"])
        self.assertEqual(statuses["Gone"], ["empty", "not_asked"])
        self.assertEqual([one["asked"] for one in board["handins"]], [2, 2])

    def test_a_student_without_period_is_shown_to_staff(self) -> None:
        self.plot.student(None, period="P3")
        self.plot.student(None, "Without", "Zed")
        self.plot.handin(self.card, due=None, period_dues={"P3": TODAY + timedelta(days=1)})
        cells = [row["cells"][0] for row in self.pegs(self.plot.lead, self.plot.group.pk)["students"]]
        self.assertEqual([cell["no_period"] for cell in cells], [False, True])

    def test_a_class_that_begins_next_term_shows_that_terms_weeks_and_nobody_as_quiet(self) -> None:
        last = Term.objects.get().last
        Term.objects.create(name="Spring term", first=last + timedelta(days=17), last=last + timedelta(days=90))
        forge = klass("9 Forge", "forge")
        forge.student("lena", first=last + timedelta(days=17))
        board = self.pegs(forge.lead, forge.group.pk)
        self.assertEqual((board["term"], board["weeks"][0]["number"]), ("Spring term", 1))
        self.assertEqual([one["quiet"] for one in board["students"]], [False])

    def test_without_students_and_without_hand_ins(self) -> None:
        board = self.pegs(self.plot.lead, self.plot.group.pk)
        self.assertEqual((board["students"], board["handins"], board["changes_at"]), ([], [], None))


class SettingHandIns(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.thandi = self.plot.student("thandi", period="P3")
        self.plot.student(None, "Luca", "Bianchi", period="P4")
        self.path = f"/groups/{self.plot.group.pk}/handins"

    def plan(self, **changes: object) -> dict:
        base = {
            "title": "Menu",
            "pockets": [self.card.pk],
            "opens": "2026-11-02",
            "due": {"day": "2026-11-20"},
            "points": "20",
        }
        return {**base, **changes}

    def test_it_appears_for_those_it_is_for(self) -> None:
        period = {"period": self.plot.period("P4").pk, "asked": True, "due": {"day": "2026-11-19", "at": "15:30"}}
        self.ok(self.plot.lead, "POST", self.path, self.plan(for_everyone=False, periods=[period]))
        board = self.pegs(self.plot.lead, self.plot.group.pk)
        self.assertEqual([row["cells"][0]["status"] for row in board["students"]], ["empty", "not_asked"])
        work = self.ok(self.thandi.enrolment.person, "GET", f"/portfolios/{self.thandi.pk}/worklist")
        self.assertEqual((work["to_do"], work["others"]), ([], []))
        self.assertEqual(Event.objects.get(verb="handin_set").data["pockets"], [self.card.pk])

    def test_the_preview_tells_every_date_and_what_to_look_at(self) -> None:
        Adjustment.objects.create(person=self.thandi.enrolment.person, extra_days=2, first=TODAY)
        found = self.ok(self.plot.lead, "POST", f"{self.path}/preview", self.plan(due={"day": "2026-11-21"}))
        self.assertEqual(found["asked"], 2)
        self.assertEqual(
            [(line["day"], line["students"]) for line in found["dues"]], [("2026-11-21", 1), ("2026-11-24", 1)]
        )
        self.assertEqual(found["moved"], [{"name": "Dube, Thandi", "day": "2026-11-24", "extra_days": 2}])
        self.assertIn("Sat 21 Nov is not a school day", found["warnings"][0])

    def test_what_cannot_be_set_says_why(self) -> None:
        foreign = klass("9 Forge", "forge").pocket()
        cases = {
            "no title": (self.plan(title=" "), "title"),
            "no pocket": (self.plan(pockets=[]), "pockets"),
            "a foreign pocket": (self.plan(pockets=[foreign.pk]), "pockets"),
            "due before it opens": (self.plan(due={"day": "2026-11-01"}), "opens"),
            "points off the step": (self.plan(points="7.5"), "points"),
            "nobody asked": (self.plan(for_everyone=False, periods=[]), "periods"),
            "a foreign period": (self.plan(for_everyone=False, periods=[{"period": 99999}]), "periods"),
            "a date that is none": (self.plan(due={"day": "2026-02-31"}), "due.day"),
        }
        for name, (plan, where) in cases.items():
            with self.subTest(name):
                found = self.problem(422, self.plot.lead, "POST", self.path, plan)
                self.assertIn(where, found["where"])
        self.assertFalse(Event.objects.filter(verb="handin_set").exists())


class Session(ApiCase):
    def test_sign_in_by_name_and_password_with_argon2_in_the_product(self) -> None:
        builders.school()
        builders.person("thandi", "Thandi", "Dube")
        client = Client(enforce_csrf_checks=True)
        token = client.get("/api/session").cookies["coatpeg_csrf"].value
        body = {"username": " Thandi ", "password": builders.PASSWORD}
        refused = client.post("/api/session", body, content_type="application/json")
        self.assertEqual((refused.status_code, refused.json()["type"]), (403, "urn:coatpeg:csrf"))
        signed = client.post("/api/session", body, content_type="application/json", headers={"X-CSRFToken": token})
        self.assertEqual(signed.json()["person"]["full_name"], "Thandi Dube")
        with override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.Argon2PasswordHasher"]):
            again = get_user_model()()
            again.set_password("x")
            self.assertTrue(again.password.startswith("argon2$argon2id$"))

    def test_demo_sign_ins_are_offered_in_demo_mode_only(self) -> None:
        builders.school()
        with override_settings(DEMO=True):
            self.assertTrue(self.ok(None, "GET", "/session")["demo"])
        with override_settings(DEMO=False):
            self.assertEqual(self.ok(None, "GET", "/session")["demo"], [])

    def test_demo_mode_on_a_public_host_and_a_missing_secret_stop_the_start(self) -> None:
        for wrong, code in (
            ({"DEMO": True, "ALLOWED_HOSTS": ["portfolios.example"]}, "coatpeg.E002"),
            ({"SECRET_KEY": "no secret is set"}, "coatpeg.E001"),
            ({"UPLOAD_LIMIT": 5}, "coatpeg.E003"),
        ):
            with override_settings(**wrong), self.assertRaisesMessage(Exception, code):
                call_command("check")

    def test_the_page_asks_no_other_host_for_anything(self) -> None:
        builders.school()
        response = Client().get("/g/1/pegs")
        policy = response["Content-Security-Policy"]
        self.assertIn("default-src 'none'", policy)
        self.assertIn("script-src 'self'", policy)
        self.assertNotRegex(policy, r"https?:|unsafe")
        self.assertNotRegex(response.content.decode(), r"https?://")
        data = Client().get("/api/session")["Content-Security-Policy"]
        self.assertEqual(data, "default-src 'none'; frame-ancestors 'none'")

    def test_health(self) -> None:
        self.assertEqual(
            Client().get("/health").json(),
            {
                "ok": True,
                "database": True,
                "background": {"waiting": 0, "stuck": [], "set_aside": []},
            },
        )


class Throttle(ApiCase):
    def setUp(self) -> None:
        """The real clock: the throttle counts by it."""

    def test_too_many_tries_are_throttled_even_with_the_right_password(self) -> None:
        builders.school()
        builders.person("thandi")
        for _ in range(8):
            self.problem(403, None, "POST", "/session", {"username": "thandi", "password": "wrong"})
        found = self.problem(403, None, "POST", "/session", {"username": "thandi", "password": builders.PASSWORD})
        self.assertTrue(found["throttled"])
        self.problem(403, None, "POST", "/session", {"username": "josh", "password": "wrong"})
