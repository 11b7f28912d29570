"""Words and sentences against Unicode's own test cases, and as ICU breaks texts in several languages.

Sources: Unicode Standard Annex 29, *WordBreakTest.txt* and *SentenceBreakTest.txt* of Unicode 15.0, as Debian's
package ``unicode-data`` carries them; ``Intl.Segmenter`` of Node.js (ICU of another build).
"""

from __future__ import annotations

import re
from pathlib import Path

from django.test import SimpleTestCase
from icu4py.breakers import SentenceBreaker, WordBreaker

from coatpeg.core.portfolios import rich
from coatpeg.core.portfolios.texts import LOCALE, count
from tests.reference.test_collation import in_node

CASES = Path("/usr/share/unicode/auxiliary")
CHANGED_SINCE = "\u2701"
"""Of 1,823 cases two join this sign to one before it.

It is no pictograph for the rule any more in the Unicode that ICU has here.
"""

TEXTS = {
    "German": "Die Bohne keimte am 3. Tag. Wir haben z. B. „Feuerbohnen“ gesät! Wie groß wird sie?",
    "French": "L’eau s’écoule vite. Aujourd’hui, c’est 12,5 °C… Qu’en penses-tu ?",
    "Greek": "Τα φασόλια φύτρωσαν. Πόσο νερό θέλουν; Λίγο.",
    "Arabic": "نمت الفاصولياء. كم تحتاج من الماء؟ القليل.",
    "Hindi": "सेम उग आई। उसे कितना पानी चाहिए? थोड़ा।",
    "Turkish": "Fasulye 3'te filizlendi. Ne kadar su ister? Az.",
    "Polish": "Fasola wzeszła w dn. 3 maja. Ile wody chce? Mało!",
    "Vietnamese": "Đậu đã nảy mầm. Nó cần bao nhiêu nước? Ít thôi.",
}


def cases(name: str) -> list[list[str]]:
    """The segments of each case: hexadecimal code points between ÷ (a break) and × (none)."""
    found = []
    for line in (CASES / f"{name}.txt").read_text(encoding="utf-8").splitlines():
        told = line.partition("#")[0].strip().strip("÷ ")
        if told:
            found.append(
                ["".join(chr(int(one, 16)) for one in re.findall("[0-9A-F]{4,6}", part)) for part in told.split("÷")]
            )
    return found


class UnicodesOwnCases(SimpleTestCase):
    def test_words(self) -> None:
        found = cases("WordBreakTest")
        self.assertGreater(len(found), 1_800)
        wrong = [one for one in found if [str(part) for part in WordBreaker("".join(one), LOCALE)] != one]
        self.assertEqual([one for one in wrong if CHANGED_SINCE not in "".join(one)], [])
        self.assertLessEqual(len(wrong), 2)

    def test_sentences(self) -> None:
        found = cases("SentenceBreakTest")
        self.assertGreater(len(found), 500)
        for one in found:
            self.assertEqual([str(part) for part in SentenceBreaker("".join(one), LOCALE)], one)


class SeveralLanguages(SimpleTestCase):
    def test_counts_are_those_of_another_icu(self) -> None:
        script = """
        const texts = JSON.parse(require('fs').readFileSync(0, 'utf8'));
        const counted = (granularity, text) => [...new Intl.Segmenter('en', { granularity }).segment(text)]
          .filter((one) => /[\\p{L}\\p{N}]/u.test(one.segment)).length;
        console.log(JSON.stringify(texts.map((text) => [counted('word', text), counted('sentence', text)])));
        """
        theirs = in_node(script, list(TEXTS.values()))
        for (language, text), pair in zip(TEXTS.items(), theirs, strict=True):
            with self.subTest(language):
                self.assertEqual([count(text).words, count(text).sentences], pair)


class RichTextInTheBrowser(SimpleTestCase):
    def test_block_by_block_it_is_the_text_that_python_makes(self) -> None:
        """The words of rich text by the core.

        Against the rule written down once more over Python's other HTML parser.
        """
        for html, words in (
            ("<h2>Soil</h2><p>Clay &amp; sand.</p>", 3),
            ("<ul><li><p>one two</p></li><li><p>three</p></li></ul>", 3),
            ("<table><tbody><tr><td><p>a</p></td><td><p>b</p></td></tr></tbody></table>", 2),
            ('<p>Half: <span data-tex="\\frac{1}{2}"></span></p>', 4),
        ):
            self.assertEqual(count(rich.plain(html)).words, words, html)
