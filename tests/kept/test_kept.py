"""A logbook that was kept folds to what it said when it was kept: every version's files, and one of every kind of entry.

What it says may be bettered on purpose: then its lines are written anew with ``python -m tests.kept.test_kept`` and looked through.
"""

from pathlib import Path

import pytest

from tests.kept.said import said_of

KEPT = sorted(Path(__file__).parent.glob("*.logbook.json"))


def _lines(path):
    return path.with_name(path.name.replace("logbook.json", "said.txt"))


@pytest.mark.parametrize("path", KEPT, ids=lambda p: p.name.split(".")[0])
def test_an_old_logbook_says_what_it_said(path):
    now, then = said_of(path.read_bytes()), _lines(path).read_text().splitlines()
    assert [line for line in now if line in set(then)] == then  # more may be told by now, of what was not asked then


if __name__ == "__main__":
    for each in KEPT:
        _lines(each).write_text("\n".join(said_of(each.read_bytes())) + "\n")
