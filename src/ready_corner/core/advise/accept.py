"""Taking one more entry into the log, and what it would mean before it is taken."""

from dataclasses import dataclass

from ready_corner.core.advise.corner import caution_of, say_to_go
from ready_corner.core.advise.perches import CROSS
from ready_corner.core.advise.standing import stance
from ready_corner.core.engines.alignment.string import toe_as_length
from ready_corner.core.judge.marks import Evaluation, State, evaluate
from ready_corner.core.plan.corners import END_OF
from ready_corner.core.plan.marks import AIMED_KINDS as CORNER_MARKS
from ready_corner.core.plan.marks import say_value, say_way
from ready_corner.core.plan.names import turn_words
from ready_corner.core.quantities.errors import MeasuredError
from ready_corner.core.quantities.notation import Units, echo, read, say_angle, say_length, shows_nothing
from ready_corner.core.record.happenings import Turned
from ready_corner.core.record.logbook import CarState, Entry, check, fold_on
from ready_corner.core.record.readings import GAPS, QUANTITIES, Reading, say_reading

ON_IT = 0.05  # mm; nearer than this nothing is left to go


def accept(state: CarState, entry: Entry, before: Evaluation | None = None) -> CarState:
    """Return the state with one more entry; raises what keeps it out, and then nothing has changed.

    ``before``: the evaluation of an earlier state, to save work.
    Raises as :func:`logbook.check`, and StringError where a reading makes a pair of gaps that no straight string can give.
    """
    return judged_with(state, entry, before).given


def judged_with(state: CarState, entry: Entry, before: Evaluation | None = None) -> Evaluation:
    """Return the same, judged."""
    check(state, entry.what)
    found = evaluate(fold_on(state, [entry]), before)
    edge = isinstance(entry.what, Reading) and entry.what.quantity in GAPS[:2]
    if edge and (refusal := found.figures.refusal("toe", entry.what.corner)):  # type: ignore[union-attr]
        raise refusal
    return found


@dataclass(frozen=True)
class Preview:
    """What an entry would mean: the figure as read, the mark in words, and what is still to go in large letters."""

    said: str
    means: str
    state: State | None = None
    large: str = ""
    caution: str = ""


def preview(now: Evaluation, what: Reading | Turned) -> Preview:
    """Return what a reading or a turn would mean, without taking it; raises what would keep it out."""
    evaluation = judged_with(now.given, Entry("preview", now.given.number + 1, what), now)
    if isinstance(what, Turned):
        return _preview_turn(now, what)
    said = _echo(what, now.state.plan.units)
    if not QUANTITIES[what.quantity].mark:
        return Preview(said, *_behind(evaluation, what))
    mark = evaluation.mark(f"{what.corner}.{QUANTITIES[what.quantity].mark}")
    if mark.value is None:
        return Preview(said, _against_string(evaluation, what) or mark.reason)
    large = say_to_go(evaluation, what.corner, what.figure) if what.quantity == "height" else ""
    means = f"{mark.mark.split('.')[1]} would be {mark.say} {mark.say_u}"
    if what.quantity == "load" and (cross := evaluation.mark(CROSS)).value is not None:
        return Preview(
            said, f"{means} · cross weight would be {cross.say} {cross.say_u} · {cross.say_aim or 'no aim'}", cross.state
        )
    zero = f" · counted from {say_angle(what.upright_deg, 0)} upright" if what.upright_deg else ""
    odd = " · does not agree with the last one here" if mark.odd is not None else ""
    return Preview(said, f"{means} · {mark.say_aim or 'no aim'}{zero}{odd}", mark.state, large)


def _echo(what: Reading, units: Units) -> str:
    """Return a reading as it is said back: as typed and in the car's unit where those differ."""
    kind = QUANTITIES[what.quantity].kind
    if what.typed and (figure := read(what.typed, kind, units)).foreign:
        return echo(figure, kind, units)
    return say_reading(units, what.quantity, what.value, what.denominator, what.typed)


