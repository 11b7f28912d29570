"""An upload names its purpose and carries the details as data, so that it needs no portfolio."""

from django.db import migrations, models


def to_data(apps, schema):
    """What the columns said, as data. There are few uploads: they go after seven days."""
    uploads = apps.get_model("files", "Upload")
    for one in uploads.objects.all():
        details = {"portfolio": one.portfolio_id, "pocket": one.pocket_id}
        one.details = details | {
            name: pk for name, pk in (("spoken_on", one.spoken_on_id), ("replaces", one.replaces_id)) if pk
        }
        one.became = {"evidence": one.result_id} if one.result_id else {}
        one.save(update_fields=["details", "became"])


class Migration(migrations.Migration):
    dependencies = [("files", "0001_files_of_their_own"), ("portfolios", "0007_files_and_deals_elsewhere")]

    operations = [
        migrations.AddField(
            "upload", "purpose", models.CharField(db_collation="utf8mb4_bin", default="evidence", max_length=30)
        ),
        migrations.AddField("upload", "details", models.JSONField(default=dict)),
        migrations.AddField("upload", "became", models.JSONField(default=dict)),
        migrations.RunPython(to_data, migrations.RunPython.noop),
        *(
            migrations.RemoveField("upload", name)
            for name in ("portfolio", "pocket", "spoken_on", "replaces", "result")
        ),
        migrations.RenameField("upload", "became", "result"),
    ]
