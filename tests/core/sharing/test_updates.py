"""What an update holds, whether it is taken, where its words stand and whose they are: against y-crdt's own documents."""

from __future__ import annotations

import random
from datetime import UTC, datetime, timedelta
from typing import Any

from django.test import SimpleTestCase
from hypothesis import given, settings
from hypothesis import strategies as st
from pycrdt import Doc, XmlElement, XmlFragment, XmlText

from coatpeg.core.errors import CoatPegError, Invalid, Stale
from coatpeg.core.sharing import accepting, blocks
from coatpeg.core.sharing.authors import Authors, Part, Span, joined, parts, said_in
from coatpeg.core.sharing.blocks import Gone, read, utf16
from coatpeg.core.sharing.order import BREAK, Run, passages

NOON = datetime(2026, 11, 4, 12, tzinfo=UTC)
LETTERS = "ab é😀."


def page(client: int) -> tuple[Doc[Any], XmlFragment]:
    doc: Doc[Any] = Doc(client_id=client)
    return doc, doc.get("page", type=XmlFragment)


def passage(words: str = "") -> XmlElement:
    return XmlElement("paragraph", {}, [XmlText(words)])


def act(dealer: random.Random, root: XmlFragment) -> None:
    """Something that people do: a new passage, words into one, words or a passage away, words made bold."""
    count = len(root.children)
    what = dealer.random()
    if not count or what < 0.2:
        root.children.insert(dealer.randint(0, count), passage())
        return
    place = dealer.randrange(count)
    if what > 0.95:
        del root.children[place]
        return
    text = root.children[place].children[0]
    plain = "".join(piece for piece, _ in text.diff())
    # y-crdt counts places in bytes; between letters, since half a letter is nobody's to cut.
    places = [len(plain[:at].encode()) for at in range(len(plain) + 1)]
    start, end = sorted((dealer.choice(places), dealer.choice(places)))
    if what < 0.7:
        text.insert(start, "".join(dealer.choice(LETTERS) for _ in range(dealer.randint(1, 5))))
    elif start < end and what < 0.85:
        del text[start:end]
    elif start < end:
        text.format(start, end, {"bold": {}})


def history(seed: int, steps: int = 60) -> list[tuple[Doc[Any], XmlFragment]]:
    """Three who write at once and hear of each other now and then; in the end all have everything."""
    dealer = random.Random(seed)
    devices = [page(one) for one in dealer.sample(range(1, 2**32), 3)]
    for _ in range(steps):
        doc, root = dealer.choice(devices)
        act(dealer, root)
        other, _ = dealer.choice(devices)
        if dealer.random() < 0.3 and other is not doc:
            other.apply_update(doc.get_update(other.get_state()))
    for doc, _ in devices:
        for other, _ in devices:
            if other is not doc:
                doc.apply_update(other.get_update(doc.get_state()))
    return devices


def plain(root: XmlFragment) -> list[str]:
    return ["".join(piece for piece, _ in one.children[0].diff()) for one in root.children]


class Order(SimpleTestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.integers(0, 10**6))
    def test_words_stand_where_every_device_has_them(self, seed: int) -> None:
        devices = history(seed)
        doc, root = devices[0]
        found = ["".join(run.words for run in one) for one in passages(read(doc.get_update()))]
        self.assertEqual(found, plain(root))
        self.assertEqual(plain(devices[1][1]), plain(root))

    def test_each_run_is_the_words_of_its_writer_from_its_tick_on(self) -> None:
        first, root = page(1)
        root.children.append(passage("harbour"))
        second, other = page(2)
        second.apply_update(first.get_update())
        other.children[0].children[0].insert(3, "XX")
        (found,) = passages(read(second.get_update()))
        self.assertEqual(found, [Run(1, 2, "har"), Run(2, 0, "XX"), Run(1, 5, "bour")])

    def test_items_of_a_list_are_parted(self) -> None:
        doc, root = page(1)
        items = [XmlElement("listItem", {}, [passage(words)]) for words in ("one", "two")]
        root.children.append(XmlElement("bulletList", {}, items))
        (found,) = passages(read(doc.get_update()))
        self.assertEqual("".join(run.words for run in found).split(), ["one", "two"])
        self.assertIn(BREAK, found)


