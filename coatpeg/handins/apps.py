"""The app of hand-ins."""

from django.apps import AppConfig
from django.db.models.signals import post_migrate


class HandInsConfig(AppConfig):
    """See the package's text."""

    name = "coatpeg.handins"
    label = "handins"
    default_auto_field = "django.db.models.BigAutoField"

    def ready(self) -> None:
        """Say what notices are told from here, and what is looked after."""
        from coatpeg.handins import telling  # noqa: PLC0415 - models are not loaded before
        from coatpeg.handins.asked import files  # noqa: PLC0415
        from coatpeg.handins.board import kept, laid  # noqa: PLC0415
        from coatpeg.handins.many import closing, coming_due  # noqa: PLC0415
        from coatpeg.handins.packs import making  # noqa: PLC0415
        from coatpeg.jobs.schedules import every  # noqa: PLC0415
        from coatpeg.outlines import given_files  # noqa: PLC0415

        telling.register_all()
        given_files.read_elsewhere(files.may_read)
        post_migrate.connect(lambda **_: kept.forget(), weak=False, dispatch_uid="kept boards")
        post_migrate.connect(lambda using, **_: laid.forget(using), sender=self, dispatch_uid="laid", weak=False)
        every("boards", 30, laid.is_due, laid.lay_boards)
        every("packs", 3600, making.has_old, making.forget_packs)
        every("closing", 5, closing.is_due, closing.close_all)
        every("coming due", 5, coming_due.is_due, coming_due.lock_all)
        every("left open", 60, coming_due.is_any, coming_due.lock_all)
