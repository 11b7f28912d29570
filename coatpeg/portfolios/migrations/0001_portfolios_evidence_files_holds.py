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
            name='Artefact',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('kind', models.CharField(choices=[('picture', 'Picture'), ('file', 'File'), ('link', 'Link')], max_length=10)),
                ('title', models.CharField(db_collation='utf8mb4_bin', max_length=130)),
                ('came_sha256', models.CharField(blank=True, db_collation='utf8mb4_bin', default='', max_length=64)),
                ('link', models.CharField(blank=True, db_collation='utf8mb4_bin', default='', max_length=2000)),
                ('made_at', models.DateTimeField()),
            ],
        ),
        migrations.CreateModel(
            name='StoredFile',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('sha256', models.CharField(db_collation='utf8mb4_bin', max_length=64, unique=True)),
                ('size', models.BigIntegerField()),
                ('media_type', models.CharField(db_collation='utf8mb4_bin', max_length=120)),
                ('width', models.PositiveIntegerField(null=True)),
                ('height', models.PositiveIntegerField(null=True)),
            ],
        ),
        migrations.CreateModel(
            name='Portfolio',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('enrolment', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='portfolio', to='people.enrolment')),
            ],
        ),
        migrations.CreateModel(
            name='Evidence',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('position', models.PositiveIntegerField(default=0)),
                ('text', models.TextField(blank=True, default='')),
                ('words', models.PositiveIntegerField(default=0)),
                ('sentences', models.PositiveIntegerField(default=0)),
                ('version', models.PositiveIntegerField(default=0)),
                ('changed_at', models.DateTimeField()),
                ('removed_at', models.DateTimeField(null=True)),
                ('page_of', models.GeneratedField(db_persist=True, expression=models.Case(models.When(artefact__isnull=True, then=models.F('pocket_id'))), output_field=models.BigIntegerField(null=True))),
                ('artefact', models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, related_name='evidence', to='portfolios.artefact')),
                ('pocket', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='evidence', to='outlines.pocket')),
                ('portfolio', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='evidence', to='portfolios.portfolio')),
            ],
            options={
                'ordering': ('position', 'pk'),
            },
        ),
        migrations.AddField(
            model_name='artefact',
            name='portfolio',
            field=models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='artefacts', to='portfolios.portfolio'),
        ),
        migrations.CreateModel(
            name='StandingHold',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('handin_id', models.BigIntegerField()),
                ('title', models.CharField(max_length=200)),
                ('wanted', models.JSONField()),
                ('since', models.DateTimeField()),
                ('pocket', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to='outlines.pocket')),
                ('portfolio', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='holds', to='portfolios.portfolio')),
            ],
        ),
        migrations.AddField(
            model_name='artefact',
            name='stored',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.PROTECT, to='portfolios.storedfile'),
        ),
        migrations.CreateModel(
            name='TextRevision',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('version', models.PositiveIntegerField()),
                ('text', models.TextField()),
                ('begun_at', models.DateTimeField()),
                ('saved_at', models.DateTimeField()),
                ('evidence', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='revisions', to='portfolios.evidence')),
                ('person', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, to=settings.AUTH_USER_MODEL)),
            ],
        ),
        migrations.CreateModel(
            name='PocketContent',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('pieces', models.JSONField(default=list)),
                ('has_work', models.BooleanField(default=False)),
                ('last_work_at', models.DateTimeField(null=True)),
                ('pocket', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, to='outlines.pocket')),
                ('portfolio', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='contents', to='portfolios.portfolio')),
            ],
            options={
                'constraints': [models.UniqueConstraint(fields=('portfolio', 'pocket'), name='content_once')],
            },
        ),
        migrations.AddConstraint(
            model_name='evidence',
            constraint=models.UniqueConstraint(fields=('portfolio', 'page_of'), name='one_page_a_pocket'),
        ),
        migrations.AddConstraint(
            model_name='standinghold',
            constraint=models.UniqueConstraint(fields=('portfolio', 'pocket', 'handin_id'), name='held_once'),
        ),
        migrations.AddConstraint(
            model_name='artefact',
            constraint=models.CheckConstraint(condition=models.Q(models.Q(('kind', 'link'), ('stored', None)), models.Q(models.Q(('kind', 'link'), _negated=True), ('stored__isnull', False)), _connector='OR'), name='artefact_link_or_bytes'),
        ),
    ]
