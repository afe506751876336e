"""Plans to practise on: a car of each of some layouts with every adjuster a builder would wish for, and tolerances that ordinary tools can prove.

Source: docs/practice.md.
"""

from dataclasses import replace

import numpy as np

from ready_corner.core.judge.reach import wheels_of
from ready_corner.core.plan.corners import CORNERS, END_OF, SIDE, Corner
from ready_corner.core.plan.plan import Adjuster, Moves, Perch, Plan, ThreadedEnd, Ways, places_of
from ready_corner.core.quantities.verdict import Aim

# By which point or member each end sets its camber; an end that is one axle sets none.
CAMBER_BY: dict[str, tuple[str, str]] = {
    "heather": ("upper.ball", "upper.ball"),
    "five-link": ("upper.ball", "link1"),
    "tern": ("lower.ball", ""),
    "three-link-axle": ("upper.ball", ""),
}
LAYOUTS = tuple(CAMBER_BY)
WAYS = Ways(strings_on="stands", span=1.0)  # strings on stands, spans measured; of hubs and rims nothing is known beforehand
SQUARED = ("three-link-axle",)  # axles that are; of one that is held once too often a link by itself only binds it
CASTER_BY = {"five-link": "bar", "three-link-axle": "plumb"}  # the others sweep it on plates
TOLERANCES = {"height": 3.0, "caster": 0.5, "camber": 0.3, "toe": 0.2}  # mm, degrees
AXLE_TOE = 0.3  # degrees: what one wheel of an axle toes in more the other toes out, whatever is turned


def practice_plan(plan: Plan, layout: str, squared: bool = True) -> Plan:
    """Return a plan with threads for camber, toe and, in front, caster and a perch at every corner, and its own aims with practicable tolerances; caster
    is to be as drawn. ``squared``: whether a rear axle is to be squared by its lower links."""
    adjusters: list[Adjuster] = []
    aims: list[Aim] = []
    caster = wheels_of(plan).drawn["caster"]
    for corner in CORNERS:
        by = CAMBER_BY[layout][0 if END_OF[corner] == "front" else 1]
        if by:
            adjusters += [
                Adjuster(
                    f"{corner}.camber", f"{by.replace('.', ' ')} rod end", corner, _rod_end(1.25), moves=_moves(corner, by)
                ),
                Adjuster(f"{corner}.tie", "tie rod end", corner, _rod_end(1.0), moves=Moves(f"{corner}.tie rod")),
            ]
        elif squared and layout in SQUARED:  # the axle is squared by its lower links
            side = "left" if SIDE[corner] > 0 else "right"
            link = Moves(f"{END_OF[corner]}.lower {side}")
            adjusters.append(Adjuster(f"{corner}.link", f"lower {side} link rod end", corner, _rod_end(1.25), moves=link))
        if END_OF[corner] == "front":
            slides = layout == "tern"  # the strut's top on its plate; the others have a rod end at the upper arm's rear leg
            fore = Moves(f"{corner}.strut.top", (-1.0, 0.0, 0.0)) if slides else Moves(f"{corner}.upper rear leg")
            name = "strut top, rearward" if slides else "upper rear leg rod end"
            adjusters.append(Adjuster(f"{corner}.caster", name, corner, _rod_end(1.25), moves=fore))
            aims.append(Aim(f"{corner}.caster", round(float(caster[CORNERS.index(corner)]), 1), TOLERANCES["caster"]))
        adjusters.append(Adjuster(f"{corner}.perch", "perch", corner, Perch(1.5, 25.0, 25.0, 0.8)))
        kinds = ("height", "camber", "toe") if by else ("height", "toe") if squared and layout in SQUARED else ("height",)
        wanted = [(f"{corner}.{kind}", AXLE_TOE if kind == "toe" and not by else TOLERANCES[kind]) for kind in kinds]
        aims += [Aim(mark, own.aim, tolerance) for mark, tolerance in wanted if (own := plan.aim(mark))]
    ways = replace(WAYS, read_by={"caster": CASTER_BY[layout]}) if layout in CASTER_BY else WAYS
    return replace(plan, adjusters=tuple(adjusters), aims=tuple(aims), ways=ways)


def without_points(plan: Plan) -> Plan:
    """Return a plan as most cars are brought in to be set: its sizes, adjusters by name and aims, and no point of its linkages."""
    bare = tuple(replace(a, name=_as_seen(plan, a), moves=None) for a in plan.adjusters)
    return replace(plan, adjusters=bare, points={}, front_linkage=None, rear_linkage=None, loads=None)


def hampered(plan: Plan, seed: int) -> Plan:
    """Return what is told of a car with which not all goes: by turns the thread of a drawn link is short, or a drawn mark is to be further off than the links
    of its corner go, or both."""
    draw = np.random.default_rng([seed, 25])
    link = draw.choice([i for i, a in enumerate(plan.adjusters) if not a.raises])
    mark = draw.integers(len(plan.aims))
    off = float(draw.choice([-1.0, 1.0]) * draw.uniform(4, 6))
    short = ThreadedEnd(12.0, 1.25, float(draw.uniform(18, 20)), float(draw.uniform(0, 2)))  # a turn or two at most either way
    aims, at = list(plan.aims), {plan.adjusters[link].id} if seed % 3 != 1 else set()
    if seed % 3 != 0:
        aims[mark] = replace(aims[mark], aim=aims[mark].aim + off * aims[mark].tolerance)
        at |= {a.id for a in plan.adjusters if not a.raises and aims[mark].mark.startswith(a.corner)}
    return replace(
        plan, aims=tuple(aims), adjusters=tuple(replace(a, by=(short,)) if a.id in at else a for a in plan.adjusters)
    )


def _as_seen(plan: Plan, adjuster: Adjuster) -> str:
    """Return the name of an adjuster with where it sits, as whoever stands before the wheel sees it."""
    if adjuster.moves is None or adjuster.moves.direction:
        return adjuster.name
    member = adjuster.moves.name.split(".", 1)[1]
    points = places_of(plan)
    outer, wheel = (
        points.get(f"{adjuster.corner}.{name}") for name in (f"{'tie' if member == 'tie rod' else member}.outer", "wheel")
    )
    if outer is None or wheel is None:
        return adjuster.name
    if member == "tie rod":
        return f"{adjuster.name}, {'ahead of' if outer[0] > wheel[0] else 'behind'} the axle"
    return f"{'upper' if outer[2] > wheel[2] else 'lower'} {adjuster.name}"


def _rod_end(pitch: float) -> tuple[ThreadedEnd]:
    return (ThreadedEnd(12.0, pitch, 45.0, 35.0),)


def _moves(corner: Corner, by: str) -> Moves:
    """Return what a rod end moves as it grows longer: a joint of the upright, in which it is screwed, inboard, or the length of a member."""
    return Moves(f"{corner}.{by}", (0.0, -float(SIDE[corner]), 0.0)) if "." in by else Moves(f"{corner}.{by}")
