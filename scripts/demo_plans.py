"""Tell the linkages of the demo cars, and a small car for each remaining layout, as plan files. All of them invented."""

from pathlib import Path
from typing import Any

from ready_corner.border.plan import PlanModel

HERE = Path(__file__).resolve().parent.parent / "src/ready_corner/demo"
INCH = 25.4

Points = dict[str, tuple[float, float, float]]


def placed(prefix: str, points: Points, along: float = 0.0, unit: float = 1.0) -> dict[str, list[float]]:
    """Points of a corner or an axle at a station, with their prefix."""
    return {
        f"{prefix}.{n}": [round(x * unit + along, 4), round(y * unit, 4), round(z * unit, 4)] for n, (x, y, z) in points.items()
    }


# Heather, millimetres: x from the axle line of its own end.
WISHBONES_FRONT: Points = {
    "upper.front": (95, 265, 372), "upper.rear": (-135, 270, 362), "upper.ball": (-9, 565, 398),
    "lower.front": (140, 215, 172), "lower.rear": (-160, 225, 164), "lower.ball": (6, 612, 150),
    "tie.inner": (88, 232, 214), "tie.outer": (96, 590, 205), "wheel": (0, 670, 270),
    "push.outer": (0, 560, 175), "rocker.first": (-22, 232, 476), "rocker.second": (22, 232, 476), "rocker.push": (0, 293, 528),
    "rocker.damper": (0, 232, 552), "damper.inner": (0, 22, 498),
    "bar.first": (-60, 140, 215), "bar.second": (-60, 200, 215), "bar.arm": (60, 205, 215), "bar.link": (40, 470, 168),
}  # fmt: skip
WISHBONES_REAR: Points = {
    "upper.front": (150, 255, 372), "upper.rear": (-120, 262, 374), "upper.ball": (-12, 575, 404),
    "lower.front": (190, 205, 172), "lower.rear": (-150, 210, 172), "lower.ball": (5, 610, 158),
    "tie.inner": (-168, 215, 196), "tie.outer": (-172, 600, 186), "wheel": (0, 680, 282),
    "push.outer": (0, 552, 178), "rocker.first": (-24, 222, 482), "rocker.second": (24, 222, 482), "rocker.push": (0, 283, 534),
    "rocker.damper": (0, 222, 560), "damper.inner": (0, 14, 506), "shaft.inner": (0, 120, 276), "shaft.outer": (0, 590, 280),
}  # fmt: skip
PUSHED = {
    "springs": [
        {
            "name": "damper",
            "ends": [{"point": "rocker.damper", "on": "rocker"}, {"point": "damper.inner", "on": "car"}],
            "rate": 45.0,
            "free": 200.0,
            "solid": 88.0,
            "seat": 42.0,
            "closed": 152.0,
            "open": 254.0,
        }
    ],
    "joints": [
        {"member": member, "at": at, "limit_deg": limit}
        for member, at, limit in (
            ("tie rod", "inner", 13.0),
            ("tie rod", "outer", 13.0),
            ("upper front leg", "inner", 16.0),
            ("upper front leg", "outer", 18.0),
            ("lower front leg", "outer", 22.0),
        )
    ],
    "rocker": {
        "first": "rocker.first",
        "second": "rocker.second",
        "push": "rocker.push",
        "rod": {"point": "push.outer", "on": "lower"},
    },
}


def end(hand: str) -> dict[str, Any]:
    return {"diameter": 10.0, "pitch_mm_per_turn": 1.5, "engaged": 28.0, "exposed": 16.0, "hand": hand}


FRAME: Points = {
    "frame.panel.nose": (420.0, 0.0, 130.0), "frame.rail.left.front": (-380.0, 300.0, 120.0), "frame.rail.right.front": (-380.0, -300.0, 120.0),
    "frame.rail.left.rear": (-1750.0, 300.0, 120.0), "frame.rail.right.rear": (-1750.0, -300.0, 120.0),
}  # fmt: skip


def features(*rows: tuple[str, float, float, float]) -> list[dict[str, Any]]:
    return [{"name": n, "station": x, "offset": y, "height": z} for n, x, y, z in rows]


