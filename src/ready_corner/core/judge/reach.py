"""What a turn of every adjuster does by the plan to every corner mark: its own angles, and through springs and tyres heights, loads and the other corners.

Small changes about the plan's stance. A link first moves its wheel with the spring keeping its length; what that lifts the chassis by, and
what a perch lifts it by, is shared out by the least energy of a stiff chassis on its springs and tyres; the angles then go with the travel of
each wheel and, relative to the ground, with roll and pitch of the body. A live axle is one part.

Source: stiffness matrices of springs, bars and tyres; docs/stance.md, docs/choices.md (What no longer holds).
"""

import math
from collections.abc import Iterator, Mapping, Set
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.engines.learning import WorthOfTurns
from ready_corner.core.engines.linkage.sweep import Sweep, sweep
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.model.bodies import bodies_of
from ready_corner.core.model.leaning import leaning, leans, pitch
from ready_corner.core.model.predicted import LEAST_DEG, PART_TRUSTED, by_turn
from ready_corner.core.model.springs_of_plan import ROLL_STEP_DEG, Response, Springing, places, raised_by, response
from ready_corner.core.model.usual import usual_hub, usual_of
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, SIDE, Corner, End
from ready_corner.core.plan.marks import ANGLES, MARK_KINDS, STEERED
from ready_corner.core.plan.plan import Adjuster, Plan
from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.record.happenings import LOAD, TYRE

FloatArray = NDArray[np.float64]

# Standard uncertainties. Springs of the plan are seldom known better than to a tenth; even springs taken for want of it, than to two fifths.
SPRINGS_TRUSTED, SPRINGS_GUESSED = 0.1, 0.4
LEAST_MM, LEAST_KG = 0.02, 0.05  # a turn
UNTOLD_PER_MM = {
    "caster": 0.03,
    "inclination": 0.03,
    "camber": 0.025,
    "toe": 0.01,
}  # degrees a millimetre of travel, of a wheel whose linkage the plan does not tell
LEAST_PER_MM = 0.003
SHARED_TRUSTED = 0.6  # of what a link does to an axle that is held once too often: which of its links give is not drawn
STEP_MM = 0.05  # of central differences over travel


@dataclass(frozen=True)
class Wheels:
    """How the angles of the wheels (4,) go with their travel (4,): ``by_travel`` (4, 4) degrees a mm a kind, nan where the plan does not tell;
    what they are as ``drawn``, (4,) degrees a kind, nan likewise; ``axle`` (4,) of bool."""

    by_travel: Mapping[str, FloatArray]
    drawn: Mapping[str, FloatArray]
    axle: FloatArray


@dataclass(frozen=True)
class Reach:
    """What one turn (or shim) of each adjuster does: to every corner mark in ``marks``, mm, degrees, kg; to the middle of every wheel in ``hubs``, mm outwards over
    the ground; each with its covariance; to an axle ``along`` the car by its links, mm forward of its middle, by adjuster."""

    marks: Mapping[str, WorthOfTurns]
    hubs: Mapping[Corner, WorthOfTurns]
    along: Mapping[End, Mapping[str, float]]


def reach(plan: Plan, springs: Springing, bar_on: bool) -> Reach:
    """Return what one turn (or shim) of each adjuster, and what else is changed by so much, does to marks and hubs by the plan.

    Where the plan tells no linkage, or not what a link moves, it is what such links are usually worth; what nothing is known of is left out.
    Source: linkage and springs together, docs/stance.md.
    """
    at = places(plan)
    there = np.array([[1.0, p.station, p.offset] for p in (plan.height_place(c) for c in CORNERS)])
    swept = _swept(plan)
    shared = {a.id for a in plan.adjusters if a.corner in swept and swept[a.corner].body.held_too_much}
    bends = {a.id: float(springs.bends[CORNERS.index(a.corner)]) for a in plan.adjusters if a.raises}
    table = _Table(at, there, springs, wheels_of(plan), shared, bends)
    by_travel, links = _hubs_by_travel(plan, swept), _links(plan, swept)
    for name, lift, own in _changes(plan, springs, bar_on, links):
        table.add(name, lift, own, least=name not in LOAD[1:])
        table.add_hubs(name, lift, own, by_travel, least=name not in LOAD)
    for adjuster in plan.adjusters:
        for kind, usual in usual_of(plan, adjuster).items():
            mark = f"{adjuster.corner}.{kind}"
            if mark in table.found and adjuster.id not in table.found[mark]:
                table.found[mark][adjuster.id] = usual
        if not adjuster.raises:
            table.hubs[adjuster.corner].setdefault(adjuster.id, (0.0, usual_hub(adjuster)))
    along: dict[End, dict[str, float]] = {end: {} for end in ENDS}
    for adjuster in plan.adjusters:
        if adjuster.id in links and swept[adjuster.corner].body.is_axle:
            forward = [v for (_, kind), v in links[adjuster.id].items() if kind == "forward"]
            along[END_OF[adjuster.corner]][adjuster.id] = sum(forward) / len(forward)
    return Reach(
        {m: _worth(rows) for m, rows in table.found.items()}, {c: _worth(rows) for c, rows in table.hubs.items()}, along
    )


