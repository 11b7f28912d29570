"""``./peg shots``: the screenshots of the main views, from the demo's data."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from operations import install, processes
from operations.browsing import CHROMIUM, QUIET, sign_in
from operations.serving import Running, serve

DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)
Step = Callable[[Page], None]


def _cell(page: Page) -> None:
    page.get_by_role("button", name=re.compile("Recipe card: handed in")).nth(2).click()
    page.get_by_role("complementary", name="The chosen peg").get_by_text("Reflection").first.wait_for()


def _pile(page: Page) -> None:
    page.get_by_role("link", name=re.compile("Marking pile")).click()
    page.get_by_role("link", name=re.compile("Recipe card")).first.click()
    page.get_by_role("complementary", name="Marking").wait_for()


def _handins(page: Page) -> None:
    page.get_by_role("link", name="Hand-ins").click()
    page.get_by_role("link", name="New hand-in").click()
    page.get_by_label("Title").fill("Harvest lunch")
    page.get_by_label("Useful finds").check()
    page.get_by_role("region", name="Who will get it").wait_for()


def _pocket(page: Page) -> None:
    page.get_by_role("link", name=re.compile("^Recipe card")).first.click()
    page.get_by_role("article").wait_for()


def _to_hand_in(page: Page) -> None:
    page.get_by_role("link", name=re.compile("To hand in")).click()
    page.get_by_role("heading", name="To hand in").wait_for()


SHOTS: dict[str, tuple[str, tuple[int, int], Step]] = {
    "pegs": ("okafor", DESK, _cell),
    "marking-pile": ("okafor", DESK, _pile),
    "hand-ins": ("okafor", DESK, _handins),
    "my-pockets": ("josh", DESK, _pocket),
    "my-pockets-tablet": ("josh", TABLET, _pocket),
    "to-hand-in-phone": ("josh", PHONE, _to_hand_in),
}


def take_shots(home: Path) -> int:
    """Take every picture anew."""
    install.front_end(home)
    running = Running(home)
    with running.owned():
        running.manage("start_demo")
        port = processes.free_port()
        child = serve(running, port)
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=QUIET)
            for name, (username, (width, height), step) in SHOTS.items():
                context = browser.new_context(viewport={"width": width, "height": height}, locale="en-GB")
                page = context.new_page()
                sign_in(page, f"http://127.0.0.1:{port}", username)
                step(page)
                page.wait_for_load_state("networkidle")
                page.wait_for_timeout(400)
                page.screenshot(path=home / "docs" / "screenshots" / f"{name}.png")
                context.close()
            browser.close()
        processes.stop(child)
    return 0
