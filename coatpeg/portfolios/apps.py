"""The app of portfolios."""

from django.apps import AppConfig


class PortfoliosConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.portfolios"
    label = "portfolios"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what becomes of uploads for portfolios, and what notices are told from here."""
        from coatpeg.portfolios import telling  # noqa: PLC0415 - models are not loaded before
        from coatpeg.portfolios.evidence import arriving  # noqa: PLC0415 - models are not loaded before

        arriving.register()
        telling.register_all()
