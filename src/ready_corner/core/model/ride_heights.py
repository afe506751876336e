"""Ride height by any feature: how the chassis is wanted, how it stands on its stands, and where the hubs must sit for it.

Axes of the plan: z = 0 is the ground at the stance of the drawing. Lengths in mm.

Source: rigid geometry of the chassis; docs/stance.md.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.statics.attitude import Attitude, attitude_of, hub_on_stands, ride_from_hub
from ready_corner.core.model.movement import Movement
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS, END_OF, Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.finding import finding

Place = tuple[float, float, float]
SETTLED_MM = 1e-9  # the wheel centre is found when its travel changes by less


def drawn(plan: Plan, corner: Corner, aims: Mapping[str, float] | None = None) -> Place | None:
    """Return the place at which a ride height is read, in the axes of the plan; None where neither drawing nor aim gives its height.

    Source: rigid geometry of the chassis, docs/stance.md.
    """
    place = plan.height_place(corner)
    aim = plan.aim(f"{corner}.height")
    height = place.height if place.height is not None else (aims or {}).get(corner, aim.aim if aim else None)
    return None if height is None else (place.station, place.offset, height)


def attitude_from(plan: Plan, heights: Mapping[Corner, float]) -> Attitude:
    """Return how the chassis stands by heights over the floor at the places where ride height is read. Raises MeasuredError for fewer than three.

    Source: rigid geometry of the chassis, docs/stance.md.
    """
    known = [(p, h) for c, h in heights.items() if (p := drawn(plan, c)) is not None]
    return attitude_of([p for p, _ in known], [h for _, h in known])


def wanted_attitude(plan: Plan) -> Attitude:
    """Return how the chassis is wanted: level as drawn, or pitched and rolled where its aims differ from the drawing. Raises MeasuredError.

    Source: rigid geometry of the chassis, docs/stance.md.
    """
    return attitude_from(plan, {c: a.aim for c in CORNERS if (a := plan.aim(f"{c}.height")) is not None})


def travel_at(move: Movement, radius: float, stance: Attitude) -> float:
    """Return the wheel travel from the drawing, bump positive, at which a wheel of this loaded radius stands on the floor under a chassis so.

    Nan where the linkage does not reach so far.
    Source: rigid geometry of the chassis, docs/stance.md.
    """
    travel, design = 0.0, move.centre(0.0)
    for _ in range(30):
        x, y, _ = move.centre(travel)
        up = stance.up
        found = (radius - stance.height - up[0] * x - up[1] * y) / up[2] - design[2]
        if not np.isfinite(found) or abs(found - travel) < SETTLED_MM:
            return float(found)
        travel = float(found)
    return travel


@dataclass(frozen=True)
class Hub:
    """One hub while the chassis is on stands: height over the floor at which it must sit, the one read, and by how much higher the car will then stand.

    ``travel``: of the wheel from the drawing, at the wanted stance. ``travel_read``: at the height read. ``hangs``: how far short of it the wheel stays in
    full droop, mm; 0 where it reaches.
    """

    corner: Corner
    wanted: float
    read: float | None
    ride: float | None
    travel: float
    travel_read: float | None
    hangs: float = 0.0

    def off(self, tolerance: float | None) -> bool:
        """Whether the car will stand further from its wanted height than its tolerance, mm, where there is one."""
        return self.ride is not None and tolerance is not None and abs(self.ride) > tolerance


def hub_of(
    plan: Plan,
    corner: Corner,
    move: Movement | None,
    radius: float,
    wanted: Attitude,
    present: Attitude,
    read: float | None = None,
) -> Hub:
    """Return where a hub must sit; ``move``: how the corner moves, where the plan has a linkage. Raises MeasuredError for a loaded radius that is missing.

    Source: rigid geometry of the chassis, docs/stance.md.
    """
    travel = float("nan") if move is None or not radius > 0 else travel_at(move, radius, wanted)
    centre: Sequence[float] = plan.wheel_place(corner) if move is None else move.centre(travel if np.isfinite(travel) else 0.0)
    at = hub_on_stands(centre, radius, wanted, present)
    ride = None if read is None else ride_from_hub(centre, read, radius, present, wanted)
    travel_read = None if ride is None else travel - ride / max(float(present.up[2]), 0.1)
    stop = plan.footing.end(END_OF[corner]).droop
    low = min((t for t in (travel_read, travel) if t is not None and np.isfinite(t)), default=0.0)
    return Hub(corner, at, read, ride, travel, travel_read, max(-stop - low, 0.0) if stop is not None else 0.0)


def hangs_over_floor(plan: Plan, corner: Corner, move: Movement | None, radius: float, present: Attitude) -> float:
    """Return how far over the floor a wheel hangs in full droop while the chassis is on its stands, mm; minus where it stands on the floor first.

    Nan where the plan has no droop stop or no linkage.
    Source: rigid geometry of the chassis, docs/stance.md.
    """
    stop = plan.footing.end(END_OF[corner]).droop
    if stop is None or move is None:
        return float("nan")
    x, y, z = move.centre(-stop)
    return present.height_of((x, y, z)) - radius


@dataclass(frozen=True)
class FeatureHeight:
    """A feature by which ride height may be said: its height wanted, and as the car stands now (None until it is read), mm."""

    name: str
    wanted: float
    now: float | None
    master: bool


def feature_heights(plan: Plan, wanted: Attitude, present: Attitude | None) -> tuple[FeatureHeight, ...]:
    """Return the heights of every named feature: the master ones, which are read, and those that follow by rigid geometry.

    Source: rigid geometry of the chassis, docs/stance.md.
    """
    rows: list[tuple[str, Place, bool]] = []
    for c in CORNERS:
        place = drawn(plan, c)
        if place is not None:
            rows.append((f"{plan.height_place(c).name}, {CORNER_WORDS[c]}", place, True))
    rows += [(f.name, f.place, False) for f in (*plan.footing.features, *plan.footing.low)]
    return tuple(
        FeatureHeight(name, wanted.height_of(p), None if present is None else present.height_of(p), master)
        for name, p, master in rows
    )


def heights_by_features(
    plan: Plan, said: Mapping[str, float], arms: Mapping[Corner, tuple[Movement, float, float]] | None = None
) -> dict[Corner, float]:
    """Return the four ride heights that heights of other features come to; two of them are taken as without roll.

    said: height over the ground by name of a feature. arms: how a corner moves, the loaded radius of its tyre, and the angle at which its lower arm (or
    plate) is to stand, degrees, outer end up plus. Raises MeasuredError where fewer than two are known, or they are at one station.
    Source: rigid geometry of the chassis, docs/stance.md.
    """
    known = [(f, said[f.name]) for f in (*plan.footing.features, *plan.footing.low) if f.name in said]
    places: list[Place] = [f.place for f, _ in known]
    heights = [h for _, h in known]
    for corner, (move, radius, angle) in (arms or {}).items():
        travel = move.travel_for(f"{move.lower}.level_deg", angle)
        if not np.isfinite(travel):
            raise MeasuredError(
                finding("heights.arm-impossible", corner=corner, angle=angle),
                path="arms",
                numbers={"angle": angle},
            )
        # Where the wheel centre is in the chassis then, the chassis is the loaded radius over the ground.
        places.append(move.centre(travel))
        heights.append(radius)
    if len(places) < 2:
        raise MeasuredError(finding("heights.two-features"), path="features")
    if len(places) == 2 or np.ptp([p[1] for p in places]) < 1.0:  # on one line along the car: the other side stands alike
        places += [(x, -y - 100.0, z) for x, y, z in places]
        heights += heights
        half = len(places) // 2
        places[:half] = [(x, y + 100.0, z) for x, y, z in places[:half]]
    stance = attitude_of(places, heights)
    return {c: stance.height_of(p) for c in CORNERS if (p := drawn(plan, c)) is not None}


def arm_angles(move: Movement, travel: float) -> dict[str, float]:
    """Return the angle of every arm of a corner to the chassis at a travel, degrees, outer end up positive.

    Source: rigid geometry of the chassis, docs/stance.md.
    """
    names = [link.name for link in move.body.shape.mechanism.links]
    return {n: move.at(f"{n}.level_deg", travel) for n in names if move.has(f"{n}.level_deg")}
