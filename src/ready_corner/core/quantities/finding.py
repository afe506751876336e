"""What was found, refused or advised, as a value: its kind, the figures in it, the place it is about, the entries it rests on.

Code decides by kinds and figures and never looks into words: ``say`` turns a finding into a sentence, once, when it is shown.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

Figures = tuple[tuple[str, Any], ...]
_say: list[Callable[["Finding"], str]] = []


@dataclass(frozen=True)
class Finding:
    """One thing found. ``kind`` is stable and names its template in ``say.words``; ``figures`` by name, in mm, degrees, kg and turns, names of
    points, corners and marks, and findings within it; ``place``: the mark, point or adjuster it is about; ``entries``: numbers it rests on."""

    kind: str
    figures: Figures = ()
    place: str = ""
    entries: tuple[int, ...] = ()

    def figure(self, name: str) -> Any:
        """Return one of its figures by name."""
        return dict(self.figures)[name]

    @property
    def numbers(self) -> Mapping[str, float]:
        """The plain numbers among its figures."""
        return {n: float(v) for n, v in self.figures if isinstance(v, int | float) and not isinstance(v, bool)}

    def __str__(self) -> str:
        """Return it as it is said in millimetres, or by its kind where nothing is there to say it."""
        return _say[-1](self) if _say else f"{self.kind} {dict(self.figures)}"


def finding(kind: str, /, *, place: str = "", entries: tuple[int, ...] = (), **figures: Any) -> Finding:
    """Return a finding of a kind with its figures; lists in it are kept as tuples."""
    kept = ((n, tuple(v) if isinstance(v, list) else v) for n, v in figures.items())
    return Finding(kind, tuple(kept), place, entries)


def said_by(say: Callable[[Finding], str]) -> None:
    """Let findings be said by a function where they are printed."""
    _say[:] = [say]
