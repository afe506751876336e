import pytest
from hypothesis import given
from hypothesis import strategies as st

from ready_corner.core.quantities.notation import (
    ShopNotationError,
    Units,
    WrongKindError,
    echo,
    nearest_flats,
    read,
    read_angle,
    read_length,
    read_turns,
    say_angle,
    say_length,
    say_mass,
    say_turns,
)

INCHES, MM = Units("inch_fraction", 64), Units()

LENGTHS = [
    ("37 3/4", 958.85), ("37-3/4", 958.85), ('37 3/4"', 958.85), ("37¾", 958.85), ("37 3⁄4 in", 958.85), ("3' 2 1/2\"", 977.9),
    ("3′2½″", 977.9), ("3/8", 9.525), ('19.344"', 491.3376), ("19,344", 491.3376), ("952mm", 952.0), ("95.2cm", 952.0),
    ("0.95m", 950.0), ("95,2 cm", 952.0), ("−1 1/2", -38.1), ("-1.25", -31.75), ("19 11/32", 491.33125), (" 37  3 / 4 ", 958.85),
]  # fmt: skip


@pytest.mark.parametrize(("typed", "mm"), LENGTHS)
def test_a_length_reads_as_a_builder_means_it(typed, mm):
    assert read_length(typed, INCHES).value == pytest.approx(mm, abs=1e-9)  # mm; exact but for one rounding


def test_a_bare_figure_is_in_the_unit_of_the_car():
    assert (read_length("952", MM).value, read_length("952", INCHES).value) == (952.0, 952 * 25.4)


@pytest.mark.parametrize(
    ("typed", "deg"),
    [
        ("-1.25", -1.25),
        ("-1.25°", -1.25),
        ("-1°15'", -1.25),
        ("1 deg 15", 1.25),
        ("1°15'30\"", 1.2583333333333333),
        ("−1°15′", -1.25),
    ],
)
def test_an_angle_reads_in_degrees_and_minutes(typed, deg):
    assert read_angle(typed).value == pytest.approx(deg, abs=1e-12)  # deg


@pytest.mark.parametrize(
    ("typed", "flats"),
    [
        ("2 turns 1 flat", 13),
        ("2t1f", 13),
        ("1 1/2 turns", 9),
        ("1½ turns in", -9),
        ("3f", 3),
        ("-1t", -6),
        ("1t2f longer", 8),
        ("2", 12),
        ("2 shims removed", -12),
    ],
)
def test_turns_read_in_turns_flats_and_directions(typed, flats):
    assert read_turns(typed).value * 6 == pytest.approx(flats, abs=1e-12)


REFUSED = [
    ("", "length", "Nothing is typed"), ("3/0", "length", "divides by nothing"), ("37 3/", "length", "unfinished"),
    ("37 38", "length", "two numbers"), ("3mm 4mm", "length", "two numbers"), ("1 15", "angle", "two numbers"),
    ("1.2.3", "length", "two decimal marks"), ("1,234.5", "length", "two decimal marks"), ("1e5", "length", "“e”"),
    ("nan", "length", "not a length"), ("inf", "length", "not a length"), ("٣", "length", "belongs to no figure"),
    ("9" * 61, "length", "61 characters"), ("1' 14\"", "length", "whole larger"), ("1.5° 15'", "angle", "larger unit"),
    ("-", "length", "Nothing is typed"), ("mm", "length", "not a length"), ("1t 2", "angle", "turns and flats"),
]  # fmt: skip


@pytest.mark.parametrize(("typed", "kind", "why"), REFUSED)
def test_what_is_no_figure_is_refused_with_a_sentence(typed, kind, why):
    with pytest.raises(ShopNotationError, match=why) as refused:
        read(typed, kind, INCHES)
    assert str(refused.value).endswith(".")
    assert typed.startswith(refused.value.text)


@pytest.mark.parametrize(
    ("typed", "kind"),
    [('37"', "angle"), ("5mm", "angle"), ("1°", "length"), ("1 deg 15", "length"), ("2 turns", "length"), ("15'", "angle")],
)
def test_a_figure_of_another_kind_is_named_as_such(typed, kind):
    with pytest.raises(WrongKindError):
        read(typed, kind, INCHES)


def test_loads_read_in_kg_and_lb_and_a_stack_of_blocks_as_a_sum():
    assert [read(t, "mass", MM).value for t in ("143.5", "143.5 kg", "143,5kg")] == [143.5] * 3
    assert read("316", "mass", INCHES).value == pytest.approx(143.335, abs=1e-3)  # kg
    assert read(say_mass(143.335, INCHES), "mass", MM).value == pytest.approx(143.335, abs=0.03)  # a tenth of a pound
    assert read("89+38 + 12", "length", MM).value == 139.0
    stack = read('3 1/2" + 1 1/2"', "length", INCHES)
    assert (stack.value, stack.denominator) == (127.0, 2)
    for wrong in ("89+", "+", "89++12", "89+two"):
        with pytest.raises(ShopNotationError):
            read(wrong, "length", MM)
    with pytest.raises(WrongKindError):
        read("12 mm", "mass", MM)