class Reading(SimpleTestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.integers(0, 10**6), st.data())
    def test_whatever_comes_is_read_or_refused_in_words(self, seed: int, data: st.DataObject) -> None:
        whole = history(seed, 20)[0][0].get_update()
        at = data.draw(st.integers(0, max(len(whole) - 1, 0)))
        broken = data.draw(st.sampled_from([whole[:at], whole[:at] + b"\xff" + whole[at + 1 :], whole + b"\x01"]))
        try:
            read(broken)
        except CoatPegError as error:
            self.assertTrue(error.fix)

    def test_what_is_taken_away_is_named_by_its_ticks(self) -> None:
        doc, root = page(7)
        root.children.append(passage("harbour"))
        before = doc.get_state()
        del root.children[0].children[0][2:4]
        self.assertEqual(read(doc.get_update(before)).gone, [Gone(7, 4, 6)])

    def test_values_nested_without_end_are_refused(self) -> None:
        deep = bytes([1, 1, 7, 0, 0x08, 1]) + bytes([4]) + b"page" + bytes([1]) + bytes([117, 1]) * 50
        with self.assertRaises(Invalid):
            read(deep)


class Accepting(SimpleTestCase):
    def setUp(self) -> None:
        self.doc, self.root = page(7)
        self.root.children.append(passage("First."))

    def taken(self, data: bytes, clocks: dict[int, int] | None = None, client: int = 7) -> accepting.Taken:
        kinds = accepting.Kinds()
        for block in read(self.doc.get_update()).blocks[7] if clocks else []:
            kinds.add(block)
        return accepting.accept(read(data), client, clocks or {}, kinds)

    def test_letters_stand_beside_letters_and_elements_beside_elements(self) -> None:
        # Passage, text, then the six letters: ticks 0, 1, 2 to 7.
        kinds = accepting.Kinds({7: {0, 1}})
        letter, element = blocks.Id(7, 3), blocks.Id(7, 0)
        for kind, value, beside, fits in (
            ("string", "x", letter, True),
            ("string", "x", element, False),
            ("format", ("bold", {}), element, False),
            ("type", "paragraph", element, True),
            ("type", "paragraph", letter, False),
        ):
            block = blocks.Block(blocks.Id(9, 0), 1, kind, value, beside)
            with self.subTest(f"{kind} {beside}"):
                update = blocks.Update({9: [block]})
                if fits:
                    accepting.accept(update, 9, {7: 8}, kinds)
                else:
                    self.assertRaises(Invalid, accepting.accept, update, 9, {7: 8}, accepting.Kinds({7: {0, 1}}))

    def test_what_an_element_may_hold(self) -> None:
        text = ("", [])
        fits = [("paragraph", [text]), ("bulletList", [("listItem", [("paragraph", [text])])])]
        self.assertEqual(accepting.nesting(fits), 0)
        for wrong in (
            [("paragraph", [("paragraph", [])])],
            [("listItem", [])],
            [text],
            [("bulletList", [("listItem", [("heading", [text])])])],
        ):
            self.assertEqual(accepting.nesting(wrong), 1, wrong)

    def test_kinds_are_kept_as_data(self) -> None:
        kinds = accepting.Kinds({7: {0, 1}}, {8: [(3, 9)]})
        again = accepting.Kinds.from_data(kinds.as_data())
        self.assertTrue(again.is_type(blocks.Id(7, 1)) and again.is_either(blocks.Id(8, 8)))
        self.assertTrue(again.is_letter(blocks.Id(7, 2)) and not again.is_letter(blocks.Id(8, 3)))

    def test_new_ticks_are_counted_from_what_is_known(self) -> None:
        found = self.taken(self.doc.get_update())
        self.assertEqual((found.start, found.end, found.away), (0, 8, {}))
        again = self.taken(self.doc.get_update(), {7: 8})
        self.assertTrue(again.nothing)

    def test_a_gap_another_s_ticks_and_what_is_unknown_are_refused(self) -> None:
        before = self.doc.get_state()
        self.root.children.append(passage("Second."))
        later = self.doc.get_update(before)
        with self.assertRaises(Stale):
            self.taken(later)
        with self.assertRaises(Invalid):
            self.taken(self.doc.get_update(), client=8)
        other, _ = page(8)
        other.apply_update(self.doc.get_update())
        state = other.get_state()
        other.get("page", type=XmlFragment).children[0].children[0].insert(0, "Mine. ")
        with self.assertRaises(Stale):  # it stands in a passage that is not known here
            self.taken(other.get_update(state), client=8)
        self.assertEqual(self.taken(other.get_update(state), {7: 17}, 8).end, 6)

    def test_what_is_taken_away_must_be_known(self) -> None:
        before = self.doc.get_state()
        del self.root.children[0].children[0][0:3]
        away = self.doc.get_update(before)
        self.assertEqual(self.taken(away, {7: 8}).away, {7: 3})
        with self.assertRaises(Stale):
            self.taken(away, {7: 2})

    def test_only_what_a_page_holds(self) -> None:
        for made in (
            XmlElement("image", {"src": "data:,"}, []),
            XmlElement("iframe", {}, []),
            XmlElement("paragraph", {"style": "x"}, []),
        ):
            doc, root = page(7)
            root.children.append(made)
            with self.subTest(made), self.assertRaises(Invalid):
                self.taken(doc.get_update())
        doc, root = page(7)
        root.children.append(XmlElement("heading", {"level": "2"}, [XmlText("Title")]))
        self.assertEqual(self.taken(doc.get_update()).start, 0)

    def test_links_lead_to_addresses_that_are_safe(self) -> None:
        for href, fits in (("https://example.org", True), ("mailto:a@b.c", True), ("javascript:x", False), (7, False)):
            doc, root = page(7)
            root.children.append(passage("Link"))
            root.children[0].children[0].format(0, 4, {"link": {"href": href}})
            with self.subTest(href):
                if fits:
                    self.taken(doc.get_update())
                else:
                    self.assertRaises(Invalid, self.taken, doc.get_update())


