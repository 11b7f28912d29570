"""A series of hand-ins: set as one, numbered, changed alone, from here on or all; what was used is left alone."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from coatpeg.events.models import Event
from coatpeg.handins.handing import records
from coatpeg.handins.models import HandIn
from coatpeg.notices.models import Notice
from tests import builders
from tests.api.case import ApiCase
from tests.builders import TODAY

DAY = timedelta(days=1)
WEEK = timedelta(days=7)
FIRST = TODAY + 2 * DAY  # a Friday


class SeriesOfHandIns(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.plot = builders.klass()
        self.lead = self.plot.lead
        self.log = self.plot.pocket("Crop log", "log", log={"columns": [{"key": "a", "title": "Crop", "type": "text"}]})
        self.ada = self.plot.student("ada", "Ada", "Abel")
        self.path = f"/groups/{self.plot.group.pk}/handins"
        builders.day_off(FIRST + 2 * WEEK, "Orchard day")

    def tearDown(self) -> None:
        self.assertEqual(list(records.differences()), [])

    def plan(self, **more: Any) -> dict[str, Any]:
        plan: dict[str, Any] = {
            "title": "Crop log",
            "pockets": [self.log.pk],
            "opens": str(TODAY),
            "due": {"day": str(FIRST), "at": "16:00"},
            "repeat": {"every": 1, "until": str(FIRST + 4 * WEEK)},
        }
        return {**plan, **more}

    def set(self, **more: Any) -> Any:
        return self.ok(self.lead, "POST", self.path, self.plan(**more))

    def days(self) -> list[tuple[str, date, date | None]]:
        return list(HandIn.objects.order_by("series_place").values_list("title", "opens", "due_day"))

    def test_every_week_numbered_one_at_a_time_and_told_when_each_opens(self) -> None:
        looked = self.ok(self.lead, "POST", f"{self.path}/preview", self.plan())
        thursday = FIRST + 2 * WEEK - DAY
        dues = [FIRST, FIRST + WEEK, thursday, FIRST + 3 * WEEK, FIRST + 4 * WEEK]
        self.assertEqual(
            [(one["due"], one["moved"]) for one in looked["series"]], [(str(one), one == thursday) for one in dues]
        )
        made = self.set(closes={"day": str(FIRST + DAY), "at": None})
        self.assertEqual((made["count"], made["title"]), (5, "Crop log 1"))
        opens = [TODAY, *(one + DAY for one in dues[:-1])]
        titles = [f"Crop log {number}" for number in range(1, 6)]
        self.assertEqual(self.days(), list(zip(titles, opens, dues, strict=True)))
        closes = list(HandIn.objects.order_by("series_place").values_list("closes_day", flat=True))
        self.assertEqual(closes, [FIRST + at * WEEK + DAY for at in range(5)])
        told = Notice.objects.filter(what="handin_set").order_by("pk").values_list("tell_at", flat=True)
        self.assertEqual([one.date() for one in told][1:], opens[1:])
        self.assertEqual(Event.objects.filter(verb="handin_set").count(), 5)

    def test_every_second_week_and_sent_twice_it_is_one_series(self) -> None:
        body = {"repeat": {"every": 2, "until": str(FIRST + 4 * WEEK)}, "key": "a-form"}
        made, again = self.set(**body), self.set(**body)
        self.assertEqual((made, HandIn.objects.count()), (again, 3))

    def test_bad_input_says_where(self) -> None:
        for more, where in (
            ({"due": None}, "due"),
            ({"repeat": {"every": 1, "until": str(FIRST - DAY)}}, "until"),
            ({"repeat": {"every": 1, "until": str(FIRST + 60 * WEEK)}}, "until"),
        ):
            for path in (self.path, f"{self.path}/preview"):
                told = self.problem(422, self.lead, "POST", path, self.plan(**more))
                self.assertEqual(told["where"], where)
        self.problem(422, self.lead, "POST", self.path, self.plan(repeat={"every": 3, "until": str(FIRST)}))
        self.assertFalse(HandIn.objects.exists())

    def change(self, place: int, scope: str, **changes: Any) -> Any:
        pk = HandIn.objects.get(series_place=place).pk
        plan = self.ok(self.lead, "GET", f"{self.path}/{pk}")
        return self.ok(self.lead, "PUT", f"{self.path}/{pk}", {**plan, **changes, "scope": scope})

    def test_changed_alone_from_here_on_and_all_each_in_its_own_week(self) -> None:
        self.set()
        self.change(2, "one", title="Crop log, with photos")
        done = self.change(3, "on", points="5", due={"day": str(FIRST + 2 * WEEK - 2 * DAY), "at": "12:00"})
        self.assertEqual(done["left"], [])
        points = HandIn.objects.order_by("series_place").values_list("points", flat=True)
        self.assertEqual([one is not None for one in points], [False, False, True, True, True])
        fourth = HandIn.objects.get(series_place=4)
        self.assertEqual((fourth.due_day, str(fourth.due_time)), (FIRST + 3 * WEEK - DAY, "12:00:00"))
        self.assertEqual(fourth.title, "Crop log 4")
        self.assertEqual(
            HandIn.objects.values("series").distinct().count(), 2, "from here on it is a series of its own"
        )
        done = self.change(1, "all", title="Harvest log 1")
        self.assertEqual(done["left"], ["Crop log, with photos"])
        self.assertEqual(HandIn.objects.get(series_place=3).title, "Crop log 3")

    def test_what_somebody_handed_in_is_left_alone_and_stays_when_it_is_taken_back(self) -> None:
        made = self.set()
        builders.hand_in(self.ada, HandIn.objects.get(series_place=1), even_if_empty=True)
        done = self.change(5, "all", directions="<p>Weigh it twice.</p>")
        self.assertEqual(done["left"], ["Crop log 1"])
        self.assertEqual(HandIn.objects.exclude(directions="").count(), 4)
        back = self.ok(self.lead, "DELETE", f"/groups/{self.plot.group.pk}/series/{made['series']}")
        self.assertEqual(back, {"taken": 4, "left": ["Crop log 1"]})
        self.problem(404, self.lead, "DELETE", f"/groups/{self.plot.group.pk}/series/nothing")

    def test_who_looks_at_one_sees_how_many_others_there_are(self) -> None:
        self.set()
        plan = self.ok(self.lead, "GET", f"{self.path}/{HandIn.objects.get(series_place=4).pk}")
        self.assertEqual((plan["others"], plan["later"], plan["series_place"]), (4, 1, 4))
