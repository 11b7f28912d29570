"""Whom giving out reaches, and how far a copy has come. What the product decided."""

from itertools import product

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.cupboard.giving import Candidate, Progress, plan, progress

CANDIDATES = st.lists(
    st.builds(Candidate, st.integers(1, 10_000), st.booleans(), st.booleans(), st.booleans()),
    unique_by=lambda one: one.id,
)


class Plans(SimpleTestCase):
    @given(CANDIDATES)
    def test_everybody_stands_once_and_in_their_order(self, candidates: list[Candidate]) -> None:
        found = plan(candidates)
        parts = (found.gets, found.has, found.locked, found.full)
        order = {one.id: at for at, one in enumerate(candidates)}
        self.assertEqual(sorted(one for part in parts for one in part), sorted(order))
        for part in parts:
            self.assertEqual(list(part), sorted(part, key=order.__getitem__))
        for one in candidates:
            self.assertEqual(one.id in found.gets, not (one.has or one.locked or one.full))

    def test_whoever_has_it_is_not_called_locked(self) -> None:
        found = plan(
            [Candidate(1, has=True, locked=True), Candidate(2, locked=True, full=True), Candidate(3, full=True)]
        )
        self.assertEqual((found.gets, found.has, found.locked, found.full), ((), (1,), (2,), (3,)))


class HowFar(SimpleTestCase):
    def test_the_furthest_that_is_so(self) -> None:
        for there, opened, changed, handed_in in product((False, True), repeat=4):
            far = progress(lies_there=there, opened=opened, changed=changed, handed_in=handed_in)
            with self.subTest(f"{there} {opened} {changed} {handed_in}"):
                if handed_in:
                    self.assertIs(far, Progress.HANDED_IN)
                elif not there:
                    self.assertIs(far, Progress.TAKEN_OUT)
                else:
                    expected = Progress.BEGUN if changed else Progress.OPENED if opened else Progress.NOT_OPENED
                    self.assertIs(far, expected)
