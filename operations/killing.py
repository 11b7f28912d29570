"""Killing the application again and again while people work: nothing that it acknowledged may be lost.

Students type, send files, hand in and write on a page that they fill together; one after the other a process that
answers, the worker or the database is killed as a power cut ends it, and the supervisor starts it again. What was
acknowledged is then looked for, and everything that is kept is derived anew (``./peg check``).
"""

from __future__ import annotations

import contextlib
import json
import os
import random
import signal
import subprocess
import sys
import threading
import time
from base64 import b64decode, b64encode
from functools import partial
from http.client import HTTPException
from pathlib import Path
from typing import Any

from operations import processes
from operations.deadline import Line, Refused
from operations.large_class import throwaway
from operations.serving import SERVERS, WORKERS, Running, begin_serving, begin_working, listen, serve
from operations.supervising import Service, Supervisor

KINDS = ("type", "send", "hand in", "write together")
WORKING = (*KINDS[:3], *KINDS[:3], *KINDS[3:], *KINDS[3:], *KINDS[3:])
"""What each student does."""
STUDENTS = len(WORKING)
BETWEEN = (0.2, 1.5)
"""Seconds from one being back to the next kill."""
CUT = (OSError, HTTPException, Refused, ValueError)


class Student:
    """Somebody who works on, whatever happens, and remembers what was acknowledged."""

    def __init__(self, port: int, of: dict[str, Any], number: int) -> None:
        self.port, self.of, self.me = port, of, of["students"][number]
        self.kind = WORKING[number]
        self.device: Device | None = None
        self.acknowledged = 0
        self.lost: list[str] = []
        self.tried = 0
        self.text, self.version = "", 0
        self.files: set[str] = set()
        self.receipts: set[str] = set()

    def work(self, over: threading.Event) -> None:
        """Go on until it is over."""
        while not over.is_set():
            line = Line(self.port, self.me["cookie"])
            with contextlib.suppress(*CUT):
                while not over.is_set():
                    self.tried += 1
                    ways = (self._type, self._send, self._hand_in, self._write)
                    dict(zip(KINDS, ways, strict=True))[self.kind](line)
                    self.acknowledged += 1
            time.sleep(0.05)

    def _type(self, line: Line) -> None:
        text = f"{self.tried} times I wrote that the beans grow."
        body = {"title": "Beans", "text": text, "version": self.version}
        status, told, _ = line.ask("PUT", f"/api/pages/{self.me['page']}", body)
        if status == 409:  # an answer that was lost on the way: what stands there is ours
            there, told, _ = line.ask("GET", f"/api/pages/{self.me['page']}")
            self.version = told["version"] if there == 200 else self.version
            raise Refused(status)
        if status != 200:
            raise Refused(status)
        self.text, self.version = text, told["version"]

    def _write(self, line: Line) -> None:
        if self.device is None:
            self.device = Device(line, self.me["portfolio"], self.of["together"])
        self.device.write(f"{self.me['portfolio']}x{self.tried}")
        self.device.exchange(line)
        time.sleep(0.2)

    def _send(self, line: Line) -> None:
        key = f"key-{self.tried}"
        data = os.urandom(200_000)
        address = line.send(self.me["portfolio"], self.of["pockets"][0], f"{key}.bin", data, key)
        status, told, _ = line.ask("POST", f"{address}/settle")
        if status != 200 or not told["done"]:
            raise Refused(status)
        self.files.add(f"{key}.bin")
        if len(self.files) % 20 == 0:  # a pocket has room for so many
            self._empty(line)

    def _empty(self, line: Line) -> None:
        path = f"/api/portfolios/{self.me['portfolio']}/pockets/{self.of['pockets'][0]}"
        status, told, _ = line.ask("GET", path)
        if status != 200:
            raise Refused(status)
        here = {one["artefact"]["title"] for one in told["evidence"]}
        self.lost += sorted(self.files - here)
        self.files -= here
        for one in told["evidence"]:
            line.ask("DELETE", f"/api/evidence/{one['id']}")

    def _hand_in(self, line: Line) -> None:
        handin = self.of["handins"][1]
        path = f"/api/portfolios/{self.me['portfolio']}/handins/{handin}/submissions"
        before = self._submissions(line)
        for one in before:
            if one["voided_at"] is None:
                line.ask("POST", f"/api/submissions/{one['id']}/take-back")
        status, made, _ = line.ask("POST", path, {"seen": len(before), "even_if_empty": True})
        if status != 201:
            raise Refused(status)
        self.receipts.add(made["receipt"])

    def _submissions(self, line: Line) -> list[dict[str, Any]]:
        path = f"/api/portfolios/{self.me['portfolio']}/pockets/{self.of['pockets'][1]}"
        status, told, _ = line.ask("GET", path)
        if status != 200:
            raise Refused(status)
        found: list[dict[str, Any]] = told["handins"][0]["submissions"]
        return found

    def look(self) -> list[str]:
        """What was acknowledged and is not there."""
        line = Line(self.port, self.me["cookie"])
        if self.kind == "type":
            _, told, _ = line.ask("GET", f"/api/pages/{self.me['page']}")
            if told["version"] < self.version or (told["version"] == self.version and told["text"] != self.text):
                self.lost.append(f"text of version {self.version}")
        elif self.kind == "send":
            self._empty(line)
            self.lost += sorted(self.files)
        elif self.kind == "write together":
            self._look_at_page(line)
        else:
            self.lost += sorted(self.receipts - {one["receipt"] for one in self._submissions(line)})
        return self.lost

    def _look_at_page(self, line: Line) -> None:
        """Every word that was taken stands on the page as it is opened anew, and this device has the same."""
        assert self.device is not None
        self.device.exchange(line)
        anew = Device(line, self.me["portfolio"], self.of["together"])
        self.lost += sorted(one for one in self.device.taken if f"{one} " not in anew.text)
        if anew.text != self.device.text:
            self.lost.append(f"the page as device {self.device.client} has it")


