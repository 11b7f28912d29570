"""Which set of groups fills a pocket together."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('outlines', '0016_pockets_filled_together'),
    ]

    operations = [
        migrations.AddField(
            model_name='pocket',
            name='group_set',
            field=models.CharField(blank=True, default='', max_length=40),
        ),
    ]
