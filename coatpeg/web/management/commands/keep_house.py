"""The background process: looks into the roster folder again and again."""

from __future__ import annotations

import logging
import time
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.db import Error, close_old_connections
from django.utils import timezone

from coatpeg.portfolios.roster_drop import pick_up

EVERY = 3.0
"""Seconds between two looks."""


class Command(BaseCommand):
    """Runs until it is ended; one look that fails is told in the log and the next one tried."""

    help = "Pick up what comes into the roster folder."

    def add_arguments(self, parser: CommandParser) -> None:
        """``--once`` looks a single time."""
        parser.add_argument("--once", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        """Look, rest, look again."""
        folder = settings.VAR / "roster-drop"
        while True:
            close_old_connections()
            try:
                done = pick_up(folder, timezone.now())
                if done.taken:
                    self.stdout.write(f"picked up {len(done.taken)} list(s)")
            except (Error, OSError):
                logging.getLogger("coatpeg").exception("the roster folder could not be looked through")
            if options["once"]:
                return
            time.sleep(EVERY)
