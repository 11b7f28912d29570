"""Staff look in: comments, what is new since the last look, the grid of a pocket; the student's news; show pages.

How one reads.
"""

from __future__ import annotations

from datetime import timedelta

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.handins.student.shapes import PortfolioShape
from coatpeg.people.reading import VIEWS
from coatpeg.portfolios.looking.looks import ONE_LOOK
from coatpeg.portfolios.models import Artefact, Look, StandingHold
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, klass


class LookCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.of = klass()
        self.pocket = self.of.pocket()
        self.portfolio = self.of.student("thandi")
        self.thandi = self.portfolio.enrolment.person
        self.lead = self.of.lead
        self.book, self.group = f"/portfolios/{self.portfolio.pk}", f"/groups/{self.of.group.pk}"
        self.opened = f"{self.book}/pockets/{self.pocket.pk}"


class Comments(LookCase):
    def test_the_student_reads_it_and_nothing_is_locked(self) -> None:
        evidence = builders.fill(self.portfolio, self.pocket)
        made = self.ok(self.lead, "post", f"{self.book}/comments", {"text": "Crop it?", "evidence": evidence.pk})
        whole = self.ok(self.lead, "post", f"{self.book}/comments", {"text": "Two more.", "pocket": self.pocket.pk})
        seen = self.ok(self.thandi, "get", self.opened)
        self.assertEqual(
            [(one["evidence"], one["text"]) for one in seen["comments"]],
            [(evidence.pk, "Crop it?"), (None, "Two more.")],
        )
        self.assertEqual(
            (seen["comments"][0]["who"], seen["comments"][0]["mine"], seen["writable"]), ("R. Okafor", False, True)
        )
        self.assertFalse(StandingHold.objects.exists())
        co = self.of.staff("co", Role.CO_TEACHER)
        self.assertEqual(self.call(co, "delete", f"/comments/{made['id']}").status_code, 403)
        self.ok(self.lead, "delete", f"/comments/{made['id']}")
        self.assertEqual([one["id"] for one in self.ok(self.thandi, "get", self.opened)["comments"]], [whole["id"]])
        self.ok(self.lead, "post", f"/comments/{made['id']}/restore")
        self.assertEqual(len(self.ok(self.thandi, "get", self.opened)["comments"]), 2)

    def test_on_a_loose_page_and_on_nothing(self) -> None:
        page = self.ok(self.thandi, "post", f"{self.book}/pages", {"title": "Ideas"})["id"]
        self.ok(self.lead, "post", f"{self.book}/comments", {"text": "Go on.", "page": page})
        self.assertEqual(self.ok(self.thandi, "get", f"/pages/{page}")["comments"][0]["text"], "Go on.")
        for body in (
            {"text": "x"},
            {"text": "x", "evidence": 999},
            {"text": "x", "pocket": 999},
            {"text": "x", "page": 999},
        ):
            self.assertEqual(self.call(self.lead, "post", f"{self.book}/comments", body).status_code, 404)
        for text in ("", " \n", "x" * 4_001):
            answer = self.call(self.lead, "post", f"{self.book}/comments", {"text": text, "pocket": self.pocket.pk})
            self.assertEqual(answer.status_code, 422)

    def test_events_name_it_and_do_not_hold_it(self) -> None:
        self.ok(self.lead, "post", f"{self.book}/comments", {"text": "Secret words", "pocket": self.pocket.pk})
        self.assertNotIn("Secret", str(Event.objects.get(verb="commented").data))


