"""Pickup points against the plan: how far off, what each does to the finished car, and what to do about it, the least first.

Source: rigid geometry of measured points, JCGM 100:2008; docs/survey.md.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ready_corner.core.engines.linkage.body import Body
from ready_corner.core.engines.linkage.named import Named, named
from ready_corner.core.engines.linkage.pair import roll_centre
from ready_corner.core.engines.linkage.sweep import Sweep, sweep
from ready_corner.core.engines.linkage.worth import Parameter, sensitivities
from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.mirror import Mirror
from ready_corner.core.engines.survey.propose import Means, possible, surest
from ready_corner.core.engines.survey.readings import Array
from ready_corner.core.engines.survey.square import mirror_difference
from ready_corner.core.engines.survey.wrong import Verdict as Wrong
from ready_corner.core.judge.frame import Frame
from ready_corner.core.judge.survey_views import read_once
from ready_corner.core.model.bodies import bodies_of
from ready_corner.core.model.predicted import predicted
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, Corner
from ready_corner.core.plan.names import turn_parts
from ready_corner.core.plan.plan import Adjuster, Plan, twin_of
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.measured import Measured
from ready_corner.core.quantities.notation import FLATS_PER_TURN
from ready_corner.core.quantities.verdict import Aim, Verdict, judge

WATCHED = ("camber_deg", "caster_deg", "toe_deg", "toe_deg_per_mm", "camber_deg_per_mm", "roll_centre_height", "ratio")
FAR_INSIDE = 0.25  # share of a tolerance under which a consequence is let be
BETTERS = 0.95  # one more reading that leaves more than this share of U is hardly worth taking
TRAVEL_MM = 25.0  # bump steer counts by the toe it makes over so much travel
SHIM_MM = 3.0  # a point further off than this is no matter of shims
WAYS = (("forward", "aft"), ("left", "right"), ("up", "down"))
Do = Literal["leave it", "take it up", "shim", "cut and move", "measure"]


@dataclass(frozen=True)
class Effect:
    """What a deviation does to one figure: ``by`` in its unit (see ``linkage.words``), the corner it is seen at."""

    answer: str
    said: Named
    by: float


@dataclass(frozen=True)
class Option:
    """One thing to do about a point: how, and how many figures of the geometry it leaves to be set or read again."""

    do: Do
    how: Finding
    spoils: int


@dataclass(frozen=True)
class Pickup:
    """One point of the plan against the survey. ``off`` (3,) measured minus planned in mm with U, in the axes of the car; None while not determined.

    ``verdict`` of its worst axis; ``twin`` (3,) the other side reflected, minus this one; ``move`` the way back; ``effects`` by
    this deviation alone; ``options`` the least first. ``doubt``: why nothing may be cut or moved for it yet, where what is known of it
    hangs on a reading that is wrong or may be.
    """

    point: str
    off: Array | None
    expanded: Array | None
    verdict: Verdict | None
    twin: Array | None
    move: tuple[Finding, ...]
    effects: tuple[Effect, ...]
    options: tuple[Option, ...]
    stale: Finding | None = None
    doubt: Finding | None = None

    @property
    def twin_most(self) -> int | None:
        """The axis along which it differs most from its twin."""
        return None if self.twin is None else int(np.argmax(np.abs(self.twin)))


@dataclass(frozen=True)
class Pickups:
    """All points of the plan, and what all deviations together do, by corner (or axle)."""

    rows: tuple[Pickup, ...]
    together: Mapping[str, tuple[Effect, ...]]

    @property
    def share(self) -> float | None:
        """Share of the points that hold, or whose deviation was accepted for a reason; None where the plan has none."""
        done = [p.verdict == "holds" or any(o.how.kind == "pickup.accepted" for o in p.options) for p in self.rows]
        return sum(done) / len(done) if done else None


Kept = dict[str, dict[str, Array]]  # by body: what a millimetre of each point does, by answer (points, 3)


def pickups(frame: Frame, moved: Mapping[str, float], kept: Kept) -> Pickups:
    """Return every pickup point of the plan against the survey; those not measured are in it too, saying so.

    ``moved``: turns of each adjuster since the plan. ``kept``: worths already computed for this plan; filled in here.
    """
    plan, (laid, _) = frame.plan, frame.laid
    rows, together = [], {}
    for end in ENDS:
        try:
            bodies = bodies_of(plan, end)
        except ReadyCornerError:
            continue
        for body in bodies:
            own = {n: f"{body.name}.{n}" for n in body.layout.of_car if f"{body.name}.{n}" in frame.planned}
            off = {n: _off(frame, laid, full) for n, full in own.items()}
            names = tuple(sorted(own))
            if body.name not in kept:
                kept[body.name] = _computed(body, names)
            worth = {n: {a: m[i] for a, m in kept[body.name].items()} for i, n in enumerate(names)}
            rows += [_pickup(frame, laid, body, own[n], off[n], worth[n], moved) for n in names]
            known = {n: d for n, d in off.items() if d is not None and not frame.doubted(own[n])}
            if known:
                together[body.name] = _together(body, known, own, frame)
    return Pickups(tuple(rows), together)


def _off(frame: Frame, laid: Laid | None, name: str) -> Array | None:
    if laid is None or frame.network is None or name not in frame.network.determined:
        return None
    return np.asarray(laid.place(name) - np.asarray(frame.planned[name]))


def _pickup(
    frame: Frame,
    laid: Laid | None,
    body: Body,
    full: str,
    off: Array | None,
    worth: Mapping[str, Array],
    moved: Mapping[str, float],
) -> Pickup:
    doubt = doubt_of(frame.verdict) if frame.doubted(full) else None
    if off is None or laid is None:
        verdict: Verdict | None = "too close to call" if doubt else None
        option = Option("measure", doubt or _why_unknown(frame, full), 0)
        return Pickup(full, None, None, verdict, None, (), (), (option,), _stale(frame, full), doubt)
    tolerance = frame.plan.point_tolerance
    expanded = laid.expanded(full)
    if doubt:
        return Pickup(full, off, expanded, "too close to call", None, (), (), (Option("measure", doubt, 0),), None, doubt)
    verdicts = [
        judge(Measured(float(d), {"survey": float(u) / 2}), Aim(full, 0.0, tolerance)).verdict
        for d, u in zip(off, expanded, strict=True)
    ]
    verdict = "out" if "out" in verdicts else "too close to call" if "too close to call" in verdicts else "holds"
    mirror = next((m for m in frame.network.mirrors if m.point == full), None) if frame.network else None
    if mirror is not None and float(np.linalg.norm(mirror.away)) > tolerance:
        verdict = "too close to call"  # it may as well be on the other side
    effects = tuple(Effect(answer, _named(answer), float(by @ off)) for answer, by in worth.items())
    twin = twin_of(full)
    mirrored = None
    if twin != full and twin in laid.names and frame.network and twin in frame.network.determined:
        difference, _ = mirror_difference(full, twin, laid)
        mirrored = np.array([d.value for d in difference])
    move = move_of(-off, expanded)
    if verdict == "too close to call":
        options: tuple[Option, ...] = (Option("measure", _what_settles(frame, full, off, expanded, mirror), 0),)
    else:
        options = _options(frame.plan, body, off, verdict, effects, move, moved)
    if said := _accepted(frame, full):
        options = (Option("leave it", finding("pickup.accepted", reason=said), 0), *(o for o in options if o.do != "leave it"))
    return Pickup(full, off, expanded, verdict, mirrored, move, effects, options)


def _what_settles(frame: Frame, name: str, off: Array, expanded: Array, mirror: Mirror | None) -> Finding:
    """Return what to measure so that a point which is too close to call is settled: the one more reading that makes it surest, and whether it would do;
    of a point that could as well be mirrored, along what."""
    assert frame.network
    if mirror is not None:
        away = float(np.linalg.norm(mirror.away))
        axis = ("station", "offset", "height")[int(np.argmax(np.abs(mirror.away)))]
        return finding("pickup.mirrored", away=away, axis=axis)
    tolerance = frame.plan.point_tolerance
    u = min((read_once(t) for t in frame.plan.toolbox if t.measures == "length"), default=Means.distance or 1.0)
    near = {n: tuple(frame.network.place(n)) for n in frame.network.names if n in frame.network.determined}
    found = surest(frame.network, name, [r for r in possible(near, Means(u, u)) if name in r.points])
    # Judged as it lies: along each axis what is left must be under what its deviation leaves of the tolerance.
    room = min(abs(tolerance - abs(float(d))) for d, e in zip(off, expanded, strict=True) if abs(tolerance - abs(float(d))) < e)
    now = float(max(expanded))
    more = found if found and found[1] < BETTERS * now else None
    return finding(
        "pickup.close",
        sure=now,
        tolerance=tolerance,
        room=room,
        reading=more[0].said if more else None,
        then=more[1] if more else None,
        does=bool(more and more[1] <= room),
    )


def doubt_of(wrong: Wrong | None) -> Finding | None:
    """Return which readings are to be taken again before a point is judged that hangs on them; None where none is in doubt."""
    if wrong is None:
        return None
    if not wrong.doubted:
        return finding("pickup.no-agreement")
    names = list(dict.fromkeys(r.said for r in wrong.doubted))
    return finding("pickup.doubt", one=len(names) == 1, readings=names[:3], more=max(len(names) - 3, 0))


def _accepted(frame: Frame, name: str) -> str:
    """Return why a point's deviation was accepted; empty where it was not, or the point may have moved since."""
    number, reason = frame.log.works.accepted.get(name, (0, ""))
    disturbed = frame.last_disturbance(name)
    return "" if disturbed and disturbed.number > number else reason


