"""Which mail was sent: envelopes. In the demo, where mail goes into a folder, also what it says."""

from __future__ import annotations

import email
from email.policy import default
from pathlib import Path
from typing import Any

from django.conf import settings

from coatpeg.core.errors import Gone
from coatpeg.notices.models import Mail

MOST = 200


def newest() -> list[dict[str, Any]]:
    """The newest envelopes."""
    return [_line(one) for one in Mail.objects.all()[:MOST]]


def opened(mail_id: int) -> dict[str, Any]:
    """One mail. Its text is read from the folder that the demo's mail goes into; nowhere else is it kept."""
    mail = Mail.objects.filter(pk=mail_id).first()
    if mail is None:
        raise Gone("There is no such mail.", fix="Go back to the list.")
    return {**_line(mail), "text": _text(mail) if settings.DEMO else ""}


def _line(mail: Mail) -> dict[str, Any]:
    return {
        "id": mail.pk,
        "to": mail.address,
        "subject": mail.subject,
        "state": mail.state,
        "why": mail.why,
        "at": mail.at,
    }


def _text(mail: Mail) -> str:
    """The text of the message with this envelope's id, among the files of the folder."""
    for path in sorted(Path(settings.EMAIL_FILE_PATH).glob("*.log"), reverse=True):
        for part in path.read_bytes().split(b"\n" + b"-" * 79 + b"\n"):
            if mail.message_id.encode() in part:
                message = email.message_from_bytes(part.lstrip(b"\n"), policy=default)
                body = message.get_body(("plain",))
                return body.get_content() if body else ""
    return ""
