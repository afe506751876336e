"""Convergence, the ends of branches, what cannot be held, and what may not change an answer."""

from dataclasses import replace

import numpy as np
import pytest

from ready_corner.core.engines.linkage.body import Wheel, body_of
from ready_corner.core.engines.linkage.solve import MOST_TRIES, SingularLinkageError
from ready_corner.core.engines.linkage.sweep import sweep
from ready_corner.core.model.bodies import bodies_of, sweep_end
from ready_corner.core.model.checks import check_linkages
from ready_corner.core.model.study import study
from ready_corner.core.quantities.errors import CalledError, PlannedError, ReadyCornerError
from tests.amounts import drawn
from tests.words import said

from .cars import CORNERS_ONLY, EACH, body, plan, wishbones

TRAVEL = np.linspace(-60, 60, 25)


@pytest.mark.parametrize(("name", "end"), EACH)
def test_every_row_closes_or_says_that_it_does_not(name, end):
    one = body(name, end)
    found = sweep(one, np.linspace(-2000, 2000, 401))
    good = found.poses.converged
    assert good[180:221].all()
    assert (found.poses.residual[good] < 1e-9).all()
    assert not good[[0, -1]].any()
    assert np.isnan(found.answers[next(iter(found.answers))][~good]).all()
    assert np.all(np.diff(np.flatnonzero(good)) == 1)
    assert len(found.ends) == 2
    assert all(e.member in one.shape.mechanism.rows for e in found.ends)
    assert f"{found.ends[0].member} is at full stretch at" in " ".join(said(found.warnings))


def test_the_end_of_a_branch_is_where_the_arm_stands_on_end():
    found = sweep(wishbones(), np.linspace(-300, 300, 61))
    # Equal level arms of 250 mm: the wheel can go up or down by their length and no further.
    assert sorted(e.travel for e in found.ends) == pytest.approx([-250.0, 250.0], abs=0.01)
    assert not found.poses.converged[[0, -1]].any()
    assert found.poses.converged[6:55].all()


@pytest.mark.parametrize(("name", "end"), EACH)
def test_a_row_alone_and_in_a_batch_gives_the_same_bits(name, end):
    one = body(name, end)
    batch = sweep(one, TRAVEL).answers
    for i in (0, 7, 24):
        alone = sweep(one, TRAVEL[i : i + 1]).answers
        assert all(alone[k][0] == batch[k][i] or np.isnan(batch[k][i]) for k in ("toe_deg", "centre_y") if k in batch)


@pytest.mark.parametrize(("name", "end"), CORNERS_ONLY)
def test_a_mirrored_corner_has_the_same_angles_and_lengths(name, end):
    left, right = (sweep(b, TRAVEL).answers for b in bodies_of(plan(name), end))
    odd = {"centre_y", "contact_y"}
    for k in left:
        turns = -1 if k in odd or k.startswith(("rocker.angle", "bar.")) else 1
        np.testing.assert_allclose(left[k], turns * right[k], rtol=1e-8, atol=1e-8, err_msg=k)


@pytest.mark.parametrize(("name", "end"), CORNERS_ONLY)
def test_shifted_and_turned_axes_and_other_units_change_nothing_that_is_the_cars(name, end):
    one = body(name, end)
    turn, shift = (
        np.array([[np.cos(0.4), -np.sin(0.4), 0], [np.sin(0.4), np.cos(0.4), 0], [0, 0, 1.0]]),
        np.array([300.0, -200.0, 55.0]),
    )
    moved = {n: tuple(turn @ one.shape.point(n) + shift) for n in one.shape.mechanism.points}
    wheel = replace(one.wheels[0], toe_deg=one.wheels[0].toe_deg - np.degrees(0.4))  # the axes turn under the wheel
    there = sweep(body_of("LF", one.layout.name, moved, (wheel,), one.steered), TRAVEL).answers
    here = sweep(replace(one, springs=(), torsions=(), rocker=None, bar=None, shaft=None), TRAVEL).answers
    np.testing.assert_allclose(there["camber_deg"], here["camber_deg"], atol=1e-9)
    np.testing.assert_allclose(there["toe_deg"], here["toe_deg"] - np.degrees(0.4), atol=1e-9)
    inch = {n: tuple(one.shape.point(n) / 25.4) for n in one.shape.mechanism.points}
    small = replace(one.wheels[0], loaded_radius=one.wheels[0].loaded_radius / 25.4)
    inches = sweep(body_of("LF", one.layout.name, inch, (small,), one.steered), TRAVEL / 25.4).answers
    np.testing.assert_allclose(inches["camber_deg"], here["camber_deg"], atol=1e-8)
    np.testing.assert_allclose(inches["contact_y"] * 25.4, here["contact_y"], atol=1e-7)


