"""Whatever ends (the server, the tab, the connection), what was typed and chosen goes on where it was."""

from __future__ import annotations

import os
import re
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import connection
from playwright.sync_api import Page, expect

from coatpeg.files import keeping
from coatpeg.portfolios.models import Artefact, Evidence
from operations.processes import free_port
from tests import builders
from tests.browser.case import TABLET, BrowserCase, choose, picture_file, session_of

LOST = r"net::ERR_|status of (401|502|503|409|423)"
SLOW = 400_000
"""Bytes a second: a school's Wi-Fi at the far end of the corridor."""


class Served:
    """The application in processes of its own, over the tests' database, as it is served.

    Ended as a power cut ends it.
    """

    def __init__(self) -> None:
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.child: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        name = connection.settings_dict["NAME"]
        with socket.create_server(("127.0.0.1", self.port)) as listening:
            self.child = subprocess.Popen(
                [sys.executable, "-m", "coatpeg.web.serve", str(listening.fileno())],
                env={**os.environ, "COATPEG_DB_NAME": str(name)},
                pass_fds=[listening.fileno()],
                start_new_session=True,
                stderr=subprocess.DEVNULL,
            )
        for _ in range(150):
            try:
                urllib.request.urlopen(f"{self.address}/health", timeout=1)
                return
            except (urllib.error.URLError, OSError):
                time.sleep(0.1)
        raise AssertionError("the server did not answer")

    def kill(self) -> None:
        if self.child:
            os.killpg(self.child.pid, signal.SIGKILL)
            self.child.wait()
            self.child = None


