"""Invented frames with a known truth, and readings of them by invented tools."""

import numpy as np

from ready_corner.core.engines.survey.propose import Means, possible
from ready_corner.core.engines.survey.readings import Reading, model

TAPE, TABLE = 0.6, 0.4  # standard uncertainty of a distance and of a height, mm


def frame(rng, n=12):
    """So many points of a car-sized frame, no two of them close together."""
    points = []
    while len(points) < n:
        p = rng.uniform([-2300, -600, 120], [150, 600, 520])
        if all(np.linalg.norm(p - q) > 180 for q in points):
            points.append(p)
    return {f"P{i}": p for i, p in enumerate(points)}


def read(truth, what, rng=None, noise=1.0):
    """The readings with the values the truth gives, plus what their tools add."""
    rows = []
    for r in what:
        value = model(r, truth)[0] + (rng.normal(0, r.u) * noise if rng is not None else 0.0)
        rows.append(Reading(r.id, r.kind, r.points, value, r.u, r.tool, r.state))
    return rows


def rough(truth, rng, by=25.0):
    """The places a builder would guess: the plan, some centimetres off."""
    return {n: p + rng.uniform(-by, by, 3) for n, p in truth.items()}


def well_checked(truth, rng, share=0.55):
    """All heights and a good part of all distances, so that every reading is checked by others."""
    every = possible(truth, Means(TAPE, TABLE))
    return [r for r in every if r.kind == "height" or rng.random() < share]