def _changes(
    plan: Plan, springs: Springing, bar_on: bool, links: Mapping[str, Mapping[tuple[Corner, str], float]]
) -> Iterator[tuple[str, "_Lift", Mapping[tuple[Corner, str], float] | None]]:
    """Yield what one turn of each adjuster, a millimetre of each tyre and each load does to the car on its springs, and what it does to its own wheels besides."""
    at, supports = places(plan), springs.supports(bar_on)
    lifted, turned = response(at, supports), response(at, supports, springs.lifts(bar_on))
    still = np.zeros(4)
    for adjuster in plan.adjusters:
        if adjuster.raises:
            rise = raised_by(adjuster, springs)
            yield adjuster.id, _Lift(turned.heights @ rise, turned.loads @ rise, still), None
        elif adjuster.id in links:
            own = links[adjuster.id]
            yield adjuster.id, _Lift.of(lifted, np.array([own.get((c, "rise"), 0.0) for c in CORNERS])), own
    for i, c in enumerate(CORNERS):
        yield TYRE[c], _Lift.of(lifted, np.eye(4)[i]), None
    p = np.column_stack([np.ones(4), at])
    for name, one in zip(
        LOAD, -GRAVITY * np.eye(3), strict=True
    ):  # a kilogram at the origin, and its millimetre forward or left of it
        heights = p @ np.linalg.solve(p.T @ supports @ p, one)
        yield name, _Lift(heights, -supports @ heights, still), None


@dataclass(frozen=True)
class _Lift:
    """What a change does to the car on its springs: ``heights`` (4,) of the chassis at the wheels, mm, ``loads`` (4,) N, and by how much it moves the ``wheels`` themselves, (4,) mm."""

    heights: FloatArray
    loads: FloatArray
    wheels: FloatArray

    @classmethod
    def of(cls, how: Response, rise: FloatArray) -> "_Lift":
        """Return that of wheels which stand higher under the chassis by ``rise`` (4,): links, tyres, pads."""
        return cls(how.heights @ rise, how.loads @ rise, rise)

    def travel(self, tyres: FloatArray) -> FloatArray:
        """Return how far each wheel rises against the chassis, (4,) mm."""
        return self.wheels - self.heights - self.loads / tyres


