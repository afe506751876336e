"""What a revision changed, in words."""

from dataclasses import replace

from ready_corner.core.readiness.revised import say_revision
from tests.core.linkage.cars import plan


def test_a_revision_tells_what_is_different_and_nothing_else():
    old = plan("heather")
    assert say_revision(old, old) == "nothing"
    points = {k: p for k, p in old.points.items() if k != "LF.damper.inner"} | {"LF.tie.inner": (88.0, 232.0, 217.0)}
    aims = (replace(old.aims[0], tolerance=1.0), *old.aims[2:])
    new = replace(
        old,
        wheelbase=2281.0,
        rear=replace(old.rear, tyre_diameter=580.0),
        points=points,
        aims=aims,
        adjusters=old.adjusters[1:],
    )
    assert say_revision(old, new).split("; ") == [
        "wheelbase 2280.0 to 2281.0",
        "rear tyre diameter 576.0 to 580.0",
        "left front ride height aim 78.0 mm ± 1.0 mm",
        "no aim any more for left front camber",
        "moved left front tie inner by 3.0 mm",
        "left front damper inner taken out",
        "tie rod taken out",
    ]


def test_many_changes_are_counted():
    old = plan("heather")
    shifted = {k: (x + 1, y, z) for k, (x, y, z) in old.points.items()}
    assert say_revision(old, replace(old, points=shifted)) == f"{len(shifted)} points moved"
    assert say_revision(old, replace(old, rear_linkage=None)) == "rear wheels held by nothing said"
