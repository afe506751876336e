"""Against geometry that can be done with a circle and a protractor, or by statics."""

import numpy as np
import pytest

from ready_corner.core.engines.linkage.answers import motion_of
from ready_corner.core.engines.linkage.body import Loads, Wheel, body_of
from ready_corner.core.engines.linkage.mechanism import system
from ready_corner.core.engines.linkage.pair import anti_percent
from ready_corner.core.engines.linkage.sweep import sweep, travel_for_length
from ready_corner.core.model.bodies import sweep_end

from .cars import CORNERS_ONLY, EACH, body, plan, planar_strut, wishbones

TRAVEL = np.linspace(-70, 70, 15)
MM = {"atol": 1e-8}  # mm and degrees; the solver closes to 1e-10 mm on levers of 100 mm


def test_equal_parallel_arms_keep_camber_toe_and_caster():
    found = sweep(wishbones(toe_deg=0.2, camber_deg=-1.0), TRAVEL).answers
    np.testing.assert_allclose(found["camber_deg"], -1.0, **MM)
    np.testing.assert_allclose(found["toe_deg"], 0.2, **MM)
    np.testing.assert_allclose(found["caster_deg"], 0.0, **MM)
    np.testing.assert_allclose(found["half_track_change"], np.sqrt(250**2 - TRAVEL**2) - 250, **MM)
    assert np.isinf(found["front_arm"]).all() or (np.abs(found["front_arm"]) > 1e9).all()


def test_camber_is_that_of_the_planar_four_bar():
    low, up, corner = (
        np.array([250.0, 130.0]),
        np.array([270.0, 380.0]),
        wishbones((480.0, 400.0), (560.0, 150.0), (270.0, 250.0), (20.0, 20.0)),
    )
    found = sweep(corner, TRAVEL).answers
    # By circles: swing the lower arm, find the upper joint at the two radii, and look where the wheel centre has come.
    ball, top, centre = np.array([560.0, 150.0]), np.array([480.0, 400.0]), np.array([620.0, 280.0])
    heights, cambers = [], []
    for a in np.radians(np.linspace(-20, 20, 41)):
        c, s = np.cos(a), np.sin(a)
        lower = low + np.array([[c, -s], [s, c]]) @ (ball - low)
        between = up - lower
        d, r, q = np.hypot(*between), np.hypot(*(top - up)), np.hypot(*(top - ball))
        along = (d**2 + q**2 - r**2) / (2 * d)
        e = between / d
        joint = lower + along * e - np.sqrt(q**2 - along**2) * np.array([e[1], -e[0]]) * -1
        turn = np.arctan2(*(joint - lower)[::-1]) - np.arctan2(*(top - ball)[::-1])
        c, s = np.cos(turn), np.sin(turn)
        heights.append((lower + np.array([[c, -s], [s, c]]) @ (centre - ball))[1] - 280.0)
        cambers.append(-np.degrees(turn))
    again = sweep(corner, np.array(heights)).answers
    np.testing.assert_allclose(again["camber_deg"], cambers, **MM)
    assert np.ptp(found["camber_deg"]) > 1


def test_a_hinged_arm_is_a_pure_rotation():
    arm = body("hinged-arm", "rear")
    found = sweep(arm, TRAVEL)
    turn = found.poses.pose.rotation
    first, second = arm.shape.point("hinge.inner"), arm.shape.point("hinge.outer")
    axis = (second - first) / np.linalg.norm(second - first)
    np.testing.assert_allclose(turn @ axis, np.broadcast_to(axis, (15, 3)), atol=1e-12)
    centre = np.stack([found.answers[f"centre_{k}"] for k in "xyz"], axis=-1)
    away = arm.shape.point("wheel") - first
    np.testing.assert_allclose(
        np.linalg.norm(np.cross(centre - first, axis), axis=-1), np.linalg.norm(np.cross(away, axis)), **MM
    )
    np.testing.assert_allclose((centre - first) @ axis, away @ axis, **MM)


