"""The news of the last thirty days become notices, seen as far as each student had seen them."""

from datetime import timedelta

from django.db import migrations
from django.utils import timezone

OF_ONE = ("sent_back", "accepted", "commented", "show_page_opened", "own_due_set")


def to_notices(apps, schema):
    """One notice an event, told to its student or (a hand-in that was set) to everybody enrolled, and mailed to nobody."""
    event, enrolment = apps.get_model("events", "Event"), apps.get_model("people", "Enrolment")
    notice, delivery = apps.get_model("notices", "Notice"), apps.get_model("notices", "Delivery")
    now = timezone.now()
    recent = event.objects.filter(at__gt=now - timedelta(days=30)).order_by("group_id", "number")
    of_group = {}
    for one in enrolment.objects.values_list("group_id", "pk", "person_id", "news_seen"):
        of_group.setdefault(one[0], []).append(one[1:])
    for one in recent.filter(verb__in=(*OF_ONE, "handin_set")):
        students = of_group.get(one.group_id, [])
        if one.verb in OF_ONE:
            students = [student for student in students if student[0] == one.enrolment_id]
        data = {"enrolment": one.enrolment_id, "handin": one.handin_id, "comment": one.data.get("comment")}
        kept = notice.objects.create(
            what=one.verb,
            group_id=one.group_id,
            data={key: value for key, value in data.items() if value is not None},
            by_id=one.actor_id,
            at=one.at,
            tell_at=one.at,
            fanned_at=one.at,
        )
        delivery.objects.bulk_create(
            delivery(
                notice=kept, person_id=person, seen_at=one.at if one.number <= seen else None, mailed_at=one.at
            )
            for _, person, seen in students
        )


class Migration(migrations.Migration):
    dependencies = [
        ("notices", "0001_notices_mail"),
        ("events", "0001_events_and_sequences"),
        ("people", "0008_reading_news"),
    ]

    operations = [migrations.RunPython(to_notices, migrations.RunPython.noop)]
