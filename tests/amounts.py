"""How much is drawn by chance: a part of it at every run, all of it with ``./test --all`` (``READY_CORNER_DRAWS=all``)."""

import os

ALL = os.environ.get("READY_CORNER_DRAWS") == "all"


def drawn(of_all, some):
    """How many cars, seeds or errors are drawn."""
    return of_all if ALL else some
