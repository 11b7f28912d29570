"""One pocket from a line of plain words: ``Q1: 1 photo, reflection 2-3 sentences``; ``Reading log: date, title``.

Decided here: the name ends at the first colon (or dash with a space on both sides) that something follows; what follows
is read part by part, and what is no wish becomes the pocket's directions, so that nothing is lost. A question is a part
of the name ("Q1: What does a seed need?"). Where nothing is said of a kind, it is that of the pocket before, a log
only where the name says so too. "Together" needs who fills it (groups, a set of them by its name, a period, the class);
"each their own" says that what is asked is asked of each one's own part of it. "About 100 words" is from a tenth fewer
to a tenth more (common practice).
"""

from __future__ import annotations

import html
import re
from dataclasses import dataclass, field, replace

from coatpeg.core.outlines.filling import Company, PocketKind, Shared
from coatpeg.core.outlines.plan import PocketPlan
from coatpeg.core.outlines.typed.headings import read_columns, split_headings
from coatpeg.core.portfolios.log_columns import Column, ColumnType, LogPlan
from coatpeg.core.portfolios.texts import Length, Measure

_NAME = re.compile(r"^(?P<name>.*?\S)(?::\s+|:$|\s[\u2013\u2014-]\s|\t)(?P<rest>.*)$")
_LOG_NAME = re.compile(r"\b(?:log|logbook|log book)\b", re.IGNORECASE)
_LOG_SAID = re.compile(r"^(?:a )?(?:log|table)(?: of| with|:)?\s*", re.IGNORECASE)
_DIARY = re.compile(r"\b(?:diary|journal|record|register|tracker)\b", re.IGNORECASE)

_NUMBERS = {
    word: number
    for number, words in enumerate(
        ("no none", "a an one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")
    )
    for word in words.split()
}
_COUNT = rf"(?P<count>\d{{1,4}}|{'|'.join(_NUMBERS)})"
_THINGS: tuple[tuple[tuple[str, ...], str], ...] = (
    (("picture",), r"photos?|photographs?|pictures?|drawings?|images?|scans?|sketch(?:es)?"),
    (("recording",), r"recordings?|videos?|films?|sounds?|podcasts?|audio"),
    (("file",), r"files?|documents?|slides?|presentations?|posters?"),
    (("link",), r"links?|web ?sites?|web ?pages?"),
    ((), r"artefacts?|things?|works?|pieces?(?: of (?:work|evidence))?|items?|examples?|samples?"),
)
_THING = [(takes, re.compile(rf"^(?:{_COUNT}\s+)?(?:{words})$", re.IGNORECASE)) for takes, words in _THINGS]
_ROWS = re.compile(rf"^(?:at least )?{_COUNT}\s+(?:rows?|entries|entry)(?P<week>\s+(?:a|each|every|per) week)?$", re.I)
_LENGTH = re.compile(
    r"\b(?P<how>at least|from|min(?:imum)?(?: of)?|up to|at most|max(?:imum)?(?: of)?|about|around|roughly|of)?\s*"
    rf"(?P<least>\d{{1,4}}|{'|'.join(word for word in _NUMBERS if word not in ('a', 'no', 'none'))})"
    r"(?:\s*(?:\u2013|\u2014|-|to)\s*(?P<most>\d{1,4}))?\s*(?P<measure>words?|sentences?)\b",
    re.IGNORECASE,
)
_REFLECTION = re.compile(r"^(?:(?:a|with a?|one|short|written)\s+)*reflections?(?: on each(?: of them)?)?$", re.I)
_NO_REFLECTION = re.compile(r"^(?:no|without(?: a)?) reflections?$", re.IGNORECASE)
_PAGE = re.compile(r"^(?:(?:a|an|one|short|written)\s+)*(?:page|text|essay|letter|paragraph|writing|write)$", re.I)
_OPTIONAL = re.compile(r"^(?:optional|not counted|does not count|extra|if you like|voluntary)$", re.IGNORECASE)
_EACH = re.compile(r"^(?:for |one )?(?:each|every|per) question$", re.IGNORECASE)
_SPOKEN = re.compile(r"^(?:(?:may be|can be|or) )?(?:spoken|said|recorded)(?: instead)?$", re.IGNORECASE)
_TOGETHER = re.compile(
    r"^(?:filled |shared |written )?(?:together )?(?:by|in|as|with|per|for)?\s*(?:(?:a|the|each|every|all|whole)\s+)*"
    r"(?P<who>class|periods?|groups?)(?:\s+(?:of|in)\s+(?P<set>.+?))?(?:\s+(?P<after>together))?$",
    re.IGNORECASE,
)
_OWN_PART = re.compile(
    r"^(?:each|everyone|everybody)(?: one)?(?:'s|\u2019s| has| with)?(?: their| an?)? own(?: part)?$", re.I
)
_APART = re.compile(r"\s*[,;+\u00b7]\s*")
_AND = re.compile(r"\s+(?:and|with|plus)\s+", re.IGNORECASE)

