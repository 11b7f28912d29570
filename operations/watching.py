"""What somebody waits for in the browser: weight of the first view, when it stands, how a key feels in a long text."""

from __future__ import annotations

import statistics
from typing import Any

from playwright.sync_api import Browser, BrowserContext, CDPSession, FloatRect, Page, ViewportSize, sync_playwright

from operations.browsing import CHROMIUM, QUIET, sign_in

DESK = ViewportSize(width=1280, height=800)
SLOWER = 4
"""Times that the processor is slowed down for what a machine of a school takes."""
WORDS, KEYS, STEPS, RUNS = 5_000, 60, 40, 3
PARAGRAPHS = 50
_WRITTEN = """([page, paragraphs, words]) => {
  const html = `<p>${Array(words).fill("ox").join(" ")}</p>`.repeat(paragraphs);
  const token = /coatpeg_csrf=([^;]+)/.exec(document.cookie)[1];
  return fetch(`/api/pages/${page}`, {
    method: "PUT",
    headers: { "Content-Type": "application/json", "X-CSRFToken": token },
    body: JSON.stringify({ title: "Long", text: "", html, version: 0 }),
  }).then((answer) => { if (!answer.ok) throw new Error(answer.status); });
}"""
_DRAWN = """() => new Promise((done) => {
  const found = { lcp: 0, cls: 0 };
  new PerformanceObserver((list) => { for (const one of list.getEntries()) found.lcp = one.startTime; })
    .observe({ type: "largest-contentful-paint", buffered: true });
  new PerformanceObserver((list) => {
    for (const one of list.getEntries()) if (!one.hadRecentInput) found.cls += one.value;
  }).observe({ type: "layout-shift", buffered: true });
  setTimeout(() => done(found), 300);
})"""


_FRAMES = """() => {
  window.frames_ = []; window.tasks_ = []; window.last_ = performance.now();
  const beat = (at) => { window.frames_.push(at - window.last_); window.last_ = at; requestAnimationFrame(beat); };
  requestAnimationFrame(beat);
  new PerformanceObserver((list) => { for (const one of list.getEntries()) window.tasks_.push(one.duration); })
    .observe({ type: "longtask" });
}"""
_DRAGGED = """() => new Promise((done) => {
  const box = document.querySelector("[role=grid]").parentElement;
  let at = 0;
  const drag = () => {
    box.scrollTop = (at * 997) % 60000; box.scrollLeft = (at * 61) % 2500;
    if (++at < 40) requestAnimationFrame(drag); else done();
  };
  drag();
})"""
_PRESSED = """(name) => {
  const chip = [...document.querySelectorAll("button[aria-pressed]")].find((one) => one.textContent.startsWith(name));
  const begun = performance.now();
  chip.click();
  const spent = () => performance.now() - begun;
  return new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => done(spent()))));
}"""


def a_wide_board(staff: BrowserContext, address: str, group: int) -> dict[str, float]:
    """The board of 2,000 × 60, in seconds: to its first rows, its longest tasks, its slowest filter; and its nodes.

    The first rows are counted from the answer's end; the tasks are those of scrolling by wheel, by keys and dragged.
    """
    page = staff.new_page()
    page.goto(f"{address}/g/{group}/pegs")
    page.locator("[data-cell]").first.wait_for()
    first = page.evaluate(
        "() => { const read = performance.getEntriesByType('resource').find((one) => one.name.endsWith('/pegs'));"
        " return performance.now() - read.responseEnd; }"
    )
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(3_000)
    page.evaluate(_FRAMES)
    page.mouse.move(700, 500)
    found = {"first": first / 1000, "nodes": page.evaluate("document.querySelectorAll('*').length")}

    def longest() -> float:
        """Seconds of the longest task since the last look; a task under 50 ms is none that the browser tells of."""
        page.wait_for_timeout(200)
        return float(page.evaluate("() => Math.max(0, ...window.tasks_.splice(0))")) / 1000

    longest()
    for _ in range(30):
        page.mouse.wheel(0, 400)
        page.wait_for_timeout(16)
    for _ in range(10):
        page.mouse.wheel(160, 0)
        page.wait_for_timeout(16)
    found["wheel"] = longest()
    page.evaluate(_DRAGGED)
    found["drag"] = longest()
    page.locator("[data-cell]").first.focus()
    for key in ("ArrowRight",) * 30 + ("ArrowDown",) * 30:
        page.keyboard.press(key)
    found["keys"] = longest()
    found["filter"] = max(page.evaluate(_PRESSED, name) for name in ("Late", "To mark", "Late")) / 1000
    page.close()
    return found


