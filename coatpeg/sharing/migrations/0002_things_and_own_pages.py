"""Artefacts and rows that lie where many fill a pocket; pages begun with chosen classmates."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('outlines', '0017_groups_that_fill_a_pocket'),
        ('people', '0018_pages_with_classmates'),
        ('portfolios', '0012_things_of_others'),
        ('sharing', '0001_shared_pages'),
    ]

    operations = [
        migrations.AddField(
            model_name='sharedpage',
            name='chosen',
            field=models.ManyToManyField(related_name='shared_pages', to='people.enrolment'),
        ),
        migrations.AddField(
            model_name='sharedpage',
            name='title',
            field=models.CharField(blank=True, default='', max_length=120),
        ),
        migrations.AlterField(
            model_name='sharedpage',
            name='pocket',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='shared_pages', to='outlines.pocket'),
        ),
        migrations.CreateModel(
            name='SharedThing',
            fields=[
                ('id', models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name='ID')),
                ('evidence', models.OneToOneField(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='shared_thing', to='portfolios.evidence')),
                ('page', models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name='things', to='sharing.sharedpage')),
                ('row', models.OneToOneField(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='shared_thing', to='portfolios.logrow')),
            ],
            options={
                'ordering': ('pk',),
                'constraints': [models.CheckConstraint(condition=models.Q(models.Q(('evidence__isnull', False), ('row', None)), models.Q(('evidence', None), ('row__isnull', False)), _connector='OR'), name='thing_artefact_or_row')],
            },
        ),
    ]
