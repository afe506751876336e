"""What to measure: a short list of readings that brings every point to a wanted uncertainty, each checked by others.

Greedy: the next reading is the one that takes most variance away for its trouble, by rank-one updates of the covariance. Then readings
are added until none is alone. The list is put in an order to walk.

Source: design of a network by what each reading adds; docs/survey.md.
"""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from ready_corner.core.engines.survey.design import Design
from ready_corner.core.engines.survey.network import UNKNOWN_MM, Network, whole_motions
from ready_corner.core.engines.survey.readings import Array, Kind, Reading, Where, model
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.measured import COVERAGE

LEAST_CHECKED = 0.15  # redundancy number below which a mistake would hardly show
MOST_READINGS = 400
TROUBLE: Mapping[Kind, float] = {"distance": 1.0, "height": 0.7, "offset": 1.0, "station": 1.0, "rise": 1.0}


AGAIN = "again "  # with which the identity of a reading begins that repeats another from another zero


@dataclass(frozen=True)
class Means:
    """What there is to measure with: standard uncertainty of a distance, a height over the table, an offset from the centreline; None without it.

    ``reach``: longest distance the tape is used for, mm.
    """

    distance: float | None = 0.7
    height: float | None = 0.5
    offset: float | None = None
    reach: float = 5000.0


@dataclass(frozen=True)
class Proposed:
    """A reading to take, and the greatest U of any point that will be left after it, mm (inf while one is not fixed)."""

    reading: Reading
    left: float

    @property
    def again(self) -> bool:
        """Whether it is read once more, from another zero."""
        return self.reading.id.startswith(AGAIN)


@dataclass(frozen=True)
class Proposal:
    """The list in walking order. ``reached``: whether every point comes to the wanted uncertainty, ``expanded`` the greatest U left, mm."""

    list: tuple[Proposed, ...]
    reached: bool
    expanded: float
    alone: tuple[str, ...]


def possible(places: Mapping[str, Where], means: Means) -> list[Reading]:
    """Return every reading that the means allow between these points; values are what they would be.

    Source: design of a network by what each reading adds; docs/survey.md.
    """
    names, rows = list(places), []
    # A height or an offset may be read once more, from another zero: where only heights bear on a point upwards, nothing else checks it.
    times = ("", AGAIN)
    at = {n: np.asarray(p, dtype=float) for n, p in places.items()}
    for i, a in enumerate(names):
        if means.height is not None:
            rows += [Reading(f"{t}height {a}", "height", (a,), float(at[a][2]), means.height) for t in times]
        if means.offset is not None:
            rows += [Reading(f"{t}offset {a}", "offset", (a,), float(at[a][1]), means.offset) for t in times]
        if means.distance is None:
            continue
        for b in names[i + 1 :]:
            size = float(np.linalg.norm(at[b] - at[a]))
            if 1.0 < size <= means.reach:
                rows.append(Reading(f"distance {a} {b}", "distance", (a, b), size, means.distance))
    return rows


def surest(network: Network, point: str, pool: Sequence[Reading]) -> tuple[Reading, float] | None:
    """Return the one more reading that would make a determined point surest along its worst axis, and the U that it would then have, mm; None where
    no reading of the pool bears on it.

    Source: rank-one update of the covariance; docs/survey.md.
    """
    i, best = 3 * network.names.index(point), None
    own = network.covariance[i : i + 3, i : i + 3]
    for reading in pool:
        if point not in reading.points or not set(reading.points) <= network.determined:
            continue
        g = np.zeros(len(network.covariance))
        for name, part in model(reading, {n: network.place(n) for n in reading.points})[1].items():
            at = 3 * network.names.index(name)
            g[at : at + 3] += part
        q = network.covariance @ g
        after = own - np.outer(q[i : i + 3], q[i : i + 3]) / (g @ q + reading.u**2)
        left = COVERAGE * float(np.sqrt(max(np.diag(after).max(), 0.0)))
        if best is None or left < best[1]:
            best = reading, left
    return best


