"""Files that come up in parts (tus 1.0.0), what they become, and what is refused."""

from __future__ import annotations

import base64
import tempfile
import threading
from datetime import timedelta
from pathlib import Path
from typing import Any
from unittest import mock

import pypdfium2
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.http import HttpResponse
from django.test import TransactionTestCase, override_settings

from coatpeg.core.errors import Busy
from coatpeg.files import keeping, uploads
from coatpeg.files.models import Upload
from coatpeg.files.storage import OwnedFile
from coatpeg.notices.fanning import fan_out
from coatpeg.notices.models import Notice
from coatpeg.people.models import Person
from coatpeg.portfolios.models import Artefact, Evidence, PocketContent
from tests import builders, recordings
from tests.api.case import ApiCase
from tests.builders import NOW, klass

BODY = "application/offset+octet-stream"
PDF = b"%PDF-1.4 " + bytes(range(256)) * 40


def metadata(**pairs: object) -> str:
    return ",".join(f"{key} {base64.b64encode(str(value).encode()).decode()}" for key, value in pairs.items())


class UploadCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.of = klass()
        self.pocket = self.of.pocket()
        self.portfolio = self.of.student("thandi")
        self.thandi = self.portfolio.enrolment.person
        folder = tempfile.TemporaryDirectory()  # of its own: other tests run beside these
        self.addCleanup(folder.cleanup)
        self.enterContext(self.settings(FILE_UPLOAD_TEMP_DIR=folder.name))

    def begin(self, size: int, name: str = "soil.pdf", person: Person | None = None, **more: object) -> HttpResponse:
        pairs = {"portfolio": self.portfolio.pk, "pocket": self.pocket.pk, "name": name, **more}
        return self.client_of(person or self.thandi).post(
            "/api/uploads",
            headers={"Tus-Resumable": "1.0.0", "Upload-Length": str(size), "Upload-Metadata": metadata(**pairs)},
        )

    def patch(self, address: str, at: int, data: bytes, person: Person | None = None, **headers: str) -> HttpResponse:
        return self.client_of(person or self.thandi).patch(
            address,
            data,
            content_type=headers.pop("content_type", BODY),
            headers={"Tus-Resumable": "1.0.0", "Upload-Offset": str(at), **headers},
        )

    def head(self, address: str, person: Person | None = None) -> HttpResponse:
        return self.client_of(person or self.thandi).head(address, headers={"Tus-Resumable": "1.0.0"})

    def send(self, data: bytes, name: str = "soil.pdf", **more: object) -> HttpResponse:
        begun = self.begin(len(data), name, **more)
        self.assertEqual(begun.status_code, 201, begun.content)
        return self.patch(begun["Location"], 0, data)

    def problem(self, response: HttpResponse, status: int, words: str) -> dict[str, Any]:
        self.assertEqual(response.status_code, status, response.content)
        found: dict[str, Any] = response.json()
        self.assertIn(words, f"{found['title']} {found['where']} {found['fix']}")
        self.assertEqual(response["Tus-Resumable"], "1.0.0")
        return found