ENTRY = (Column("c1", "Date", ColumnType.DATE), Column("c2", "What I did", ColumnType.LONG_TEXT))
"""The columns of a log that says none."""


@dataclass
class _Said:
    """What was understood of a line so far."""

    kind: PocketKind | None = None
    artefacts: int | None = None
    takes: set[str] = field(default_factory=set)
    any_thing: bool = False
    reflection: bool | None = None
    length: Length | None = None
    rows: int = 0
    each_week: bool = False
    counts: bool = True
    each_question: bool = False
    spoken: bool = False
    company: Company | None = None
    own_part: bool = False
    rest: list[str] = field(default_factory=list)

    @property
    def wishes(self) -> bool:
        """Whether it says what is wanted."""
        return any((self.kind, self.artefacts, self.reflection is not None, self.length, self.rows))


def split_name(line: str) -> tuple[str, str]:
    """The name of a pocket and what is said of it, in one line."""
    found = _NAME.match(line.strip())
    if found is None:
        return line.strip(), ""
    name, rest = found.group("name").strip(), found.group("rest").strip()
    if rest.endswith("?") and not is_log(name, rest):
        return line.strip(), ""
    return name, rest


def is_log(name: str, rest: str) -> bool:
    """Whether a line lays out a log: it says so, or it is a diary with headings, a date among them."""
    if _LOG_NAME.search(name) or _LOG_SAID.match(rest):
        return True
    columns = read_columns(rest)
    return bool(_DIARY.search(name)) and len(columns) > 1 and any(one.type is ColumnType.DATE for one in columns)


def read_pocket(line: str, before: PocketPlan) -> PocketPlan:
    """The pocket that a line names, not checked; ``before`` gives its kind (a log's columns) where none is said."""
    name, rest = split_name(line)
    if is_log(name, rest):
        return _log(name, _LOG_SAID.sub("", rest), before)
    said = _read(rest)
    return _plan(name, said, before)


def _log(name: str, rest: str, before: PocketPlan) -> PocketPlan:
    said, headings = _Said(), []
    for part in split_headings(rest):
        if not _take_row(part, said) and not _take_small(part, said):
            headings.append(part)
    columns = read_columns("; ".join(headings)) or before.log.columns or ENTRY
    plan = PocketPlan(
        name,
        PocketKind.LOG,
        rows=0 if said.each_week else said.rows,
        rows_per_week=said.rows if said.each_week else 0,
        counts=said.counts,
        each_question=said.each_question,
        log=LogPlan(columns),
    )
    return _together(plan, said)


def _read(rest: str) -> _Said:
    said = _Said()
    for part in _APART.split(rest):
        bare = part.strip().rstrip(".").strip()
        if bare and not _take(bare, said) and not _take_all(_AND.split(bare), said):
            said.rest.append(part.strip())
    # A sentence that merely has a comma or a number in it is told as it was written, not in pieces.
    if said.rest and not said.wishes:
        small = ("counts", "each_question", "spoken", "company", "own_part")
        return _Said(rest=[rest.strip()], **{name: getattr(said, name) for name in small})
    return said


def _take_all(parts: list[str], said: _Said) -> bool:
    """Understand "1 photo and a reflection"; False (and nothing taken) where one of them is no wish."""
    tried = replace(said, takes=set(said.takes), rest=list(said.rest))
    if len(parts) < 2 or not all(_take(one, tried) for one in parts):
        return False
    for name in said.__dataclass_fields__:
        setattr(said, name, getattr(tried, name))
    return True


def _take(part: str, said: _Said) -> bool:
    """Understand one part of a line; False where it is no wish."""
    if _take_small(part, said) or _take_row(part, said):
        return True
    if _NO_REFLECTION.match(part):
        said.reflection = False
        return True
    length, bare = _length(part)
    if length is not None:
        told = re.match(r"write\s", bare, re.IGNORECASE) is not None
        if bare and not (told or _REFLECTION.match(bare) or _PAGE.match(bare)):
            return False
        said.length = length
        if told:
            said.rest.append(part)
            return True
        if not bare:
            return True
    if _REFLECTION.match(bare):
        said.reflection = True
        return True
    if _PAGE.match(bare):
        said.kind = PocketKind.PAGE
        return True
    return _take_thing(part, said)


