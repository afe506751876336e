"""The core without the application: ``ready-corner check|fold|set|stance|stand|struts|survey|sweep|schema``, on the same open files.

``save`` and ``put-back`` are for the workshop itself: all cars to one file, and back.

Answers go to standard output, as lines or with --json; what is wrong goes to standard error, with exit status 2.
"""

import argparse
import json
import sys
from collections.abc import Callable, Iterable
from dataclasses import asdict
from pathlib import Path
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ready_corner.core.advise.car import CarJudged, judge_car
from ready_corner.core.advise.corner import set_corner
from ready_corner.core.advise.next import next_step
from ready_corner.core.advise.perches import steps
from ready_corner.core.advise.pickups import pickups
from ready_corner.core.advise.standing import stance
from ready_corner.core.engines.linkage.sweep import travel_for_angle, travel_for_length
from ready_corner.core.engines.statics.springs import GRAVITY
from ready_corner.core.judge.frame import Frame
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.model.bodies import body_named
from ready_corner.core.model.four_springs import Asked, perch_turns, stand
from ready_corner.core.model.limits import Strip
from ready_corner.core.model.springs_of_plan import car_of
from ready_corner.core.model.struts import at_work, dummy_struts
from ready_corner.core.model.wanting import wanting
from ready_corner.core.plan.corners import CORNER_WORDS, CORNERS
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.errors import CalledError, ReadyCornerError
from ready_corner.core.quantities.finding import finding
from ready_corner.core.quantities.notation import Units, read, say_length, say_mass
from ready_corner.core.say.judged import say_mark_value
from ready_corner.core.say.stance import say_loads
from ready_corner.exchange.files import read_logbook, read_plan, read_workshop, schemas
from ready_corner.exchange.rows import as_csv, pair_rows, sweep_rows
from ready_corner.launch.database import DatabaseStartError
from ready_corner.launch.door import DoorError, door
from ready_corner.storage.migrate import NoDatabaseError
from ready_corner.web.jig import jig_view
from ready_corner.web.lift import lift_view
from ready_corner.web.said import all_said, said, sentences
from ready_corner.web.stance import stance_view
from ready_corner.web.views import corner_view, mark_view

LIMITS_TOLD = 3  # as many as the page shows
CROSS_ASKED = 0.0005  # of the whole: what is asked for by a figure is brought to that figure, as near as whole flats go
FloatArray = NDArray[np.float64]


