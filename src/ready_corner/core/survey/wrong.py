"""Which reading is wrong: every single one whose removal would settle the network, and only when there is one, that one by name."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from scipy.stats import chi2

from ready_corner.core.survey.mirror import ALIKE
from ready_corner.core.survey.network import DOUBT, Network, Row, adjust
from ready_corner.core.survey.readings import Reading, Where, model

LOOKED_AT = 12  # readings with the greatest standardised residuals are taken out in turn
MOST_WRONG = 5
SLIPS_MM = ((25.4, "a misread inch"), (12.7, "half an inch misread"), (10.0, "a misread centimetre"), (100.0, "a misread ten centimetres"),
            (50.8, "two inches misread"), (304.8, "a misread foot"), (1000.0, "a misread metre"))  # fmt: skip


@dataclass(frozen=True)
class Suspect:
    """A reading that may be wrong: by how much it disagrees with the rest (mm or degrees) with U, and the slip that looks like.

    ``instead``: other readings that may be the wrong one in its place, where several are wrong.
    """

    reading: Reading
    by: float
    expanded: float
    slip: str
    instead: tuple[Reading, ...] = ()


@dataclass(frozen=True)
class Verdict:
    """What is wrong with a network. ``named``: the one wrong reading, where it is beyond doubt; else any of ``suspects`` may be it.

    ``several``: wrong readings where one alone does not explain it; they are the ones found one after the other. ``settled``: the
    network without what is wrong, None where that cannot be told. ``tells``: one more reading that would tell the suspects apart.
    """

    named: Suspect | None = None
    suspects: tuple[Suspect, ...] = ()
    several: tuple[Suspect, ...] = ()
    settled: Network | None = None
    tells: Reading | None = None


def find_wrong(
    network: Network,
    start: Mapping[str, Where],
    zeros: Mapping[str, float] | None = None,
    possible: Sequence[Reading] = (),
) -> Verdict | None:
    """Return which reading is wrong, None for a network that is sound. ``possible``: readings that could still be taken."""
    if network.sound:
        return None
    readings = [r.reading for r in network.rows]
    settling = [
        (r, without)
        for r in _looked_at(network)
        if _might_settle(network, r) and (without := _without(readings, r, start, zeros)).sound
    ]
    worst = max((r for r in network.rows if r.standardised is not None), key=lambda r: abs(r.standardised or 0.0))
    if len(settling) == 1 and settling[0][0].reading.id == worst.reading.id:
        row, without = settling[0]
        return Verdict(suspect_of(row, without), (), (), without)
    if settling:
        suspects = tuple(suspect_of(row, without) for row, without in settling)
        if all(row.reading.id != worst.reading.id for row, _ in settling):
            suspects = (*suspects, suspect_of(worst, None))
        return Verdict(None, suspects, tells=_telling([w for _, w in settling], possible))
    return _several(network, start, zeros)


def _might_settle(network: Network, row: Row) -> bool:
    """Whether taking a reading out could settle the network: to the first order it takes away its squared standardised residual."""
    left = network.misfit - (row.standardised or 0.0) ** 2
    return left < 2 * chi2.ppf(1 - DOUBT, max(network.dof - 1, 1))


def _looked_at(network: Network) -> list[Row]:
    rows = [r for r in network.rows if r.standardised is not None and abs(r.standardised) > 2.0]
    return sorted(rows, key=lambda r: -abs(r.standardised or 0.0))[:LOOKED_AT]


def _without(readings: Sequence[Reading], row: Row, start: Mapping[str, Where], zeros: Mapping[str, float] | None) -> Network:
    return adjust([r for r in readings if r.id != row.reading.id], start, zeros)


def suspect_of(row: Row, without: Network | None) -> Suspect:
    """Return a row as a suspect, by how far it is from what the network without it says."""
    by, expanded = row.mistake or 0.0, row.mistake_expanded or 0.0
    if without is not None and row.reading.kind != "in_line" and set(row.reading.points) <= set(without.names):
        value, grads = model(row.reading, {n: without.place(n) for n in row.reading.points})
        g = np.zeros(3 * len(without.names))
        for name, part in grads.items():
            i = 3 * without.names.index(name)
            g[i : i + 3] += part
        by = row.reading.value - value
        expanded = 2 * float(np.sqrt(g @ without.covariance @ g + row.reading.u**2))
    return Suspect(row.reading, by, expanded, _slip(row.reading, by, expanded))


def _slip(reading: Reading, by: float, expanded: float) -> str:
    if reading.kind in ("slope", "heading", "compare", "in_line"):
        return (
            "the wrong sign"
            if abs(reading.value) > expanded and abs(by - 2 * reading.value) < expanded and reading.kind != "compare"
            else ""
        )
    for size, words in SLIPS_MM:
        if abs(abs(by) - size) <= expanded < size / 4:
            return words
    if reading.kind in ("offset", "station", "rise", "along", "across") and abs(by - 2 * reading.value) < expanded < abs(
        reading.value
    ):
        return "the wrong sign"
    return ""


def _several(network: Network, start: Mapping[str, Where], zeros: Mapping[str, float] | None) -> Verdict:
    found: list[Suspect] = []
    now = network
    for _ in range(MOST_WRONG):
        rows = _looked_at(now)
        if not rows:
            break
        readings = [r.reading for r in now.rows]
        # The one whose removal leaves the least misfit, by a full adjustment.
        tried = [(w.misfit, i, w) for i, r in enumerate(rows[:4]) for w in [_without(readings, r, start, zeros)]]
        least, i, now = min(tried, key=lambda row: row[:2])
        instead = tuple(rows[k].reading for misfit, k, _ in tried if k != i and misfit < least + ALIKE)
        found.append(replace(suspect_of(rows[i], now), instead=instead))
        if now.sound:
            return Verdict(None, (), tuple(found), now)
    return Verdict(None, (), tuple(found))


def _telling(networks: Sequence[Network], possible: Sequence[Reading]) -> Reading | None:
    """Return the reading that two of the networks disagree about most, against what it is sure to."""
    best, most = None, 2.0  # less than two standard uncertainties tells nothing
    for reading in possible:
        values = []
        for network in networks:
            if set(reading.points) <= network.determined and reading.kind != "in_line":
                values.append(model(reading, {n: network.place(n) for n in reading.points})[0])
        if len(values) == len(networks) and values:
            apart = (max(values) - min(values)) / reading.u
            if apart > most:
                best, most = reading, apart
    return best