def propose(
    places: Mapping[str, Where],
    means: Means,
    wanted: float,
    taken: Sequence[Reading] = (),
) -> Proposal:
    """Return what to measure so that every point is sure to ``wanted`` mm (U) along every axis, beside the readings already taken.

    The whole is held by its inner geometry: a shift or turn that the readings do not feel is not counted, for the datum decides it.
    Raises MeasuredError for fewer than two points, or means that measure nothing.
    Source: design of a network by what each reading adds; docs/survey.md.
    """
    if len(places) < 2:
        raise MeasuredError(finding("propose.too-few"), path="points")
    known = Counter((t.kind, frozenset(t.points)) for t in taken)
    pool = [r for r in possible(places, means) if not (known[r.kind, frozenset(r.points)] > r.id.startswith(AGAIN))]
    if not pool and not taken:
        raise MeasuredError(finding("propose.no-means"), path="means")
    names = list(places)
    x = np.array([places[n] for n in names], dtype=float)
    rows = Design(pool, names, {}).at(x, np.zeros(0))[1] if pool else np.zeros((0, 3 * len(names)))
    trouble = np.array([TROUBLE.get(r.kind, 1.0) for r in pool])
    q = _begin(x, names, taken, [*pool, *taken])
    chosen: list[int] = []
    left: list[float] = []
    free = np.ones(len(pool), dtype=bool)
    while len(chosen) < MOST_READINGS and free.any():
        worst = _worst(q)
        spare = 1 - np.einsum("ij,jk,ik->i", rows[chosen], q, rows[chosen]) if chosen else np.zeros(0)
        alone = [c for c, s in zip(chosen, spare, strict=True) if s < LEAST_CHECKED]
        if worst <= wanted and not alone:
            break
        qa = rows @ q
        gain = np.einsum("ij,ij->i", qa, qa) / (1 + np.einsum("ij,ij->i", qa, rows))
        if worst <= wanted:  # what is left is to check those that stand alone: whatever bears on them most
            target = rows[alone]
            gain = np.sum((qa @ target.T) ** 2, axis=1) / (1 + np.einsum("ij,ij->i", qa, rows))
        best = int(np.argmax(np.where(free, gain / trouble, -1.0)))
        if gain[best] <= 1e-12:
            break
        free[best] = False
        q = q - np.outer(qa[best], qa[best]) / (1 + qa[best] @ rows[best])
        chosen.append(best)
        left.append(_worst(q))
    spare = 1 - np.einsum("ij,jk,ik->i", rows[chosen], q, rows[chosen]) if chosen else np.zeros(0)
    still = tuple(pool[c].id for c, s in zip(chosen, spare, strict=True) if s < LEAST_CHECKED)
    listed = [
        Proposed(replace(pool[c], value=pool[c].value), v if v < UNKNOWN_MM else np.inf)
        for c, v in zip(chosen, left, strict=True)
    ]
    return Proposal(tuple(_walk(listed, places)), _worst(q) <= wanted, _worst(q), still)


def _begin(x: Array, names: Sequence[str], taken: Sequence[Reading], all_of: Sequence[Reading]) -> Array:
    """Return the covariance before anything is chosen: far from known everywhere, but for motions of the whole that no reading feels."""
    g = np.linalg.qr(whole_motions(x))[0]
    felt = Design(list(all_of), names, {}).at(x, np.zeros(0))[1] @ g if all_of else np.zeros((0, 6))
    _, s, vt = np.linalg.svd(np.vstack([felt, np.zeros((6, g.shape[1]))]), full_matrices=True)
    unfelt = g @ vt[[i for i in range(len(vt)) if i >= len(s) or s[i] < 1e-9]].T
    inner = np.linalg.svd(unfelt, full_matrices=True)[0][:, unfelt.shape[1] :]  # what is left when the datum holds those
    normal = np.eye(inner.shape[1]) / (10 * UNKNOWN_MM) ** 2
    if taken:
        known = Design(list(taken), names, {}).at(x, np.zeros(0))[1] @ inner
        normal += known.T @ known
    return np.asarray(inner @ np.linalg.inv(normal) @ inner.T)


def _worst(q: Array) -> float:
    return float(2 * np.sqrt(np.diag(q).max()))


def _walk(listed: Sequence[Proposed], places: Mapping[str, Where]) -> list[Proposed]:
    """Return the readings in an order to walk: heights first, round the frame; then each next one begins nearest to where one stands."""
    heights = [p for p in listed if p.reading.kind in ("height", "offset", "station")]
    others = [p for p in listed if p not in heights]
    at = {n: np.asarray(p, dtype=float)[:2] for n, p in places.items()}
    middle = np.mean(list(at.values()), axis=0)
    heights.sort(key=lambda p: (p.reading.kind, float(np.arctan2(*(at[p.reading.points[0]] - middle)[::-1]))))
    here = at[heights[-1].reading.points[0]] if heights else middle
    order = list(heights)
    while others:
        best = min(others, key=lambda p: min(float(np.linalg.norm(at[n] - here)) for n in p.reading.points))
        others.remove(best)
        near, far = sorted(best.reading.points, key=lambda n: float(np.linalg.norm(at[n] - here)))
        order.append(replace(best, reading=replace(best.reading, points=(near, far))))
        here = at[far]
    return order
