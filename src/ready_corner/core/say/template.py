"""Sentences from templates: words with the names of figures in braces, said in the units of a car.

``{name}`` says a value as it is, a finding in its own words; ``{name:length}`` and the like as what it is (see ``SPECS``, else as Python
formats it: ``{name:g}``); ``{name?these|those}`` chooses words by whether it is true, and ``{name=value?these|those}`` by what it is; words that
are chosen may have figures of their own. Lists say each of what is in them: ``{name:and}``, ``{name:list}``, ``{name:semi}``, ``{name:lines}``.
"""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from ready_corner.core.engines.linkage.named import say_rate
from ready_corner.core.plan.corners import CORNER_WORDS
from ready_corner.core.plan.marks import (
    MARK_KINDS,
    kind_of,
    say_mark,
    say_marks,
    say_need,
    say_size,
    say_uncertainty,
    say_value,
)
from ready_corner.core.quantities.fields import typed_of
from ready_corner.core.quantities.finding import Finding
from ready_corner.core.quantities.naming import short_point
from ready_corner.core.quantities.notation import (
    Units,
    echo,
    in_units,
    read,
    say_angle,
    say_exact,
    say_length,
    say_mass,
    say_small_length,
    say_turns,
)
from ready_corner.core.record.happenings import HAPPENING_WORDS
from ready_corner.core.record.readings import QUANTITIES, Reading, say_figure, say_reading, title_of
from ready_corner.core.say.words import LINES, WORDS

SPECS: Mapping[str, Callable[[Any, Units], str]] = {
    "length": lambda v, u: say_length(v, u, denominator=0, unit=True),
    "size": lambda v, u: say_length(abs(v), u, denominator=0, unit=True),
    "small": lambda v, u: say_small_length(abs(v), u),
    "bare": lambda v, u: say_length(v, u, denominator=0),
    "exact": say_exact,
    "len": lambda v, u: in_units(u)(float(v), 1),
    "len0": lambda v, u: in_units(u)(float(v), 0),
    "len2": lambda v, u: in_units(u)(float(v), 2),
    "angle": lambda v, u: say_angle(abs(v)),
    "degrees": lambda v, u: say_angle(v),
    "mass": lambda v, u: say_mass(abs(v), u),
    "turns": lambda v, u: say_turns(v),
    "corner": lambda v, u: CORNER_WORDS[v],
    "Corner": lambda v, u: CORNER_WORDS[v].capitalize(),
    "point": lambda v, u: short_point(v),
    "typed": lambda v, u: typed_of(v),
    "mark": lambda v, u: say_mark(v),
    "Mark": lambda v, u: _capital(say_mark(v)),
    "value": lambda v, u: say_value(v.mark, v.value, u, v.denominator),
    "much": lambda v, u: say_size(v.mark, v.value, u, v.denominator),
    "signed": lambda v, u: f"{'−' if v.value < 0 else '+'}{say_size(v.mark, v.value, u, v.denominator)}",
    "u": lambda v, u: say_uncertainty(v.mark, v.value, u),
    "need": lambda v, u: say_need(v.mark, v.value, u),
    "lower": lambda v, u: v.lower(),
    "Capital": lambda v, u: _capital(_plain(v, u)),
    "begun": lambda v, u: _begun(_plain(v, u)),
    "list": lambda v, u: ", ".join(_plain(x, u) for x in v),
    "and": lambda v, u: " and ".join(_plain(x, u) for x in v),
    "or": lambda v, u: " or ".join(f"“{x}”" for x in v),
    "with": lambda v, u: " with ".join(_plain(x, u) for x in v),
    "happening": lambda v, u: HAPPENING_WORDS[v],
    "reading": lambda v, u: say_figure(v[0], v[1], u),
    "plus": lambda v, u: " + ".join(_plain(x, u) for x in v),
    "places": lambda v, u: ", ".join(_begun(title_of(x)) for x in v),
    "begun_place": lambda v, u: _begun(title_of(v)),
    "upright": lambda v, u: say_angle(v, 0),
    "echo": lambda v, u: _said_back(v, u),  # noqa: PLW0108
    "angle3": lambda v, u: say_angle(v, 3),
    "rate": say_rate,
    "semi": lambda v, u: "; ".join(_plain(x, u) for x in v),
    "rows": lambda v, u: "\n".join(_plain(x, u) for x in v),
    "lines": lambda v, u: " ".join(said for x in v if (said := _plain(x, u))),
    "corners": lambda v, u: " and ".join(CORNER_WORDS[x] for x in v),
    "corner_list": lambda v, u: ", ".join(CORNER_WORDS[x] for x in v),
    "marks": lambda v, u: " and ".join(say_mark(x) for x in v),
    "mark_list": lambda v, u: say_marks(v),
    "marked": lambda v, u: ", ".join(f"{MARK_KINDS[kind_of(x.mark)].label} {say_value(x.mark, x.value, u, x.denominator)}" for x in v),
}  # fmt: skip
_FIELD = re.compile(r"(\w+)(?::([\w.+]+))?")
_CHOICE = re.compile(r"(\w+)(?:=([^?]*))?\?(.*)", re.DOTALL)