class Protocol(UploadCase):
    """Sentences of the protocol's text (tus 1.0.0, 2016), each quoted in part."""

    def test_options_tell_version_extensions_and_the_most(self) -> None:
        answer = self.client_of(self.thandi).options("/api/uploads")
        self.assertEqual(answer.status_code, 204)
        self.assertEqual(answer["Tus-Version"], "1.0.0")
        self.assertEqual(set(answer["Tus-Extension"].split(",")), {"creation", "termination", "expiration"})
        self.assertEqual(answer["Tus-Max-Size"], str(settings.UPLOAD_LIMIT))

    def test_a_version_the_server_does_not_speak_is_412_with_those_it_does(self) -> None:
        begun = self.begin(10)
        for method in ("head", "patch", "delete"):
            answer = getattr(self.client_of(self.thandi), method)(begun["Location"], headers={"Tus-Resumable": "0.2.2"})
            self.assertEqual((answer.status_code, answer["Tus-Version"]), (412, "1.0.0"))

    def test_head_tells_offset_and_length_and_is_not_stored(self) -> None:
        begun = self.begin(len(PDF))
        self.patch(begun["Location"], 0, PDF[:700])
        answer = self.head(begun["Location"])
        self.assertEqual((answer["Upload-Offset"], answer["Upload-Length"]), ("700", str(len(PDF))))
        self.assertEqual((answer.status_code, answer["Cache-Control"]), (200, "no-store"))
        self.assertIn("GMT", answer["Upload-Expires"])

    def test_patch_in_parts_answers_204_with_the_new_offset(self) -> None:
        begun = self.begin(len(PDF))
        for at in range(0, len(PDF), 3000):
            answer = self.patch(begun["Location"], at, PDF[at : at + 3000])
            self.assertEqual((answer.status_code, answer["Upload-Offset"]), (204, str(min(at + 3000, len(PDF)))))
        evidence = Evidence.objects.get()
        assert evidence.artefact
        assert evidence.artefact.stored
        with keeping.opened(evidence.artefact.stored.sha256) as kept:
            self.assertEqual(kept.read(), PDF)
        self.assertEqual(evidence.artefact.title, "soil.pdf")

    def test_a_wrong_offset_is_409_and_writes_nothing(self) -> None:
        begun = self.begin(len(PDF))
        self.patch(begun["Location"], 0, PDF[:700])
        for at in (0, 699, 701):
            self.problem(self.patch(begun["Location"], at, PDF[at : at + 10]), 409, "700 bytes are here")
        self.assertEqual(self.head(begun["Location"])["Upload-Offset"], "700")

    def test_another_content_type_is_refused(self) -> None:
        begun = self.begin(10)
        self.problem(self.patch(begun["Location"], 0, b"12", content_type="text/plain"), 422, BODY)

    def test_termination_frees_it(self) -> None:
        begun = self.begin(10)
        ended = self.client_of(self.thandi).delete(begun["Location"], headers={"Tus-Resumable": "1.0.0"})
        self.assertEqual(ended.status_code, 204)
        self.assertEqual(self.head(begun["Location"]).status_code, 404)
        self.assertEqual(list(uploads._folder().iterdir()), [])

    def test_a_lying_length_is_refused_before_it_is_read(self) -> None:
        begun = self.begin(10)
        self.problem(self.patch(begun["Location"], 0, b"x" * 11), 422, "more than the 10 that were announced")
        self.assertEqual(self.head(begun["Location"])["Upload-Offset"], "0")

    def test_headers_that_are_no_numbers_or_no_metadata(self) -> None:
        for length in ("", "-1", "1e3", "٣", "9" * 40):
            answer = self.client_of(self.thandi).post(
                "/api/uploads", headers={"Tus-Resumable": "1.0.0", "Upload-Length": length.encode().decode("latin-1")}
            )
            self.problem(answer, 422, "Upload-Length")
        for pairs in ("name %%%", "name YQ==,name YQ==", "nämé YQ==", "name /w==", "x " + "A" * 5000):
            answer = self.client_of(self.thandi).post(
                "/api/uploads",
                headers={
                    "Tus-Resumable": "1.0.0",
                    "Upload-Length": "5",
                    "Upload-Metadata": pairs.encode().decode("latin-1"),
                },
            )
            self.problem(answer, 422, "Upload-Metadata")

    @override_settings(UPLOAD_LIMIT=1000)
    def test_more_than_the_school_takes(self) -> None:
        self.problem(self.begin(1001), 413, "the most this school takes")


