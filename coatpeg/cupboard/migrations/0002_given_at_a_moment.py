"""What is given out at a moment to come."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('cupboard', '0001_cupboard_and_copies'),
    ]

    operations = [
        migrations.AddField(
            model_name='givenout',
            name='students',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='givenout',
            name='waits_for',
            field=models.DateTimeField(blank=True, null=True),
        ),
    ]
