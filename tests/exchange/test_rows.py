"""Sweeps and points as open rows."""

import csv
import io
import json
import math
from importlib.resources import files

import numpy as np
import pytest

from ready_corner.cli import main
from ready_corner.core.quantities.notation import ShopNotationError, Units, read_list, read_row
from ready_corner.exchange.files import FileRefusedError
from ready_corner.exchange.rows import points_from_csv, points_to_csv
from tests.core.linkage.cars import NAMES, plan

DEMO = files("ready_corner.demo")


def swept(capsys, *arguments):
    assert main(["sweep", *arguments]) == 0
    return capsys.readouterr()


@pytest.mark.parametrize("name", NAMES)
def test_points_as_csv_come_back_to_the_bit(name):
    points = dict(plan(name).points)
    again = points_from_csv(points_to_csv(points), Units())
    assert list(again) == list(points)
    np.testing.assert_allclose(list(again.values()), list(points.values()), rtol=1e-15)


def test_points_are_read_in_shop_notation_from_any_spreadsheet():
    inch = Units("inch_fraction", 32)
    assert points_from_csv("LF.wheel;0;26 1/4;11.45", inch)["LF.wheel"] == pytest.approx((0, 666.75, 290.83))
    assert points_from_csv("point\tx\ty\tz\tunit\nLF.wheel\t−1.5\t670\t270\tmm\n\n", inch)["LF.wheel"] == (-1.5, 670, 270)


def test_every_wrong_line_of_a_table_is_named():
    with pytest.raises(FileRefusedError) as wrong:
        points_from_csv("LF.a,1,2,3\nLF.b,1,x,3\nLF.c,1,2\nLF.a,3,2,1", Units())
    assert [path for path, _ in wrong.value.problems] == ["line 2", "line 3", "line 4"]
    with pytest.raises(FileRefusedError, match="no point here"):
        points_from_csv("\n", Units())


def test_a_sweep_is_the_same_as_rows_and_as_a_table(capsys):
    asked = [str(DEMO / "heather.plan.json"), "--corner", "LF", "--travel=-60:60:30"]
    rows = json.loads(swept(capsys, *asked, "--json").out)["rows"]
    table = list(csv.DictReader(io.StringIO(swept(capsys, *asked, "--csv").out)))
    assert [r["travel"] for r in rows] == [-60, -30, 0, 30, 60]
    assert [float(t["toe_deg"]) for t in table] == [r["toe_deg"] for r in rows]
    assert rows[2]["camber_deg"] == pytest.approx(-1.8)
    assert rows[2]["damper.ratio"] > 0.5


def test_a_sweep_beyond_reach_has_empty_rows_and_says_where_it_ends(capsys):
    said = swept(capsys, str(DEMO / "heather.plan.json"), "--corner", "RR", "--travel=-900:900:300", "--json")
    found = json.loads(said.out)
    assert [r["converged"] for r in found["rows"]] == [False, False, True, True, True, False, False]
    assert found["rows"][0]["camber_deg"] is None
    assert {e["member"] for e in found["ends"]} <= {
        "upper rear leg",
        "upper front leg",
        "lower rear leg",
        "lower front leg",
        "tie rod",
    }
    assert "at full stretch" in said.err


def test_heave_roll_and_rack_give_both_wheels(capsys):
    said = swept(capsys, str(DEMO / "tern.plan.json"), "--corner", "LF", "--heave=10", "--roll=-2,0,2", "--rack=5", "--json")
    rows = json.loads(said.out)["rows"]
    for r, degrees in zip(rows, (-2, 0, 2), strict=True):
        rise = r["left.centre_z"] - r["right.centre_z"]
        assert rise == pytest.approx(2 * 666.75 * math.tan(math.radians(degrees)))
    assert all(r["rack"] == 5 and r["heave"] == 10 for r in rows)
    assert "roll_centre_height" in rows[0]


