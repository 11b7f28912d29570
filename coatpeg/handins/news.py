"""What is new to a student: sent back, accepted, commented, asked for, opened to the class. Read from the events,
nothing is kept twice.

Decided here: news of the last thirty days, newest first, at most fifty; a comment that was taken back is none, nor a
hand-in that does not ask the student; what was seen is one number, the newest event that stood there when they
looked.
"""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from django.db.models import Q

from coatpeg.core.policy import Action
from coatpeg.core.standing import Status
from coatpeg.events.models import Event
from coatpeg.handins.situation import situation
from coatpeg.handins.worklists import readable
from coatpeg.outlines.models import Pocket
from coatpeg.people.models import Enrolment, Person
from coatpeg.portfolios.models import Comment

VERBS = ("sent_back", "accepted", "commented", "handin_set", "show_page_opened", "own_due_set")
REACH = timedelta(days=30)
MOST = 50


def news(person: Person, portfolio_id: int, now: datetime) -> dict[str, Any]:
    """A student's own news, and how much of it they have not seen."""
    portfolio = readable(person, portfolio_id, Action.SEE_WORKLIST)
    of = portfolio.enrolment
    view = situation(of.group_id, now, enrolment_id=of.pk)
    asked = {one.id: one for one in view.handins if view.standings[of.pk, one.id].status is not Status.NOT_ASKED}
    events = Event.objects.filter(group_id=of.group_id, verb__in=VERBS, at__gt=now - REACH)
    rows = list(events.filter(Q(enrolment_id=of.pk) | Q(enrolment_id=None)).order_by("-number")[: 4 * MOST])
    said = Comment.objects.filter(
        pk__in=[one.data.get("comment") for one in rows if one.verb == "commented"], removed_at=None
    )
    comments = {one.pk: one for one in said.select_related("pocket", "page", "evidence__artefact")}
    titles = dict(Pocket.objects.filter(section__template__group_id=of.group_id).values_list("pk", "title"))
    lines = []
    for event in rows:
        line = {"number": event.number, "what": event.verb, "at": event.at, "title": "", "pocket": None, "page": None}
        if event.verb == "commented":
            comment = comments.get(event.data.get("comment"))
            if comment is None:
                continue
            line |= _commented(comment, titles)
        elif event.verb != "show_page_opened":
            handin = asked.get(event.handin_id or 0)
            if handin is None or handin.asked.opens > view.today:
                continue
            line |= {"title": handin.title, "pocket": next(iter(handin.pockets), None)}
        lines.append({**line, "new": event.number > of.news_seen})
    shown = lines[:MOST]
    return {"unseen": sum(1 for one in shown if one["new"]), "lines": shown}


def _commented(comment: Comment, titles: dict[int, str]) -> dict[str, Any]:
    artefact = comment.evidence.artefact if comment.evidence else None
    title = (
        comment.page.title if comment.page else artefact.title if artefact else titles.get(comment.pocket_id or 0, "")
    )
    return {"title": title, "pocket": comment.pocket_id, "page": comment.page_id}


def seen(person: Person, portfolio_id: int, number: int) -> None:
    """Remember the newest event that the student has seen as news; never an older one than before."""
    of = readable(person, portfolio_id, Action.SEE_WORKLIST).enrolment
    newest = (
        Event.objects.filter(group_id=of.group_id).order_by("-number").values_list("number", flat=True).first() or 0
    )
    Enrolment.objects.filter(pk=of.pk, news_seen__lt=min(number, newest)).update(news_seen=min(number, newest))
