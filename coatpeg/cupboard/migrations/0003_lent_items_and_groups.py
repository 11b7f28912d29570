"""Items that are lent from another class, and items for some groups."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ('cupboard', '0002_given_at_a_moment'),
        ('files', '0004_pictures_cleaned_later'),
        ('people', '0017_sets_of_groups'),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.AddField(
            model_name='cupboarditem',
            name='groups',
            field=models.JSONField(default=list),
        ),
        migrations.AddField(
            model_name='cupboarditem',
            name='lent_from',
            field=models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name='lent', to='cupboard.cupboarditem'),
        ),
        migrations.AddConstraint(
            model_name='cupboarditem',
            constraint=models.UniqueConstraint(fields=('lent_from', 'group'), name='cupboard_lent_once'),
        ),
    ]
