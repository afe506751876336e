"""How the corners of a judged car move and what their springs do at rest: of the plan alone, worked out once for as long as it stands.

Source: the linkage and springs of the plan; docs/linkage.md, docs/stance.md.
"""

from ready_corner.core.engines.linkage.layouts import LAYOUTS
from ready_corner.core.judge.marks import Evaluation
from ready_corner.core.judge.memory import remembered
from ready_corner.core.model import struts
from ready_corner.core.model.movement import Movement, movement
from ready_corner.core.plan.corners import END_OF, Corner


@remembered
def movement_of(evaluation: Evaluation, corner: Corner) -> Movement:
    """Return how a corner moves; both wheels of a live axle share its sweep. Raises PlannedError where the plan has no linkage there."""
    plan = evaluation.state.plan
    left: Corner = "LF" if END_OF[corner] == "front" else "LR"
    linkage = plan.linkage(END_OF[corner])
    one = linkage is not None and LAYOUTS[linkage.layout].axle and corner != left
    return movement(plan, corner, movement_of(evaluation, left).swept if one else None)


@remembered
def at_rest_of(evaluation: Evaluation, corner: Corner) -> dict[str, struts.AtWork]:
    """Return the springs of a corner at the stance of the drawing by name."""
    return struts.at_rest(evaluation.state.plan, corner)