class Becoming(UploadCase):
    def test_what_was_cut_goes_on_where_it_was(self) -> None:
        begun = self.begin(len(PDF))
        upload = Upload.objects.get()
        left = [PDF[:1000], PDF[1000:1500], b""]
        self.assertEqual(uploads.append(upload, 0, lambda most: left.pop(0), NOW), 1500)
        self.assertEqual(self.head(begun["Location"])["Upload-Offset"], "1500")
        self.patch(begun["Location"], 1500, PDF[1500:])
        self.assertEqual(Evidence.objects.count(), 1)

    def test_settled_again_it_stays_one(self) -> None:
        begun = self.begin(len(PDF))
        with mock.patch("coatpeg.files.uploads._become"):  # the server ends just after the last byte
            self.patch(begun["Location"], 0, PDF)
        self.assertFalse(Evidence.objects.exists())
        first = self.ok(self.thandi, "post", begun["Location"].removeprefix("/api") + "/settle")
        again = self.ok(self.thandi, "post", begun["Location"].removeprefix("/api") + "/settle")
        self.assertEqual((first["done"], first["evidence"]), (True, Evidence.objects.get().pk))
        self.assertEqual(first, again)
        self.assertEqual(self.head(begun["Location"])["Upload-Offset"], str(len(PDF)))

    def test_the_background_finishes_what_is_whole_and_forgets_what_is_old(self) -> None:
        begun = self.begin(len(PDF))
        with mock.patch("coatpeg.files.uploads._become"):
            self.patch(begun["Location"], 0, PDF)
        self.begin(99)
        self.assertEqual(uploads.sweep(NOW), 1)
        self.assertEqual(Evidence.objects.count(), 1)
        self.assertEqual(uploads.sweep(NOW + uploads.LIFE), 0)
        uploads.sweep(NOW + uploads.LIFE + timedelta(seconds=1))
        self.assertFalse(Upload.objects.exists())
        self.assertEqual(list(uploads._folder().iterdir()), [])
        self.assertEqual(Evidence.objects.count(), 1)

    def test_a_picture_is_turned_and_cropped(self) -> None:
        self.assertEqual(
            self.send(builders.jpeg(size=(60, 40)), "card.jpg", turn=90, crop="0,0,1,0.5").status_code, 204
        )
        stored = Artefact.objects.get().stored
        assert stored
        self.assertEqual((stored.width, stored.height), (40, 30))
        for turn, crop in (
            ("45", ""),
            ("x", ""),
            ("0", "0,0,1"),
            ("0", "0.5,0,0.5,1"),
            ("0", "0,0,2,1"),
            ("0", "nan,0,1,1"),
        ):
            self.problem(self.begin(5, turn=turn, crop=crop), 422, "turn")

    def test_pages_are_joined_in_their_order_whichever_comes_last(self) -> None:
        colours = ((250, 0, 0), (0, 250, 0), (0, 0, 250))
        begun = [
            self.begin(len(builders.jpeg(one)), f"p{at}.jpg", batch="b-1", place=at, places=3)
            for at, one in enumerate(colours)
        ]
        for at in (2, 0, 1):
            self.assertFalse(Evidence.objects.exists())
            self.patch(begun[at]["Location"], 0, builders.jpeg(colours[at]))
        artefact = Artefact.objects.get()
        assert artefact.stored
        self.assertEqual((artefact.kind, artefact.stored.media_type), ("scan", "application/pdf"))
        with keeping.opened(artefact.stored.sha256) as content:
            document = pypdfium2.PdfDocument(content.read())
        seen = [document[page].render().to_pil().getpixel((10, 10)) for page in range(len(document))]
        document.close()
        self.assertEqual([max(range(3), key=lambda place, one=one: one[place]) for one in seen], [0, 1, 2])
        self.assertEqual(self.call(self.thandi, "get", f"/artefacts/{artefact.pk}/thumbnails/small").status_code, 200)
        told = self.ok(self.thandi, "post", begun[0]["Location"].removeprefix("/api") + "/settle")
        self.assertEqual((told["done"], told["waits_for"]), (True, ""))

    def test_pages_are_joined_without_one_that_was_refused(self) -> None:
        for broken_comes in ("first", "last"):
            with self.subTest(broken_comes):
                batch = f"b-{broken_comes}"
                sent = [builders.jpeg((9, 9, 200)), b"\xff\xd8\xffno picture", builders.jpeg((200, 9, 9))]
                order = (1, 0, 2) if broken_comes == "first" else (0, 2, 1)
                begun = [self.begin(len(one), "p.jpg", batch=batch, place=at, places=3) for at, one in enumerate(sent)]
                answers = [self.patch(begun[at]["Location"], 0, sent[at]).status_code for at in order]
                self.assertEqual(sorted(answers), [204, 204, 422])
                artefact = Artefact.objects.latest("pk")
                assert artefact.stored
                with keeping.opened(artefact.stored.sha256) as content:
                    document = pypdfium2.PdfDocument(content.read())
                self.assertEqual((artefact.kind, len(document)), ("scan", 2))
                document.close()
        self.assertEqual(Evidence.objects.count(), 2)

    def test_a_page_that_never_arrives_does_not_take_the_others_with_it(self) -> None:
        size = len(builders.jpeg())
        for place in (0, 2):
            begun = self.begin(size, "p.jpg", batch="b", place=place, places=3)
            self.patch(begun["Location"], 0, builders.jpeg())
        late = self.begin(size, "p.jpg", batch="b", place=1, places=3)
        self.assertEqual((uploads.sweep(NOW + timedelta(hours=20)), Evidence.objects.count()), (0, 0))
        after = NOW + uploads.PAGE_WAITS
        self.assertTrue(uploads.to_see_to(after))
        self.assertEqual((uploads.sweep(after), uploads.sweep(after)), (1, 0))
        artefact = Artefact.objects.get()
        assert artefact.stored
        with keeping.opened(artefact.stored.sha256) as content:
            self.assertEqual(len(pypdfium2.PdfDocument(content.read())), 2)
        with self.at(after):
            fan_out.func()
            (line,) = self.ok(self.thandi, "get", "/notices")["lines"]
        self.assertEqual((line["what"], line["title"]), ("pages_missing", self.pocket.title))
        # The phone is found again: its page is an artefact of its own at once.
        self.patch(late["Location"], 0, builders.jpeg())
        self.assertEqual(Evidence.objects.count(), 2)

    def test_a_stop_between_keeping_and_joining_is_made_good(self) -> None:
        with mock.patch("coatpeg.files.uploads._join"):
            for place in range(2):
                begun = self.begin(len(builders.jpeg()), "p.jpg", batch="b", place=place, places=2)
                self.patch(begun["Location"], 0, builders.jpeg())
        self.assertTrue(uploads.to_see_to(NOW))
        self.assertEqual((uploads.sweep(NOW), Evidence.objects.count()), (1, 1))
        self.assertFalse(Notice.objects.filter(what="pages_missing").exists())

    def test_begun_again_under_the_same_key_it_is_the_same_upload(self) -> None:
        first, again = (self.begin(5, key="a1b2c3") for _ in range(2))
        self.assertEqual(first["Location"], again["Location"])
        self.assertNotEqual(self.begin(5, key="other")["Location"], first["Location"])
        self.assertEqual(Upload.objects.count(), 2)
        self.problem(self.begin(5, key="../x"), 422, "own key does not fit")

    def test_a_page_that_is_no_picture_and_a_batch_that_is_none(self) -> None:
        self.problem(self.send(PDF, batch="b", place=0, places=2), 422, "cannot be a page")
        for more in (
            {"batch": "b", "places": 1},
            {"batch": "b", "place": 2, "places": 2},
            {"batch": "b", "places": 99},
            {"batch": "../x", "places": 2},
        ):
            self.problem(self.begin(5, **more), 422, "joined")

    def test_what_cannot_be_taken_in_is_refused_for_good_with_the_reason(self) -> None:
        begun = self.begin(20, "card.jpg")
        self.problem(self.patch(begun["Location"], 0, b"not a picture at all"), 422, "what is in it is not a picture")
        self.problem(
            self.call(self.thandi, "post", begun["Location"].removeprefix("/api") + "/settle"),
            404,
            "what is in it is not a picture",
        )
        self.assertEqual(self.head(begun["Location"]).status_code, 404)
        self.assertFalse(Evidence.objects.exists())
        self.problem(self.begin(0, "empty.pdf"), 422, "is empty (0 bytes)")

    def test_a_pocket_locked_while_it_came_up(self) -> None:
        handin = self.of.handin(self.pocket)
        builders.fill(self.portfolio, self.pocket)
        begun = self.begin(len(PDF))
        self.patch(begun["Location"], 0, PDF[:100])
        builders.hand_in(self.portfolio, handin)
        self.problem(self.patch(begun["Location"], 100, PDF[100:]), 403, "Recipe card")
        self.assertEqual(Evidence.objects.count(), 1)

    def test_nobody_else_goes_on_with_it_or_begins_one(self) -> None:
        begun = self.begin(10)
        sam = self.of.student("sam", "Sam", "Reyes").enrolment.person
        for other in (sam, self.of.lead):
            self.assertEqual(self.patch(begun["Location"], 0, b"x" * 10, other).status_code, 404)
            self.assertEqual(self.head(begun["Location"], other).status_code, 404)
            self.assertIn(self.begin(10, person=other).status_code, (403, 404))
        other_class = klass("Other", "other")
        self.assertEqual(self.begin(10, pocket=other_class.pocket().pk).status_code, 404)
        self.assertEqual(Upload.objects.count(), 1)

    def test_no_more_than_fit(self) -> None:
        with mock.patch("shutil.disk_usage") as usage:
            usage.return_value.free = keeping.ROOM_LEFT + 9
            self.problem(self.begin(10), 403, "no room")
            self.assertEqual(self.begin(6).status_code, 201)
            self.problem(self.begin(4), 403, "no room")  # six were promised to the one before
        with mock.patch.object(uploads, "MOST_BYTES_UNDER_WAY", 8):
            self.problem(self.begin(3), 403, "on their way already")
        with mock.patch.object(uploads, "MOST_UNDER_WAY", 1):
            self.problem(self.begin(10), 403, "on their way already")

    def test_a_name_with_signs_that_no_name_has(self) -> None:
        begun = self.begin(len(PDF), "../../evil\u202egpj.pdf\x07")
        self.patch(begun["Location"], 0, PDF)
        told = self.ok(self.thandi, "post", begun["Location"].removeprefix("/api") + "/settle")
        self.assertIn("signs that a name cannot have", told["note"])
        self.assertEqual(Artefact.objects.get().title, "evilgpj.pdf")

    def test_pictures_for_rows_and_covers_may_be_as_large_as_forms_take(self) -> None:
        log = self.of.pocket("Log", "log", log={"columns": [{"key": "a", "title": "Photo", "type": "artefact"}]})
        large = builders.jpeg(size=(1600, 1600), quality=100) + b"\0" * 1_500_000
        for path in (
            f"/portfolios/{self.portfolio.pk}/pockets/{log.pk}/row-files",
            f"/portfolios/{self.portfolio.pk}/cover/picture",
        ):
            answer = self.client_of(self.thandi).post(f"/api{path}", {"file": SimpleUploadedFile("big.jpg", large)})
            self.assertEqual(answer.status_code, 200, answer.content[:300])