@dataclass
class _Table:
    """What every change does to every corner mark, with its standard uncertainty, being filled in."""

    at: FloatArray
    there: FloatArray
    springs: Springing
    wheels: Wheels
    shared: Set[str]  # links of an axle that is held once too often
    bends: Mapping[str, float]  # of what raises a corner, as ``Springing`` has it
    found: dict[str, dict[str, tuple[float, float]]] = field(
        default_factory=lambda: {f"{c}.{k}": {} for k in ("height", *ANGLES, "load") for c in MARK_KINDS[k].corners}
    )

    hubs: dict[Corner, dict[str, tuple[float, float]]] = field(default_factory=lambda: {c: {} for c in CORNERS})

    def trusted(self, name: str) -> float:
        """Return the share of what springs do, once something is changed, by which it is not known: of a perch the more, the more its ratio changes with travel."""
        return math.hypot(SPRINGS_TRUSTED if self.springs.known else SPRINGS_GUESSED, self.bends.get(name, 0.0) / 2)

    def part(self, name: str) -> float:
        """Return the share of what a link does to its own wheels by which that is not known."""
        return SHARED_TRUSTED if name in self.shared else PART_TRUSTED

    def add_hubs(
        self, name: str, lift: _Lift, own: Mapping[tuple[Corner, str], float] | None, by_travel: FloatArray, least: bool
    ) -> None:
        """Add how far a change takes the middle of every wheel outwards: by what it does to its ``own`` wheels, and by their travel (``by_travel``, (4, 4))."""
        travel = lift.travel(self.springs.tyres)
        for i, c in enumerate(CORNERS):
            direct, along = (own or {}).get((c, "hub"), 0.0), float(by_travel[i] @ travel)
            some = LEAST_MM if (direct or along) and least else 0.0
            self.hubs[c][name] = direct + along, self.part(name) * abs(direct) + self.trusted(name) * abs(along) + some

    def add(self, name: str, lift: _Lift, own: Mapping[tuple[Corner, str], float] | None = None, least: bool = True) -> None:
        """Add a change: by its lift, and what it does to the angles of its ``own`` wheels besides. ``least``: whether it is doubted at all where it does nothing."""
        own, trusted = own or {}, self.trusted(name)
        wheels = np.column_stack([np.ones(4), self.at])
        heights = self.there @ np.linalg.lstsq(wheels, lift.heights, rcond=None)[0]
        doubt = least and bool(np.any(lift.heights))
        for kind, values, some in (("height", heights, LEAST_MM), ("load", lift.loads / GRAVITY, LEAST_KG)):
            for c, v in zip(CORNERS, values, strict=True):
                self.found[f"{c}.{kind}"][name] = float(v), trusted * abs(float(v)) + (some if doubt else 0.0)
        travel, lean, back = lift.travel(self.springs.tyres), leans(lift.heights, self.at), pitch(lift.heights, self.at)
        for kind, rows in self.wheels.by_travel.items():
            for c in MARK_KINDS[kind].corners:
                i = CORNERS.index(c)
                direct = own.get((c, kind), 0.0)
                told = bool(np.isfinite(rows[i]).all())
                with_travel = float(rows[i] @ travel) if told else 0.0
                # An axle lies on its tyres: it pitches with the body, and does not lean with it.
                camber = float(np.nan_to_num(self.wheels.drawn["camber"][i]))
                with_travel += leaning(kind, c, 0.0 if self.wheels.axle[i] else float(lean[i]), back, camber)
                u = self.part(name) * abs(direct) + (LEAST_DEG if (c, kind) in own else 0.0) + trusted * abs(with_travel)
                u += (LEAST_PER_MM if told else UNTOLD_PER_MM[kind]) * abs(float(travel[i]))
                self.found[f"{c}.{kind}"][name] = direct + with_travel, u


def is_usual(plan: Plan, adjuster: Adjuster) -> bool:
    """Whether what a link does is known only as such links usually are: the plan does not say what it moves, or has no linkage there.

    Source: model/usual.
    """
    return not adjuster.raises and (adjuster.moves is None or plan.linkage(END_OF[adjuster.corner]) is None)