def test_rack_then_travel_and_both_at_once_come_to_the_same_place():
    one = body("heather", "front")
    travel, rack = (a.ravel() for a in np.meshgrid(TRAVEL[::6], [-35.0, 0.0, 20.0], indexing="ij"))
    both = sweep(one, travel, rack).answers
    for r in (-35.0, 0.0, 20.0):
        single = sweep(one, TRAVEL[::6], r).answers
        np.testing.assert_allclose(both["toe_deg"][rack == r], single["toe_deg"], atol=1e-9)
    assert (both["toe_deg"][rack == 20.0] < both["toe_deg"][rack == -35.0]).all()  # the tie rod is ahead of the axis


def test_the_steering_axis_of_a_five_link_that_is_a_double_wishbone_goes_through_its_joints():
    points = dict(plan("heather").points)
    own = {n.removeprefix("LF."): p for n, p in points.items() if n.startswith("LF.")}
    five = {"link1.inner": own["upper.front"], "link2.inner": own["upper.rear"], "link3.inner": own["lower.front"], "link4.inner": own["lower.rear"],
            "link1.outer": own["upper.ball"], "link2.outer": own["upper.ball"], "link3.outer": own["lower.ball"], "link4.outer": own["lower.ball"],
            "tie.inner": own["tie.inner"], "tie.outer": own["tie.outer"], "wheel": own["wheel"]}  # fmt: skip
    wheel = body("heather", "front").wheels[0]
    a, b = sweep(body_of("LF", "five link", five, (wheel,), True), TRAVEL, 12.0), sweep(body("heather", "front"), TRAVEL, 12.0)
    for k in ("caster_deg", "inclination_deg", "scrub", "trail", "toe_deg"):
        np.testing.assert_allclose(a.answers[k], b.answers[k], atol=1e-6, err_msg=k)


def test_what_does_not_hold_the_wheel_is_refused_by_name():
    corner = wishbones()
    on_axis = {n: tuple(corner.shape.point(n)) for n in corner.shape.mechanism.points} | {"tie.outer": (0.0, 500.0, 275.0)}
    with pytest.raises(SingularLinkageError, match="tie rod") as wrong:  # bump would be bought with steering
        sweep(body_of("LF", "double wishbone", on_axis, corner.wheels, True), TRAVEL)
    assert wrong.value.ratio < 1e-6
    doubled = {n: body("five-link", "rear").shape.point(n) for n in body("five-link", "rear").shape.mechanism.points}
    doubled |= {"link2.inner": doubled["link1.inner"] * 2 - doubled["link1.outer"], "link2.outer": doubled["link1.outer"]}
    with pytest.raises(SingularLinkageError) as wrong:
        sweep(body_of("LR", "five link", doubled, body("five-link", "rear").wheels), TRAVEL)
    assert wrong.value.member in ("link1", "link2")


def test_a_linkage_barely_held_is_warned_of():
    corner = wishbones()
    near = {n: tuple(corner.shape.point(n)) for n in corner.shape.mechanism.points} | {"tie.outer": (-1.0, 500.0, 275.0)}
    assert any(
        "only just" in w for w in said(sweep(body_of("LF", "double wishbone", near, corner.wheels, True), np.zeros(1)).warnings)
    )


def test_a_rocker_out_of_reach_refuses_the_damper_and_not_the_pose():
    found = sweep(body("heather", "front"), np.array([-200.0, 0.0]))
    assert found.poses.converged.all()
    assert np.isnan(found.answers["damper.length"]).tolist() == [True, False]
    assert np.isfinite(found.answers["camber_deg"]).all()
    assert any("rod does not reach" in w for w in said(found.warnings))


