"""Receipts: the short code that proves a submission, such as ``K7-PLUM-42``.

Letters and digits that are easily confused (I, O, 0, 1) are left out, so that a child can read it
out. A code says nothing about the student; that it is given only once is the database's job.
"""

from __future__ import annotations

LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"
DIGITS = "23456789"
_WORDS = """
ACORN APPLE APRON BASIL BEAN BEET BERRY BREAD BROOM BULB CAPER CARROT CHARD CHIVE CLOVE CLOVER CORN
CRATE CRESS CRUMB DAISY DILL DOUGH ELDER FENNEL FERN FIG FLOUR FORK GARLIC GINGER GRAPE HAZEL HERB
HOE HONEY IVY JAM JUICE KALE KETTLE LADLE LEAF LEEK LEMON LENTIL LILAC LIME MALT MANGO MAPLE MELON
MINT MOSS MULCH NETTLE NUTMEG OAT OLIVE ONION PAPRIKA PARSLEY PEA PEACH PEAR PECAN PEPPER PETAL PLUM
POD POPPY POTATO PUMPKIN QUINCE RADISH RAKE RHUBARB RICE ROOT ROSE RYE SAGE SALAD SALT SEED SESAME
SHALLOT SHOOT SIEVE SLOE SOUP SPADE SPOON SPROUT SQUASH STEM SUGAR SWEDE TANSY THYME TOMATO TROWEL
TULIP TURNIP TWINE VANILLA VINE WALNUT WHEAT WHISK WILLOW YEAST YARROW
"""
WORDS = tuple(_WORDS.split())
SPACE = len(LETTERS) * len(DIGITS) * len(WORDS) * 90
"""How many codes there are."""


def receipt_code(number: int) -> str:
    """The code of a number from 0 to ``SPACE`` − 1; the caller draws the number at random."""
    if not 0 <= number < SPACE:
        raise ValueError(f"number must lie in 0..{SPACE - 1}")
    number, tail = divmod(number, 90)
    number, word = divmod(number, len(WORDS))
    letter, digit = divmod(number, len(DIGITS))
    return f"{LETTERS[letter]}{DIGITS[digit]}-{WORDS[word]}-{tail + 10}"
