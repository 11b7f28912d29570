"""The app of setting up: it has no tables, but looks after the roster folder."""

from django.apps import AppConfig


class SetupConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.setup"
    label = "setup"

    def ready(self) -> None:
        """Say what is looked after, and what notices are told from here."""
        from coatpeg.jobs.schedules import every  # noqa: PLC0415 - models are not loaded before
        from coatpeg.setup import telling  # noqa: PLC0415
        from coatpeg.setup.roster import roster_folder  # noqa: PLC0415

        every("roster folder", 3, roster_folder.has_come, roster_folder.pick_up_lists)
        telling.register_all()
