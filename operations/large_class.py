"""A class of its own to measure and to attack: ``python -m operations.large_class N`` makes it in an empty database.

Prints, as JSON, the sessions of its lead and of its students, with what each of them writes and hands in. The names are
numbers: nobody reads them.
"""

from __future__ import annotations

import json
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import timedelta
from importlib import import_module
from pathlib import Path
from typing import Any

from operations.serving import Running


@contextmanager
def throwaway(home: Path) -> Iterator[Running]:
    """The application with a database and a folder of its own, that nobody will miss."""
    with tempfile.TemporaryDirectory(prefix="coatpeg-", ignore_cleanup_errors=True) as folder:
        running = Running(home, Path(folder))
        with running.owned():
            running.manage("migrate", "--verbosity=0")
            yield running


def make(count: int) -> dict[str, Any]:
    """Make a class of ``count`` students with two pockets, each collected by a hand-in."""
    from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY  # noqa: PLC0415 - needs settings
    from django.utils import timezone  # noqa: PLC0415

    from coatpeg.core.handins.asking import Due  # noqa: PLC0415
    from coatpeg.core.policy import Role  # noqa: PLC0415
    from coatpeg.handins.asked.setting import Plan, set_handin  # noqa: PLC0415
    from coatpeg.outlines.models import Pocket, Section, Template  # noqa: PLC0415
    from coatpeg.people.models import Enrolment, Person, School, StaffRole, TeachingGroup, Term  # noqa: PLC0415
    from coatpeg.portfolios.models import Portfolio  # noqa: PLC0415
    from coatpeg.portfolios.own import pages  # noqa: PLC0415

    store = import_module("django.contrib.sessions.backends.db").SessionStore

    def signed_in(person: Person) -> str:
        session = store()
        session[SESSION_KEY] = str(person.pk)
        session[BACKEND_SESSION_KEY] = "django.contrib.auth.backends.ModelBackend"
        session[HASH_SESSION_KEY] = person.get_session_auth_hash()
        session.save()
        return str(session.session_key)

    now = timezone.now()
    first, last = now.date() - timedelta(days=30), now.date() + timedelta(days=60)
    School.objects.create(name="Larkfield School", zone="Europe/London", weekdays=[0, 1, 2, 3, 4])
    Term.objects.create(name="Autumn term", first=first, last=last)
    group = TeachingGroup.objects.create(name="8 Plot", kind="class", first=first, last=last)
    lead = Person.objects.create(username="lead", given_name="R.", family_name="Okafor", is_staff=True)
    StaffRole.objects.create(group=group, person=lead, role=Role.LEAD.value)
    section = Section.objects.create(template=Template.objects.create(group=group, title="8 Plot"), title="The kitchen")
    titles = ("Menu", "Recipe card", "Soil test")
    pockets = [
        Pocket.objects.create(section=section, title=title, kind="evidence", position=at, artefacts=1)
        for at, title in enumerate(titles)
    ]
    plan_of_all = Pocket.objects.create(section=section, title="Plan", kind="page", position=9, shared="class")
    students = []
    for number in range(count):
        person = Person.objects.create(
            username=f"s{number}", given_name=f"Given{number}", family_name=f"Family{number}"
        )
        enrolment = Enrolment.objects.create(
            group=group, person=person, first=first, picture=f"picture-{number}", tint=number % 8
        )
        book = Portfolio.objects.create(enrolment=enrolment)
        page = pages.add_page(person, book.pk, "Beans", now)
        students.append({"cookie": signed_in(person), "portfolio": book.pk, "page": page.pk})
    handins = []
    for pocket in pockets:
        plan = Plan(pocket.title, (pocket.pk,), first, Due(last, None))
        handins.append(set_handin(lead, group.pk, plan, now).pk)
    return {
        "group": group.pk,
        "lead": signed_in(lead),
        "students": students,
        "pockets": [one.pk for one in pockets],
        "together": plan_of_all.pk,
        "handins": handins,
    }


if __name__ == "__main__":
    import_module("coatpeg.web.wsgi")
    print(json.dumps(make(int(sys.argv[1]))))
