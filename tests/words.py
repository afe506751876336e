"""Findings in words, for tests that hold a sentence; and the findings within one."""

from ready_corner.core.quantities.finding import Finding
from ready_corner.core.quantities.notation import Units
from ready_corner.core.say.template import say_finding


def said(found, units=Units()):  # noqa: B008 - units are frozen
    """Return a finding in words; of several each in its own; empty where there is none."""
    if isinstance(found, tuple | list):
        return tuple(said(f, units) for f in found)
    return "" if found is None else say_finding(found, units)


def kinds(found):
    """Return the kinds of a finding and of all within it."""
    if isinstance(found, Finding):
        return {found.kind}.union(*(kinds(v) for _, v in found.figures))
    return set().union(*map(kinds, found)) if isinstance(found, tuple) else set()


def figures(found, name):
    """Return every figure of a name in a finding and in all within it."""
    if isinstance(found, Finding):
        return [v for n, v in found.figures if n == name] + [x for _, v in found.figures for x in figures(v, name)]
    return [x for v in found for x in figures(v, name)] if isinstance(found, tuple) else []
