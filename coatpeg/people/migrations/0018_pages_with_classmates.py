"""Whether students of a class may begin pages with classmates."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('people', '0017_sets_of_groups'),
    ]

    operations = [
        migrations.AddField(
            model_name='teachinggroup',
            name='pages_together',
            field=models.BooleanField(default=False),
        ),
    ]