def test_four_parallel_links_bind_in_roll_and_say_by_how_much():
    rolled = sweep_end(plan("tern"), "rear", np.zeros(3), 0.0, np.array([-4.0, 0.0, 4.0]))
    assert rolled.bodies[0].poses.converged.all()
    assert rolled.bodies[0].poses.residual == pytest.approx([0.785, 0.0, 0.785], abs=0.01)
    assert any("in their bushes" in w for w in said(rolled.bodies[0].warnings))
    assert np.degrees(
        np.arctan2(rolled.left["centre_z"] - rolled.right["centre_z"], rolled.left["centre_y"] - rolled.right["centre_y"])
    ) == pytest.approx([-4, 0, 4])


def test_what_is_asked_of_the_wrong_body_is_refused():
    with pytest.raises(PlannedError, match="not steered"):
        sweep(body("heather", "rear"), TRAVEL, 5.0)
    with pytest.raises(PlannedError, match="one corner"):
        sweep(body("heather", "rear"), TRAVEL, 0.0, 1.0)
    with pytest.raises(PlannedError, match=r"still needs upper\.ball"):
        body_of(
            "LF",
            "double wishbone",
            dict(zip(("upper.front", "upper.rear"), ((0, 1, 2), (3, 4, 5)), strict=True)),
            (Wheel(1, "wheel", 280.0),),
        )


@pytest.mark.parametrize(
    ("change", "path", "words"),
    [
        ({"LF.lower.ball": (6.0, 565.0, 398.0), "LF.upper.ball": (6.0, 565.0, 398.0)}, "points.LF.lower.ball", "same place"),
        ({"LF.wheel": (0.0, -670.0, 270.0)}, "points.LF.wheel", "exchanged"),
        ({"LF.wheel": (0.0, 26.378, 270.0)}, "points.LF.wheel", "inch typed as a millimetre"),
        ({"LF.wheel": (0.0, 660.0, 270.0)}, "points.LF.wheel", "the track gives 670.0"),
        ({"LR.wheel": (-2200.0, 680.0, 282.0)}, "points.LR.wheel", "the wheelbase puts it at -2280.0"),
        ({"LF.tie.inner": (88.0, 23200.0, 214.0)}, "points.LF.tie.inner", "unit missing"),
        ({"LF.tie.inner": (88.0, float("nan"), 214.0)}, "points.LF.tie.inner", "not finite"),
    ],
)
def test_points_that_cannot_be_right_are_named_with_what_to_do(change, path, words):
    wrong = check_linkages(replace(plan("heather"), points={**plan("heather").points, **change}))
    assert any(w.path == path and words in w.sentence for w in wrong), [(w.path, w.sentence) for w in wrong]
    assert check_linkages(plan("heather")) == []


def boxed(arm=(88.0, 150.0, 214.0), idler=(88.0, -150.0, 214.0), lever=160.0):
    """Heather steered by a box: drop arm and idler on upright axes behind the relay, which carries both tie rods."""
    points = dict(plan("heather").points)
    for name, end in (("box", arm), ("idler", idler)):
        at = (end[0] - lever, end[1], end[2])
        points |= {f"front.{name}.first": at, f"front.{name}.second": (at[0], at[1], at[2] + 50.0), f"front.{name}.arm": end}
    linkage = replace(plan("heather").front_linkage, steering="box")
    return replace(plan("heather"), points=points, front_linkage=linkage)


def test_a_box_with_equal_parallel_arms_moves_the_relay_round_a_circle_and_a_long_one_is_a_rack():
    left = bodies_of(boxed(), "front")[0]
    turn = np.array([-20.0, 0.0, 20.0])
    found = sweep(left, np.zeros(3), turn)
    inner = found.poses.pose.of_car(left.shape, "tie.inner") - left.shape.point("tie.inner")
    a = np.radians(turn)
    np.testing.assert_allclose(inner, np.stack([160 * (np.cos(a) - 1), 160 * np.sin(a), 0 * a], axis=-1), atol=1e-9)
    far = bodies_of(boxed(lever=1e5), "front")[0]
    rack = sweep(body("heather", "front"), np.array([-20.0, 30.0]), 12.0).answers
    same = sweep(far, np.array([-20.0, 30.0]), np.degrees(12.0 / 1e5)).answers
    np.testing.assert_allclose(same["toe_deg"], rack["toe_deg"], atol=1e-3)  # deg; on such a circle 12 mm bend by 7e-4 mm


