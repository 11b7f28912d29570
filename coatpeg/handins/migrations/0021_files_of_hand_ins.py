"""Pictures and files beside the directions of a hand-in; whether it lets students take back."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [
        ("handins", "0020_laid_boards"),
        ("outlines", "0018_files_given_with_hand_ins"),
    ]

    operations = [
        migrations.AddField(
            model_name="handin",
            name="files",
            field=models.ManyToManyField(related_name="handins", to="outlines.givenfile"),
        ),
        migrations.AddField(
            model_name="handin",
            name="take_back",
            field=models.BooleanField(default=True),
        ),
    ]
