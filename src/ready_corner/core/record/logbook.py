"""The logbook: immutable entries, and folding them into the state of a car.

Nothing here judges. Folding strikes out what was corrected, counts what every adjuster was turned, and sorts the readings by
place and *spell*: the stretch of the log between two changes that could move what is read there.
"""

from bisect import bisect_left
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, fields, replace

from ready_corner.core.model.slips import slips
from ready_corner.core.plan.corners import Point
from ready_corner.core.plan.names import turn_parts
from ready_corner.core.plan.plan import STEP_WORDS, Gone, Plan, places_of
from ready_corner.core.quantities.bounds import beyond
from ready_corner.core.quantities.errors import CalledError, MeasuredError, UnusualError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.act import Act
from ready_corner.core.record.happenings import (
    DISTURBS,
    Condition,
    Happened,
    OutOfThreadError,
    Stuck,
    Turned,
    has_bar,
    moved_by,
)
from ready_corner.core.record.jig_acts import JigLog
from ready_corner.core.record.jig_base import JigAct
from ready_corner.core.record.letting_go import lets_go
from ready_corner.core.record.moves import Move
from ready_corner.core.record.notes import Correction, Surveyed
from ready_corner.core.record.readings import QUANTITIES, Place, Reading, Taken
from ready_corner.core.record.revisions import count, gone_after, revised
from ready_corner.core.record.stance_acts import StanceAct, StanceLog

STRIDE = 256  # entries between two states that are kept to fold on from


@dataclass(frozen=True)
class PlanRevised:
    """A new plan, made from the one of entry ``revises`` (0 for the first). ``confirmed``: though it lets go of points that something refers to."""

    plan: Plan
    revises: int = 0
    confirmed: bool = False


@dataclass(frozen=True)
class Unreadable:
    """An entry that this version cannot read or fold; it counts for nothing, and stays in the log with the ``sentence`` why."""

    sentence: str


What = PlanRevised | Act | Unreadable


@dataclass(frozen=True)
class Entry:
    """One line of the logbook. ``number`` runs without gaps from 1; ``at`` is the browser's time, kept as written."""

    id: str
    number: int
    what: What
    at: str = ""
    who: str = ""


@dataclass(frozen=True)
class CarState:
    """What plan and logbook come to.

    ``moved``: turns of each adjuster since its thread was last measured for the plan. ``taken``: unstruck readings by place,
    oldest first. ``surveyed``: where points were measured last, with U. ``moves``: unstruck changes, oldest first, ``rig_breaks``: numbers of those after which the strings are not where they were. ``spells``: how many changes each place has seen.
    ``stuck``: adjusters that go no further for now. ``earlier``: what stood every so many entries, to fold on from where something is struck out.
    """

    plan: Plan
    plan_number: int = 0
    entries: tuple[Entry, ...] = ()
    struck: Mapping[str, str] = field(default_factory=dict)
    moved: Mapping[str, float] = field(default_factory=dict)
    taken: Mapping[Place, tuple[Taken, ...]] = field(default_factory=dict)
    moves: tuple[Move, ...] = ()
    rig_breaks: tuple[int, ...] = ()
    spells: Mapping[Place, int] = field(default_factory=dict)
    condition: Condition = field(default_factory=Condition)
    surveyed: Mapping[str, tuple[Point, float]] = field(default_factory=dict)
    gone: Gone = field(default_factory=Gone)
    jig: JigLog = field(default_factory=JigLog)
    stance: StanceLog = field(default_factory=StanceLog)
    stuck: frozenset[str] = frozenset()
    earlier: tuple["CarState", ...] = field(default=(), compare=False, repr=False)

    @property
    def number(self) -> int:
        """Number of the latest entry."""
        return self.entries[-1].number if self.entries else 0

    def latest(self, place: Place) -> tuple[Taken, ...]:
        """Return the repeats of the latest spell in which a place was read, oldest first."""
        taken = self.taken.get(place, ())
        return taken[bisect_left(taken, taken[-1].spell, key=lambda t: t.spell) :] if taken else ()


