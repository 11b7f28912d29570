"""A student's work: adding, writing, locking, and every kind of bad input."""

import io
import os
from datetime import timedelta
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test import override_settings
from PIL import Image, ImageFile

from coatpeg.core.portfolios.texts import LONGEST_TEXT
from coatpeg.events.models import Event
from coatpeg.files import keeping
from coatpeg.files.models import StoredFile
from coatpeg.handins.models import Submission
from coatpeg.portfolios.models import Artefact, Evidence, TextRevision
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.case import ApiCase
from tests.builders import NOW, jpeg, klass


class WorkCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = klass()
        self.card = self.plot.pocket()
        self.about = self.plot.pocket("About me", "page", starter="I am …", measure="words", least=3)
        self.finds = self.plot.pocket("Useful finds", "links", artefacts=3)
        self.thandi = self.plot.student("thandi")
        self.person = self.thandi.enrolment.person

    def pocket_path(self, pocket: object, rest: str = "") -> str:
        return f"/portfolios/{self.thandi.pk}/pockets/{pocket.pk}{rest}"

    def upload(self, name: str, data: bytes, status: int = 200, title: str | None = None) -> dict[str, object]:
        client = self.client_of(self.person)
        body = {"file": SimpleUploadedFile("upload", data)} | (
            {"title": title} if title is not None else {"title": name}
        )
        response = client.post("/api" + self.pocket_path(self.card, "/files"), body)
        self.assertEqual(response.status_code, status, response.content[:400])
        return response.json()

    def opened(self) -> dict:
        return self.ok(self.person, "GET", self.pocket_path(self.card))


