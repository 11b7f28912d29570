"""Files, uploads, files given with a pocket and versions dealt have rooms of their own now. No table is touched."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("files", "0001_files_of_their_own"),
        ("outlines", "0011_given_files_and_deals"),
        ("portfolios", "0006_uploads_previews_texts_looks"),
    ]

    operations = [
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.AlterField(
                    model_name="artefact",
                    name="stored",
                    field=models.ForeignKey(
                        null=True, on_delete=django.db.models.deletion.PROTECT, to="files.storedfile"
                    ),
                ),
                migrations.AlterField(
                    model_name="evidence",
                    name="starter",
                    field=models.ForeignKey(
                        blank=True,
                        null=True,
                        on_delete=django.db.models.deletion.SET_NULL,
                        related_name="+",
                        to="files.storedfile",
                    ),
                ),
                migrations.DeleteModel(name="Upload"),
                migrations.DeleteModel(name="Preview"),
                migrations.DeleteModel(name="PocketFile"),
                migrations.DeleteModel(name="VariantDeal"),
                migrations.DeleteModel(name="StoredFile"),
            ]
        )
    ]