def _behind(evaluation: Evaluation, what: Reading) -> tuple[str, State | None, str]:
    """Return what a reading that is no mark's own would mean: words, no state, and what is to go in large letters."""
    units = evaluation.state.plan.units
    if what.quantity == "pad":
        return _floor_words(evaluation), None, ""
    if what.quantity == "radius":
        on = "of the stand-in; what it is off the planned tyre is taken out of the heights" if what.corner in evaluation.state.stance.stand_ins else "of its own tyre; every height is counted with it"  # fmt: skip
        return f"loaded radius {on}", None, ""
    found = stance(evaluation)
    if what.quantity == "stand":
        return found.stand_says[0], None, ""
    hub = next((h for h in found.hubs if h.corner == what.corner), None)
    if hub is None or hub.ride is None:
        return found.stand_says[0] if found.stand_says else "", None, ""
    to_go = hub.wanted - what.value
    size, ride = (say_length(abs(v), units, denominator=0, unit=True) for v in (to_go, hub.ride))
    if abs(to_go) < ON_IT:
        return "the car will stand as wanted here", None, "on it"
    stands = f"set so, the car will stand {ride} {'higher' if hub.ride > 0 else 'lower'} here than wanted"
    return stands, None, f"{size} {'up' if to_go > 0 else 'down'} to go"


def _against_string(evaluation: Evaluation, what: Reading) -> str:
    spells = evaluation.figures.spells(what.corner, ("gap_front", "gap_back"))
    if not spells:
        return ""
    try:
        toe = evaluation.figures.against_string(what.corner, spells[-1])
    except MeasuredError:
        return ""
    said = say_value(f"{what.corner}.toe", toe.value, evaluation.state.plan.units)
    return f"{said} against the string; the hub gaps will tell the string's own angle"


def _floor_words(evaluation: Evaluation) -> str:
    floor = evaluation.figures.floor
    if floor is None:
        return "the floor counts as level until all four pads are read"
    nose, left = floor.slope_deg
    return f"floor {say_angle(abs(nose))} {'nose down' if nose > 0 else 'nose up'}, left side {say_angle(abs(left))} {'up' if left > 0 else 'down'}; taken out of camber"


def _preview_turn(evaluation: Evaluation, what: Turned) -> Preview:
    state = evaluation.state
    adjuster = state.plan.adjuster(what.adjuster)
    length = say_length(abs(what.amount * adjuster.length_per_step), state.plan.units, denominator=0, unit=True)
    words = []
    for kind in CORNER_MARKS:
        mark = evaluation.mark(f"{adjuster.corner}.{kind}")
        worth = evaluation.worth(mark.mark).of(adjuster.id)
        if mark.value is not None and worth is not None and kind != "height":
            words.append(f"{kind} would read {say_value(mark.mark, mark.value + worth * what.amount, state.plan.units, 0)}")
    means = ", ".join(words) or "what it does is not known yet: read camber and toe after it"
    return Preview(
        turn_words(adjuster, what.amount), f"{length} {adjuster.way(what.amount)} · {means}", None, "", caution_of(adjuster)
    )


def toe_every_way(evaluation: Evaluation, corner: str) -> tuple[str, ...]:
    """Return the toe of a corner in degrees, mm at the rim and inches at the tyre, each with its span; empty where unread."""
    mark = evaluation.mark(f"{corner}.toe")
    if mark.value is None:
        return ()
    axle = evaluation.state.plan.axle(next(end for c, end in END_OF.items() if c == corner))
    units = evaluation.state.plan.units
    way = "" if shows_nothing(mark.say) else f" {say_way(mark.mark, mark.value)}"

    def over(what: str, span: float, *, inches: bool) -> str:
        size = abs(float(toe_as_length(mark.value or 0.0, span)))
        said, wide = (f'{size / 25.4:.3f}"', f'{span / 25.4:.2f}"') if inches else (f"{size:.1f} mm", f"{span:.0f} mm")
        return f"{said}{way} over the {what}'s {wide}"

    # In a metric car the length at the tyre is said in inches too, as many are used to; in an inch car nothing is in millimetres.
    return (mark.say, over("rim", axle.rim_flange_diameter, inches=units.inches), over("tyre", axle.tyre_diameter, inches=True))
