"""What the plan does not give yet, and the step that will want it: found out before that step is reached."""

from collections.abc import Iterator
from dataclasses import dataclass

from ready_corner.core.model.bodies import bodies_of
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS, END_OF, ENDS, Corner, End
from ready_corner.core.plan.plan import DOUBTS, Perch, Plan
from ready_corner.core.quantities.notation import say_length


@dataclass(frozen=True)
class Wanting:
    """Something not given: what, where in the plan, the stage that will want it and for what."""

    what: str
    path: str
    stage: str
    step: str


def wanting(plan: Plan) -> tuple[Wanting, ...]:
    """Return everything the plan leaves open, in the order of the stages that will want it."""
    return (*_jig(plan), *_travel(plan), *_stance(plan), *_set(plan))


def _corners(corners: list[Corner]) -> str:
    return "every corner" if len(corners) == len(CORNERS) else " and ".join(CORNER_WORDS[c] for c in corners)


def _jig(plan: Plan) -> Iterator[Wanting]:
    for end in ENDS:
        if plan.linkage(end) is None:
            yield Wanting(
                f"how the {end} wheels are held",
                f"{end}_linkage",
                "Jig",
                "to know which pickup points there are and where they belong",
            )


def _travel(plan: Plan) -> Iterator[Wanting]:
    for end in ENDS:
        linkage = plan.linkage(end)
        if linkage is None:
            continue
        if not linkage.joints:
            yield Wanting(
                f"how far the {end} joints may work", f"{end}_linkage.joints", "Travel", "to see which one binds first"
            )
        if not any(s.open and s.closed for s in linkage.springs):
            yield Wanting(
                f"the {end} dampers open and closed",
                f"{end}_linkage.springs",
                "Travel",
                "to see what stops the wheel at either end",
            )
    if plan.loads is None:
        yield Wanting(
            "height of the centre of gravity and share of braking",
            "loads",
            "Travel",
            "for anti-dive, anti-lift and anti-squat in percent",
        )


def _stance(plan: Plan) -> Iterator[Wanting]:
    yield from _aims(plan, "height", "Stance", "to know when a corner stands right")
    if not_named := [c for c in CORNERS if not any(p.corner == c for p in plan.heights)]:
        yield Wanting(
            f"where the ride height of {_corners(not_named)} is read",
            "heights",
            "Stance",
            "so that it is read at the same place each time",
        )
    for end in ENDS:
        linkage = plan.linkage(end)
        if linkage and not (any(s.rate for s in linkage.springs) or any(t.rate for t in linkage.torsions)):
            yield Wanting(
                f"the rate of the {end} springs",
                f"{end}_linkage.springs",
                "Stance",
                "for wheel rate, sag and what a perch turn does",
            )
    feet = plan.footing
    if feet.mass is None:
        yield Wanting(
            "the weight of the car and its shares",
            "footing.mass",
            "Stance",
            "for sag, frequency and what scales should add up to",
        )
    if stopless := [e for e in ENDS if feet.end(e).bump is None or feet.end(e).droop is None]:
        yield Wanting(
            f"travel to the {' and '.join(stopless)} stops",
            "footing",
            "Stance",
            "to see whether the bump stop comes before ground and body",
        )
    if bare := [c for c in CORNERS if plan.perch(c) is None]:
        yield Wanting(f"a spring perch at {_corners(bare)}", "adjusters", "Stance", "to be told how far to wind it")


def _set(plan: Plan) -> Iterator[Wanting]:
    for kind in ("camber", "toe"):
        yield from _aims(plan, kind, "Set", f"to say whether {kind} is in or out")
    links = [a for a in plan.adjusters if not isinstance(a.by, Perch)]
    if bare := [c for c in CORNERS if not any(a.corner == c for a in links)]:
        yield Wanting(
            f"what is turned at {_corners(bare)}", "adjusters", "Set", "to be told how far, and how much thread is left"
        )
    for end in ENDS:
        dumb = [a.name for a in links if END_OF[a.corner] == end and a.moves is None and _has_linkage(plan, end)]
        if dumb:
            yield Wanting(
                f"which member or point {' and '.join(dict.fromkeys(dumb))} ({end}) move",
                "adjusters",
                "Set",
                "to reckon what a turn is worth before it is tried",
            )
    unsaid = [
        words
        for name, (_, words) in DOUBTS.items()
        if getattr(plan.ways, name) is None and (name != "box_parallel" or plan.ways.strings == "box")
    ]
    if unsaid:
        taken = ", ".join(
            say_length(DOUBTS[n][0], plan.units, denominator=0, unit=True) for n in DOUBTS if DOUBTS[n][1] in unsaid
        )
        yield Wanting(
            "; ".join(unsaid), "ways", "Set", f"for what toe, thrust and camber are sure to; until then {taken} are taken"
        )
    if doubtful := [a for a in plan.aims_now if a.trust == "doubtful" or not a.source]:
        yield Wanting(
            f"where {len(doubtful)} of the aims are from, or a better source", "aims", "Set", "so that an aim is worth the work"
        )


def _has_linkage(plan: Plan, end: End) -> bool:
    return bool(bodies_of(plan, end))


def _aims(plan: Plan, kind: str, stage: str, step: str) -> Iterator[Wanting]:
    if bare := [c for c in CORNERS if plan.aim(f"{c}.{kind}") is None]:
        words = "ride height" if kind == "height" else kind
        yield Wanting(f"{words} wanted at {_corners(bare)}", "aims", stage, step)
