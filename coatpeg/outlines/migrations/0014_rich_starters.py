"""Starters that were plain text become rich text, a paragraph a line; a given file may be one version's alone."""

from django.db import migrations, models

from coatpeg.core.portfolios.rich import from_plain


def enrich(apps, schema_editor):
    """Lay out the starters of every pocket and of its versions as paragraphs."""
    for pocket in apps.get_model("outlines", "Pocket").objects.all():
        pocket.starter = from_plain(pocket.starter)
        for version in (pocket.variants or {}).get("versions", []):
            if version.get("starter"):
                version["starter"] = from_plain(version["starter"])
        pocket.save(update_fields=["starter", "variants"])


class Migration(migrations.Migration):

    dependencies = [("outlines", "0013_template_drafts")]

    operations = [
        migrations.AddField(
            model_name="pocketfile",
            name="version",
            field=models.CharField(blank=True, db_collation="utf8mb4_bin", default="", max_length=36),
        ),
        migrations.RunPython(enrich, migrations.RunPython.noop),
    ]