class Playing(UploadCase):
    def test_sound_and_video_are_told_apart_and_played(self) -> None:
        for data, name, kind, media_type in (
            (recordings.film(), "film.mp4", "video", "video/mp4"),
            (recordings.film(handler=b"soun"), "talk.m4a", "sound", "audio/mp4"),
            (recordings.webm(video=True), "film.webm", "video", "video/webm"),
            (recordings.webm(unknown=True), "said.webm", "sound", "audio/webm"),
            (recordings.sound(), "said.wav", "sound", "audio/wav"),
        ):
            with self.subTest(name):
                self.assertEqual(self.send(data, name).status_code, 204)
                artefact = Artefact.objects.latest("pk")
                answer = self.call(self.thandi, "get", f"/artefacts/{artefact.pk}/file")
                self.assertEqual((artefact.kind, answer["Content-Type"]), (kind, media_type))
                self.assertIn("inline", answer.get("Content-Disposition", "inline"))
                down = self.call(self.thandi, "get", f"/artefacts/{artefact.pk}/file?download=true")
                self.assertIn("attachment", down["Content-Disposition"])

    def test_place_and_device_are_gone_and_both_hashes_kept(self) -> None:
        tags = recordings.element(0x1254C367, b"Taken at 51.5074 -0.1278")
        for data, name, secret in (
            (recordings.film(recordings.place_box()), "film.mp4", recordings.PLACE),
            (recordings.webm(tags, video=True), "film.webm", b"51.5074"),
        ):
            self.send(data, name)
            artefact = Artefact.objects.latest("pk")
            assert artefact.stored
            with keeping.opened(artefact.stored.sha256) as content:
                kept = content.read()
            self.assertEqual(len(kept), len(data))
            self.assertNotIn(secret, kept)
            self.assertNotEqual(artefact.came_sha256, artefact.stored.sha256)

    def test_a_film_that_is_not_all_there(self) -> None:
        whole = recordings.film(payload=5000)
        self.problem(self.send(whole[:-1000], "film.mp4"), 422, "1,000 bytes are missing")
        self.problem(self.send(whole[:28], "film.mp4"), 422, "broken")
        self.problem(self.send(recordings.webm(video=True)[:-9], "film.webm"), 422, "missing")
        self.problem(self.send(b"\0\0\0\x18ftypisom" + b"\0" * 400, "film.mp4"), 422, "broken")

    def test_ranges_as_players_ask_for_them(self) -> None:
        """RFC 9110, 14: first–last, an open end, the last so many; 416 with the size; several ranges get the whole."""
        data = recordings.film(payload=900)
        self.send(data, "film.mp4")
        path = f"/artefacts/{Artefact.objects.get().pk}/file"
        for asked, part in (
            ("bytes=0-9", data[:10]),
            ("bytes=100-", data[100:]),
            ("bytes=-7", data[-7:]),
            ("bytes=5-99999", data[5:]),
        ):
            answer = self.call(self.thandi, "get", path, headers={"Range": asked})
            self.assertEqual((answer.status_code, b"".join(answer)), (206, part))  # type: ignore[arg-type]
            self.assertEqual(answer["Content-Length"], str(len(part)))
            self.assertTrue(answer["Content-Range"].endswith(f"/{len(data)}"))
        beyond = self.call(self.thandi, "get", path, headers={"Range": f"bytes={len(data)}-"})
        self.assertEqual((beyond.status_code, beyond["Content-Range"]), (416, f"bytes */{len(data)}"))
        for asked in ("bytes=0-1,3-4", "lines=1-2"):
            self.assertEqual(self.call(self.thandi, "get", path, headers={"Range": asked}).status_code, 200)
        changed = self.call(self.thandi, "get", path, headers={"Range": "bytes=0-9", "If-Range": '"other"'})
        self.assertEqual(changed.status_code, 200)