class Device:
    """A page that several fill, as one of them has it open: it keeps what was not taken yet, and sends it again."""

    def __init__(self, line: Line, portfolio: int, pocket: int) -> None:
        from pycrdt import Doc, XmlElement, XmlFragment, XmlText  # noqa: PLC0415 - of the application's packages

        status, page, _ = line.ask("POST", f"/api/portfolios/{portfolio}/pockets/{pocket}/shared", {})
        if status != 200:
            raise Refused(status)
        self.page, self.client, self.number = page["id"], page["client"], page["number"]
        self.doc: Any = Doc(client_id=self.client)
        self.root = self.doc.get("page", type=XmlFragment)
        if page["number"]:
            self.doc.apply_update(b64decode(page["data"]))
        self.sent = self.doc.get_state()
        self.mine = XmlText("")
        self.passage: Any = XmlElement("paragraph", {}, [self.mine])
        self.waiting: list[str] = []
        self.taken: list[str] = []

    def write(self, word: str) -> None:
        """Write a word at the end of a passage of one's own."""
        if self.passage is not None:
            self.root.children.append(self.passage)
            self.passage = None
        self.mine.insert(len(self.mine), f"{word} ")
        self.waiting.append(word)

    def exchange(self, line: Line) -> None:
        """Send what was not taken yet and take what came; ``Refused`` where it was not answered well."""
        update = self.doc.get_update(self.sent)
        body: dict[str, Any] = {"after": self.number}
        if len(update) > NOTHING:
            body |= {"client": self.client, "update": b64encode(update).decode()}
        status, came, _ = line.ask("POST", f"/api/shared/{self.page}/exchange", body)
        if status != 200:
            raise Refused(status)
        for data in [came["data"], *(one["data"] for one in came["updates"])]:
            if data:
                self.doc.apply_update(b64decode(data))
        self.number, self.sent = came["number"], self.doc.get_state()
        self.taken, self.waiting = [*self.taken, *self.waiting], []

    @property
    def text(self) -> str:
        """The page as this device has it."""
        return str(self.root)


