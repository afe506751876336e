"""Which readings are wrong: every one whose removal would settle the network, and only where there is no other, that one by name.

The network is factored once: from the residuals and their cofactors P it follows what would be left without any reading, or any two
(r'P⁻¹r of the rows taken out), and only what that leaves standing is adjusted anew. Source: Koch, Parameter Estimation and Hypothesis
Testing in Linear Models, on the general mean-shift test for several outliers.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import combinations
from typing import Any

import numpy as np
from scipy.linalg import cho_factor, cho_solve

from ready_corner.core.engines.survey.chance import chi_square_within
from ready_corner.core.engines.survey.design import Design, with_priors
from ready_corner.core.engines.survey.mirror import ALIKE
from ready_corner.core.engines.survey.network import CHECKED, DOUBT, UNKNOWN_MM, Network, adjust, worst_allowed
from ready_corner.core.engines.survey.readings import Array, Reading, Where

LOOKED_AT = 16  # so many are adjusted anew at most, the likeliest first
TOLD = 6  # what would tell explanations apart is looked for among the likeliest
MOST_STEPS = 20
ALWAYS = 6  # so many are adjusted anew even where the linear estimate has no hope for them: after a large mistake it is off by more than itself
FAR_GONE = (
    30.0  # a misfit so many times over what is allowed has dragged the places away, and it is begun from the plan as well
)
CLOSE_MM = 1e-5
HOLDS_STILL = 1e-9  # of a normal matrix in 1/mm²: what no reading feels stays where it is
MOST_WRONG = 8
FEELS = 1e-4  # a reading of less redundancy than this cannot be told from the places it fixes
NEARLY = 3.0  # the linear misfit may be out by so many times after a large mistake; within it a full adjustment decides
SLIPS_MM = ((1.0, "a misread millimetre"), (5.0, "a misread half centimetre"), (10.0, "a misread centimetre"), (20.0, "two centimetres misread"),
            (50.0, "five centimetres misread"), (100.0, "a misread ten centimetres"), (1000.0, "a misread metre"))  # fmt: skip
SLIPS_INCH = ((3.175, "a misread eighth"), (6.35, "a misread quarter of an inch"), (12.7, "half an inch misread"), (25.4, "a misread inch"),
              (50.8, "two inches misread"), (152.4, "six inches misread"), (304.8, "a misread foot"))  # fmt: skip
Slips = Sequence[tuple[float, str]]


@dataclass(frozen=True)
class Suspect:
    """A reading that may be wrong: by how much it disagrees with the rest (mm or degrees) with U, and the slip that looks like.

    ``instead``: other readings that may be the wrong one in its place, where several are wrong. ``mute``: it has so little redundancy
    that no other reading can say much of it.
    """

    reading: Reading
    by: float
    expanded: float
    slip: str
    instead: tuple[Reading, ...] = ()
    mute: bool = False


@dataclass(frozen=True)
class Verdict:
    """What is wrong with a network. ``named``: the one wrong reading, where it is beyond doubt; else any of ``suspects`` may be it.

    ``several``: wrong readings where one alone does not explain it, each with what may be wrong in its place. ``settled``: the network
    without what is wrong, by its likeliest reading, None where nothing explains it. ``sure``: the network without any reading that may
    be wrong, which is what may be judged from; None where nothing explains it. ``tells``: one more reading that would tell the
    suspects apart.
    """

    named: Suspect | None = None
    suspects: tuple[Suspect, ...] = ()
    several: tuple[Suspect, ...] = ()
    settled: Network | None = None
    sure: Network | None = None
    tells: Reading | None = None

    @property
    def settles(self) -> bool:
        """Whether it is beyond doubt which readings are wrong."""
        return self.settled is not None and not self.suspects and not any(s.instead for s in self.several)

    @cached_property
    def doubted(self) -> tuple[Reading, ...]:
        """Every reading that is wrong or may be."""
        found = [s.reading for s in ((self.named,) if self.named else (*self.suspects, *self.several))]
        found += [r for s in self.several for r in s.instead]
        return tuple({r.id: r for r in found}.values())


def find_wrong(
    network: Network,
    start: Mapping[str, Where],
    zeros: Mapping[str, float] | None = None,
    possible: Sequence[Reading] = (),
    slips: Slips = SLIPS_MM,
) -> Verdict | None:
    """Return which readings are wrong, None for a network that is sound. ``possible``: readings that could still be taken.

    ``start``: rough places (mm); ``zeros``: standard uncertainty of each tool's zero; ``slips``: the mistakes of the car's units.
    Source: data snooping with rank tests for one and two wrong readings (after Baarda); docs/survey.md.
    """
    if network.sound:
        return None
    return _Search(network, start, zeros or {}, possible, slips).verdict()


class _Search:
    """One network that does not agree, and what is left of it without some of its readings.

    Readings are known by their place among those of the network.
    """

    def __init__(
        self,
        network: Network,
        start: Mapping[str, Where],
        zeros: Mapping[str, float],
        possible: Sequence[Reading],
        slips: Slips,
    ) -> None:
        self.network, self.start, self.zeros, self.possible, self.slips = network, start, zeros, possible, slips
        self.rows = network.rows
        self.readings = tuple(r.reading for r in network.rows)
        self.engine = _Engine(self.readings, network, zeros, start)

    def verdict(self) -> Verdict:
        """Return one wrong reading, any of some, several, or that nothing explains it."""
        ways = self._singles()
        return self._of_one(ways) if ways else self._of_several()

    def without(self, out: Sequence[int], near: "_Trial", mirrors: bool = False) -> Network:
        """Return the network without some readings, from the places of a trial without them."""
        left = [r for i, r in enumerate(self.readings) if i not in out]
        begin = {**self.start, **dict(zip(self.network.names, near.places, strict=True))}
        return adjust(left, begin, self.zeros, mirrors=mirrors)

    def sure(self, out: Sequence[int], near: "_Trial") -> Network | None:
        """Return the network without some readings to judge from; None where nothing is left of it, or it does not agree either."""
        if len(set(out)) == len(self.readings):
            return None
        found = self.without(out, near, mirrors=True)
        return found if found.sound else None

    def _singles(self) -> list["_Trial"]:
        """Return every reading without which the rest agrees, or agrees as well as without the best of them; the likeliest first.

        Once one settles it, what is likely is estimated anew from there too: where the mistake is out, its places are no longer dragged.
        """
        tried: dict[int, _Trial] = {}
        starts = [self.engine.begin, *self.engine.elsewhere]
        while starts:
            here = starts.pop(0)
            found = [
                self.engine.tried((i,), here)
                for i in self.engine.left(here).likely(self.engine.limit(1), always=ALWAYS)
                if i not in tried
            ]
            tried |= {t.out[0]: t for t in found}
            starts += [t for t in found if t.sound][:1]
        return _as_good(list(tried.values()))

    def _of_one(self, ways: list["_Trial"]) -> Verdict:
        networks = [self.without(w.out, w) for w in ways]
        suspects = tuple(self._suspect(w.out[0], network) for w, network in zip(ways, networks, strict=True))
        settled = self.sure(ways[0].out, ways[0])
        if settled is None:
            return Verdict(several=suspects[:1])
        if len(ways) == 1:
            return Verdict(suspects[0], settled=settled, sure=settled)
        sure = self.sure([i for w in ways for i in w.out], ways[0])
        return Verdict(suspects=suspects, settled=settled, sure=sure, tells=_telling(networks[:TOLD], self.possible))

    def _of_several(self) -> Verdict:
        now = self._fewest(self._one_after_another())
        settled = self.without(now.out, now, mirrors=True)
        if not (now.sound and settled.sound):
            return Verdict(several=tuple(self._suspect(i, settled) for i in now.out))
        others = self._others(now)
        instead: dict[int, list[int]] = {i: [] for i in now.out}
        for way in others:
            gone = [i for i in now.out if i not in way.out]
            come = [i for i in way.out if i not in now.out]
            for i in gone:
                instead[i] += [k for k in come if k not in instead[i]]
        found = tuple(replace(self._suspect(i, settled), instead=tuple(self.readings[k] for k in instead[i])) for i in now.out)
        if not others:
            return Verdict(several=found, settled=settled, sure=settled)
        doubted = {*now.out, *(k for more in instead.values() for k in more)}
        sure = self.sure(sorted(doubted), now)
        networks = [settled, *(self.without(w.out, w) for w in others[: TOLD - 1])]
        return Verdict(several=found, settled=settled, sure=sure, tells=_telling(networks, self.possible))

    def _one_after_another(self) -> "_Trial":
        """Take out the reading whose removal leaves least, again and again, until the rest agrees or nothing is to spare."""
        now = self.engine.nearest
        while not now.sound and len(now.out) < MOST_WRONG and self.network.dof - len(now.out) > 1:
            tried = [self.engine.tried((*now.out, i), now) for i in self.engine.left(now).best(now.out, 4)]
            if not tried:
                break
            now = min(tried, key=lambda t: t.misfit)
        return now

    def _fewest(self, now: "_Trial") -> "_Trial":
        """Put back what need not have been taken out; then try whether any two explain it where three or more did."""
        for i in now.out if now.sound else ():
            back = self.engine.tried(tuple(k for k in now.out if k != i), now)
            if back.out and back.sound:
                now = back
        if len(now.out) > 2:
            pairs = self.engine.left(now).likely_pairs(self.engine.limit(2))
            now = next((t for p in pairs if (t := self.engine.tried(p, now)).sound), now)
        return now

    def _others(self, now: "_Trial") -> list["_Trial"]:
        """Return other explanations by as many readings: with one of them or two exchanged for others."""
        left, limit = self.engine.left(now), self.engine.limit(len(now.out))
        tried: dict[frozenset[int], _Trial] = {}
        for back in (*combinations(now.out, 1), *(combinations(now.out, 2))):
            stay = tuple(k for k in now.out if k not in back)
            likely = [(k,) for k in left.likely(limit, stay)] if len(back) == 1 else left.likely_pairs(limit, stay)
            for more in likely:
                out = frozenset([*stay, *more])
                if out != frozenset(now.out) and out not in tried:
                    tried[out] = self.engine.tried(tuple(sorted(out)), now, False)
        return [t for t in sorted(tried.values(), key=lambda t: t.misfit) if t.sound or t.misfit <= now.misfit + ALIKE]

    def _suspect(self, i: int, without: Network) -> Suspect:
        """Return a reading as a suspect, by how far it is from what the network without it says."""
        row = self.rows[i]
        by, expanded = row.mistake or 0.0, row.mistake_expanded or 0.0
        reading = row.reading
        if reading.kind != "in_line" and set(reading.points) <= set(without.names):
            value, u = without.says(reading)
            by, expanded = reading.value - value, 2 * float(np.hypot(u, reading.u))
        return Suspect(reading, by, expanded, _slip(reading, by, expanded, self.slips), mute=row.mute)


@dataclass(frozen=True)
class _Trial:
    """The places (n, 3) and tool zeros without the readings ``out``, the misfit left, and whether the rest agrees."""

    out: tuple[int, ...]
    places: Array
    shift: Array
    misfit: float
    sound: bool


def _as_good(tried: Sequence[_Trial]) -> list[_Trial]:
    """Return the trials that settle the network, and those as good as the best; none where none settles it."""
    if not any(t.sound for t in tried):
        return []
    best = min(t.misfit for t in tried)
    return sorted((t for t in tried if t.sound or t.misfit <= best + ALIKE), key=lambda t: t.misfit)


class _Engine:
    """The rows of all readings, made once; what is left without some of them by Gauss–Newton on the others."""

    def __init__(
        self, readings: Sequence[Reading], network: Network, zeros: Mapping[str, float], start: Mapping[str, Where]
    ) -> None:
        self.network = network
        self.design = Design(readings, network.names, zeros)
        self.rows_of: dict[int, list[int]] = {}
        for k, j in enumerate(self.design.row_of):
            self.rows_of.setdefault(j, []).append(k)
        shift = np.array([network.tools[t][0] if t in network.tools else 0.0 for t in self.design.tools])
        self.begin = _Trial((), network.places, shift, network.misfit, False)
        far = network.misfit > FAR_GONE * self.limit(0) and all(n in start for n in network.names)
        planned = np.array([start[n] for n in network.names], dtype=float) if far else network.places
        self.elsewhere = (_Trial((), planned, np.zeros_like(shift), np.inf, False),) if far else ()

    @property
    def nearest(self) -> "_Trial":
        """Where several mistakes are looked for from: the plan, where they have dragged the places away."""
        return self.elsewhere[0] if self.elsewhere else self.begin

    def limit(self, out: int) -> float:
        """Return the greatest misfit of a sound network without so many readings."""
        return chi_square_within(1 - DOUBT, max(self.network.dof - out, 1))

    def rows_without(self, out: Sequence[int]) -> Array:
        """Return which rows stay, (m,) of bool."""
        keep = np.ones(len(self.design.row_of), dtype=bool)
        keep[[k for i in out for k in self.rows_of[i]]] = False
        return keep

    def tried(self, out: tuple[int, ...], near: _Trial, anew: bool = True) -> _Trial:
        """Return what is left without some readings, from the places of another trial, and ``anew`` from the plan where that finds no end. What
        nothing holds stays where it is."""
        found = self._tried(out, near)
        others = [] if found.sound or not anew else [self._tried(out, e) for e in self.elsewhere if e.places is not near.places]
        return min([found, *others], key=lambda t: (not t.sound, t.misfit))

    def _tried(self, out: tuple[int, ...], near: _Trial) -> _Trial:
        x, shift, keep = near.places, near.shift, self.rows_without(out)
        c = self.design.coordinates
        full, right, factor = self._factored(x, shift, keep)
        settled = False
        for _ in range(MOST_STEPS):
            step = cho_solve(factor, -full.T @ right)
            x, shift = x + step[:c].reshape(-1, 3), shift + step[c:]
            full, right, factor = self._factored(x, shift, keep)
            if settled := bool(np.abs(step).max(initial=0.0) < CLOSE_MM):
                break
        misfit = float(right @ right)
        count = int(keep.sum())
        residual = right[:count]
        spare = 1 - np.einsum("ij,ji->i", full[:count], cho_solve(factor, full[:count].T))
        worst = np.max(np.abs(residual[spare > CHECKED]) / np.sqrt(spare[spare > CHECKED]), initial=0.0)
        dof = self.network.dof - (len(keep) - count)
        agrees = misfit <= chi_square_within(1 - DOUBT, dof) and worst <= worst_allowed(count) if dof > 0 else True
        sound = settled and agrees
        return _Trial(out, x, shift, misfit, bool(sound))

    def _factored(self, x: Array, shift: Array, keep: Array) -> tuple[Array, Array, Any]:
        residual, rows = self.design.at(x, shift)
        full, right = with_priors(self.design, rows[keep], residual[keep], shift)
        normal = full.T @ full
        normal[np.diag_indices_from(normal)] += HOLDS_STILL
        return full, right, cho_factor(normal)

    def left(self, near: _Trial) -> "_Left":
        """Return the network of all readings, factored at the places of a trial."""
        residual, rows = self.design.at(near.places, near.shift)
        full, right = with_priors(self.design, rows, residual, near.shift)
        values, vectors = np.linalg.eigh(full.T @ full)
        known = values > UNKNOWN_MM**-2
        half = full @ (vectors[:, known] / np.sqrt(values[known]))
        r = right - half @ (half.T @ right)
        m = len(residual)
        return _Left(self.rows_of, r[:m], np.eye(m) - half[:m] @ half[:m].T, float(r @ r))


@dataclass(frozen=True)
class _Left:
    """Residuals r (m,) of all readings with their cofactors p (m, m) at some places: what is left without any one, or any two, to first order."""

    rows_of: Mapping[int, list[int]]
    r: Array
    p: Array
    misfit: float

    def without(self, out: Sequence[int]) -> "_Left":
        """Return what is left when some are out."""
        gone = [k for i in out for k in self.rows_of[i]]
        if not gone:
            return self
        gain = np.linalg.pinv(self.p[np.ix_(gone, gone)], rcond=FEELS)
        r = self.r - self.p[:, gone] @ gain @ self.r[gone]
        p = self.p - self.p[:, gone] @ gain @ self.p[gone]
        rows = {i: k for i, k in self.rows_of.items() if i not in out}
        return _Left(rows, r, p, self.misfit - float(self.r[gone] @ gain @ self.r[gone]))

    @cached_property
    def each(self) -> dict[int, float]:
        """The misfit without each reading that others check at all."""
        alone = {i: own[0] for i, own in self.rows_of.items() if len(own) == 1}
        at = np.array(list(alone.values()), dtype=int)
        d = np.diag(self.p)[at]
        left = self.misfit - self.r[at] ** 2 / np.maximum(d, FEELS)
        found = {i: float(v) for i, v, q in zip(alone, left, d, strict=True) if q > FEELS}
        for i, own in self.rows_of.items():
            if i in alone:
                continue
            q = self.p[np.ix_(own, own)]
            if np.trace(q) > FEELS * len(own):
                found[i] = self.misfit - float(self.r[own] @ np.linalg.pinv(q, rcond=FEELS) @ self.r[own])
        return found

    def best(self, out: Sequence[int], count: int) -> list[int]:
        """Return the readings whose removal leaves least, some being out; those that leave far more than the first are left alone."""
        each = self.without(out).each
        order = sorted(each, key=lambda i: each[i])[:count]
        return [i for i in order if each[i] <= 2 * each[order[0]] + ALIKE]

    def likely(self, limit: float, out: Sequence[int] = (), always: int = 0) -> list[int]:
        """Return the readings whose removal may leave no more than the limit, some being out, the likeliest first; ``always`` so many of them."""
        now = self.without(out)
        room = NEARLY * limit + 0.02 * max(now.misfit, 0.0)
        order = sorted(now.each, key=lambda i: now.each[i])
        return [i for n, i in enumerate(order) if n < always or now.each[i] <= room][:LOOKED_AT]

    def likely_pairs(self, limit: float, out: Sequence[int] = ()) -> list[tuple[int, int]]:
        """Return pairs of readings without which the rest may agree, some being out, the likeliest first."""
        now = self.without(out)
        single = [(i, k[0]) for i, k in now.rows_of.items() if len(k) == 1 and now.p[k[0], k[0]] > FEELS]
        at = np.array([k for _, k in single], dtype=int)
        p, r = now.p[np.ix_(at, at)], now.r[at]
        d = np.diag(p)
        det = np.outer(d, d) - p**2
        both = np.outer(r**2, d) - 2 * np.outer(r, r) * p + np.outer(d, r**2)
        left = now.misfit - np.where(det > FEELS * np.outer(d, d), both / np.where(det > 0, det, 1.0), 0.0)
        left[np.tril_indices(len(at))] = np.inf
        order = np.argsort(left, axis=None)[:LOOKED_AT]
        pairs = [divmod(int(f), len(at)) for f in order if left.flat[f] <= NEARLY * limit]
        return [(single[a][0], single[b][0]) for a, b in pairs]


def _slip(reading: Reading, by: float, expanded: float, slips: Slips) -> str:
    """Return the slip that a mistake looks like: the nearest of the car's units, where the rest is sure enough to tell."""
    signed = reading.kind in ("offset", "station", "rise", "along", "across", "slope", "heading")
    turned = abs(by - 2 * reading.value)
    if signed and turned < expanded < abs(reading.value):
        return "the wrong sign"
    if reading.kind in ("slope", "heading", "compare", "in_line"):
        return ""
    off, size, words = min((abs(abs(by) - size), size, words) for size, words in slips)
    return words if off <= expanded < size / 4 else ""


def _telling(networks: Sequence[Network], possible: Sequence[Reading]) -> Reading | None:
    """Return the reading that two of the networks disagree about most, against what it is sure to."""
    best, most = None, 2.0  # less than two standard uncertainties tells nothing
    for reading in possible:
        values = []
        for network in networks:
            if set(reading.points) <= network.determined and reading.kind != "in_line":
                values.append(network.says(reading)[0])
        if len(values) == len(networks) and values:
            apart = (max(values) - min(values)) / reading.u
            if apart > most:
                best, most = reading, apart
    return best