def fold(plan: Plan | None, entries: Sequence[Entry]) -> CarState:
    """Return the state that a plan and entries in order of their numbers come to.

    ``plan`` may be None where the entries begin with one. Raises CalledError where there is none at all.
    """
    first = plan or next((e.what.plan for e in entries if isinstance(e.what, PlanRevised)), None)
    if first is None:
        raise CalledError(finding("logbook.no-plan"))
    return _folded(CarState(first), entries, _struck(entries))


def fold_on(state: CarState, entries: Sequence[Entry]) -> CarState:
    """Return the state after some more entries; the same as folding all of them at once."""
    if not any(isinstance(e.what, Correction) for e in entries):
        return _folded(state, entries, state.struck)
    every = (*state.entries, *entries)
    struck = _struck(every)
    otherwise = state.struck.keys() ^ struck.keys()
    first = next((i for i, e in enumerate(every) if e.id in otherwise), len(every))
    sound = next((s for s in (state, *reversed(state.earlier)) if len(s.entries) <= first), CarState(fold_plan(state)))
    return _kept_where_alike(state, _folded(sound, every[len(sound.entries) :], struck))


def fold_all(state: CarState | None, entries: Sequence[Entry]) -> CarState:
    """Return the state after entries that were kept, whatever they hold: one that cannot be folded counts for nothing, and says so.

    ``state``: what they come after, None for the first. Raises CalledError where there is no plan at all.
    """
    try:
        return fold_on(state, entries) if state else fold(None, entries)
    except CalledError:
        raise
    except Exception:  # whatever it is: one bad line must not take the rest of the logbook with it
        if len(entries) == 1 and state:
            unread = Unreadable(
                "This line could not be reckoned with, so it counts for nothing. Strike it out, or read it again."
            )
            return fold_on(state, [replace(entries[0], what=unread)])
    for entry in entries:
        state = fold_all(state, [entry])
    assert state is not None
    return state


def fold_plan(state: CarState) -> Plan:
    """Return the plan a car began with."""
    return next((e.what.plan for e in state.entries if isinstance(e.what, PlanRevised)), state.plan)


def _folded(state: CarState, entries: Sequence[Entry], struck: Mapping[str, str]) -> CarState:
    """Return the state after some entries, some of which are ``struck``; what stood every so many of them is kept with it."""
    at = 0
    while at < len(entries) or at == 0:
        to = at + STRIDE - len(state.entries) % STRIDE
        state = _folded_at_once(state, entries[at:to], struck)
        if len(state.entries) % STRIDE == 0 and state.entries:
            state = replace(state, earlier=(*state.earlier, state))
        at = to
    return state


def _kept_where_alike(before: CarState, now: CarState) -> CarState:
    """Return a state that is the very object it was in every part that came out the same, so that nothing is worked out anew of it."""
    alike = {
        f.name: was for f in fields(now) if (was := getattr(before, f.name)) == getattr(now, f.name) and f.name != "earlier"
    }
    taken = {place: was if (was := before.taken.get(place)) == rows else rows for place, rows in now.taken.items()}
    return replace(now, **({"taken": taken} | alike))


