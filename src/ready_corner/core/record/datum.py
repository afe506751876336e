"""The datum that was chosen, with the plan's figures at its points."""

from collections.abc import Mapping

from ready_corner.core.engines.survey.datum import Datum
from ready_corner.core.plan.plan import Point, twin_of
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.record.jig_acts import MID_LINE, DatumChosen


def datum_of(chosen: DatumChosen, planned: Mapping[str, Point]) -> Datum:
    """Return a chosen datum with the plan's figures (mm) at its points, in the axes in which its line lies.

    Raises MeasuredError for a point the plan does not have, or one of a mid-line that has no partner on the other side.
    """
    partners = (twin_of(chosen.line[0]), twin_of(chosen.line[1])) if chosen.way == MID_LINE else None
    if partners and (alone := next((a for a, b in zip(chosen.line, partners, strict=True) if a == b), None)):
        raise MeasuredError(
            f"{alone.replace('.', ' ')} has no partner on the other side to halve the distance to.", path="line"
        )
    if missing := next((n for n in (*chosen.plane, *chosen.line, *(partners or ()), chosen.point) if n not in planned), None):
        raise MeasuredError(f"The plan has no point {missing.replace('.', ' ')} to take a datum from.", path="datum")
    z = [planned[n][2] for n in chosen.plane]
    bare = Datum(chosen.plane, chosen.line, chosen.point)
    across = partners is None and bare.lies_across(planned)
    if partners == (chosen.line[1], chosen.line[0]):
        a, b = (planned[n] for n in chosen.line)
        line = [(a[1] + b[1]) / 2, a[0] - b[0]]
    elif partners:
        line = [(planned[a][1] + planned[b][1]) / 2 for a, b in zip(chosen.line, partners, strict=True)]
    else:
        line = [planned[n][0 if across else 1] for n in chosen.line]
    station = planned[chosen.point][1 if across else 0]
    f = chosen.figures or (z[0], z[1], z[2], line[0], line[1], station)
    return Datum(chosen.plane, chosen.line, chosen.point, f[:3], f[3:5], f[5], across, partners)
