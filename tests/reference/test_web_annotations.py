"""Annotations against the W3C Web Annotation Data Model (Recommendation, 23 February 2017).

The required terms are those of its sections 3 and 4 and of its JSON-LD context; the examples are its own (numbered as
there, shortened), both written down from memory: neither the document nor its test suite is at hand offline.
"""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any
from xml.etree import ElementTree

from django.test import SimpleTestCase

from coatpeg.core.errors import Invalid
from coatpeg.core.marking import web_annotations as web
from coatpeg.core.marking.annotations import Kind, Part, Spot, Stroke, Surface, Target
from coatpeg.core.marking.quotes import Quote, quote_at

AT = datetime(2026, 11, 4, 10, tzinfo=UTC)
TEXT = "this is an annotation of an annotation, and no more."
SURFACES = {
    (1, 2, Part.TEXT): Surface(TEXT),
    (1, 2, Part.ARTEFACT): Surface(drawn=True),
    (1, 3, Part.ARTEFACT): Surface(runs=True),
    (4, None, None): Surface(rows=(70, 71, 72), columns=("a", "b")),
    (1, None, None): Surface(),
}
MOTIVATIONS = {
    "assessing",
    "bookmarking",
    "classifying",
    "commenting",
    "describing",
    "editing",
    "highlighting",
    "identifying",
    "linking",
    "moderating",
    "questioning",
    "replying",
    "tagging",
}
STROKES = (Stroke("rust", 60, (0, 0, 20, 5_000, 2_500, 90)), Stroke("plum", 40, (10_000, 10_000, 50)))
SAID = (
    web.Said(Kind.COMMENT, Target(), "Well done.", who="R. Okafor", at=AT, id="urn:uuid:1"),
    web.Said(Kind.HIGHLIGHT, Target(1, 2, Part.TEXT, quote_at(TEXT, 5, 21)), who="R. Okafor", at=AT, id="urn:uuid:2"),
    web.Said(
        Kind.SUGGESTION,
        Target(1, 2, Part.TEXT, quote_at(TEXT, 0, 4)),
        wording="This",
        who="R. Okafor",
        at=AT,
        changed=AT,
        id="urn:uuid:3",
    ),
    web.Said(
        Kind.COMMENT, Target(1, 2, Part.ARTEFACT, spot=Spot(1_234, 5_000, 10, 20), page=3), "Here", id="urn:uuid:4"
    ),
    web.Said(Kind.INK, Target(1, 2, Part.ARTEFACT), strokes=STROKES, id="urn:uuid:5"),
    web.Said(Kind.COMMENT, Target(1, 3, Part.ARTEFACT, at=62.5, until=65.0), "This note", id="urn:uuid:6"),
    web.Said(Kind.COMMENT, Target(4, row=71, column="b"), "Unit?", id="urn:uuid:7"),
    web.Said(Kind.COMMENT, Target(4, row=72), "When?", answers=(("Thandi", AT, "Monday."),), id="urn:uuid:8"),
)


def one(said: web.Said) -> dict[str, Any]:
    return web.annotation(9, said, SURFACES)


class Out(SimpleTestCase):
    def test_every_annotation_has_what_the_model_requires(self) -> None:
        document = web.collection(9, "Thandi, Water", SAID, SURFACES)
        self.assertEqual(document["@context"], "http://www.w3.org/ns/anno.jsonld")
        self.assertEqual((document["type"], document["total"]), ("AnnotationCollection", 9))
        page = document["first"]
        self.assertEqual((page["type"], page["partOf"], page["startIndex"]), ("AnnotationPage", document["id"], 0))
        ids = set()
        for each in page["items"]:
            self.assertEqual(each["type"], "Annotation")
            self.assertTrue(each["id"].startswith("urn:"))
            ids.add(each["id"])
            self.assertTrue(each["target"])
            self.assertIn(each["motivation"], MOTIVATIONS)
            self.assertRegex(each["created"], r"^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ$")
            self.assertEqual(each["creator"]["type"], "Person")
            for body in each.get("body", []):
                self.assertIn(body["type"], ("TextualBody", "Sound"))
                self.assertIn(body["purpose"], MOTIVATIONS)
        self.assertEqual(len(ids), 9)

    def test_words_are_a_quote_with_its_place_as_in_examples_23_and_24(self) -> None:
        selector = one(SAID[1])["target"]["selector"]
        self.assertEqual(selector["type"], "TextQuoteSelector")
        self.assertEqual(selector["exact"], "is an annotation")
        self.assertEqual((selector["prefix"], selector["suffix"]), ("this ", " of an annotation, and no more."))
        self.assertEqual(selector["refinedBy"], {"type": "TextPositionSelector", "start": 5, "end": 21})

    def test_fragments_conform_to_their_specifications(self) -> None:
        page = one(SAID[3])["target"]["selector"]
        self.assertEqual((page["value"], page["conformsTo"]), ("page=3", "http://tools.ietf.org/rfc/rfc3778"))
        frame = page["refinedBy"]
        self.assertEqual(frame["conformsTo"], "http://www.w3.org/TR/media-frags/")
        self.assertEqual(frame["value"], "xywh=percent:12.34,50,0.1,0.2")
        self.assertEqual(one(SAID[5])["target"]["selector"]["value"], "t=62.5,65")
        # RFC 7111: rows are counted from 1, the line of headings among them (its own example: the fourth row of a table).
        cell = one(SAID[6])["target"]["selector"]
        self.assertEqual((cell["value"], cell["conformsTo"]), ("cell=3,2", "http://tools.ietf.org/rfc/rfc7111"))
        self.assertEqual(one(SAID[7])["target"]["selector"]["value"], "row=4")

    def test_ink_is_an_svg_that_a_parser_reads(self) -> None:
        selector = one(SAID[4])["target"]["selector"]
        self.assertEqual(selector["type"], "SvgSelector")
        root = ElementTree.fromstring(selector["value"])
        self.assertEqual(root.tag, "{http://www.w3.org/2000/svg}svg")
        self.assertEqual([line.get("points") for line in root], ["0,0 5000,2500", "10000,10000"])

    def test_what_goes_out_is_read_again_the_same(self) -> None:
        read = web.read(web.collection(9, "", SAID, SURFACES), SURFACES)
        self.assertEqual(len(read.said), len(SAID))
        for before, after in zip(SAID, read.said, strict=True):
            same = (before.kind, before.text, before.wording, before.strokes)
            self.assertEqual((after.kind, after.text, after.wording, after.strokes), same)
            words = before.target.words
            if words is None:
                self.assertEqual(after.target, before.target)
            else:
                self.assertEqual(after.target.words, Quote(words.exact, words.prefix, words.suffix))
        self.assertEqual(read.notes, ("Annotation 9 is an answer: it was left out.",))