class Whose(SimpleTestCase):
    def test_spans_of_one_sitting_are_one_and_another_s_or_a_later_one_is_its_own(self) -> None:
        later = NOON + timedelta(minutes=2)
        spans = [Span(1, 3, 6, 5, NOON), Span(1, 0, 3, 5, NOON), Span(1, 6, 8, 5, later), Span(2, 0, 4, 6, NOON)]
        self.assertEqual(joined(spans), [Span(1, 0, 6, 5, NOON), Span(1, 6, 8, 5, later), Span(2, 0, 4, 6, NOON)])

    def test_a_run_is_cut_where_its_author_changes_and_what_nobody_is_named_for_is_nobody_s(self) -> None:
        authors = Authors([Span(1, 2, 5, 5, NOON), Span(1, 5, 7, 6, NOON)])
        found = [(one.person, one.words) for one in authors.said(Run(1, 0, "ab😀cdefg"))]
        self.assertEqual(found, [(-1, "ab"), (5, "😀c"), (6, "de"), (-1, "fg")])

    def test_words_are_counted_for_whoever_wrote_them(self) -> None:
        authors = Authors([Span(1, 0, 30, 5, NOON), Span(2, 0, 30, 6, NOON + timedelta(hours=1))])
        text = [[Run(1, 0, "The rain "), Run(2, 0, "sheet jams. It "), Run(1, 9, "stops.")], [Run(2, 15, "We wait.")]]
        found = parts(said_in(text, authors))
        words = {person: (one.counts.words, one.counts.sentences) for person, one in found.items()}
        self.assertEqual(words, {5: (3, 1), 6: (5, 3)})
        self.assertEqual(found[6], Part(found[6].counts, NOON + timedelta(hours=1)))

    def test_a_string_is_as_long_as_its_units(self) -> None:
        self.assertEqual([utf16(one) for one in ("", "ab", "é", "😀")], [0, 2, 1, 2])
        self.assertEqual(blocks.ROOT, "page")
