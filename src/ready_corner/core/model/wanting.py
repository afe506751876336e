"""What the plan does not give yet, and the step that will want it: found out before that step is reached.

Source: docs/choices.md (Uncertainty): defaults named among the gaps of the plan.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from ready_corner.core.model.bodies import bodies_of
from ready_corner.core.model.slips import slips
from ready_corner.core.plan.corners import CORNERS, END_OF, ENDS, Corner, End
from ready_corner.core.plan.marks import MARK_KINDS, OfMark
from ready_corner.core.plan.names import say_dimension
from ready_corner.core.plan.plan import DOUBTS, Plan
from ready_corner.core.plan.provisional import hanging_on
from ready_corner.core.quantities.finding import Finding, finding


@dataclass(frozen=True)
class Wanting:
    """Something not given: what, where in the plan, the stage that will want it and for what. ``needed``: until it is given that stage has something to
    say and cannot; else it goes on with what is taken instead."""

    what: Finding
    path: str
    stage: str
    step: Finding
    needed: bool = True


def wanting(plan: Plan) -> tuple[Wanting, ...]:
    """Return everything the plan leaves open, in the order of the stages that will want it."""
    doubted = (Wanting(s.said, s.path, "Plan", finding("wanted.doubted"), needed=False) for s in slips(plan))
    return (*doubted, *_jig(plan), *_travel(plan), *_stance(plan), *_set(plan))


GONE_ON_WITHOUT = {
    "provisional",
    "moves",
    "doubts",
    "sources",
    "agreement",
}  # tried on the car, a default taken, a matter of trust
STAGES = ("Jig", "Travel", "Stance", "Set")


def share_given(plan: Plan) -> float:
    """Return the share of the stages for which the plan leaves nothing open, 0 to 1."""
    return 1 - len({w.stage for w in wanting(plan)} & set(STAGES)) / len(STAGES)


def _jig(plan: Plan) -> Iterator[Wanting]:
    for end in ENDS:
        if plan.linkage(end) is None:
            yield _open("held", f"{end}_linkage", "Jig", end=end)
    yield from _provisional(plan)


def _provisional(plan: Plan) -> Iterator[Wanting]:
    for path in plan.provisional:
        hanging = hanging_on(path, plan.points)
        yield _open("provisional", path, "Jig", dimension=say_dimension(path), count=len(hanging), several=len(hanging) != 1)


def _open(kind: str, path: str, stage: str, **figures: Any) -> Wanting:
    """Return what is open by its kind: what it is, and what for."""
    what, step = (finding(f"{words}.{kind}", **figures) for words in ("wanting", "wanted"))
    return Wanting(what, path, stage, step, kind not in GONE_ON_WITHOUT)


def _travel(plan: Plan) -> Iterator[Wanting]:
    for end in ENDS:
        linkage = plan.linkage(end)
        if linkage is None:
            continue
        if not linkage.joints:
            yield _open("joints", f"{end}_linkage.joints", "Travel", end=end)
        if not any(s.open and s.closed for s in linkage.springs):
            yield _open("dampers", f"{end}_linkage.springs", "Travel", end=end)
    if plan.loads is None:
        yield _open("loads", "loads", "Travel")


def _stance(plan: Plan) -> Iterator[Wanting]:
    yield from _aims(plan, "height", "Stance")
    if not_named := [c for c in CORNERS if not any(p.corner == c for p in plan.heights)]:
        yield _open("height-place", "heights", "Stance", **_at(not_named))
    for end in ENDS:
        linkage = plan.linkage(end)
        if linkage and not (any(s.rate for s in linkage.springs) or any(t.rate for t in linkage.torsions)):
            yield _open("rates", f"{end}_linkage.springs", "Stance", end=end)
    feet = plan.footing
    if feet.mass is None:
        yield _open("weight", "footing.mass", "Stance")
    if stopless := [e for e in ENDS if feet.end(e).bump is None or feet.end(e).droop is None]:
        yield _open("stops", f"footing.{stopless[0]}_end", "Stance", ends=stopless)
    if bare := [c for c in CORNERS if plan.perch(c) is None]:
        yield _open("perch", "adjusters", "Stance", **_at(bare))


def _at(corners: list[Corner]) -> dict[str, Any]:
    return {"every": len(corners) == len(CORNERS), "corners": tuple(corners)}


def _set(plan: Plan) -> Iterator[Wanting]:
    for path in plan.provisional:
        if not path.startswith("points."):
            yield _open("rough", path, "Set", dimension=say_dimension(path))
    for kind in ("camber", "toe"):
        yield from _aims(plan, kind, "Set")
    links = [a for a in plan.adjusters if not a.raises]
    if bare := [c for c in CORNERS if not any(a.corner == c for a in links)]:
        yield _open("turned", "adjusters", "Set", **_at(bare))
    for end in ENDS:
        dumb = [a for a in links if END_OF[a.corner] == end and a.moves is None and _has_linkage(plan, end)]
        if dumb:
            names = tuple(dict.fromkeys(a.name for a in dumb))
            yield _open("moves", f"adjusters.{dumb[0].id}.moves", "Set", names=names, end=end)
    yield from _spans(plan)
    unsaid = [n for n in plan.ways.doubts() if getattr(plan.ways, n) is None]
    if unsaid:
        doubts = tuple(finding("wanting.doubt", words=DOUBTS[n][1]) for n in unsaid)
        middle = max(plan.middle_of_hubs(end) for end in ENDS)
        taken = tuple(finding("wanting.taken", length=middle if n == "hub_middle" else DOUBTS[n][0]) for n in unsaid)
        yield _open("doubts", f"ways.{unsaid[0]}", "Set", doubts=doubts, taken=taken)
    yield from _contradictions(plan)
    if doubtful := [a for a in plan.aims_now if a.trust == "doubtful" or not a.source]:
        yield _open("sources", "aims.sources", "Set", count=len(doubtful))


def _spans(plan: Plan) -> Iterator[Wanting]:
    """Yield every length without which a way that the plan reads in tells nothing."""
    ways = plan.ways
    if ways.reads("toe").name == "bars" and ways.bar is None:
        yield _open("bar", "ways.bar", "Set")
    if ways.reads("total_toe").name == "plates" and ways.plates is None:
        yield _open("plates", "ways.plates", "Set")
    if ways.strings == "marks" and (unplaced := [c for c in CORNERS if c not in ways.marks]):
        yield _open("marks", "ways.marks", "Set", **_at(unplaced))


def _contradictions(plan: Plan) -> Iterator[Wanting]:
    """Yield every aim of a sum that its parts, each within tolerance, can never come to."""
    for kind, row in MARK_KINDS.items():
        for place, parts in (row.sums or {}).items():
            aim = plan.aim(f"{place}.{kind}")
            own = [(a, weight) for name, weight in parts if (a := plan.aim(name))]
            if aim is None or not parts or len(own) != len(parts) or any(a.beyond for a in (aim, *(a for a, _ in own))):
                continue
            come_to = sum(a.aim * weight for a, weight in own)
            room = aim.tolerance + sum(a.tolerance * abs(weight) for a, weight in own)
            if abs(aim.aim - come_to) > room:
                figures = {"aim": OfMark(aim.mark, aim.aim, 0), "come_to": OfMark(aim.mark, come_to, 0)}
                yield _open("agreement", f"aims.{aim.mark}", "Set", mark=aim.mark, **figures)


def _has_linkage(plan: Plan, end: End) -> bool:
    return bool(bodies_of(plan, end))


def _aims(plan: Plan, kind: str, stage: str) -> Iterator[Wanting]:
    if bare := [c for c in CORNERS if plan.aim(f"{c}.{kind}") is None]:
        yield _open("aim", f"aims.{bare[0]}.{kind}", stage, quantity=kind, **_at(bare))
