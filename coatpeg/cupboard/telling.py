"""What this room tells students: what was given out to them, and that a thing they have a copy of is newer."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from django.db.models import Q, QuerySet

from coatpeg.cupboard.models import CupboardCopy, CupboardItem
from coatpeg.notices.kinds import Kind, Line, register
from coatpeg.notices.models import Notice


def _of(notice: Notice) -> QuerySet[CupboardCopy]:
    """The copies that a notice speaks of."""
    data = notice.data
    if notice.what == "given_out":
        rows = CupboardCopy.objects.filter(given=data["given"], given__taken_back_at=None)
    else:
        rows = CupboardCopy.objects.filter(item=data["item"], content=data["content"])
    enrolment = data.get("enrolment")
    return rows.filter(portfolio__enrolment=enrolment) if enrolment else rows


def _audience(notice: Notice) -> Iterable[int]:
    """Whose the copies are, as long as they lie there."""
    people = _of(notice).filter(evidence__removed_at=None).values_list("portfolio__enrolment__person_id", flat=True)
    return sorted(set(people))


def _lines(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """The item by title, leading to the pocket in which this person's copy lies: two queries."""
    wanted = Q()
    for one in notices:
        wanted |= Q(given=one.data["given"]) if one.what == "given_out" else Q(item=one.data["item"])
    rows = CupboardCopy.objects.filter(wanted, portfolio__enrolment__person=person_id, evidence__removed_at=None)
    lying = list(rows.order_by("pk"))
    titles = dict(CupboardItem.objects.filter(pk__in={one.item_id for one in lying}).values_list("pk", "title"))
    found = {}
    for notice in notices:
        key = "given" if notice.what == "given_out" else "item"
        mine = [one for one in lying if getattr(one, f"{key}_id") == notice.data[key]]
        if mine:
            copy = mine[-1]
            path = f"/g/{notice.group_id}/portfolio/{copy.portfolio_id}/{copy.pocket_id}"
            found[notice.pk] = Line(titles[copy.item_id], path)
    return found


def register_all() -> None:
    """Say what these notices are called and lead to."""
    register("given_out", Kind(_audience, _lines, "your teacher has given it to you: it lies in your pocket"))
    register("copy_renewed", Kind(_audience, _lines, "there is a newer one of it in your pocket"))
