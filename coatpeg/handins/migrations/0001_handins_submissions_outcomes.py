import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    initial = True

    dependencies = [
        ('outlines', '0001_templates_sections_pockets'),
        ('people', '0001_people_groups_calendar'),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.CreateModel(
            name='HandIn',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('title', models.CharField(max_length=200)),
                ('opens', models.DateField()),
                ('due_day', models.DateField(blank=True, null=True)),
                ('due_time', models.TimeField(blank=True, null=True)),
                ('for_everyone', models.BooleanField(default=True)),
                ('points', models.DecimalField(blank=True, decimal_places=1, max_digits=6, null=True)),
                ('step', models.DecimalField(decimal_places=1, default=1, max_digits=3)),
                ('group', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='handins', to='people.teachinggroup')),
                ('pockets', models.ManyToManyField(related_name='handins', to='outlines.pocket')),
            ],
        ),
        migrations.CreateModel(
            name='HandInPeriod',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('asked', models.BooleanField(default=False)),
                ('due_day', models.DateField(blank=True, null=True)),
                ('due_time', models.TimeField(blank=True, null=True)),
                ('handin', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='periods', to='handins.handin')),
                ('period', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to='people.period')),
            ],
        ),
        migrations.CreateModel(
            name='KeptFacts',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('first_at', models.DateTimeField(null=True)),
                ('newest', models.BigIntegerField(null=True)),
                ('newest_at', models.DateTimeField(null=True)),
                ('submissions', models.PositiveIntegerField(default=0)),
                ('outcome', models.CharField(max_length=10, null=True)),
                ('due_again', models.DateTimeField(null=True)),
                ('excused', models.BooleanField(default=False)),
                ('enrolment', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to='people.enrolment')),
                ('handin', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='facts', to='handins.handin')),
            ],
        ),
        migrations.CreateModel(
            name='OwnDue',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('day', models.DateField()),
                ('at', models.TimeField(blank=True, null=True)),
                ('enrolment', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to='people.enrolment')),
                ('handin', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='own_dues', to='handins.handin')),
            ],
        ),
        migrations.CreateModel(
            name='Submission',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('number', models.PositiveIntegerField()),
                ('at', models.DateTimeField()),
                ('receipt', models.CharField(db_collation='utf8mb4_bin', max_length=20, unique=True)),
                ('snapshot', models.JSONField()),
                ('sha256', models.CharField(db_collation='utf8mb4_bin', max_length=64)),
                ('voided_at', models.DateTimeField(blank=True, null=True)),
                ('enrolment', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='submissions', to='people.enrolment')),
                ('handin', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='submissions', to='handins.handin')),
            ],
        ),
        migrations.CreateModel(
            name='Outcome',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('kind', models.CharField(choices=[('accepted', 'Accepted'), ('sent_back', 'Sent Back')], max_length=10)),
                ('at', models.DateTimeField()),
                ('pockets', models.JSONField(default=list)),
                ('due_again', models.DateTimeField(blank=True, null=True)),
                ('voided_at', models.DateTimeField(blank=True, null=True)),
                ('standing_of', models.GeneratedField(db_persist=True, expression=models.Case(models.When(then=models.F('submission_id'), voided_at=None)), output_field=models.BigIntegerField(null=True))),
                ('person', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, to=settings.AUTH_USER_MODEL)),
                ('submission', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='outcomes', to='handins.submission')),
            ],
        ),
        migrations.AddConstraint(
            model_name='handin',
            constraint=models.CheckConstraint(condition=models.Q(('due_time', None), ('due_day__isnull', False), _connector='OR'), name='due_time_needs_day'),
        ),
        migrations.AddConstraint(
            model_name='handinperiod',
            constraint=models.UniqueConstraint(fields=('handin', 'period'), name='handin_period_once'),
        ),
        migrations.AddConstraint(
            model_name='keptfacts',
            constraint=models.UniqueConstraint(fields=('handin', 'enrolment'), name='facts_once'),
        ),
        migrations.AddConstraint(
            model_name='owndue',
            constraint=models.UniqueConstraint(fields=('handin', 'enrolment'), name='own_due_once'),
        ),
        migrations.AddConstraint(
            model_name='submission',
            constraint=models.UniqueConstraint(fields=('handin', 'enrolment', 'number'), name='submission_number'),
        ),
        migrations.AddConstraint(
            model_name='outcome',
            constraint=models.UniqueConstraint(fields=('standing_of',), name='one_standing_outcome'),
        ),
    ]
