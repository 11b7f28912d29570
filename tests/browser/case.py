"""Driving the real interface in headless Chromium against the real server and MariaDB."""

from __future__ import annotations

import os
import re
import threading
import time
from collections.abc import Iterator
from datetime import date, datetime, timedelta
from functools import cache
from pathlib import Path
from typing import Any
from zoneinfo import ZoneInfo

import pypdfium2
from django.conf import settings
from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore
from django.core.servers.basehttp import ThreadedWSGIServer
from django.test import LiveServerTestCase, tag
from django.test.testcases import LiveServerThread
from django.utils import timezone
from playwright.sync_api import BrowserContext, Page, expect, sync_playwright

from coatpeg.people.models import Person
from coatpeg.web.recheck import differences
from operations import eyes
from operations.processes import free_port
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
UNHURRIED = "{ const every = setInterval; window.setInterval = (f, ms, ...with_) => every(f, ms === 1000 ? 2500 : ms, ...with_); }"
"""A message, which counts its seconds, stays as much longer as a busy machine takes from what is said to its "Undo"."""
DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)


def chromium() -> str:
    """Debian's browser."""
    return next(path for path in ("/usr/bin/chromium", "/usr/bin/chromium-headless-shell") if os.path.exists(path))


class Counted:
    """An answer of the server of a test that is not finished until it is closed."""

    answering = 0
    _lock = threading.Lock()

    def __init__(self, application: Any, environ: Any, start_response: Any) -> None:
        self.count(1)
        try:
            self.answer = application(environ, start_response)
        except BaseException:
            self.count(-1)
            raise

    @classmethod
    def count(cls, more: int) -> None:
        with cls._lock:
            Counted.answering += more

    def __iter__(self) -> Iterator[bytes]:
        return iter(self.answer)

    def close(self) -> None:
        try:
            self.answer.close()
        finally:
            self.count(-1)


class CountingServer(ThreadedWSGIServer):
    """The server of a test, which knows whether it still answers somebody, at the same port as the one before it."""

    def __init__(self, *given: Any, **named: Any) -> None:
        super().__init__(*given, **{**named, "allow_reuse_address": True})

    def set_app(self, application: Any) -> None:
        super().set_app(lambda environ, start_response: Counted(application, environ, start_response))


class CountingThread(LiveServerThread):
    server_class = CountingServer


class Browsers:
    """The browser of this process and its contexts, which tests use one after the other.

    Starting a browser, and compiling the scripts in a context that has never seen them, takes longer than most tests.
    A context that comes back forgets whatever a page kept; what it has of scripts and styles stays, which is why the
    servers of a process have one port. What a page cannot give back (a clock that is turned) asks for a context ``once``.
    """

    def __init__(self) -> None:
        self.port = free_port()
        self.playwright = sync_playwright().start()
        self.browser = self.playwright.chromium.launch(executable_path=chromium(), args=ARGUMENTS)
        self.waiting: dict[tuple[tuple[int, int], str], list[BrowserContext]] = {}
        self.kept: dict[BrowserContext, tuple[tuple[tuple[int, int], str], Page]] = {}

    def lend(self, size: tuple[int, int], locale: str, once: bool) -> BrowserContext:
        """A context in which nothing is kept of anybody."""
        known = self.waiting.setdefault((size, locale), [])
        if known and not once:
            return known.pop()
        context = self.browser.new_context(viewport={"width": size[0], "height": size[1]}, locale=locale)
        context.set_default_timeout(PATIENCE)
        context.add_init_script(UNHURRIED)
        if not once:
            page = context.new_page()
            page.goto(f"http://127.0.0.1:{self.port}/health")
            self.kept[context] = ((size, locale), page)
            context.on("close", lambda _: self.kept.pop(context, None))
        return context

    def take_back(self, context: BrowserContext) -> None:
        """Close its pages and let it forget; one that is closed already, or was for once, is gone."""
        if context not in self.kept:
            context.close()
            return
        kind, stays = self.kept[context]
        for page in context.pages:
            if page is not stays:
                page.close()
        context.set_offline(False)
        context.clear_permissions()
        context.clear_cookies()
        session = context.new_cdp_session(stays)
        session.send("Storage.clearDataForOrigin", {"origin": f"http://127.0.0.1:{self.port}", "storageTypes": "all"})
        session.detach()
        self.waiting[kind].append(context)


@cache
def browsers(process: int) -> Browsers:
    """What stays open in a process until it ends."""
    return Browsers()


@tag("browser")
class BrowserCase(LiveServerTestCase):
    """One browser per class, one context per person; console errors and requests to other hosts fail a test."""

    host = "127.0.0.1"
    browsers: Browsers
    server_thread_class = CountingThread

    @classmethod
    def setUpClass(cls) -> None:
        cls.browsers = browsers(os.getpid())
        cls.port = cls.browsers.port
        super().setUpClass()
        expect.set_options(timeout=PATIENCE // 2)

    def setUp(self) -> None:
        self.now: datetime = timezone.now()
        self.today: date = self.now.astimezone(ZoneInfo(ZONE)).date()
        self.contexts: list[BrowserContext] = []
        self.complaints: list[str] = []
        self.expected_complaints: list[str] = []

    def tearDown(self) -> None:
        for context in self.contexts:
            self.browsers.take_back(context)
        # What a page asked for last is answered before anything is compared, or taken away for the next test.
        for _ in range(100):
            if Counted.answering <= 0:
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

    def page(
        self,
        person: Person | None,
        path: str = "/",
        size: tuple[int, int] = DESK,
        locale: str = "en-GB",
        once: bool = False,
    ) -> Page:
        """A page of somebody's own browser, signed in."""
        context = self.context(size, locale, once)
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

    def context(self, size: tuple[int, int], locale: str = "en-GB", once: bool = False) -> BrowserContext:
        """A browser of somebody's own, until the test ends."""
        context = self.browsers.lend(size, locale, once)
        self.contexts.append(context)
        return context

    def leave(self, page: Page) -> None:
        """Nobody looks at this page, and what is its own, any more."""
        self.contexts.remove(page.context)
        self.browsers.take_back(page.context)

    def no_other_host(self, url: str) -> None:
        if not url.startswith((self.live_server_url, "blob:", "data:")):
            self.complaints.append(f"asked another host: {url}")

    def no_violation(self, page: Page, part: str = "html") -> None:
        """axe-core finds nothing on the view, or the part of it, as it stands (WCAG 2.0 to 2.2, A and AA)."""
        self.assertEqual(eyes.violations(page, part), [])

    def printed(self, page: Page) -> list[str]:
        """What stands on each sheet of paper, without what is blank in it; A4 across, whatever the printer has in it."""
        sheets = pypdfium2.PdfDocument(page.pdf(prefer_css_page_size=True))
        for one in sheets:
            self.assertEqual([round(side * 25.4 / 72) for side in one.get_size()], [297, 210])  # ISO 216, in mm
        return [re.sub(r"\s", "", one.get_textpage().get_text_range()) for one in sheets]

    def fits(self, page: Page) -> None:
        """Nothing is wider than the screen."""
        self.assertLessEqual(eyes.too_wide(page), 0)


def undo(page: Page) -> None:
    """Take back what the last message says; an editor has a button of this name too."""
    page.locator("[aria-live=polite].fixed").get_by_role("button", name="Undo").last.click()


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
