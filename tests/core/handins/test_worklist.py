"""What a student sees first, and the coat of a pocket."""

from datetime import UTC, datetime, timedelta

from django.test import SimpleTestCase

from coatpeg.core.handins.standing import Standing, Status
from coatpeg.core.handins.worklist import pocket_coat, quiet, to_do, urgency

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

    def test_quiet_after_a_week(self) -> None:
        self.assertTrue(quiet(None, NOW))
        self.assertFalse(quiet(NOW - timedelta(days=7), NOW))
        self.assertTrue(quiet(NOW - timedelta(days=7, seconds=1), NOW))

    def test_nobody_is_quiet_before_they_have_been_there_for_a_week(self) -> None:
        joined = NOW - timedelta(days=2)
        self.assertFalse(quiet(None, NOW, joined))
        self.assertFalse(quiet(NOW - timedelta(days=30), NOW, joined))
        self.assertFalse(quiet(None, NOW, NOW + timedelta(days=40)), "a class that begins next term")
        self.assertTrue(quiet(None, NOW, NOW - timedelta(days=8)))
