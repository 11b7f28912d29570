"""Working groups lie in sets, with the days on which their members came and left."""

import django.db.models.deletion
from django.db import migrations, models


def one_set_each(apps, schema_editor):
    """Every class that has working groups has one set of them."""
    del schema_editor
    sets, groups = apps.get_model("people", "GroupSet"), apps.get_model("people", "WorkingGroup")
    for group_id in groups.objects.values_list("group_id", flat=True).distinct().order_by("group_id"):
        made = sets.objects.create(group_id=group_id, name="Groups")
        groups.objects.filter(group_id=group_id).update(of=made)


class Migration(migrations.Migration):
    dependencies = [("people", "0016_accounts_put_together")]

    operations = [
        migrations.CreateModel(
            name="GroupSet",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("name", models.CharField(max_length=40)),
                ("old_names", models.JSONField(default=list)),
                ("chosen_until", models.DateField(blank=True, null=True)),
                ("most", models.PositiveSmallIntegerField(blank=True, null=True)),
                ("apart", models.JSONField(default=list)),
                ("together", models.JSONField(default=list)),
                ("seed", models.PositiveIntegerField(blank=True, null=True)),
                (
                    "group",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="group_sets",
                        to="people.teachinggroup",
                    ),
                ),
            ],
            options={
                "ordering": ("pk",),
                "constraints": [models.UniqueConstraint(fields=("group", "name"), name="group_set_once")],
            },
        ),
        migrations.AddField(
            model_name="workinggroup",
            name="of",
            field=models.ForeignKey(
                null=True,
                on_delete=django.db.models.deletion.CASCADE,
                related_name="groups",
                to="people.groupset",
            ),
        ),
        migrations.RunPython(one_set_each, migrations.RunPython.noop),
        migrations.AlterField(
            model_name="workinggroup",
            name="of",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.CASCADE, related_name="groups", to="people.groupset"
            ),
        ),
        migrations.SeparateDatabaseAndState(
            state_operations=[
                migrations.CreateModel(
                    name="GroupMember",
                    fields=[
                        (
                            "id",
                            models.BigAutoField(
                                auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                            ),
                        ),
                        (
                            "workinggroup",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE,
                                related_name="places",
                                to="people.workinggroup",
                            ),
                        ),
                        (
                            "enrolment",
                            models.ForeignKey(
                                on_delete=django.db.models.deletion.CASCADE,
                                related_name="group_places",
                                to="people.enrolment",
                            ),
                        ),
                    ],
                    options={
                        "db_table": "people_workinggroup_members",
                        "unique_together": {("workinggroup", "enrolment")},
                    },
                ),
                migrations.AlterField(
                    model_name="workinggroup",
                    name="members",
                    field=models.ManyToManyField(
                        related_name="working_groups", through="people.GroupMember", to="people.enrolment"
                    ),
                ),
            ],
        ),
        migrations.AddField(model_name="groupmember", name="first", field=models.DateField(null=True)),
        migrations.CreateModel(
            name="FormerGroupMember",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("name", models.CharField(max_length=100)),
                ("first", models.DateField(null=True)),
                ("last", models.DateField()),
                ("at", models.DateTimeField()),
                (
                    "enrolment",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="former_groups",
                        to="people.enrolment",
                    ),
                ),
                (
                    "of",
                    models.ForeignKey(
                        on_delete=django.db.models.deletion.CASCADE, related_name="former", to="people.groupset"
                    ),
                ),
                (
                    "workinggroup",
                    models.ForeignKey(
                        null=True,
                        on_delete=django.db.models.deletion.SET_NULL,
                        related_name="former",
                        to="people.workinggroup",
                    ),
                ),
            ],
        ),
    ]
