"""The survey in the builder's words: what is wrong, what is not fixed, what has moved, how square it is."""

from collections import Counter
from collections.abc import Sequence

import numpy as np

from ready_corner.core.advise.pickups import WAYS, move_of
from ready_corner.core.engines.survey.moved import Drift, Fit
from ready_corner.core.engines.survey.network import Network
from ready_corner.core.engines.survey.readings import KINDS, Reading
from ready_corner.core.engines.survey.wrong import Suspect, Verdict
from ready_corner.core.judge.frame import Frame
from ready_corner.core.judge.survey_views import Agreement
from ready_corner.core.plan.names import say_dimension
from ready_corner.core.plan.plan import Plan
from ready_corner.core.plan.provisional import hanging_on
from ready_corner.core.quantities.naming import short_point
from ready_corner.core.quantities.notation import Units, in_another_unit, in_units, say_angle, say_length
from ready_corner.core.record.jig_acts import SurveyRead
from ready_corner.core.record.weld_acts import open_holds
from ready_corner.core.say.template import say_finding

WITHOUT = "Until that is done, the frame is judged without what is wrong."
WITHOUT_ANY = "Until that is settled, the frame is judged without any of them, and what hangs on them is too close to call."
UNTOLD_MM = 20.0  # a shift of the whole that is not surer than this is not told
TURNS = (("left side up", "right side up"), ("nose down", "nose up"), ("nose to the left", "nose to the right"))
TOO_FAR = 3.3  # a tool's zero further off than so many standard uncertainties was not as good as said


def _say_size(reading: Reading, size: float, units: Units) -> str:
    return say_angle(abs(size)) if KINDS[reading.kind].unit == "deg" else say_length(abs(size), units, denominator=0, unit=True)


def say_suspect(suspect: Suspect, units: Units) -> str:
    """Return what a wrong reading does, and what to do: “LF lower front to RR upper rear disagrees with the rest by …”."""
    by, sure = (_say_size(suspect.reading, v, units) for v in (suspect.by, suspect.expanded))
    slip = f": {suspect.slip}?" if suspect.slip else "."
    mute = " Hardly anything checks it, so it could as well be right and what it stands on wrong." if suspect.mute else ""
    return f"{_capital(suspect.reading.said)} disagrees with the rest by {by} ± {sure}{slip} Measure it again.{mute}"


def say_verdict(verdict: Verdict | None, units: Units) -> tuple[str, ...]:
    """Return the sentences about what is wrong; empty where the readings agree."""
    if verdict is None:
        return ()
    tells = f" Measure {verdict.tells.said}: it would tell." if verdict.tells else " Measure them again, one after the other."
    if verdict.named:
        return (f"{say_suspect(verdict.named, units)} {WITHOUT}",)
    if verdict.suspects:
        names = "; or ".join(_apart([s.reading for s in verdict.suspects], units))
        return (f"One reading is wrong, and it cannot be told which: {names}.{tells}", WITHOUT_ANY)
    if verdict.settled is None:
        return (
            "The readings do not agree, and no few of them explain it. Was the frame moved between them, or held in another way?",
            *(f"{_capital(r.said)} disagrees most: measure it again." for r in verdict.doubted[:1]),
            "Nothing is judged from them until they agree.",
        )
    said = [
        say_suspect(s, units) + (f" Or {' or '.join(_apart(s.instead, units))} in its place." if s.instead else "")
        for s in verdict.several
    ]
    counted = {1: "One", 2: "Two", 3: "Three", 4: "Four"}.get(len(said), str(len(said)))
    counted += " reading is wrong" if len(said) == 1 else " readings are wrong"
    if verdict.settles:
        return (f"{counted}.", *said, WITHOUT)
    return (f"{counted}, and it cannot be told of all of them which.{tells}", *said, WITHOUT_ANY)


def _apart(readings: Sequence[Reading], units: Units) -> list[str]:
    """Return readings in words that tell them apart: by what was read, where the same place was read twice."""
    times = Counter(r.said for r in readings)
    return [r.said + (f" ({_say_size(r, r.value, units)}, entry {r.id})" if times[r.said] > 1 else "") for r in readings]


