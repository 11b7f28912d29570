"""Directions that were plain text become rich text: a paragraph a line."""

from django.db import migrations

from coatpeg.outlines.rich_text import clean


def enrich(apps, schema_editor):
    """Clean the directions of every pocket and of its versions."""
    for pocket in apps.get_model("outlines", "Pocket").objects.all():
        pocket.directions = clean(pocket.directions)
        for version in (pocket.variants or {}).get("versions", []):
            version["directions"] = clean(version["directions"])
        pocket.save(update_fields=["directions", "variants"])


class Migration(migrations.Migration):

    dependencies = [("outlines", "0007_variants")]

    operations = [migrations.RunPython(enrich, migrations.RunPython.noop)]
