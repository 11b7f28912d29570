"""Measurements of the application as it is served: one large file coming up, and a class that saves its texts."""

from __future__ import annotations

import base64
import hashlib
import http.client
import json
import os
import re
import socket
import threading
import time
from pathlib import Path
from statistics import median, quantiles
from typing import Any

LARGE = 1024**3
PART = 1024 * 1024
SENT_AT_ONCE = 8 * PART
"""As a page of ours sends it (``frontend/src/taking-in/queue.ts``)."""
ROUNDS = 2
SAVERS, SECONDS, EVERY = 60, 60, 2.0
BODY = "application/offset+octet-stream"
"""The kind of a part of a file (tus)."""
TOKEN = "b" * 32
"""A token of the right form: the cookie and the header need only be the same."""


def signed_in(cookie: str) -> dict[str, str]:
    """The headers of somebody with a session."""
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


def large_upload(port: int, pids: list[int], folder: Path, saver: dict[str, Any]) -> dict[str, float]:
    """A file of one gigabyte, sent by the tus protocol, against copying and hashing the same file on the same disk."""
    folder.mkdir(parents=True, exist_ok=True)
    source = folder / "large.bin"
    with open(source, "wb") as target:
        for _ in range(LARGE // PART):
            target.write(os.urandom(PART))
        target.flush()
        os.fsync(target.fileno())
    try:
        before, most, over = _resident(pids), 0, threading.Event()

        def watch() -> None:
            nonlocal most
            while not over.wait(0.05):
                most = max(most, _resident(pids))

        watching = threading.Thread(target=watch)
        watching.start()
        # In turn, each one's better time: a disk has slow moments of its own.
        copied, sent = [], []
        for number in range(ROUNDS):
            with open(source, "r+b") as other:
                other.write(bytes([number]) * 16)  # another file each time: the same one would be kept once
            copied.append(_copied_and_hashed(source, folder / "copy.bin"))
            sent.append(_sent(port, source, saver))
        over.set()
        watching.join()
    finally:
        source.unlink()
    best = {"copied": min(copied), "sent": min(sent)}
    return {**best, "ratio": best["sent"] / best["copied"], "memory": float(max(most - before, 0))}


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
    headers = {**signed_in(saver["cookie"]), "Tus-Resumable": "1.0.0"}
    line = http.client.HTTPConnection("127.0.0.1", port, timeout=300, blocksize=PART)
    begun = time.perf_counter()
    line.request("POST", "/api/uploads", headers={**headers, "Upload-Length": str(LARGE), "Upload-Metadata": told})
    answer = line.getresponse()
    answer.read()
    assert answer.status == 201, answer.status
    address = str(answer.headers["Location"])
    with open(source, "rb") as body:
        for at in range(0, LARGE, SENT_AT_ONCE):
            part = {"Upload-Offset": str(at), "Content-Type": "application/offset+octet-stream"}
            line.request("PATCH", address, body=body.read(SENT_AT_ONCE), headers={**headers, **part})
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
        headers = {**signed_in(saver["cookie"]), "Content-Type": "application/json"}
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


SLOW, AT_80_KB = 5, 80_000
MORE, HALF_SENT = 8, 10
LOOKS = 20


def slow_clients(port: int, savers: list[dict[str, Any]]) -> dict[str, float]:
    """How long a marking pile takes while files come up slowly (80 kB/s each), against the same pile alone.

    Five uploads; then eight, and ten requests beside them of which only the half is sent and nobody is signed in.
    """
    group, cookie = savers[0]["group"], savers[0]["lead"]
    over = threading.Event()
    alone = _looks(port, group, cookie)
    lines = [threading.Thread(target=_slowly, args=(port, one, over)) for one in savers[:MORE]]
    for one in lines[:SLOW]:
        one.start()
    time.sleep(1)
    five = _looks(port, group, cookie)
    for one in lines[SLOW:]:
        one.start()
    halves = [_half_sent(port) for _ in range(HALF_SENT)]
    time.sleep(1)
    crowd = _looks(port, group, cookie)
    over.set()
    for half in halves:
        half.close()
    for one in lines:
        one.join()
    return {"alone": alone, "five": five, "crowd": crowd, "ratio": five / alone, "crowd_ratio": crowd / alone}


def _looks(port: int, group: int, cookie: str) -> float:
    """The middle time of some looks at a marking pile: the whole class is judged for each, and nothing is kept."""
    spent = []
    for _ in range(LOOKS):
        line = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
        begun = time.perf_counter()
        line.request("GET", f"/api/groups/{group}/pile", headers=signed_in(cookie))
        answer = line.getresponse()
        answer.read()
        assert answer.status == 200, answer.status
        spent.append(time.perf_counter() - begun)
        line.close()
    return median(spent)


def _slowly(port: int, saver: dict[str, Any], over: threading.Event) -> None:
    """Send a file at 80 kB/s until it is over, then let it go."""
    pairs = {"portfolio": saver["portfolio"], "pocket": saver["pocket"], "name": "slow.bin"}
    told = ",".join(f"{key} {base64.b64encode(str(value).encode()).decode()}" for key, value in pairs.items())
    size = 64 * PART
    headers = {**signed_in(saver["cookie"]), "Tus-Resumable": "1.0.0"}
    line = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
    line.request("POST", "/api/uploads", headers={**headers, "Upload-Length": str(size), "Upload-Metadata": told})
    answer = line.getresponse()
    answer.read()
    assert answer.status == 201, answer.status
    address = str(answer.headers["Location"])
    line.putrequest("PATCH", address)
    part = {"Upload-Offset": "0", "Content-Type": "application/offset+octet-stream", "Content-Length": str(size)}
    for name, value in {**headers, **part}.items():
        line.putheader(name, value)
    line.endheaders()
    while not over.wait(0.1):
        line.send(bytes(AT_80_KB // 10))
    line.close()
    ending = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
    for _ in range(100):
        ending.request("DELETE", address, headers=headers)
        done = ending.getresponse()
        done.read()
        if done.status != 423:  # its last part is still being written
            break
        time.sleep(0.1)
    ending.close()


def _half_sent(port: int) -> socket.socket:
    """A sign-in of which the body never comes."""
    half = socket.create_connection(("127.0.0.1", port))
    head = ["POST /api/session HTTP/1.1", "Host: 127.0.0.1", "Content-Type: application/json", "Content-Length: 900"]
    half.sendall("\r\n".join([*head, "", "{"]).encode())
    return half