def say_finding(finding: Finding | str, units: Units) -> str:
    """Return a finding as a sentence in the units of a car; words pass as they are."""
    if isinstance(finding, str):
        return finding
    return say(WORDS[finding.kind], dict(finding.figures), units)


def in_mm(finding: Finding) -> str:
    """Return a finding as it is said in millimetres, for whoever prints it without knowing a car."""
    return say_finding(finding, Units())


def say_line(finding: Finding, units: Units) -> tuple[str, str]:
    """Return a finding that is a line of what and how much."""
    what, much = LINES[finding.kind]
    return say(what, dict(finding.figures), units), say(much, dict(finding.figures), units)


def _plain(value: Any, units: Units) -> str:
    """Return a value that needs no words of its own, or a finding in its."""
    return "" if value is None else say_finding(value, units) if isinstance(value, Finding) else str(value)


def _said_back(what: Reading, units: Units) -> str:
    """Return a reading as it is said back: as typed and in the car's unit where those differ."""
    kind = QUANTITIES[what.quantity].kind
    if what.typed and (figure := read(what.typed, kind, units)).foreign:
        return echo(figure, kind, units)
    return say_reading(units, what.quantity, what.value, what.denominator, what.typed)


def _begun(words: str) -> str:
    return f"{words[:1].lower()}{words[1:]}"


def _capital(words: str) -> str:
    return f"{words[:1].upper()}{words[1:]}"


def say(template: str, values: Mapping[str, Any], units: Units) -> str:
    """Return a template said with these values."""
    return _filled(_parsed(template), values, units)


@dataclass(frozen=True)
class _Field:
    """One value, as its spec says it."""

    name: str
    spec: str | None

    def said(self, values: Mapping[str, Any], units: Units) -> str:
        """Return it in words."""
        value = values[self.name]
        if not self.spec:
            return _plain(value, units)
        own = SPECS.get(self.spec)
        return own(value, units) if own else format(value, self.spec)


@dataclass(frozen=True)
class _Words:
    """Words of a choice, with the blanks about them."""

    before: str
    parts: "_Parts"
    after: str


@dataclass(frozen=True)
class _Choice:
    """Words that are said where a value is so, and others where it is not."""

    name: str
    wanted: str | None
    yes: _Words
    no: _Words

    def said(self, values: Mapping[str, Any], units: Units) -> str:
        """Return those that hold."""
        value = values[self.name]
        words = self.yes if (bool(value) if self.wanted is None else str(value) == self.wanted) else self.no
        return f"{words.before}{_filled(words.parts, values, units)}{words.after}"


_Parts = tuple[str | _Field | _Choice, ...]


def _filled(parts: _Parts, values: Mapping[str, Any], units: Units) -> str:
    return "".join([part if isinstance(part, str) else part.said(values, units) for part in parts]).strip()


@lru_cache(maxsize=8192)  # as many templates as there are words, and then some
def _parsed(template: str) -> _Parts:
    parts: list[str | _Field | _Choice] = []
    at = 0
    while (begin := template.find("{", at)) >= 0:
        end = _end(template, begin)
        parts += [template[at:begin], _field(template[begin + 1 : end])]
        at = end + 1
    return (*(p for p in parts if p), template[at:])


def _end(template: str, begin: int) -> int:
    """Return where the brace is closed that is opened at ``begin``."""
    depth = 0
    for i in range(begin, len(template)):
        depth += {"{": 1, "}": -1}.get(template[i], 0)
        if depth == 0:
            return i
    raise ValueError(f"a brace is not closed in “{template}”")


def _field(inside: str) -> _Field | _Choice:
    if choice := _CHOICE.fullmatch(inside):
        name, wanted, words = choice.groups()
        yes, no = _parted(words)
        return _Choice(name, wanted, _spaced(yes), _spaced(no))
    found = _FIELD.fullmatch(inside)
    if found is None:
        raise ValueError(f"“{{{inside}}}” is no field of a template")
    return _Field(found[1], found[2])


def _spaced(words: str) -> _Words:
    inner = words.strip(" ")
    if not inner:
        return _Words(words, (), "")
    before, after = words.split(inner, 1)
    return _Words(before, _parsed(inner), after)


def _parted(words: str) -> tuple[str, str]:
    """Part a choice at its bar, not at one within braces."""
    depth = 0
    for i, c in enumerate(words):
        depth += {"{": 1, "}": -1}.get(c, 0)
        if c == "|" and depth == 0:
            return words[:i], words[i + 1 :]
    return words, ""