def test_a_sweep_over_the_length_of_a_damper_or_the_angle_of_an_arm(capsys):
    said = swept(capsys, str(DEMO / "heather.plan.json"), "--corner", "LF", "--length", "damper=5,200,210", "--json")
    found = json.loads(said.out)
    assert [r["damper.length"] for r in found["rows"]] == pytest.approx([200, 210])
    assert found["steering_axis"] == "lower.ball to upper.ball"
    assert "does not reach 5; " in said.err
    rows = json.loads(swept(capsys, str(DEMO / "heather.plan.json"), "--corner", "LF", "--angle", "lower=0:4:4", "--json").out)[
        "rows"
    ]
    assert rows[0]["travel"] == pytest.approx(0, abs=1e-9)
    assert rows[1]["lower front leg.level_deg"] - rows[0]["lower front leg.level_deg"] == pytest.approx(
        4.0, abs=0.5
    )  # a leg is not square to the axis


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (["--corner", "LR", "--travel=0", "--rack=5"], "not steered"),
        (["--corner", "LF", "--travel=0:10:5", "--rack=1,2"], "different numbers of figures"),
        (["--corner", "LF", "--travel=0:10:0"], "no range"),
        (["--corner", "LF", "--travel=x"], "no range"),
        (["--corner", "LF", "--length", "strut=200"], "no spring or damper “strut”. It has damper"),
        (["--corner", "LF", "--length", "damper=x"], "no range"),
        (["--corner", "LF", "--length", "damper=5"], "reaches none"),
        (["--corner", "LF", "--angle", "lower=0", "--rack=1,2"], "one figure"),
    ],
)
def test_what_cannot_be_swept_is_said_with_status_2(arguments, words, capsys):
    try:
        status = main(["sweep", str(DEMO / "heather.plan.json"), *arguments])
    except SystemExit as left:
        status = left.code
    assert status == 2
    assert words in capsys.readouterr().err


def test_rows_hold_no_number_that_json_does_not_know(capsys):
    for name in NAMES:
        out = swept(capsys, str(DEMO / f"{name}.plan.json"), "--corner", "LR", "--travel=-500:500:250", "--json").out
        values = [v for row in json.loads(out)["rows"] for v in row.values() if isinstance(v, float)]
        assert np.isfinite(values).all()


@pytest.mark.parametrize(
    ("typed", "units", "wanted"),
    [
        ("95", "mm", [95]),
        ("95; -265,5; 310", "mm", [95, -265.5, 310]),
        ("95, 265, 310", "mm", [95, 265, 310]),
        ("3 1/2;10 1/4;-7", "inch_fraction", [88.9, 260.35, -177.8]),
        ("95 mm; 26 cm; 3", "mm", [95, 260, 3]),
        ("95;265", "mm", "2 figures"),
        ("95;265;310;4", "mm", "4 figures"),
        ("95;;310", "mm", "Nothing is typed"),
        ("95 265 310", "mm", "two numbers"),
    ],
)
def test_a_place_is_typed_in_one_line_or_the_sentence_says_how(typed, units, wanted):
    if isinstance(wanted, list):
        assert [f.value for f in read_row(typed, Units(units))] == pytest.approx(wanted, abs=1e-12)
        return
    with pytest.raises(ShopNotationError, match=wanted):
        read_row(typed, Units(units))


@pytest.mark.parametrize(
    ("typed", "wanted"),
    [
        ("0.5; 1; 3", [0.5, 1, 3]),
        ("2;", [2]),
        ("1;;2", [1, 2]),
        ("1/16in; 2", [1.5875, 2]),
        (";", "no length"),
        ("", "Nothing"),
        ("1;x", "“x”"),
    ],
)
def test_a_list_of_lengths_is_typed_in_one_line(typed, wanted):
    if isinstance(wanted, list):
        assert [f.value for f in read_list(typed, Units("mm"))] == pytest.approx(wanted, abs=1e-12)  # mm
        return
    with pytest.raises(ShopNotationError, match="is not a length" if wanted == "no length" else wanted):
        read_list(typed, Units("mm"))