def main(arguments: list[str] | None = None) -> int:
    """Run one command; return the exit status."""
    asked = _parser().parse_args(arguments)
    try:
        return int(asked.run(asked) or 0)
    except OSError as wrong:
        print(f"{wrong.filename}: {wrong.strerror}.", file=sys.stderr)
    except ReadyCornerError as wrong:
        print(wrong.sentence, file=sys.stderr)
    except ValueError as wrong:  # a path no file can have
        if "null byte" not in str(wrong):
            raise
        print("There is no file of that name: it holds a byte that is no letter. Look at how it was typed.", file=sys.stderr)
    except (DoorError, DatabaseStartError, NoDatabaseError) as wrong:
        print(wrong, file=sys.stderr)
    return 2


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="ready-corner", description="The arithmetic of Ready Corner on its open files.")
    commands = parser.add_subparsers(required=True)

    def command(name: str, run: object, says: str) -> argparse.ArgumentParser:
        found = commands.add_parser(name, help=says, description=says)
        found.set_defaults(run=run)
        return found

    check = command("check", _check, "Say whether a plan file can be used, and everything that is wrong with it.")
    check.add_argument("plan", type=Path)
    folded = command("fold", _fold, "Say the state of every mark after a logbook, and what to do next.")
    folded.add_argument("logbook", type=Path)
    folded.add_argument("--json", action="store_true")
    turns = command("set", _set, "Say what to turn in one lift, or at a corner alone, how far, and what it would then read.")
    turns.add_argument("logbook", type=Path)
    turns.add_argument("--corner", choices=CORNERS, help="that corner alone; else the whole car in one lift")
    turns.add_argument("--json", action="store_true")
    swept = command("sweep", _sweep, "Say every angle, place and rate of a wheel over its travel; a range is from:to:step.")
    swept.add_argument("plan", type=Path)
    swept.add_argument("--corner", choices=CORNERS, required=True)
    swept.add_argument("--travel", type=_range, help="of the wheel centre in mm, bump positive, such as --travel=-60:60:5")
    swept.add_argument(
        "--rack", type=_range, default=_range("0"), help="to the left positive, mm: one figure, or as many as the travel"
    )
    swept.add_argument("--heave", type=_range, help="of both wheels in mm, in place of --travel")
    swept.add_argument("--roll", type=_range, help="in degrees, left wheel up positive")
    swept.add_argument("--length", metavar="SPRING=RANGE", help="of a spring or damper in mm, in place of --travel")
    swept.add_argument(
        "--angle",
        metavar="ARM=RANGE",
        help="of an arm from the plan, or of a member to level, in degrees, in place of --travel",
    )
    how = swept.add_mutually_exclusive_group()
    how.add_argument("--json", action="store_true")
    how.add_argument("--csv", action="store_true")
    struts = command(
        "struts", _struts, "Tell the rods that hold a corner on the stands in place of its springs, and its rate at the wheel."
    )
    struts.add_argument("plan", type=Path)
    struts.add_argument("--corner", choices=CORNERS, required=True)
    struts.add_argument("--json", action="store_true")
    stood = command(
        "stance", _stance, "Tell how the car of a logbook stands: heights, loads, perches to turn, hubs on the stands."
    )
    stood.add_argument("logbook", type=Path)
    stood.add_argument("--json", action="store_true")
    stand_ = command("stand", _stand, "Tell where a car of a plan stands on its springs, and what it weighs at each wheel.")
    stand_.add_argument("plan", type=Path)
    stand_.add_argument("--turn", action="append", default=[], metavar="CORNER=TURNS", help="a perch turned, such as LF=1t2f")
    stand_.add_argument("--pad", action="append", default=[], metavar="CORNER=HEIGHT", help="a pad higher than the rest")
    stand_.add_argument("--bars", action="store_true", help="anti-roll bar links on")
    stand_.add_argument(
        "--cross", type=float, metavar="PERCENT", help="tell the perch turns for this cross weight, the heights kept"
    )
    stand_.add_argument("--json", action="store_true")
    survey = command(
        "survey", _survey, "Tell the frame of a logbook: its points, what is wrong, and every pickup point against the plan."
    )
    survey.add_argument("logbook", type=Path)
    survey.add_argument("--json", action="store_true")
    _workshop_commands(command)
    schema = command("schema", _schema, "Print the JSON Schema of a kind of file.")
    schema.add_argument("kind", choices=sorted(schemas()))
    return parser


def _workshop_commands(command: Callable[[str, object, str], argparse.ArgumentParser]) -> None:
    saved = command("save", _save, "Save the whole workshop to one file, while it runs or not.")
    saved.add_argument("file", type=Path, help="where to; - for standard output")
    saved.add_argument("--folder", type=Path, default=Path("var"), help="the folder ./start was given (default var)")
    back = command("put-back", _put_back, "Bring a saved workshop, or the logbook of one car, into this workshop.")
    back.add_argument("file", type=Path)
    back.add_argument("--folder", type=Path, default=Path("var"), help="the folder ./start was given (default var)")


def _save(asked: argparse.Namespace) -> None:
    with door(asked.folder) as workshop:
        data = workshop.save()
    if str(asked.file) == "-":
        sys.stdout.buffer.write(data)
        return
    making = asked.file.with_name(f"{asked.file.name}.part")  # a disk that fills up leaves the earlier file whole
    making.write_bytes(data)
    making.replace(asked.file)
    print(f"{asked.file}: {len(json.loads(data)['cars'])} cars, {len(data) / 1e6:.1f} MB.")


