"""Mail: what is new to a person, at once or once a day, through Django's mail backend.

Decided here: notices that come within a minute go into one mail. The daily mail goes after four in the afternoon, when
lessons are over. A mail is about notices that were not seen on the bell. An address that a server refuses for good is
*bounced*: the envelope is kept with the reason and the person is told on the bell; whatever else fails is tried again.
Every address in a mail is this installation's own.
"""

from __future__ import annotations

import smtplib
from collections.abc import Iterator, Sequence
from datetime import datetime, time, timedelta
from email.utils import make_msgid

from django.conf import settings
from django.core.mail import EmailMessage
from django.db import transaction
from django.utils import timezone

from coatpeg.events.recording import Deed
from coatpeg.jobs.kinds import Kind, job
from coatpeg.jobs.schedules import enqueue_once
from coatpeg.notices import bell
from coatpeg.notices.addressees import Addressee, directory
from coatpeg.notices.choosing import How, choices_of
from coatpeg.notices.kinds import kind_of
from coatpeg.notices.models import Delivery, Mail
from coatpeg.notices.putting import put

TOGETHER = timedelta(minutes=1)
DAILY_AT = time(16)
MOST_LINES = 60


def _waiting(now: datetime) -> set[int]:
    """People with notices that are neither seen nor mailed."""
    rows = Delivery.objects.filter(seen_at=None, mailed_at=None, notice__fanned_at__lt=now - TOGETHER)
    return set(rows.filter(notice__tell_at__gt=now - bell.SHOWN_FOR).values_list("person_id", flat=True))


def _to_mail(now: datetime) -> Iterator[int]:
    """Those of them to whom a mail is to go now."""
    people = directory().people(_waiting(now))
    local = now.astimezone(directory().zone())
    had = set()
    if local.time() >= DAILY_AT:
        this_afternoon = local.replace(hour=DAILY_AT.hour, minute=0, second=0, microsecond=0)
        had = set(Mail.objects.filter(person_id__in=people, at__gte=this_afternoon).values_list("person_id", flat=True))
    for pk, how in choices_of(people).items():
        if how is How.AT_ONCE or (how is How.DAILY and local.time() >= DAILY_AT and pk not in had):
            yield pk


def is_due() -> bool:
    """Whether a mail is to go to anybody."""
    return next(_to_mail(timezone.now()), None) is not None


@job(Kind("finding out who is to be mailed"))
def mail_all() -> int:
    """Enqueue a mail for everybody to whom one is to go; returns how many."""
    return sum(enqueue_once(mail, pk) for pk in list(_to_mail(timezone.now())))


@job(Kind("sending a mail", back_off=timedelta(seconds=30)))
def mail(person_id: int) -> None:
    """Send one person what they have neither seen nor been mailed.

    The deliveries are marked in the transaction in which the envelope is kept, after the server has taken the mail:
    killed in between, the person gets it again rather than never.
    """
    now = timezone.now()
    to = directory().people([person_id]).get(person_id)
    with transaction.atomic():
        mine = Delivery.objects.select_for_update().filter(person_id=person_id, seen_at=None, mailed_at=None)
        rows = list(
            mine.filter(notice__tell_at__gt=now - bell.SHOWN_FOR)
            .select_related("notice")
            .order_by("-notice__tell_at", "-notice_id")
        )
        news = bell.lines_of(person_id, rows)[:MOST_LINES]
        Delivery.objects.filter(pk__in=[one.pk for one in rows]).update(mailed_at=now)
        if to is not None and to.email and news:
            _send(person_id, to, news, now)


def _send(person_id: int, to: Addressee, news: Sequence[bell.NewsLine], now: datetime) -> None:
    message_id = make_msgid(domain="coatpeg.invalid")
    subject = subject_of(news)
    message = EmailMessage(subject, text_of(to, news), to=[to.email], headers={"Message-ID": message_id})
    envelope = Mail(
        person_id=person_id,
        address=to.email,
        subject=subject,
        message_id=message_id,
        at=now,
        state=Mail.State.SENT,
    )
    try:
        message.send()
    except smtplib.SMTPRecipientsRefused as error:
        code, said = next(iter(error.recipients.values()), (0, b""))
        if 400 <= code < 500:
            raise  # the server asks to come again
        envelope.state = Mail.State.BOUNCED
        envelope.why = f"{code} {said.decode(errors='replace')}"[:300]
    envelope.save()
    if envelope.state == Mail.State.BOUNCED:
        put(Deed(None, now), "mail_bounced", None, person=person_id, mail=envelope.pk)


def subject_of(news: Sequence[bell.NewsLine]) -> str:
    """What a mail is about: the one thing, or how many things."""
    return _sentence(news[0])[:150] if len(news) == 1 else f"{len(news)} things are new"


def text_of(to: Addressee, news: Sequence[bell.NewsLine]) -> str:
    """A mail's text: a line and an address for each thing that is new."""
    parts = [f"Hello {to.given_name},", ""]
    for one in news:
        words = ["", *one.line.text.splitlines(), ""] if one.line.text else []
        parts += [_sentence(one), *words, f"{settings.ADDRESS}{one.line.path}", ""]
    parts += ["How you are told by mail you choose in Coat Peg, under the bell.", settings.ADDRESS]
    return "\n".join(parts)


def _sentence(one: bell.NewsLine) -> str:
    kind = kind_of(one.what)
    assert kind is not None
    said = kind.several.format(count=one.count) if one.count > 1 and kind.several else kind.said
    return f"{one.line.title}: {said}" if one.line.title else said[:1].upper() + said[1:]