def say_free(network: Network, units: Units) -> tuple[str, ...]:
    """Return what nothing fixes, point by point, and what would."""
    rows = list(_groups(network))
    alone = _adrift(network)
    for name in dict.fromkeys(f.point for f in network.free if f.point not in alone):
        ways = [f.direction for f in network.free if f.point == name]
        axes = [int(np.argmax(np.abs(w))) for w in ways]
        words = [("station", "offset", "height")[k] for k in dict.fromkeys(axes)]
        how = "measure it from the table" if 2 in axes else "measure it to another point, or from the centreline"
        rows.append(f"Nothing fixes the {' and '.join(words)} of {short_point(name)}: {how}.")
    for mirror in network.mirrors:
        up = abs(mirror.away[2]) > 0.5 * float(np.linalg.norm(mirror.away))
        side = "above or below" if up else "on one side or the other"
        rows.append(
            f"{short_point(mirror.point)} could as well be {side}, {in_units(units)(float(np.linalg.norm(mirror.away)), 1)} away: {'measure its height' if up else 'measure its offset'}."
        )
    return tuple(rows)


def _parts(network: Network) -> list[frozenset[str]]:
    """Return the points by what readings join: each part hangs together by itself."""
    group = {n: {n} for n in network.names}
    for row in network.rows:
        joined = set().union(*(group[p] for p in row.reading.points))
        for name in joined:
            group[name] = joined
    return sorted({frozenset(g) for g in group.values()}, key=min)


def _adrift(network: Network) -> set[str]:
    """Return the points of every part of two and more of which nothing is fixed: it is loose as a whole. One point taped once makes no part loose."""
    parts = _parts(network)
    return {n for part in parts if len(parts) > 1 and len(part) > 1 and part.isdisjoint(network.determined) for n in part}


def _groups(network: Network) -> tuple[str, ...]:
    """Return which points hang together among themselves only; empty where nothing is adrift."""
    if not _adrift(network):
        return ()
    said = [f"{short_point(min(g))}{f' and {len(g) - 1} more' if len(g) > 1 else ''}" for g in _parts(network)]
    return (f"Nothing holds these together: {'; '.join(said)}. Measure from one group to the other, three times at least.",)


def say_tools(network: Network, zeros: dict[str, float], names: dict[str, str], units: Units) -> tuple[str, ...]:
    """Return which tools were found wrong by the network, with how many readings were taken with them."""
    rows = []
    for tool, (zero, u) in network.tools.items():
        room = np.sqrt(max(zeros[tool] ** 2 - u**2, 1e-12))
        if abs(zero) > TOO_FAR * room and u < zeros[tool]:
            count = sum(r.reading.tool == tool for r in network.rows)
            rows.append(
                f"{names.get(tool, tool)} seems to read {say_length(abs(zero), units, denominator=0, unit=True)} too {'little' if zero > 0 else 'much'}; {count} readings were taken with it. Check it against another."
            )
    return tuple(rows)


def say_gauge(network: Network) -> str:
    """Return what the readings leave open of the whole, in words; empty where nothing."""
    if network.gauge == 0:
        return ""
    if network.gauge >= 6:
        return "Only the shape is measured so far, not how it stands: heights over the table tie it down."
    return "Heights hold the frame to the table; where it stands on it the datum decides."


def say_recovered(found: Fit, units: Units) -> tuple[str, ...]:
    """Return which points stayed and which have moved since, in words."""
    stayed = [p for p in found.points if p.stayed]
    rows = [f"The old axes are found again from {len(stayed)} points that have stayed to one another."]
    for p in found.moved:
        rows.append(
            f"{short_point(p.name)} has moved since: {', '.join(say_finding(m, units) for m in move_of(p.by, p.expanded)) or 'a little'}."
        )
    if found.alternatives:
        rows.append(
            f"It could as well be {' or '.join(short_point(n) for n in found.alternatives)} that moved. Measure one more point that has stayed."
        )
    return tuple(rows)


def say_agreement(found: Agreement | None, units: Units) -> str:
    """Return what a reading would mean beside the others."""
    if found is None:
        return "the first of its kind here: nothing to compare it with yet"

    def said(v: float) -> str:
        return say_angle(v) if found.degrees else say_length(v, units, denominator=0, unit=True)

    if found.agrees:
        return f"agrees with the rest, which say it to ± {said(found.expanded)}"
    return f"{said(abs(found.off))} {'more' if found.off > 0 else 'less'} than the rest say (± {said(found.expanded)})"


def say_drift_first(found: Drift, units: Units) -> str:
    """Return what is most to be seen of what happened between two surveys: a point that was pulled, else how the whole has gone."""
    pulled, whole = _say_pulled(found, units), _say_whole(found, units)
    return (pulled or whole[1:] or ("",))[0]


