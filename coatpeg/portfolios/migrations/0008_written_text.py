"""A revision of a text artefact names it by ``written_text``."""

import django.db.models.deletion
from django.db import migrations, models
from django.db.models import Q


class Migration(migrations.Migration):
    """The column keeps its name; the rule that a revision is of one text is laid over it anew."""

    dependencies = [("portfolios", "0007_files_and_deals_elsewhere")]

    operations = [
        migrations.RemoveConstraint("textrevision", "revision_of_one_text"),
        migrations.AlterField(
            "textrevision",
            "written",
            models.ForeignKey(
                db_column="written_id",
                null=True,
                on_delete=django.db.models.deletion.CASCADE,
                related_name="revisions",
                to="portfolios.writtentext",
            ),
        ),
        migrations.RenameField("textrevision", "written", "written_text"),
        migrations.AlterField(
            "writtentext",
            "artefact",
            models.OneToOneField(
                on_delete=django.db.models.deletion.CASCADE, related_name="written_text", to="portfolios.artefact"
            ),
        ),
        migrations.AddConstraint(
            "textrevision",
            models.CheckConstraint(
                condition=Q(evidence__isnull=False, page=None, written_text=None)
                | Q(evidence=None, page__isnull=False, written_text=None)
                | Q(evidence=None, page=None, written_text__isnull=False),
                name="revision_of_one_text",
            ),
        ),
    ]
