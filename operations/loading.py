"""Measurements of the application as it is served: one large file coming up, and a class that saves its texts."""

from __future__ import annotations

import base64
import hashlib
import http.client
import json
import os
import re
import threading
import time
from pathlib import Path
from statistics import quantiles
from typing import Any

LARGE = 1024**3
PART = 1024 * 1024
SAVERS, SECONDS, EVERY = 60, 60, 2.0
TOKEN = "b" * 32
"""A token of the right form: the cookie and the header need only be the same."""


def _headers(cookie: str) -> dict[str, str]:
    return {"Cookie": f"coatpeg={cookie}; coatpeg_csrf={TOKEN}", "X-CSRFToken": TOKEN}


def _resident(pids: list[int]) -> int:
    """Bytes of memory that processes hold that nobody else does (their anonymous memory)."""
    held = 0
    for pid in pids:
        try:
            found = re.search(r"RssAnon:\s+(\d+) kB", Path(f"/proc/{pid}/status").read_text())
        except (FileNotFoundError, ProcessLookupError):
            continue
        held += int(found[1]) * 1024 if found else 0
    return held


def _family(pid: int) -> list[int]:
    children = Path(f"/proc/{pid}/task/{pid}/children").read_text().split()
    return [pid, *(int(one) for one in children)]


def large_upload(port: int, server: int, folder: Path, saver: dict[str, Any]) -> dict[str, float]:
    """A file of one gigabyte, sent by the tus protocol, against copying and hashing the same file on the same disk."""
    folder.mkdir(parents=True, exist_ok=True)
    source = folder / "large.bin"
    with open(source, "wb") as target:
        for _ in range(LARGE // PART):
            target.write(os.urandom(PART))
        target.flush()
        os.fsync(target.fileno())
    try:
        copied = min(_copied_and_hashed(source, folder / "copy.bin") for _ in range(2))
        pids = _family(server)
        before, most, over = _resident(pids), 0, threading.Event()

        def watch() -> None:
            nonlocal most
            while not over.wait(0.05):
                most = max(most, _resident(pids))

        watching = threading.Thread(target=watch)
        watching.start()
        sent = _sent(port, source, saver)
        over.set()
        watching.join()
    finally:
        source.unlink()
    return {"copied": copied, "sent": sent, "ratio": sent / copied, "memory": float(max(most - before, 0))}


def _copied_and_hashed(source: Path, copy: Path) -> float:
    begun = time.perf_counter()
    with open(source, "rb") as reading, open(copy, "wb") as writing:
        while part := reading.read(PART):
            writing.write(part)
        writing.flush()
        os.fsync(writing.fileno())
    with open(copy, "rb") as reading:
        hashlib.file_digest(reading, "sha256")
    spent = time.perf_counter() - begun
    copy.unlink()
    return spent


def _sent(port: int, source: Path, saver: dict[str, Any]) -> float:
    pairs = {"portfolio": saver["portfolio"], "pocket": saver["pocket"], "name": "large.bin"}
    told = ",".join(f"{key} {base64.b64encode(str(value).encode()).decode()}" for key, value in pairs.items())
    headers = {**_headers(saver["cookie"]), "Tus-Resumable": "1.0.0"}
    line = http.client.HTTPConnection("127.0.0.1", port, timeout=300, blocksize=PART)
    begun = time.perf_counter()
    line.request("POST", "/api/uploads", headers={**headers, "Upload-Length": str(LARGE), "Upload-Metadata": told})
    answer = line.getresponse()
    answer.read()
    assert answer.status == 201, answer.status
    with open(source, "rb") as body:
        part = {"Upload-Offset": "0", "Content-Type": "application/offset+octet-stream", "Content-Length": str(LARGE)}
        line.request("PATCH", str(answer.headers["Location"]), body=body, headers={**headers, **part})
        done = line.getresponse()
        done.read()
    assert done.status == 204, done.status
    spent = time.perf_counter() - begun
    line.close()
    return spent


def class_saves(port: int, savers: list[dict[str, Any]]) -> dict[str, float]:
    """Sixty students who save a text every two seconds for a minute, each on a line of their own."""
    spent: list[float] = []
    errors: list[int] = []
    begun = time.perf_counter()

    def save(saver: dict[str, Any], late: float) -> None:
        line = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
        headers = {**_headers(saver["cookie"]), "Content-Type": "application/json"}
        text, version = "We sowed the beans in rows.", 0
        for number in range(int(SECONDS / EVERY)):
            time.sleep(max(begun + late + number * EVERY - time.perf_counter(), 0))
            was, text = text, f"{text} On day {number} they were {number} cm high."
            body = {"title": "Beans", "text": text, "base": was if number else "", "version": version}
            at = time.perf_counter()
            line.request("PUT", f"/api/pages/{saver['page']}", body=json.dumps(body), headers=headers)
            answer = line.getresponse()
            told = answer.read()
            spent.append(time.perf_counter() - at)
            if answer.status == 200:
                version = json.loads(told)["version"]
            else:
                errors.append(answer.status)
        line.close()

    threads = [threading.Thread(target=save, args=(one, EVERY * at / len(savers))) for at, one in enumerate(savers)]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    parts = quantiles(spent, n=100)
    return {"saves": len(spent), "errors": len(errors), "half": parts[49], "most": parts[94], "savers": len(savers)}
