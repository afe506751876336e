"""Every entry of the logbook as a sentence: by the template of its kind, or by a function of its own here."""

from collections.abc import Callable, Mapping
from dataclasses import fields
from typing import Any, cast

from ready_corner.core.plan.corners import CORNER_WORDS
from ready_corner.core.plan.names import place_words, say_point, turn_words
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.naming import short_point
from ready_corner.core.quantities.notation import in_another_unit, say_length, say_mass
from ready_corner.core.quantities.tools import EYE
from ready_corner.core.record.act import Act
from ready_corner.core.record.happenings import HAPPENING_WORDS, Happened, Stuck, Turned
from ready_corner.core.record.jig_acts import DatumChosen, SurveyRead
from ready_corner.core.record.logbook import CarState, Entry, PlanRevised, Unreadable
from ready_corner.core.record.notes import Correction, Surveyed
from ready_corner.core.record.readings import Reading, say_reading, title_of
from ready_corner.core.record.stance_acts import TyreFitted, Unlearned
from ready_corner.core.record.weld_acts import SupportPoint
from ready_corner.core.say.jig import say_read
from ready_corner.core.say.revised import say_revision
from ready_corner.core.say.template import say


def say_entry(state: CarState, entry: Entry) -> str:
    """Return an entry as a line of the log; one that cannot be said says so, and the rest of the log stands."""
    try:
        return _plan(state, entry) or _struck(state, entry) or say_act(entry.what, state.plan)
    except Exception:  # the log opens whatever is in it
        return f"This line ({getattr(entry.what, 'kind', 'plan')}) could not be put into words."


def say_act(what: object, plan: Plan) -> str:
    """Return what was written down as a sentence."""
    if isinstance(what, Unreadable):
        return what.sentence
    act = cast(Act, what)
    own = _OWN.get(act.kind)
    if own:
        return own(act, plan)
    values: dict[str, Any] = {f.name: getattr(act, f.name) for f in fields(act)}  # type: ignore[arg-type]
    return say(act.sentence, {"words": getattr(act, "words", ""), **values}, plan.units)


def _plan(state: CarState, entry: Entry) -> str:
    """Return what a plan entry says: the first its car, a later one what it changed; empty for other entries."""
    if not isinstance(entry.what, PlanRevised):
        return ""
    if entry.number == 1:
        return f"Plan of {entry.what.plan.name}"
    plans = [e.what.plan for e in state.entries if e.number <= entry.number and isinstance(e.what, PlanRevised)]
    return f"Plan revised: {say_revision(plans[-2], plans[-1])}" if len(plans) > 1 else f"Plan of {entry.what.plan.name}"


def _struck(state: CarState, entry: Entry) -> str:
    if not isinstance(entry.what, Correction):
        return ""
    strikes = entry.what.strikes
    target = next((e for e in state.entries if e.id == strikes), None)
    if target is None:
        return ""
    again = _struck(state, target)
    said = again or say_entry(state, target)
    return f"{'Brought back by striking' if again else 'Struck out'} entry {target.number}: {said}"


def _reading(what: Reading, plan: Plan) -> str:
    unusual = " (unusual, confirmed)" if what.confirmed else ""
    tool = next((t.name.lower() for t in (*plan.toolbox, EYE) if t.id == what.tool), what.tool)
    said = say_reading(plan.units, what.quantity, what.value, what.denominator, what.typed)
    said += ", wheel half a turn round" if what.half_turn else f", wheel {what.wheel_deg:g}° round" if what.wheel_deg else ""
    as_typed = f" (typed {what.typed})" if in_another_unit(what.typed, plan.units) else ""
    return f"{title_of(what.place)}: {said}{as_typed}, {tool}{unusual}"


def _turned(what: Turned, plan: Plan) -> str:
    adjuster = next((a for a in plan.adjusters if a.id == what.adjuster), None)
    if adjuster is None:
        return f"{what.adjuster}: {what.typed}"
    said = place_words(adjuster)
    return f"{said[0].upper()}{said[1:]}: {turn_words(adjuster, what.amount)}"


def _stuck(what: Stuck, plan: Plan) -> str:
    adjuster = next((a for a in plan.adjusters if a.id == what.adjuster), None)
    said = f"{place_words(adjuster) if adjuster else what.adjuster} is stuck. {what.words}".strip()
    return f"{said[0].upper()}{said[1:]}"


def _happened(what: Happened, plan: Plan) -> str:
    said = what.words or HAPPENING_WORDS[what.what]
    if what.by is not None and what.what == "tyre":
        said += f", {say_length(abs(what.by), plan.units, denominator=0, unit=True)} {'larger' if what.by >= 0 else 'smaller'} in loaded radius"
    if what.by is not None and what.place is not None:
        at, side = (say_length(abs(v), plan.units, denominator=0, unit=True) for v in what.place)
        ways = "ahead" if what.place[0] >= 0 else "behind", "left" if what.place[1] >= 0 else "right"
        said += f", {say_mass(abs(what.by), plan.units)} {'put in' if what.by >= 0 else 'taken out'} {at} {ways[0]} and {side} {ways[1]} of the origin"
    return f"{CORNER_WORDS[what.corner].capitalize()}: {said}" if what.corner else f"{said[0].upper()}{said[1:]}"


def _surveyed(what: Surveyed, plan: Plan) -> str:
    names = [say_point(n) for n in what.points]
    told = " and ".join(names) if len(names) <= 2 else f"{names[0]} and {len(names) - 1} more"
    return (
        f"Measured in place: {told}, ± {say_length(what.expanded, plan.units, denominator=0, unit=True)}. {what.words}".strip()
    )


def _datum(what: DatumChosen, _: Plan) -> str:
    names = [short_point(n) for n in (*what.plane, *what.line, what.point)]
    return f"Datum: plane by {', '.join(names[:3])}; line by {names[3]} and {names[4]}; station by {names[5]}. {what.words}".strip()


def _fitted(what: TyreFitted, _: Plan) -> str:
    said = f"{'a stand-in tyre' if what.stand_in else 'its own tyre'} fitted. {what.words}".strip()
    return f"{CORNER_WORDS[what.corner].capitalize() if what.corner else 'All round'}: {said}"


def _unlearned(what: Unlearned, plan: Plan) -> str:
    adjuster = next((a for a in plan.adjusters if a.id == what.adjuster), None)
    return f"What was learned of the {place_words(adjuster) if adjuster else what.adjuster} does not count any more"


def _support(what: SupportPoint, plan: Plan) -> str:
    play = "{name} {role}, pin {pin:length} in {hole:length}" if what.pin and what.hole else "{name} {role}"
    return say(play, vars(what), plan.units)


_OWN: Mapping[str, Callable[[Any, Plan], str]] = {
    "reading": _reading,
    "turned": _turned,
    "stuck": _stuck,
    "happened": _happened,
    "surveyed": _surveyed,
    "survey": lambda what, plan: say_read(cast(SurveyRead, what), plan),
    "datum": _datum,
    "fitted": _fitted,
    "unlearned": _unlearned,
    "support_point": _support,
}
