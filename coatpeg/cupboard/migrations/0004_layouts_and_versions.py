"""Pockets and log columns as items; versions and groups of what is given out."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('cupboard', '0003_lent_items_and_groups'),
    ]

    operations = [
        migrations.AddField(
            model_name='cupboarditem',
            name='layout',
            field=models.JSONField(default=dict),
        ),
        migrations.AddField(
            model_name='cupboarditem',
            name='pocket_key',
            field=models.CharField(blank=True, db_collation='utf8mb4_bin', default='', max_length=32),
        ),
        migrations.AddField(
            model_name='givenout',
            name='dealt',
            field=models.JSONField(default=dict),
        ),
        migrations.AddField(
            model_name='givenout',
            name='groups',
            field=models.JSONField(default=list),
        ),
        migrations.AlterField(
            model_name='cupboarditem',
            name='kind',
            field=models.CharField(choices=[('page', 'page'), ('file', 'file'), ('link', 'link'), ('log', 'log'), ('pocket', 'pocket')], max_length=6),
        ),
    ]