def test_camber_and_length_of_a_planar_strut_by_the_law_of_cosines():
    strut = planar_strut()
    found = sweep(strut, TRAVEL)
    ball = found.poses.pose.at(strut.shape, "lower.ball")[:, 1:]
    top = np.array([520.0, 780.0])
    lean, before = np.arctan2(*(top - ball).T), np.arctan2(*(top - np.array([600.0, 150.0])))
    np.testing.assert_allclose(found.answers["camber_deg"], np.degrees(lean - before), **MM)
    np.testing.assert_allclose(found.answers["strut.length"], np.hypot(*(top - ball).T), **MM)
    np.testing.assert_allclose(np.hypot(*(ball - [250.0, 160.0]).T), np.hypot(350.0, 10.0), **MM)
    np.testing.assert_allclose(found.answers["inclination_deg"], -np.degrees(lean), **MM)


def test_an_axle_in_pure_heave_pitches_as_its_side_view_four_bar():
    points = {}
    for side, s in (("left", 1), ("right", -1)):
        points |= {f"upper.{side}.body": (420, s * 400, 400), f"upper.{side}.axle": (10, s * 400, 420),
                   f"lower.{side}.body": (560, s * 400, 220), f"lower.{side}.axle": (0, s * 400, 200), f"{side}.wheel": (0, s * 700, 300)}  # fmt: skip
    points |= {"panhard.body": (-100, 500, 300), "panhard.axle": (-100, -500, 300)}
    axle = body_of("rear", "four link axle", points, (Wheel(1, "left.wheel", 300.0), Wheel(-1, "right.wheel", 300.0)))
    found = sweep(axle, TRAVEL)
    lower, upper = (found.poses.pose.at(axle.shape, f"{n}.left.axle")[:, ::2] for n in ("lower", "upper"))
    # The Panhard rod takes the axle a little sideways, so the links are a little shorter in side view.
    aside = found.poses.pose.place[:, 1]
    for ends, (x, z), size2 in ((lower, (560, 220), 560**2 + 20**2), (upper, (420, 400), 410**2 + 20**2)):
        np.testing.assert_allclose(np.hypot(*(ends - [x, z]).T), np.sqrt(size2 - aside**2), atol=1e-6)
    pitch = np.arctan2(*(upper - lower).T) - np.arctan2(10, 220)
    turn = found.poses.pose.rotation
    np.testing.assert_allclose(np.degrees(np.arctan2(turn[:, 0, 2], turn[:, 2, 2])), np.degrees(pitch), atol=1e-3)
    assert np.ptp(pitch) > 0.01
    np.testing.assert_allclose(found.wheels[0]["centre_z"], found.wheels[1]["centre_z"], atol=0.05)


@pytest.mark.parametrize(("name", "end"), CORNERS_ONLY)
def test_virtual_work_gives_the_same_roll_centre_as_the_motion_of_the_contact_points(name, end):
    one = body(name, end)
    found = sweep(one, np.zeros(1))
    shape, pose, wheel = one.shape, found.poses.pose, found.wheels[0]
    _, rows = system(shape, pose, np.zeros(1), np.zeros(1))
    contact = np.array([wheel[f"contact_{k}"][0] for k in "xyz"])

    def force_in_the_drive(force):  # statics: the forces in the links and in the drive balance one at the contact point
        wrench = np.concatenate([np.cross(contact - pose.place[0], force), force])
        return np.linalg.lstsq(rows[0].T, wrench, rcond=None)[0][-1]

    # A side force needs no spring where it comes with this much upward force: the line to the roll centre.
    slope = -force_in_the_drive(np.array([0.0, 1.0, 0.0])) / force_in_the_drive(np.array([0.0, 0.0, 1.0]))
    twist = motion_of(one, shape, pose).twist[0]
    at_contact = twist[3:] + np.cross(twist[:3], contact - pose.place[0])
    assert slope == pytest.approx(-at_contact[1] / at_contact[2], abs=1e-9)
    # Static toe lets the lowest point leave the touched one by the spin; it is little, and nothing without toe.
    assert wheel["contact_slope"][0] == pytest.approx(at_contact[1] / at_contact[2], abs=2e-3)