class Looking(LookCase):
    def test_since_my_last_look_is_the_look_before_this_lesson(self) -> None:
        self.assertIsNone(self.ok(self.lead, "post", f"{self.book}/look")["since"])
        with self.at(NOW + ONE_LOOK / 2):
            self.assertIsNone(self.ok(self.lead, "post", f"{self.book}/look")["since"])
        builders.fill(self.portfolio, self.pocket, NOW + ONE_LOOK)
        with self.at(NOW + timedelta(days=1)):
            since = self.ok(self.lead, "post", f"{self.book}/look")["since"]
            self.assertEqual(since, "2026-11-04T10:30:00Z")
            shown = self.ok(self.lead, "get", self.book)
            self.assertEqual((shown["since"], shown["pockets"][0]["last_work"]), (since, "2026-11-04T11:00:00Z"))
        self.assertIsNone(self.ok(self.thandi, "post", f"{self.book}/look")["since"])
        self.assertIsNone(self.ok(self.thandi, "get", self.book)["since"])
        self.assertEqual(Look.objects.count(), 1)
        self.assertFalse(
            Event.objects.filter(actor_id=self.lead.pk).exists(), "looking is not recorded as something done"
        )

    def test_the_portfolios_of_a_class_with_their_last_work(self) -> None:
        self.of.student("sam", "Sam", "Abara")
        builders.fill(self.portfolio, self.pocket)
        sam, thandi = self.ok(self.lead, "get", f"{self.group}/portfolios")
        self.assertEqual((sam["family_name"], sam["last_work"], sam["new"]), ("Abara", None, False))
        self.assertEqual((thandi["portfolio"], thandi["new"]), (self.portfolio.pk, True))
        with self.at(NOW + timedelta(minutes=1)):
            self.ok(self.lead, "post", f"{self.book}/look")
        self.assertFalse(self.ok(self.lead, "get", f"{self.group}/portfolios")[1]["new"])

    def test_one_pocket_over_the_class_in_as_many_queries_for_one_as_for_twenty(self) -> None:
        builders.fill(self.portfolio, self.pocket)
        path = f"{self.group}/pockets/{self.pocket.pk}"
        client = self.client_of(self.lead)
        with self.assertNumQueries(15):
            client.get(f"/api{path}")
        for number in range(20):
            builders.fill(self.of.student(f"s{number}", "Sam", f"Reyes {number}"), self.pocket)
        with self.assertNumQueries(15):
            found = client.get(f"/api{path}").json()
        thandi = found["students"][0]
        self.assertEqual(len(found["students"]), 21)
        self.assertEqual((thandi["met"], thandi["wanted"], thandi["words"], thandi["artefacts"]), (2, 4, 4, 1))
        self.assertEqual(
            (thandi["artefact"]["kind"], thandi["text"], thandi["begun"]),
            ("picture", "One thing. Another thing.", True),
        )
        self.assertEqual(self.call(self.lead, "get", f"{self.group}/pockets/999").status_code, 404)

    def test_what_many_fill_together_is_told_as_one(self) -> None:
        crew = builders.working_group(self.of.group, "Lights")
        mate = self.of.student("mate", "Mo", "Abbot", period="P3")
        crew.members.add(mate.enrolment, self.portfolio.enrolment)
        page = self.of.pocket("Cue script", "page", shared="group")
        research = self.of.pocket("Research", shared="group", own_part=True)
        for pocket, alike in ((page, True), (research, False)):
            found = self.ok(self.lead, "get", f"{self.group}/pockets/{pocket.pk}")["students"]
            words = {one["portfolio"]: one["together"] for one in found}
            self.assertEqual(words[mate.pk] == words[self.portfolio.pk] != "", alike, pocket.title)
            self.assertEqual([one for pk, one in words.items() if pk not in (mate.pk, self.portfolio.pk) and one], [])

    def test_the_pages_that_students_made_by_themselves(self) -> None:
        path = f"{self.group}/own-pages"
        self.assertEqual(self.ok(self.lead, "get", path)["pages"], [])
        made = self.ok(self.thandi, "POST", f"{self.book}/pages", {"title": "My garden"})
        body = {"title": "My garden", "text": "Peas by the wall.", "version": 0}
        self.ok(self.thandi, "PUT", f"/pages/{made['id']}", body)
        (page,) = self.ok(self.lead, "get", path)["pages"]
        self.assertEqual((page["page"]["title"], page["words"], page["text"]), ("My garden", 4, "Peas by the wall."))
        self.assertEqual(page["portfolio"], self.portfolio.pk)
        self.problem(403, self.thandi, "get", path)


class MyPockets(LookCase):
    def test_the_answer_has_its_shape(self) -> None:
        builders.fill(self.portfolio, self.pocket)
        for person in (self.thandi, self.lead):
            PortfolioShape.model_validate(self.ok(person, "get", self.book), extra="forbid")

    def test_as_many_queries_for_forty_artefacts_as_for_one(self) -> None:
        client = self.client_of(self.thandi)
        builders.fill(self.portfolio, self.pocket)
        client.get(f"/api{self.book}")  # the first one also reads the calendar, which the process keeps
        for path, number in ((self.book, 14), (self.opened, 19)):
            with self.assertNumQueries(number):
                client.get(f"/api{path}")
        for _ in range(39):
            builders.add_picture(self.portfolio, self.pocket)
        for path, number in ((self.book, 14), (self.opened, 19)):
            with self.assertNumQueries(number):
                client.get(f"/api{path}")