def _take_small(part: str, said: _Said) -> bool:
    simple = ((_OPTIONAL, "counts"), (_EACH, "each_question"), (_SPOKEN, "spoken"), (_OWN_PART, "own_part"))
    for words, name in simple:
        if words.match(part):
            setattr(said, name, name != "counts")
            return True
    return _take_company(part, said)


def _take_company(part: str, said: _Said) -> bool:
    """Who fills it together, where a part says so by that word."""
    found = _TOGETHER.match(part)
    if found is None or not re.search(r"\b(?:together|shared)\b", part, re.IGNORECASE):
        return False
    shared = {"c": Shared.CLASS, "p": Shared.PERIOD, "g": Shared.GROUP}[found.group("who")[0].lower()]
    said.company = Company(shared, (found.group("set") or "") if shared is Shared.GROUP else "")
    return True


def _together(plan: PocketPlan, said: _Said) -> PocketPlan:
    """The same, filled by those who are said to."""
    if said.company is None:
        return plan
    return replace(plan, shared=said.company.shared, group_set=said.company.group_set, own_part=said.own_part)


def _take_row(part: str, said: _Said) -> bool:
    found = _ROWS.match(part)
    if found:
        said.rows, said.each_week = _number(found.group("count")), bool(found.group("week"))
    return found is not None


def _take_thing(part: str, said: _Said) -> bool:
    for takes, words in _THING:
        if found := words.match(part):
            said.artefacts = (said.artefacts or 0) + _number(found.group("count") or "one")
            said.takes |= set(takes)
            said.any_thing = said.any_thing or not takes
            return True
    return False


def _length(part: str) -> tuple[Length | None, str]:
    """An asked length and what is left of the part beside it."""
    found = _LENGTH.search(part)
    if found is None:
        return None, part
    measure = Measure.WORDS if found.group("measure").lower().startswith("w") else Measure.SENTENCES
    least, how = _number(found.group("least")), (found.group("how") or "").lower()
    most = int(found.group("most")) if found.group("most") else None
    if how.startswith(("up", "at most", "max")):
        least, most = 1, least
    elif how in ("about", "around", "roughly") and most is None:
        least, most = max(1, round(least * 0.9)), round(least * 1.1)
    bare = f"{part[: found.start()]} {part[found.end() :]}"
    return Length(measure, least, most), " ".join(re.sub(r"[()]|\bof\b|\bin\b", " ", bare).split())


def _number(word: str) -> int:
    return _NUMBERS[word.lower()] if word.lower() in _NUMBERS else int(word)


def _plan(name: str, said: _Said, before: PocketPlan) -> PocketPlan:
    plan = PocketPlan(
        name,
        _kind(said, before),
        directions=as_directions([", ".join(said.rest)] if said.rest else []),
        counts=said.counts,
        each_question=said.each_question,
        spoken=said.spoken,
        length=said.length,
    )
    plan = _together(plan, said)
    if plan.kind is PocketKind.PAGE:
        return plan
    if plan.kind is PocketKind.LINKS:
        return replace(plan, artefacts=1 if said.artefacts is None else said.artefacts, length=None)
    takes = () if said.any_thing else tuple(sorted(said.takes))
    # Nothing said at all is what a new pocket asks for; said without a reflection, none is wanted.
    reflection = bool(said.reflection) if said.wishes else True
    if said.length is not None and said.reflection is None:
        reflection = True
    artefacts = 1 if said.artefacts is None else said.artefacts
    return replace(plan, artefacts=artefacts, takes=takes, reflection_on_each=reflection)


def _kind(said: _Said, before: PocketPlan) -> PocketKind:
    """What a pocket is by what is wanted in it, else the kind of the one before."""
    if said.kind is not None:
        return said.kind
    if said.artefacts is not None or said.reflection:
        links = said.takes == {"link"} and not said.any_thing and not said.reflection and said.length is None
        return PocketKind.LINKS if links else PocketKind.EVIDENCE
    if said.length is not None:
        return PocketKind.PAGE
    return PocketKind.EVIDENCE if before.kind is PocketKind.LOG else before.kind


def as_directions(lines: list[str]) -> str:
    """Plain lines as directions (rich text)."""
    return "".join(f"<p>{html.escape(line, quote=False)}</p>" for line in lines)