def _folded_at_once(state: CarState, entries: Sequence[Entry], struck: Mapping[str, str]) -> CarState:
    """Return the state after some entries; every part that they do not touch is the very object it was."""
    surveyed, jig, stance, gone = dict(state.surveyed), state.jig, state.stance, state.gone
    taken: dict[Place, list[Taken]] = {}
    moves: list[Move] = []
    spells, moved = dict(state.spells), dict(state.moved)
    plan, plan_number, condition, stuck = state.plan, state.plan_number, state.condition, state.stuck
    for entry in entries:
        what = entry.what
        if entry.id in struck:
            continue
        if isinstance(what, PlanRevised):
            moves += revised(plan, what.plan, entry.number, moved, spells)
            gone = gone_after(gone, plan, what.plan)
            plan, plan_number = what.plan, entry.number
        elif isinstance(what, Reading):
            why = condition.why(what.quantity, stance.state, has_bar(plan), jig.support)
            on_frame = QUANTITIES[what.quantity].gauged and jig.zero == "frame"
            known = None if on_frame else jig.known_error(what.tool)
            taken.setdefault(what.place, []).append(Taken(entry.number, spells.get(what.place, 0), what, why, on_frame, known))
        elif isinstance(what, JigAct | StanceAct):
            if isinstance(what, JigAct):
                changed, jig = what.moves(jig, entry.number), jig.after(entry.number, what)
            else:
                changed, stance = what.moves(stance, entry.number), what.into(stance, entry.number)
            moves += changed
            condition = replace(condition, settled=condition.settled and not changed)
            count(spells, changed)
        elif isinstance(what, Surveyed):
            surveyed |= {name: (place, what.expanded) for name, place in what.points.items()}
        elif isinstance(what, Turned | Happened):
            made, condition = moved_by(entry.number, what, plan, condition, moved)
            moves += made
            count(spells, made[:1])
            jig = _disturbed(jig, entry.number, what)
            if isinstance(what, Turned):
                moved[what.adjuster] = moved.get(what.adjuster, 0.0) + what.amount
                stuck -= {what.adjuster}
        elif isinstance(what, Stuck):
            stuck |= {what.adjuster}
    return replace(
        state,
        plan=plan,
        plan_number=plan_number,
        entries=(*state.entries, *entries),
        struck=struck,
        moved=moved if moved != state.moved else state.moved,
        taken={**state.taken, **{p: (*state.taken.get(p, ()), *rows) for p, rows in taken.items()}} if taken else state.taken,
        moves=(*state.moves, *moves) if moves else state.moves,
        rig_breaks=(*state.rig_breaks, *breaks) if (breaks := [m.number for m in moves if m.breaks_rig]) else state.rig_breaks,
        spells=spells if moves else state.spells,
        condition=condition if condition != state.condition else state.condition,
        surveyed=surveyed if len(surveyed) != len(state.surveyed) or surveyed != state.surveyed else state.surveyed,
        gone=gone,
        jig=jig,
        stance=stance,
        stuck=stuck if stuck != state.stuck else state.stuck,
    )


def _struck(entries: Sequence[Entry]) -> Mapping[str, str]:
    """Return which of all entries are struck out, each with the correction that did."""
    struck: dict[str, str] = {}
    by_id = {e.id for e in entries}
    for entry in reversed(entries):  # a correction strikes what is earlier, so later corrections are settled first
        if isinstance(entry.what, Correction) and entry.id not in struck and entry.what.strikes in by_id:
            struck[entry.what.strikes] = entry.id
    return struck


def _disturbed(jig: JigLog, number: int, what: Turned | Happened) -> JigLog:
    """Return the jig's log with what may have moved points of the frame."""
    if isinstance(what, Turned):
        return jig
    if what.what in ("knock", "level", "load", "cut"):
        jig = replace(jig, shaken=(number, _told(what)))
    if what.what not in DISTURBS:
        return jig
    points = what.points or ((what.corner,) if what.corner else ())
    jig = jig.welded(what.points) if what.what == "weld" else jig
    return jig.after_disturbance(number, points, _told(what, points), weld=what.what == "weld")


def _told(what: Happened, points: Sequence[str] = ()) -> Finding:
    """Return what happened: in the words of whoever told it, else by its kind and the points it was said of."""
    return (
        finding("move.told", words=what.words) if what.words else finding("move.happened", what=what.what, points=tuple(points))
    )


