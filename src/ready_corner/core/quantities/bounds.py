"""Figures no car can have: without end, larger than a street, or so small that only rounding is left of them."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import fields, is_dataclass

LARGEST = 1e6  # mm, degrees, kg, N/mm, N/mm²; a kilometre, and more than the modulus of any metal
SMALLEST = 1e-30  # what is divided by it twice still has an end


def beyond(value: object, path: str = "") -> Iterator[tuple[str, float]]:
    """Yield every figure in frozen dataclasses, tuples and mappings that is beyond what can be reckoned with, with its dotted path."""
    if isinstance(value, bool | str) or value is None:
        return
    if isinstance(value, int | float):
        if not (math.isfinite(value) and abs(value) <= LARGEST and (value == 0 or abs(value) >= SMALLEST)):
            yield path, float(value)
    elif isinstance(value, Mapping):
        for key, part in value.items():
            yield from beyond(part, f"{path}.{key}" if path else str(key))
    elif isinstance(value, tuple | list):
        for i, part in enumerate(value):
            yield from beyond(part, f"{path}.{i}" if path else str(i))
    elif is_dataclass(value) and not isinstance(value, type):
        for part in fields(value):
            yield from beyond(getattr(value, part.name), f"{path}.{part.name}" if path else part.name)
