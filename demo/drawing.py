"""Pictures drawn by code: recipe cards, soil charts, seedling trays, log sheets, each different."""

from __future__ import annotations

import io
import random
from collections.abc import Callable

from PIL import Image, ImageDraw, ImageFont

SIZE = (840, 1080)
INK = (58, 46, 34)
CROPS = ("beans", "squash", "chard", "beetroot", "potatoes", "leeks", "carrots", "tomatoes", "kale", "onions")
DISHES = ("soup", "stew", "salad", "tart", "curry", "bake", "fritters", "broth", "risotto", "pie")
PAPERS = ((252, 248, 232), (247, 244, 238), (240, 246, 240), (250, 243, 236), (241, 245, 248))


def _font(size: int) -> ImageFont.FreeTypeFont | ImageFont.ImageFont:
    return ImageFont.load_default(size)


def _paper(dealer: random.Random, ruled: bool) -> tuple[Image.Image, ImageDraw.ImageDraw]:
    picture = Image.new("RGB", SIZE, dealer.choice(PAPERS))
    draw = ImageDraw.Draw(picture)
    if ruled:
        for y in range(150, SIZE[1], 54):
            draw.line((0, y, SIZE[0], y), fill=(226, 216, 186), width=2)
    return picture, draw


def recipe_card(dealer: random.Random) -> Image.Image:
    """A recipe scaled from one number of people to another, with a plate."""
    picture, draw = _paper(dealer, ruled=True)
    crop, other = dealer.sample(CROPS, 2)
    people, now = dealer.choice(((6, 4), (4, 6), (8, 4), (2, 4)))
    draw.text((70, 80), f"{crop.title()} & {other} {dealer.choice(DISHES)}", font=_font(50), fill=INK)
    draw.text((70, 160), f"serves {now} (card said {people})", font=_font(32), fill=INK)
    for line, (what, unit) in enumerate(((crop, "g"), (other, "g"), ("stock", "ml"), ("flour", "g"))):
        amount = dealer.randrange(6, 40) * 24
        scaled = amount * now / people
        draw.text(
            (70, 242 + 54 * line),
            f"{what} {amount} {unit} x {now}/{people} = {scaled:.0f} {unit}",
            font=_font(34),
            fill=INK,
        )
    x, y = 420 + dealer.randrange(-40, 40), 780
    draw.ellipse((x - 230, y - 230, x + 230, y + 230), fill="white", outline=(205, 184, 138), width=6)
    colours = ((199, 84, 62), (217, 164, 65), (122, 140, 48), (168, 84, 110), (226, 142, 60))
    base = dealer.choice(colours)
    draw.ellipse((x - 150, y - 110, x + 150, y + 110), fill=base)
    for _ in range(dealer.randrange(4, 9)):
        dx, dy, r = dealer.randrange(-110, 110), dealer.randrange(-70, 70), dealer.randrange(12, 30)
        draw.ellipse((x + dx - r, y + dy - r, x + dx + r, y + dy + r), fill=dealer.choice(colours))
    return picture


def soil_chart(dealer: random.Random) -> Image.Image:
    """A jar of soil that has settled in layers, with what was measured."""
    picture, draw = _paper(dealer, ruled=False)
    bed = dealer.randrange(1, 7)
    draw.text((70, 70), f"Soil test, bed {bed}", font=_font(54), fill=INK)
    draw.rounded_rectangle((110, 200, 410, 960), 40, fill=(228, 236, 240), outline=(120, 140, 150), width=6)
    y, shares = 955, [dealer.randrange(15, 45) for _ in range(3)]
    for share, colour, name in zip(
        shares, ((120, 84, 50), (176, 134, 84), (206, 178, 130)), ("sand", "silt", "clay"), strict=True
    ):
        height = share * 5
        draw.rectangle((114, y - height, 406, y), fill=colour)
        draw.text((450, y - height / 2 - 20), f"{name} {share} mm", font=_font(36), fill=INK)
        y -= height
    ph = dealer.randrange(55, 78) / 10
    draw.text((450, 240), f"pH {ph}", font=_font(54), fill=INK)
    for place in range(14):
        colour = (230 - place * 12, 80 + abs(7 - place) * 8, 60 + place * 11)
        draw.rectangle((450 + place * 24, 320, 472 + place * 24, 360), fill=colour)
    marker = 450 + int(ph * 24)
    draw.polygon(((marker, 366), (marker - 14, 394), (marker + 14, 394)), fill=INK)
    return picture


def seedling_tray(dealer: random.Random) -> Image.Image:
    """A tray seen from above: what came up and what did not."""
    picture, draw = _paper(dealer, ruled=False)
    draw.text((70, 70), f"{dealer.choice(CROPS).title()}, day {dealer.randrange(6, 16)}", font=_font(54), fill=INK)
    came_up = 0
    for row in range(6):
        for column in range(4):
            x, y = 90 + column * 170, 190 + row * 130
            draw.rounded_rectangle((x, y, x + 150, y + 112), 14, fill=(92, 66, 46))
            if dealer.random() < 0.72:
                came_up += 1
                height = dealer.randrange(24, 60)
                cx, cy = x + 75, y + 84
                draw.line((cx, cy, cx, cy - height), fill=(88, 140, 60), width=7)
                for side in (-1, 1):
                    leaf = (cx, cy - height, cx + side * 34, cy - height + 20)
                    draw.ellipse((min(leaf[0], leaf[2]), leaf[1], max(leaf[0], leaf[2]), leaf[3]), fill=(118, 168, 74))
    draw.text((70, 1000), f"{came_up} of 24 came up", font=_font(40), fill=INK)
    return picture


def log_sheet(dealer: random.Random) -> Image.Image:
    """A sheet of harvests: date, bed, crop, grams, and their sum."""
    picture, draw = _paper(dealer, ruled=True)
    draw.text((60, 70), "Crop log", font=_font(54), fill=INK)
    total, day = 0, dealer.randrange(1, 8)
    for place, title in enumerate(("day", "bed", "crop", "grams")):
        draw.text((60 + place * 190, 162), title, font=_font(32), fill=INK)
    for line in range(dealer.randrange(6, 12)):
        grams = dealer.randrange(4, 60) * 10
        total += grams
        cells = (f"{day}", f"{dealer.randrange(1, 7)}", dealer.choice(CROPS), f"{grams}")
        for place, text in enumerate(cells):
            draw.text((60 + place * 190, 216 + 54 * line), text, font=_font(32), fill=INK)
        day += dealer.randrange(1, 4)
    draw.line((60, 930, 780, 930), fill=INK, width=3)
    draw.text((60, 950), f"together {total} g", font=_font(40), fill=INK)
    return picture


DRAWINGS: dict[str, Callable[[random.Random], Image.Image]] = {
    "recipe": recipe_card,
    "soil": soil_chart,
    "seed": seedling_tray,
    "log": log_sheet,
}


def drawn(kind: str, seed: str) -> bytes:
    """A JPEG of one drawing; the same seed draws the same picture."""
    target = io.BytesIO()
    DRAWINGS[kind](random.Random(seed)).save(target, "JPEG", quality=85)
    return target.getvalue()
