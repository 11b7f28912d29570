"""Stored files, previews and uploads stand in a room of their own; their tables stay as they are."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

KEY = ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID"))


class Migration(migrations.Migration):
    initial = True

    dependencies = [
        ("portfolios", "0006_uploads_previews_texts_looks"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name="StoredFile",
                    fields=[
                        KEY,
                        ("sha256", models.CharField(db_collation="utf8mb4_bin", max_length=64, unique=True)),
                        ("size", models.BigIntegerField()),
                        ("media_type", models.CharField(db_collation="utf8mb4_bin", max_length=120)),
                        ("width", models.PositiveIntegerField(null=True)),
                        ("height", models.PositiveIntegerField(null=True)),
                    ],
                    options={"db_table": "portfolios_storedfile"},
                ),
                migrations.CreateModel(
                    name="Preview",
                    fields=[
                        KEY,
                        (
                            "state",
                            models.CharField(
                                choices=[("waiting", "Waiting"), ("done", "Done"), ("failed", "Failed")],
                                default="waiting",
                                max_length=10,
                            ),
                        ),
                        ("kind", models.CharField(blank=True, db_collation="utf8mb4_bin", default="", max_length=10)),
                        ("pages", models.PositiveIntegerField(default=0)),
                        ("why", models.CharField(blank=True, default="", max_length=300)),
                        ("tries", models.PositiveSmallIntegerField(default=0)),
                        ("asked_at", models.DateTimeField()),
                        (
                            "stored",
                            models.OneToOneField(
                                on_delete=django.db.models.deletion.CASCADE,
                                related_name="preview",
                                to="files.storedfile",
                            ),
                        ),
                    ],
                    options={
                        "db_table": "portfolios_preview",
                        "indexes": [models.Index(fields=["state", "asked_at"], name="preview_waiting")],
                    },
                ),
                migrations.CreateModel(
                    name="Upload",
                    fields=[
                        KEY,
                        ("key", models.CharField(db_collation="utf8mb4_bin", max_length=43, unique=True)),
                        ("name", models.CharField(db_collation="utf8mb4_bin", max_length=130)),
                        ("note", models.CharField(blank=True, default="", max_length=300)),
                        ("size", models.BigIntegerField()),
                        ("turn", models.PositiveSmallIntegerField(default=0)),
                        ("crop", models.JSONField(null=True)),
                        ("batch", models.CharField(blank=True, db_collation="utf8mb4_bin", default="", max_length=36)),
                        ("place", models.PositiveSmallIntegerField(default=0)),
                        ("places", models.PositiveSmallIntegerField(default=0)),
                        (
                            "came_sha256",
                            models.CharField(blank=True, db_collation="utf8mb4_bin", default="", max_length=64),
                        ),
                        ("refused", models.JSONField(null=True)),
                        ("begun_at", models.DateTimeField()),
                        ("done_at", models.DateTimeField(null=True)),
                        (
                            "person",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE,
                                related_name="uploads",
                                to=settings.AUTH_USER_MODEL,
                            ),
                        ),
                        (
                            "stored",
                            models.ForeignKey(
                                null=True, on_delete=django.db.models.deletion.PROTECT, to="files.storedfile"
                            ),
                        ),
                        (
                            "portfolio",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE, related_name="+", to="portfolios.portfolio"
                            ),
                        ),
                        (
                            "pocket",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE, related_name="+", to="outlines.pocket"
                            ),
                        ),
                        *(
                            (
                                name,
                                models.ForeignKey(
                                    null=True,
                                    on_delete=django.db.models.deletion.CASCADE,
                                    related_name="+",
                                    to="portfolios.evidence",
                                ),
                            )
                            for name in ("spoken_on", "replaces", "result")
                        ),
                    ],
                    options={"db_table": "portfolios_upload"},
                ),
            ]
        )
    ]
