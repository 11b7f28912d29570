"""Every pair of colours the theme allows against the WCAG 2.2 formula.

Source: WCAG 2.2, definitions of *relative luminance* and *contrast ratio*; success criteria 1.4.3 (4.5 : 1 for
text) and 1.4.11 (3 : 1 for shapes that carry meaning).
"""

import json
import re
from pathlib import Path

from django.test import SimpleTestCase

FRONTEND = Path(__file__).resolve().parents[2] / "frontend"
UI = FRONTEND / "src/ui"


def luminance(colour: str) -> float:
    channels = [int(colour[place : place + 2], 16) / 255 for place in (1, 3, 5)]
    linear = [one / 12.92 if one <= 0.04045 else ((one + 0.055) / 1.055) ** 2.4 for one in channels]
    return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]


def ratio(first: str, second: str) -> float:
    light, dark = sorted((luminance(first), luminance(second)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


class Contrast(SimpleTestCase):
    def setUp(self) -> None:
        self.colours = dict(re.findall(r"--color-([\w-]+): (#[0-9a-f]{6});", (UI / "theme.css").read_text()))
        self.pairs = json.loads((UI / "contrast-pairs.json").read_text())

    def test_the_formula_on_published_examples(self) -> None:
        """Black on white is 21 : 1; #767676 on white is the lightest grey that passes 4.5 (WebAIM's example, from memory)."""
        self.assertAlmostEqual(ratio("#000000", "#ffffff"), 21.0)
        self.assertGreaterEqual(ratio("#767676", "#ffffff"), 4.5)
        self.assertLess(ratio("#777777", "#ffffff"), 4.5)

    def test_every_pair_that_is_allowed(self) -> None:
        for kind, least in (("text", 4.5), ("shape", 3.0)):
            for front, ground in self.pairs[kind]:
                with self.subTest(f"{kind}: {front} on {ground}"):
                    self.assertGreaterEqual(ratio(self.colours[front], self.colours[ground]), least)

    def test_components_use_tokens_only(self) -> None:
        for path in FRONTEND.joinpath("src").rglob("*.tsx"):
            raw = re.findall(r"#[0-9a-fA-F]{3,8}\b|rgba?\(|hsla?\(", path.read_text())
            self.assertFalse(raw, f"{path.name} names a colour of its own")

    def test_a_text_colour_set_together_with_a_ground_is_an_allowed_pair(self) -> None:
        allowed = {tuple(pair) for pair in self.pairs["text"]}
        names = sorted(self.colours, key=len, reverse=True)
        token = "|".join(re.escape(name) for name in names)
        checked = 0
        for path in FRONTEND.joinpath("src").rglob("*.tsx"):
            for text in re.findall(r'"([^"\n]+)"', path.read_text()):
                plain = [word for word in text.split() if ":" not in word]
                grounds = [m[1] for word in plain if (m := re.fullmatch(rf"bg-({token})", word))]
                fronts = [m[1] for word in plain if (m := re.fullmatch(rf"text-({token})", word))]
                for pair in ((front, ground) for front in fronts for ground in grounds):
                    checked += 1
                    self.assertIn(pair, allowed, f"{path.name}: {text}")
        self.assertGreater(checked, 15)

    def test_peg_pictures_are_the_same_in_the_demo_and_the_interface(self) -> None:
        dealt = json.loads((UI / "peg-pictures.json").read_text())
        drawn = re.findall(r'^  "?([\w-]+)"?: \w+,$', (UI / "pegIcons.gen.ts").read_text(), re.MULTILINE)
        self.assertEqual(dealt, drawn)
        self.assertGreaterEqual(len(dealt), 100)
