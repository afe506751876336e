"""Both wheels of an end together: roll centre, Ackermann, track; and what braking and driving do. See docs/linkage.md."""

import numpy as np

from ready_corner.core.engines.linkage.answers import Answers, place_answers
from ready_corner.core.engines.linkage.body import Body, Loads
from ready_corner.core.engines.linkage.knuckles import wheel_motion
from ready_corner.core.engines.linkage.mechanism import Pose
from ready_corner.core.engines.linkage.solve import twist
from ready_corner.core.engines.linkage.space import Array


def roll_centre(left: Answers, right: Answers) -> tuple[Array, Array]:
    """Return height over the ground and offset from the centreline (plus left), in mm, of the kinematic roll centre of two wheels.

    Where the normals to the paths of both contact points meet in front view. The ground goes through both contact points; the
    height is square to it, the offset along it from where the centreline plane meets it. nan or inf where the normals are parallel.
    Source: ISO 8855; roll centre by the force lines of both wheels, docs/linkage.md.
    """
    sides = []
    for wheel, s in ((left, 1.0), (right, -1.0)):
        at = np.stack([wheel["contact_y"], wheel["contact_z"]], axis=-1)
        sides.append((at, np.stack([s * wheel["contact_slope"], np.ones_like(wheel["contact_slope"])], axis=-1)))
    (a, u), (b, v) = sides
    # (x − a)·u = 0 and (x − b)·v = 0
    det = u[..., 0] * v[..., 1] - u[..., 1] * v[..., 0]
    au, bv = np.sum(a * u, axis=-1), np.sum(b * v, axis=-1)
    with np.errstate(divide="ignore", invalid="ignore"):
        y, z = (au * v[..., 1] - bv * u[..., 1]) / det, (bv * u[..., 0] - au * v[..., 0]) / det
        symmetric = np.abs(det) < 1e-12
        y, z = np.where(symmetric, np.nan, y), np.where(symmetric, np.nan, z)
    return _over_ground(y, z, a, b)


def _over_ground(y: Array, z: Array, left: Array, right: Array) -> tuple[Array, Array]:
    across = left - right
    along = across / np.sqrt(np.sum(across**2, axis=-1, keepdims=True))
    with np.errstate(divide="ignore", invalid="ignore"):
        middle = left - across * (left[..., 0] / across[..., 0])[..., None]  # where the ground meets the centreline plane
    off = np.stack([y, z], axis=-1) - middle
    height = off[..., 1] * along[..., 0] - off[..., 0] * along[..., 1]
    return np.asarray(height), np.asarray(np.sum(off * along, axis=-1))


def axle_roll_centre(body: Body, pose: Pose) -> tuple[Array, Array]:
    """Return height over the ground and offset in mm of the roll centre of a live axle: where it rolls, at fixed heave, without going sideways.

    Source: ISO 8855; roll centre by the force lines of both wheels, docs/linkage.md.
    """
    shape = body.shape
    rolling = twist(shape, pose, drive=1)
    turning, speed = rolling[..., :3], rolling[..., 3:]
    wheels = [place_answers(shape, wheel_motion(body, shape, pose, rolling, w)[0], w) for w in body.wheels]
    left, right = (np.stack([w["contact_y"], w["contact_z"]], axis=-1) for w in wheels)
    with np.errstate(divide="ignore", invalid="ignore"):
        z = pose.place[..., 2] + speed[..., 1] / turning[..., 0]
        y = pose.place[..., 1] - speed[..., 2] / turning[..., 0]
    return _over_ground(y, z, left, right)


LEAST_STEER_DEG = (
    0.25  # of both wheels: nearer to straight ahead what is left of the drawn toe, or of bump steer, is all there is to compare
)


def ackermann_percent(left: Answers, right: Answers, wheelbase: float, straight: tuple[float, float]) -> Array:
    """Return how much of the full difference of steer angles there is, in percent; nan while they are not both steered one way.

    cot(outer) − cot(inner) = track / wheelbase is 100 %. ``straight``: toes of left and right with the rack in the middle.
    Source: ISO 8855; roll centre by the force lines of both wheels, docs/linkage.md.
    """
    steer_left = -(left["toe_deg"] - straight[0])  # toe-in of the left wheel is steering to the right; plus is to the left
    steer_right = right["toe_deg"] - straight[1]
    track = left["contact_y"] - right["contact_y"]
    mean = (steer_left + steer_right) / 2
    inner, outer = np.where(mean > 0, steer_left, -steer_right), np.where(mean > 0, steer_right, -steer_left)
    with np.errstate(divide="ignore", invalid="ignore"):
        found = (1 / np.tan(np.radians(outer)) - 1 / np.tan(np.radians(inner))) * wheelbase / track * 100
    steered = (steer_left * steer_right > 0) & (np.minimum(np.abs(steer_left), np.abs(steer_right)) >= LEAST_STEER_DEG)
    return np.where(steered, found, np.nan)


def anti_percent(end: str, wheel: Answers, loads: Loads, wheelbase: float) -> dict[str, Array]:
    """Return anti-dive or anti-lift under braking, and anti-squat or anti-lift under drive, in percent.

    Brakes in the wheel act at the contact point of the locked wheel, brakes and drive on the body at the wheel centre. Plus works
    against the dive, the lift and the squat.
    Source: ISO 8855; roll centre by the force lines of both wheels, docs/linkage.md.
    """
    sign, share = (1.0, loads.front_share) if end == "front" else (-1.0, 1 - loads.front_share)
    lever = wheelbase / loads.height * 100
    slope = {"outboard": wheel["side_slope_contact"], "inboard": wheel["side_slope_centre"]}
    out = {"anti_dive_percent" if end == "front" else "anti_lift_percent": sign * share * slope[loads.brakes] * lever}
    if loads.driven in (end, "both"):
        part = 0.5 if loads.driven == "both" else 1.0
        out["anti_squat_percent" if end == "rear" else "drive_anti_lift_percent"] = sign * part * slope[loads.drive] * lever
    return out


__all__ = ["ackermann_percent", "anti_percent", "axle_roll_centre", "roll_centre"]
