"""A page of ours as PDF, laid out by WeasyPrint without asking any host."""

from __future__ import annotations

from pathlib import Path

from django.conf import settings

FAMILY = '"Atkinson Hyperlegible Next", "DejaVu Sans", "WenQuanYi Micro Hei", sans-serif'
"""The interface's own face, then those that have what it lacks."""


def printed(text: str) -> bytes:
    """A page of ours, with every name in it escaped, as PDF.

    The printer is loaded when the first page is printed: it is a second of every start.
    """
    from weasyprint import HTML  # noqa: PLC0415
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415
    from weasyprint.urls import URLFetcher  # noqa: PLC0415

    # Every name is escaped, so what is fetched is ours: the codes in the text and the font files.
    ours = URLFetcher(allowed_protocols=("data", "file"))
    fonts = FontConfiguration()
    try:
        made: bytes = HTML(string=text, url_fetcher=ours).write_pdf(font_config=fonts)
    finally:
        fonts.__del__()  # its folder of fonts goes now, not whenever the memory is looked through
    return made


def face() -> str:
    """The rules that bring the interface's own face, where the front end is built."""
    found = sorted(Path(settings.STATIC_ROOT).glob("atkinson-hyperlegible-next-latin*-wght-normal-*.woff2"))
    return "".join(f'@font-face{{font-family:"Atkinson Hyperlegible Next";src:url("{one.as_uri()}")}}' for one in found)
