"""Figures with their uncertainty, carried by named sources so that what two figures share is not counted twice.

Linear propagation after JCGM 100:2008, 5.1.2: each independent source contributes (sensitivity x standard uncertainty);
figures that draw on the same source are correlated through its name.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType

COVERAGE = 2.0  # U = 2u, the expanded uncertainty used throughout
# A figure that is off by a known amount which is not taken out lies inside U as often as one of that much u more (0.76 to 0.87 of it, for one to two of its own).
KNOWN_AS_U = 0.85


@dataclass(frozen=True)
class Measured:
    """A value and what each independent source contributes to its standard uncertainty, in the unit of the value.

    ``parts`` maps the name of a source to its signed contribution; ``u`` is their root sum of squares.
    """

    value: float
    parts: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))

    @property
    def u(self) -> float:
        """Combined standard uncertainty, in the unit of the value."""
        return math.hypot(*self.parts.values())

    @property
    def expanded(self) -> float:
        """Expanded uncertainty U = 2u, in the unit of the value."""
        return COVERAGE * self.u

    def covariance(self, other: "Measured") -> float:
        """Return the covariance with another figure, from the sources they share."""
        return sum(part * other.parts[name] for name, part in self.parts.items() if name in other.parts)


def propagate(value: float, inputs: Sequence[Measured], partials: Sequence[float]) -> Measured:
    """Return ``value`` with the uncertainty of its inputs, each weighted by its partial derivative.

    inputs and partials: same length; partials are d(value)/d(input). Source: JCGM 100:2008, formula (13).
    """
    parts: dict[str, float] = {}
    for figure, partial in zip(inputs, partials, strict=True):
        for name, part in figure.parts.items():
            parts[name] = parts.get(name, 0.0) + partial * part
    return Measured(value, parts)


def combine(inputs: Sequence[Measured], weights: Sequence[float], constant: float = 0.0) -> Measured:
    """Return the weighted sum of figures plus a constant; exact, being linear.

    Source: JCGM 100:2008, 5.1.2.
    """
    return propagate(constant + sum(w * m.value for m, w in zip(inputs, weights, strict=True)), inputs, weights)
