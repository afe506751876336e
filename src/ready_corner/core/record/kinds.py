"""Every kind of entry there is, by name: a module of kinds is named here once, and its kinds are found."""

from ready_corner.core.record import happenings, jig_acts, notes, readings, stance_acts, weld_acts
from ready_corner.core.record.act import KINDS

MODULES = (readings, happenings, jig_acts, weld_acts, stance_acts, notes)
__all__ = ["KINDS", "MODULES"]
