"""The gallery templates made of logs come to installations that have the others already."""

import json
from datetime import UTC, datetime
from pathlib import Path

from django.db import migrations

import coatpeg.outlines.models


def ship(apps, schema_editor):
    """Add every shipped template that the gallery lacks; on a new installation there is none to add."""
    template = apps.get_model("outlines", "GalleryTemplate")
    version = apps.get_model("outlines", "GalleryVersion")
    there = set(template.objects.filter(author=None).values_list("title", flat=True))
    for one in json.loads((Path(coatpeg.outlines.models.__file__).parent / "shipped.json").read_text()):
        if one["title"] not in there:
            made = template.objects.create(title=one["title"], description=one["description"])
            version.objects.create(template=made, number=1, document=one["sections"], at=datetime.now(UTC))


class Migration(migrations.Migration):

    dependencies = [("outlines", "0004_logs")]

    operations = [migrations.RunPython(ship, migrations.RunPython.noop)]
