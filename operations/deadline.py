"""A whole year group at its deadline, against the application as it is served."""

from __future__ import annotations

import base64
import io
import json
import random
import threading
import time
from collections.abc import Callable
from http.client import HTTPConnection, HTTPException
from statistics import quantiles
from typing import Any

from operations.loading import BODY, signed_in

STUDENTS = 300
TEXTS_WITHIN, PHOTOS_WITHIN, RUSH_WITHIN = 5.0, 30.0, 60.0
"""Seconds over which they press: without anything to send, with a photograph each, and in a rush that staff watch."""
WATCHING = 5
"""Staff who have the board open in a rush."""
POLL = 3.0
"""Seconds between two looks of an open board for what is new, as the page has it while something happens."""
PHOTO = 1_400_000
"""Bytes of a photograph of twelve million pixels, as telephones write them."""


class Line:
    """One person's connection; begun anew where it was cut."""

    def __init__(self, port: int, cookie: str) -> None:
        self.port, self.cookie = port, cookie
        self.line = HTTPConnection("127.0.0.1", port, timeout=120)

    def ask(self, method: str, path: str, body: Any = None, **more: str) -> tuple[int, Any, dict[str, str]]:
        """Status, data and headers of an answer; bytes go as they are, anything else as JSON."""
        raw = isinstance(body, bytes)
        told = body if raw or body is None else json.dumps(body)
        kind = {} if raw or body is None else {"Content-Type": "application/json"}
        try:
            self.line.request(method, path, body=told, headers={**signed_in(self.cookie), **kind, **more})
            answer = self.line.getresponse()
            data = answer.read()
        except (OSError, HTTPException):
            self.line.close()
            raise
        is_json = "json" in answer.headers.get("Content-Type", "")
        return answer.status, json.loads(data) if is_json and data else None, dict(answer.headers)

    def send(self, portfolio: int, pocket: int, name: str, data: bytes, key: str = "") -> str:
        """Send a file by tus; returns its address. ``OSError`` where the line was cut."""
        pairs = {"portfolio": portfolio, "pocket": pocket, "name": name, **({"key": key} if key else {})}
        told = ",".join(f"{one} {base64.b64encode(str(value).encode()).decode()}" for one, value in pairs.items())
        tus = {"Tus-Resumable": "1.0.0"}
        asked = {"Upload-Length": str(len(data)), "Upload-Metadata": told}
        status, _, found = self.ask("POST", "/api/uploads", **tus, **asked)
        if status != 201:
            raise Refused(status)
        status, _, here = self.ask("HEAD", found["Location"], **tus)
        at = int(here.get("Upload-Offset", "0")) if status == 200 else 0
        if at < len(data):
            more = {"Upload-Offset": str(at), "Content-Type": BODY}
            status, _, _ = self.ask("PATCH", found["Location"], data[at:], **tus, **more)
            if status != 204:
                raise Refused(status)
        return found["Location"]


class Refused(Exception):
    """An answer that was no success, by its status."""


def photograph() -> bytes:
    """A photograph of twelve million pixels in about ``PHOTO`` bytes."""
    from PIL import Image  # noqa: PLC0415

    rough = Image.effect_noise((1000, 750), 70).convert("RGB").resize((4000, 3000))
    target = io.BytesIO()
    for quality in (90, 80, 70, 60, 50):
        target = io.BytesIO()
        rough.save(target, "JPEG", quality=quality)
        if target.tell() <= PHOTO:
            break
    return target.getvalue() + bytes(max(PHOTO - target.tell(), 0))


def warm(port: int, of: dict[str, Any]) -> None:
    """Look around for a moment: a school's server has been running since the morning."""
    for one in of["students"][:20]:
        line = Line(port, one["cookie"])
        line.ask("GET", f"/api/portfolios/{one['portfolio']}/pockets/{of['pockets'][0]}")
        Line(port, of["lead"]).ask("GET", f"/api/groups/{of['group']}/pegs")


def rush(port: int, of: dict[str, Any], at: int) -> dict[str, Any]:
    """Everybody hands in within a minute while staff have the board open: asked for whole once, then for what is new.

    Beside what ``press`` returns: how many submissions each student has of it at the end, by how many students.
    """
    ended = threading.Event()
    seen: list[float] = []

    def staff() -> None:
        line = Line(port, of["lead"])
        line.ask("GET", f"/api/groups/{of['group']}/pegs")
        path, after = f"/api/groups/{of['group']}/changes", 0
        while not ended.wait(POLL):
            since = time.perf_counter()
            _, news, _ = line.ask("GET", f"{path}?after={after}&board=true")
            seen.append(time.perf_counter() - since)
            after = news["cursor"]

    watching = [threading.Thread(target=staff) for _ in range(WATCHING)]
    for one in watching:
        one.start()
    found = press(port, of, at, spread=RUSH_WITHIN)
    ended.set()
    for one in watching:
        one.join()
    _, board, _ = Line(port, of["lead"]).ask("GET", f"/api/groups/{of['group']}/pegs")
    place = [one["id"] for one in board["handins"]].index(of["handins"][at])
    cells = [board["states"][row["cells"][place]] for row in board["students"]]
    return {
        **found,
        "watched": quantiles(seen, n=20)[18],
        "once": sum(1 for one in cells if one["status"] == "handed_in" and one["count"] == 1),
    }


def press(
    port: int, of: dict[str, Any], at: int, photo: bytes = b"", *, spread: float = TEXTS_WITHIN
) -> dict[str, Any]:
    """Everybody hands in: spread over some seconds, the board looked at all the while.

    ``photo`` is what each of them sends first, every one another file. Returned are the seconds of the hand-ins and of
    the boards, and how long after the first press the last was answered; of pictures, when all were ready.
    """
    pressed: list[float] = []
    failed: list[int] = []
    last = [0.0]
    begun = time.perf_counter()

    def student(number: int, one: dict[str, Any]) -> None:
        time.sleep(max(begun + spread * number / len(of["students"]) - time.perf_counter(), 0))
        line = Line(port, one["cookie"])
        try:
            if photo:
                line.send(one["portfolio"], of["pockets"][at], f"card{number}.jpg", photo + number.to_bytes(4, "big"))
            path = f"/api/portfolios/{one['portfolio']}/handins/{of['handins'][at]}/submissions"
            since = time.perf_counter()
            status, _, _ = line.ask("POST", path, {"seen": 0, "even_if_empty": True})
        except Refused as refused:
            status, since = refused.args[0], time.perf_counter()
        pressed.append(time.perf_counter() - since)
        last[0] = max(last[0], time.perf_counter() - begun)
        if status != 201:
            failed.append(status)

    students = list(enumerate(of["students"]))
    random.Random(299).shuffle(students)
    boards = _while(
        [threading.Thread(target=student, args=(place, one)) for place, (_, one) in enumerate(students)],
        lambda: Line(port, of["lead"]).ask("GET", f"/api/groups/{of['group']}/pegs"),
    )
    return {
        "failed": len(failed),
        "answered": last[0],
        "spread": spread,
        "press": quantiles(pressed, n=20)[18],
        "board": quantiles(boards, n=20)[18],
    }


def _while(threads: list[threading.Thread], look: Callable[[], Any]) -> list[float]:
    """Run threads and look again and again; the seconds of each look."""
    for one in threads:
        one.start()
    spent = []
    while any(one.is_alive() for one in threads):
        since = time.perf_counter()
        look()
        spent.append(time.perf_counter() - since)
        time.sleep(0.1)
    return spent
