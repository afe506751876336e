"""The lift as the browser is shown it, and what the car would read after turns. No arithmetic, no judging."""

from ready_corner.core.advise.corner import Expected
from ready_corner.core.advise.lift import Lift, LiftTurn
from ready_corner.core.plan.aims import say_aim
from ready_corner.core.plan.corners import Corner
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.notation import Units
from ready_corner.core.quantities.verdict import Verdict
from ready_corner.core.say.judged import say_expected
from ready_corner.web.said import FindingView, as_found, said
from ready_corner.web.view import View


class ExpectedView(View):
    """What a mark would read afterwards."""

    mark: str
    value: float
    expanded: float
    verdict: Verdict
    say: str
    say_u: str
    say_aim: str


class LiftTurnView(View):
    """One thing to turn in a lift: how far in all, and what is still left of it, said with its way; what would be read after it."""

    adjuster: str
    name: str
    amount: float
    left: float
    stuck: bool
    say: str
    size: str
    way: str
    then: str
    caution: str
    seen: str
    clockwise: bool | None


class StopView(View):
    """One corner of the walk."""

    corner: Corner
    done: bool
    turns: list[LiftTurnView]


class LiftView(View):
    """One list a lift: its stops in the order of the walk, what the car would read then, and what is to be read again."""

    sentence: str
    reason: str
    afterwards: str
    cautions: list[str]
    stops: list[StopView]
    expected: list[ExpectedView]
    again: list[str]
    chance: float
    findings: dict[str, FindingView]


def lift_view(lift: Lift | None, plan: Plan) -> LiftView | None:
    """Return a lift as shown."""
    if lift is None:
        return None
    units = plan.units
    return LiftView(
        sentence=said(lift.sentence, units),
        reason=said(lift.reason, units),
        afterwards=said(lift.afterwards, units),
        cautions=[said(c, units) for c in lift.cautions],
        stops=[StopView(corner=s.corner, done=s.done, turns=[_turn(t, units) for t in s.turns]) for s in lift.stops],
        expected=[expected_view(e, plan) for e in lift.expected],
        again=list(lift.again),
        chance=lift.chance,
        findings=as_found(sentence=lift.sentence, reason=lift.reason, afterwards=lift.afterwards),
    )


def _turn(turn: LiftTurn, units: Units) -> LiftTurnView:
    size, way = (turn.said.figure(part) for part in ("size", "way"))
    return LiftTurnView(
        adjuster=turn.of.id, name=turn.of.name, amount=turn.amount, left=turn.left, stuck=turn.stuck, size=size, way=way,
        say=said(turn.said, units), then=said(turn.then, units), caution=said(turn.caution, units),
        seen=said(turn.seen, units), clockwise=turn.of.clockwise(turn.left),
    )  # fmt: skip


def expected_view(expected: Expected, plan: Plan) -> ExpectedView:
    """Return what a mark would read afterwards as shown."""
    say, say_u = say_expected(expected, plan.units)
    return ExpectedView(
        mark=expected.mark,
        value=expected.value,
        expanded=expected.expanded,
        verdict=expected.verdict,
        say=say,
        say_u=say_u,
        say_aim=f"aim {say_aim(plan, expected.mark)}",
    )
