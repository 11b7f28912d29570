"""``./peg walk``: every view of the demo in every theme and size, enlarged, narrow, spaced out, in a made-up language.

What a machine sees of each is in ``operations.eyes``; a sample of it runs with the tests. 200 % is the window of a
desk at half its size in CSS pixels, as a browser's zoom makes it.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, sync_playwright

from operations import eyes, install, processes
from operations.browsing import CHROMIUM, QUIET, sign_in
from operations.install import say
from operations.serving import Running, listen, serve

SIZES = {"desk": (1280, 800), "tablet": (820, 1180), "phone": (390, 844), "200 %": (640, 400)}
NARROW = (320, 256)
"""CSS pixels of WCAG 2.2, criterion 1.4.10 (Reflow)."""
THEMES = ("light", "dark", "contrast")


@dataclass(frozen=True)
class Walker:
    """Somebody, and the addresses of the views that they have."""

    username: str
    paths: list[str]


def walkers(page: Page, address: str) -> Iterator[Walker]:
    """The demo's people with their views, found through what the server tells them."""

    def told(username: str, path: str) -> Any:
        if signed != [username]:
            page.context.clear_cookies()
            sign_in(page, address, username)
            signed[:] = [username]
        return page.request.get(f"{address}/api{path}").json()

    signed: list[str] = []
    group = told("okafor", "/session")["groups"][0]["id"]
    base = f"/g/{group}"
    board = told("okafor", f"/groups/{group}/pegs")
    template = told("okafor", f"/groups/{group}/template")
    waiting = told("okafor", f"/groups/{group}/pile")["waiting"]
    shown = told("okafor", f"/groups/{group}/portfolios")
    pockets = [one for section in template["sections"] for one in section["pockets"]]
    row, column = next(
        (row, board["handins"][at])
        for row in board["students"]
        for at, cell in enumerate(row["cells"])
        if board["states"][cell]["status"] == "handed_in"
    )
    yield Walker(
        "okafor",
        [
            "/classes",
            "/start",
            f"{base}/pegs?as=list",
            f"{base}/pegs?as=patterns",
            f"{base}/pegs?as=scores",
            f"{base}/pegs",
            f"{base}/pegs?cells=filled",
            f"{base}/pegs?student={row['id']}&handin={column['id']}",
            f"{base}/pile/{waiting[0]['submission']}",
            f"{base}/hand-ins",
            f"{base}/hand-ins?new=1",
            f"{base}/hand-ins/{column['id']}/marking",
            *(f"{base}/template?pocket={one['id']}" for one in _of_each_kind(pockets)),
            f"{base}/setup/list",
            f"{base}/setup/list?bring=1",
            f"{base}/setup/groups",
            f"{base}/setup/staff",
            f"{base}/setup/calendar",
            f"{base}/look/{pockets[0]['id']}",
            f"{base}/look/own",
            *(f"{base}/look/{one['id']}?rows=1" for one in pockets if one["kind"] == "log"),
            f"{base}/shows",
            f"{base}/portfolio/{shown[0]['id']}/{pockets[0]['id']}",
        ],
    )
    own = told("josh", "/session")["groups"][0]
    book = f"/g/{own['id']}/portfolio/{own['portfolio']}"
    mine = told("josh", f"/portfolios/{own['portfolio']}")["pockets"]
    back = told("josh", f"/portfolios/{own['portfolio']}/feedback")
    yield Walker(
        "josh",
        [
            book,
            *(f"{book}/{one['id']}" for one in _of_each_kind(mine)),
            f"{book}/whole",
            f"{book}/show",
            f"{book}/taken-out",
            f"{book}/submission/{back[0]['submission']}",
            f"/g/{own['id']}/to-hand-in",
            f"/g/{own['id']}/feedback",
            f"/g/{own['id']}/shows",
        ],
    )
    crew = told("ines", "/session")["groups"][0]
    shared = [one for one in told("ines", f"/portfolios/{crew['portfolio']}")["pockets"] if one["together"]]
    yield Walker(
        "ines", [f"/g/{crew['id']}/portfolio/{crew['portfolio']}/{one['id']}" for one in _of_each_kind(shared)]
    )
    caseload = next(one for one in told("lindqvist", "/session")["groups"] if one["kind"] == "caseload")
    yield Walker("lindqvist", [f"/g/{caseload['id']}/caseload"])
    yield Walker("bright", ["/school", "/school?part=late", "/school?part=accounts", "/school?part=mail", "/requests"])


def _of_each_kind(pockets: list[dict[str, Any]]) -> list[dict[str, Any]]:
    return list({one["kind"]: one for one in reversed(pockets)}.values())


def walk(home: Path) -> int:
    """Walk through all of it; prints what is wrong, and how much was looked at. Returns the exit code."""
    install.front_end(home)
    running = Running(home)
    wrong: list[str] = []
    seen = 0
    with running.owned():
        running.manage("start_demo")
        port = processes.free_port()
        children = serve(running, listen(running, port))
        address = f"http://127.0.0.1:{port}"
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=QUIET)
            finder = browser.new_context(locale="en-GB").new_page()
            for walker in list(walkers(finder, address)):
                for found in walked(browser, address, walker):
                    seen += 1
                    wrong += found
            browser.close()
        for child in children:
            processes.stop(child)
    say(f"{seen} looks, {len(wrong)} found")
    return 1 if wrong else 0


def walked(browser: Browser, address: str, walker: Walker) -> Iterator[list[str]]:
    """What is wrong with each look at each view of somebody."""
    for name, size in {**SIZES, "320 × 256": NARROW, eyes.PSEUDO: SIZES["desk"]}.items():
        locale = eyes.PSEUDO if name == eyes.PSEUDO else "en-GB"
        context = browser.new_context(viewport={"width": size[0], "height": size[1]}, locale="en-GB")
        page = context.new_page()
        sign_in(page, address, walker.username)
        cookies = context.cookies()
        context.close()
        context = browser.new_context(viewport={"width": size[0], "height": size[1]}, locale=locale)
        context.add_cookies([{**one} for one in cookies])  # type: ignore[typeddict-item]
        page = context.new_page()
        heard = eyes.Heard(page)
        for path in walker.paths:
            page.goto(address + path)
            page.locator("main h1, main h2, main nav").first.wait_for(state="attached")
            page.wait_for_load_state("networkidle")
            for theme in THEMES if name in SIZES else THEMES[:1]:
                page.evaluate("theme => { document.documentElement.dataset.theme = theme; }", theme)
                found = [f"{walker.username} {path} {name} {theme}: {one}" for one in _looked(page, name, heard)]
                for one in found:
                    say(one[:600])
                yield found
        context.close()


def _looked(page: Page, name: str, heard: eyes.Heard) -> list[str]:
    wide = eyes.too_wide(page)
    found = [f"{wide} px wider than the window"] if wide > 0 else []
    if name == eyes.PSEUDO:
        found += [f"plain English: {one}" for one in heard.told(lambda: eyes.plain_english(page, heard))]
        return found + [f"cut off: {one}" for one in eyes.cut_off(page, heard)]
    if name == "desk":
        found += eyes.lost_when_spaced(page, heard)
    return found + (eyes.violations(page) if name in SIZES else [])