class Speaking(UploadCase):
    def test_what_is_said_counts_only_where_it_may(self) -> None:
        evidence = builders.add_picture(self.portfolio, self.pocket)
        path = f"/portfolios/{self.portfolio.pk}/pockets/{self.pocket.pk}"
        self.send(recordings.sound(), "said.wav", spoken=1, evidence=evidence.pk)
        found = self.ok(self.thandi, "get", path)
        self.assertEqual((found["evidence"][0]["spoken"]["kind"], found["met"]), ("sound", 1))
        self.pocket.spoken = True
        self.pocket.save()
        self.assertEqual(self.ok(self.thandi, "get", path)["met"], 2)
        self.assertEqual(PocketContent.objects.get().pieces, [[0, 0, 0, 0, 1]])
        self.ok(self.thandi, "delete", f"/evidence/{evidence.pk}/spoken")
        self.assertEqual(self.ok(self.thandi, "get", path)["met"], 1)
        back = Artefact.objects.get(kind="sound").pk
        self.ok(self.thandi, "post", f"/evidence/{evidence.pk}/spoken", {"artefact": back})
        self.assertEqual(self.ok(self.thandi, "get", path)["met"], 2)
        self.assertEqual(
            self.call(self.thandi, "post", f"/evidence/{evidence.pk}/spoken", {"artefact": 0}).status_code, 404
        )

    def test_a_page_can_be_said_and_is_frozen_so(self) -> None:
        page = self.of.pocket("About me", "page", spoken=True)
        handin = self.of.handin(page, title="About me")
        self.send(recordings.webm(), "said.webm", pocket=page.pk, spoken=1)
        done = builders.hand_in(self.portfolio, handin)
        frozen = self.ok(self.of.lead, "get", f"/submissions/{done.pk}")
        self.assertEqual(frozen["pockets"][0]["evidence"][0]["spoken"]["kind"], "sound")
        self.assertTrue(frozen["pockets"][0]["chips"][0]["met"])
        self.assertFalse(frozen["empty"])

    def test_only_a_recording_is_said(self) -> None:
        evidence = builders.add_picture(self.portfolio, self.pocket)
        self.problem(self.send(PDF, spoken=1, evidence=evidence.pk), 422, "is no recording")
        self.assertEqual(self.begin(5, spoken=1, evidence=evidence.pk + 99).status_code, 404)
        self.assertEqual(self.begin(5, spoken=1).status_code, 404)