def test_roll_centre_of_level_arms_is_on_the_ground_and_of_equal_leaning_ones_where_their_line_meets_the_middle():
    corner = wishbones((500.0, 400.0), (500.0, 150.0), (250.0, 250.0), (25.0, 25.0))
    slope = sweep(corner, np.zeros(1)).answers["contact_slope"][0]
    assert slope == pytest.approx(-25 / 250)  # the joints are above the pivots: in bump the contact point goes in
    front = sweep_end(plan("heather"), "front", np.zeros(1))
    left = front.left
    assert front.pair["roll_centre_height"][0] == pytest.approx(
        float(left["half_track"][0] * left["contact_slope"][0]), abs=1e-9
    )
    assert front.pair["roll_centre_offset"][0] == pytest.approx(0.0, abs=1e-9)


def test_a_live_axle_rolls_about_its_panhard_rod():
    rear = sweep_end(plan("three-link-axle"), "rear", np.zeros(1))
    # Three parallel links leave the axle free sideways; the rod holds it at its own height in the middle of the car.
    a, b = (np.array(plan("three-link-axle").points[f"rear.panhard.{n}"]) for n in ("body", "axle"))
    middle = a + (b - a) * (a[1] / (a[1] - b[1]))
    assert rear.pair["roll_centre_height"][0] == pytest.approx(middle[2], abs=8.0)  # mm; the links are not quite parallel


def test_anti_dive_is_the_slope_to_the_side_view_centre():
    corner = wishbones()
    loads = Loads(height=500.0, front_share=0.6)
    level = anti_percent("front", sweep(corner, np.zeros(1)).wheels[0], loads, 2400.0)
    assert level["anti_dive_percent"][0] == pytest.approx(0.0, abs=1e-9)
    tilted = {k: (x, y, z + (8 if k.endswith("front") and k.startswith("upper") else 0)) for k, (x, y, z) in
              ((n, tuple(corner.shape.point(n))) for n in corner.shape.mechanism.points)}  # fmt: skip
    nose_up = sweep(body_of("LF", "double wishbone", tilted, corner.wheels, True), np.zeros(1)).wheels[0]
    arm, height = nose_up["side_arm"][0], nose_up["side_slope_contact"][0] * nose_up["side_arm"][0]
    assert abs(arm) > 500
    found = anti_percent("front", nose_up, loads, 2400.0)["anti_dive_percent"][0]
    assert found == pytest.approx(100 * 0.6 * height / arm * 2400 / 500)
    assert found != pytest.approx(0.0, abs=1.0)


def test_a_damper_driven_by_its_length_comes_back_to_the_travel():
    corner = body("heather", "front")
    swept = sweep(corner, TRAVEL)
    back = travel_for_length(corner, corner.springs[0], swept.answers["damper.length"])
    np.testing.assert_allclose(back, TRAVEL, **MM)
    assert np.isnan(travel_for_length(corner, corner.springs[0], np.array([5.0])))


@pytest.mark.parametrize(("name", "end"), EACH)
def test_rates_are_the_slopes_of_what_they_are_rates_of(name, end):
    one, h = body(name, end), 1e-2
    here, below, above = (sweep(one, TRAVEL[3:-3] + d).answers for d in (0.0, -h, h))

    def slope(of):
        return (above[of] - below[of]) / (2 * h)

    pairs = {k: k.replace("_per_mm", "") for k in here if k.endswith(("camber_deg_per_mm", "toe_deg_per_mm", "ratio_per_mm"))}
    pairs |= {k: k.replace("ratio", "length") for k in here if k.endswith(".ratio")}
    pairs |= {k: "bar.angle_deg" for k in here if k == "bar.deg_per_mm"}
    assert len(pairs) >= 2
    for rate, of in pairs.items():
        sign = -1 if rate.endswith(".ratio") else 1
        np.testing.assert_allclose(
            here[rate], sign * slope(of), atol=1e-7, err_msg=rate
        )  # per mm; h² times the third derivative