HEATHER_FOOTING = {
    "mass": 612.0, "front": 0.44, "left": 0.5,
    "front_end": {"tyre_rate": 190.0, "unsprung": 24.0, "bump": 48.0, "droop": 52.0, "to_body": 66.0, "bar": {"diameter": 16.0, "length": 410.0, "arm": 121.8}},
    "rear_end": {"tyre_rate": 205.0, "unsprung": 27.0, "bump": 52.0, "droop": 50.0, "to_body": 58.0},
    "features": features(("sill, left front", -520.0, 505.0, 158.0), ("sill, left rear", -1700.0, 505.0, 158.0), ("sill, right front", -520.0, -505.0, 158.0), ("sill, right rear", -1700.0, -505.0, 158.0)),
    "low": features(("skid under the nose", 340.0, 0.0, 88.0), ("skid under the tail", -2120.0, 0.0, 92.0)),
    "stands": features(("front crossmember", 150.0, 0.0, 96.0), ("rear crossmember, left", -2050.0, 230.0, 96.0), ("rear crossmember, right", -2050.0, -230.0, 96.0)),
    "margin": 6.0,
}  # fmt: skip
TERN_FOOTING = {
    "mass": 690.0, "front": 0.55, "left": 0.5, "school": "both", "school_reason": "ice is even: turns both ways the same",
    "front_end": {"tyre_rate": 165.0, "unsprung": 28.0, "bump": 2.25 * INCH, "droop": 2.5 * INCH, "to_body": 3.0 * INCH},
    "rear_end": {"tyre_rate": 170.0, "unsprung": 36.0, "bump": 2.5 * INCH, "droop": 2.75 * INCH, "to_body": 2.375 * INCH},
    "features": features(("sill, left front", -20 * INCH, 26 * INCH, 9.5 * INCH), ("sill, left rear", -74 * INCH, 26 * INCH, 9.75 * INCH), ("sill, right front", -20 * INCH, -26 * INCH, 9.5 * INCH), ("sill, right rear", -74 * INCH, -26 * INCH, 9.75 * INCH)),
    "low": features(("skid plate", 12 * INCH, 0.0, 5.5 * INCH), ("axle guard", -88 * INCH, 0.0, 6.0 * INCH)),
    "stands": features(("front crossmember", 4 * INCH, 0.0, 6 * INCH), ("rail, left", -80 * INCH, 17 * INCH, 6.5 * INCH), ("rail, right", -80 * INCH, -17 * INCH, 6.5 * INCH)),
}  # fmt: skip


