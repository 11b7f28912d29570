import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    initial = True

    dependencies = [
    ]

    operations = [
        migrations.CreateModel(
            name='Person',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('password', models.CharField(max_length=128, verbose_name='password')),
                ('last_login', models.DateTimeField(blank=True, null=True, verbose_name='last login')),
                ('username', models.CharField(blank=True, db_collation='utf8mb4_bin', max_length=60, null=True, unique=True)),
                ('given_name', models.CharField(max_length=100)),
                ('family_name', models.CharField(blank=True, default='', max_length=100)),
                ('email', models.EmailField(blank=True, default='', max_length=254)),
                ('is_active', models.BooleanField(default=True)),
                ('is_administrator', models.BooleanField(default=False)),
            ],
            options={
                'abstract': False,
            },
        ),
        migrations.CreateModel(
            name='NonSchoolDay',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('day', models.DateField(unique=True)),
                ('name', models.CharField(max_length=100)),
            ],
        ),
        migrations.CreateModel(
            name='Period',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=40)),
            ],
            options={
                'ordering': ('name',),
            },
        ),
        migrations.CreateModel(
            name='School',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=200)),
                ('zone', models.CharField(default='UTC', max_length=60)),
                ('weekdays', models.JSONField(default=list)),
            ],
        ),
        migrations.CreateModel(
            name='TeachingGroup',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=200)),
                ('kind', models.CharField(choices=[('class', 'Class'), ('caseload', 'Caseload'), ('cohort', 'Cohort')], max_length=10)),
                ('first', models.DateField()),
                ('last', models.DateField()),
            ],
        ),
        migrations.CreateModel(
            name='Adjustment',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('extra_days', models.PositiveSmallIntegerField(default=0)),
                ('first', models.DateField()),
                ('last', models.DateField(blank=True, null=True)),
                ('reason', models.TextField(blank=True, default='')),
                ('person', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='adjustments', to=settings.AUTH_USER_MODEL)),
            ],
        ),
        migrations.CreateModel(
            name='Enrolment',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('first', models.DateField()),
                ('last', models.DateField(blank=True, null=True)),
                ('picture', models.CharField(db_collation='utf8mb4_bin', max_length=40)),
                ('tint', models.PositiveSmallIntegerField(default=0)),
                ('person', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='enrolments', to=settings.AUTH_USER_MODEL)),
                ('group', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='enrolments', to='people.teachinggroup')),
            ],
        ),
        migrations.CreateModel(
            name='PeriodMembership',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('first', models.DateField()),
                ('last', models.DateField(blank=True, null=True)),
                ('enrolment', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='periods', to='people.enrolment')),
                ('period', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='memberships', to='people.period')),
            ],
        ),
        migrations.AddField(
            model_name='period',
            name='group',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='periods', to='people.teachinggroup'),
        ),
        migrations.CreateModel(
            name='Term',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=100)),
                ('first', models.DateField()),
                ('last', models.DateField()),
            ],
            options={
                'ordering': ('first',),
                'constraints': [models.CheckConstraint(condition=models.Q(('last__gte', models.F('first'))), name='term_ends_after_start')],
            },
        ),
        migrations.CreateModel(
            name='WorkingGroup',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('name', models.CharField(max_length=100)),
                ('group', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='working_groups', to='people.teachinggroup')),
                ('members', models.ManyToManyField(related_name='working_groups', to='people.enrolment')),
            ],
            options={
                'ordering': ('name',),
            },
        ),
        migrations.CreateModel(
            name='StaffRole',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('role', models.CharField(choices=[('lead', 'lead'), ('co_teacher', 'co_teacher'), ('marker', 'marker'), ('observer', 'observer')], max_length=12)),
                ('person', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='staff_roles', to=settings.AUTH_USER_MODEL)),
                ('group', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='staff', to='people.teachinggroup')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('group', 'person'), name='one_staff_role')],
            },
        ),
        migrations.AddConstraint(
            model_name='period',
            constraint=models.UniqueConstraint(fields=('group', 'name'), name='period_once_in_group'),
        ),
        migrations.AddConstraint(
            model_name='enrolment',
            constraint=models.UniqueConstraint(fields=('group', 'person'), name='enrolled_once'),
        ),
        migrations.AddConstraint(
            model_name='enrolment',
            constraint=models.UniqueConstraint(fields=('group', 'picture', 'tint'), name='peg_picture_once'),
        ),
        migrations.AddConstraint(
            model_name='workinggroup',
            constraint=models.UniqueConstraint(fields=('group', 'name'), name='working_group_once'),
        ),
    ]
