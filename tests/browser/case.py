"""Driving the real interface in headless Chromium against the real server and MariaDB."""

from __future__ import annotations

import os
import re
import threading
import time
from datetime import date, datetime, timedelta
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

from django.conf import settings
from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore
from django.core.servers.basehttp import ThreadedWSGIServer
from django.test import LiveServerTestCase, tag
from django.test.testcases import LiveServerThread
from django.utils import timezone
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright

from coatpeg.people.models import Person
from coatpeg.web.recheck import differences
from operations import eyes
from tests.builders import ZONE, Class, klass

ARGUMENTS = [
    "--no-sandbox",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--disable-default-apps",
    "--disable-extensions",
    "--use-fake-ui-for-media-stream",
    "--use-fake-device-for-media-stream",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
]
PATIENCE = 60_000
"""Milliseconds that a step may take where the machine has other work; what must be fast is measured elsewhere."""
DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)


def chromium() -> str:
    """Debian's browser."""
    return next(path for path in ("/usr/bin/chromium", "/usr/bin/chromium-headless-shell") if os.path.exists(path))


class CountingServer(ThreadedWSGIServer):
    """The server of a test, which knows whether it still answers somebody."""

    answering = 0
    _lock = threading.Lock()

    def process_request_thread(self, request: Any, client_address: Any) -> None:
        with self._lock:
            CountingServer.answering += 1
        try:
            super().process_request_thread(request, client_address)
        finally:
            with self._lock:
                CountingServer.answering -= 1


class CountingThread(LiveServerThread):
    server_class = CountingServer


@tag("browser")
class BrowserCase(LiveServerTestCase):
    """One browser per class, one context per person; console errors and requests to other hosts fail a test."""

    host = "127.0.0.1"
    browser: Browser
    server_thread_class = CountingThread

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.playwright = sync_playwright().start()
        cls.browser = cls.playwright.chromium.launch(executable_path=chromium(), args=ARGUMENTS)
        expect.set_options(timeout=PATIENCE // 2)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.browser.close()
        cls.playwright.stop()
        super().tearDownClass()

    def setUp(self) -> None:
        self.now: datetime = timezone.now()
        self.today: date = self.now.astimezone(ZoneInfo(ZONE)).date()
        self.contexts: list[BrowserContext] = []
        self.complaints: list[str] = []
        self.expected_complaints: list[str] = []

    def tearDown(self) -> None:
        for context in self.contexts:
            context.close()
        # What a page asked for last is answered before anything is compared, or taken away for the next test.
        for _ in range(100):
            if CountingServer.answering <= 0:
                break
            time.sleep(0.1)
        unexpected = [
            one for one in self.complaints if not any(re.search(two, one) for two in self.expected_complaints)
        ]
        self.assertEqual(unexpected, [])
        self.assertEqual(list(differences()), [], "what is kept is what the events give")

    def __getstate__(self) -> dict[str, object]:
        """What of a test goes between the processes that run tests and the one that tells: a browser cannot."""
        kept = {name: value for name, value in self.__dict__.items() if name.startswith("_")}
        return {**kept, "_outcome": None, "_subtest": None, "_cleanups": []}

    def plot(self) -> Class:
        """A class whose term lies around today."""
        return klass("8 Plot · Growing & Cooking", today=self.today)

    def day(self, offset: int) -> date:
        return self.today + timedelta(days=offset)

    def page(self, person: Person | None, path: str = "/", size: tuple[int, int] = DESK, locale: str = "en-GB") -> Page:
        """A page of somebody's own browser, signed in."""
        context = self.browser.new_context(viewport={"width": size[0], "height": size[1]}, locale=locale)
        self.contexts.append(context)
        context.set_default_timeout(PATIENCE)
        if person:
            context.add_cookies(
                [{"name": settings.SESSION_COOKIE_NAME, "value": session_of(person), "url": self.live_server_url}]
            )
        page = context.new_page()
        page.on("pageerror", lambda error: self.complaints.append(f"error: {error}"))
        page.on(
            "console",
            lambda said: (
                self.complaints.append(f"console: {said.text} {said.location['url']}") if said.type == "error" else None
            ),
        )
        page.on("request", lambda asked: self.no_other_host(asked.url))
        page.goto(self.live_server_url + path)
        return page

    def no_other_host(self, url: str) -> None:
        if not url.startswith((self.live_server_url, "blob:", "data:")):
            self.complaints.append(f"asked another host: {url}")

    def no_violation(self, page: Page, part: str = "html") -> None:
        """axe-core finds nothing on the view, or the part of it, as it stands (WCAG 2.0 to 2.2, A and AA)."""
        self.assertEqual(eyes.violations(page, part), [])

    def fits(self, page: Page) -> None:
        """Nothing is wider than the screen."""
        self.assertLessEqual(eyes.too_wide(page), 0)


def choose(page: Page, path: str) -> None:
    """Choose a file of the device for the open pocket; a picture goes through its dialog."""
    page.get_by_label("File", exact=True).set_input_files(path)
    if path.endswith((".jpg", ".png", ".heic")):
        page.get_by_role("button", name="Add 1 photo").click()


def session_of(person: Person) -> str:
    """A session's key, as signing in leaves it."""
    session = SessionStore()
    session[SESSION_KEY] = str(person.pk)
    session[BACKEND_SESSION_KEY] = "django.contrib.auth.backends.ModelBackend"
    session[HASH_SESSION_KEY] = person.get_session_auth_hash()
    session.save()
    return str(session.session_key)


def picture_file(folder: Path, name: str = "card.jpg", data: bytes = b"") -> str:
    """A file on the student's device."""
    path = folder / name
    path.write_bytes(data)
    return str(path)
