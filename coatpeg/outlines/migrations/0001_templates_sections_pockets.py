import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    initial = True

    dependencies = [
        ('people', '0001_people_groups_calendar'),
    ]

    operations = [
        migrations.CreateModel(
            name='Template',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('title', models.CharField(max_length=200)),
                ('group', models.OneToOneField(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='template', to='people.teachinggroup')),
            ],
        ),
        migrations.CreateModel(
            name='Section',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('title', models.CharField(max_length=200)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('template', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='sections', to='outlines.template')),
            ],
            options={
                'ordering': ('position', 'pk'),
            },
        ),
        migrations.CreateModel(
            name='Pocket',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('title', models.CharField(max_length=200)),
                ('kind', models.CharField(choices=[('evidence', 'evidence'), ('page', 'page'), ('links', 'links')], max_length=10)),
                ('position', models.PositiveSmallIntegerField(default=0)),
                ('directions', models.TextField(blank=True, default='')),
                ('prompt', models.CharField(blank=True, default='', max_length=300)),
                ('artefacts', models.PositiveSmallIntegerField(default=0)),
                ('reflection_on_each', models.BooleanField(default=False)),
                ('measure', models.CharField(blank=True, choices=[('words', 'words'), ('sentences', 'sentences')], default='', max_length=10)),
                ('least', models.PositiveSmallIntegerField(default=1)),
                ('most', models.PositiveSmallIntegerField(blank=True, null=True)),
                ('starter', models.TextField(blank=True, default='')),
                ('counts', models.BooleanField(default=True)),
                ('opens', models.DateField(blank=True, null=True)),
                ('retired_at', models.DateTimeField(blank=True, null=True)),
                ('section', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='pockets', to='outlines.section')),
            ],
            options={
                'ordering': ('section__position', 'section_id', 'position', 'pk'),
                'constraints': [models.CheckConstraint(condition=models.Q(('most__isnull', True), ('most__gte', models.F('least')), _connector='OR'), name='length_from_to')],
            },
        ),
    ]