def _put_back(asked: argparse.Namespace) -> int:
    data = asked.file.read_bytes()
    read_workshop(data)
    with door(asked.folder) as workshop:
        found = workshop.put_back(data)
    for car in found:
        said = f"{car.new} lines new, {car.had} were here" if car.had else f"{car.new} lines, new here"
        print(f"{car.name} ({car.slug}): {' '.join(car.refused) or said}.".replace("..", "."))
    return 2 if any(car.refused for car in found) else 0


def _check(asked: argparse.Namespace) -> None:
    plan = read_plan(asked.plan.read_bytes()).to_core()
    open_ = wanting(plan)
    amiss = f"nothing wrong; {len(open_)} to look at:" if open_ else "nothing wrong, nothing open."
    print(f"{plan.name}: {len(plan.aims)} aims, {len(plan.adjusters)} adjusters; {amiss}")
    for row in open_:
        print(f"{row.stage}, {row.path}: {said(row.what, plan.units)} ({said(row.step, plan.units)})")


def _fold(asked: argparse.Namespace) -> None:
    _, state = read_logbook(asked.logbook.read_bytes())
    found = evaluate(state)
    step, units = next_step(found), state.plan.units
    if asked.json:
        marks = [mark_view(m, units).model_dump() for m in found.marks]
        told = {"number": state.number, "marks": marks, "next": said(step.sentence, units), "why": said(step.reason, units)}
        print(json.dumps(told, ensure_ascii=False, indent=1))
        return
    for mark in found.marks:
        reason = said(mark.reason, units)
        more = " ".join(_rest(mark_view(mark, units), [reason]))
        print(f"{mark.mark:16} {mark.state or '':18} {say_mark_value(mark, units):14} {reason} {more}".rstrip())
    print(f"Next: {said(step.sentence, units)} {said(step.reason, units)}".rstrip())


def _rest(view: object, printed: Iterable[str]) -> list[str]:
    """Return whatever else the page says in whole sentences: one answer, told by both doors."""
    already = "\n".join(printed)
    return [s for s in sentences(view) if s not in already]


def _tell_rest(view: object, printed: Iterable[str]) -> None:
    for sentence in _rest(view, printed):
        print(f"  {sentence}")


def _set(asked: argparse.Namespace) -> None:
    _, state = read_logbook(asked.logbook.read_bytes())
    judged, plan = evaluate(state), state.plan
    if asked.corner is None:
        _lift(judge_car(judged), asked.json)
        return
    toe, camber = (judged.mark(f"{asked.corner}.{kind}") for kind in ("toe", "camber"))
    shown = corner_view(set_corner(judged, asked.corner), toe, camber, plan)
    if asked.json:
        print(json.dumps(shown.model_dump(), ensure_ascii=False, indent=1))
        return
    for sentence in (shown.sentence or shown.why_not, shown.reason):
        if sentence:
            print(sentence)
    for turn in shown.turns:
        print(f"{turn.name}: {turn.say}")
    for mark in shown.expected:
        print(f"{mark.mark}: would read {mark.say} {mark.say_u}, {mark.say_aim}: {mark.verdict}")
    _tell_rest(shown, [shown.sentence, shown.why_not, shown.reason])


def _lift(car: CarJudged, as_json: bool) -> None:
    """Print the list of one lift; what is next instead where there is none."""
    plan = car.evaluation.state.plan
    shown = lift_view(car.lift, plan)
    if as_json:
        print(json.dumps(shown and shown.model_dump(), ensure_ascii=False, indent=1))
        return
    if shown is None:
        print(f"Nothing to turn just now. {said(car.next.sentence, plan.units)}. {said(car.next.reason, plan.units)}")
        return
    print(f"{shown.sentence}\n{shown.reason}")
    for stop in shown.stops:
        for turn in stop.turns:
            print(f"{CORNER_WORDS[stop.corner]}, {turn.name}: {turn.say}{'' if turn.left else ', done'}")
    for mark in shown.expected:
        print(f"{mark.mark}: would read {mark.say} {mark.say_u}, {mark.say_aim}: {mark.verdict}")
    print(shown.afterwards)
    _tell_rest(shown, [shown.sentence, shown.reason, shown.afterwards])