def watch(port: int, wide: int) -> dict[str, Any]:
    """All of it: bytes, seconds, and the shift of the layout (CLS, no unit), from the browser's own entries."""
    address = f"http://127.0.0.1:{port}"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=QUIET)
        staff = _signed_in(browser, address, "okafor")
        student = _signed_in(browser, address, "josh")
        classes = staff.request.get(f"{address}/api/session").json()["groups"]
        plot = next(one["id"] for one in classes if one["name"].startswith("8 Plot"))
        pegs = f"{address}/g/{plot}/pegs"
        found = {
            "weight": first_view(staff, pegs),
            "drawn": drawn(browser, staff, pegs),
            "arrow": an_arrow(staff, pegs),
            "key": a_key(student, address),
            "next": the_next(staff, f"{address}/g/{plot}/pile"),
            "ink": a_stroke(staff, f"{address}/g/{plot}/pile"),
            "wide": a_wide_board(staff, address, wide),
        }
        browser.close()
    return found


def _signed_in(browser: Browser, address: str, username: str) -> BrowserContext:
    context = browser.new_context(viewport=DESK, locale="en-GB")
    page = context.new_page()
    sign_in(page, address, username)
    page.close()
    return context


def first_view(context: BrowserContext, pegs: str) -> int:
    """Bytes of compressed script and style that a first view of Pegs brings over the wire, with a cold cache.

    What is loaded afterwards, while nothing else is to be done, is not counted: the view stands without it.
    """
    page = context.new_page()
    session = context.new_cdp_session(page)
    session.send("Network.enable")
    session.send("Network.setCacheDisabled", {"cacheDisabled": True})
    kinds: dict[str, str] = {}
    weight: list[int] = []
    session.on("Network.responseReceived", lambda event: kinds.update({event["requestId"]: event["type"]}))
    session.on(
        "Network.loadingFinished",
        lambda event: (
            weight.append(event["encodedDataLength"])
            if kinds.get(event["requestId"]) in ("Script", "Stylesheet")
            else None
        ),
    )
    page.goto(pegs)
    page.get_by_role("grid").wait_for()
    page.wait_for_load_state("networkidle")
    page.close()
    return sum(weight)


def drawn(browser: Browser, staff: BrowserContext, pegs: str) -> dict[str, float]:
    """When Pegs stands (LCP, seconds; of a few loads the middle) on a slowed processor; its layout shift (the most)."""
    lcp, cls = [], []
    for _ in range(RUNS):
        context = browser.new_context(viewport=DESK, locale="en-GB", storage_state=staff.storage_state())
        page = context.new_page()
        context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
        # Nothing looks into the page before it stands: looking is work that it would have to do meanwhile.
        page.goto(pegs, wait_until="networkidle")
        page.get_by_role("grid").wait_for()
        seen = page.evaluate(_DRAWN)
        lcp.append(seen["lcp"] / 1000)
        cls.append(seen["cls"])
        context.close()
    return {"lcp": statistics.median(lcp), "cls": max(cls)}


def _busy(session: CDPSession) -> float:
    """Seconds that the page's own thread has worked."""
    metrics = {one["name"]: one["value"] for one in session.send("Performance.getMetrics")["metrics"]}
    return float(metrics["TaskDuration"])