def heather() -> dict[str, Any]:
    aims = {"LF": (78.0, -1.8, -0.1), "RF": (78.0, -1.8, -0.1), "LR": (86.0, -1.2, 0.15), "RR": (86.0, -1.2, 0.15)}
    return {
        "name": "Heather",
        "about": "Hillclimb special, double wishbones, pushrods and rockers at both ends; millimetres",
        "units": {"system": "mm"},
        "wheelbase": 2280.0,
        "ways": {"strings": "each", "strings_reason": "Strings on stands; rims turned half round and read twice.", "strings_on": "stands", "hub_middle": 0.5, "span": 1.0, "run_out": 0.0},
        "front": {"track": 1340.0, "rim_flange_diameter": 352.0, "tyre_diameter": 552.0},
        "rear": {"track": 1360.0, "rim_flange_diameter": 352.0, "tyre_diameter": 576.0},
        "aims": [
            row
            for c, (height, camber, toe) in aims.items()
            for row in (
                {"mark": f"{c}.height", "aim": height, "tolerance": 2.0, "source": "drawing", "trust": "sure"},
                {"mark": f"{c}.camber", "aim": camber, "tolerance": 0.2, "source": "drawing", "trust": "sure"},
                {"mark": f"{c}.toe", "aim": toe, "tolerance": 0.1, "source": "drawing", "trust": "sure"},
            )
        ],
        "build_aims": [{"mark": f"{c}.{kind}", "aim": 0.0, "tolerance": 0.5, "source": "upright and straight, to hang the body by", "trust": "sure"} for c in aims for kind in ("camber", "toe")],
        "heights": [
            {"corner": c, "name": "floor pan at the axle", "station": x, "offset": y, "height": 82.0}
            for c, x, y in (("LF", 0.0, 230.0), ("RF", 0.0, -230.0), ("LR", -2280.0, 220.0), ("RR", -2280.0, -220.0))
        ],
        "adjusters": [
            row
            for c in aims
            for row in (
                {"id": f"{c}.tie-rod", "name": "tie rod" if c.endswith("F") else "toe link", "corner": c, "ends": [end("right"), end("left")], "moves": {"name": f"{c}.tie rod"}, "lock": "jam nuts, 17 mm"},
                {"id": f"{c}.pushrod", "name": "pushrod", "corner": c, "ends": [end("right"), end("left")]},
                {"id": f"{c}.upper", "name": "upper bracket shims", "corner": c, "shims": {"thickness": 1.0, "fitted": 3, "most": 7, "shelf": (2.0,)}, "moves": {"name": f"{c}.upper.ball", "direction": (0.0, 1.0 if c.startswith("L") else -1.0, 0.0)}, "lock": "two M8 bolts"},
            )
        ]
        + [
            {"id": f"{c}.perch", "name": "spring perch", "corner": c, "perch": {"pitch_mm_per_turn": 1.5, "room_up": 18.0, "room_down": 14.0, "spring_per_wheel": 0.63}, "lock": "grub screw"}
            for c in aims
        ],
        "point_tolerance": 1.5,
        "footing": HEATHER_FOOTING,
        "loads": {"height": 360.0, "front_share": 0.62, "driven": "rear"},
        "jig": {"feet": {"LF": (200.0, 600.0), "RF": (200.0, -600.0), "LR": (-2500.0, 600.0), "RR": (-2500.0, -600.0)}, "pitch_mm_per_turn": 1.75},
        "points": {**placed("LF", WISHBONES_FRONT), **placed("LR", WISHBONES_REAR, -2280.0), **FRAME},
        "front_linkage": {"layout": "double wishbone", "loaded_radius": 270.0, "steering": "rack", "camber_deg": -1.8, "toe_deg": -0.1, **PUSHED,
                          "bar": {"first": "bar.first", "second": "bar.second", "arm": "bar.arm", "link": {"point": "bar.link", "on": "lower"}}},
        "rear_linkage": {"layout": "double wishbone", "loaded_radius": 282.0, "camber_deg": -1.2, "toe_deg": 0.15, **PUSHED, "shaft": {"inner": "shaft.inner", "outer": "shaft.outer"}},
    }  # fmt: skip


# Tern, inches.
STRUT: Points = {
    "lower.front": (3.5, 12.5, 8.6), "lower.rear": (-8.5, 12.25, 8.9), "lower.ball": (0.3, 24.2, 7.9),
    "tie.inner": (-5.25, 13.25, 10.1), "tie.outer": (-5.0, 24.3, 9.6), "strut.top": (-1.6, 21.1, 30.5), "strut.foot": (-0.1, 23.4, 12.5),
    "wheel": (0, 26.25, 11.45),
}  # fmt: skip
FOUR_LINKS: Points = {
    "upper.left.body": (17.5, 14.0, 16.4), "upper.left.axle": (1.2, 14.0, 16.9),
    "lower.left.body": (21.0, 16.5, 8.1), "lower.left.axle": (-0.4, 16.5, 7.6),
    "panhard.body": (-4.6, 17.0, 12.4), "panhard.axle": (-4.6, -16.0, 11.6), "left.wheel": (0, 25.875, 11.8),
    "coil.left.body": (-1.5, 13.5, 21.0), "coil.left.axle": (-2.0, 15.5, 10.5),
}  # fmt: skip


def tern_linkage(plan: dict[str, Any]) -> dict[str, Any]:
    """The plan of Tern with its points: struts in front, a live axle on four links and a Panhard rod behind."""
    return plan | {
        "footing": TERN_FOOTING,
        "loads": {"height": 18.5 * INCH, "front_share": 0.55, "drive": "outboard", "driven": "rear"},
        "points": {**placed("LF", STRUT, 0.0, INCH), **placed("rear", FOUR_LINKS, -94 * INCH, INCH)},
        "front_linkage": {"layout": "strut", "loaded_radius": 11.45 * INCH, "steering": "rack", "camber_deg": -1.5, "toe_deg": -0.1,
                          "springs": [{"name": "strut", "ends": [{"point": "strut.top", "on": "car"}, {"point": "strut.foot", "on": "upright"}], "rate": 26.0, "free": 300.0, "solid": 120.0, "seat": 226.0}]},
        "rear_linkage": {"layout": "four link axle", "loaded_radius": 11.8 * INCH, "camber_deg": -0.5, "toe_deg": 0.1,
                         "springs": [{"name": f"{side} coil", "ends": [{"point": f"coil.{side}.body", "on": "car"}, {"point": f"coil.{side}.axle", "on": "upright"}], "rate": 32.0, "free": 275.0, "solid": 95.0, "seat": 33.0} for side in ("left", "right")]},
    }  # fmt: skip