def say_drift(found: Drift, units: Units) -> tuple[str, ...]:
    """Return what happened between two surveys, in words: how the whole has gone and turned, and which points are bent, each with its U."""
    rows = [*_say_whole(found, units), *_say_pulled(found, units)]
    if found.alternatives:
        rows.append(
            f"Something is pulled at {' or '.join(short_point(n) for n in found.alternatives)}: the readings do not tell which. Read more distances to them."
        )
    if not rows:
        rows.append("Nothing has moved beyond what the tools can tell.")
    unfelt = [name for name, u in zip(("along", "across", "up and down"), found.shift_expanded, strict=True) if u > UNTOLD_MM]
    if unfelt:
        rows.append(
            f"Whether the whole has gone {' or '.join(unfelt)} is not read: that wants readings from the table, the centreline or the station line."
        )
    return tuple(rows)


def _say_whole(found: Drift, units: Units) -> tuple[str, ...]:
    gone = [
        f"{say_length(abs(v), units, denominator=0, unit=True)} ± {say_length(u, units, denominator=0)} {WAYS[k][0 if v > 0 else 1]}"
        for k, (v, u) in enumerate(zip(map(float, found.shift), map(float, found.shift_expanded), strict=True))
        if abs(v) > u
    ]
    turned = [
        f"{say_angle(abs(v))} ± {say_angle(u)} {TURNS[k][0 if v > 0 else 1]}"
        for k, (v, u) in enumerate(zip(map(float, found.turn_deg), map(float, found.turn_expanded), strict=True))
        if abs(v) > u
    ]
    rows = [f"As a whole it has gone {', '.join(gone)}."] if gone else []
    rows += [f"As a whole it has turned {', '.join(turned)}."] if turned else []
    return tuple(rows)


def _say_pulled(found: Drift, units: Units) -> tuple[str, ...]:
    rows = []
    for p in [p for p in found.points if p.certain][:6]:
        bends = sorted(zip(map(float, p.bent), map(float, p.bent_expanded), range(3), strict=True), key=lambda b: -abs(b[0]))
        said = [
            f"{say_length(abs(v), units, denominator=0, unit=True)} ± {say_length(u, units, denominator=0)} {WAYS[k][0 if v > 0 else 1]}"
            for v, u, k in bends
            if abs(v) > u
        ]
        rows.append(f"{short_point(p.name)} was pulled {', '.join(said) or 'a little'}, against the rest.")
    return tuple(rows)


def say_locked(frame: Frame) -> tuple[str, ...]:
    """Return warnings about points that are welded while what they depend on is not settled."""
    rows = []
    locked = [n for n in frame.planned if frame.log.status(n) in ("welded", "painted")]
    if locked and frame.log.datum is None:
        rows.append(
            f"{short_point(locked[0])}{f' and {len(locked) - 1} more' if len(locked) > 1 else ''} {'are' if len(locked) > 1 else 'is'} welded, but no datum is chosen yet."
        )
    loose = [
        n
        for n in (frame.log.datum.plane + frame.log.datum.line + (frame.log.datum.point,) if frame.log.datum else ())
        if frame.log.status(n) == "provisional"
    ]
    open_ones = open_holds(frame.log.works, frame.log.disturbed[-1].number if frame.log.disturbed else 0, frame.log.left_jig)
    if locked and open_ones:
        rows.append(
            f"{short_point(locked[0])} is welded, but not yet said: {open_ones[0]}{f' and {len(open_ones) - 1} more' if len(open_ones) > 1 else ''}."
        )
    for path in frame.plan.provisional if locked else ():
        early = [n for n in hanging_on(path, frame.planned) if n in locked]
        if early:
            rows.append(
                f"{short_point(early[0])}{f' and {len(early) - 1} more' if len(early) > 1 else ''} welded, and the {say_dimension(path)} that {'they hang' if len(early) > 1 else 'it hangs'} on is provisional: settle it before more is welded."
            )
    if locked and loose:
        rows.append(
            f"The datum is taken from {short_point(loose[0])}, which is provisional, while {short_point(locked[0])} is welded already."
        )
    return tuple(rows)


def say_flat(frame: Frame) -> tuple[str, ...]:
    """Return that a frame is taken to be flat for want of heights."""
    if not frame.flat:
        return ()
    return (
        "No height is read: the frame is taken to be as flat as planned, so its squareness can be told. Heights tell whether it is.",
    )


