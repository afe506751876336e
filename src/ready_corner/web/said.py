"""Findings as the API gives them: as they are, and in words."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import fields, is_dataclass
from typing import Any

from pydantic import BaseModel

from ready_corner.core.quantities.finding import Finding
from ready_corner.core.quantities.notation import Units
from ready_corner.core.say.template import say_finding


class FindingView(BaseModel):
    """One finding: its kind, the place it is about, its figures by name (mm, degrees, kg, turns), and the entries it rests on."""

    kind: str
    place: str = ""
    figures: dict[str, Any] = {}
    entries: list[int] = []

    @classmethod
    def of(cls, finding: Finding) -> "FindingView":
        """Return a finding as it is sent."""
        figures = {name: _plain(value) for name, value in finding.figures}
        return cls(kind=finding.kind, place=finding.place, figures=figures, entries=list(finding.entries))


def _plain(value: Any) -> Any:
    if isinstance(value, Finding):
        return FindingView.of(value).model_dump()
    if isinstance(value, tuple):
        return [_plain(v) for v in value]
    if is_dataclass(value):
        return {f.name: _plain(getattr(value, f.name)) for f in fields(value)}
    return value


def said(finding: Finding | None, units: Units) -> str:
    """Return a finding in words; empty where there is none."""
    return "" if finding is None else say_finding(finding, units)


def all_said(findings: Iterable[Finding], units: Units) -> list[str]:
    """Return findings in words."""
    return [say_finding(f, units) for f in findings]


NOT_TOLD = {"how", "title", "findings", "entry"}  # how a thing is read, and what is behind words


def sentences(view: object) -> tuple[str, ...]:
    """Return every whole sentence of a view, or of several, in order, each once: what is told to whoever does not look at the page."""
    return tuple(dict.fromkeys(_sentences(view)))


def _sentences(view: object) -> Iterator[str]:
    if isinstance(view, BaseModel):
        for name in type(view).model_fields:
            if name not in NOT_TOLD:
                yield from _sentences(getattr(view, name))
    elif isinstance(view, str):
        if " " in view and view.endswith((".", "!", "?")):
            yield view
    elif isinstance(view, Mapping):
        yield from _sentences(tuple(view.values()))
    elif isinstance(view, Iterable):
        for one in view:
            yield from _sentences(one)


def as_found(**findings: Finding | None) -> Mapping[str, FindingView]:
    """Return the findings behind the words of a view, by the field that has the words."""
    return {name: FindingView.of(f) for name, f in findings.items() if f is not None}
