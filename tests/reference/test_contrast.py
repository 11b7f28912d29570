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


THEMES = {"light": (4.5, 3.0), "dark": (4.5, 3.0), "contrast": (7.0, 4.5)}
"""Least ratios of text and of shapes; the high-contrast theme holds to 1.4.6 (7 : 1)."""
TOKEN = r"--color-([\w-]+): (#[0-9a-f]{6});"


def block(css: str, selector: str) -> dict[str, str]:
    """The colours that a rule of the theme sets."""
    found = re.search(re.escape(selector) + r" \{([^}]*)\}", css)
    assert found, selector
    return dict(re.findall(TOKEN, found[1]))


class Contrast(SimpleTestCase):
    def setUp(self) -> None:
        css = (UI / "theme.css").read_text()
        self.colours = block(css, "@theme")
        self.themes = {
            "light": self.colours,
            **{name: self.colours | block(css, f'[data-theme="{name}"]') for name in THEMES if name != "light"},
        }
        self.tints = {
            name: self.colours | block(css, f'[data-theme="light"][data-tint="{name}"]')
            for name in re.findall(r'\[data-theme="light"\]\[data-tint="(\w+)"\]', css)
        }
        self.pairs = json.loads((UI / "contrast-pairs.json").read_text())

    def test_the_formula_on_published_examples(self) -> None:
        """Black on white is 21 : 1; #767676 on white is the lightest grey that passes 4.5 (WebAIM's example, from memory)."""
        self.assertAlmostEqual(ratio("#000000", "#ffffff"), 21.0)
        self.assertGreaterEqual(ratio("#767676", "#ffffff"), 4.5)
        self.assertLess(ratio("#777777", "#ffffff"), 4.5)

    def test_every_pair_that_is_allowed_in_every_theme_and_on_every_tint(self) -> None:
        self.assertEqual((len(self.themes), len(self.tints)), (3, 4))
        grounds = {f"light, {name}": (of, THEMES["light"]) for name, of in self.tints.items()}
        for theme, (colours, leasts) in (
            grounds | {name: (self.themes[name], THEMES[name]) for name in THEMES}
        ).items():
            for kind, least in zip(("text", "shape"), leasts, strict=True):
                for front, ground in self.pairs[kind]:
                    with self.subTest(f"{theme}, {kind}: {front} on {ground}"):
                        self.assertGreaterEqual(ratio(colours[front], colours[ground]), least)
            for either in self.pairs["either"]:
                best = max(ratio(colours[front], colours[ground]) for front, ground in either)
                self.assertGreaterEqual(best, leasts[1], f"{theme}: {either}")

    def test_a_theme_names_no_colour_that_is_not_of_the_others(self) -> None:
        for name, colours in self.themes.items():
            self.assertEqual(set(colours), set(self.colours), name)

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
        dealt = json.loads((UI / "people" / "peg-pictures.json").read_text())
        drawn = re.findall(r'<symbol id="([\w-]+)" viewBox="0 0 24 24"><', (UI / "people" / "pegs.svg").read_text())
        self.assertEqual(dealt, drawn)
        self.assertGreaterEqual(len(dealt), 100)