class AddingFiles(WorkCase):
    def test_a_picture_is_kept_clean_with_thumbnails(self) -> None:
        self.upload("card.jpg", jpeg(size=(900, 600)))
        artefact = Artefact.objects.get()
        assert artefact.stored is not None
        self.assertEqual((artefact.kind, artefact.stored.width, artefact.stored.height), ("picture", 900, 600))
        self.assertNotEqual(artefact.came_sha256, artefact.stored.sha256, "both hashes are recorded")
        event = Event.objects.get(verb="artefact_added")
        self.assertEqual((event.data["came"], event.data["kept"]), (artefact.came_sha256, artefact.stored.sha256))
        with keeping.opened(artefact.stored.sha256, "small") as small:
            self.assertEqual(Image.open(small).size, (360, 240))

    def test_the_same_picture_is_stored_once(self) -> None:
        self.upload("card.jpg", jpeg())
        self.upload("again.jpg", jpeg())
        self.assertEqual((StoredFile.objects.count(), Artefact.objects.count()), (1, 2))

    def test_a_broken_write_leaves_no_row_and_no_half_file(self) -> None:
        data = jpeg((1, 2, 3), size=(33, 44))  # kept by no other test: the same bytes would not be written again
        with (
            mock.patch("coatpeg.files.storage.os.replace", side_effect=OSError("the disk is broken")),
            self.assertLogs("django.request", "ERROR"),
        ):
            self.assertIn("on our side", self.upload("card.jpg", data, 500)["title"])
        self.assertEqual(StoredFile.objects.count(), 0)
        folder = keeping.store().path("")
        self.assertFalse([name for _, _, names in os.walk(folder) for name in names if name.endswith(".part")])

    def test_a_form_says_so_where_the_disk_is_full(self) -> None:
        with mock.patch("coatpeg.files.keeping.shutil.disk_usage") as usage:
            usage.return_value.free = keeping.ROOM_LEFT + 9
            self.assertIn("no room", self.upload("card.jpg", jpeg((4, 5, 6)), 403)["title"])
        self.assertEqual(StoredFile.objects.count(), 0)

    def test_bytes_that_are_missing_come_back_with_the_same_file(self) -> None:
        for name, data in (("card.jpg", jpeg((7, 8, 9))), ("notes.txt", b"Soup, then bread.\n")):
            with self.subTest(name):
                self.upload(name, data)
                stored = StoredFile.objects.latest("pk")
                keeping.store().delete(keeping.path_of(stored.sha256))
                self.assertEqual(list(keeping.damaged()), [stored.sha256])
                self.upload(name, data)
                self.assertEqual(list(keeping.damaged()), [])

    def test_bad_files_are_told_what_they_are_and_nothing_is_kept(self) -> None:
        cut = jpeg(size=(400, 400))
        cases = {
            "not a picture": ("card.jpg", b"just some words", "what is in it is not a picture"),
            "a page named like a picture": ("card.png", b"<html><script>alert(1)</script>", "not a picture"),
            "truncated": ("card.jpg", cut[: len(cut) // 2], "broken or only partly there"),
            "a header only": ("card.png", b"\x89PNG\r\n\x1a\n", "broken or only partly there"),
            "empty": ("card.jpg", b"", "empty (0 bytes)"),
        }
        for name, (title, data, words) in cases.items():
            # A library of ours turns this on as it is loaded.
            with self.subTest(name), mock.patch.object(ImageFile, "LOAD_TRUNCATED_IMAGES", True):
                found = self.upload(title, data, 422)
                self.assertIn(words, found["title"])
                self.assertIn(title, found["title"])
                self.assertTrue(found["fix"])
        self.assertEqual((Artefact.objects.count(), StoredFile.objects.count()), (0, 0))

    def test_more_pixels_than_fit_into_memory(self) -> None:
        target = io.BytesIO()
        Image.new("1", (30_000, 30_000)).save(target, "PNG")
        self.assertIn("80 million is the most", self.upload("huge.png", target.getvalue(), 422)["title"])

    def test_names_are_tidied_and_it_is_said(self) -> None:
        for raw, kept in (("../../card.jpg", "card.jpg"), ("ca\x00rd.jpg", "card.jpg")):
            found = self.upload(raw, jpeg())
            self.assertIn(kept, found["note"])
            self.assertEqual(Artefact.objects.latest("pk").title, kept)
        self.assertIn("304 characters", self.upload("x" * 300 + ".jpg", jpeg())["note"])

    @override_settings(UPLOAD_LIMIT=1000)
    def test_over_the_limit_is_refused_before_it_is_read(self) -> None:
        with mock.patch("django.core.handlers.wsgi.WSGIRequest._load_post_and_files") as read:
            found = self.upload("long.bin", b"x" * 200_000, 413)
            read.assert_not_called()
        self.assertIn("the most this school takes", found["title"])

    def test_anything_else_is_kept_as_it_is_and_only_downloads(self) -> None:
        page = b"<html><script>alert(1)</script></html>"
        self.upload("page.html", page)
        artefact = Artefact.objects.get()
        response = self.call(self.person, "GET", f"/artefacts/{artefact.pk}/file")
        self.assertEqual(response.getvalue(), page)
        self.assertTrue(response["Content-Disposition"].startswith("attachment"))
        self.assertEqual(response["Content-Type"], "application/octet-stream")
        self.assertEqual(response["Content-Security-Policy"], "default-src 'none'; sandbox")
        self.assertEqual(response["X-Content-Type-Options"], "nosniff")
        self.assertEqual(response["Cache-Control"], "private, no-cache")

    def test_a_picture_is_shown_in_place_and_asked_for_anew(self) -> None:
        self.upload("card.jpg", jpeg())
        path = f"/artefacts/{Artefact.objects.get().pk}/file"
        first = self.call(self.person, "GET", path)
        self.assertEqual(
            (first["Content-Type"], "attachment" in first.get("Content-Disposition", "")), ("image/jpeg", False)
        )
        self.assertEqual(self.call(self.person, "GET", path, headers={"If-None-Match": first["ETag"]}).status_code, 304)

    def test_links_are_judged_by_their_form(self) -> None:
        path = self.pocket_path(self.card, "/links")
        for bad in ("plants.example", "javascript:alert(1)", "C:\\card.jpg", ""):
            self.problem(422, self.person, "POST", path, {"link": bad})
        self.ok(self.person, "POST", path, {"link": "https://plants.example/a", "title": "When to plant"})
        self.assertEqual(Artefact.objects.get().title, "When to plant")

    def test_a_pocket_of_links_takes_no_file(self) -> None:
        response = self.client_of(self.person).post(
            "/api" + self.pocket_path(self.finds, "/files"), {"file": SimpleUploadedFile("card.jpg", jpeg())}
        )
        self.assertEqual(response.status_code, 422)
        self.assertEqual(Evidence.objects.count(), 0)


class Writing(WorkCase):
    def save(self, evidence: Evidence, text: str, version: int, status: int = 200) -> dict:
        response = self.call(
            self.person, "PUT", f"/evidence/{evidence.pk}/reflection", {"text": text, "version": version}
        )
        self.assertEqual(response.status_code, status, response.content[:300])
        return response.json()

    def test_what_is_wanted_shrinks(self) -> None:
        self.assertEqual((self.opened()["met"], self.opened()["wanted"]), (0, 4))
        evidence = builders.add_picture(self.thandi, self.card)
        self.assertEqual(self.opened()["met"], 1)
        self.save(evidence, "One sentence.", 0)
        self.assertEqual(self.opened()["met"], 1, "two sentences are wanted")
        self.save(evidence, "One sentence. And another.", 1)
        self.assertEqual(self.opened()["met"], 2)

    def test_a_save_over_an_old_version_keeps_both_texts(self) -> None:
        evidence = builders.add_picture(self.thandi, self.card)
        self.save(evidence, "From the tablet.", 0)
        found = self.save(evidence, "From the phone.", 0, 409)
        self.assertEqual((found["text"], found["version"]), ("From the tablet.", 1))
        self.assertEqual(Evidence.objects.get().text, "From the tablet.")

    def test_the_same_text_again_is_no_conflict(self) -> None:
        evidence = builders.add_picture(self.thandi, self.card)
        self.save(evidence, "Sent, but the answer was lost.", 0)
        self.assertEqual(self.save(evidence, "Sent, but the answer was lost.", 0)["version"], 1)

    def test_100_kilobytes_are_refused_and_the_old_text_stays(self) -> None:
        evidence = builders.reflect(builders.add_picture(self.thandi, self.card), "Short.")
        found = self.save(evidence, "x" * 100_000, 1, 422)
        self.assertIn(f"100000 characters; {LONGEST_TEXT} is the most", found["title"])
        self.assertEqual(Evidence.objects.get().text, "Short.")

    def test_five_megabytes_are_refused_before_they_are_read(self) -> None:
        evidence = builders.add_picture(self.thandi, self.card)
        self.save(evidence, "x" * 5_000_000, 0, 413)

    def test_a_page_counts_once_it_differs_from_its_starter(self) -> None:
        path = self.pocket_path(self.about, "/page")
        self.ok(self.person, "PUT", path, {"text": "I am …", "version": 0})
        portfolio = self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}")
        self.assertEqual((portfolio["pockets"][1]["status"], portfolio["pockets"][1]["met"]), ("empty", 0))
        self.ok(self.person, "PUT", path, {"text": "I am Thandi and I like beans.", "version": 1})
        portfolio = self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}")
        self.assertEqual((portfolio["pockets"][1]["status"], portfolio["pockets"][1]["met"]), ("working", 1))

    def test_artefacts_lie_beside_the_text_of_a_page(self) -> None:
        builders.add_picture(self.thandi, self.about, name="bed.jpg")
        self.ok(self.person, "POST", self.pocket_path(self.about, "/links"), {"link": "https://seeds.example/x"})
        line = self.ok(self.person, "GET", f"/portfolios/{self.thandi.pk}")["pockets"][1]
        self.assertEqual((line["status"], line["met"]), ("working", 0), "work, and the text is wanted as before")
        path = self.pocket_path(self.about, "/page")
        self.ok(self.person, "PUT", path, {"text": "I am Thandi and I like beans.", "version": 0})
        opened = self.ok(self.person, "GET", self.pocket_path(self.about))
        self.assertEqual([one["artefact"] and one["artefact"]["title"] for one in opened["evidence"]][1], "bed.jpg")
        self.assertEqual((opened["met"], [one["count"] for one in opened["chips"]]), (1, [7]))
        handin = self.plot.handin(self.about, title="About me")
        builders.hand_in(self.thandi, handin)
        desk = self.ok(self.plot.lead, "GET", f"/submissions/{Submission.objects.get().pk}")["pockets"][0]
        self.assertEqual(([one["what"] for one in desk["chips"]], len(desk["evidence"])), (["page"], 3))
        self.assertEqual(list(differences()), [])

    def test_autosaves_of_one_sitting_are_one_revision_and_one_event(self) -> None:
        evidence = builders.add_picture(self.thandi, self.card)
        for number, seconds in enumerate((0, 5, 10)):
            builders.reflect(evidence, f"Sentence {'x' * number}", NOW + timedelta(seconds=seconds))
        self.assertEqual(TextRevision.objects.count(), 1)
        self.assertEqual(Event.objects.filter(verb="text_written").count(), 1)
        builders.reflect(evidence, "An hour later", NOW + timedelta(hours=1))
        self.assertEqual(
            list(TextRevision.objects.order_by("version").values_list("text", flat=True))[-1], "An hour later"
        )
        self.assertEqual(TextRevision.objects.count(), 2)

    def test_events_carry_hashes_and_never_the_content(self) -> None:
        builders.reflect(builders.add_picture(self.thandi, self.card, name="secret.jpg"), "Very secret words.")
        self.ok(self.person, "POST", self.pocket_path(self.card, "/links"), {"link": "https://hidden.example/x"})
        for event in Event.objects.all():
            self.assertNotRegex(str(event.data), "secret|hidden|Thandi")

    def test_taken_out_and_brought_back_with_its_reflection(self) -> None:
        evidence = builders.fill(self.thandi, self.card)
        self.ok(self.person, "DELETE", f"/evidence/{evidence.pk}")
        self.assertEqual(self.opened()["evidence"], [])
        self.problem(404, self.person, "PUT", f"/evidence/{evidence.pk}/reflection", {"text": "x", "version": 1})
        self.ok(self.person, "POST", f"/evidence/{evidence.pk}/restore")
        self.assertEqual(self.opened()["evidence"][0]["text"], "One thing. Another thing.")
        self.assertEqual(list(differences()), [])


