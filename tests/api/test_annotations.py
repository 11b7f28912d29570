"""What is said on a submission: drafts of their marker, seen with the outcome, answered, settled, mended by."""

from __future__ import annotations

import json
from datetime import timedelta
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from coatpeg.core.policy import Role
from coatpeg.events.models import Event
from coatpeg.handins.models import HandIn
from coatpeg.marking.models import Annotation
from coatpeg.notices.models import Notice
from coatpeg.portfolios.evidence import commands as evidence
from coatpeg.portfolios.models import Evidence, TextRevision
from tests import builders, recordings
from tests.api.case import ApiCase
from tests.builders import NOW, klass

WORDS = "A seed needs water. It needs warmth, and it needs air."


class Said(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.book = self.plot.student("thandi")
        self.thandi = self.book.enrolment.person
        self.pocket = self.plot.pocket("Q1", "page")
        evidence.write_page(self.thandi, self.book.pk, self.pocket.pk, WORDS, 0, NOW)
        self.page = Evidence.objects.get(pocket=self.pocket)
        self.handed = builders.hand_in(self.book, self.plot.handin(self.pocket))
        self.path = f"/submissions/{self.handed.pk}"
        self.lead = self.plot.lead

    def words(self, exact: str) -> dict[str, Any]:
        return {"pocket": self.pocket.pk, "evidence": self.page.pk, "part": "text", "words": {"exact": exact}}

    def say(self, key: str = "0a0a0a0a", **body: Any) -> Any:
        return self.ok(self.lead, "PUT", f"{self.path}/annotations/{key}", {"kind": "comment", "text": "Why?", **body})

    def seen(self, person: Any) -> list[Any]:
        found: list[Any] = self.ok(person, "GET", f"{self.path}/annotations")
        return found

    def send_back(self) -> None:
        self.ok(self.lead, "POST", f"{self.path}/send-back", {"feedback": "Nearly."})


class Drafts(Said):
    def test_a_draft_is_for_those_who_mark_until_the_outcome_and_again_once_that_is_reopened(self) -> None:
        marsh = self.plot.staff("marsh", Role.MARKER)
        made = self.say(target=self.words("needs  warmth,\nand"))
        self.assertEqual(made["target"]["words"]["exact"], "needs warmth, and")
        self.assertEqual((made["target"]["words"]["start"], made["target"]["words"]["end"]), (23, 40))
        self.assertEqual([len(self.seen(one)) for one in (self.lead, marsh, self.thandi)], [1, 1, 0])
        self.assertEqual(self.ok(self.thandi, "GET", f"/portfolios/{self.book.pk}/annotations"), [])
        self.send_back()
        self.assertEqual(
            [one["shown"] for who in (self.lead, marsh, self.thandi) for one in self.seen(who)], [True] * 3
        )
        (on_work,) = self.ok(self.thandi, "GET", f"/portfolios/{self.book.pk}/annotations")
        self.assertEqual(on_work["text"], "Why?")
        self.assertEqual(Event.objects.get(verb="mark_released").data["annotations"], 1)
        self.ok(self.lead, "POST", f"{self.path}/reopen")
        self.assertEqual([len(self.seen(one)) for one in (self.lead, marsh, self.thandi)], [1, 1, 0])
        # The next outcome, whoever gives it, shows again what was seen; a draft of somebody else stays one.
        self.ok(marsh, "PUT", f"{self.path}/annotations/0c0c0c0c", {"kind": "comment", "text": "Mine."})
        self.ok(self.lead, "POST", f"{self.path}/accept", {"feedback": "", "version": 1})
        self.assertEqual([one["text"] for one in self.seen(self.thandi)], ["Why?"])
        self.assertEqual(self.ok(marsh, "POST", f"{self.path}/shown-annotations"), {"count": 1})
        self.assertEqual([one["text"] for one in self.seen(self.thandi)], ["Why?", "Mine."])
        told = Notice.objects.get(what="annotated")
        self.assertEqual(told.tell_at - told.at, timedelta(seconds=10))

    def test_the_same_sent_again_is_one_and_an_older_version_loses_nothing(self) -> None:
        first = self.say()
        self.assertEqual(self.say()["version"], first["version"])
        second = self.say(text="Why so?", version=1)
        self.assertEqual((second["id"], second["version"]), (first["id"], 2))
        answer = self.call(
            self.lead, "PUT", f"{self.path}/annotations/0a0a0a0a", {"kind": "comment", "text": "No", "version": 1}
        )
        self.assertEqual((answer.status_code, answer.json()["text"]), (409, "Why so?"))
        self.assertEqual([one["text"] for one in self.seen(self.lead)], ["Why so?"])

    def test_another_markers_comment_is_not_changed_or_taken_back(self) -> None:
        made = self.say()
        marsh = self.plot.staff("marsh", Role.MARKER)
        body = {"kind": "comment", "text": "Mine now", "version": 1}
        self.assertEqual(self.call(marsh, "PUT", f"{self.path}/annotations/0a0a0a0a", body).status_code, 403)
        self.assertEqual(self.call(marsh, "DELETE", f"/annotations/{made['id']}").status_code, 404)
        self.send_back()
        self.assertEqual(self.call(marsh, "DELETE", f"/annotations/{made['id']}").status_code, 403)

    def test_what_the_student_sees_stands_can_be_taken_back_and_is_on_record(self) -> None:
        made = self.say()
        self.send_back()
        again = {"kind": "comment", "text": "Other", "version": made["version"]}
        self.assertEqual(self.call(self.lead, "PUT", f"{self.path}/annotations/0a0a0a0a", again).status_code, 409)
        self.ok(self.lead, "DELETE", f"/annotations/{made['id']}")
        self.assertEqual(self.seen(self.thandi), [])
        self.ok(self.lead, "POST", f"/annotations/{made['id']}/restore")
        self.assertEqual(len(self.seen(self.thandi)), 1)
        verbs = Event.objects.filter(verb__startswith="annotation_").order_by("pk").values_list("verb", flat=True)
        self.assertEqual(list(verbs), ["annotation_removed", "annotation_restored"])

    def test_places_that_are_not_in_the_submission_are_refused(self) -> None:
        for body, where in (
            ({"target": self.words("needs soil")}, "words"),
            ({"target": {**self.words("water"), "pocket": 1}}, "target"),
            ({"target": {"pocket": self.pocket.pk, "row": 7}}, "row"),
            ({"target": {**self.words("water"), "spot": {"x": 1, "y": 1}}}, "target"),
            ({"kind": "highlight", "target": {"pocket": self.pocket.pk}}, "words"),
            ({"kind": "suggestion", "target": self.words("water")}, "wording"),
            ({"kind": "ink", "target": self.words("water")}, "target"),
            ({"text": " "}, "text"),
        ):
            with self.subTest(body):
                body = {"kind": "comment", "text": "So", **body}
                if body["kind"] == "ink":
                    body["strokes"] = [{"colour": "rust", "width": 40, "points": [1, 1, 50]}]
                answer = self.call(self.lead, "PUT", f"{self.path}/annotations/0a0a0a0a", body)
                self.assertEqual((answer.status_code, answer.json()["where"]), (422, where))
        self.assertFalse(Annotation.objects.exists())

    def test_a_hundred_thousand_points_of_ink_are_refused_and_a_drawing_is_kept(self) -> None:
        pocket = self.plot.pocket("Bed", artefacts=1)
        one = builders.add_picture(self.book, pocket)
        handed = builders.hand_in(self.book, self.plot.handin(pocket))
        path = f"/submissions/{handed.pk}/annotations/0d0d0d0d"
        target = {"pocket": pocket.pk, "evidence": one.pk, "part": "artefact"}
        body: dict[str, Any] = {"kind": "ink", "target": target}
        body["strokes"] = [{"colour": "sea", "width": 40, "points": [1, 2, 50] * 100_000}]
        answer = self.call(self.lead, "PUT", path, body)
        self.assertEqual((answer.status_code, answer.json()["where"]), (422, "strokes"))
        body["strokes"] = [{"colour": "sea", "width": 40, "points": [1, 2, 50] * 5_000}]
        self.assertEqual(self.ok(self.lead, "PUT", path, body)["strokes"], body["strokes"])

    def test_a_voice_is_heard_by_who_may_see_it(self) -> None:
        sound = SimpleUploadedFile("said.wav", recordings.sound())
        client = self.client_of(self.lead)
        self.assertEqual(client.post(f"/api{self.path}/annotations/0e0e0e0e/voice", {"file": sound}).status_code, 200)
        (made,) = self.seen(self.lead)
        self.assertTrue(made["voice"])
        # Its gist beside it.
        self.say("0e0e0e0e", text="Say why.", version=made["version"])
        heard = f"/annotations/{made['id']}/voice"
        self.assertEqual(self.call(self.thandi, "GET", heard).status_code, 404)
        self.send_back()
        self.assertEqual(self.call(self.thandi, "GET", heard).status_code, 200)
        picture = SimpleUploadedFile("card.jpg", builders.jpeg())
        self.assertEqual(client.post(f"/api{self.path}/annotations/0f0f0f0f/voice", {"file": picture}).status_code, 422)
        self.assertEqual(client.post(f"/api{self.path}/annotations/0f0f0f0f/voice").status_code, 422)

    def test_a_recording_that_was_cut_off_is_kept_as_far_as_it_goes(self) -> None:
        whole = recordings.sound()
        cut = SimpleUploadedFile("said.wav", whole[: len(whole) // 2])
        answer = self.client_of(self.lead).post(f"/api{self.path}/annotations/0e0e0e0e/voice", {"file": cut})
        self.assertEqual((answer.status_code, answer.json()["voice"]), (200, True))


class Evidenced(Said):
    def test_a_level_is_pinned_to_what_it_rests_on_and_the_student_sees_why(self) -> None:
        made = {"kind": "comment", "text": "Here you say why.", "target": self.words("warmth"), "criterion": "care"}
        path = f"{self.path}/annotations/0a0a0a0a"
        answer = self.call(self.lead, "PUT", path, made)
        self.assertEqual((answer.status_code, answer.json()["where"]), (422, "criterion"))
        levels = [{"key": key, "title": key, "points": points} for key, points in (("low", 0), ("high", 1))]
        row = {"key": "care", "title": "Care", "weight": 1, "says": ["", ""]}
        HandIn.objects.filter(pk=self.handed.handin_id).update(
            rubric={"levels": levels, "criteria": [row], "halves": False}
        )
        self.ok(self.lead, "PUT", path, made)
        self.ok(self.lead, "POST", f"{self.path}/accept", {"feedback": "", "levels": {"care": ["high"]}})
        (seen,) = self.seen(self.thandi)
        self.assertEqual((seen["criterion"], seen["criterion_title"]), ("care", "Care"))


class Threads(Said):
    def test_both_sides_answer_staff_settle_and_the_next_answer_opens_it_again(self) -> None:
        made = self.say()
        path = f"/annotations/{made['id']}"
        self.assertEqual(self.call(self.thandi, "POST", f"{path}/answers", {"text": "Because"}).status_code, 404)
        self.send_back()
        answer = self.ok(self.thandi, "POST", f"{path}/answers", {"text": "Because of the air."})
        (seen,) = self.seen(self.lead)
        self.assertEqual([(one["text"], one["mine"]) for one in seen["answers"]], [("Because of the air.", False)])
        self.ok(self.lead, "POST", f"{path}/settled", {"settled": True})
        self.assertEqual(self.call(self.thandi, "POST", f"{path}/settled", {"settled": False}).status_code, 403)
        self.assertEqual(self.seen(self.thandi)[0]["settled_by"], self.lead.full_name)
        self.ok(self.lead, "POST", f"{path}/answers", {"text": "Write that."})
        self.assertIsNone(self.seen(self.thandi)[0]["settled_at"])
        self.ok(self.thandi, "DELETE", f"/answers/{answer['id']}")
        self.assertEqual([one["text"] for one in self.seen(self.lead)[0]["answers"]], ["Write that."])
        self.assertEqual(self.call(self.lead, "POST", f"/answers/{answer['id']}/restore").status_code, 403)
        self.assertEqual(self.call(self.thandi, "POST", f"{path}/answers", {"text": " "}).status_code, 422)

    def test_a_comment_is_ticked_off_by_its_student(self) -> None:
        made = self.say()
        self.send_back()
        self.ok(self.thandi, "POST", f"/annotations/{made['id']}/done", {"done": True})
        self.assertIsNotNone(self.seen(self.lead)[0]["done_at"])
        self.ok(self.thandi, "POST", f"/annotations/{made['id']}/done", {"done": False})
        self.assertIsNone(self.seen(self.lead)[0]["done_at"])
        self.assertEqual(
            self.call(self.lead, "POST", f"/annotations/{made['id']}/done", {"done": True}).status_code, 403
        )


class Wording(Said):
    def suggest(self, exact: str, wording: str) -> str:
        made = self.say(kind="suggestion", text="", wording=wording, target=self.words(exact))
        self.send_back()
        return f"/annotations/{made['id']}/choice"

    def text(self) -> str:
        return Evidence.objects.get(pk=self.page.pk).text

    def test_what_is_taken_stands_in_the_text_with_a_revision_and_who_and_when(self) -> None:
        path = self.suggest("It needs warmth", "It also needs warmth")
        self.assertEqual(self.call(self.lead, "POST", path, {"choice": "taken"}).status_code, 403)
        self.ok(self.thandi, "POST", path, {"choice": "taken"})
        self.assertEqual(self.text(), "A seed needs water. It also needs warmth, and it needs air.")
        self.assertEqual(TextRevision.objects.filter(evidence=self.page).count(), 2)
        self.ok(self.thandi, "POST", path, {"choice": "taken"})
        self.assertEqual(self.text().count("also"), 1)
        (seen,) = self.seen(self.lead)
        self.assertEqual(seen["choice"], "taken")
        self.assertIsNotNone(seen["chosen_at"])

    def test_what_is_left_changes_nothing(self) -> None:
        path = self.suggest("It needs warmth", "It also needs warmth")
        self.ok(self.thandi, "POST", path, {"choice": "left"})
        self.assertEqual(self.text(), WORDS)

    def test_words_that_are_gone_are_said_and_nothing_is_written(self) -> None:
        path = self.suggest("It needs warmth", "It also needs warmth")
        self.page.refresh_from_db()
        evidence.write_page(self.thandi, self.book.pk, self.pocket.pk, "All is new here.", self.page.version, NOW)
        answer = self.call(self.thandi, "POST", path, {"choice": "taken"})
        self.assertEqual(answer.status_code, 409)
        self.assertIn("It needs warmth", answer.json()["title"])
        self.assertEqual(self.text(), "All is new here.")
        self.assertEqual(self.seen(self.thandi)[0]["choice"], "")

    def test_a_rich_text_keeps_its_form_and_words_across_two_forms_are_left_alone(self) -> None:
        html = "<p>A seed needs <strong>water</strong>.</p><p>Water &amp; air, it needs.</p>"
        self.ok(self.lead, "POST", f"{self.path}/send-back", {"feedback": ""})
        page = evidence.write_page(self.thandi, self.book.pk, self.pocket.pk, "", self.page.version, NOW, html=html)
        again = builders.hand_in(self.book, self.handed.handin, seen=1)
        self.path = f"/submissions/{again.pk}"
        first = self.say("1a1a1a1a", kind="suggestion", text="", wording="air & sun", target=self.words("& air"))
        second = self.say("1b1b1b1b", kind="suggestion", text="", wording="rain", target=self.words("needs water"))
        self.send_back()
        self.ok(self.thandi, "POST", f"/annotations/{first['id']}/choice", {"choice": "taken"})
        self.assertEqual(
            Evidence.objects.get(pk=page.pk).html,
            "<p>A seed needs <strong>water</strong>.</p><p>Water air &amp; sun, it needs.</p>",
        )
        refused = self.call(self.thandi, "POST", f"/annotations/{second['id']}/choice", {"choice": "taken"})
        self.assertEqual((refused.status_code, refused.json()["where"]), (422, "choice"))

    def test_locked_work_takes_no_wording(self) -> None:
        made = self.say(kind="suggestion", text="", wording="rain", target=self.words("water"))
        self.ok(self.lead, "POST", f"{self.path}/accept", {"feedback": ""})
        answer = self.call(self.thandi, "POST", f"/annotations/{made['id']}/choice", {"choice": "taken"})
        self.assertEqual(answer.status_code, 403)
        self.assertEqual(self.text(), WORDS)


class Files(Said):
    def bring(self, document: Any) -> Any:
        content = document if isinstance(document, bytes) else json.dumps(document).encode()
        file = SimpleUploadedFile("said.jsonld", content)
        return self.client_of(self.lead).post(f"/api{self.path}/web-annotations", {"file": file})

    def test_what_goes_out_comes_in_again_the_same_once(self) -> None:
        self.say(target=self.words("warmth"))
        self.say("0b0b0b0b", kind="suggestion", wording="rain", text="", target=self.words("water"))
        taken = self.call(self.lead, "GET", f"{self.path}/web-annotations")
        self.assertEqual(taken["Content-Type"], 'application/ld+json; profile="http://www.w3.org/ns/anno.jsonld"')
        document = json.loads(taken.content)
        self.assertEqual(document["total"], 2)
        Annotation.objects.all().delete()
        self.assertEqual(self.bring(document).json(), {"count": 2, "notes": []})
        self.assertEqual(self.bring(document).json(), {"count": 0, "notes": []})
        self.assertEqual(
            [(one["kind"], one["target"]["words"]["exact"], one["wording"]) for one in self.seen(self.lead)],
            [("comment", "warmth", None), ("suggestion", "water", "rain")],
        )
        self.assertEqual(json.loads(self.call(self.thandi, "GET", f"{self.path}/web-annotations").content)["total"], 0)

    def test_a_file_from_elsewhere_keeps_what_is_not_ours_and_says_what_it_was(self) -> None:
        answer = self.bring(
            {
                "type": "Annotation",
                "motivation": "commenting",
                "rights": "https://licence.example/",
                "body": [{"type": "Image", "id": "urn:x"}, {"type": "TextualBody", "value": "Nice"}],
                "target": {"source": "https://elsewhere.example/", "selector": {"type": "HoloSelector", "at": 3}},
            }
        ).json()
        self.assertEqual(answer["count"], 1)
        self.assertEqual(len(answer["notes"]), 2)
        out = json.loads(self.call(self.lead, "GET", f"{self.path}/web-annotations").content)
        self.assertEqual(out["first"]["items"][0]["rights"], "https://licence.example/")

    def test_files_that_are_none_are_refused(self) -> None:
        for content in (b"", b"\xff", b"[" * 100_000, {"a": 1}, [], {"items": [{"target": "x"}] * 5_001}):
            answer = self.bring(content)
            self.assertEqual((answer.status_code, answer.json()["where"]), (422, "file"), str(content)[:40])


class Again(Said):
    def test_a_resubmission_says_what_changed_since_the_one_before(self) -> None:
        self.assertEqual(self.ok(self.lead, "GET", f"{self.path}/changes"), {"since": None, "changed": []})
        self.send_back()
        self.page.refresh_from_db()
        text = WORDS.replace("water", "rain")
        evidence.write_page(self.thandi, self.book.pk, self.pocket.pk, text, self.page.version, NOW)
        again = builders.hand_in(self.book, self.handed.handin, seen=1)
        found = self.ok(self.lead, "GET", f"/submissions/{again.pk}/changes")
        (one,) = found["changed"]
        self.assertEqual((found["since"], one["what"], one["new_words"], one["gone_words"]), (1, "words", 1, 1))
        self.assertEqual([part["text"] for part in one["parts"] if part["what"] == "new"], ["rain"])