NOTHING = 2
"""Bytes of an update in which nothing is new."""


def kill(home: Path, rounds: int, seed: int = 200) -> dict[str, Any]:
    """Kill so many times; how often what was killed, how much was acknowledged, and what of it was lost."""
    with throwaway(home) as running:
        made = subprocess.run(
            [sys.executable, "-m", "operations.large_class", str(STUDENTS)],
            env=running.environment(),
            cwd=home,
            stdout=subprocess.PIPE,
            text=True,
            check=True,
        )
        of = json.loads(made.stdout)
        port = processes.free_port()
        supervisor = _started(running, port)
        over = threading.Event()
        killed: list[str] = []
        killing = threading.Thread(target=_kill_all, args=(supervisor, port, rounds, random.Random(seed), killed))
        students = [Student(port, of, number) for number in range(STUDENTS)]
        working = [threading.Thread(target=one.work, args=(over,)) for one in students]
        for thread in (killing, *working):
            thread.start()
        # Here and not in a thread: the kernel ends children with the thread that began them.
        while killing.is_alive():
            supervisor.look()
            time.sleep(0.05)
        over.set()
        for thread in working:
            thread.join()
        lost = [one for student in students for one in student.look()]
        checked = subprocess.run(
            [sys.executable, str(home / "manage.py"), "check_records"],
            env=running.environment(),
            capture_output=True,
            text=True,
        )
        supervisor.stop()
        _forget(running)
    return {
        "rounds": rounds,
        "killed": {name: killed.count(name) for name in sorted(set(killed))},
        "acknowledged": {kind: sum(one.acknowledged for one in students if one.kind == kind) for kind in KINDS},
        "lost": lost,
        # What was killed three times over is set aside and named: that is no difference, and is told by itself.
        "differences": "" if "\n0 differences" in f"\n{checked.stdout}" else checked.stdout + checked.stderr,
        "set_aside": checked.stdout.count("in the background: "),
    }


def _started(running: Running, port: int) -> Supervisor:
    listening = listen(running, port)
    supervisor = Supervisor(
        running.var / "log" / "peg.log",
        Service("The database", running.database.spawn, running.database.child),
        *(
            Service(f"Server {name}", partial(begin_serving, running, listening, name), child)
            for name, child in zip(SERVERS, serve(running, listening), strict=True)
        ),
        *(Service(f"Worker {name}", partial(begin_working, running, name)) for name in WORKERS),
    )
    for one in supervisor.services:
        one.quiet = 0  # it is we who end them, again and again
    return supervisor


def _forget(running: Running) -> None:
    """The supervisor has ended the database already."""
    running.database.stop()


def _kill_all(supervisor: Supervisor, port: int, rounds: int, dealer: random.Random, killed: list[str]) -> None:
    for _ in range(rounds):
        killed.append(_killed(supervisor, dealer, port))
    time.sleep(1)


def _killed(supervisor: Supervisor, dealer: random.Random, port: int) -> str:
    """Kill one of the services and wait until there is a new one and the application answers; its kind."""
    time.sleep(dealer.uniform(*BETWEEN))
    service = dealer.choice(supervisor.services)
    child = service.child
    if child is not None and child.poll() is None:
        child.send_signal(signal.SIGKILL)
        processes.wait_until(lambda: service.child is not None and service.child is not child, 60)
    if not processes.wait_until(lambda: _answers(port), 60):
        raise SystemExit(f"{service.name} was killed and the application did not come back.")
    return service.name.partition(" ")[0] if service.name[-1].isdigit() else "Database"


def _answers(port: int) -> bool:
    try:
        return Line(port, "").ask("GET", "/health")[0] == 200
    except CUT:
        return False