def _each(page: Page, key: str, times: int) -> float:
    """Seconds of work that one press of a key makes."""
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable")
    page.keyboard.press(key)
    before = _busy(session)
    for _ in range(times):
        page.keyboard.press(key)
    page.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))")
    return (_busy(session) - before) / times


def an_arrow(staff: BrowserContext, pegs: str) -> float:
    """Seconds of work that an arrow key makes on the board."""
    page = staff.new_page()
    page.goto(pegs)
    page.locator('[role="grid"] [data-cell="0 0"]').focus()
    spent = _each(page, "ArrowDown", STEPS)
    page.close()
    return spent


def a_key(student: BrowserContext, address: str) -> float:
    """Seconds of work that a key makes in a text of 5,000 words, saving by itself included."""
    page = student.new_page()
    group = page.request.get(f"{address}/api/session").json()["groups"][0]
    page.goto(f"{address}/g/{group['id']}/portfolio/{group['portfolio']}")
    page.get_by_role("button", name="New page", exact=True).click()
    page.wait_for_url("**/page/*")
    page.evaluate(_WRITTEN, [page.url.split("/")[-1], PARAGRAPHS, WORDS // PARAGRAPHS])
    page.reload()
    field = page.get_by_role("textbox", name="Your text")
    field.get_by_text("ox ox").nth(PARAGRAPHS // 2).click()
    page.keyboard.press("End")
    spent = _each(page, "a", KEYS)
    page.get_by_role("button", name="Put in the bin: Long").click()
    page.close()
    return spent


NEXT = 20
_UNTIL_READ = """() => new Promise((done) => {
  const begun = performance.now();
  const before = document.querySelector("#desk")?.textContent;
  const look = () => {
    const now = document.querySelector("#desk")?.textContent;
    const there = now && now !== before && document.querySelector("main figure img, main [data-words]");
    if (there) done(performance.now() - begun);
    else requestAnimationFrame(look);
  };
  document.dispatchEvent(new KeyboardEvent("keydown", { key: "n", bubbles: true }));
  requestAnimationFrame(look);
})"""


def the_next(staff: BrowserContext, pile: str) -> dict[str, float]:
    """Seconds from the key to the next submission that can be read: half are quicker, and 95 of 100."""
    page = staff.new_page()
    page.goto(pile)
    page.locator("#desk").wait_for()
    page.wait_for_load_state("networkidle")
    spent = []
    for _ in range(NEXT):
        spent.append(page.evaluate(_UNTIL_READ) / 1000)
        # As somebody who reads what is there before they go on.
        page.wait_for_timeout(700)
    page.close()
    ordered = sorted(spent)
    return {"half": statistics.median(ordered), "most": ordered[round(0.95 * (len(ordered) - 1))]}


STROKES, POINTS = 50, 100
"""Of ink that lies there before the one that is measured: 5,000 points."""
MOVES = 60


def a_stroke(staff: BrowserContext, pile: str) -> float:
    """Seconds of work that a move of the pen makes over a picture with 5,000 points of ink; it is undone."""
    page = staff.new_page()
    page.goto(pile)
    page.locator("[data-ink]").first.wait_for()
    page.get_by_role("button", name="Draw").first.click()
    box = page.locator("[data-ink]").first.bounding_box()
    assert box
    for number in range(STROKES):
        _drawn(page, box, number / STROKES, POINTS)
    session = page.context.new_cdp_session(page)
    session.send("Performance.enable")
    before = _busy(session)
    _drawn(page, box, 0.5, MOVES)
    page.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))")
    spent = (_busy(session) - before) / MOVES
    for _ in range(STROKES + 1):
        page.get_by_role("button", name="Undo the last stroke").first.click()
    page.wait_for_timeout(1_500)
    page.close()
    return spent


def _drawn(page: Page, box: FloatRect, at: float, points: int) -> None:
    y = box["y"] + 20 + at * (min(box["height"], 300) - 40)
    page.mouse.move(box["x"] + 10, y)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] - 10, y + 8, steps=points)
    page.mouse.up()