class Together(TransactionTestCase):
    """Two requests at one upload, on real connections."""

    def test_only_one_writes_and_it_becomes_one_evidence(self) -> None:
        of = klass()
        pocket, portfolio = of.pocket(), of.student("thandi")
        wish = builders.wish(portfolio, pocket, "soil.pdf", len(PDF))
        upload = uploads.begin(portfolio.enrolment.person, wish, NOW)
        reading, go_on = threading.Event(), threading.Event()

        def slowly(most: int) -> bytes:
            reading.set()
            go_on.wait(10)
            return PDF

        first = threading.Thread(target=lambda: (uploads.append(upload, 0, slowly, NOW), connection.close()))
        first.start()
        reading.wait(10)
        with self.assertRaises(Busy):
            uploads.append(Upload.objects.get(), 0, lambda most: PDF, NOW)
        go_on.set()
        first.join(10)
        settling = [threading.Thread(target=self.settle) for _ in range(4)]
        for one in settling:
            one.start()
        for one in settling:
            one.join(10)
        self.assertEqual(Evidence.objects.count(), 1)

    def settle(self) -> None:
        try:
            uploads.settle(Upload.objects.get(), NOW)
        except Busy:
            pass
        finally:
            connection.close()


class Moving(ApiCase):
    def test_a_file_of_ours_is_moved_and_not_copied(self) -> None:
        path = Path(settings.FILE_UPLOAD_TEMP_DIR) / "own"
        path.write_bytes(PDF + b"moved")
        inode = path.stat().st_ino
        content = OwnedFile(path)
        kept = keeping.keep(content, "soil.pdf")
        content.close()
        self.assertFalse(path.exists())
        self.assertEqual(Path(keeping.store().path(keeping.path_of(kept.stored.sha256))).stat().st_ino, inode)


