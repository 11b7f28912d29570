"""A school's late rule; scores that a marker gives against the rule, with the reason; what was earned."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('marking', '0010_pinned_levels'),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.AddField(
            model_name='draftmark',
            name='own_score',
            field=models.DecimalField(blank=True, decimal_places=1, max_digits=6, null=True),
        ),
        migrations.AddField(
            model_name='draftmark',
            name='why',
            field=models.TextField(blank=True, default=''),
        ),
        migrations.AddField(
            model_name='releasedmark',
            name='earned',
            field=models.DecimalField(blank=True, decimal_places=1, max_digits=6, null=True),
        ),
        migrations.AddField(
            model_name='releasedmark',
            name='late_days',
            field=models.PositiveSmallIntegerField(default=0),
        ),
        migrations.AddField(
            model_name='releasedmark',
            name='why',
            field=models.TextField(blank=True, default=''),
        ),
        migrations.CreateModel(
            name='LateRuling',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('per_day', models.DecimalField(decimal_places=1, max_digits=4, null=True)),
                ('floor', models.DecimalField(decimal_places=1, default=0, max_digits=4)),
                ('changed_at', models.DateTimeField()),
                ('person', models.ForeignKey(on_delete=django.db.models.deletion.PROTECT, related_name='+', to=settings.AUTH_USER_MODEL)),
            ],
        ),
    ]
