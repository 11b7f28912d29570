"""Pictures are safe at once and cleaned in the background; nobody sees one before, and whoever sent a broken one hears."""

from __future__ import annotations

import hashlib
import io
from datetime import timedelta
from pathlib import Path
from typing import Any
from unittest import mock

from django.conf import settings
from django.core.files.base import ContentFile
from django.http import HttpResponse
from django.test import override_settings
from PIL import Image

from coatpeg.events.models import Event
from coatpeg.files import cleaning, keeping, waiting
from coatpeg.files.models import Uncleaned
from coatpeg.files.pictures import Cut
from coatpeg.files.storage import OwnedFile
from coatpeg.handins.models import Submission
from coatpeg.notices.fanning import fan_out
from coatpeg.notices.models import Notice
from coatpeg.portfolios.models import Evidence
from coatpeg.web.recheck import differences
from tests import builders
from tests.api.test_uploads import UploadCase
from tests.background import run_waiting
from tests.builders import NOW


def photo(*, whole: bool = True) -> bytes:
    """A photograph that says who took it."""
    exif = Image.Exif()
    exif[0x013B] = "Thandi Dube"
    target = io.BytesIO()
    Image.linear_gradient("L").resize((400, 300)).convert("RGB").save(target, "JPEG", exif=exif)
    data = target.getvalue()
    return data if whole else data[: len(data) // 2]


@override_settings(CLEAN_PICTURES_LATER=True)
class Waiting(UploadCase):
    def sent(self, data: bytes, **more: object) -> str:
        begun = self.begin(len(data), "soil.jpg", **more)
        self.assertEqual(self.patch(begun["Location"], 0, data).status_code, 204)
        return str(begun["Location"])

    def settle(self, address: str) -> dict[str, Any]:
        found: dict[str, Any] = self.client_of(self.thandi).post(f"{address}/settle").json()
        return found

    def seen(self, part: str = "thumbnails/small", person: Any = None) -> HttpResponse:
        artefact = Evidence.objects.latest("pk").artefact_id
        return self.call(person or self.thandi, "get", f"/artefacts/{artefact}/{part}")

    def test_handed_in_before_it_is_cleaned(self) -> None:
        data = photo()
        came = hashlib.sha256(data).hexdigest()
        handin = self.of.handin(self.pocket)
        address = self.sent(data)
        self.assertEqual((self.settle(address)["done"], self.settle(address)["ready"]), (True, False))
        for person in (self.thandi, self.of.lead):
            for part in ("thumbnails/small", "thumbnails/large", "file"):
                self.assertEqual(self.seen(part, person).status_code, 423, part)
        builders.hand_in(self.portfolio, handin)
        self.assertEqual(list(differences()), [])
        run_waiting()
        self.assertTrue(self.settle(address)["ready"])
        kept = Evidence.objects.get().artefact.stored  # type: ignore[union-attr]
        assert kept is not None
        for part in ("thumbnails/small", "thumbnails/large", "file"):
            answer = self.seen(part, self.of.lead)
            self.assertEqual(answer.status_code, 200)
            self.assertNotIn(b"Thandi", b"".join(answer))  # type: ignore[arg-type]
        frozen = Submission.objects.get().snapshot["pockets"][0]["evidence"][0]["artefact"]
        self.assertEqual((frozen["came_sha256"], frozen["sha256"]), (came, came))
        event = Event.objects.get(verb="artefact_ready")
        self.assertEqual((event.data["came"], event.data["kept"]), (came, kept.sha256))
        self.assertFalse(keeping.store().exists(f"waiting/{came}"), "what came is gone")
        self.assertEqual(list(differences()), [])
        with keeping.opened(came) as same:
            self.assertEqual(
                hashlib.sha256(same.read()).hexdigest(), kept.sha256, "by the hash of what came it is found"
            )

    def test_a_broken_one_leaves_its_pocket_and_the_student_is_told(self) -> None:
        address = self.sent(photo(whole=False))
        run_waiting()
        self.assertIsNotNone(Evidence.objects.get().removed_at)
        told = self.client_of(self.thandi).post(f"{address}/settle")
        self.problem(told, 404, "broken or only partly there")
        fan_out.func()
        bell = self.ok(self.thandi, "get", "/notices")
        self.assertEqual([(one["what"], one["title"]) for one in bell["lines"]], [("picture_unreadable", "soil.jpg")])
        self.problem(self.patch_again(photo(whole=False)), 422, "broken or only partly there")

    def patch_again(self, data: bytes) -> HttpResponse:
        begun = self.begin(len(data), "again.jpg")
        return self.patch(begun["Location"], 0, data)

    def test_a_broken_one_that_is_handed_in_stays_and_says_so(self) -> None:
        handin = self.of.handin(self.pocket)
        self.sent(photo(whole=False))
        builders.hand_in(self.portfolio, handin)
        run_waiting()
        self.assertIsNone(Evidence.objects.get().removed_at)
        self.assertEqual(self.seen(person=self.of.lead).status_code, 404)
        self.assertEqual(Notice.objects.filter(what="picture_unreadable").count(), 1)
        self.assertEqual(list(differences()), [])

    def test_the_same_picture_is_cleaned_once_but_turned_it_is_another(self) -> None:
        self.sent(photo())
        self.sent(photo())
        self.sent(photo(), turn=90)
        with mock.patch.object(cleaning, "picture", wraps=cleaning.picture) as cleaned:
            run_waiting()
        self.assertEqual((cleaned.call_count, Uncleaned.objects.count()), (2, 2))
        stored = [one.artefact.stored for one in Evidence.objects.order_by("pk") if one.artefact]
        self.assertEqual([(one.width, one.height) for one in stored if one], [(400, 300), (400, 300), (300, 400)])
        self.sent(photo())
        self.assertEqual(self.seen().status_code, 200, "known by now")

    def test_what_we_wrote_ourselves_comes_back_clean(self) -> None:
        kept = keeping.keep(ContentFile(photo()), "soil.jpg").stored
        with keeping.opened(kept.sha256) as content:
            self.sent(content.read())
        self.assertEqual((self.seen().status_code, Uncleaned.objects.count()), (200, 0))

    def test_cleaned_between_coming_and_lying_in_the_pocket(self) -> None:
        path = self.folder_file(photo())
        kept = waiting.take(OwnedFile(path), "soil.jpg", Cut(), "")
        assert kept is not None
        run_waiting()
        self.assertEqual(waiting.settled(kept.stored), Uncleaned.objects.get().became)
        self.assertNotEqual(waiting.settled(kept.stored), kept.stored)

    def folder_file(self, data: bytes) -> Path:
        path = Path(settings.FILE_UPLOAD_TEMP_DIR) / "one"
        path.write_bytes(data)
        return path

    def test_bytes_that_went_missing_and_a_job_that_was_lost(self) -> None:
        self.sent(photo())
        self.assertFalse(waiting.are_forgotten())
        with self.at(NOW + timedelta(hours=1)):
            self.assertTrue(waiting.are_forgotten())
        keeping.store().delete(f"waiting/{hashlib.sha256(photo()).hexdigest()}")
        run_waiting()
        self.assertIsNotNone(Evidence.objects.get().removed_at)
        self.assertFalse(waiting.are_forgotten())

    def test_a_worker_that_ends_over_it_three_times(self) -> None:
        self.sent(photo())
        with mock.patch.object(keeping, "keep", side_effect=OSError("the worker was ended")), self.assertLogs():
            for tries in range(3):
                with self.at(NOW + timedelta(hours=tries)):
                    run_waiting()
        self.assertIn("three tries", Uncleaned.objects.get().problem["what"])
        self.assertIsNotNone(Evidence.objects.get().removed_at)
