"""The background process: makes files readable, looks into the roster folder, sees to uploads, again and again."""

from __future__ import annotations

import itertools
import logging
import time
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandParser
from django.db import Error, close_old_connections
from django.utils import timezone

from coatpeg.portfolios.previews import convert_next
from coatpeg.portfolios.roster_drop import pick_up
from coatpeg.portfolios.uploads import sweep

EVERY = 0.5
"""Seconds between two looks for a file to make readable."""
FOLDER_EVERY = 6
UPLOADS_EVERY = 120
"""Looks between two at the roster folder (three seconds) and two at what came up (a minute)."""


class Command(BaseCommand):
    """Runs until it is ended; what fails is told in the log and tried again at the next look."""

    help = "Make files readable, pick up what comes into the roster folder, finish and forget uploads."

    def add_arguments(self, parser: CommandParser) -> None:
        """``--once`` looks a single time."""
        parser.add_argument("--once", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        """Look, rest, look again."""
        for look in itertools.count():
            close_old_connections()
            try:
                self.once(look)
            except (Error, OSError):
                logging.getLogger("coatpeg").exception("the background work could not be done")
            if options["once"]:
                return
            time.sleep(EVERY)

    def once(self, look: int) -> None:
        """What there is to do at one look."""
        if look % FOLDER_EVERY == 0:
            done = pick_up(settings.VAR / "roster-drop", timezone.now())
            if done.taken:
                self.stdout.write(f"picked up {len(done.taken)} list(s)")
        if look % UPLOADS_EVERY == 0:
            sweep(timezone.now())
        while convert_next():
            pass