class In(SimpleTestCase):
    def read(self, document: Any) -> web.Read:
        return web.read(document, SURFACES)

    def test_example_1_a_basic_annotation_is_on_the_whole_and_has_no_text(self) -> None:
        read = self.read(
            {
                "@context": "http://www.w3.org/ns/anno.jsonld",
                "id": "http://example.org/anno1",
                "type": "Annotation",
                "body": "http://example.org/post1",
                "target": "http://example.com/page1",
            }
        )
        self.assertEqual((read.said[0].target, read.said[0].text), (Target(), "http://example.org/post1"))
        self.assertEqual(len(read.notes), 1)

    def test_an_embedded_textual_body_as_in_example_5(self) -> None:
        body = {"type": "TextualBody", "value": "<p>j'adore !</p>", "format": "text/html", "language": "fr"}
        read = self.read({"id": "http://example.org/anno5", "type": "Annotation", "body": body, "target": "urn:x"})
        self.assertEqual(read.said[0].text, "j'adore !")

    def test_a_text_quote_as_in_example_23_is_found_by_its_words(self) -> None:
        selector = {
            "type": "TextQuoteSelector",
            "exact": "annotation",
            "prefix": "this is an ",
            "suffix": " of an",
        }
        target = {"source": "http://example.org/page1", "selector": selector}
        read = self.read({"type": "Annotation", "body": {"value": "Twice", "type": "TextualBody"}, "target": target})
        self.assertEqual(read.said[0].target.pocket, 1)
        self.assertEqual(read.said[0].target.part, Part.TEXT)
        self.assertEqual(read.notes, ())

    def test_a_media_fragment_as_in_example_20_with_pixels_is_not_understood_and_said(self) -> None:
        selector = {"type": "FragmentSelector", "conformsTo": web.MEDIA, "value": "xywh=50,50,640,480"}
        target = {"source": "urn:coat-peg:submission:9:pocket:1:evidence:2:artefact", "selector": selector}
        read = self.read({"type": "Annotation", "bodyValue": "See", "target": target})
        self.assertEqual(read.said[0].target, Target(1, 2, Part.ARTEFACT))
        self.assertEqual(read.notes, ("Annotation 1: a selector (FragmentSelector) was not understood.",))

    def test_svg_with_a_doctype_is_not_opened(self) -> None:
        bomb = '<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg">&a;</svg>'
        target = {
            "source": "urn:coat-peg:submission:9:pocket:1:evidence:2:artefact",
            "selector": {"type": "SvgSelector", "value": bomb},
        }
        read = self.read({"type": "Annotation", "bodyValue": "See", "target": target})
        self.assertEqual((read.said[0].kind, read.said[0].strokes), (Kind.COMMENT, ()))

    def test_what_holds_no_annotation_is_refused(self) -> None:
        for document in (None, 7, "x", [], {}, {"items": []}, {"first": "http://example.org/page1"}):
            with self.assertRaises(Invalid):
                self.read(document)

    def test_nothing_said_is_left_out_with_a_word(self) -> None:
        read = self.read([{"type": "Annotation", "target": "urn:x"}, {"type": "Annotation", "bodyValue": "So"}])
        self.assertEqual([said.text for said in read.said], ["So"])
        self.assertIn("Annotation 1: nothing is said in it: it was left out.", read.notes)