class Quota(UploadCase):
    def test_a_full_portfolio_takes_no_more_by_any_way_and_keeps_everything(self) -> None:
        self.send(PDF)
        log = self.of.pocket("Log", "log", log={"columns": [{"key": "a", "title": "Photo", "type": "artefact"}]})
        with self.settings(PORTFOLIO_QUOTA=len(PDF) + 100):
            self.problem(self.begin(101), 403, "This portfolio is full")
            for way in (f"pockets/{self.pocket.pk}/files", f"pockets/{log.pk}/row-files", "cover/picture"):
                content = SimpleUploadedFile("card.jpg", builders.jpeg())
                path = f"/api/portfolios/{self.portfolio.pk}/{way}"
                answer = self.client_of(self.thandi).post(path, {"file": content})
                self.assertContains(answer, "This portfolio is full", status_code=403)
            self.assertEqual(self.begin(100).status_code, 201)
            self.problem(self.begin(1), 403, "This portfolio is full")  # what is on its way counts
        self.assertEqual(Artefact.objects.count(), 1)

    def test_a_full_class(self) -> None:
        self.send(PDF)
        other = self.of.student("ada").enrolment.person
        more = {"portfolio": self.of.group.enrolments.get(person=other).portfolio.pk}
        with self.settings(CLASS_QUOTA=len(PDF) + 100):
            self.problem(self.begin(101, person=other, **more), 403, "This class is full")
            self.assertEqual(self.begin(100, person=other, **more).status_code, 201)
