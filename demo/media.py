"""Recordings and documents for the demo's pockets, made here from nothing."""

from __future__ import annotations

import io
import math
import wave

from openpyxl import Workbook
from weasyprint import HTML

RATE = 8_000
"""Samples a second."""


def spoken(seconds: float = 2.0) -> bytes:
    """A short sound (WAV): three soft tones, since the demo has no voice."""
    target = io.BytesIO()
    with wave.open(target, "wb") as writing:
        writing.setnchannels(1)
        writing.setsampwidth(2)
        writing.setframerate(RATE)
        frames = bytearray()
        for at in range(int(RATE * seconds)):
            tone = (262, 330, 392)[int(3 * at / (RATE * seconds))]
            fade = math.sin(math.pi * ((3 * at / (RATE * seconds)) % 1))
            frames += int(9_000 * fade * math.sin(2 * math.pi * tone * at / RATE)).to_bytes(2, "little", signed=True)
        writing.writeframes(bytes(frames))
    return target.getvalue()


def report(title: str, paragraphs: list[str]) -> bytes:
    """A report of two pages (PDF)."""
    first, *rest = paragraphs
    body = f"<h1>{title}</h1><p>{first}</p><div style='break-before: page'></div>" + "".join(
        f"<p>{one}</p>" for one in rest
    )
    return bytes(HTML(string=f"<style>body{{font: 14pt/1.5 sans-serif}}</style>{body}").write_pdf())


def table(title: str, rows: list[list[str | int]]) -> bytes:
    """A workbook of one sheet (XLSX)."""
    made, target = Workbook(), io.BytesIO()
    sheet = made.active
    assert sheet is not None
    sheet.title = title
    for row in rows:
        sheet.append(row)
    made.save(target)
    return target.getvalue()
