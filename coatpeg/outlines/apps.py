"""The app of templates."""

from django.apps import AppConfig


class OutlinesConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.outlines"
    label = "outlines"
    default_auto_field = "django.db.models.BigAutoField"