AS_THE_SHOP_WRITES = [
    ("12 - 1/2", "length", INCHES, 12.5 * 25.4), ('37" 1/4', "length", INCHES, 37.25 * 25.4), ("3' 1/2", "length", INCHES, 36.5 * 25.4),
    ("250 thou", "length", MM, 6.35), ("5 millimetres", "length", INCHES, 5.0), ("89 mm + 38 mm", "length", INCHES, 127.0),
    ("19,344", "length", INCHES, 19.344 * 25.4), ("2,6", "length", MM, 2.6), ("2,60", "length", MM, 2.6), ("1,250 kg", "mass", MM, 1.25),
    ("left 412.0", "length", MM, 412.0), ("380 aft", "length", MM, -380.0), ("± 0.5 mm", "length", MM, 0.5),
    ("1 turn and 2 flats", "turns", MM, 8 / 6), ("half turn", "turns", MM, 0.5), ("half a turn out", "turns", MM, 0.5),
    ("one and a half turns in", "turns", MM, None), ("1 and a half turns in", "turns", MM, -1.5), ("out 1/4", "turns", MM, 0.25),
    ("in a quarter turn", "turns", MM, -0.25), ("three quarters of a turn", "turns", MM, 0.75), ("60°", "turns", MM, 1 / 6),
    ("1 turn 60° in", "turns", MM, -7 / 6), ("no turn", "turns", MM, 0.0), ("down 5 flats", "turns", MM, -5 / 6), ("up 1 turn 2 flats", "turns", MM, 8 / 6),
    ("0.1° in", "angle", MM, 0.1), ("0.10° out", "angle", MM, -0.1), ("0.05° to the right", "angle", MM, -0.05), ("0.3° nose up", "angle", MM, -0.3),
]  # fmt: skip


@pytest.mark.parametrize(("typed", "kind", "units", "value"), AS_THE_SHOP_WRITES)
def test_what_the_shop_writes_and_what_is_printed_is_read(typed, kind, units, value):
    if value is None:
        with pytest.raises(ShopNotationError):
            read(typed, kind, units)
    else:
        assert read(typed, kind, units).value == pytest.approx(value, abs=1e-9)


ASKS = [
    ("2,600", "length", MM, "Type 2600, or 2.600"), ("2,600 mm", "length", INCHES, "2600"), ("316,500 lb", "mass", MM, "316500"),
    ("1,234", "mass", INCHES, "1234"), ("1’000", "length", MM, "is 1000 meant"), ("1'000", "length", INCHES, "is 1000 meant"),
    ("89+38+12 cm", "length", MM, "is 89 in the unit of 12 cm"), ('3 1/2 + 1 1/2"', "length", INCHES, "with every part"),
]  # fmt: skip


@pytest.mark.parametrize(("typed", "kind", "units", "words"), ASKS)
def test_what_could_be_read_two_ways_is_asked_about(typed, kind, units, words):
    with pytest.raises(ShopNotationError, match=words):
        read(typed, kind, units)


def test_a_figure_in_another_unit_is_echoed_in_both_and_never_as_a_fraction():
    cases = {
        ("952 mm", "length", INCHES): '952 mm = 37.480"', ("37 3/4\"", "length", MM): '37 3/4" = 958.9 mm', ("952", "length", MM): "952.0 mm",
        ("37 3/4", "length", INCHES): '37 3/4"', ("316 lb", "mass", MM): "316 lb = 143.3 kg", ("143 kg", "mass", INCHES): "143 kg = 315.3 lb",
        ("3 7/8", "length", Units("inch_decimal")): '3.875"', ("1 turn and 2 flats", "turns", MM): "1 turn 2 flats", ("1°15'", "angle", MM): "1.25°",
    }  # fmt: skip
    for (typed, kind, units), said in cases.items():
        assert echo(read(typed, kind, units), kind, units) == said
    assert read("952 mm", "length", INCHES).denominator == 0


@given(st.integers(-20000, 20000), st.sampled_from([2, 4, 8, 16, 32, 64]))
def test_printing_and_reading_back_is_the_identity_for_every_denominator(steps, finest):
    mm = read_length(f"{'-' if steps < 0 else ''}{abs(steps)}/{finest}", INCHES).value
    assert read_length(say_length(mm, INCHES, denominator=finest, unit=True), MM).value == mm


@given(st.integers(-3000, 3000), st.integers(-500, 500))
def test_angles_and_flats_print_and_read_back(hundredths, flats):
    assert read_angle(say_angle(hundredths / 100)).value == hundredths / 100
    assert read_turns(say_turns(flats / 6)).value * 6 == pytest.approx(abs(flats), abs=1e-9)


@given(st.text(max_size=70), st.sampled_from(["length", "angle", "turns", "mass"]))
def test_rubbish_is_either_a_finite_figure_or_a_refusal(text, kind):
    try:
        assert abs(read(text, kind, INCHES).value) < float("inf")
    except ShopNotationError as refused:
        assert refused.sentence  # noqa: PT017 - both ways out are allowed; the assertion is about this one


@pytest.mark.parametrize(
    ("turns", "step", "flats"),
    [(0.25, 1, 1), (-0.25, 1, -1), (0.2, 1, 1), (0.25, 3, 0), (0.26, 3, 3), (1.75, 3, 9), (0.08, 1, 0)],
)
def test_turns_round_to_the_nearest_step_and_a_tie_to_the_smaller(turns, step, flats):
    assert nearest_flats(turns, step) * 6 == flats
