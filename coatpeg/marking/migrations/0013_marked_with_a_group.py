"""One mark for all who handed something in together, and why one of them was marked alone."""

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('marking', '0012_class_notes'),
    ]

    operations = [
        migrations.AddField(
            model_name='releasedmark',
            name='along',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='others', to='marking.releasedmark'),
        ),
        migrations.AddField(
            model_name='releasedmark',
            name='apart',
            field=models.TextField(blank=True, default=''),
        ),
    ]
