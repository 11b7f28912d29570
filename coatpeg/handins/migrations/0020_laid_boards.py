"""Boards that a worker has laid ready."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('handins', '0019_who_did_what'),
        ('people', '0018_pages_with_classmates'),
    ]

    operations = [
        migrations.CreateModel(
            name='LaidBoard',
            fields=[
                ('group', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, primary_key=True, related_name='+', serialize=False, to='people.teachinggroup')),
                ('cursor', models.BigIntegerField()),
                ('since', models.DateTimeField()),
                ('until', models.DateTimeField()),
                ('packed', models.BinaryField()),
            ],
        ),
    ]