def _why_unknown(frame: Frame, name: str) -> Finding:
    laid, why = frame.laid
    if laid is None and why is not None and frame.network is not None and name in frame.network.determined:
        return finding("pickup.not-laid", why=why)
    if frame.network is None or name not in frame.network.names:
        return finding("pickup.unmeasured")
    way = next((f.direction for f in frame.network.free if f.point == name), None)
    if way is None:
        return finding("pickup.measure")
    return finding("pickup.free", axis=("station", "offset", "height")[int(np.argmax(np.abs(way)))])


def _stale(frame: Frame, name: str) -> Finding | None:
    """Return why an earlier place of a point does not count any more; None where it never had one."""
    read = any(name in n.read.points for n in frame.log.noted)
    disturbed = frame.last_disturbance(name)
    return disturbed.said if read and disturbed else None


def move_of(by: Array, expanded: Array) -> tuple[Finding, ...]:
    """Return a movement way by way, largest first; what is within its own doubt is left out."""
    parts = [(abs(float(v)), WAYS[k][0 if v > 0 else 1]) for k, v in enumerate(by) if abs(v) > expanded[k]]
    return tuple(finding("pickup.way", size=size, way=way) for size, way in sorted(parts, reverse=True))


def _computed(body: Body, names: tuple[str, ...]) -> dict[str, Array]:
    """Return what a millimetre of each point does, links keeping their lengths, wheel held: answer to (points, 3)."""
    swept = sweep(body, np.zeros(1))
    wanted = [Parameter(n, k) for n in names for k in range(3)]
    by = sensitivities(swept, wanted, rates=False)
    side = "left." if body.is_axle else ""
    found = {a: by[side + a][:, 0].reshape(-1, 3) for a in WATCHED if side + a in by}
    if body.springs:
        ratio = f"{body.springs[0].name}.ratio"
        if ratio in by:
            found["ratio"] = by[ratio][:, 0].reshape(-1, 3)
    if not body.is_axle:
        found["roll_centre_height"] = _roll_centre_worth(swept, by).reshape(-1, 3)
    return found


