"""What a turn moves, by the plan: heights, loads, camber and toe of every corner, against the car on its springs and the linkage itself."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.advise.standing import turns_now
from ready_corner.core.judge.marks import SPOILS, evaluate
from ready_corner.core.judge.reach import reach
from ready_corner.core.model.four_springs import stand
from ready_corner.core.model.predicted import predicted
from ready_corner.core.model.springs_of_plan import car_of, springing
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.plan import Moves
from ready_corner.core.quantities.errors import CalledError
from ready_corner.core.quantities.tools import Tool
from ready_corner.core.record.happenings import LOAD, TYRE, Happened, Turned
from ready_corner.core.record.logbook import Entry, PlanRevised, check, fold
from ready_corner.core.record.readings import Reading
from tests.core.linkage.cars import plan

KINDS = ("height", "camber", "toe", "load")


@pytest.mark.parametrize("name", ["heather", "tern"])
def test_perches_do_what_the_springs_of_the_plan_say_and_loads_only_change_places(name):
    of = plan(name)
    found = reach(of, springing(of), False).marks
    does = turns_now(evaluate(fold(None, [Entry("1", 1, PlanRevised(of)), Entry("2", 2, Happened("bar_off"))])))[1]
    for i, c in enumerate(CORNERS):
        for j, p in enumerate(CORNERS):
            assert found[f"{c}.height"].of(f"{p}.perch") == pytest.approx(does.heights[i, j], abs=1e-9)
    for p in CORNERS:
        assert sum(found[f"{c}.load"].of(f"{p}.perch") for c in CORNERS) == pytest.approx(0, abs=1e-9)


def test_a_link_moves_its_own_wheel_as_the_linkage_says_and_the_others_through_the_springs():
    of = plan("heather")
    found = reach(of, springing(of), False).marks
    for c in CORNERS:
        own = predicted(of, c)
        for kind in ("camber", "toe"):
            link = f"{c}.tie-rod"
            assert found[f"{c}.{kind}"].of(link) == pytest.approx(own[kind].of(link), abs=0.02)  # the springs add a little
            assert abs(found[f"{'RR' if c == 'LF' else 'LF'}.{kind}"].of(link)) < 0.01
        assert found[f"{c}.load"].of(f"{c}.upper") != 0.0


def test_a_live_axle_is_one_part():
    of = plan("tern")
    link = next(a for a in of.adjusters if a.id == "LR.hub-shims")
    moved = type(link)("LR.link", "lower link", "LR", of.adjuster("LF.tie-rod").by, moves=Moves("rear.lower left"))
    of = type(of)(**{**of.__dict__, "adjusters": (*of.adjusters, moved)})
    found = reach(of, springing(of), False).marks
    left, right = (found[f"{c}.toe"].of("LR.link") for c in ("LR", "RR"))
    assert abs(left) > 0.01
    assert left == pytest.approx(-right, rel=0.1)  # the axle turns as a whole: toe-in at one end is toe-out at the other
    read = [PlanRevised(of), Happened("bar_off"), Happened("settled")]
    read += [Reading("camber", c, 0.0, "digital") for c in CORNERS]
    for what in (Turned("LR.hub-shims", 1.0), Happened("cut", "LR"), Happened("knock", "LR")):
        state = fold(None, [Entry(str(n), n, w) for n, w in enumerate([*read, what], start=1)])
        hit = {c for c, _ in state.moves[-1].moves}
        assert hit == ({"LR"} if isinstance(what, Turned) else {"LR", "RR"})  # shims stand at one hub


@pytest.mark.parametrize("seed", range(12))
def test_no_mark_holds_that_a_later_turn_may_have_moved_and_what_is_turned_back_moves_nothing(seed):
    rng, of = np.random.default_rng(seed), plan(("heather", "tern")[seed % 2])
    exact = tuple(Tool(t.id, t.name, t.measures, 1e-6, 0.0) for t in of.toolbox)
    of = type(of)(**{**of.__dict__, "tools": exact})
    whats = [PlanRevised(of), Happened("bar_off"), Happened("settled")]
    whats += [Reading("height", c, of.aim(f"{c}.height").aim, "rule") for c in CORNERS]
    whats += [Reading("camber", c, of.aim(f"{c}.camber").aim, "digital") for c in CORNERS]
    turns = [
        (a.id, float(rng.integers(-6, 7)) / 6 * (a.flats_per_step)) for a in rng.choice(np.array(of.adjusters, dtype=object), 3)
    ]
    turns = [(a, t) for a, t in turns if of.adjuster(a).room(0)[0] <= t <= of.adjuster(a).room(0)[1]]
    after = evaluate(fold(None, [Entry(str(n), n, w) for n, w in enumerate([*whats, *(Turned(a, t) for a, t in turns)], 1)]))
    net = {}
    for a, t in turns:
        net[a] = net.get(a, 0.0) + t
    known = reach(of, springing(of), False).marks
    for kind in ("height", "camber"):
        for c in CORNERS:
            mark, worth = after.mark(f"{c}.{kind}"), known[f"{c}.{kind}"]
            told = [(worth.of(a), worth.u(a), t) for a, t in net.items() if t and worth.of(a) is not None]
            own = any(t and worth.of(a) is None and a.startswith(c) for a, t in net.items())
            moved = own or max(abs(sum(v * t for v, _, t in told)), 2 * np.sqrt(sum((u * t) ** 2 for _, u, t in told))) > SPOILS * mark.aim.tolerance  # fmt: skip
            assert (mark.state == "moved since") == moved, (mark, told)
    back = [Turned(a, -t) for a, t in net.items() if t]
    home = evaluate(
        fold(None, [Entry(str(n), n, w) for n, w in enumerate([*whats, *(Turned(a, t) for a, t in turns), *back], 1)])
    )
    assert not any(home.mark(f"{c}.{k}").state == "moved since" for c in CORNERS for k in ("height", "camber"))


def test_tyres_and_loads_with_their_figure_move_what_the_car_on_its_springs_says():
    of = plan("heather")
    springs = springing(of)
    found, car = reach(of, springs, False).marks, car_of(of)
    at = np.column_stack([np.ones(4), [[c.x, c.y] for c in car.corners]])
    there = np.array([[1.0, p.station, p.offset] for p in (of.height_place(c) for c in CORNERS)])
    before = stand(car)

    def moved(after):
        plane = np.linalg.lstsq(at, after.heights - before.heights, rcond=None)[0]
        return there @ plane, (after.loads - before.loads) / 9.80665

    m, x, y = 8.0, -700.0, 250.0
    cg = tuple((car.mass * a + m * b) / (car.mass + m) for a, b in zip(car.cg, (x, y), strict=True))
    heights, loads = moved(stand(replace(car, mass=car.mass + m, cg=cg)))
    wide = replace(car, corners=(replace(car.corners[0], radius=car.corners[0].radius + 6.0), *car.corners[1:]))
    raised, shifted = moved(stand(wide))
    for i, c in enumerate(CORNERS):
        for kind, by_load, by_tyre in (("height", heights[i], raised[i]), ("load", loads[i], shifted[i])):
            worth = found[f"{c}.{kind}"]
            assert sum(worth.of(n) * v for n, v in zip(LOAD, (m, m * x, m * y), strict=True)) == pytest.approx(
                by_load, abs=0.02
            )
            assert 6.0 * worth.of(TYRE["LF"]) == pytest.approx(by_tyre, abs=0.05)


def test_a_tyre_with_its_figure_spoils_what_it_moves_and_without_one_all_that_it_could():
    of = plan("heather")
    of = replace(of, tools=tuple(Tool(t.id, t.name, t.measures, 1e-6, 0.0) for t in of.toolbox))
    read = [PlanRevised(of), Happened("bar_off"), Happened("settled")]
    read += [Reading("height", c, of.aim(f"{c}.height").aim, "rule") for c in CORNERS]

    def states(*more):
        found = evaluate(fold(None, [Entry(str(n), n, w) for n, w in enumerate([*read, *more], 1)]))
        return {c: found.mark(f"{c}.height").state for c in CORNERS}

    assert set(states(Happened("tyre", "LF")).values()) == {"moved since"}
    assert set(states(Happened("tyre", "LF", by=0.2)).values()) == {"holds"}
    assert states(Happened("tyre", "LF", by=6.0))["LF"] == "moved since"
    assert set(states(Happened("load", by=0.3, place=(-900.0, 0.0))).values()) == {"holds"}
    assert "moved since" in states(Happened("load", by=60.0, place=(-900.0, 300.0))).values()
    for wrong in (Happened("tyre", by=2.0), Happened("load", by=4.0), Happened("knock", "LF", by=1.0)):
        with pytest.raises(CalledError):
            check(fold(None, [Entry("1", 1, PlanRevised(of))]), wrong)
