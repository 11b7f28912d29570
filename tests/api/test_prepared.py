"""Queries that are compiled once give what the ORM gives, row for row and type for type."""

from __future__ import annotations

import sys
from datetime import timedelta
from functools import partial

from coatpeg.events.prepared import Found, OfGroup, Prepared
from coatpeg.handins.models import HandIn, KeptFacts
from coatpeg.people.models import Enrolment, School
from coatpeg.portfolios.models import Portfolio
from tests import builders
from tests.api.case import ApiCase
from tests.api.test_races import at_once
from tests.builders import klass


class Queries(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.of, self.other = klass(), klass("9 Forge", "marsh")
        self.card = self.of.pocket()
        self.portfolios = [self.of.student(f"s{number}", f"S{number}", period="P1") for number in range(3)]
        self.handin = self.of.handin(self.card, points=30)
        for one in self.portfolios[:2]:
            builders.fill(one, self.card)
            builders.hand_in(one, self.handin)
        self.other.handin(self.other.pocket()) if self.other.student("else") else None

    def test_rows_are_those_of_the_orm_with_their_types(self) -> None:
        columns = ("pk", "title", "opens", "due_day", "due_time", "for_everyone", "points", "step", "pockets")
        rows = HandIn.objects.values_list(*columns)
        prepared = Prepared(lambda group: rows.filter(group_id=group))
        for group in (self.of.group.pk, self.other.group.pk, 0):
            found, expected = prepared.run(group), list(rows.filter(group_id=group))
            self.assertEqual(found, expected)
            self.assertEqual([list(map(type, row)) for row in found], [list(map(type, row)) for row in expected])

    def test_json_moments_and_nothing_at_all(self) -> None:
        facts = KeptFacts.objects.values_list("enrolment_id", "first_at", "excused", "outcome")
        self.assertEqual(
            sorted(Prepared(lambda pk: facts.filter(handin_id=pk)).run(self.handin.pk)),
            sorted(facts.filter(handin_id=self.handin.pk)),
        )
        self.assertEqual(Prepared(lambda: School.objects.values_list("weekdays")).run(), [([0, 1, 2, 3, 4],)])

    def test_a_group_one_of_it_some_of_it_and_the_same_again(self) -> None:
        rows = Enrolment.objects.values_list("pk", "first", "person__given_name").order_by("pk")
        of = OfGroup(rows, "group_id", "pk")
        group, pks = self.of.group.pk, [one.enrolment_id for one in self.portfolios]
        for _ in range(2):
            self.assertEqual(list(of.run(group, None)), list(rows.filter(group_id=group)))
            self.assertEqual(list(of.run(group, pks[1:2])), list(rows.filter(pk=pks[1])))
            self.assertEqual(list(of.run(group, pks[:2])), list(rows.filter(pk__in=pks[:2])))
            self.assertEqual(list(of.run(self.other.group.pk, pks[1:2])), [], "of another group")
            self.assertEqual(list(of.run(group, ())), [])

    def test_a_row_with_what_it_points_to_in_one_query(self) -> None:
        found = Found(Portfolio, "enrolment", "enrolment__person", "enrolment__group")
        found.get(0)
        with self.assertNumQueries(1):
            one = found.get(self.portfolios[1].pk)
            assert one is not None
            names = one.enrolment.person.given_name, one.enrolment.group.name, one.cover_tint
        self.assertEqual(names, ("S1", "8 Plot", None))
        self.assertEqual((one, one.enrolment.first), (self.portfolios[1], self.portfolios[1].enrolment.first))
        one.enrolment.last = one.enrolment.first + timedelta(days=1)
        one.enrolment.save()
        self.assertEqual(
            Enrolment.objects.get(pk=one.enrolment_id).last, one.enrolment.last, "it is saved as any other"
        )
        self.assertIsNone(found.get(987_654))

    def test_the_first_requests_of_a_process_may_come_at_once(self) -> None:
        """Compiling reads no table, so threads of their own need no rows of this test."""
        self.addCleanup(sys.setswitchinterval, sys.getswitchinterval())
        sys.setswitchinterval(1e-6)  # threads take turns after every few steps
        for _ in range(20):
            found = Found(Portfolio, "enrolment", "enrolment__person", "enrolment__group")
            answers = at_once(*[partial(found.get, 987_654)] * 6)
            self.assertEqual(answers, [None] * 6)
            one = found.get(self.portfolios[1].pk)
            assert one is not None
            self.assertEqual(one.enrolment.person.given_name, "S1")
