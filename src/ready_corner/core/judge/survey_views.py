"""What a survey is drawn and told by: ellipses of doubt, a reading against the rest, what a tool gives read once.

Source: eigenvectors of a covariance; JCGM 100:2008, 4.3.7; docs/survey.md.
"""

from dataclasses import dataclass

import numpy as np

from ready_corner.core.engines.survey.datum import Laid
from ready_corner.core.engines.survey.readings import KINDS
from ready_corner.core.judge.frame import Frame, expected
from ready_corner.core.quantities.measured import COVERAGE
from ready_corner.core.quantities.tools import STEP_TO_U, Tool
from ready_corner.core.record.jig_acts import SurveyRead

SEEN = ((0, 1), (1, 2), (0, 2))  # from above, from behind, from the side


def ellipses(laid: Laid, name: str) -> list[tuple[float, float, float]]:
    """Return the doubt of a point as seen from above, from behind and from the side: half axes in mm (U) and their direction in degrees."""
    q, found = laid.cov(name), []
    for a, b in SEEN:
        values, vectors = np.linalg.eigh(q[np.ix_((a, b), (a, b))])
        big, small = COVERAGE * np.sqrt(np.maximum(values[::-1], 0.0))
        found.append((float(big), float(small), float(np.degrees(np.arctan2(vectors[1, 1], vectors[0, 1])))))
    return found


def read_once(tool: Tool) -> float:
    """Return the standard uncertainty of one reading with a tool, its zero left out, in its unit."""
    return float(np.hypot(tool.step * STEP_TO_U, tool.repeatability))


@dataclass(frozen=True)
class Agreement:
    """A reading against what the others say: by how much it is more, how sure that is (U), in mm or degrees; whether the two agree."""

    off: float
    expanded: float
    degrees: bool
    agrees: bool


def agreement(frame: Frame, act: SurveyRead) -> Agreement | None:
    """Return how a reading agrees with the rest; None where nothing is there to compare it with."""
    other = expected(frame, act)
    if other is None or act.says or act.reading == "in_line":
        return None
    value, u = other
    off = act.value - value
    room = float(np.hypot(u, COVERAGE * read_once(frame.plan.tool(act.tool))))
    return Agreement(off, u, KINDS[act.reading].unit == "deg", abs(off) <= room)
