"""A plan made into metal: its parts, rods and springs as somebody built them, ready to come to rest.

Pickups lie where they were welded, links are as long as they were made, springs and tyres are off their labels; adjusters move what the plan says they
move, links keeping their lengths. Nothing of the engines that judge a car is used.

Source: the points of the plan; docs/practice.md.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.plan.corners import CORNERS, END_OF, SIDE, Corner
from ready_corner.core.plan.plan import Adjuster, Linkage, Perch, Plan
from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.simulation.metal import GRAVITY, Guides, Metal, Rest, Rods, Tyres, at_rest, tensions

FloatArray = NDArray[np.float64]
HEIGHT_MM = 100.0  # of a place whose height the plan does not give
# N/mm of a rod; of upper links of an axle that is held once too often, whose bushes give; of one not bolted up yet.
STIFF, BUSHED, LOOSE = 1e6, 2e3, 1.0
STAGES = 8  # in which a car is brought far from where it is drawn
MASS_KG, UNSPRUNG_KG, HIGH_MM, SPRING, TYRE, AT_WHEEL = 650.0, 25.0, 350.0, 45.0, 200.0, 22.0  # where the plan does not say
WHEEL_LINKS: Mapping[str, tuple[tuple[str, str, str], ...]] = {
    "double wishbone": (
        *((f"{h} {leg} leg", f"{h}.{leg}", f"{h}.ball") for h in ("upper", "lower") for leg in ("front", "rear")),
        ("tie rod", "tie.inner", "tie.outer"),
    ),
    "five link": (
        *((f"link{i}", f"link{i}.inner", f"link{i}.outer") for i in range(1, 5)),
        ("tie rod", "tie.inner", "tie.outer"),
    ),
    "strut": (
        *((f"lower {leg} leg", f"lower.{leg}", "lower.ball") for leg in ("front", "rear")),
        ("tie rod", "tie.inner", "tie.outer"),
    ),
    "trailing arm": tuple((f"rod{i}", f"rod{i}.inner", f"rod{i}.outer") for i in (1, 2)),
    "hinged arm": (),
}
AXLE_LINKS: Mapping[str, tuple[tuple[str, str, str], ...]] = {
    "four link axle": tuple(
        (f"{h} {s}", f"{h}.{s}.body", f"{h}.{s}.axle") for h in ("upper", "lower") for s in ("left", "right")
    ),
    "three link axle": (
        ("upper", "upper.body", "upper.axle"),
        *((f"lower {s}", f"lower.{s}.body", f"lower.{s}.axle") for s in ("left", "right")),
    ),
}
PINS = {"trailing arm": ("arm.front",), "hinged arm": ("hinge.inner", "hinge.outer")}
ARMS = {
    "upper": ("upper.front", "upper.rear", "upper.ball"),
    "lower": ("lower.front", "lower.rear", "lower.ball"),
    "hinge": ("hinge.inner", "hinge.outer", "wheel"),
}
OF_AXIS = {"double wishbone": ("lower.ball", "upper.ball"), "strut": ("lower.ball", "strut.top")}


def spin_axis(toe: float, camber: float, side: int) -> FloatArray:
    """Return the spin axis of a wheel, outboard, that points ``toe`` in and leans ``camber``, degrees, over level ground."""
    t, c = np.radians([toe, camber])
    return np.array([np.sin(t) * np.cos(c), side * np.cos(t) * np.cos(c), -np.sin(c)])


@dataclass
class _Making:
    """Rows of rods and guides while a car is put together: part, point, part, point (design axes), what it belongs to, and its stiffness."""

    middles: list[FloatArray] = field(default_factory=lambda: [np.zeros(3)])
    rods: list[tuple[int, FloatArray, int, FloatArray, str, float]] = field(default_factory=list)
    guides: list[tuple[int, FloatArray, int, FloatArray, FloatArray]] = field(default_factory=list)
    points: dict[str, tuple[int, FloatArray]] = field(default_factory=dict)  # “LF.upper.ball”: its part and place

    def part(self, middle: FloatArray) -> int:
        self.middles.append(middle)
        return len(self.middles) - 1

    def guide(self, a: int, b: int, at: FloatArray, *ways: FloatArray) -> None:
        """Keep a point of one part where it is in another along some directions."""
        self.guides += [(a, at, b, at, way) for way in ways]

    def pin(self, a: int, b: int, at: FloatArray) -> None:
        """Keep a point of one part on that of another."""
        self.guide(a, b, at, *np.eye(3))


class Standing:
    """A car of a plan as it was built: pickups off by ``built`` mm along each axis, springs and tyres by a share ``springs`` of their rates, drawn from ``rng``."""

    def __init__(self, plan: Plan, rng: np.random.Generator, built: float, springs: float) -> None:
        self.plan = plan
        self._made = _Making()
        self._springs: dict[Corner, int] = {}
        self._wheels: dict[Corner, tuple[int, FloatArray, FloatArray]] = {}
        self._axes: dict[Corner, tuple[str, str]] = {}
        for end in ("front", "rear"):
            self._hang(end)
        self._metal = self._forged()
        self._drawn = Rest(np.array(self._made.middles), np.tile(np.eye(3), (len(self._made.middles), 1, 1)))
        self._as_built(rng, built, springs)
        self._last: dict[bool, Rest] = {}

    # ---- what it comes to ----

    def at(self, turns: Mapping[str, float], ground: FloatArray, sticks: FloatArray) -> Rest:
        """Return where it rests with adjusters turned so far, on ground of so many mm under each tyre (4,), each spring held off by ``sticks`` mm (4,)."""
        start = self._last.get(bool(ground.any()), self._drawn)
        try:
            found = at_rest(self._turned(turns, sticks), start, ground)
        except CalledError:  # by stages, from where it is drawn
            found = self._drawn
            for share in np.linspace(1 / STAGES, 1.0, STAGES):
                found = at_rest(self._turned({a: share * t for a, t in turns.items()}, share * sticks), found, share * ground)
        self._last[bool(ground.any())] = found
        return found

    def wheel(self, rest: Rest, corner: Corner) -> tuple[FloatArray, FloatArray]:
        """Return the middle of a wheel, and its spin axis, outboard."""
        part, at, axis = self._wheels[corner]
        return rest.place(part, at - self._made.middles[part]), rest.way(part, axis)

    def height(self, rest: Rest, corner: Corner) -> float:
        """Return how far the place of a height is over the ground of the drawing, mm more than as drawn."""
        place = self.plan.height_place(corner)
        at = np.array([place.station, place.offset, place.height or HEIGHT_MM])
        return float(rest.place(0, at)[2] - at[2])

    def axis(self, rest: Rest, corner: Corner) -> FloatArray | None:
        """Return the unit steering axis of a wheel, pointing up; None where it has no two joints."""
        names = self._axes.get(corner)
        if names is None:
            return None
        low, high = (self._point(rest, f"{corner}.{n}") for n in names)
        return np.asarray((high - low) / np.linalg.norm(high - low))

    def _point(self, rest: Rest, name: str) -> FloatArray:
        part, at = self._made.points[name]
        return rest.place(part, at - self._made.middles[part])

    # ---- how it is put together ----

    def _given(self, name: str, twin: str, mirrored: bool) -> FloatArray | None:
        own = self.plan.points.get(name)
        if own is None and mirrored and (other := self.plan.points.get(twin)) is not None:
            own = (other[0], -other[1], other[2])
        return None if own is None else np.array(own, dtype=float)

    def _hang(self, end: str) -> None:
        corners = [c for c in CORNERS if END_OF[c] == end]
        linkage = self.plan.linkage(end)  # type: ignore[arg-type]
        if linkage is not None and linkage.layout in AXLE_LINKS:
            self._hang_axle(end, linkage, corners)
            return
        for c in corners:
            if linkage is not None:
                self._hang_wheel(c, linkage)
            else:
                station, offset = self.plan.wheel_place(c)
                middle = np.array([station, offset, self.plan.axle_of(c).tyre_diameter / 2])
                part = self._wheel(c, middle, 0.0, 0.0, self._made.part(middle))
                along, across, up = np.eye(3)
                for at in (middle, middle + 200.0 * up):
                    self._made.guide(part, 0, at, along, across)
                self._made.guide(part, 0, middle + 200.0 * along, across)
                self._upright_spring(c, part, middle)

    def _wheel(self, c: Corner, middle: FloatArray, toe: float, camber: float, part: int) -> int:
        self._wheels[c] = part, middle, spin_axis(toe, camber, SIDE[c])
        return part

    def _upright_spring(self, c: Corner, part: int, at: FloatArray) -> None:
        """A spring straight over the wheel, where the plan draws none."""
        self._springs[c] = len(self._made.rods)
        self._made.rods.append((0, at + np.array([0, 0, 400.0]), part, at, f"{c} spring", AT_WHEEL))

    def _hang_wheel(self, c: Corner, linkage: Linkage) -> None:
        made, twin = self._made, c.replace("R", "L", 1) if c.startswith("R") else c
        places = {
            n.split(".", 1)[1]: p
            for n in self.plan.points
            if n.split(".", 1)[0] == twin
            if (p := self._given(f"{c}.{n.split('.', 1)[1]}", n, linkage.mirrored)) is not None
        }
        middle = places["wheel"]
        part = self._wheel(c, middle, linkage.toe_deg, linkage.camber_deg, made.part(middle))
        for name, inner, outer in WHEEL_LINKS[linkage.layout]:
            made.points |= {f"{c}.{inner}": (0, places[inner]), f"{c}.{outer}": (part, places[outer])}
            made.rods.append((0, places[inner], part, places[outer], f"{c}.{name}", STIFF))
        for name in PINS.get(linkage.layout, ()):
            made.points[f"{c}.{name}"] = (0, places[name])
            made.pin(part, 0, places[name])
        if linkage.layout == "strut":
            along = places["strut.top"] - places["strut.foot"]
            first = np.cross(along, (1.0, 0, 0)) / np.linalg.norm(np.cross(along, (1.0, 0, 0)))
            second = np.cross(along, first) / np.linalg.norm(along)
            made.points |= {f"{c}.strut.top": (0, places["strut.top"]), f"{c}.strut.foot": (part, places["strut.foot"])}
            made.guide(0, part, places["strut.top"], first, second)
        if axis := OF_AXIS.get(linkage.layout):
            self._axes[c] = axis
        self._spring_of(c, linkage, places, part)

    def _spring_of(self, c: Corner, linkage: Linkage, places: Mapping[str, FloatArray], part: int) -> None:
        made, on = self._made, {"car": 0, "upright": part}

        def where(of: str) -> int:
            if of not in on:
                first, second, joint = (places[n] for n in ARMS[of])
                on[of] = made.part(joint)
                for at in (first, second):
                    made.pin(on[of], 0, at)
                flat = np.cross(second - first, joint - first)
                made.guide(part, on[of], joint, flat / np.linalg.norm(flat))
            return on[of]

        if linkage.rocker:
            own = linkage.rocker
            on["rocker"] = made.part(places[own.push])
            for name in (own.first, own.second):
                made.pin(on["rocker"], 0, places[name])
            made.rods.append((on["rocker"], places[own.push], where(own.rod.on), places[own.rod.point], f"{c} pushrod", STIFF))
        for spring in linkage.springs[:1]:
            if spring.rate or len(linkage.springs) == 1:
                a, b = spring.ends
                self._springs[c] = len(made.rods)
                made.rods.append(
                    (where(a.on), places[a.point], where(b.on), places[b.point], f"{c} spring", spring.rate or SPRING)
                )
        if c not in self._springs:
            self._upright_spring(c, part, places["wheel"])

    def _hang_axle(self, end: str, linkage: Linkage, corners: list[Corner]) -> None:
        made = self._made

        def at(name: str) -> FloatArray:
            twin = name.replace(".right.", ".left.") if ".right." in name else name.replace("right.", "left.", 1)
            found = self._given(f"{end}.{name}", f"{end}.{twin}", linkage.mirrored and twin != name)
            assert found is not None
            return found

        wheels = {c: at("left.wheel" if SIDE[c] > 0 else "right.wheel") for c in corners}
        part = made.part((wheels[corners[0]] + wheels[corners[1]]) / 2)
        links = list(AXLE_LINKS[linkage.layout])
        if f"{end}.panhard.body" in self.plan.points:
            links.append(("Panhard rod", "panhard.body", "panhard.axle"))
        for name, inner, outer in links:
            made.points |= {f"{end}.{inner}": (0, at(inner)), f"{end}.{outer}": (part, at(outer))}
            stiff = BUSHED if len(links) > 4 and name.startswith("upper") else STIFF
            made.rods.append((0, at(inner), part, at(outer), f"{end}.{name}", stiff))
        for c in corners:
            self._wheel(c, wheels[c], linkage.toe_deg, linkage.camber_deg, part)
        for spring in linkage.springs:
            (a, b), on = (at(s.point) for s in spring.ends), {"car": 0, "upright": part}
            own = corners[0] if b[1] > 0 else corners[1]
            self._springs[own] = len(made.rods)
            first, second = (on.get(s.on, part) for s in spring.ends)
            made.rods.append((first, a, second, b, f"{own} spring", spring.rate or SPRING))
        for c in corners:
            if c not in self._springs:
                self._upright_spring(c, part, wheels[c])

    def _forged(self) -> Metal:
        made, plan = self._made, self.plan
        middles = made.middles
        rods = Rods(
            np.array([r[0] for r in made.rods]),
            np.array([r[2] for r in made.rods]),
            np.array([[r[1] - middles[r[0]], r[3] - middles[r[2]]] for r in made.rods]),
            np.array([float(np.linalg.norm(r[1] - r[3])) for r in made.rods]),
            np.array([r[5] for r in made.rods]),
        )
        guides = Guides(
            np.array([g[0] for g in made.guides], dtype=np.int64),
            np.array([g[2] for g in made.guides], dtype=np.int64),
            np.array([[g[1] - middles[g[0]], g[3] - middles[g[2]]] for g in made.guides]).reshape(-1, 2, 3),
            np.array([g[4] for g in made.guides]).reshape(-1, 3),
            np.full(len(made.guides), STIFF),
        )
        feet = plan.footing
        carried = np.array(
            [
                (feet.mass or MASS_KG)
                * (feet.front if END_OF[c] == "front" else 1 - feet.front)
                * (feet.left if SIDE[c] > 0 else 1 - feet.left)
                for c in CORNERS
            ]
        )
        unsprung = np.array(
            [min(feet.end(END_OF[c]).unsprung or UNSPRUNG_KG, 0.5 * carried[CORNERS.index(c)]) for c in CORNERS]
        )
        at = np.array([self._wheels[c][1] for c in CORNERS])
        sprung = carried - unsprung
        hangs = [
            sprung @ at[:, 0] / sprung.sum(),
            sprung @ at[:, 1] / sprung.sum(),
            plan.loads.height if plan.loads else HIGH_MM,
        ]
        weights = [
            [0.0, *hangs],
            *([float(self._wheels[c][0]), *(self._wheels[c][1] - middles[self._wheels[c][0]])] for c in CORNERS),
        ]
        stiff = np.array([feet.end(END_OF[c]).tyre_rate or TYRE for c in CORNERS])
        axes = np.array([self._wheels[c][2] for c in CORNERS])
        radius = (at[:, 2] + GRAVITY * carried / stiff) / np.sqrt(1 - axes[:, 2] ** 2)
        tyres = Tyres(
            np.array([self._wheels[c][0] for c in CORNERS]),
            np.array([self._wheels[c][1] - middles[self._wheels[c][0]] for c in CORNERS]),
            axes,
            radius,
            stiff,
        )
        free = np.ones(6 * len(middles), dtype=bool)
        free[[0, 1, 5]] = False  # the tyres keep the car where it was rolled to
        return Metal(len(middles), rods, guides, tyres, np.array(weights), GRAVITY * np.array([sprung.sum(), *unsprung]), free)

    def _as_built(self, rng: np.random.Generator, built: float, springs: float) -> None:
        """Put pickups where they were welded and springs off their labels, each as long as carries the car as drawn."""
        m = self._metal
        soft = np.zeros(len(m.rods.a), dtype=bool)
        soft[list(self._springs.values())] = True
        carry, push = tensions(m, self._drawn, soft)
        label = np.clip(rng.normal(1, springs, len(soft)), 0.7, 1.3)
        stiff = np.where(soft, m.rods.stiff * label, m.rods.stiff)
        welded: dict[tuple[float, ...], FloatArray] = {}
        at = m.rods.at.copy()
        for k, (a, b) in enumerate(zip(m.rods.a, m.rods.b, strict=True)):
            for side, part in enumerate((a, b)):
                if part == 0:
                    key = tuple(np.round(at[k, side], 6))
                    welded.setdefault(key, rng.normal(0, built, 3))
                    at[k, side] = at[k, side] + welded[key]
        ahead = m.guides.at.copy()
        for k, (a, b) in enumerate(zip(m.guides.a, m.guides.b, strict=True)):
            if 0 in (a, b):
                side = 0 if a == 0 else 1
                ahead[k, side] = ahead[k, side] + welded.setdefault(tuple(np.round(ahead[k, side], 6)), rng.normal(0, built, 3))
        ahead[:, 1] -= m.guides.way * (push / m.guides.stiff)[:, None]
        tyres = m.tyres.stiff * np.clip(rng.normal(1, springs, 4), 0.7, 1.3)
        long = m.rods.long - carry / stiff
        rods, guides = replace(m.rods, at=at, long=long, stiff=stiff), replace(m.guides, at=ahead)
        self._metal = replace(m, rods=rods, guides=guides, tyres=replace(m.tyres, stiff=tyres))
        # The last link of an axle that is held once too often is made to fit.
        if fitted := [k for k, rod in enumerate(self._made.rods) if rod[5] == BUSHED][1::2]:
            loose = np.where(np.isin(np.arange(len(stiff)), fitted), LOOSE, stiff)
            rest = at_rest(replace(self._metal, rods=replace(rods, stiff=loose)), self._drawn, np.zeros(4))
            for k in fitted:
                ends = [rest.place(int(p), at[k, side]) for side, p in enumerate((rods.a[k], rods.b[k]))]
                long[k] = float(np.linalg.norm(ends[0] - ends[1])) - carry[k] / stiff[k]

    # ---- what is turned ----

    def _turned(self, turns: Mapping[str, float], sticks: FloatArray) -> Metal:
        m = self._metal
        at, long, ahead = m.rods.at.copy(), m.rods.long.copy(), m.guides.at.copy()
        for corner, rod in self._springs.items():
            long[rod] += sticks[CORNERS.index(corner)]
        for a in self.plan.adjusters:
            if by := turns.get(a.id, 0.0):
                self._turn(a, by, at, long, ahead)
        return replace(m, rods=replace(m.rods, at=at, long=long), guides=replace(m.guides, at=ahead))

    def _turn(self, a: Adjuster, by: float, at: FloatArray, long: FloatArray, ahead: FloatArray) -> None:
        if a.raises:
            spring = self._springs[a.corner]
            straight = self._made.rods[spring][5] == AT_WHEEL
            long[spring] += by * (a.by.per_step if isinstance(a.by, Perch) and not straight else a.lift_per_step)
            return
        if a.moves is None:
            return
        mm, name = a.even(by) * a.length_per_step, a.moves.name
        names = {name, f"{END_OF[a.corner]}.{name.split('.', 1)[1]}"}
        if a.moves.direction is None:
            for k, rod in enumerate(self._made.rods):
                if rod[4] in names:
                    long[k] += mm
            return
        way = np.array(a.moves.direction, dtype=float)
        own = next((self._made.points[n] for n in names if n in self._made.points), None)
        if own is None:
            return
        part, place = own
        shift = mm * way / np.linalg.norm(way)
        for made, moved in ((self._made.rods, at), (self._made.guides, ahead)):
            for k, (first, p, second, q, *_) in enumerate(made):
                for side, of, point in ((0, first, p), (1, second, q)):
                    if of == part and np.allclose(point, place):
                        moved[k, side] += shift
