"""Sentences from templates: words with the names of figures in braces, said in the units of a car.

``{name}`` says a value as it is; ``{name:length}`` and the like as what it is (see ``SPECS``); ``{name?these|those}`` chooses words by
whether it is true, and ``{name=value?these|those}`` by what it is; words that are chosen may have figures of their own.
"""

import re
from collections.abc import Callable, Mapping
from typing import Any

from ready_corner.core.plan.corners import CORNER_WORDS
from ready_corner.core.plan.names import say_point
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.fields import typed_of
from ready_corner.core.quantities.notation import say_angle, say_length, say_mass, say_small_length

SPECS: Mapping[str, Callable[[Any, Plan], str]] = {
    "length": lambda v, plan: say_length(v, plan.units, denominator=0, unit=True),
    "size": lambda v, plan: say_length(abs(v), plan.units, denominator=0, unit=True),
    "small": lambda v, plan: say_small_length(abs(v), plan.units),
    "bare": lambda v, plan: say_length(v, plan.units, denominator=0),
    "angle": lambda v, plan: say_angle(abs(v)),
    "mass": lambda v, plan: say_mass(abs(v), plan.units),
    "corner": lambda v, plan: CORNER_WORDS[v],
    "Corner": lambda v, plan: CORNER_WORDS[v].capitalize(),
    "point": lambda v, plan: v.replace(".", " "),
    "Point": lambda v, plan: say_point(v),
    "list": lambda v, plan: ", ".join(v),
    "and": lambda v, plan: " and ".join(v),
    "typed": lambda v, plan: typed_of(v),
}  # fmt: skip
_FIELD = re.compile(r"(\w+)(?::(\w+))?")
_CHOICE = re.compile(r"(\w+)(?:=([^?]*))?\?(.*)", re.DOTALL)


def say(template: str, values: Mapping[str, Any], plan: Plan) -> str:
    """Return a template said with these values."""
    said, at = [], 0
    while (begin := template.find("{", at)) >= 0:
        end = _end(template, begin)
        said += [template[at:begin], _field(template[begin + 1 : end], values, plan)]
        at = end + 1
    return "".join([*said, template[at:]]).strip()


def _end(template: str, begin: int) -> int:
    """Return where the brace is closed that is opened at ``begin``."""
    depth = 0
    for i in range(begin, len(template)):
        depth += {"{": 1, "}": -1}.get(template[i], 0)
        if depth == 0:
            return i
    raise ValueError(f"a brace is not closed in “{template}”")


def _field(inside: str, values: Mapping[str, Any], plan: Plan) -> str:
    if choice := _CHOICE.fullmatch(inside):
        name, wanted, words = choice.groups()
        yes, no = _parted(words)
        chosen = yes if (bool(values[name]) if wanted is None else str(values[name]) == wanted) else no
        return _keep_space(chosen, values, plan)
    found = _FIELD.fullmatch(inside)
    if found is None:
        raise ValueError(f"“{{{inside}}}” is no field of a template")
    value = values[found[1]]
    return SPECS[found[2]](value, plan) if found[2] else str(value)


def _keep_space(words: str, values: Mapping[str, Any], plan: Plan) -> str:
    """Say chosen words, with the blanks about them as they are."""
    inner = words.strip(" ")
    if not inner:
        return words
    before, after = words.split(inner, 1)
    return f"{before}{say(inner, values, plan)}{after}"


def _parted(words: str) -> tuple[str, str]:
    """Part a choice at its bar, not at one within braces."""
    depth = 0
    for i, c in enumerate(words):
        depth += {"{": 1, "}": -1}.get(c, 0)
        if c == "|" and depth == 0:
            return words[:i], words[i + 1 :]
    return words, ""
