"""The words of every finding, by kind: here and nowhere else. See ``say.template`` for what stands in braces."""

from collections.abc import Mapping
from itertools import chain

from ready_corner.core.say.words import frame, log, marks, plan, practice, preview, stance, steps, sums, turns, typed, wanting

_TABLES = (
    typed.WORDS,
    plan.WORDS,
    frame.WORDS,
    log.WORDS,
    marks.WORDS,
    turns.WORDS,
    stance.WORDS,
    wanting.WORDS,
    steps.WORDS,
    sums.WORDS,
    preview.WORDS,
    practice.WORDS,
)
WORDS: Mapping[str, str] = dict(chain.from_iterable(table.items() for table in _TABLES))
assert len(WORDS) == sum(map(len, _TABLES)), "a kind of finding has its words in two places"
LINES: Mapping[str, tuple[str, str]] = sums.LINES  # of what is said as a line of what and how much
