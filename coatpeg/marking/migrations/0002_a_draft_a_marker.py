"""A draft belongs to a submission and a marker."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


def give_to_markers(apps, schema_editor):
    """What stands becomes the draft of whoever last marked the submission, else of a lead of the class."""
    drafts, roles = apps.get_model("marking", "DraftMark"), apps.get_model("people", "StaffRole")
    outcomes = apps.get_model("handins", "Outcome")
    for draft in drafts.objects.select_related("submission__handin"):
        given = outcomes.objects.filter(submission_id=draft.submission_id).order_by("-at", "-pk").first()
        group = draft.submission.handin.group_id
        lead = roles.objects.filter(group_id=group, role="lead").order_by("pk").first()
        owner = given.person_id if given else lead.person_id if lead else None
        if owner is None:
            draft.delete()
        else:
            drafts.objects.filter(pk=draft.pk).update(person_id=owner)


class Migration(migrations.Migration):
    """Drafts of several markers of one submission stand side by side."""

    dependencies = [
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
        ("handins", "0001_handins_submissions_outcomes"),
        ("marking", "0001_draft_and_released_marks"),
        ("people", "0010_sign_ins_and_requests"),
    ]

    operations = [
        migrations.AlterField(
            "draftmark",
            "submission",
            models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="drafts", to="handins.submission"
            ),
        ),
        migrations.AddField(
            "draftmark",
            "person",
            models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.CASCADE,
                related_name="+",
                to=settings.AUTH_USER_MODEL,
            ),
        ),
        migrations.RunPython(give_to_markers, migrations.RunPython.noop),
        migrations.AlterField(
            "draftmark",
            "person",
            models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="+", to=settings.AUTH_USER_MODEL
            ),
        ),
        migrations.AddConstraint(
            "draftmark",
            models.UniqueConstraint(fields=("submission", "person"), name="one_draft_a_marker"),
        ),
    ]
