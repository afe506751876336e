"""How much of the work holds, stage by stage, and where the front wheels point together.

Source: docs/choices.md (Figures).
"""

from ready_corner.core.engines.alignment.string import steer_ahead_deg, thrust_deg
from ready_corner.core.judge.marks import Evaluation
from ready_corner.core.plan.marks import MARK_KINDS, kind_of
from ready_corner.core.quantities.finding import Finding, finding


def share_held(evaluation: Evaluation) -> dict[str, float]:
    """Return the share of each stage's marks that hold, 0 to 1; stages without marks are absent."""
    rows: dict[str, list[bool]] = {}
    for mark in evaluation.marks:
        if mark.state is not None:
            rows.setdefault(MARK_KINDS[kind_of(mark.mark)].stage, []).append(mark.state == "holds")
    return {stage: sum(held) / len(held) for stage, held in rows.items()}


def steer_ahead(evaluation: Evaluation) -> Finding | None:
    """Return where the front wheels point together against the thrust line; None until all toes are read."""
    toes = {c: evaluation.mark(f"{c}.toe").value for c in ("LF", "RF", "LR", "RR")}
    lf, rf, lr, rr = toes["LF"], toes["RF"], toes["LR"], toes["RR"]
    if lf is None or rf is None or lr is None or rr is None:
        return None
    ahead = steer_ahead_deg(lf, rf, thrust_deg(lr, rr))
    return finding("steer.along") if abs(ahead) < 0.005 else finding("steer.off", angle=float(ahead), left=bool(ahead > 0))
