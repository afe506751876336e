"""U is what it says: of cars drawn by chance, all of them off as their plan says they may be, about 95 in 100 lie within it, at every mark and however they are read.

`bench/coverage.py` draws more of them.
"""

import pytest

from ready_corner.core.plan.marks import MARK_KINDS
from ready_corner.core.record.readings import Reading
from tests.amounts import drawn
from tests.core.drawn import HOW_READ, drawn_round, inside_u, rng_of

DRAWS = drawn(120, 40)
SD = (0.95 * 0.05 / DRAWS) ** 0.5  # of the share that lies within U, at one mark


@pytest.mark.parametrize("way", HOW_READ)
def test_about_95_in_100_drawn_cars_lie_within_u_at_every_mark(way):
    share = inside_u(way, DRAWS)
    for kind, own in share.items():
        mean = sum(own.values()) / len(own)
        times = 3 if len(own) == 1 else 2  # four corners, not all independent, are known twice as well or so
        assert 0.95 - times * SD <= mean <= 0.95 + times * SD, (kind, share)


def test_every_kind_of_mark_and_every_way_of_reading_one_is_drawn():
    told = {kind for how in HOW_READ.values() for kind in how.tells}
    assert told == set(MARK_KINDS)
    read = set()
    for way in HOW_READ:
        log, _ = drawn_round(HOW_READ[way], rng_of(way))
        read |= {entry.what.quantity for entry in log.entries if isinstance(entry.what, Reading)}
    assert {q for row in MARK_KINDS.values() for q in row.every} <= read