class GoesOn(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.expected_complaints = [LOST]
        self.eight = self.plot()
        self.card = self.eight.pocket()
        self.thandi = self.eight.student("thandi")
        self.person = self.thandi.enrolment.person
        self.evidence = builders.add_picture(self.thandi, self.card, self.now)
        self.path = f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}/{self.card.pk}"
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def slow(self, page: Page, bytes_a_second: int) -> None:
        """Let the page send no faster than this (-1: as fast as it can)."""
        session = page.context.new_cdp_session(page)
        session.send("Network.enable")
        limits: dict[str, Any] = {"offline": False, "latency": 0, "downloadThroughput": -1}
        session.send("Network.emulateNetworkConditions", {**limits, "uploadThroughput": bytes_a_second})

    def until(self, page: Page, true: Any, seconds: int = 30) -> None:
        for _ in range(seconds * 10):
            if true():
                return
            page.wait_for_timeout(100)
        self.fail("it did not come about")

    def text(self) -> str:
        return Evidence.objects.get(pk=self.evidence.pk).text

    def test_the_server_is_killed_while_a_file_comes_up_and_somebody_types(self) -> None:
        served = Served()
        served.start()
        self.addCleanup(served.kill)
        context = self.context(TABLET, once=True)
        key = session_of(self.person)
        context.add_cookies([{"name": settings.SESSION_COOKIE_NAME, "value": key, "url": served.address}])
        page = context.new_page()
        page.goto(served.address + self.path)
        expect(page.get_by_role("textbox")).to_be_editable()
        self.slow(page, SLOW)
        film = os.urandom(4_000_000)
        choose(page, picture_file(self.folder, "film.bin", film))
        parts = Path(settings.FILE_UPLOAD_TEMP_DIR) / "parts"
        self.until(page, lambda: sum(one.stat().st_size for one in parts.glob("*")) > 600_000)
        page.get_by_role("textbox").fill("Typed while it died. It stays.")
        served.kill()
        expect(page.get_by_text("Coat Peg cannot be reached just now.")).to_be_visible()
        expect(page.get_by_text("Kept on this device; goes up by itself").first).to_be_visible()
        here = sum(one.stat().st_size for one in parts.glob("*"))
        self.assertGreater(here, 0, "what had come is there")
        sent: list[int] = []
        page.on(
            "request",
            lambda asked: sent.append(int(asked.headers.get("upload-offset", -1))) if asked.method == "PATCH" else None,
        )
        served.start()
        self.slow(page, -1)
        self.until(
            page,
            lambda: (
                Artefact.objects.filter(title="film.bin").exists() and self.text() == "Typed while it died. It stays."
            ),
        )
        self.assertIn(here, sent, "it went on where it was")
        stored = Artefact.objects.get(title="film.bin").stored
        assert stored
        with keeping.opened(stored.sha256) as content:
            self.assertEqual(content.read(), film)
        expect(page.get_by_role("heading", name="film.bin")).to_be_visible()

    def test_the_tab_crashes_and_file_and_words_go_up_by_themselves(self) -> None:
        page = self.page(self.person, self.path)
        expect(page.get_by_role("textbox")).to_be_editable()
        page.context.set_offline(True)
        choose(page, picture_file(self.folder, "notes.txt", b"Rain on Tuesday.\n" * 50))
        page.get_by_role("textbox").fill("Typed before the crash. Here it is.")
        expect(page.get_by_text("Kept on this device; goes up by itself")).to_have_count(2)
        context = page.context
        page.close(run_before_unload=False)
        context.set_offline(False)
        again = context.new_page()
        again.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/feedback")
        expect(again.get_by_text("What you typed before has been saved now.")).to_be_visible()
        self.assertEqual(self.text(), "Typed before the crash. Here it is.")
        self.until(again, lambda: Artefact.objects.filter(title="notes.txt").exists())

    def test_a_file_chosen_while_signed_out_waits_for_the_same_person(self) -> None:
        page = self.page(self.person, self.path)
        expect(page.get_by_role("textbox")).to_be_editable()
        page.context.set_offline(True)
        choose(page, picture_file(self.folder, "notes.txt", b"Rain on Tuesday.\n"))
        expect(page.get_by_text("Kept on this device; goes up by itself")).to_be_visible()
        context = page.context
        page.close()
        josh = self.eight.student("josh", "Josh", "Ellery").enrolment.person
        context.set_offline(False)
        name = settings.SESSION_COOKIE_NAME
        for person, there in ((josh, False), (self.person, True)):
            context.add_cookies([{"name": name, "value": session_of(person), "url": self.live_server_url}])
            again = context.new_page()
            again.goto(f"{self.live_server_url}/g/{self.eight.group.pk}/feedback")
            expect(again.get_by_role("heading", name="Feedback")).to_be_visible()
            if there:
                self.until(again, lambda: Artefact.objects.filter(title="notes.txt").exists())
            else:
                again.wait_for_timeout(2500)
                self.assertFalse(Artefact.objects.filter(title="notes.txt").exists())
            again.close()

    def test_two_devices_in_different_paragraphs_are_put_together(self) -> None:
        builders.reflect(self.evidence, "First.\nSecond.\nThird.", self.now)
        page = self.page(self.person, self.path)
        field = page.get_by_role("textbox")
        expect(field).to_have_value("First.\nSecond.\nThird.")
        page.route("**/changes*", lambda route: route.abort())
        builders.reflect(self.evidence, "First.\nSecond.\nThird, from the phone.", self.now)
        field.fill("First, from the tablet.\nSecond.\nThird.")
        expect(page.get_by_text(re.compile("Put together with what was written elsewhere"))).to_be_visible()
        expect(field).to_have_value("First, from the tablet.\nSecond.\nThird, from the phone.")
        self.assertEqual(self.text(), "First, from the tablet.\nSecond.\nThird, from the phone.")

    def test_history_is_compared_and_an_earlier_text_brought_back(self) -> None:
        for minutes, text in ((60, "A bean grows."), (30, "A pea grows.")):
            builders.reflect(self.evidence, text, self.now - builders.timedelta(minutes=minutes))
        page = self.page(self.person, self.path)
        page.get_by_role("button", name="History").click()
        revisions = page.get_by_role("list", name="How it stood").get_by_role("button")
        expect(revisions).to_have_count(2)
        page.get_by_label("Show what changed since").select_option(index=1)
        expect(page.locator("del")).to_have_text("bean")
        expect(page.locator("ins")).to_have_text("pea")
        self.no_violation(page)
        revisions.last.click()
        page.get_by_role("button", name="Bring this one back").click()
        expect(page.get_by_label("What does this show?")).to_have_value("A bean grows.")

    def test_taken_out_days_ago_and_brought_back(self) -> None:
        builders.commands.remove_evidence(self.person, self.evidence.pk, self.now - builders.timedelta(days=5))
        page = self.page(self.person, f"/g/{self.eight.group.pk}/portfolio/{self.thandi.pk}")
        page.get_by_role("link", name="Bin").click()
        page.get_by_role("button", name="Bring back: card.jpg").click()
        expect(page.get_by_text("It is back in its place.")).to_be_visible()
        self.no_violation(page)
        self.assertIsNone(Evidence.objects.get().removed_at)

    def test_handing_in_waits_for_a_file_that_comes_up_to_another_of_its_pockets(self) -> None:
        menu = self.eight.pocket("Menu", artefacts=1)
        self.eight.handin(self.card, menu, title="Both", due=self.day(3), opens=self.day(-7), now=self.now)
        page = self.page(self.person, self.path)
        bar = page.get_by_role("region", name="Hand in: Both")
        # One press takes both pockets, so the button names both, and what is missing in each is said.
        expect(bar.get_by_role("button", name="Hand in: Recipe card and Menu")).to_be_enabled()
        expect(bar.get_by_text("In 2 pockets something is still open")).to_be_visible()
        expect(bar.get_by_role("list", name="What is handed in").get_by_role("listitem")).to_have_text(
            [re.compile("^Recipe card: locked after that; .+ open"), re.compile("^Menu: locked after that; .+ open")]
        )
        page.get_by_role("link", name="Menu").click()
        expect(page.get_by_role("heading", name="Menu")).to_be_visible()
        page.route("**/api/uploads", lambda route: route.abort())
        choose(page, picture_file(self.folder, "menu.txt", b"Soup, then bread.\n"))
        page.get_by_role("link", name="Recipe card").click()
        expect(bar.get_by_text("“menu.txt” is still coming up; then you can hand in.")).to_be_visible()
        expect(bar.get_by_role("button", name="Hand in")).to_be_disabled()
        page.unroute("**/api/uploads")
        expect(bar.get_by_role("button", name="Hand in")).to_be_enabled()
        self.assertTrue(Artefact.objects.filter(title="menu.txt").exists())

    def test_two_tabs_send_one_queue_once(self) -> None:
        page = self.page(self.person, self.path)
        expect(page.get_by_role("heading", name="card.jpg")).to_be_visible()
        page.route("**/api/uploads", lambda route: route.abort())
        for name in ("one.txt", "two.txt", "three.txt"):
            choose(page, picture_file(self.folder, name, name.encode()))
        expect(page.get_by_text("three.txt")).to_be_visible()
        other = page.context.new_page()
        other.goto(self.live_server_url + self.path)
        for name in ("one.txt", "two.txt", "three.txt"):
            expect(other.get_by_text(name)).to_be_visible()
        page.unroute("**/api/uploads")
        for each in (page, other):
            for name in ("one.txt", "two.txt", "three.txt"):
                expect(each.get_by_role("heading", name=name)).to_be_visible()
        self.assertEqual(Artefact.objects.filter(title__endswith=".txt").count(), 3)
        # The tab that leads is closed: the other one goes on by itself.
        other.route("**/api/uploads", lambda route: route.abort())
        choose(other, picture_file(self.folder, "four.txt", b"four"))
        page.close()
        other.unroute("**/api/uploads")
        expect(other.get_by_role("heading", name="four.txt")).to_be_visible()
        self.assertEqual(Artefact.objects.filter(title="four.txt").count(), 1)
