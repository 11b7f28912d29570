"""What a student sees first, and the coat of a pocket."""

from datetime import UTC, datetime, timedelta

from django.test import SimpleTestCase

from coatpeg.core.handins.standing import Standing, Status
from coatpeg.core.handins.worklist import pocket_coat, quiet_days, to_do, urgency

NOW = datetime(2026, 11, 4, tzinfo=UTC)


def one(status: Status, *, overdue: bool = False) -> Standing:
    return Standing(status, False, 0, None, overdue, None)


class Worklist(SimpleTestCase):
    def test_sent_back_then_overdue_then_next_due_then_without(self) -> None:
        rows = [
            ("no due", one(Status.EMPTY), None),
            ("next week", one(Status.EMPTY), NOW + timedelta(days=7)),
            ("tomorrow", one(Status.WORKING), NOW + timedelta(days=1)),
            ("overdue", one(Status.EMPTY, overdue=True), NOW - timedelta(days=9)),
            ("sent back", one(Status.SENT_BACK), NOW - timedelta(days=1)),
        ]
        ordered = sorted(rows, key=lambda row: urgency(row[1], row[2]))
        self.assertEqual([row[0] for row in ordered], ["sent back", "overdue", "tomorrow", "next week", "no due"])

    def test_what_is_to_do(self) -> None:
        waiting = {status for status in Status if to_do(one(status))}
        self.assertEqual(waiting, {Status.SENT_BACK, Status.WORKING, Status.EMPTY})

    def test_the_coat_of_a_pocket(self) -> None:
        cases = [
            ([], None),
            ([Status.NOT_ASKED], None),
            ([Status.NOT_OPEN], None),
            ([Status.ACCEPTED, Status.NOT_OPEN], Status.ACCEPTED),
            ([Status.ACCEPTED, Status.EMPTY], Status.EMPTY),
            ([Status.EMPTY, Status.SENT_BACK], Status.SENT_BACK),
            ([Status.ACCEPTED, Status.HANDED_IN], Status.HANDED_IN),
            ([Status.EXCUSED, Status.ACCEPTED], Status.ACCEPTED),
        ]
        for statuses, expected in cases:
            with self.subTest(statuses):
                found = pocket_coat((one(status), NOW) for status in statuses)
                self.assertEqual(found and found.status, expected)

    def test_days_without_work_count_from_the_last_or_from_when_they_could_begin(self) -> None:
        today = NOW.date()
        before = [today - timedelta(days=days) for days in (2, 8, 30)]
        self.assertEqual(quiet_days(None, before[1], today), 8)
        self.assertEqual(quiet_days(before[0], before[2], today), 2)
        self.assertEqual(quiet_days(before[2], before[0], today), 2, "work from before they came back")
        self.assertEqual(quiet_days(today, today, today), 0)
        self.assertEqual(quiet_days(None, today + timedelta(days=40), today), 0, "a class that begins next term")
