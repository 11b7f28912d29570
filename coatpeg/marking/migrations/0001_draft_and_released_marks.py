import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    initial = True

    dependencies = [
        ('handins', '0001_handins_submissions_outcomes'),
    ]

    operations = [
        migrations.CreateModel(
            name='DraftMark',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('feedback', models.TextField(blank=True, default='')),
                ('score', models.DecimalField(blank=True, decimal_places=1, max_digits=6, null=True)),
                ('version', models.PositiveIntegerField(default=0)),
                ('changed_at', models.DateTimeField()),
                ('submission', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='draft', to='handins.submission')),
            ],
        ),
        migrations.CreateModel(
            name='ReleasedMark',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('feedback', models.TextField(blank=True, default='')),
                ('score', models.DecimalField(blank=True, decimal_places=1, max_digits=6, null=True)),
                ('outcome', models.OneToOneField(on_delete=django.db.models.deletion.CASCADE, related_name='mark', to='handins.outcome')),
            ],
        ),
    ]
