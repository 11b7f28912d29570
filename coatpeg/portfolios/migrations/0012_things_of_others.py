"""What somebody else put into a pocket that many fill; passages that several wrote; pages of several."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('portfolios', '0011_own_part_of_a_page'),
    ]

    operations = [
        migrations.AddField(
            model_name='evidence',
            name='of',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='laid', to='portfolios.evidence'),
        ),
        migrations.AddField(
            model_name='evidence',
            name='of_handed_in',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='logrow',
            name='of',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.CASCADE, related_name='laid', to='portfolios.logrow'),
        ),
        migrations.AddField(
            model_name='logrow',
            name='of_handed_in',
            field=models.BooleanField(default=False),
        ),
        migrations.AddField(
            model_name='loosepage',
            name='together',
            field=models.PositiveBigIntegerField(blank=True, db_index=True, null=True),
        ),
        migrations.AddField(
            model_name='writtentext',
            name='quoted',
            field=models.JSONField(default=list),
        ),
    ]