def check(state: CarState, what: What) -> None:
    """Refuse what cannot go into the log after this state.

    Raises MeasuredError for a reading no tool can give or a turn past its thread, UnusualError for one no car has unless it is
    confirmed, CalledError for names the plan does not know.
    """
    if isinstance(what, PlanRevised):
        _check_revision(state, what)
    elif odd := next(beyond(what), None):
        raise MeasuredError(finding("reading.beyond-cars", figure=odd[1]), path="typed", numbers={})
    elif isinstance(what, Turned):
        check_turn(state, what.adjuster, what.amount)
    elif isinstance(what, Correction):
        _check_correction(state, what)
    elif isinstance(what, Act):
        what.check(state.plan)


def _check_correction(state: CarState, what: Correction) -> None:
    target = next((e for e in state.entries if e.id == what.strikes), None)
    if target is None:
        raise CalledError(finding("correction.no-entry"), path="strikes")
    if isinstance(target.what, PlanRevised):
        raise CalledError(finding("correction.plan"), path="strikes")
    if target.id in state.struck:
        raise CalledError(finding("correction.twice", entry=target.number), path="strikes", numbers={"entry": target.number})


def _check_revision(state: CarState, what: PlanRevised) -> None:
    """Ask once where points are let go that something refers to, and where a figure is new that is hardly meant."""
    kept = places_of(what.plan)
    lost = {n: p for n, p in places_of(state.plan).items() if n not in kept}
    told = lets_go(state.jig, state.surveyed, lost, {n: p for n, p in kept.items() if n not in places_of(state.plan)})
    if told and not what.confirmed:
        raise UnusualError(
            finding("plan.points-lost", told=tuple(told)),
            path="plan.points",
            numbers={"points": len(lost)},
        )
    ask_about_slips(what, state.plan)


def ask_about_slips(what: PlanRevised, before: Plan | None = None) -> None:
    """Ask once where a figure of a plan is hardly meant, of those that are new; raises UnusualError with all of them."""
    known = () if before is None else slips(before)
    asked = [s for s in slips(what.plan) if s not in known]
    if asked and not what.confirmed:
        said = tuple(s.said for s in asked)
        raise UnusualError(
            finding("plan.slips", told=said, many=len(said) > 1), path=f"plan.{asked[0].path}", numbers={"slips": len(asked)}
        )


def check_turn(state: CarState, adjuster_id: str, amount: float) -> None:
    """Raise OutOfThreadError where an adjuster would be sent past its thread, MeasuredError where it is not turned at all."""
    adjuster = state.plan.adjuster(adjuster_id)
    if amount == 0:
        raise MeasuredError(finding("turned.nothing", adjuster=adjuster.name, way=adjuster.way(-1)), path="typed")
    if adjuster.notched and amount != round(amount):
        told = finding("turned.part-step", adjuster=adjuster.name, step=STEP_WORDS[adjuster.kind])
        raise MeasuredError(told, path="typed", numbers={"amount": amount})
    if adjuster.half_turns_only and abs(2 * amount - round(2 * amount)) > 1e-9:
        told = finding("turned.part-half", adjuster=adjuster.name)
        raise MeasuredError(told, path="typed", numbers={"amount": amount})
    low, high = adjuster.room(state.moved.get(adjuster_id, 0.0))
    left = high if amount > 0 else -low
    if not low - 1e-9 <= amount <= high + 1e-9:  # 1e-9 of a turn: turns come from flats, which are no binary fractions
        whole = int(left + 1e-9) if adjuster.notched else int(left * 6 + 1e-9) / 6
        size, way = turn_parts(adjuster, whole if amount > 0 else -whole)
        raise OutOfThreadError(
            finding(
                "turned.out-of-thread",
                adjuster=adjuster.name,
                left=size if whole else "",
                way=way,
                more=amount > 0,
                scale=adjuster.notched and adjuster.kind != "shims",
            ),
            path="typed",
            numbers={"amount": amount, "low": low, "high": high},
        )
