"""Do the work in the background: make files readable, send mail, look after folders, as it comes."""

from __future__ import annotations

import fcntl
import socket
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser

from coatpeg.jobs.worker import Worker


class Command(BaseCommand):
    """Runs until it is told to stop. Each worker has a name of its own, which stays when it is started anew."""

    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        """``--name`` tells workers of one machine apart; ``--once`` does what is ready and ends."""
        parser.add_argument("--name", default="1")
        parser.add_argument("--once", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        """Work."""
        folder = settings.VAR / "workers"
        folder.mkdir(parents=True, exist_ok=True)
        with open(folder / options["name"], "a") as lock:
            try:
                fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except BlockingIOError:
                raise CommandError(f"A worker “{options['name']}” is running already; give another --name.") from None
            worker = Worker(f"{socket.gethostname()[:40]}-{options['name']}"[:64], once=options["once"])
            worker.configure_signals()
            worker.run()
