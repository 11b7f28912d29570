"""Each kind of background work ended half-way: done once, or again without harm, by the worker that comes after."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any
from unittest import mock

from django.core import mail
from django.core.files.base import ContentFile
from django.test import override_settings
from django_tasks_db.models import DBTaskResult

from coatpeg.files import keeping, previews, uploads, waiting
from coatpeg.files.models import Preview, Uncleaned
from coatpeg.handins.many import closing
from coatpeg.handins.models import Closing, HandIn, Submission
from coatpeg.handins.packs import making
from coatpeg.jobs import kinds
from coatpeg.notices import fanning, mailing
from coatpeg.notices.models import Delivery, Mail
from coatpeg.people.models import Person, RosterDrop
from coatpeg.portfolios.evidence import commands
from coatpeg.portfolios.models import Evidence
from coatpeg.setup.roster import roster_folder
from coatpeg.sharing import settling
from coatpeg.web.recheck import differences
from tests import builders, documents
from tests.api.case import ApiCase
from tests.background import run_waiting
from tests.builders import NOW, klass
from tests.devices import Device


class Ended(BaseException):
    """Stands for the end of the process: nothing after it is done, no handler of ours sees to it."""


class HalfWay(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.of = klass()
        self.pocket = self.of.pocket()
        self.portfolio = self.of.student("thandi")
        self.thandi = self.portfolio.enrolment.person

    def ended_at(self, owner: Any, name: str, *, after: bool = True) -> None:
        """Let the work end at a call (after or before it is done), then let the worker of the same name go on."""
        real: Callable[..., Any] = getattr(owner, name)

        def end(*args: Any, **more: Any) -> Any:
            if after:
                real(*args, **more)
            raise Ended

        with (
            mock.patch.object(owner, name, end),
            mock.patch("coatpeg.jobs.leases.settle_failure"),  # a killed worker settles nothing
            mock.patch.object(DBTaskResult, "set_failed"),
        ):
            run_waiting("peg-1")
        self.assertTrue(DBTaskResult.objects.running().exists(), "left half-done")
        run_waiting("peg-1")
        self.assertFalse(DBTaskResult.objects.running().exists())
        self.assertEqual(list(differences()), [])

    def test_every_kind_is_here(self) -> None:
        """What has no test of its own only enqueues or deletes, which is the same once and twice."""
        ours = {path.rsplit(".", 1)[-1] for path in kinds._KINDS if path.startswith("coatpeg.")}
        self.assertEqual(
            ours,
            {"make_readable", "make_ready", "see_to_uploads", "pick_up_lists", "fan_out", "mail"}
            | {
                "ask_anew",
                "mail_all",
                "forget",
                "forget_jobs",
                "make_pack",
                "forget_packs",
                "close_all",
                "lay_boards",
                "lock_all",
                "settle_page",
                "give_planned",
            },
        )

    def test_making_a_file_readable(self) -> None:
        content = ContentFile(documents.xlsx())
        commands.add_file(self.thandi, self.portfolio.pk, self.pocket.pk, content, "harvest.xlsx", NOW)
        self.ended_at(previews, "_converted")
        self.assertEqual(Preview.objects.get().state, "done")

    @override_settings(CLEAN_PICTURES_LATER=True)
    def test_making_a_picture_ready(self) -> None:
        data = builders.jpeg()
        upload = uploads.begin(self.thandi, builders.wish(self.portfolio, self.pocket, "card.jpg", len(data)), NOW)
        uploads.path_of(upload).write_bytes(data)
        uploads.settle(upload, NOW)
        self.assertTrue(uploads.waits(upload))
        self.ended_at(waiting, "_become")
        upload.refresh_from_db()
        self.assertFalse(uploads.waits(upload))
        came = Uncleaned.objects.get().stored.sha256
        self.assertFalse(keeping.store().exists(f"waiting/{came}"), "what came is gone")

    def test_putting_handed_in_work_together(self) -> None:
        handin = self.of.handin(self.pocket)
        builders.fill(self.portfolio, self.pocket)
        builders.hand_in(self.portfolio, handin)
        pack = making.ask(self.of.lead, self.of.group.pk, handin.pk, NOW)
        self.ended_at(making, "_write")
        pack.refresh_from_db()
        self.assertEqual((pack.done, pack.problem), (1, ""))
        self.assertEqual(making.path_of(pack).stat().st_size, pack.size)

    def test_what_hand_ins_do_when_they_close(self) -> None:
        handin = self.of.handin(self.pocket)
        builders.fill(self.portfolio, self.pocket)
        HandIn.objects.filter(pk=handin.pk).update(closes_day=NOW - timedelta(days=1), closing=Closing.AS_IT_STANDS)
        closing.close_all.enqueue()
        self.ended_at(closing, "submit")
        self.assertEqual(Submission.objects.filter(handin=handin).count(), 1)

    def test_laying_a_page_that_is_filled_together_into_the_portfolios(self) -> None:
        pocket = self.of.pocket("Menu", "page", shared="class")
        device = Device(self, self.portfolio, pocket)
        device.write("Soup.")
        device.exchange()
        with self.at(NOW + settling.SOON):
            self.ended_at(settling, "_lay")
        self.assertEqual(Evidence.objects.get(pocket=pocket).text, "Soup.")

    def test_seeing_to_uploads(self) -> None:
        upload = uploads.begin(self.thandi, builders.wish(self.portfolio, self.pocket, "late.txt", 4), NOW)
        uploads.path_of(upload).write_bytes(b"late")
        self.ended_at(uploads, "_done")
        self.assertEqual([one.artefact.title for one in self.portfolio.evidence.all() if one.artefact], ["late.txt"])

    def test_picking_up_a_list(self) -> None:
        with tempfile.TemporaryDirectory() as folder, self.settings(VAR=Path(folder)):
            lists = roster_folder.folder()
            lists.mkdir()
            path = lists / "8 Plot.csv"
            path.write_text("Family name,Given name\nReyes,Sam\n")
            os.utime(path, (NOW.timestamp() - 60,) * 2)
            self.ended_at(roster_folder, "_keep")
            self.assertEqual(RosterDrop.objects.filter(state=RosterDrop.State.PENDING).count(), 1)
            self.assertEqual(len(list((lists / roster_folder.TAKEN).iterdir())), 1)

    def test_telling_people_what_is_new(self) -> None:
        self.of.handin(self.pocket)
        self.ended_at(fanning, "_fanned")
        self.assertEqual(Delivery.objects.count(), 1)

    def test_sending_a_mail_it_comes_again_rather_than_never(self) -> None:
        Person.objects.filter(pk=self.thandi.pk).update(email="thandi@larkfield.example")
        self.ok(self.thandi, "put", "/notices/mail", {"how": "at_once"})
        self.of.handin(self.pocket)
        run_waiting("peg-1")
        before = len(mail.outbox)
        with self.at(NOW + timedelta(minutes=2)):
            run_waiting("other")  # finds out who is to be mailed; sends it too, so it is taken back below
            Mail.objects.all().delete()
            Delivery.objects.update(mailed_at=None)
            self.ended_at(mailing, "_send")
        self.assertEqual(Mail.objects.count(), 1)
        self.assertIn(len(mail.outbox) - before, (2, 3))