def test_a_shorter_idler_takes_its_end_of_the_relay_further_round_and_the_branch_ends_where_it_does_not_reach():
    odd = boxed()
    odd = replace(
        odd, points={**odd.points, "front.idler.first": (-32.0, -150.0, 214.0), "front.idler.second": (-32.0, -150.0, 264.0)}
    )
    left, right = bodies_of(odd, "front")
    aft = [sweep(b, np.zeros(1), 15.0).poses.pose.of_car(b.shape, "tie.inner")[0, 0] - 88.0 for b in (left, right)]
    assert aft[0] - aft[1] > 1.0  # mm; 160 mm against 120 mm of lever at 41 mm sideways
    away = sweep(left, np.zeros(1), 100.0)
    assert not away.poses.converged.any()
    assert away.ends


def test_a_box_without_its_points_says_which_are_wanting():
    bare = replace(plan("heather"), front_linkage=replace(plan("heather").front_linkage, steering="box"))
    assert any("box.first, box.second, box.arm" in w.sentence for w in check_linkages(bare))


def test_limits_come_worst_first_and_are_those_of_the_rows():
    drive = np.linspace(-60, 60, 25)
    found = study(plan("heather"), "front", "travel", -60.0, 60.0, 25)
    shares = [limit.share for limit in found.limits]
    assert shares == sorted(shares)
    left = sweep(body("heather", "front"), drive).answers
    spring = body("heather", "front").springs[0]
    closing = next(x for x in found.limits if x.what == "LF damper, closing")
    assert closing.left == pytest.approx(left["damper.length"].min() - spring.closed)
    assert closing.at == drive[np.argmin(left["damper.length"])]
    tie = next(x for x in found.limits if x.what == "LF tie rod, inner joint")
    assert tie.left == pytest.approx(13.0 - left["tie rod.inner_deg"].max())


def test_names_and_the_order_of_points_change_nothing():
    own = {n.removeprefix("LF."): p for n, p in plan("heather").points.items() if n.startswith("LF.")}
    renamed = {n.replace("damper", "coilover"): p for n, p in reversed(own.items())}
    one = body("heather", "front")
    spring = one.springs[0]
    ends = tuple(replace(e, point=e.point.replace("damper", "coilover")) for e in spring.ends)
    other = body_of("LF", "double wishbone", renamed, one.wheels, True, springs=(replace(spring, ends=ends),), rocker=one.rocker, bar=one.bar, joints=one.joints)  # fmt: skip
    a, b = sweep(one, TRAVEL, 9.0).answers, sweep(other, TRAVEL, 9.0).answers
    assert a.keys() == b.keys()
    for k, value in a.items():
        np.testing.assert_array_equal(b[k], value, err_msg=k)


@pytest.mark.parametrize(("name", "end"), EACH)
def test_what_was_asked_of_a_shape_before_changes_no_digit(name, end):
    asked = [np.linspace(-5, 5, 3), np.array([300.0]), np.linspace(-60, 60, 7), np.linspace(-2000, 2000, 5), np.zeros(1)]
    one = body(name, end)
    for travel in asked:
        fresh = replace(one, shape=replace(one.shape))
        assert fresh.shape.walked is not one.shape.walked
        again, anew = sweep(one, travel), sweep(fresh, travel)
        assert again.ends == anew.ends
        for key, value in anew.answers.items():
            np.testing.assert_array_equal(again.answers[key], value)


def test_a_branch_that_can_hardly_be_followed_is_walked_so_far_and_its_end_is_told():
    """A live axle held once too often, its points thrown about: it creeps for ever where Newton follows every second step."""
    rng, tern, ended = np.random.default_rng(11), plan("tern"), 0
    for _ in range(drawn(60, 14)):
        thrown = {k: tuple(np.array(p) + rng.normal(0, 150, 3) * (rng.random() < 0.5)) for k, p in tern.points.items()}
        try:
            (body,) = bodies_of(replace(tern, points=thrown), "rear")
            found = sweep(body, np.linspace(-50, 400, 7))
        except ReadyCornerError:
            continue
        walked = [b for k, b in body.shape.walked.items() if k != b"held"]
        assert all(len(b.knots) <= MOST_TRIES + 1 for b in walked)
        assert bool(found.ends) or bool(found.poses.converged.all())
        ended += bool(found.ends)
    assert ended


def test_a_drive_further_than_any_wheel_goes_is_refused():
    with pytest.raises(CalledError) as refused:
        study(plan("heather"), "front", "steer", -2000.0, 50.0, 21)
    assert "further than any wheel goes. Ask within ± 400." in str(refused.value)
