"""Files given with a pocket and versions dealt stand with the outlines; their tables stay as they are."""

import django.db.models.deletion
from django.db import migrations, models

KEY = ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID"))
KINDS = ["picture", "scan", "sound", "video", "file", "link", "text"]


class Migration(migrations.Migration):
    dependencies = [
        ("files", "0001_files_of_their_own"),
        ("outlines", "0010_spoken_pockets"),
        ("people", "0008_reading_news"),
        ("portfolios", "0006_uploads_previews_texts_looks"),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name="PocketFile",
                    fields=[
                        KEY,
                        (
                            "role",
                            models.CharField(
                                choices=[("directions", "Directions"), ("starter", "Starter")], max_length=10
                            ),
                        ),
                        ("kind", models.CharField(choices=[(one, one.capitalize()) for one in KINDS], max_length=10)),
                        ("title", models.CharField(db_collation="utf8mb4_bin", max_length=130)),
                        ("came_sha256", models.CharField(db_collation="utf8mb4_bin", max_length=64)),
                        ("made_at", models.DateTimeField()),
                        ("removed_at", models.DateTimeField(blank=True, null=True)),
                        (
                            "pocket",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE, related_name="files", to="outlines.pocket"
                            ),
                        ),
                        (
                            "stored",
                            models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, to="files.storedfile"),
                        ),
                    ],
                    options={"db_table": "portfolios_pocketfile"},
                ),
                migrations.CreateModel(
                    name="VariantDeal",
                    fields=[
                        KEY,
                        ("key", models.CharField(db_collation="utf8mb4_bin", max_length=36)),
                        (
                            "enrolment",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE, related_name="+", to="people.enrolment"
                            ),
                        ),
                        (
                            "pocket",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE, related_name="deals", to="outlines.pocket"
                            ),
                        ),
                    ],
                    options={
                        "db_table": "portfolios_variantdeal",
                        "constraints": [
                            models.UniqueConstraint(fields=("pocket", "enrolment"), name="dealt_once")
                        ],
                    },
                ),
            ]
        )
    ]
