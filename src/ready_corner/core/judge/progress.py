"""How much of the work holds, stage by stage, and where the front wheels point together.

Source: docs/choices.md (Figures).
"""

from collections.abc import Mapping

from ready_corner.core.engines.alignment.string import steer_ahead_deg, thrust_deg
from ready_corner.core.judge.marks import Evaluation
from ready_corner.core.quantities.finding import Finding, finding

# Marks are judged at the stage at which they are set; other stages get theirs as they come to have any.
STAGE_OF: Mapping[str, str] = {
    "height": "Stance", "rake": "Stance", "cross": "Stance", "cross_weight": "Stance", "camber": "Set", "toe": "Set", "total_toe": "Set", "thrust": "Set",
}  # fmt: skip


def share_held(evaluation: Evaluation) -> dict[str, float]:
    """Return the share of each stage's marks that hold, 0 to 1; stages without marks are absent."""
    rows: dict[str, list[bool]] = {}
    for mark in evaluation.marks:
        if mark.state is not None:
            rows.setdefault(STAGE_OF[mark.mark.rsplit(".", 1)[1]], []).append(mark.state == "holds")
    return {stage: sum(held) / len(held) for stage, held in rows.items()}


def steer_ahead(evaluation: Evaluation) -> Finding | None:
    """Return where the front wheels point together against the thrust line; None until all toes are read."""
    toes = {c: evaluation.mark(f"{c}.toe").value for c in ("LF", "RF", "LR", "RR")}
    lf, rf, lr, rr = toes["LF"], toes["RF"], toes["LR"], toes["RR"]
    if lf is None or rf is None or lr is None or rr is None:
        return None
    ahead = steer_ahead_deg(lf, rf, thrust_deg(lr, rr))
    return finding("steer.along") if abs(ahead) < 0.005 else finding("steer.off", angle=float(ahead), left=bool(ahead > 0))
