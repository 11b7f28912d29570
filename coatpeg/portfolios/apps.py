"""The app of portfolios."""

from django.apps import AppConfig


class PortfoliosConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.portfolios"
    label = "portfolios"
    default_auto_field = "django.db.models.BigAutoField"