def _roll_centre_worth(swept: Sweep, by: Mapping[str, Array]) -> Array:
    """Return by how much the roll centre of a pair rises for a change at this wheel alone, the other as planned."""
    now = swept.answers
    side = swept.body.wheels[0].side
    names = ("contact_y", "contact_z", "contact_slope")
    other = {k: -now[k] if k == "contact_y" else now[k] for k in names}

    def height(mine: Mapping[str, Array]) -> float:
        left, right = (mine, other) if side > 0 else (other, mine)
        return float(roll_centre(dict(left), dict(right))[0][0])

    out = np.zeros(len(by["contact_y"]))
    step = 1e-4
    for k in names:
        ends = [height({n: now[n] + (d if n == k else 0.0) for n in names}) for d in (step, -step)]
        out += (ends[0] - ends[1]) / (2 * step) * by[k][:, 0]
    return np.asarray(out)


def _named(answer: str) -> Named:
    return named(answer) or Named("Motion ratio", "", 3)


def _together(body: Body, off: Mapping[str, Array], own: Mapping[str, str], frame: Frame) -> tuple[Effect, ...]:
    """Return what all measured deviations of a body do together, by a full solve with the links keeping their lengths."""
    built = body.built({n: tuple(np.asarray(frame.planned[own[n]]) + d) for n, d in off.items()})
    side = "left." if body.is_axle else ""
    try:
        before, after = sweep(body, np.zeros(1)).answers, sweep(built, np.zeros(1)).answers
    except ReadyCornerError:
        return ()
    rows = [Effect(a, _named(a), float((after[side + a] - before[side + a])[0])) for a in WATCHED if side + a in before]
    if body.springs and f"{body.springs[0].name}.ratio" in before:
        name = f"{body.springs[0].name}.ratio"
        rows.append(Effect("ratio", _named("ratio"), float((after[name] - before[name])[0])))
    return tuple(rows)


