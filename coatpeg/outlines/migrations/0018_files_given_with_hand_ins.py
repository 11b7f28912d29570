"""Files that are given with hand-ins too, not with pockets alone; what was taken away before keeps its files."""

import django.db.models.deletion
from django.db import migrations, models


def named_anew(old, new):
    """Rows that are kept of what was taken away name the model that they are of."""

    def rename(apps, schema_editor):
        for kept in apps.get_model("outlines", "TakenAway").objects.all():
            for row in kept.rows:
                if row["model"] == f"outlines.{old}":
                    row["model"] = f"outlines.{new}"
            kept.save(update_fields=["rows"])

    return rename


class Migration(migrations.Migration):
    dependencies = [
        ("outlines", "0017_groups_that_fill_a_pocket"),
    ]

    operations = [
        migrations.RenameModel(old_name="PocketFile", new_name="GivenFile"),
        migrations.AddField(
            model_name="givenfile",
            name="group",
            field=models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.SET_NULL,
                related_name="+",
                to="people.teachinggroup",
            ),
        ),
        migrations.RunPython(named_anew("pocketfile", "givenfile"), named_anew("givenfile", "pocketfile")),
    ]
