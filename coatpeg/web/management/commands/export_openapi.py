"""Print the OpenAPI document; the front end's types are made from it."""

import json
from typing import Any

from django.core.management.base import BaseCommand

from coatpeg.web.api import api


class Command(BaseCommand):
    """Prints the document with sorted keys, so that it can be compared."""

    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        """Print it."""
        self.stdout.write(json.dumps(api.get_openapi_schema(path_prefix="/api/"), indent=1, sort_keys=True))
