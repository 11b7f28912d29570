"""The process that answers: whoever sends slowly holds nobody up, what trickles without end or is too much is cut off."""

from __future__ import annotations

import socket
import threading
import time
from collections.abc import Callable, Iterable
from typing import Any
from unittest import mock

from django.test import SimpleTestCase

from coatpeg.web import serve

PATIENCE = 10.0


class Served(SimpleTestCase):
    """Waitress with an application that says how much came, and takes its time where it is asked to."""

    def setUp(self) -> None:
        self.asked: list[int] = []
        self.begun = threading.Event()
        self.enterContext(mock.patch.multiple(serve, LOOK=0.05, WHOLE_WITHIN=PATIENCE))
        listening = socket.create_server(("127.0.0.1", 0))
        self.address = listening.getsockname()
        self.serving = serve.server(self.answer, listening)
        self.thread = threading.Thread(target=self.serving.run, daemon=True)
        self.thread.start()
        self.addCleanup(self.stop)

    def stop(self) -> None:
        self.serving.end()
        self.thread.join(PATIENCE)
        self.serving.close()

    def answer(self, environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        self.asked.append(len(environ["wsgi.input"].read()))
        self.begun.set()
        if environ["PATH_INFO"] == "/slow":
            time.sleep(1)
        start("200 OK", [("Content-Length", "4")])
        return [b"done"]

    def send(self, length: int = 900, body: bytes = b"{", *, session: str = "", path: str = "/") -> socket.socket:
        line = socket.create_connection(self.address, timeout=PATIENCE)
        head = f"POST {path} HTTP/1.1\r\nHost: here\r\nContent-Length: {length}\r\n"
        line.sendall((head + (f"Cookie: coatpeg={session}\r\n" if session else "") + "\r\n").encode() + body)
        self.addCleanup(line.close)
        return line

    def is_cut_off(self, line: socket.socket) -> bool:
        try:
            return line.recv(100) == b""
        except ConnectionResetError:
            return True

    def is_open(self, line: socket.socket) -> bool:
        line.settimeout(0.2)
        try:
            return line.recv(100) != b""
        except TimeoutError:
            return True

    def test_half_sent_requests_hold_no_worker(self) -> None:
        halves = [self.send() for _ in range(serve.THREADS * 3)]
        self.assertIn(b"200 OK", self.send(1, b"x").recv(1000))
        self.assertEqual(self.asked, [1], "none of the others came to the application")
        halves[0].sendall(b"x" * 899)
        self.assertIn(b"200 OK", halves[0].recv(1000))
        self.assertEqual(self.asked, [1, 900])

    def test_what_trickles_has_an_end(self) -> None:
        with mock.patch.object(serve, "WHOLE_WITHIN", 0.5):
            line = self.send()
            for _ in range(6):
                time.sleep(0.1)
                try:
                    line.sendall(b"x")
                except OSError:
                    break
            self.assertTrue(self.is_cut_off(line))

    def test_one_person_sends_so_many_at_a_time(self) -> None:
        lines = []
        for _ in range(serve.AT_ONCE + 2):
            lines.append(self.send(session="hers"))
            time.sleep(0.01)
        self.assertTrue(all(self.is_cut_off(one) for one in lines[serve.AT_ONCE :]), "the newest go")
        self.assertTrue(all(self.is_open(one) for one in lines[: serve.AT_ONCE]))
        self.assertIn(b"200 OK", self.send(1, b"x", session="his").recv(1000))

    def test_without_a_session_nothing_large_is_taken_in(self) -> None:
        large = b"x" * (serve.MOST_UNKNOWN + 100)
        self.assertTrue(self.is_cut_off(self.send(serve.MOST_UNKNOWN * 3, large)))
        known = self.send(serve.MOST_UNKNOWN * 3, large, session="hers")
        self.assertTrue(self.is_open(known))

    def test_told_to_end_it_answers_what_has_begun(self) -> None:
        line = self.send(1, b"x", path="/slow")
        self.assertTrue(self.begun.wait(PATIENCE))
        self.serving.end()
        self.assertIn(b"200 OK", line.recv(1000))
        self.thread.join(PATIENCE)
        self.assertFalse(self.thread.is_alive())
