"""One process that answers: ``python -m coatpeg.web.serve FD`` on a listening socket that it is given.

Several may share the socket. Waitress takes in a request whole before a thread of ours sees it (in memory up to half a
megabyte, then on the disk), so whoever sends slowly holds a socket and no worker. Decided here, on top of it: a request
has to be here within ``WHOLE_WITHIN``, however steadily it trickles; one person (by their session's cookie, or their
address) sends at most ``AT_ONCE`` bodies at a time, and without a session none of more than ``MOST_UNKNOWN``. What is
more is cut off, as if the line had broken. Told to end, it takes no more and answers what it has begun.
"""

from __future__ import annotations

import os
import signal
import socket
import sys
import tempfile
import time
from collections import Counter
from http.cookies import CookieError, SimpleCookie
from typing import Any

import waitress.channel
import waitress.server
import waitress.task
from django.conf import settings

WHOLE_WITHIN = 300.0
"""Seconds for a request from its first byte to its last: a part of 8 MB has them at 28 kB a second."""
AT_ONCE = 12
"""Bodies of one session under way; a page of ours sends one file and a few words at a time."""
AT_ONCE_UNKNOWN = 60
"""The same of one address without a session: a class behind one line signs in together."""
MOST_UNKNOWN = 1024 * 1024
"""Bytes of a body of somebody without a session: signing in takes a few hundred."""
ENDS_WITHIN = 5.0
"""Seconds for what has begun to be answered when the process is told to end."""
LOOK = 1.0
"""Seconds between two looks at what is under way."""
THREADS = 4
"""More only take turns: what is answered is computed, and a process computes one thing at a time."""
MOST_CONNECTIONS = 1_000
MOST_AT_ONCE = 256 * 1024
"""Bytes taken from a socket in one go."""


class Channel(waitress.channel.HTTPChannel):  # type: ignore[misc]  # waitress has no types
    """A connection that knows when its request began."""

    begun: float | None = None

    def received(self, data: bytes) -> bool:
        """Take in what came."""
        found: bool = super().received(data)
        if self.request is None:
            self.begun = None
        elif self.begun is None:
            self.begun = time.monotonic()
        return found

    def is_too_much(self, under_way: Counter[str]) -> bool:
        """Whether the body that is under way here is more than a person's share; counted with those before it."""
        request = self.request
        if request is None or not request.headers_finished:
            return False
        try:
            cookie = SimpleCookie(request.headers.get("COOKIE", "")).get(settings.SESSION_COOKIE_NAME)
        except CookieError:
            cookie = None
        sender = cookie.value if cookie else str(self.addr[0])
        under_way[sender] += 1
        if cookie:
            return under_way[sender] > AT_ONCE
        return under_way[sender] > AT_ONCE_UNKNOWN or request.body_bytes_received > MOST_UNKNOWN

    def is_at_rest(self) -> bool:
        """Whether nothing is being answered here."""
        return not (self.requests or self.total_outbufs_len)


class Dispatcher(waitress.task.ThreadedTaskDispatcher):  # type: ignore[misc]
    """Who looks goes before who writes, in turns: a board is not to wait until a whole year group has handed in.

    Each look that is asked for stands behind those before it, with one write between two of them.
    """

    def add_task(self, task: Channel) -> None:
        """Take a channel whose next request is here."""
        with self.lock:
            if task.requests[0].command in ("GET", "HEAD"):
                looks = sum(1 for one in self.queue if one.requests and one.requests[0].command in ("GET", "HEAD"))
                self.queue.insert(looks * 2, task)
            else:
                self.queue.append(task)
            self.queue_cv.notify()


class Server(waitress.server.TcpWSGIServer):  # type: ignore[misc]
    """Waitress with an end to what takes too long or is too much."""

    channel_class = Channel
    ends_at: float | None = None

    def end(self, *_: object) -> None:
        """Take no more; the process ends when what has begun is answered."""
        self.ends_at = time.monotonic() + ENDS_WITHIN

    def readable(self) -> bool:
        """Whether it may accept a connection; asked again and again, at least every second."""
        if self.ends_at is None:
            found: bool = super().readable()
            return found
        if time.monotonic() > self.ends_at or all(one.is_at_rest() for one in self.active_channels.values()):
            raise SystemExit
        return False

    def maintenance(self, now: float) -> None:
        """Close what rests, and what takes too long or is more than one person's share."""
        super().maintenance(now)
        here, under_way = time.monotonic(), Counter[str]()
        channels = [one for one in self.active_channels.values() if one.begun is not None]
        for one in sorted(channels, key=lambda channel: channel.begun):
            if one.is_too_much(under_way) or here - one.begun > WHOLE_WITHIN:
                one.will_close = True


def server(application: Any, listening: socket.socket) -> Server:
    """The server of an application on a socket."""
    adjustments = waitress.server.Adjustments(
        sockets=[listening],
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=60,
        cleanup_interval=LOOK,
        recv_bytes=MOST_AT_ONCE,
        max_request_body_size=settings.FORM_LIMIT + 1024 * 1024,
        asyncore_use_poll=True,
        clear_untrusted_proxy_headers=False,  # ours reads them, from proxies that are named (web.middleware)
        ident=None,
    )
    dispatcher = Dispatcher()
    dispatcher.set_thread_count(THREADS)
    sockinfo = listening.family, listening.type, listening.proto, listening.getsockname()
    return Server(
        application, dispatcher=dispatcher, _sock=listening, adj=adjustments, bind_socket=False, sockinfo=sockinfo
    )


def main(descriptor: str) -> None:
    """Serve until told to end."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "coatpeg.web.settings")
    from coatpeg.web.wsgi import application  # noqa: PLC0415 - loads everything

    tempfile.tempdir = settings.FILE_UPLOAD_TEMP_DIR  # what is taken in lies where there is room for it
    with socket.socket(fileno=int(descriptor)) as listening:
        listening.setblocking(False)
        serving = server(application, listening)
        signal.signal(signal.SIGTERM, serving.end)
        serving.run()


if __name__ == "__main__":
    main(sys.argv[1])
