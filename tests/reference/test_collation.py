"""Name order against ICU and against the database's own collation; counts against ICU in another engine.

Sources: ``Intl.Collator`` and ``Intl.Segmenter`` of Node.js (ICU, CLDR root order, ECMA-402); MariaDB's
``utf8mb4_uca1400_as_cs`` (Unicode Collation Algorithm 14.0).
"""

import itertools
import json
import os
import subprocess
from pathlib import Path

from django.db import connection
from django.test import SimpleTestCase, TestCase

from coatpeg.core.people import names
from coatpeg.core.portfolios.texts import count
from demo.names import AWKWARD, FAMILY, GIVEN
from operations.install import node_path

HOME = Path(__file__).resolve().parents[2]
TRICKY = """Ångström|Angstrom|de Souza|De Souza|Desmond|Dean|O'Neill|Oakes|ONeill|Nguyễn|Nguyen|Smith-Jones|Smith Jones
Smithers|Özil|Ozols|Zola|Ștefănescu|Stefan|van der Berg|Vance|Łukasik|Lukas|Øster|Oster|Þór|Thor|Æsir|Aesop|ß|Straße
Strasse|Müller|Muller|Mueller|Çelik|Celik|Đorđević|Ñandú|Nandu|İnce|Ince|李|王|明月|김|山田|محمد|Дмитриев|Ольга|Σωκράτης"""
NAMES = [one for line in TRICKY.splitlines() for one in line.split("|")]


def in_node(script: str, data: object) -> object:
    """Run a script in Node with ``data`` as JSON on its input; returns the JSON it prints."""
    environment = {**os.environ, "PATH": node_path(HOME)}
    done = subprocess.run(
        ["node", "-e", script], input=json.dumps(data), capture_output=True, text=True, env=environment, check=True
    )
    return json.loads(done.stdout)


COMPARE = """
const data = JSON.parse(require('fs').readFileSync(0, 'utf8'));
const collator = new Intl.Collator('und');
console.log(JSON.stringify(data.map(([a, b]) => Math.sign(collator.compare(a, b)))));
"""


class NameOrder(SimpleTestCase):
    def test_every_pair_stands_as_icu_puts_it(self) -> None:
        everyone = [*NAMES, *FAMILY[::7], *(family for family, _ in AWKWARD if family)]
        pairs = list(itertools.combinations(everyone, 2))
        expected = in_node(COMPARE, pairs)
        assert isinstance(expected, list)
        for (first, second), sign in zip(pairs, expected, strict=True):
            ours = names.sort_key(first, ""), names.sort_key(second, "")
            self.assertEqual((ours[0] > ours[1]) - (ours[0] < ours[1]), sign, f"{first} / {second}")
        self.assertGreater(len(pairs), 2000)

    def test_given_names_order_within_a_family(self) -> None:
        rows = [("Shah", given) for given in GIVEN]
        ordered = sorted(rows, key=lambda row: names.sort_key(*row))
        expected = in_node(
            "const d=JSON.parse(require('fs').readFileSync(0,'utf8'));console.log(JSON.stringify(d.sort(new Intl.Collator('und').compare)))",
            GIVEN,
        )
        self.assertEqual([given for _, given in ordered], expected)


class DatabaseOrder(TestCase):
    def test_the_database_sorts_the_same_names_the_same(self) -> None:
        """Hangul is left out: MariaDB gives its syllables implicit weights behind the ideographs, ICU and we do not."""
        sample = [one for one in NAMES if one != "김"]
        rows = " UNION ALL ".join(["SELECT %s AS name"] * len(sample))
        with connection.cursor() as cursor:
            cursor.execute(
                f"SELECT name FROM ({rows}) AS given ORDER BY CONVERT(name USING utf8mb4) COLLATE utf8mb4_uca1400_as_cs",
                sample,
            )
            theirs = [row[0] for row in cursor.fetchall()]
        self.assertEqual(sorted(sample, key=lambda one: names.sort_key(one, "")), theirs)


TEXTS = [
    "I cut the recipe down. It was too much!",
    "Mr. Green grew 3.5 kg of beans. Did he? Yes: 3,500 g.",
    "Don't stop… now? “Never,” she said. ‘Why?’",
    "Zwei Sätze. Der zweite ist kürzer!",
    "¿Qué crece aquí? ¡Tomates!",
    "今日は雨です。明日は晴れるでしょう。",
    "Это первое. А это второе?",
    "emoji 🌱 count 🍅🍅 nothing",
    "one\ntwo\n\nthree",
    "",
    "   …   ",
    "well-known co-operative e-mail a.b.c. U.S.A. 10:30",
]


class LiveCount(SimpleTestCase):
    def test_the_browsers_count_is_the_servers(self) -> None:
        """The front end's own module, compiled by TypeScript and run on ICU of another build."""
        script = """
        const ts = require('typescript'); const fs = require('fs');
        const { source, texts } = JSON.parse(fs.readFileSync(0, 'utf8'));
        const module_ = { exports: {} };
        new Function('exports', ts.transpileModule(source, { compilerOptions: { module: 'CommonJS', target: 'ES2022' } }).outputText)(module_.exports);
        console.log(JSON.stringify(texts.map((text) => { const c = module_.exports.count(text); return [c.words, c.sentences]; })));
        """
        source = (HOME / "frontend/src/writing/count.ts").read_text()
        modules = str(HOME / "frontend/node_modules/typescript")
        theirs = in_node(script.replace("'typescript'", json.dumps(modules)), {"source": source, "texts": TEXTS})
        self.assertEqual([[count(text).words, count(text).sentences] for text in TEXTS], theirs)
