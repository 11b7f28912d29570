"""Bring the database up to date and load the demo world where it is empty."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand

from coatpeg.people.models import School
from demo.world import load


class Command(BaseCommand):
    """Safe to run again: a world that is there stays."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Migrate, then load."""
        call_command("upgrade")
        if not School.objects.exists():
            load(say=self.stdout.write)