def _range(text: str) -> FloatArray:
    """Return figures from “from:to:step”, or those between commas."""
    try:
        if ":" in text:
            low, high, step = (float(part) for part in text.split(":"))
            if not (step > 0 and high >= low and (high - low) / step < 100_000):
                raise ValueError(text)
            return low + step * np.arange(int((high - low) / step + 1 + 1e-9), dtype=np.float64)
        return np.array([float(part) for part in text.split(",")], dtype=np.float64)
    except (ValueError, OverflowError):
        raise argparse.ArgumentTypeError(f"“{text}” is no range; write from:to:step, such as -60:60:5") from None


def _travel_asked(plan: Plan, asked: argparse.Namespace) -> FloatArray:
    """Return the travel that is asked for as such, or by the length of a spring or the angle of an arm; what is beyond reach is left out."""
    if asked.length is None and asked.angle is None:
        return np.zeros(1) if asked.travel is None else np.asarray(asked.travel)
    body, (name, _, text) = body_named(plan, asked.corner), (asked.length or asked.angle).rpartition("=")
    try:
        wanted = _range(text)
    except argparse.ArgumentTypeError as wrong:
        raise CalledError(finding("cli.no-range", text=text), path="length" if asked.length else "angle") from wrong
    if len(asked.rack) > 1:
        raise CalledError(finding("cli.rack-one-figure"), path="rack")
    if asked.length:
        springs = {s.name: s for s in body.springs}
        if name not in springs:
            raise CalledError(
                finding("cli.no-spring", body=body.name, spring=name, springs=", ".join(springs) or "none"), path="length"
            )
        travel = travel_for_length(body, springs[name], wanted, float(asked.rack[0]))
    else:
        travel = travel_for_angle(body, name, wanted, float(asked.rack[0]))
    beyond = ~np.isfinite(travel)
    if beyond.all():
        raise CalledError(
            finding("cli.reaches-none", body=name),
            path="length" if asked.length else "angle",
        )
    if beyond.any():
        print(f"{name} does not reach {', '.join(f'{v:g}' for v in wanted[beyond])}; those rows are left out.", file=sys.stderr)
    return travel[~beyond]


def _sweep(asked: argparse.Namespace) -> None:
    plan = read_plan(asked.plan.read_bytes()).to_core()
    try:
        if asked.heave is not None or asked.roll is not None:
            zero = np.zeros(1)
            heave, rack, roll = np.broadcast_arrays(
                zero if asked.heave is None else asked.heave, asked.rack, zero if asked.roll is None else asked.roll
            )
            found = pair_rows(plan, asked.corner, heave, roll, rack)
        else:
            travel, rack = np.broadcast_arrays(_travel_asked(plan, asked), asked.rack)
            found = sweep_rows(plan, asked.corner, travel, rack)
    except ValueError as wrong:
        if isinstance(wrong, ReadyCornerError):
            raise
        raise CalledError(finding("cli.ranges-differ"), path="rack") from wrong
    if asked.json:
        print(json.dumps(found, ensure_ascii=False, indent=1, allow_nan=False))
    else:
        print(as_csv(found["rows"]), end="")
    for warning in found["warnings"]:
        print(warning, file=sys.stderr)
    for limit in found["limits"][:LIMITS_TOLD]:
        print(f"{limit['what']}: {limit['say']}", file=sys.stderr)


