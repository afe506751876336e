"""What the pins of the holes say: free, tight or stuck by hand, before what was done to the frame and after it."""

from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.jig_acts import JigLog


def pin_means(log: JigLog, point: str) -> Finding | None:
    """Return what the pin of a point means as it was felt last, against the time before; None where it was never felt, or always went freely.

    A pin that no longer goes through has a hole that moved by more than its play; one that never did has holes that were never in line.
    Source: the free-pin test, as docs/survey.md has it.
    """
    felt = log.pins.get(point, ())
    if not felt:
        return None
    number, says = felt[-1]
    free = [n for n, said in felt[:-1] if said == "free"]
    if says == "free":
        return finding("pin.free-again", point=point) if any(said != "free" for _, said in felt[:-1]) else None
    if not free:
        return finding("pin.never-free", point=point, says=says)
    between = [d for d in log.disturbed if free[-1] < d.number < number and d.moves(point)]
    return finding("pin.free-no-more", point=point, says=says, by=between[-1].said if between else None)
