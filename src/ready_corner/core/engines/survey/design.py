"""Readings about points as rows of one system, and the places at its least sum of squares.

Source: least-squares adjustment, design matrix; docs/survey.md.
"""

from collections.abc import Mapping, Sequence

import numpy as np

from ready_corner.core.engines.survey.readings import Array, Reading, model
from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.quantities.finding import finding

CLOSED_MM = 1e-9  # the adjustment has settled when no place moves further than this
MOST_STEPS = 100
LINEAR = ("height", "offset", "station", "rise", "along", "across")
FREE = 1e-13  # a direction is not stepped along when its eigenvalue in the normal matrix is under this share of the greatest


class Design:
    """Readings about points, ready to be evaluated: unknowns are all coordinates, then one zero per tool."""

    def __init__(self, readings: Sequence[Reading], names: Sequence[str], zeros: Mapping[str, float]) -> None:
        self.readings, self.names = tuple(readings), tuple(names)
        index = {name: 3 * i for i, name in enumerate(names)}
        if missing := next((p for r in readings for p in r.points if p not in index), None):
            raise CalledError(finding("survey.no-such-point", point=missing), path="points")
        self.index = index
        self.tools = tuple(sorted({r.tool for r in readings if zeros.get(r.tool, 0.0) > 0 and _has_zero(r)}))
        self.zero_u = np.array([zeros[t] for t in self.tools])
        self.coordinates = 3 * len(names)
        self.unknowns = self.coordinates + len(self.tools)
        # A reading in line is two numbers, square to the line; it is split into two rows of one weight.
        self.row_of = [i for i, r in enumerate(self.readings) for _ in range(2 if r.kind == "in_line" else 1)]
        self.u = np.array([self.readings[i].u for i in self.row_of])
        # Distances are evaluated all at once, and what is linear only once; the rest one by one.
        self._first_row = {i: k for k, i in reversed(list(enumerate(self.row_of)))}
        self._far = [i for i, r in enumerate(self.readings) if r.kind == "distance"]
        self._ends = np.array([[index[p] // 3 for p in self.readings[i].points] for i in self._far], dtype=int).reshape(-1, 2)
        self._far_rows = np.array([self._first_row[i] for i in self._far], dtype=int)
        self._others = [r for r in self.readings if r.kind not in LINEAR and r.kind != "distance"]
        self._other_rows = [
            self._first_row[i] for i, r in enumerate(self.readings) if r.kind not in LINEAR and r.kind != "distance"
        ]
        self._values = np.array([self.readings[i].value for i in self.row_of])
        self._constant = self._constant_rows()

    def _constant_rows(self) -> Array:
        """Return what of the rows does not depend on the places: linear readings, and the zeros of the tools."""
        rows = np.zeros((len(self.row_of), self.unknowns))
        origin = {name: np.zeros(3) for name in self.names}
        for i, reading in enumerate(self.readings):
            k = self._first_row[i]
            if reading.kind in LINEAR:
                self._fill(rows[k], model(reading, origin)[1])
            if reading.tool in self.tools and _has_zero(reading):
                rows[k, self.coordinates + self.tools.index(reading.tool)] = 1.0
        return rows

    def at(self, x: Array, zeros: Array) -> tuple[Array, Array]:
        """Return modelled minus read, and rows (m, unknowns), both over u, for places x (n, 3)."""
        rows = self._constant.copy()
        residual = rows @ np.concatenate([x.ravel(), zeros]) - self._values
        if len(self._far):
            first, second = self._ends.T
            line = x[second] - x[first]
            size = np.sqrt(np.einsum("ij,ij->i", line, line))
            residual[self._far_rows] += size
            way = line / np.maximum(size, 1e-12)[:, None]
            for k in range(3):
                rows[self._far_rows, 3 * first + k] = -way[:, k]
                rows[self._far_rows, 3 * second + k] = way[:, k]
        places = dict(zip(self.names, x, strict=True)) if self._others else {}
        for reading, k in zip(self._others, self._other_rows, strict=True):
            found = _in_line(reading, places) if reading.kind == "in_line" else [model(reading, places)]
            for at, (value, grads) in enumerate(found, start=k):
                residual[at] += value
                self._fill(rows[at], grads)
        return residual / self.u, rows / self.u[:, None]

    def _fill(self, row: Array, grads: Mapping[str, Array]) -> None:
        for name, g in grads.items():
            row[self.index[name] : self.index[name] + 3] += g


def _has_zero(reading: Reading) -> bool:
    return bool(reading.tool) and reading.kind not in ("compare", "in_line")


def _in_line(reading: Reading, x: Mapping[str, Array]) -> list[tuple[float, dict[str, Array]]]:
    """Return both ways in which the second point may be off the line of the first and the third."""
    first, second, third = (x[n] for n in reading.points)
    line = third - first
    long2 = max(float(line @ line), 1e-12)
    t = float((second - first) @ line) / long2
    seed = np.eye(3)[int(np.argmin(np.abs(line)))]
    e = np.cross(line, seed)
    e /= np.linalg.norm(e)
    rows = []
    for way in (e, np.cross(line / np.sqrt(long2), e)):
        value = float((second - first - t * line) @ way)
        rows.append((value, {reading.points[0]: -(1 - t) * way, reading.points[1]: way, reading.points[2]: -t * way}))
    return rows


def settle(design: Design, x: Array) -> tuple[Array, Array]:
    """Return the places and tool zeros at the least sum of squares, by damped Gauss–Newton with steps of least length.

    Source: least-squares adjustment, design matrix; docs/survey.md.
    """
    zeros = np.zeros(len(design.tools))
    cost = np.inf
    damping = 0.0
    residual, rows = design.at(x, zeros)
    for _ in range(MOST_STEPS):
        full, right = with_priors(design, rows, residual, zeros)
        cost = float(right @ right)
        step = _least(full, right, damping)
        trial, trial_zeros = x + step[: design.coordinates].reshape(-1, 3), zeros + step[design.coordinates :]
        new_residual, new_rows = design.at(trial, trial_zeros)
        now = float(new_residual @ new_residual + np.sum((trial_zeros / design.zero_u) ** 2))
        size = float(np.abs(step).max(initial=0.0))
        if now <= cost * (1 + 1e-12) + 1e-18:
            x, zeros, residual, rows = trial, trial_zeros, new_residual, new_rows
            damping = 0.0 if damping < 1e-6 else damping / 10
            if size < CLOSED_MM:
                break
        elif size < CLOSED_MM:
            break
        else:
            damping = max(damping * 10, 1e-4)
    return x, zeros


def with_priors(design: Design, rows: Array, residual: Array, zeros: Array) -> tuple[Array, Array]:
    """Return rows and residuals with what is known of the tools' zeros beforehand.

    Source: least-squares adjustment, design matrix; docs/survey.md.
    """
    if not design.tools:
        return rows, residual
    prior = np.zeros((len(design.tools), design.unknowns))
    prior[:, design.coordinates :] = np.diag(1 / design.zero_u)
    return np.vstack([rows, prior]), np.concatenate([residual, zeros / design.zero_u])


def _least(rows: Array, residual: Array, damping: float) -> Array:
    """Return the step of least length that takes the residuals away as far as that goes."""
    values, vectors = np.linalg.eigh(rows.T @ rows)
    keep = values > FREE * values[-1]
    gain = np.where(keep, 1 / np.where(keep, values + damping**2 * values[-1], 1.0), 0.0)
    return np.asarray(-(vectors * gain) @ (vectors.T @ (rows.T @ residual)))