class Closed(WorkCase):
    def test_a_save_that_arrives_after_the_lock_is_refused_and_says_why(self) -> None:
        handin = self.plot.handin(self.card)
        evidence = builders.fill(self.thandi, self.card)
        builders.hand_in(self.thandi, handin)
        found = self.problem(
            403, self.person, "PUT", f"/evidence/{evidence.pk}/reflection", {"text": "Too late.", "version": 1}
        )
        self.assertIn("locked: it was handed in for “Recipe card”", found["title"])
        self.assertTrue(found["locked"])
        self.assertEqual(Evidence.objects.get().text, "One thing. Another thing.")
        self.problem(403, self.person, "DELETE", f"/evidence/{evidence.pk}")
        self.upload("more.jpg", jpeg(), 403)

    def test_pockets_that_open_later_are_retired_or_of_another_class(self) -> None:
        later = self.plot.pocket("Later", opens=NOW.date() + timedelta(days=3))
        retired = self.plot.pocket("Weather diary", retired_at=NOW)
        foreign = klass("9 Forge", "forge").pocket("Foreign")
        link = {"link": "https://plants.example"}
        self.assertIn(
            "opens on Sat 7 Nov",
            self.problem(403, self.person, "POST", self.pocket_path(later, "/links"), link)["title"],
        )
        self.assertIn(
            "no longer in use",
            self.problem(403, self.person, "POST", self.pocket_path(retired, "/links"), link)["title"],
        )
        self.problem(404, self.person, "POST", self.pocket_path(foreign, "/links"), link)

    def test_who_has_left_still_reads_and_no_longer_writes(self) -> None:
        enrolment = self.thandi.enrolment
        enrolment.last = NOW.date() - timedelta(days=1)
        enrolment.save()
        self.assertFalse(self.opened()["writable"])
        self.problem(
            403, self.person, "POST", self.pocket_path(self.card, "/links"), {"link": "https://plants.example"}
        )

    def test_sixty_artefacts_are_the_most(self) -> None:
        for number in range(60):
            Evidence.objects.create(
                portfolio=self.thandi,
                pocket=self.card,
                artefact=Artefact.objects.create(
                    portfolio=self.thandi, kind="link", title=f"{number}", link="https://a.b", made_at=NOW
                ),
                changed_at=NOW,
            )
        found = self.problem(
            422, self.person, "POST", self.pocket_path(self.card, "/links"), {"link": "https://plants.example"}
        )
        self.assertIn("60 artefacts", found["title"])

    def test_one_page_a_pocket_is_held_by_the_database(self) -> None:
        with connection.cursor() as cursor:
            cursor.execute("SHOW CREATE TABLE portfolios_evidence")
            self.assertIn("one_page_a_pocket", cursor.fetchone()[1])