def _options(
    plan: Plan,
    body: Body,
    off: Array,
    verdict: Verdict,
    effects: Sequence[Effect],
    move: tuple[Finding, ...],
    moved: Mapping[str, float],
) -> tuple[Option, ...]:
    """Return what can be done about a point, the one that spoils least first."""
    by = {e.answer: e.by for e in effects}
    corner = next((c for c in CORNERS if c == body.name), None) or ("LF" if END_OF["LF"] == body.name else "LR")
    small = all(abs(by.get(f"{k}_deg", 0.0)) <= FAR_INSIDE * _tolerance(plan, corner, k) for k in ("camber", "toe"))
    bump = abs(by.get("toe_deg_per_mm", 0.0)) * TRAVEL_MM <= FAR_INSIDE * 2 * _tolerance(plan, corner, "toe")
    options = []
    if verdict == "holds":
        return (Option("leave it", finding("pickup.holds"), 0),)
    if small and bump:
        options.append(Option("leave it", finding("pickup.far-inside"), 0))
    taken = _taken_up(plan, corner, by.get("camber_deg", 0.0), by.get("toe_deg", 0.0), moved)
    if taken and bump:
        options.append(Option("take it up", taken, 2))
    size = float(np.linalg.norm(off))
    if size <= SHIM_MM:
        options.append(Option("shim", finding("pickup.shim", move=move), 3))
    options.append(Option("cut and move", finding("pickup.move", move=move), len(effects)))
    return tuple(sorted(options, key=lambda o: o.spoils))


def _tolerance(plan: Plan, corner: Corner, kind: str) -> float:
    aim = plan.aim(f"{corner}.{kind}")
    return aim.tolerance if aim else 0.2


def _taken_up(plan: Plan, corner: Corner, camber: float, toe: float, moved: Mapping[str, float]) -> Finding | None:
    """Return which adjusters take up a change of camber and toe, in whole flats with the room that is left; None where none can."""
    worth = predicted(plan, corner)
    links: list[Adjuster] = [
        a for a in plan.adjusters if a.corner == corner and not a.raises and worth and a.id in worth["camber"].adjusters
    ]
    if not links:
        return None
    matrix = np.array([[worth[k].of(a.id) or 0.0 for a in links] for k in ("camber", "toe")])
    scale = np.array([1 / _tolerance(plan, corner, k) for k in ("camber", "toe")])
    turns = np.linalg.lstsq(matrix * scale[:, None], -np.array([camber, toe]) * scale, rcond=1e-9)[0]
    steps = np.array([a.flats_per_step / FLATS_PER_TURN for a in links])
    turns = np.round(turns / steps) * steps
    left = (np.array([camber, toe]) + matrix @ turns) * scale
    rooms = [a.room(moved.get(a.id, 0.0)) for a in links]
    if np.abs(left).max() > 0.5 or any(not low - 1e-9 <= t <= high + 1e-9 for t, (low, high) in zip(turns, rooms, strict=True)):
        return None
    said = []
    for adjuster, t, (low, high) in zip(links, turns, rooms, strict=True):
        if t:
            room = (high - t) if t > 0 else (t - low)
            left_over = int(room + 1e-9) if adjuster.notched else int(room * FLATS_PER_TURN + 1e-9) / FLATS_PER_TURN
            (size, way), (rest, onward) = turn_parts(adjuster, float(t)), turn_parts(adjuster, math.copysign(left_over, t))
            turned = finding("pickup.turn", adjuster=adjuster.name, size=size, way=way, rest=rest, onward=onward)
            said.append(turned)
    return finding("pickup.taken-up", turns=said) if said else None
