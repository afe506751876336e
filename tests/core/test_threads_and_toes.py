"""Threads as the shop names them, toe as a length over its span, spring rates in either system."""

import math

import pytest

from ready_corner.core.engines.alignment.toes import read_toe
from ready_corner.core.quantities.notation import ShopNotationError, Units, WrongKindError, read, say
from ready_corner.core.quantities.threads import Thread, read_thread, say_pitch

INCHES, MM = Units("inch_fraction", 32), Units()
SPANS = {"rim": 14.25 * 25.4, "tyre": 23.5 * 25.4}


@pytest.mark.parametrize(
    ("typed", "units", "thread"),
    [
        ("M12×1.75", MM, (12.0, 1.75, None)),
        ("m12x1,5 LH", INCHES, (12.0, 1.5, "left")),
        ("M8", MM, (8.0, 1.25, None)),
        ("1/2-20", INCHES, (12.7, 1.27, None)),
        ("1/2-20 UNF left-hand", MM, (12.7, 1.27, "left")),
        ("5/8 - 18", INCHES, (15.875, 25.4 / 18, None)),
        ('3/4"-16 RH', INCHES, (19.05, 25.4 / 16, "right")),
        ("#10-32", INCHES, (25.4 * 0.19, 25.4 / 32, None)),
        ("20 tpi", MM, (None, 1.27, None)),
        ("24 threads per inch", INCHES, (None, 25.4 / 24, None)),
        ("1/2", INCHES, (12.7, None, None)),
    ],
)
def test_a_thread_is_read_as_the_shop_names_it(typed, units, thread):
    found = read_thread(typed, units)
    for value, wanted in zip((found.diameter, found.pitch), thread[:2], strict=True):
        assert value == (None if wanted is None else pytest.approx(wanted, abs=1e-9))  # mm
    assert found.hand == thread[2]


def test_a_pitch_alone_is_in_the_unit_of_the_car_and_a_count_is_not_taken_for_one():
    assert read_thread("1/20", INCHES, "pitch") == Thread(None, 1.27, None)
    assert read_thread("1.75", MM, "pitch").pitch == 1.75
    for wrong, words in (("20", "20 tpi"), ("M13.7", "no pitch that goes without saying"), ("0 tpi", "has no threads")):
        with pytest.raises(ShopNotationError, match=words):
            read_thread(wrong, INCHES, "pitch")


@pytest.mark.parametrize("pitch", [0.7, 1.25, 1.75, 25.4 / 20, 25.4 / 24, 25.4 / 11.5])
@pytest.mark.parametrize("units", [MM, INCHES])
def test_a_pitch_is_printed_without_losing_what_it_means_and_read_back(pitch, units):
    assert read_thread(say_pitch(pitch, units), units, "pitch").pitch == pytest.approx(
        pitch, abs=2e-4
    )  # mm; five digits of an inch


def test_toe_is_a_length_over_a_stated_span_or_degrees():
    sixteenth = math.degrees(math.asin(1 / 16 / 14.25))
    for typed in ('1/16" in over the rim', "1/16 in over rim", '1/16 in in over 14.25"', '1/16" in across the rim\'s 14 1/4"'):
        assert read_toe(typed, INCHES, SPANS).deg == pytest.approx(sixteenth, abs=1e-9)
    assert read_toe("2 mm out over 380 mm", INCHES, {}).deg == pytest.approx(-math.degrees(math.asin(2 / 380)))
    assert read_toe("0.25 out", MM, {}).deg == -0.25
    assert read_toe("-2 over the tyre", MM, SPANS).deg < 0
    assert read_toe("1/8 in over the tyre", INCHES, SPANS, 2).deg == pytest.approx(2 * math.degrees(math.asin(1 / 16 / 23.5)))
    assert read_toe("1/16 in over the rim", INCHES, SPANS).said == '1/16" in over the rim\'s 14 1/4" = 0.25° in'


@pytest.mark.parametrize(
    ("typed", "kind", "words"),
    [
        ('1/16" in', WrongKindError, "nothing without its span"),
        ("2 mm", WrongKindError, "nothing without its span"),
        ("1/16 over the rim", ShopNotationError, "in or out"),
        ("1/16 in over the tyre", ShopNotationError, "does not say yet"),
        ('20" in over the rim', Exception, "less than the span"),
    ],
)
def test_a_toe_without_its_span_or_way_is_asked_about(typed, kind, words):
    with pytest.raises(kind, match=words):
        read_toe(typed, INCHES, {"rim": SPANS["rim"]})


def test_rates_read_and_print_in_the_unit_of_the_car():
    assert read("122", "rate", INCHES).value == pytest.approx(
        122 * 4.4482216152605 / 25.4
    )  # N/mm, by the definition of the pound-force
    assert read("122 lbf/in", "rate", MM).value == read("122 lb/in", "rate", MM).value == read("122", "rate", INCHES).value
    assert read("21.4 N/mm", "rate", INCHES).value == read("21.4", "rate", MM).value == 21.4
    assert read("2 kg/mm", "rate", MM).value == pytest.approx(19.6133)
    assert read("35 N·m/deg", "torsion", MM).value == read("35 Nm per degree", "torsion", MM).value == 35.0
    assert read("26 lbf·ft/deg", "torsion", MM).value == pytest.approx(26 * 4.4482216152605 * 0.3048)
    for kind, units in (("rate", MM), ("rate", INCHES), ("torsion", MM), ("torsion", INCHES)):
        assert read(say(21.375, kind, units), kind, units).value == pytest.approx(21.375, rel=1e-4)
    with pytest.raises(WrongKindError):
        read("5 mm", "rate", MM)