def say_datum(frame: Frame) -> tuple[str, ...]:
    """Return what the chosen datum cannot give, with the U at the point it gives least to; and how the points of a mid-line may still be moved."""
    laid, why = frame.laid
    chosen, network, units = frame.log.datum, frame.network, frame.plan.units
    if chosen is None or laid is None or network is None or why:
        return ()
    rows = []
    wanted = {n: float(laid.expanded(n).max()) for n in laid.names if n in network.determined and n in frame.planned}
    worst = max(wanted, key=lambda n: wanted[n])
    if wanted[worst] > frame.plan.point_tolerance:
        said, tolerance = (say_length(v, units, denominator=0, unit=True) for v in (wanted[worst], frame.plan.point_tolerance))
        rows.append(
            f"This datum leaves {short_point(worst)} sure to ± {said} only, and the tolerance is {tolerance}: nothing can hold there. Take its points further apart, or measure them finer."
        )
    datum = frame.datum_of(chosen)
    for one, other in dict.fromkeys(tuple(sorted(pair)) for pair in zip(datum.line, datum.partners or (), strict=False)):
        apart = float(np.linalg.norm(laid.place(one) - laid.place(other)))
        half, whole = (say_length(v, units, denominator=0, unit=True) for v in (apart / 2, apart))
        rows.append(
            f"{short_point(one)} to {short_point(other)} is {whole}: half of it, {half}, is the centreline. Each may still go up or down; sideways only both alike, or the centreline goes with it."
        )
    return tuple(rows)


def say_witnesses(frame: Frame) -> tuple[str, ...]:
    """Return which axes of the datum have only one witness that could be found again when a part of it is gone."""
    if frame.log.datum is None or frame.network is None:
        return ()
    others = [
        n for n in frame.network.determined if n not in (*frame.log.datum.plane, *frame.log.datum.line, frame.log.datum.point)
    ]
    if len(others) >= 3:
        return ()
    return (
        f"Only {len(others)} measured point{'s' if len(others) != 1 else ''} beside those of the datum: were one of those cut away, the axes would be lost. Measure {3 - len(others)} more that will stay.",
    )


def say_lost(frame: Frame, prefixes: Sequence[str]) -> str:
    """Return what taking parts away would do to the datum, and which witnesses remain; empty where it carries none of it."""
    datum = frame.log.datum
    if datum is None:
        return ""

    def gone(point: str) -> bool:
        return any(point == p or point.startswith(f"{p}.") for p in prefixes)

    carried = [n for n in dict.fromkeys((*datum.plane, *datum.line, datum.point)) if gone(n)]
    if not carried:
        return ""
    sure = frame.network.determined if frame.network else frozenset()
    left = [n for n in sure if not gone(n)]
    enough = (
        "enough to find the axes again"
        if len(left) >= 4
        else "too few to find the axes again: measure more of what stays first"
    )
    told = (
        f"This carries the datum ({', '.join(map(short_point, carried))}). {len(left)} measured points would remain, {enough}."
    )
    carries = [c for number, c in frame.log.works.carries.values() if not frame.log.since(number, c.first, c.second)]
    kept = [c for c in carries if not gone(c.first) and not gone(c.second)]
    with_it = [c.gauge for c in carries if c not in kept]
    if with_it:
        told += f" {', '.join(with_it)} was to carry it over and would go with it: choose points that stay."
    if kept:
        return f"{told} Carried over by {', '.join(f'{short_point(c.first)} to {short_point(c.second)} ({c.gauge})' for c in kept)}."
    return (
        f"{told} Nothing is chosen yet to carry it over: a dimension between two points that stay, and the gauge that keeps it."
    )


def _capital(words: str) -> str:
    return words[:1].upper() + words[1:]


def say_read(read: SurveyRead, plan: Plan) -> str:
    """Return a reading of the frame as a sentence: what, how much, with what, and how its figure was come by."""
    made = Reading("said", read.reading, read.points, read.value, 1.0).said
    units = plan.units
    if read.says:
        return f"{_capital(made)}: {'the same' if read.says == 'same' else read.says}, {say_length(read.bound, units, denominator=0, unit=True)} would have been noticed"
    if read.reading == "in_line":
        return f"{_capital(made)}: a rod passes with {say_length(read.bound, units, denominator=0, unit=True)} of play"
    value = (
        say_angle(read.value) if KINDS[read.reading].unit == "deg" else say_length(read.value, units, denominator=0, unit=True)
    )
    tool = next((t.name.lower() for t in plan.toolbox if t.id == read.tool), read.tool)
    value += f" (typed {read.typed})" if in_another_unit(read.typed, units) else ""
    how = [f"pins, {read.pins.replace('_', ' ')}"] if read.pins else []
    how += ["tape begun at a mark"] if read.burnt else []
    return f"{_capital(made)}: {value}, {', '.join([tool, *how])}{' (unusual, confirmed)' if read.confirmed else ''}"
