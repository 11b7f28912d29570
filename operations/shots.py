"""``./peg shots``: the screenshots of the main views, from the demo's data."""

from __future__ import annotations

import io
import json
import re
from collections.abc import Callable
from pathlib import Path

import pypdfium2
from playwright.sync_api import Page, sync_playwright

from operations import install, processes
from operations.browsing import CHROMIUM, QUIET, sign_in
from operations.serving import Running, listen, serve

DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)
Step = Callable[[Page], bytes | None]
"""What is done before the picture is taken, or the picture itself where it is not of the window."""


def _cell(page: Page) -> None:
    page.get_by_role("button", name=re.compile("Recipe card: handed in")).nth(2).click()
    page.get_by_role("complementary", name="The chosen peg").get_by_text("Reflection").first.wait_for()


def _classes(page: Page) -> None:
    page.get_by_role("link", name=re.compile("^Mark .* oldest first")).wait_for()


def _pile(page: Page) -> None:
    page.get_by_role("link", name=re.compile("Marking pile")).click()
    page.get_by_role("link", name=re.compile("Recipe card")).first.click()
    page.get_by_role("complementary", name="Marking").wait_for()


def _handins(page: Page) -> None:
    page.get_by_role("link", name="Hand-ins").click()
    page.get_by_role("link", name="Change Crop log").click()
    page.get_by_label("Due", exact=True).fill("next Fri")
    page.get_by_role("region", name="Who will get it").get_by_text("no longer overdue").wait_for()


def _pocket(page: Page) -> None:
    page.get_by_role("link", name=re.compile("^Recipe card")).first.click()
    page.get_by_role("article").wait_for()


def _to_hand_in(page: Page) -> None:
    page.get_by_role("link", name=re.compile("To hand in")).click()
    page.get_by_role("heading", name="To hand in").wait_for()


def _template(page: Page) -> None:
    page.get_by_role("link", name="Template").click()
    outline = page.get_by_role("navigation", name="Outline of the template")
    outline.get_by_role("button", name=re.compile("^Recipe card")).click()
    page.get_by_label("artefacts", exact=True).fill("3")
    page.get_by_role("status", name="What saving means").get_by_text("more of").wait_for()


def _patterns(page: Page) -> None:
    page.get_by_role("button", name="Patterns", exact=True).click()
    page.get_by_role("heading", name="When work comes").wait_for()


def _shared(page: Page) -> None:
    page.get_by_role("link", name=re.compile("What could go wrong")).first.click()
    page.get_by_role("region", name="Who wrote what").get_by_role("button").nth(1).click()
    page.get_by_text("Everything is saved").wait_for()


def _came(page: Page) -> None:
    page.get_by_role("button", name="List", exact=True).click()
    page.get_by_role("button", name=re.compile("^To mark")).click()
    page.get_by_role("list", name="What came in").get_by_role("link").first.wait_for()


PASTED = """Surname\tForename\tE-mail\tNumber\tPeriod
Dube\tThandi\t\t\tP3
Ellery\tJosh\tjosh@larkfield.example\t\tP4
Okonkwo\tChidi\tchidi@larkfeild\t20906\tP3
Nguyen\tLan Anh\tlan@larkfield.example\t20907\tP3
Nguyen\tLan Anh\tlan@larkfield.example\t20907\tP3
O'Neill\tSaoirse\tsaoirse@larkfield.example\t20908\tP4
"""


def _list(page: Page) -> None:
    page.get_by_role("link", name="Set-up").click()
    page.get_by_role("link", name="Bring in a list").click()
    page.get_by_label("Paste the list here").fill(PASTED)
    page.get_by_role("button", name="See what it does").click()
    page.get_by_text("Not understood").first.wait_for()


def _caseload(page: Page) -> None:
    page.get_by_role("heading", name="Caseload").wait_for()
    page.get_by_role("main").get_by_role("button", name=re.compile("fewer")).first.click()


def _look_in(page: Page) -> None:
    page.get_by_role("link", name="Hand-ins").click()
    page.get_by_role("link", name=re.compile("^Look in: everybody")).first.click()
    page.get_by_role("link", name=re.compile("Opened, not begun")).first.wait_for()


def _scores(page: Page) -> None:
    page.get_by_role("button", name="Scores", exact=True).click()
    page.get_by_role("button", name="Weights").click()
    page.get_by_label("Weight of Recipe card").fill("80")
    page.get_by_role("status").get_by_text("totals change").wait_for()


def _theme(theme: str) -> Callable[[Page], None]:
    """Shown in a theme, without choosing it for the account."""

    def show(page: Page) -> None:
        page.evaluate("theme => { document.documentElement.dataset.theme = theme; }", theme)

    return show


