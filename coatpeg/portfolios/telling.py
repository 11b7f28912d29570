"""What this room tells: comments, a show page that was opened, pages of which one never arrived, a
picture that could not be read.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from coatpeg.notices.kinds import Kind, Line, register
from coatpeg.notices.models import Notice
from coatpeg.outlines.models import Pocket
from coatpeg.people.directory import student_of
from coatpeg.portfolios.models import Comment, Evidence, Portfolio


def _of_student(notice: Notice) -> list[int]:
    return student_of(notice.data["enrolment"])


def _comments(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Comments that were not taken back, by what they are about: one query."""
    named = {one.data["comment"]: one for one in notices}
    rows = Comment.objects.filter(pk__in=named, removed_at=None).select_related("pocket", "page", "evidence__artefact")
    return {named[one.pk].pk: Line(_about(one), _path(named[one.pk], one)) for one in rows}


def _about(comment: Comment) -> str:
    artefact = comment.evidence.artefact if comment.evidence else None
    if comment.page:
        return comment.page.title
    if artefact:
        return artefact.title
    return comment.pocket.title if comment.pocket else ""


def _path(notice: Notice, comment: Comment) -> str:
    base = f"/g/{notice.group_id}/portfolio/{comment.portfolio_id}"
    return f"{base}/page/{comment.page_id}" if comment.page_id else f"{base}/{comment.pocket_id}"


def _pictures(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Pictures that could not be read, by their names: three queries."""
    lines, named = _pages(notices, person_id), {one.data["evidence"] for one in notices}
    titles = dict(Evidence.objects.filter(pk__in=named).values_list("pk", "artefact__title"))
    return {
        one.pk: Line(titles[one.data["evidence"]] or "", lines[one.pk].path)
        for one in notices
        if one.pk in lines and one.data["evidence"] in titles
    }


def _pages(notices: Sequence[Notice], person_id: int) -> Mapping[int, Line]:
    """Pages that were joined without one, by the pocket they lie in: two queries."""
    titles = dict(Pocket.objects.filter(pk__in={one.data["pocket"] for one in notices}).values_list("pk", "title"))
    of = {one.data["enrolment"] for one in notices}
    portfolios = dict(Portfolio.objects.filter(enrolment__in=of).values_list("enrolment_id", "pk"))
    return {
        one.pk: Line(
            titles[one.data["pocket"]],
            f"/g/{one.group_id}/portfolio/{portfolios[one.data['enrolment']]}/{one.data['pocket']}",
        )
        for one in notices
        if one.data["pocket"] in titles and one.data["enrolment"] in portfolios
    }


def register_all() -> None:
    """Say what these notices are called and lead to."""
    register(
        "pages_missing", Kind(_of_student, _pages, "your photographed pages are there, without one that never came")
    )
    register(
        "picture_unreadable", Kind(_of_student, _pictures, "a picture of yours could not be read: add it once more")
    )
    register("commented", Kind(_of_student, _comments, "somebody has commented on it"))
    register(
        "show_page_opened",
        Kind(
            _of_student,
            lambda notices, person_id: {one.pk: Line("", f"/g/{one.group_id}/shows") for one in notices},
            "your show page is open to the class",
        ),
    )
