"""What of notices is looked after: fanning out, mailing, forgetting; and that a mail which bounced is told."""

from __future__ import annotations

from coatpeg.jobs.schedules import every
from coatpeg.notices import fanning, kinds, mailing


def register() -> None:
    """Look after notices."""
    every("notices", 1, fanning.is_due, fanning.fan_out)
    every("mail", 20, mailing.is_due, mailing.mail_all)
    every("old notices", 3600, fanning.has_old, fanning.forget)
    kinds.register(
        "mail_bounced",
        kinds.Kind(
            audience=lambda notice: [notice.data["person"]],
            describe=lambda notices, person_id: {one.pk: kinds.Line("", "/") for one in notices},
            said="a mail to your address could not be delivered",
        ),
    )
