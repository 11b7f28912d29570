"""Bring a data folder of an earlier version up to this one."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from coatpeg.core.errors import Refused
from coatpeg.web.versions import bring_up_to_date


class Command(BaseCommand):
    """Refuses a folder that a newer version has had; again changes nothing."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Migrate."""
        try:
            bring_up_to_date()
        except Refused as error:
            raise CommandError(f"{error.what} {error.fix}") from error
