"""Sections and pockets that were taken away, so that they can be brought back."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('outlines', '0011_given_files_and_deals'),
    ]

    operations = [
        migrations.CreateModel(
            name='TakenAway',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('rows', models.JSONField()),
                ('at', models.DateTimeField()),
                ('template', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='taken_away', to='outlines.template')),
            ],
        ),
    ]
