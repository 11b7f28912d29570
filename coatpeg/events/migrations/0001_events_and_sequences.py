from django.db import migrations, models


class Migration(migrations.Migration):

    initial = True

    dependencies = [
    ]

    operations = [
        migrations.CreateModel(
            name='GroupSequence',
            fields=[
                ('group_id', models.BigIntegerField(primary_key=True, serialize=False)),
                ('last', models.BigIntegerField(default=0)),
            ],
        ),
        migrations.CreateModel(
            name='Event',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('group_id', models.BigIntegerField()),
                ('number', models.BigIntegerField()),
                ('verb', models.CharField(db_collation='utf8mb4_bin', max_length=40)),
                ('actor_id', models.BigIntegerField(null=True)),
                ('at', models.DateTimeField()),
                ('enrolment_id', models.BigIntegerField(null=True)),
                ('handin_id', models.BigIntegerField(null=True)),
                ('submission_id', models.BigIntegerField(null=True)),
                ('data', models.JSONField(default=dict)),
            ],
            options={
                'ordering': ('group_id', 'number'),
                'indexes': [models.Index(fields=['enrolment_id', 'handin_id'], name='event_of_student')],
                'constraints': [models.UniqueConstraint(fields=('group_id', 'number'), name='event_once_in_group')],
            },
        ),
    ]