def _struts(asked: argparse.Namespace) -> None:
    plan = read_plan(asked.plan.read_bytes()).to_core()
    rods, work = dummy_struts(plan, asked.corner), at_work(plan, asked.corner, np.zeros(1))
    if asked.json:
        rows = [{k: v if isinstance(v, str) or np.isfinite(v) else None for k, v in asdict(rod).items()} for rod in rods]
        rates = [
            {
                "name": w.name,
                "ratio": float(w.ratio[0]),
                "wheel_rate": float(w.rate[0]),
                "rough_off": w.off if np.isfinite(w.off) else None,
            }
            for w in work
        ]
        print(
            json.dumps({"corner": asked.corner, "struts": rows, "rates": rates}, ensure_ascii=False, indent=1, allow_nan=False)
        )
        return
    units = plan.units

    def said(mm: float) -> str:
        return say_length(mm, units, denominator=0, unit=True) if np.isfinite(mm) else "not in the plan"

    for rod in rods:
        print(
            f"{asked.corner} {rod.name}, eye to eye: at ride height {said(rod.at_ride)}; arm level {said(rod.at_level)}; full bump {said(rod.at_bump)}; full droop {said(rod.at_droop)}"
        )
    for one in work:
        rough = (
            f"; the rough formula is {abs(one.off) * 100:.0f} % {'over' if one.off > 0 else 'under'}"
            if np.isfinite(one.off)
            else ""
        )
        print(f"{asked.corner} {one.name}: {one.rate[0]:.1f} N/mm at the wheel, ratio {one.ratio[0]:.3f}{rough}")


def _stance(asked: argparse.Namespace) -> None:
    _, state = read_logbook(asked.logbook.read_bytes())
    judged, units = evaluate(state), state.plan.units
    found = stance(judged)
    page = stance_view(judged, found)
    if asked.json:
        told = {
            "wanted": asdict(found.wanted) if found.wanted else None,
            "floor": asdict(found.floor) if found.floor else None,
            "stands": asdict(found.stands) if found.stands else None,
            "perches": [{"corner": p.corner, "turns": p.amount, "say": said(p.said, units)} for p in found.perches],
            "heights_then": list(found.expected),
            "cross_then": found.turns.cross if found.turns else None,
            "loads_kg": None if found.loads is None else dict(zip(CORNERS, found.loads, strict=True)),
            "hubs": [
                {k: v if v is None or isinstance(v, str) or np.isfinite(v) else None for k, v in asdict(h).items()}
                for h in found.hubs
            ],
            "features": [asdict(f) for f in found.features],
            "travel": {c.corner: _strip(c.strip, units) for c in found.corners if c.strip},
            "says": all_said((*found.says, *found.stand_says, *found.load_says), units),
            "provisional": all_said(found.provisional, units),
            "why_not": said(found.why_not, units),
            "sentences": sentences(page),
        }
        print(json.dumps(told, ensure_ascii=False, indent=1, allow_nan=False))
        return
    told_ = (*found.says, found.why_not, *(p.said for p in found.perches), *found.stand_says, *found.load_says)
    lines = [said(line, units) for line in told_ if line]
    print("\n".join(lines)) if lines else None
    for hub in found.hubs:
        rides = (
            ""
            if hub.ride is None
            else f"; as set, {say_length(abs(hub.ride), units, denominator=0, unit=True)} {'higher' if hub.ride > 0 else 'lower'}"
        )
        print(f"{hub.corner} hub {say_length(hub.wanted, units, denominator=0, unit=True)} over the floor{rides}")
    if found.loads is not None:
        print(", ".join(say_loads(np.array(found.loads), units)))
    for why in found.provisional:
        print(f"Provisional: {said(why, units)}.")
    _tell_rest(page, lines)


def _strip(strip: Strip, units: Units) -> dict[str, object]:
    """Return the travel of a wheel as it is printed: what ends it, and what is said of that."""
    lines = [[said(line, units), amiss] for line, amiss in strip.lines]
    return {**{k: v for k, v in asdict(strip).items() if k != "lines"}, "lines": lines}


