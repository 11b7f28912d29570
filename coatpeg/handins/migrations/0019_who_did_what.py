"""What each of several who hand something in together says they did, and who confirmed it."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('handins', '0018_handed_in_for_all'),
        ('people', '0017_sets_of_groups'),
    ]

    operations = [
        migrations.CreateModel(
            name='OwnPart',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('text', models.TextField(blank=True, default='')),
                ('version', models.PositiveIntegerField(default=0)),
                ('changed_at', models.DateTimeField()),
                ('enrolment', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='people.enrolment')),
                ('handin', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='handins.handin')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('handin', 'enrolment'), name='own_part_once')],
            },
        ),
        migrations.CreateModel(
            name='PartsConfirmed',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('seal', models.CharField(max_length=64)),
                ('at', models.DateTimeField()),
                ('enrolment', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='people.enrolment')),
                ('handin', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='+', to='handins.handin')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('handin', 'enrolment'), name='parts_confirmed_once')],
            },
        ),
    ]
