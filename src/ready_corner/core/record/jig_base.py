"""What the kinds of entries at the jig have in common."""

from typing import TYPE_CHECKING

from ready_corner.core.plan.plan import Plan, places_of
from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.naming import meant
from ready_corner.core.record.act import Act
from ready_corner.core.record.moves import Move

if TYPE_CHECKING:
    from ready_corner.core.record.jig_acts import JigLog


class JigAct(Act):
    """A kind of entry at the jig."""

    def into(self, log: "JigLog", number: int) -> "JigLog":
        """Return what was written down at the jig with one more act."""
        raise NotImplementedError

    def moves(self, log: "JigLog", number: int) -> list[Move]:
        """Return what it moves of the car that is on it; mostly nothing."""
        return []


def require_known(names: tuple[str, ...], plan: Plan) -> None:
    """Raise CalledError for a point that the plan does not have."""
    known = places_of(plan)
    for name in names:
        if name not in known:
            raise CalledError(
                finding("jig.no-point", name=name, near=meant(name, known)),
                path="points",
            )


def require_reads(plan: Plan, tool_id: str, kind: str) -> None:
    """Raise CalledError for a tool that does not read an “angle”, or a “length”."""
    tool = plan.tool(tool_id)
    if tool.measures != kind:
        raise CalledError(
            finding("tool.reads-not", tool=tool.name, angle=kind == "angle"),
            path="tool",
        )