class ShowPages(LookCase):
    def setUp(self) -> None:
        super().setUp()
        self.evidence = builders.fill(self.portfolio, self.pocket)
        self.josh = self.of.student("josh", "Josh", "Ellery").enrolment.person
        self.body = {
            "title": "My beans",
            "version": 0,
            "shown": [{"evidence": self.evidence.pk, "caption": "Day 3", "wide": True}],
        }

    def arrange(self) -> None:
        self.ok(self.thandi, "put", f"{self.book}/show", self.body)

    def test_private_until_staff_open_it_and_then_by_given_name_and_initial(self) -> None:
        self.arrange()
        self.assertEqual(self.ok(self.josh, "get", f"{self.group}/shows"), [])
        shown = self.ok(self.thandi, "get", f"{self.book}/show")["shown"][0]["id"]
        self.assertEqual(self.call(self.josh, "get", f"/shown/{shown}/file").status_code, 404)
        self.assertEqual(
            self.call(self.thandi, "put", f"{self.book}/show/opened", {"opened": True, "version": 1}).status_code, 403
        )
        self.ok(self.lead, "put", f"{self.book}/show/opened", {"opened": True, "version": 1})
        (page,) = self.ok(self.josh, "get", f"{self.group}/shows")
        self.assertEqual((page["name"], page["title"], page["shown"][0]["caption"]), ("Thandi D.", "My beans", "Day 3"))
        self.assertNotIn("Dube", str(page))
        self.assertNotIn("One thing", str(page), "no reflection")
        for path in (f"/shown/{shown}/file", f"/shown/{shown}/thumbnails/small"):
            self.assertEqual(self.call(self.josh, "get", path).status_code, 200)
        artefact = Artefact.objects.get()
        self.assertEqual(self.call(self.josh, "get", f"/artefacts/{artefact.pk}/file").status_code, 404)
        self.assertEqual(self.call(klass("Other", "x").lead, "get", f"/shown/{shown}/file").status_code, 404)

    def test_whatever_the_student_changes_closes_it_again(self) -> None:
        self.arrange()
        self.ok(self.lead, "put", f"{self.book}/show/opened", {"opened": True, "version": 1})
        self.body["version"] = 1
        self.arrange()
        self.assertEqual(self.ok(self.josh, "get", f"{self.group}/shows"), [])
        unseen = self.call(self.lead, "put", f"{self.book}/show/opened", {"opened": True, "version": 1})
        self.assertEqual(unseen.status_code, 409)
        self.assertEqual(self.call(self.thandi, "put", f"{self.book}/show", self.body).status_code, 409)

    def test_what_was_taken_out_or_who_has_left_is_shown_no_more(self) -> None:
        self.arrange()
        self.ok(self.lead, "put", f"{self.book}/show/opened", {"opened": True, "version": 1})
        shown = self.ok(self.thandi, "get", f"{self.book}/show")["shown"][0]["id"]
        self.ok(self.thandi, "delete", f"/evidence/{self.evidence.pk}")
        self.assertEqual(self.ok(self.josh, "get", f"{self.group}/shows")[0]["shown"], [])
        self.assertEqual(self.call(self.josh, "get", f"/shown/{shown}/file").status_code, 404)
        self.portfolio.enrolment.last = builders.TODAY - timedelta(days=1)
        self.portfolio.enrolment.save()
        self.assertEqual(self.ok(self.josh, "get", f"{self.group}/shows"), [])

    def test_only_a_few_of_ones_own(self) -> None:
        foreign = builders.fill(builders.Portfolio.objects.get(enrolment__person=self.josh), self.pocket)
        for shown in ([{"evidence": foreign.pk}], [{"evidence": 999_999}]):
            self.assertEqual(
                self.call(self.thandi, "put", f"{self.book}/show", {"shown": shown, "version": 0}).status_code, 404
            )
        for more in (
            {"shown": [{"evidence": self.evidence.pk}] * 2},
            {"shown": [{"evidence": one} for one in range(13)]},
            {"shown": [], "title": "x" * 121},
            {"shown": [{"evidence": self.evidence.pk, "caption": "x" * 301}]},
        ):
            self.assertEqual(
                self.call(self.thandi, "put", f"{self.book}/show", {"version": 0, **more}).status_code, 422
            )
        nothing = self.call(self.lead, "put", f"{self.book}/show/opened", {"opened": True, "version": 0})
        self.assertEqual(nothing.status_code, 404)


class Reading(LookCase):
    def test_it_is_kept_with_the_account(self) -> None:
        usual = self.ok(self.thandi, "get", "/session")["person"]["reading"]
        self.assertEqual(
            usual,
            {
                "face": "hyperlegible",
                "size": 100,
                "spacing": "usual",
                "theme": "system",
                "tint": "none",
                "ruler": False,
                "keys": True,
                "pace": 100,
                "helped": list(VIEWS),
            },
        )
        older = {"face": "lexend", "size": 130, "spacing": "wide", "tint": "cream", "ruler": True, "pace": 80}
        wanted = {**older, "theme": "dark", "keys": False, "helped": ["pile", "feedback"]}
        self.ok(self.thandi, "put", "/reading", wanted)
        self.assertEqual(self.ok(self.thandi, "get", "/session")["person"]["reading"], wanted)
        # A page of an earlier version does not know of themes: what it does not name stays.
        self.ok(self.thandi, "put", "/reading", older)
        self.assertEqual(self.ok(self.thandi, "get", "/session")["person"]["reading"], wanted)
        self.assertEqual(self.ok(self.lead, "get", "/session")["person"]["reading"], usual)

    def test_no_choice_that_there_is_not(self) -> None:
        wanted = {"face": "lexend", "size": 130, "spacing": "wide", "tint": "cream", "ruler": True, "pace": 80}
        for change in (
            {"size": 131},
            {"face": "comic"},
            {"ruler": "yes please"},
            {"tint": None},
            {"theme": "violet"},
            {"helped": ["kitchen"]},
        ):
            self.assertEqual(self.call(self.thandi, "put", "/reading", {**wanted, **change}).status_code, 422)
