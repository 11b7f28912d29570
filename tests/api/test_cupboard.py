"""The cupboard: kept by staff, read and copied by students, given out, taken back, renewed."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import TransactionTestCase
from django.test.utils import CaptureQueriesContext

from coatpeg.core.cupboard.items import ItemKind
from coatpeg.core.policy import Role
from coatpeg.cupboard import giving, keeping
from coatpeg.cupboard.models import CupboardCopy, CupboardItem, GivenOut
from coatpeg.handins.models import Submission
from coatpeg.notices.models import Notice
from coatpeg.portfolios.counting import miscounted
from coatpeg.portfolios.models import Evidence, Portfolio
from tests import builders
from tests.api.case import ApiCase
from tests.api.test_races import at_once
from tests.background import run_waiting
from tests.builders import NOW, TODAY, klass


class CupboardCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.about = self.plot.pocket("About me", "page", starter="I like …")
        self.log = self.plot.pocket("Crop log", "log")
        self.book = self.plot.student("thandi", period="P3")
        self.other = self.plot.student("josh", "Josh", "Ellery", period="P4")
        self.group = f"/groups/{self.plot.group.pk}"

    def put_in(self, title: str = "Kitchen safety", html: str = "<p>Wash your hands.</p>", **more: Any) -> Any:
        body = {"kind": "page", "title": title, "html": html, **more}
        return self.ok(self.plot.lead, "POST", f"{self.group}/cupboard", body)

    def put_file(self, name: str = "sheet.txt", content: bytes = b"Wash your hands.") -> Any:
        file = SimpleUploadedFile(name, content)
        return self.client_of(self.plot.lead).post(f"/api{self.group}/cupboard/files", {"file": file}).json()

    def change(self, item: Any, **more: Any) -> Any:
        now = self.ok(self.plot.lead, "GET", f"/cupboard/{item['id']}")
        body = {name: now[name] for name in ("title", "heading", "html", "link", "staff_only", "opens", "periods")}
        return self.ok(self.plot.lead, "PUT", f"/cupboard/{item['id']}", {**body, "version": now["version"], **more})

    def seen(self, book: Portfolio) -> list[str]:
        found = self.ok(book.enrolment.person, "GET", f"{self.group}/cupboard")
        return [one["title"] for one in found["items"]]

    def take(self, item: Any, pocket: Any = None, book: Portfolio | None = None) -> Any:
        book = book or self.book
        body = {"pocket": (pocket or self.card).pk}
        return self.ok(book.enrolment.person, "POST", f"/portfolios/{book.pk}/cupboard/{item['id']}", body)

    def give(self, item: Any, pocket: Any = None, key: str = "one", **to: Any) -> Any:
        body = {"pocket": (pocket or self.card).pk, "key": key, **to}
        return self.ok(self.plot.lead, "POST", f"/cupboard/{item['id']}/give", body)

    def opened(self, pocket: Any, book: Portfolio | None = None) -> Any:
        book = book or self.book
        return self.ok(book.enrolment.person, "GET", f"/portfolios/{book.pk}/pockets/{pocket.pk}")

    def far(self, given: Any) -> dict[str, str]:
        lines = self.ok(self.plot.lead, "GET", f"/given/{given['id']}/students")
        return {one["student"]["given_name"]: one["progress"] for one in lines}

    def tearDown(self) -> None:
        self.assertEqual(list(miscounted()), [], "what is counted is what lies there")
        super().tearDown()


class Keeping(CupboardCase):
    def test_students_are_shown_what_is_for_them_now(self) -> None:
        period = self.plot.period("P3")
        self.put_in("Now", heading="Week 9")
        self.put_in("Staff", staff_only=True)
        self.put_in("Later", opens=str(builders.TODAY + timedelta(days=1)))
        self.put_in("Of P3", periods=[period.pk])
        self.assertEqual(self.seen(self.book), ["Now", "Of P3"])
        self.assertEqual(self.seen(self.other), ["Now"])
        for hidden in CupboardItem.objects.filter(title__in=("Staff", "Later")):
            self.problem(404, self.book.enrolment.person, "GET", f"/cupboard/{hidden.pk}")
            self.problem(
                404,
                self.book.enrolment.person,
                "POST",
                f"/portfolios/{self.book.pk}/cupboard/{hidden.pk}",
                {"pocket": 1},
            )
        staff = self.ok(self.plot.staff("marsh", Role.OBSERVER), "GET", f"{self.group}/cupboard")
        self.assertEqual((len(staff["items"]), staff["keeps"]), (4, False))

    def test_markup_is_cleaned_and_bad_fields_are_named(self) -> None:
        made = self.put_in(html='<p onclick="x()">Wash<script>alert(1)</script> <a href="javascript:x">here</a></p>')
        html = self.ok(self.plot.lead, "GET", f"/cupboard/{made['id']}")["html"]
        self.assertNotIn("script", html)
        self.assertNotIn("onclick", html)
        lead, path = self.plot.lead, f"{self.group}/cupboard"
        for body, where in (
            ({"kind": "page", "title": " "}, "title"),
            ({"kind": "page", "title": "x" * 121}, "title"),
            ({"kind": "page", "title": "A", "heading": "x" * 81}, "heading"),
            ({"kind": "page", "title": "A", "html": "<b>x</b>" * 40_000}, "html"),
            ({"kind": "page", "title": "A", "periods": [10**6]}, "periods"),
            ({"kind": "link", "title": "A", "link": "nowhere"}, "link"),
            ({"kind": "page", "title": "A", "opens": "1987-01-01"}, "opens"),
        ):
            with self.subTest(where):
                self.assertEqual(self.problem(422, lead, "POST", path, body)["where"], where)

    def test_a_change_names_what_it_saw(self) -> None:
        made = self.put_in()
        self.change(made, title="Safer kitchens")
        body = {"title": "Mine", "version": made["version"]}
        self.assertEqual(self.problem(409, self.plot.lead, "PUT", f"/cupboard/{made['id']}", body)["version"], 2)

    def test_taken_out_and_fetched_back_copies_stay(self) -> None:
        made = self.put_in()
        self.take(made)
        self.ok(self.plot.lead, "DELETE", f"/cupboard/{made['id']}")
        self.assertEqual(self.seen(self.book), [])
        self.assertEqual(len(self.opened(self.card)["evidence"]), 1)
        self.ok(self.plot.lead, "POST", f"/cupboard/{made['id']}/restore")
        self.assertEqual(self.seen(self.book), ["Kitchen safety"])

    def test_files_are_for_staff_until_they_are_shown_and_read_in_the_viewer(self) -> None:
        made = self.put_file()
        self.assertEqual((made["staff_only"], made["size"]), (True, 16))
        student = self.book.enrolment.person
        self.problem(404, student, "GET", f"/cupboard/{made['id']}/file")
        self.change(made, staff_only=False)
        self.assertEqual(
            b"".join(self.call(student, "GET", f"/cupboard/{made['id']}/file").streaming_content), b"Wash your hands."
        )
        run_waiting()
        self.assertEqual(self.ok(student, "GET", f"/cupboard/{made['id']}/view")["state"], "done")
        self.assertIn("Wash", str(self.ok(student, "GET", f"/cupboard/{made['id']}/view/document")))

    def test_who_has_read_it_is_counted_once_and_staff_leave_no_trace(self) -> None:
        made = self.put_in()
        for person in (self.book.enrolment.person, self.book.enrolment.person, self.plot.lead):
            self.ok(person, "POST", f"/cupboard/{made['id']}/read")
        self.assertEqual(self.ok(self.plot.lead, "GET", f"{self.group}/cupboard")["items"][0]["read"], 1)

    def test_the_statements_are_the_same_however_much_lies_there(self) -> None:
        def asked(person: Any) -> int:
            client = self.client_of(person)
            with CaptureQueriesContext(connection) as queries:
                client.get(f"/api{self.group}/cupboard")
            return len(queries)

        first = self.put_in()
        self.take(first)
        people = (self.plot.lead, self.book.enrolment.person)
        before = [asked(one) for one in people]
        for number in range(20):
            self.take(self.put_in(f"Sheet {number}"))
        self.assertEqual([asked(one) for one in people], before)


class Taking(CupboardCase):
    def test_a_copy_is_the_students_own_and_no_work_until_it_is_changed(self) -> None:
        made = self.put_in()
        copy = self.take(made)
        (lying,) = self.opened(self.card)["evidence"]
        self.assertEqual(
            (lying["unchanged"], lying["copy_of"], lying["artefact"]["title"]),
            (True, "Kitchen safety", "Kitchen safety"),
        )
        self.assertEqual(self.opened(self.card)["met"], 0)
        artefact = lying["artefact"]["id"]
        student = self.book.enrolment.person
        self.ok(student, "PUT", f"/texts/{artefact}", {"text": "", "html": "<p>I washed mine.</p>", "version": 1})
        (lying,) = self.opened(self.card)["evidence"]
        self.assertFalse(lying["unchanged"])
        original = self.ok(self.plot.lead, "GET", f"/cupboard/{made['id']}")
        self.assertEqual(original["html"], "<p>Wash your hands.</p>")
        self.assertEqual(self.problem(403, student, "DELETE", f"/copies/{copy['id']}")["fix"][:8], "Take it ")
        (line,) = self.ok(self.plot.lead, "GET", f"/cupboard/{made['id']}/copies")
        self.assertEqual((line["progress"], line["pocket"]["title"], line["given"]), ("begun", "Recipe card", None))

    def test_a_page_takes_the_words_where_nobody_wrote_else_a_text_beside(self) -> None:
        made = self.put_in()
        self.take(made, self.about)
        pocket = self.opened(self.about)
        self.assertEqual([(one["text"], one["artefact"]) for one in pocket["evidence"]], [("Wash your hands.", None)])
        self.assertEqual(pocket["met"], 0, "as it came it is no work")
        builders_text = {"text": "", "html": "<p>Mine.</p>", "version": 1}
        self.ok(
            self.book.enrolment.person, "PUT", f"/portfolios/{self.book.pk}/pockets/{self.about.pk}/page", builders_text
        )
        self.take(self.put_in("Another"), self.about)
        self.assertEqual([one["artefact"] is None for one in self.opened(self.about)["evidence"]], [True, False])

    def test_put_back_and_taken_again(self) -> None:
        made = self.put_in()
        for pocket in (self.card, self.about):
            copy = self.take(made, pocket)
            self.assertEqual(self.take(made, pocket)["id"], copy["id"], "it lies there already")
            for _ in range(2):
                self.ok(self.book.enrolment.person, "DELETE", f"/copies/{copy['id']}")
            self.assertEqual(
                [one["text"] for one in self.opened(pocket)["evidence"] if one["artefact"] or one["text"]], []
            )
            self.assertNotEqual(self.take(made, pocket)["id"], copy["id"])

    def test_a_pocket_that_does_not_take_it_names_one_that_does(self) -> None:
        made = self.put_in()
        path = f"/portfolios/{self.book.pk}/cupboard/{made['id']}"
        found = self.problem(422, self.book.enrolment.person, "POST", path, {"pocket": self.log.pk})
        self.assertIn("“Recipe card” takes it", found["fix"])

    def test_another_class_and_another_student(self) -> None:
        made = self.put_in()
        theirs = klass("9 Forge", "blom")
        stranger = theirs.student("sam", "Sam", "Reyes")
        pocket = theirs.pocket()
        path = f"/portfolios/{stranger.pk}/cupboard/{made['id']}"
        self.problem(404, stranger.enrolment.person, "POST", path, {"pocket": pocket.pk})
        path = f"/portfolios/{self.book.pk}/cupboard/{made['id']}"
        self.problem(404, self.other.enrolment.person, "POST", path, {"pocket": self.card.pk})
        self.problem(404, self.other.enrolment.person, "DELETE", f"/copies/{self.take(made)['id']}")

    def test_into_a_locked_pocket_nothing_goes(self) -> None:
        made = self.put_in()
        self.lock()
        path = f"/portfolios/{self.book.pk}/cupboard/{made['id']}"
        self.problem(403, self.book.enrolment.person, "POST", path, {"pocket": self.card.pk})

    def lock(self) -> None:
        body = {"students": [self.book.enrolment_id], "locked": True}
        self.ok(self.plot.lead, "POST", f"{self.group}/pockets/{self.card.pk}/locked", body)


class GivingOut(CupboardCase):
    def test_said_before_given_once_opened_begun_handed_in(self) -> None:
        made = self.put_in(staff_only=True)
        impact = self.ok(self.plot.lead, "POST", f"/cupboard/{made['id']}/giving", {"pocket": self.card.pk})
        self.assertEqual([one["given_name"] for one in impact["gets"]], ["Thandi", "Josh"])
        given = self.give(made)
        self.assertEqual(self.give(made)["id"], given["id"], "sent again it is the same deed")
        self.assertEqual(CupboardCopy.objects.count(), 2)
        self.assertEqual(self.far(given), {"Thandi": "not_opened", "Josh": "not_opened"})
        self.assertEqual(self.opened(self.card)["unopened"], 1)
        path = f"/portfolios/{self.book.pk}/pockets/{self.card.pk}/copies"
        self.assertEqual(self.ok(self.book.enrolment.person, "POST", path)["touched"], 1)
        self.assertEqual(self.ok(self.book.enrolment.person, "POST", path)["touched"], 0)
        self.assertEqual(self.far(given)["Thandi"], "opened")
        (lying,) = self.opened(self.card)["evidence"]
        builders.reflect(Evidence.objects.get(pk=lying["id"]))
        self.assertEqual(self.far(given)["Thandi"], "begun")
        builders.hand_in(self.book, self.plot.handin(self.card), even_if_empty=True)
        self.assertEqual(self.far(given)["Thandi"], "handed_in")
        (line,) = self.ok(self.plot.lead, "GET", f"{self.group}/given")
        self.assertEqual((line["handed_in"], line["not_opened"], line["whole"]), (1, 1, True))
        self.assertTrue(Submission.objects.exists())

    def test_given_out_at_a_moment_and_seen_by_nobody_before(self) -> None:
        made = self.put_in(staff_only=True)
        given = self.give(made, day="2026-11-06", time="08:00")
        then = datetime.fromisoformat(given["waits_for"])
        run_waiting()
        self.assertFalse(CupboardCopy.objects.exists())
        self.assertEqual(self.opened(self.card)["evidence"], [])
        # What is given is what lies in it then, to whoever is there then.
        self.change(made, html="<p>Wash your hands twice.</p>")
        applied = {"rows": [["Okonkwo", "Chidi"]], "columns": ["family", "given"]}
        self.apply_list(self.plot.lead, f"{self.group}/roster", applied)
        self.assertFalse(CupboardCopy.objects.exists(), "who joins before gets it with the others")
        with self.at(then + timedelta(minutes=1)):
            run_waiting("then")
            run_waiting("once more")
            (line,) = self.ok(self.plot.lead, "GET", f"{self.group}/given")
        self.assertEqual((line["waits_for"], line["not_opened"]), (None, 3))
        self.assertEqual(datetime.fromisoformat(line["at"]), then + timedelta(minutes=1))
        texts = set(
            Evidence.objects.filter(copies__given=given["id"]).values_list("artefact__written_text__text", flat=True)
        )
        self.assertEqual(texts, {"Wash your hands twice."})
        self.assertEqual(Notice.objects.filter(what="given_out").count(), 1)

    def test_what_waits_is_called_off_and_on_again_and_not_given_where_its_pocket_is_gone(self) -> None:
        made = self.put_in()
        off, on, gone, left = (
            self.give(made, pocket, key=str(at), day="2026-11-06", **to)
            for at, (pocket, to) in enumerate(
                (
                    (self.card, {}),
                    (self.card, {"students": [self.book.enrolment_id]}),
                    (self.about, {}),
                    (self.card, {"students": [self.other.enrolment_id]}),
                )
            )
        )
        self.ok(self.plot.lead, "DELETE", f"/given/{off['id']}")
        self.ok(self.plot.lead, "DELETE", f"/given/{on['id']}")
        self.about.retired_at = NOW
        self.about.save()
        leave = {"students": [self.other.enrolment_id]}
        self.ok(self.plot.lead, "POST", f"{self.group}/roster/leave", leave)
        with self.at(datetime.fromisoformat(off["waits_for"]) + timedelta(days=1)):
            run_waiting()
            self.assertFalse(CupboardCopy.objects.exists())
            lines = {one["id"]: one for one in self.ok(self.plot.lead, "GET", f"{self.group}/given")}
            self.assertTrue(lines[gone["id"]]["taken_back_at"])
            self.assertIsNone(lines[left["id"]]["waits_for"], "given to nobody: whoever was meant has left")
            # Its moment has passed: it is given as soon as it is wanted again.
            self.ok(self.plot.lead, "POST", f"/given/{on['id']}/restore")
            run_waiting("again")
        self.assertEqual(list(CupboardCopy.objects.values_list("given", flat=True)), [on["id"]])

    def test_a_moment_that_cannot_be(self) -> None:
        made = self.put_in()
        for day in (TODAY - timedelta(days=1), TODAY + timedelta(days=4_000)):
            body = {"pocket": self.card.pk, "key": "one", "day": str(day)}
            self.problem(422, self.plot.lead, "POST", f"/cupboard/{made['id']}/give", body)
        self.assertFalse(GivenOut.objects.exists())

    def test_a_copy_as_it_came_is_handed_in_as_empty(self) -> None:
        self.give(self.put_in())
        handin = self.plot.handin(self.card)
        with self.assertRaisesMessage(Exception, "nothing"):
            builders.hand_in(self.book, handin)

    def test_only_some_and_only_who_lacks_it(self) -> None:
        made = self.put_in()
        p3 = self.plot.period("P3")
        self.give(made, periods=[p3.pk])
        impact = self.ok(self.plot.lead, "POST", f"/cupboard/{made['id']}/giving", {"pocket": self.card.pk})
        self.assertEqual([[one["given_name"] for one in impact[of]] for of in ("gets", "has")], [["Josh"], ["Thandi"]])
        body = {"pocket": self.card.pk, "students": [self.book.enrolment_id], "key": "two"}
        self.problem(422, self.plot.lead, "POST", f"/cupboard/{made['id']}/give", body)
        self.give(made, key="three", students=[self.other.enrolment_id])
        self.assertEqual(CupboardCopy.objects.count(), 2)

    def test_taken_back_where_nobody_has_begun_and_given_again(self) -> None:
        for number, pocket in enumerate((self.card, self.about)):
            made = self.put_in(f"Sheet {number}")
            given = self.give(made, pocket, key=str(number))
            mine = Evidence.objects.get(copies__given=given["id"], portfolio=self.other)
            if mine.artefact_id:
                builders.reflect(mine)
            else:
                path = f"/portfolios/{self.other.pk}/pockets/{pocket.pk}/page"
                self.ok(self.other.enrolment.person, "PUT", path, {"text": "", "html": "<p>Mine.</p>", "version": 1})
            for _ in range(2):
                kept = self.ok(self.plot.lead, "DELETE", f"/given/{given['id']}")
                self.assertEqual([one["student"]["given_name"] for one in kept], ["Josh"])
            self.assertEqual(self.far(given), {"Thandi": "taken_out", "Josh": "begun"})
            self.ok(self.plot.lead, "POST", f"/given/{given['id']}/restore")
            self.assertEqual(self.far(given), {"Thandi": "not_opened", "Josh": "begun"})

    def test_whoever_joins_later_gets_what_the_class_was_given(self) -> None:
        self.give(self.put_in("For all"))
        self.give(self.put_in("For P3"), key="two", periods=[self.plot.period("P3").pk])
        self.give(self.put_in("For Thandi"), key="three", students=[self.book.enrolment_id])
        back = self.put_in("Taken back")
        self.ok(self.plot.lead, "DELETE", f"/given/{self.give(back, key='four')['id']}")
        body = {"rows": [["Okonkwo", "Chidi", "P3"]], "columns": ["family", "given", "period"]}
        applied = self.apply_list(self.plot.lead, f"{self.group}/roster", body)
        joined = Portfolio.objects.get(enrolment__person__given_name="Chidi")
        titles = Evidence.objects.filter(portfolio=joined).values_list("artefact__title", flat=True)
        self.assertEqual(list(titles), ["For all", "For P3"])
        self.ok(self.plot.lead, "POST", f"{self.group}/roster/changes/{applied['change']}/undo")
        self.assertFalse(Portfolio.objects.filter(pk=joined.pk).exists(), "what was given is no work of theirs")

    def test_a_move_to_another_period_brings_what_it_was_given(self) -> None:
        self.give(self.put_in("For P3"), periods=[self.plot.period("P3").pk])
        self.assertEqual(self.opened(self.card, self.other)["evidence"], [])
        body = {"students": [self.other.enrolment_id], "where": "period", "name": "P3"}
        self.ok(self.plot.lead, "POST", f"{self.group}/roster/place", body)
        self.assertEqual(len(self.opened(self.card, self.other)["evidence"]), 1)

    def test_students_are_told_unless_it_was_taken_back(self) -> None:
        self.give(self.put_in())
        self.ok(self.plot.lead, "DELETE", f"/given/{self.give(self.put_in('Gone'), key='two')['id']}")
        run_waiting()
        lines = self.ok(self.book.enrolment.person, "GET", "/notices")["lines"]
        told = [(one["title"], one["path"]) for one in lines if one["what"] == "given_out"]
        path = f"/g/{self.plot.group.pk}/portfolio/{self.book.pk}/{self.card.pk}"
        self.assertEqual(told, [("Kitchen safety", path)])

    def test_into_a_log_or_a_locked_or_a_full_pocket(self) -> None:
        made = self.put_in()
        found = self.problem(422, self.plot.lead, "POST", f"/cupboard/{made['id']}/giving", {"pocket": self.log.pk})
        self.assertIn("“Recipe card” takes it", found["fix"])
        body = {"students": [self.book.enrolment_id], "locked": True}
        self.ok(self.plot.lead, "POST", f"{self.group}/pockets/{self.card.pk}/locked", body)
        impact = self.ok(self.plot.lead, "POST", f"/cupboard/{made['id']}/giving", {"pocket": self.card.pk})
        self.assertEqual(
            [[one["given_name"] for one in impact[of]] for of in ("gets", "locked")], [["Josh"], ["Thandi"]]
        )
        elsewhere = {"pocket": self.card.pk, "students": [10**6]}
        self.problem(422, self.plot.lead, "POST", f"/cupboard/{made['id']}/giving", elsewhere)
        theirs = klass("9 Forge", "blom").pocket()
        self.problem(404, self.plot.lead, "POST", f"/cupboard/{made['id']}/giving", {"pocket": theirs.pk})


class Renewing(CupboardCase):
    def test_as_it_came_it_is_exchanged_begun_it_gets_the_newer_beside_locked_it_waits(self) -> None:
        third = self.plot.student("sam", "Sam", "Reyes")
        for number, pocket in enumerate((self.card, self.about)):
            with self.subTest(pocket.title):
                made = self.put_in(f"Sheet {number}")
                given = self.give(made, pocket, key=str(number))
                begun = Evidence.objects.get(copies__given=given["id"], portfolio=self.other)
                if begun.artefact_id:
                    builders.reflect(begun)
                else:
                    path = f"/portfolios/{self.other.pk}/pockets/{pocket.pk}/page"
                    body = {"text": "", "html": "<p>Mine.</p>", "version": 1}
                    self.ok(self.other.enrolment.person, "PUT", path, body)
                lock = f"{self.group}/pockets/{pocket.pk}/locked"
                self.ok(self.plot.lead, "POST", lock, {"students": [third.enrolment_id], "locked": True})
                self.change(made, html="<p>Wash them twice.</p>")
                self.assertEqual(self.words(self.book, pocket), ["Wash them twice."])
                self.assertIn("Wash them twice.", self.words(self.other, pocket))
                self.assertEqual(len(self.words(self.other, pocket)), 2)
                self.assertEqual(self.words(third, pocket), ["Wash your hands."])
                self.ok(self.plot.lead, "POST", lock, {"students": [third.enrolment_id], "locked": False})
                self.assertEqual(self.opened(pocket, third)["unopened"], 1)
                path = f"/portfolios/{third.pk}/pockets/{pocket.pk}/copies"
                self.ok(third.enrolment.person, "POST", path)
                self.assertEqual(self.words(third, pocket), ["Wash them twice."])
                # Once more: what has the newer beside gets none a second time.
                self.change(made, title="Called otherwise")
                self.assertEqual(len(self.words(self.other, pocket)), 2)

    def words(self, book: Portfolio, pocket: Any) -> list[str]:
        """The words of the texts that lie in a pocket."""
        lying = Evidence.objects.filter(portfolio=book, pocket=pocket, removed_at=None).order_by("pk")
        return [one.artefact.written_text.text if one.artefact else one.text for one in lying]

    def test_a_newer_file_takes_the_place_of_the_one_before(self) -> None:
        made = self.put_file()
        given = self.give(made)
        file = SimpleUploadedFile("sheet.txt", b"Wash them twice.")
        answer = self.client_of(self.plot.lead).post(f"/api/cupboard/{made['id']}/newer", {"file": file, "version": 1})
        self.assertEqual(answer.json()["version"], 2)
        one = Evidence.objects.select_related("artefact").get(copies__given=given["id"], portfolio=self.book)
        assert one.artefact is not None
        self.assertEqual(one.artefact.stored_id, CupboardItem.objects.get().stored_id)
        run_waiting()
        told = [one["what"] for one in self.ok(self.book.enrolment.person, "GET", "/notices")["lines"]]
        self.assertIn("copy_renewed", told)

    def test_an_own_copy_that_was_taken_out_stays_as_it_is(self) -> None:
        made = self.put_in()
        copy = self.take(made)
        self.ok(self.book.enrolment.person, "DELETE", f"/copies/{copy['id']}")
        self.change(made, html="<p>Wash them twice.</p>")
        self.assertEqual(CupboardCopy.objects.get().content, 1)
        self.assertEqual(GivenOut.objects.count(), 0)


class AtOnce(TransactionTestCase):
    """Two who press at the same moment, over two real connections."""

    def test_two_who_give_the_same_give_it_once(self) -> None:
        plot = klass()
        pocket = plot.pocket()
        books = [plot.student(f"s{at}", f"Ada{at}", "Blom") for at in range(5)]
        other = plot.staff("marsh", Role.CO_TEACHER)
        plan = keeping.ItemPlan("Sheet", html="<p>Wash.</p>")
        item = keeping.put_in(plot.lead, plot.group.pk, ItemKind.PAGE, plan, NOW)

        def press(person: Any) -> Any:
            return lambda: giving.give(person, giving.Giving(item.pk, pocket.pk), f"key of {person.pk}", NOW)

        done = at_once(press(plot.lead), press(other))
        self.assertEqual(sorted(type(one).__name__ for one in done), ["GivenOut", "Invalid"])
        self.assertEqual(CupboardCopy.objects.count(), len(books))
        self.assertEqual(list(miscounted()), [])