FIVE: Points = {
    "link1.inner": (60, 330, 390), "link1.outer": (40, 610, 420), "link2.inner": (-190, 340, 380), "link2.outer": (-60, 600, 415),
    "link3.inner": (230, 360, 215), "link3.outer": (40, 640, 175), "link4.inner": (-130, 250, 190), "link4.outer": (-40, 630, 165),
    "tie.inner": (-210, 270, 230), "tie.outer": (-150, 620, 225), "wheel": (0, 700, 300), "coil.top": (-10, 480, 560), "coil.foot": (-20, 590, 200),
}  # fmt: skip
TRAILING: Points = {
    "arm.front": (620, 420, 310), "rod1.inner": (20, 140, 330), "rod1.outer": (10, 600, 320), "rod2.inner": (-90, 130, 240), "rod2.outer": (-95, 610, 225),
    "wheel": (0, 720, 300), "coil.top": (-60, 500, 620), "coil.foot": (-50, 560, 250),
}  # fmt: skip
HINGED: Points = {
    "hinge.inner": (330, 140, 300),
    "hinge.outer": (440, 560, 285),
    "wheel": (0, 700, 300),
    "coil.top": (30, 520, 560),
    "coil.foot": (10, 540, 260),
}
THREE: Points = {
    "upper.body": (420, 40, 420), "upper.axle": (40, 40, 440), "lower.left.body": (560, 430, 230), "lower.left.axle": (0, 450, 210),
    "panhard.body": (-110, 440, 300), "panhard.axle": (-110, -430, 296), "left.wheel": (0, 700, 300),
    "coil.left.body": (60, 400, 560), "coil.left.axle": (40, 440, 260),
}  # fmt: skip


def small(name: str, about: str, layout: str, points: Points, camber: float = -1.0) -> dict[str, Any]:
    """A car with double wishbones of Heather's in front and one other layout behind."""
    car = heather()
    axle = layout.endswith("axle")
    coil = [
        {
            "name": f"{side} coil",
            "ends": [{"point": f"coil.{side}.body", "on": "car"}, {"point": f"coil.{side}.axle", "on": "upright"}],
            "rate": 30.0,
        }
        for side in ("left", "right")
    ]
    one = [
        {"name": "coil", "ends": [{"point": "coil.top", "on": "car"}, {"point": "coil.foot", "on": "upright"}], "rate": 35.0}
    ]
    wheel = points["left.wheel" if axle else "wheel"]
    return {
        **car,
        "name": name,
        "about": about,
        "adjusters": [],
        "footing": {},
        "rear": {"track": 2 * wheel[1], "rim_flange_diameter": 381.0, "tyre_diameter": 2 * wheel[2] + 12},
        "points": {**placed("LF", WISHBONES_FRONT), **placed("rear" if axle else "LR", points, -2280.0)},
        "rear_linkage": {
            "layout": layout,
            "loaded_radius": wheel[2],
            "camber_deg": 0.0 if axle else camber,
            "springs": coil if axle else one,
        },
    }


OTHERS = {
    "five-link": small("Sedge", "Five links behind; millimetres", "five link", FIVE),
    "trailing-arm": small("Fern", "Trailing arms and two lateral rods behind; millimetres", "trailing arm", TRAILING),
    "hinged-arm": small("Moss", "Semi-trailing arms on one hinge behind; millimetres", "hinged arm", HINGED, -0.5),
    "three-link-axle": small(
        "Bracken", "A live axle on three links and a Panhard rod behind; millimetres", "three link axle", THREE
    ),
}


def tell(to: Path = HERE) -> None:
    """Write the plan files; scripts/tell_demo does."""
    for slug, plan in {"heather": heather(), **OTHERS}.items():
        model = PlanModel.model_validate(plan)
        model.to_core()
        (to / f"{slug}.plan.json").write_text(model.model_dump_json(indent=1) + "\n")
