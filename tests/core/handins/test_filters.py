"""Filters of the pegs as addresses."""

from urllib.parse import parse_qsl, urlencode

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.core.errors import Invalid
from coatpeg.core.handins.filters import KEYS, LONGEST_NAME, tidy_address, tidy_name


class Addresses(SimpleTestCase):
    def test_what_is_no_filter_is_left_out_and_the_order_is_always_the_same(self) -> None:
        found = tidy_address("?student=5&section=The+kitchen&period=P3&show=not_in%2Clate&x=1&section=Growing&find=")
        self.assertEqual(found, "show=not_in%2Clate&period=P3&section=Growing&section=The+kitchen")

    def test_nothing_and_too_much_are_refused(self) -> None:
        for address in ("", "?", "student=5", "find=+", "period=" + "x" * 2000):
            with self.subTest(address[:20]), self.assertRaises(Invalid):
                tidy_address(address)

    @given(st.lists(st.tuples(st.sampled_from([*KEYS, "student", "x"]), st.text(max_size=20)), min_size=1, max_size=8))
    def test_tidied_again_it_is_the_same(self, pairs: list[tuple[str, str]]) -> None:
        try:
            once = tidy_address(urlencode(pairs))
        except Invalid:
            return
        self.assertEqual(tidy_address(once), once)
        self.assertLessEqual(set(parse_qsl(once)), set(pairs))

    def test_names(self) -> None:
        self.assertEqual(tidy_name("  P3   owing "), "P3 owing")
        for name in ("", " \t", "x" * (LONGEST_NAME + 1)):
            with self.subTest(name[:5]), self.assertRaises(Invalid):
                tidy_name(name)