def warped(plan: Plan, springs: Springing, wheels: Wheels, rises: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return what pads off one plane by ``rises`` (4,) mm do to camber and toe (4,) degrees: each wheel travels, and the body leans.

    Source: linkage and springs together, docs/stance.md.
    """
    at = places(plan)
    lift = _Lift.of(response(at, springs.supports()), rises)
    travel, side = lift.travel(springs.tyres), np.array([SIDE[c] for c in CORNERS])
    # A live axle lies on its two pads, the others lean with the body.
    lean = np.where(wheels.axle, leans(rises, at), leans(lift.heights, at))
    camber = np.where(wheels.axle, 0.0, np.nan_to_num(wheels.by_travel["camber"]) @ travel)
    return camber - side * lean, np.nan_to_num(wheels.by_travel["toe"]) @ travel


def _worth(rows: Mapping[str, tuple[float, float]]) -> WorthOfTurns:
    u = np.array([u for _, u in rows.values()])
    return WorthOfTurns.apart(list(rows), [v for v, _ in rows.values()], u**2)


def _swept(plan: Plan) -> dict[Corner, Sweep]:
    """Return the linkage of each corner at the plan's stance; the same for both corners of an axle, absent where the plan has none."""
    found: dict[Corner, Sweep] = {}
    for end in ENDS:
        corners = [c for c in CORNERS if END_OF[c] == end]
        try:
            bodies = bodies_of(plan, end)
            rows = [sweep(body, np.zeros(1)) for body in bodies]
        except ReadyCornerError:
            continue
        if rows:
            found |= dict(zip(corners, rows if len(rows) == 2 else rows * 2, strict=True))
    return found


def _hub_out(plan: Plan, c: Corner, foot: float, camber: float) -> float:
    """Return how far the middle of a wheel goes outwards, mm, whose lowest point goes to the left by ``foot`` mm while it leans by ``camber`` degrees more."""
    linkage = plan.linkage(END_OF[c])
    return SIDE[c] * foot + (linkage.loaded_radius if linkage else 0.0) * math.radians(camber)


def _hubs_by_travel(plan: Plan, swept: Mapping[Corner, Sweep]) -> FloatArray:
    """Return how far each middle of a wheel goes outwards for a millimetre of travel of each wheel, against the body, (4, 4); nothing where the plan has no linkage."""
    found = np.zeros((4, 4))
    for i, c in enumerate(CORNERS):
        if c not in swept:
            continue
        body, first = swept[c].body, i - i % 2
        side = ("left." if SIDE[c] > 0 else "right.") if body.is_axle else ""
        own = slice(first, first + 2) if body.is_axle else slice(i, i + 1)
        ends = sweep(body, STEP_MM * np.array([-1.0, 1.0])).answers
        foot, camber = (float(ends[side + n][1] - ends[side + n][0]) / (2 * STEP_MM) for n in ("contact_y", "camber_deg"))
        found[i, own] = _hub_out(plan, c, foot, camber) / (own.stop - own.start)
    return found


def wheels_of(plan: Plan) -> Wheels:
    """Return how the angles go with travel by the plan's linkages; reckoned once for a plan.

    Source: linkage and springs together, docs/stance.md.
    """
    rows = {kind: np.full((4, 4), np.nan) for kind in ANGLES}
    drawn, axle = {kind: np.full(4, np.nan) for kind in ANGLES}, np.zeros(4, dtype=bool)
    swept = _swept(plan)
    for i, c in enumerate(CORNERS):
        if c not in swept:
            continue
        body, answers = swept[c].body, swept[c].answers
        side, first = ("left." if SIDE[c] > 0 else "right.") if body.is_axle else "", i - i % 2
        for kind in ANGLES:
            if f"{side}{kind}_deg" in answers:
                drawn[kind][i], rows[kind][i] = float(answers[f"{side}{kind}_deg"][0]), 0.0
        own = slice(first, first + 2) if body.is_axle else slice(i, i + 1)
        for kind in (k for k in STEERED if np.isfinite(drawn[k][i])):
            ends = sweep(body, STEP_MM * np.array([-1.0, 1.0])).answers[f"{side}{kind}_deg"]
            rows[kind][i, own] = float(ends[1] - ends[0]) / (2 * STEP_MM) / (own.stop - own.start)
        if not body.is_axle:
            for kind in ("camber", "toe"):
                rows[kind][i, i] = float(answers[f"{kind}_deg_per_mm"][0])
            continue
        rolled = sweep(body, np.zeros(2), roll_deg=np.array([-ROLL_STEP_DEG, ROLL_STEP_DEG])).answers[f"{side}toe_deg"]
        wide = abs(body.shape.point(body.wheels[0].centre)[1] - body.shape.point(body.wheels[1].centre)[1])
        heave = float(answers[f"{side}toe_deg_per_mm"][0]) / 2
        by_roll = float(rolled[1] - rolled[0]) / (2 * ROLL_STEP_DEG) * float(np.degrees(1 / wide))
        rows["toe"][i, own] = heave + by_roll, heave - by_roll
        axle[i] = True
    return Wheels(rows, drawn, axle)


def _links(plan: Plan, swept: Mapping[Corner, Sweep]) -> dict[str, dict[tuple[Corner, str], float]]:
    """Return what one turn of each link does to the angles (degrees) of the wheels it moves, their springs keeping their length, and to how far
    each wheel then stands out under the chassis (“rise”, mm), and its middle goes outwards (“hub”, mm) and “forward”."""
    found: dict[str, dict[tuple[Corner, str], float]] = {}
    for corner in CORNERS:
        own = [a for a in plan.adjusters if a.corner == corner and a.moves and not a.raises]
        if not own or corner not in swept:
            continue
        body = swept[corner].body
        one = not body.is_axle
        corners = [corner] if one else [c for c in CORNERS if END_OF[c] == END_OF[corner]]
        side = {c: "" if one else "left." if SIDE[c] > 0 else "right." for c in corners}
        told = swept[corner].answers
        answers = [(k, f"{k}_deg", 1.0) for k in ANGLES if f"{side[corner]}{k}_deg" in told]
        answers += [("rise", "contact_z", -1.0), ("foot", "contact_y", 1.0), ("forward", "centre_x", 1.0)]
        by = by_turn(swept[corner], own, [side[c] + answer for c in corners for _, answer, _ in answers])
        for name, turned in by.items():
            does = {(c, kind): sign * turned[side[c] + answer] for c in corners for kind, answer, sign in answers}
            found[name] = does | {(c, "hub"): _hub_out(plan, c, does[c, "foot"], does[c, "camber"]) for c in corners}
    return found
