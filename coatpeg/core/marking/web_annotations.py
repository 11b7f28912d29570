"""Annotations in the W3C Web Annotation Data Model (Recommendation of 23 February 2017,
https://www.w3.org/TR/annotation-model/), out and in.

Selectors are its standard ones: *TextQuoteSelector* refined by *TextPositionSelector*; *FragmentSelector* by Media
Fragments (``xywh=percent:``, ``t=``), RFC 7111 (``row=``, ``cell=``; the line of headings is row 1) and RFC 3778
(``page=``), a page refined by the frame on it; *SvgSelector* for ink. Decided here:

* Motivations: comment *commenting*, highlight *highlighting*, suggested wording *editing* (its wording a body of that
  purpose), ink *commenting* with an SvgSelector. Who said it is a *Person* by name, answers are annotations of their
  own with the motivation *replying*.
* What is read from elsewhere keeps the terms that are not ours and gives them out again; a selector that is not
  understood leaves the comment on what its source names, and is said. A source that is not of this submission is
  looked for by the words that are quoted; else the comment is on the whole.
* The pressure of ink goes into ``data-pressure``; ink from elsewhere has an even one.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any
from xml.etree import ElementTree

from coatpeg.core.errors import Invalid
from coatpeg.core.marking.annotations import COLOURS, SCALE, Kind, Part, Spot, Stroke, Surface, Surfaces, Target
from coatpeg.core.marking.quotes import Quote, find

CONTEXT = "http://www.w3.org/ns/anno.jsonld"
MEDIA = "http://www.w3.org/TR/media-frags/"
TABLE = "http://tools.ietf.org/rfc/rfc7111"
PAGES = "http://tools.ietf.org/rfc/rfc3778"
SVG = "http://www.w3.org/2000/svg"
MOST = 5_000
"""Annotations of one file."""
HEX = {"rust": "#9c3d10", "sea": "#0b5e6b", "plum": "#6b2a7a"}
"""The colours of ink."""
_OURS = frozenset(
    {"@context", "id", "type", "motivation", "created", "modified", "creator", "body", "target", "bodyValue"}
)
_SOURCE = re.compile(r"urn:coat-peg:submission:\d+(?::pocket:(\d+)(?::evidence:(\d+)(?::(text|artefact))?)?)?\Z")


@dataclass(frozen=True, slots=True)
class Said:
    """An annotation, as it goes out and as it was read."""

    kind: Kind
    target: Target
    text: str = ""
    wording: str | None = None
    strokes: tuple[Stroke, ...] = ()
    colour: str = ""
    who: str = ""
    at: datetime = datetime(1970, 1, 1, tzinfo=UTC)
    changed: datetime | None = None
    id: str = ""
    answers: tuple[tuple[str, datetime, str], ...] = ()
    """Who, when, what."""
    voice: str = ""
    """Address of a recording."""
    foreign: Mapping[str, Any] = field(default_factory=dict)
    """Terms of a file from elsewhere that are not ours."""


def source_of(submission: int, target: Target) -> str:
    """The IRI of what an annotation is on."""
    named = [f"urn:coat-peg:submission:{submission}"]
    if target.pocket is not None:
        named.append(f"pocket:{target.pocket}")
    if target.evidence is not None:
        named.append(f"evidence:{target.evidence}")
        if target.part is not None:
            named.append(target.part.value)
    return ":".join(named)


def collection(submission: int, title: str, said: Sequence[Said], surfaces: Surfaces) -> dict[str, Any]:
    """An AnnotationCollection with its one page."""
    items = [one for of in said for one in _with_answers(submission, of, surfaces)]
    of = f"urn:coat-peg:submission:{submission}:annotations"
    return {
        "@context": CONTEXT,
        "id": of,
        "type": "AnnotationCollection",
        "label": title,
        "total": len(items),
        "first": {"id": f"{of}:1", "type": "AnnotationPage", "startIndex": 0, "partOf": of, "items": items},
    }


def _with_answers(submission: int, said: Said, surfaces: Surfaces) -> Iterator[dict[str, Any]]:
    yield annotation(submission, said, surfaces)
    for number, (who, at, text) in enumerate(said.answers, 1):
        yield {
            "id": f"{said.id}:answer:{number}",
            "type": "Annotation",
            "motivation": "replying",
            "creator": {"type": "Person", "name": who},
            "created": _moment(at),
            "body": [_words(text, "replying")],
            "target": said.id,
        }


def annotation(submission: int, said: Said, surfaces: Surfaces) -> dict[str, Any]:
    """One annotation."""
    motivation = {Kind.HIGHLIGHT: "highlighting", Kind.SUGGESTION: "editing"}.get(said.kind, "commenting")
    body: list[dict[str, Any]] = []
    if said.wording is not None:
        body.append(_words(said.wording, "editing"))
    if said.text:
        body.append(_words(said.text, "commenting"))
    if said.voice:
        body.append({"id": said.voice, "type": "Sound", "purpose": "commenting"})
    selector = _selector(said, surfaces)
    source = source_of(submission, said.target)
    return {
        **said.foreign,
        "id": said.id,
        "type": "Annotation",
        "motivation": motivation,
        "creator": {"type": "Person", "name": said.who},
        "created": _moment(said.at),
        **({"modified": _moment(said.changed)} if said.changed else {}),
        **({"body": body} if body else {}),
        "target": {"type": "SpecificResource", "source": source, "selector": selector} if selector else source,
    }


def _moment(at: datetime) -> str:
    return at.astimezone(UTC).strftime("%Y-%m-%dT%H:%M:%SZ")


def _words(text: str, purpose: str) -> dict[str, Any]:
    return {"type": "TextualBody", "value": text, "format": "text/plain", "purpose": purpose}


def _fragment(value: str, by: str, refined: dict[str, Any] | None = None) -> dict[str, Any]:
    return {
        "type": "FragmentSelector",
        "conformsTo": by,
        "value": value,
        **({"refinedBy": refined} if refined else {}),
    }


def _selector(said: Said, surfaces: Surfaces) -> dict[str, Any] | None:
    target = said.target
    if target.words is not None:
        quote = target.words
        return {
            "type": "TextQuoteSelector",
            "exact": quote.exact,
            "prefix": quote.prefix,
            "suffix": quote.suffix,
            "refinedBy": {"type": "TextPositionSelector", "start": quote.start, "end": quote.end},
        }
    if target.row is not None and target.pocket is not None:
        return _row_selector(target, surfaces[target.pocket, None, None])
    if target.at is not None:
        until = f",{_short(target.until)}" if target.until is not None else ""
        return _fragment(f"t={_short(target.at)}{until}", MEDIA)
    inner = {"type": "SvgSelector", "value": svg(said.strokes)} if said.strokes else None
    if target.spot is not None:
        one = target.spot
        inner = _fragment(
            "xywh=percent:" + ",".join(_short(at * 100 / SCALE) for at in (one.x, one.y, one.w, one.h)), MEDIA
        )
    return _fragment(f"page={target.page}", PAGES, inner) if target.page is not None else inner


def _row_selector(target: Target, log: Surface) -> dict[str, Any]:
    assert log.rows is not None
    assert target.row is not None
    line = log.rows.index(target.row) + 2
    if target.column is None:
        return _fragment(f"row={line}", TABLE)
    return _fragment(f"cell={line},{log.columns.index(target.column) + 1}", TABLE)


def _short(number: float) -> str:
    return f"{number:.4f}".rstrip("0").rstrip(".")


def svg(strokes: Iterable[Stroke]) -> str:
    """Ink as SVG, on a square of ten thousand that is stretched over what it lies on."""
    lines = []
    for one in strokes:
        points = " ".join(f"{x},{y}" for x, y in zip(one.points[::3], one.points[1::3], strict=True))
        pressure = " ".join(str(each) for each in one.points[2::3])
        lines.append(
            f'<polyline points="{points}" fill="none" stroke="{HEX[one.colour]}" stroke-width="{one.width}" '
            f'stroke-linecap="round" stroke-linejoin="round" data-pressure="{pressure}"/>'
        )
    return f'<svg xmlns="{SVG}" viewBox="0 0 {SCALE} {SCALE}" preserveAspectRatio="none">{"".join(lines)}</svg>'


@dataclass(frozen=True, slots=True)
class Read:
    """What a file holds: what was understood, and what of it was not, in words."""

    said: tuple[Said, ...]
    notes: tuple[str, ...]


def read(document: Any, surfaces: Surfaces) -> Read:
    """The annotations of a parsed JSON-LD file; ``Invalid`` where it holds none at all."""
    items = [one for one in _items(document) if isinstance(one, dict)]
    if not items:
        raise Invalid(
            "There is no annotation in this file.", where="file", fix="Choose a Web Annotation file (JSON-LD)."
        )
    if len(items) > MOST:
        raise Invalid(f"This file holds {len(items)} annotations; {MOST} is the most.", where="file", fix="Divide it.")
    said, notes = [], []
    for number, one in enumerate(items, 1):
        if "replying" in _list(one.get("motivation")):
            notes.append(f"Annotation {number} is an answer: it was left out.")
            continue
        made, why = _one(one, surfaces)
        notes += [f"Annotation {number}: {each}" for each in why]
        if made is not None:
            said.append(made)
    return Read(tuple(said), tuple(notes))


def _list(value: Any) -> list[Any]:
    return value if isinstance(value, list) else [] if value is None else [value]


def _items(document: Any) -> list[Any]:
    if isinstance(document, list):
        return document
    if not isinstance(document, dict):
        return []
    if "items" in document:
        return _list(document["items"])
    if isinstance(document.get("first"), dict):
        return _list(document["first"].get("items"))
    return [document] if "target" in document else []


def _one(data: dict[str, Any], surfaces: Surfaces) -> tuple[Said | None, list[str]]:
    """One annotation, and what of it was not understood."""
    notes: list[str] = []
    texts = _texts(data, notes)
    target = _list(data.get("target"))
    if len(target) != 1:
        notes.append("it has several targets; the first is taken." if target else "it has no target.")
    source, selectors = _specific(target[0] if target else "")
    place, strokes = _place(source, selectors, surfaces, notes)
    wording = next((text for purpose, text in texts if purpose == "editing"), None)
    text = "\n".join(text for purpose, text in texts if purpose != "editing").strip()
    if wording is not None and place.words is None:
        text, wording = "\n".join(one for one in (text, wording) if one), None
    kind = _kind(data, place, strokes, text, wording)
    if kind is Kind.COMMENT and not text:
        return None, [*notes, "nothing is said in it: it was left out."]
    foreign = {key: value for key, value in data.items() if key not in _OURS}
    return Said(kind, place, text, wording, strokes, foreign=foreign), notes


def _kind(data: dict[str, Any], place: Target, strokes: tuple[Stroke, ...], text: str, wording: str | None) -> Kind:
    if wording is not None:
        return Kind.SUGGESTION
    if strokes:
        return Kind.INK
    highlights = "highlighting" in _list(data.get("motivation")) or not text
    return Kind.HIGHLIGHT if highlights and place.words is not None else Kind.COMMENT


def _texts(data: dict[str, Any], notes: list[str]) -> list[tuple[str, str]]:
    """The texts of its bodies, each with its purpose; a text with markup loses it."""
    found = [("", data["bodyValue"])] if isinstance(data.get("bodyValue"), str) else []
    for body in _list(data.get("body")):
        one = {"value": body} if isinstance(body, str) else body
        if isinstance(one, dict) and isinstance(one.get("value"), str):
            plain = "html" in str(one.get("format", ""))
            text = re.sub(r"<[^>]*>", "", one["value"]) if plain else one["value"]
            purpose = next((str(each) for each in _list(one.get("purpose"))), "")
            found.append((purpose, text))
        else:
            notes.append("a body that is not text was left out.")
    return found


def _specific(target: Any) -> tuple[str, list[dict[str, Any]]]:
    """The source, and its selectors with those that refine them, outermost first."""
    if not isinstance(target, dict):
        return str(target), []
    chosen: list[dict[str, Any]] = []
    waiting = _list(target.get("selector"))
    while waiting and len(chosen) < 50:
        one = waiting.pop(0)
        if isinstance(one, dict):
            chosen.append(one)
            waiting += _list(one.get("refinedBy"))
    source = target.get("source", target.get("id", ""))
    return str(source.get("id", "") if isinstance(source, dict) else source), chosen


_Key = tuple[int | None, int | None, Part | None]


def _place(
    source: str, selectors: list[dict[str, Any]], surfaces: Surfaces, notes: list[str]
) -> tuple[Target, tuple[Stroke, ...]]:
    named = _SOURCE.match(source)
    quote = next((one for one in (_quote(each) for each in selectors) if one), None)
    key = _known(named, surfaces)
    if key[0] is None and quote is not None:
        key = next((one for one, at in surfaces.items() if at.text and _exactly(at.text, quote)), key)
    if key[0] is None:
        if selectors or not named:
            notes.append("what it is on is not in this submission: it is on the whole.")
        return Target(), ()
    surface = surfaces.get((key[0], key[1], key[2]), Surface())
    if surface.text is not None and quote is not None and _exactly(surface.text, quote):
        return Target(*key, words=quote), ()
    fields, strokes = _selected(selectors, surface, notes)
    return Target(*key, **fields), strokes


def _known(named: re.Match[str] | None, surfaces: Surfaces) -> _Key:
    """What a source names in this submission; nothing where it is not in it."""
    if named is None or named[1] is None:
        return None, None, None
    pocket, evidence, part = int(named[1]), named[2] and int(named[2]), named[3] and Part(named[3])
    if (pocket, evidence or None, part or None) in surfaces:
        return pocket, evidence or None, part or None
    if evidence and any(one[:2] == (pocket, evidence) for one in surfaces):
        return pocket, evidence, None
    return (pocket, None, None) if any(one[0] == pocket for one in surfaces) else (None, None, None)


def _selected(
    selectors: list[dict[str, Any]], surface: Surface, notes: list[str]
) -> tuple[dict[str, Any], tuple[Stroke, ...]]:
    """The place that selectors name on a surface; what does not fit it is left out and said."""
    fields: dict[str, Any] = {}
    strokes: tuple[Stroke, ...] = ()
    for one in selectors:
        found = _fields(str(one.get("value", "")), surface) if one.get("type") == "FragmentSelector" else {}
        drawn = _strokes(str(one.get("value", ""))) if one.get("type") == "SvgSelector" and surface.drawn else ()
        if not found and not drawn:
            notes.append(f"a selector ({str(one.get('type', 'of no type'))[:40]}) was not understood.")
        fields, strokes = fields | found, drawn or strokes
    return fields, strokes


def _exactly(text: str, quote: Quote) -> bool:
    found = find(text, quote)
    return found is not None and not found.changed


def _quote(selector: dict[str, Any]) -> Quote | None:
    if selector.get("type") != "TextQuoteSelector" or not isinstance(selector.get("exact"), str):
        return None
    return Quote(selector["exact"], str(selector.get("prefix", "")), str(selector.get("suffix", "")))


_NUMBER = r"(\d{1,9}(?:\.\d{1,9})?)"
_PERCENT = re.compile(rf"xywh=percent:{_NUMBER},{_NUMBER},{_NUMBER},{_NUMBER}\Z")
_TIME = re.compile(rf"t=(?:npt:)?{_NUMBER}(?:,{_NUMBER})?\Z")
_PAGE = re.compile(r"page=(\d{1,4})\Z")
_CELL = re.compile(r"(?:row=(\d{1,6})|cell=(\d{1,6}),(\d{1,3}))\Z")


def _fields(value: str, surface: Surface) -> dict[str, Any]:
    """What a fragment says of a place on this surface; nothing where it does not fit."""
    if surface.drawn and (found := _PERCENT.match(value)):
        x, y, w, h = (round(float(one) * SCALE / 100) for one in found.groups())
        return {"spot": Spot(x, y, w, h)} if x + w <= SCALE and y + h <= SCALE else {}
    if surface.drawn and (found := _PAGE.match(value)):
        return {"page": max(1, int(found[1]))}
    if surface.runs and (found := _TIME.match(value)):
        at, until = float(found[1]), float(found[2] or 0)
        return {"at": at, **({"until": until} if until >= at and found[2] else {})}
    if surface.rows is not None and (found := _CELL.match(value)):
        return _cell(int(found[1] or found[2]) - 2, int(found[3] or 0) - 1, surface)
    return {}


def _cell(line: int, column: int, log: Surface) -> dict[str, Any]:
    assert log.rows is not None
    if not 0 <= line < len(log.rows):
        return {}
    return {"row": log.rows[line], **({"column": log.columns[column]} if 0 <= column < len(log.columns) else {})}


def _strokes(value: str) -> tuple[Stroke, ...]:
    """The polylines of an SVG that was made by `svg`, or by any that has a square of ten thousand."""
    if "<!" in value:
        return ()
    try:
        root = ElementTree.fromstring(value)
    except ElementTree.ParseError:
        return ()
    named = {colour: name for name, colour in HEX.items()}
    made = []
    for one in root.iter(f"{{{SVG}}}polyline"):
        numbers = [round(float(each)) for each in re.findall(r"-?\d+(?:\.\d+)?", one.get("points", ""))]
        pairs = list(zip(numbers[::2], numbers[1::2], strict=False))
        pressures = [int(each) for each in re.findall(r"\d+", one.get("data-pressure", ""))]
        even = pressures if len(pressures) == len(pairs) else [50] * len(pairs)
        points = tuple(at for (x, y), by in zip(pairs, even, strict=True) for at in (_in(x), _in(y), min(by, 100)))
        width = re.match(r"\d+", one.get("stroke-width", "")) or re.match(r"\d+", "40")
        assert width is not None
        if points:
            made.append(
                Stroke(named.get(one.get("stroke", ""), COLOURS[0]), min(max(1, int(width[0])), SCALE // 10), points)
            )
    return tuple(made)


def _in(at: int) -> int:
    return min(max(at, 0), SCALE)
