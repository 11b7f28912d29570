"""Chromium for measuring and for screenshots."""

from __future__ import annotations

from playwright.sync_api import Page

CHROMIUM = "/usr/bin/chromium"
QUIET = [
    "--no-sandbox",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--disable-default-apps",
    "--disable-extensions",
    "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
]


def sign_in(page: Page, address: str, username: str) -> None:
    """Sign in as one of the demo's people."""
    page.goto(address)
    page.get_by_label("User name").fill(username)
    page.get_by_label("Password").fill("larkfield")
    page.get_by_role("button", name="Sign in", exact=True).click()
    page.locator("#content").wait_for()
