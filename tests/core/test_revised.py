"""What a revision changed, in words."""

from dataclasses import replace

from ready_corner.core.judge.marks import evaluate
from ready_corner.core.model.wanting import wanting
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.logbook import Entry, PlanRevised, fold
from ready_corner.core.record.readings import Reading
from ready_corner.core.say.revised import say_revision
from tests.core.linkage.cars import plan
from tests.words import said


def test_what_is_provisional_is_wanted_and_a_revision_says_when_it_is_settled():
    heather = plan("heather")
    loose = replace(heather, provisional=("wheelbase", "points.LF.upper.ball"))
    assert "wheelbase, left front upper ball provisional" in say_revision(heather, loose)
    assert say_revision(loose, heather) == "wheelbase, left front upper ball settled"
    told = {w.path: said(w.what) + "; " + said(w.step) for w in wanting(loose) if w.path in loose.provisional}
    assert [w.path for w in wanting(loose) if w.stage == "Set" and w.what.kind == "wanting.rough"] == ["wheelbase"]
    told |= {
        w.path: said(w.what) + "; " + said(w.step) for w in wanting(loose) if w.path in loose.provisional and w.stage == "Jig"
    }
    assert told["wheelbase"].startswith("the wheelbase settled: it is provisional; ")
    assert "1 pickup point hangs on it" in told["points.LF.upper.ball"]
    assert "pickup points hang on it" in told["wheelbase"]


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
        "tie rod taken out. Moved since by it: left front camber and ride height, right front camber and ride height",
    ]


def test_many_changes_are_counted():
    old = plan("heather")
    shifted = {k: (x + 1, y, z) for k, (x, y, z) in old.points.items()}
    assert say_revision(old, replace(old, points=shifted)).startswith(f"{len(shifted)} points moved. Moved since by it: ")
    assert say_revision(old, replace(old, rear_linkage=None)) == "rear wheels held by nothing said"
    build = say_revision(old, replace(old, stage="build", build_aims=old.build_aims[1:]))
    assert build == "judged by the aims of the build now; build: no aim any more for left front camber"


def test_a_revision_makes_moved_since_what_it_moves_and_nothing_else():
    old = plan("heather")
    read = [Reading("camber", c, -1.8, "digital") for c in CORNERS] + [Reading("height", c, 78.0, "tape") for c in CORNERS]

    def after(new):
        whats = [PlanRevised(old), Happened("settled"), *read, PlanRevised(new, 1)]
        found = evaluate(fold(None, [Entry(str(n), n, what) for n, what in enumerate(whats, start=1)]))
        return {m.mark: said(m.reason) for m in found.marks if m.state == "moved since"}

    assert after(replace(old, front=replace(old.front, track=1350.0), aims=old.aims[:3])) == {}
    moved = after(replace(old, points={**old.points, "LR.lower.ball": (-2280.0, 600.0, 150.0)}))
    assert set(moved) == {"LR.camber", "LR.height", "RR.camber", "RR.height"}  # the right side is the mirror of the left
    assert moved["LR.camber"] == "the plan has moved LR lower ball"
    places = tuple(replace(h, name="sill") if h.corner == "RF" else h for h in old.heights)
    assert set(after(replace(old, heights=places))) == {"RF.height"}
    assert set(after(replace(old, front_linkage=replace(old.front_linkage, lengths={"LF.tie rod": 400.0})))) >= {
        "LF.camber",
        "RF.height",
    }


def test_at_the_build_readings_are_judged_by_the_aims_of_the_build():
    old = plan("heather")
    read = [PlanRevised(replace(old, stage="build")), Happened("settled"), Reading("camber", "LF", 0.1, "digital")]
    mark = evaluate(fold(None, [Entry(str(n), n, what) for n, what in enumerate(read, start=1)])).mark("LF.camber")
    assert (mark.state, mark.aim.aim) == ("holds", 0.0)


def test_the_plan_says_what_it_leaves_open_before_the_step_that_wants_it():
    bare = replace(plan("heather"), front_linkage=None, aims=(), heights=(), adjusters=(), loads=None)
    open_ = {(w.stage, said(w.what)) for w in wanting(bare)}
    assert ("Jig", "how the front wheels are held") in open_
    assert ("Set", "camber wanted at every corner") in open_
    assert ("Stance", "where the ride height of every corner is read") in open_
    stages = [w.stage for w in wanting(bare)]
    assert stages == sorted(stages, key=["Jig", "Travel", "Stance", "Set"].index)
    known = replace(plan("heather"), aims=tuple(replace(a, trust="doubtful") for a in plan("heather").aims))
    assert any("12 of the aims" in said(w.what) for w in wanting(known))
    assert not any("camber wanted" in said(w.what) or "joints" in said(w.what) for w in wanting(known))