def _cupboard(page: Page) -> None:
    page.get_by_role("grid").wait_for()
    page.keyboard.press("c")
    page.get_by_role("complementary", name="Cupboard").get_by_role("listitem").first.wait_for()
    _theme("dark")(page)


def _rubric(page: Page) -> None:
    page.get_by_role("link", name="Hand-ins").click()
    page.get_by_role("link", name="Change Recipe card").click()
    page.locator("summary").filter(has_text="Rubric").click()
    page.get_by_label("Weight of criterion 1").fill("4")
    page.get_by_text("come to another score").wait_for()
    page.get_by_role("group", name="Criteria").get_by_role("textbox").first.scroll_into_view_if_needed()
    _theme("contrast")(page)


def _paper(page: Page) -> bytes:
    """The first page of those pegs that would come out of the printer."""
    page.get_by_role("button", name=re.compile("^Overdue")).click()
    page.evaluate("window.print = () => { document.title = 'ready'; }")
    page.get_by_role("button", name="Take these pegs along").click()
    page.get_by_role("menuitem", name="Print").click()
    page.wait_for_function("document.title === 'ready'")
    first = pypdfium2.PdfDocument(page.pdf(prefer_css_page_size=True))[0]
    picture = io.BytesIO()
    first.render(scale=1.5).to_pil().save(picture, "PNG")
    return picture.getvalue()


def _feedback(page: Page) -> None:
    page.get_by_role("link", name=re.compile("^Feedback")).first.click()
    told = page.get_by_role("listitem").filter(has_text="comments on the work").filter(has_text="Q1")
    told.get_by_role("link", name="Read what you handed in").first.click()
    page.get_by_role("button", name=re.compile("^Comment 1:")).wait_for()


_PUT_AWAY = """async (helped) => {
  const { person } = await (await fetch("/api/session")).json();
  const token = /coatpeg_csrf=([^;]+)/.exec(document.cookie)[1];
  const headers = { "Content-Type": "application/json", "X-CSRFToken": token };
  await fetch("/api/reading", { method: "PUT", headers, body: JSON.stringify({ ...person.reading, helped }) });
}"""


def _without_help(page: Page, home: Path) -> None:
    """As whoever is not new here sees the views: the lines of help are put away."""
    shapes = json.loads((home / "frontend" / "openapi.json").read_text())["components"]["schemas"]
    page.evaluate(_PUT_AWAY, shapes["ReadingShape"]["properties"]["helped"]["items"]["enum"])
    page.reload()
    page.locator("#content").wait_for()


SHOTS: dict[str, tuple[str, tuple[int, int], Step]] = {
    "pegs": ("okafor", DESK, _cell),
    "marking-pile": ("okafor", DESK, _pile),
    "hand-ins": ("okafor", DESK, _handins),
    "template": ("okafor", DESK, _template),
    "set-up": ("okafor", DESK, _list),
    "patterns": ("okafor", DESK, _patterns),
    "my-classes": ("marsh", DESK, _classes),
    "list": ("okafor", DESK, _came),
    "shared-page": ("ines", DESK, _shared),
    "caseload": ("lindqvist", DESK, _caseload),
    "scores": ("okafor", DESK, _scores),
    "my-pockets": ("josh", DESK, _pocket),
    "my-pockets-tablet": ("josh", TABLET, _pocket),
    "look-in": ("okafor", DESK, _look_in),
    "feedback": ("josh", TABLET, _feedback),
    "to-hand-in-phone": ("josh", PHONE, _to_hand_in),
    "cupboard-dark": ("okafor", DESK, _cupboard),
    "rubric-contrast": ("okafor", DESK, _rubric),
    "print": ("okafor", DESK, _paper),
}


def take_shots(home: Path) -> int:
    """Take every picture anew."""
    install.front_end(home)
    running = Running(home)
    with running.owned():
        running.manage("start_demo")
        port = processes.free_port()
        children = serve(running, listen(running, port))
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=QUIET)
            for name, (username, (width, height), step) in SHOTS.items():
                context = browser.new_context(viewport={"width": width, "height": height}, locale="en-GB")
                page = context.new_page()
                sign_in(page, f"http://127.0.0.1:{port}", username)
                _without_help(page, home)
                drawn = step(page)
                page.wait_for_load_state("networkidle")
                page.wait_for_timeout(400)
                (home / "docs" / "screenshots" / f"{name}.png").write_bytes(drawn or page.screenshot())
                context.close()
            browser.close()
        for child in children:
            processes.stop(child)
    return 0
