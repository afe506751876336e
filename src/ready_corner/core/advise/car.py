"""All that is told of one car at one entry of its logbook, so that whoever keeps an entry can see first that it can be told.

Source: docs/architecture.md, what is told of a car.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from ready_corner.core.advise.corner import CornerSetting, set_corner
from ready_corner.core.advise.lift import Lift, lift
from ready_corner.core.advise.next import PAD_STEPS, PADS, Ask, Step, ask_of, floor_round, next_step, round_of, stand_round
from ready_corner.core.judge.marks import Evaluation, MarkState
from ready_corner.core.judge.progress import share_held, steer_ahead
from ready_corner.core.plan.corners import CORNERS, Corner
from ready_corner.core.quantities.finding import Finding


@dataclass(frozen=True)
class CarJudged:
    """A car judged: its marks, what is asked of it on each round, what is next, the lift for the whole car, and the turns of each corner alone.

    ``progress``: share of the marks of each stage that hold.
    """

    evaluation: Evaluation
    marks: tuple[MarkState, ...]
    round: tuple[Ask, ...]
    floor_round: tuple[Ask, ...]
    stand_round: tuple[Ask, ...]
    pads: tuple[Ask, ...]
    next: Step
    lift: Lift | None
    corners: Mapping[Corner, CornerSetting]
    progress: Mapping[str, float]
    steer_ahead: Finding | None

    @property
    def judged(self) -> tuple[MarkState, ...]:
        """Marks that the plan has an aim for."""
        return tuple(m for m in self.marks if m.state is not None)

    @property
    def holding(self) -> int:
        """How many of them hold."""
        return sum(m.state == "holds" for m in self.judged)


def judge_car(evaluation: Evaluation) -> CarJudged:
    """Return all that is told of a car; see :class:`CarJudged`."""
    return CarJudged(
        evaluation,
        evaluation.marks,
        round_of(evaluation),
        floor_round(evaluation),
        stand_round(evaluation),
        tuple(ask_of(evaluation, p) for p in (*PADS, *PAD_STEPS)),
        next_step(evaluation),
        told if (told := lift(evaluation)) and told.next else None,
        {c: set_corner(evaluation, c) for c in CORNERS},
        share_held(evaluation),
        steer_ahead(evaluation),
    )
