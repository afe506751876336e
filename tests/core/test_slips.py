"""Slips of the hand, planted in both demo plans: each is asked about at its place, and neither plan as it is."""

from dataclasses import replace

import pytest

from ready_corner.core.model.slips import slips
from ready_corner.core.model.wanting import wanting
from ready_corner.core.quantities.errors import UnusualError
from ready_corner.core.record.logbook import CarState, PlanRevised, ask_about_slips, check
from tests.core.linkage.cars import NAMES, plan

INCH = 25.4


def axle(end, **how):
    return lambda p: replace(p, **{end: replace(p.axle(end), **{k: f(getattr(p.axle(end), k)) for k, f in how.items()})})


def radius(end, by):
    return lambda p: replace(
        p,
        **{
            f"{end}_linkage": replace(p.linkage(end), loaded_radius=by(p.linkage(end).loaded_radius, p.axle(end).tyre_diameter))
        },
    )


def aim(mark, value):
    return lambda p: replace(p, aims=tuple(replace(a, aim=value) if a.mark == mark else a for a in p.aims))


def height(i, **how):
    def planted(p):
        rows = list(p.heights)
        rows[i] = replace(rows[i], **{k: f(getattr(rows[i], k)) for k, f in how.items()})
        return replace(p, heights=tuple(rows))

    return planted


def moved(name, to):
    return lambda p: replace(p, points={**p.points, name: to(p.points[name])})


def exchanged(a, b):
    return lambda p: replace(p, points={**p.points, a: p.points[b], b: p.points[a]})


def arm(end, by):
    def planted(p):
        own = p.footing.end(end)
        return replace(
            p, footing=replace(p.footing, **{f"{end}_end": replace(own, bar=replace(own.bar, arm=own.bar.arm * by))})
        )

    return planted


BOTH = [
    ("front.track", axle("front", track=lambda v: v / 10)), ("front.track", axle("front", track=lambda v: v / INCH)),
    ("rear.track", axle("rear", track=lambda v: v * 10)), ("rear.track", axle("rear", track=lambda v: v / 1.5)),
    ("front.tyre_diameter", axle("front", tyre_diameter=lambda v: v * 10)), ("rear.tyre_diameter", axle("rear", tyre_diameter=lambda v: v * 10)),
    ("front.rim_flange_diameter", axle("front", rim_flange_diameter=lambda v: v / 10)), ("rear.rim_flange_diameter", axle("rear", rim_flange_diameter=lambda v: v / INCH)),
    ("front.hub_width", axle("front", hub_width=lambda v: 70.0)), ("rear.hub_width", axle("rear", hub_width=lambda v: 12000.0)),
    ("front_linkage.loaded_radius", radius("front", lambda r, d: r + 20)), ("front_linkage.loaded_radius", radius("front", lambda r, d: d / 2 + 10)),
    ("rear_linkage.loaded_radius", radius("rear", lambda r, d: r / INCH)), ("rear_linkage.loaded_radius", radius("rear", lambda r, d: 2 * r)),
    ("aims.LF.height", aim("LF.height", -1.0)), ("aims.RF.height", aim("RF.height", 1580.0)), ("aims.LR.height", aim("LR.height", 1.5)),
    ("aims.LF.height", aim("LF.height", 300.0)), ("aims.LF.camber", aim("LF.camber", -13.0)), ("aims.RF.camber", aim("RF.camber", 15.0)),
    ("aims.LF.toe", aim("LF.toe", 7.4)), ("aims.RF.toe", aim("RF.toe", -12.0)),
    ("heights.0.offset", height(0, offset=lambda v: -v)), ("heights.1.offset", height(1, offset=lambda v: -v)), ("heights.2.station", height(2, station=lambda v: 10 * v)),
]  # fmt: skip
HEATHER = [
    ("points.LF.upper.front", moved("LF.upper.front", lambda p: (p[0], -p[1], p[2]))), ("points.LR.lower.rear", moved("LR.lower.rear", lambda p: (p[0], -p[1], p[2]))),
    ("points.LF.lower.front", moved("LF.lower.front", lambda p: (p[0], p[1], -p[2]))), ("points.LF.upper.rear", moved("LF.upper.rear", lambda p: (p[0], p[1], p[2] - 500))),
    ("points.LF.upper.ball", exchanged("LF.upper.ball", "LF.lower.ball")), ("points.LR.lower.front", exchanged("LR.lower.front", "LR.lower.rear")),
    ("footing.front_end.bar.arm", arm("front", 0.5)),
]  # fmt: skip


@pytest.mark.parametrize("name", NAMES)
def test_no_plan_as_it_is_is_asked_about(name):
    assert slips(plan(name)) == ()


@pytest.mark.parametrize("name", ["heather", "tern"])
@pytest.mark.parametrize(("path", "planted"), BOTH, ids=[f"{i}-{p}" for i, (p, _) in enumerate(BOTH)])
def test_a_slip_in_either_demo_plan_is_asked_about_at_its_place(name, path, planted):
    of = planted(plan(name))
    if of == plan(name):
        pytest.skip("this plan has no such figure")
    assert path in {s.path for s in slips(of)}
    assert path in {w.path for w in wanting(of) if w.stage == "Plan"}
    with pytest.raises(UnusualError, match="send it once more"):
        ask_about_slips(PlanRevised(of))
    ask_about_slips(PlanRevised(of, confirmed=True))
    ask_about_slips(PlanRevised(replace(of, about="as it was")), of)  # what was kept before is not asked about again


@pytest.mark.parametrize(("path", "planted"), HEATHER, ids=[p for p, _ in HEATHER])
def test_a_slip_among_points_is_asked_about(path, planted):
    of = planted(plan("heather"))
    assert path in {s.path for s in slips(of)}


def test_a_revision_with_a_slip_is_kept_when_it_is_confirmed():
    heather = plan("heather")
    of = aim("LF.toe", 7.4)(heather)
    with pytest.raises(UnusualError) as asked:
        check(CarState(heather), PlanRevised(of, revises=1))
    assert asked.value.path == "plan.aims.LF.toe"
    check(CarState(heather), PlanRevised(of, revises=1, confirmed=True))
