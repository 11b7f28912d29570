"""The interface's messages against ICU itself (ICU4C's MessageFormat, through icu4py): the same words for the same values.

In the browser FormatJS says them; it is what is checked here, under Node. Its own tests are not in its package.
"""

import itertools
import json
import re
import subprocess
from functools import cache
from typing import Any
from unittest import TestCase

from django.conf import settings
from icu4py.messageformat import MessageFormat

FRONTEND = settings.BASE_DIR / "frontend"
SAY = """
import { IntlMessageFormat } from "intl-messageformat";
let input = "";
for await (const part of process.stdin) input += part;
const said = JSON.parse(input).map(([text, locale, values]) => new IntlMessageFormat(text, locale).format(values));
process.stdout.write(JSON.stringify(said));
"""
CHOICE = re.compile(r"\{(\w+), (plural|select|number)\b")
PLAIN = re.compile(r"\{(\w+)\}")
NUMBERS = (0, 1, 2, 5, 21, 1234)

GUESTS = """{host} invites {guests, plural, offset:1
  =0 {nobody} =1 {{guest}} one {{guest} and # more} other {{guest} and # more}} to {sort, select, party {a party} other {the house}}."""
"""An offset, exact numbers and a choice within each other, as the ICU User Guide shows them (from memory)."""
EVERY = "{n, plural, zero {# zero} one {# one} two {# two} few {# few} many {# many} other {# other}}"


def said_by_formatjs(asked: list[tuple[str, str, dict[str, Any]]]) -> list[str]:
    done = subprocess.run(
        ["node", "--input-type=module", "-e", SAY],
        cwd=FRONTEND,
        input=json.dumps(asked),
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr
    return list(json.loads(done.stdout))


def said_by_icu(text: str, locale: str, values: dict[str, Any]) -> str:
    as_icu = {key: str(one).lower() if isinstance(one, bool) else one for key, one in values.items()}
    return str(MessageFormat(text, locale).format(as_icu))


@cache
def catalogues() -> dict[str, Any]:
    done = subprocess.run(["node", "texts.js"], cwd=FRONTEND, capture_output=True, text=True, check=True)
    return dict(json.loads(done.stdout))


def messages(found: object) -> list[str]:
    """Every ICU message of the catalogues."""
    if isinstance(found, list):
        return [text for one in found for text in messages(one)]
    if not isinstance(found, dict):
        return []
    if isinstance(found.get("icu"), str):
        return [found["icu"]]
    return [text for one in found.values() for text in messages(one)]


def tried(text: str) -> list[dict[str, Any]]:
    """Values to say a message with: every number and choice with each other, a word for what is a word."""
    kinds = dict(CHOICE.findall(text))
    options: dict[str, tuple[Any, ...]] = dict.fromkeys(PLAIN.findall(text), ("{Thandi’s} <b>",))
    for name, kind in kinds.items():
        chosen = tuple(re.findall(r"(\w+) \{", text[text.index(f"{{{name}, select") :])[:2]) if kind == "select" else ()
        options[name] = NUMBERS if kind != "select" else (True, False) if "true" in chosen else (*chosen, "other")
    return [dict(zip(options, values, strict=True)) for values in itertools.product(*options.values())][:200]


class Messages(TestCase):
    def test_every_message_says_what_icu_says(self) -> None:
        asked = [(text, "en-GB", values) for text in messages(catalogues()) for values in tried(text)]
        self.assertGreater(len(asked), 500)
        for (text, locale, values), said in zip(asked, said_by_formatjs(asked), strict=True):
            self.assertEqual(said, said_by_icu(text, locale, values), text)

    def test_plurals_of_languages_that_have_more_of_them(self) -> None:
        asked = [
            (EVERY, locale, {"n": n}) for locale in ("pl", "cy", "lt", "el", "ja") for n in (*range(0, 26), 101, 102)
        ]
        for (text, locale, values), said in zip(asked, said_by_formatjs(asked), strict=True):
            self.assertEqual(said, said_by_icu(text, locale, values), locale)

    def test_offsets_exact_numbers_and_choices_within_each_other(self) -> None:
        values = [
            {"host": "Josh", "guest": "Thandi", "guests": n, "sort": sort}
            for n in (0, 1, 2, 3)
            for sort in ("party", "tea")
        ]
        said = said_by_formatjs([(GUESTS, "en", one) for one in values])
        self.assertEqual(said, [said_by_icu(GUESTS, "en", one) for one in values])
        self.assertEqual(said[2], "Josh invites Thandi to a party.")

    def test_quotes_and_braces_that_are_meant_as_they_stand(self) -> None:
        for text in ("It''s '{n}' of {n}", "today's {n}", "'{'x'}' {n}", "“{n}” isn''t"):
            self.assertEqual(said_by_formatjs([(text, "en", {"n": "1"})])[0], said_by_icu(text, "en", {"n": "1"}), text)

    def test_a_message_that_is_none_stops_the_build_and_says_where(self) -> None:
        wrong = (
            'import { texts } from "./texts.js"; texts().transform(`x(message("{n, plural, one {#}"))`, "a/texts.ts");'
        )
        done = subprocess.run(
            ["node", "--input-type=module", "-e", wrong], cwd=FRONTEND, capture_output=True, text=True
        )
        self.assertIn("a/texts.ts: “{n, plural, one {#}” is no ICU message", done.stderr)

    def test_no_catalogue_has_an_empty_text(self) -> None:
        def empty(found: object) -> bool:
            if isinstance(found, dict):
                return any(empty(one) for one in found.values())
            return any(empty(one) for one in found) if isinstance(found, list) else found == ""

        self.assertEqual([name for name, one in catalogues().items() if empty(one)], [])