def _by_corner(rows: list[str], kind: Literal["length", "turns"], plan: Plan) -> FloatArray:
    """Return four figures from CORNER=FIGURE; raises CalledError, ShopNotationError."""
    found = np.zeros(4)
    for row in rows:
        corner, _, text = row.partition("=")
        if corner not in CORNERS:
            raise CalledError(finding("cli.no-corner", row=row), path=kind)
        found[CORNERS.index(corner)] = read(text, kind, plan.units).value
    return found


def _stand(asked: argparse.Namespace) -> None:
    plan = read_plan(asked.plan.read_bytes()).to_core()
    pads = _by_corner(asked.pad, "length", plan)
    car, turns = car_of(plan, [float(p) for p in pads], asked.bars), _by_corner(asked.turn, "turns", plan)
    found, lines = stand(car, turns), list[str]()
    if asked.cross is not None:
        told = perch_turns(car, Asked(None, 2.0, asked.cross / 100, CROSS_ASKED), turns)
        lines = [said(step.said, plan.units) for step in steps(plan, np.array(told.turns) - turns)]
        lines += [said(told.short, plan.units)] if told.short else []
        found = told.standing
    kg = found.loads / GRAVITY
    if asked.json:
        rows = {
            c: {"height": float(h), "load_kg": float(w), "loose": s}
            for c, h, w, s in zip(CORNERS, found.heights, kg, found.lifted, strict=True)
        }
        print(
            json.dumps({"say": lines, "corners": rows, "cross": found.cross, "left": found.left, "rear": found.rear}, indent=1)
        )
        return
    print("\n".join(lines)) if lines else None
    for c, h, w, loose in zip(CORNERS, found.heights, kg, found.lifted, strict=True):
        way = "up" if h >= 0 else "down"
        print(
            f"{c}: {say_length(abs(float(h)), plan.units, denominator=0, unit=True)} {way}, {say_mass(float(w), plan.units)}{', its spring is loose' if loose else ''}"
        )
    print(", ".join(say_loads(kg, plan.units)[4:]))


def _survey(asked: argparse.Namespace) -> None:
    _, state = read_logbook(asked.logbook.read_bytes())
    frame = Frame(state.plan, state.jig, state.gone)
    shown = jig_view(frame, pickups(frame, state.moved, {}), state.number, {})
    lines = {
        "wrong": shown.wrong,
        "loose": shown.loose,
        "axes": [shown.axes] if shown.axes else [],
        "notes": shown.notes,
        "level": [shown.level.sentence, *shown.level.notes] if shown.level else [],
        "instruments": shown.instruments,
        "square": shown.square,
        "moved": shown.moved,
    }
    if asked.json:
        points = [{"name": p.name, "place": p.place, "expanded": p.expanded} for p in shown.points if p.place]
        found = [
            {
                "point": p.point,
                "off": p.off,
                "verdict": p.verdict,
                "do": [o.model_dump() for o in p.options],
                "doubt": p.doubt,
                "stale": p.stale,
            }
            for p in shown.pickups
        ]
        told = {
            "points": points,
            **lines,
            "axes": shown.axes,
            "sigma0": shown.sigma0,
            "pickups": found,
            "sentences": sentences(shown),
        }
        print(json.dumps(told, ensure_ascii=False, indent=1, allow_nan=False))
        return
    for sentence in (s for of in lines.values() for s in of):
        print(sentence)
    for row in shown.pickups:
        todo = f"{row.options[0].do}: {row.options[0].say}" if row.options else ""
        print(f"{row.point:24} {row.verdict or '':18} {todo}".rstrip())
    _tell_rest(shown, [s for of in lines.values() for s in of])


def _schema(asked: argparse.Namespace) -> None:
    print(json.dumps(schemas()[asked.kind], ensure_ascii=False, indent=1))
