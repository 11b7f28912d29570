"""Re-derive everything that is kept and report each difference."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.utils import timezone

from coatpeg.jobs import health
from coatpeg.web.recheck import differences


class Command(BaseCommand):
    """Exits with an error where anything differs."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Print the differences."""
        found = list(differences())
        for line in found:
            self.stdout.write(line)
        self.stdout.write(f"{len(found)} differences")
        behind = list(health.complaints(timezone.now()))
        for line in behind:
            self.stdout.write(f"in the background: {line}")
        if found:
            raise CommandError("what is kept differs from what it is derived from")
        if behind:
            raise CommandError("some of the background work is stuck or was set aside")
