"""The service layer: takes what a browser sends, asks the core, keeps what was taken, and never changes what is kept.

Entries never change, so the folded state of a car is a cache that only ever needs what came after it.
"""

import contextlib
import logging
import threading
import uuid
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC

from ready_corner.border.entries import EntryIn, EntryKept, PlanRevisedModel, WhatIn, keep, kept_to_core, same_as_sent
from ready_corner.core.advise.accept import Preview, judged_with, preview
from ready_corner.core.advise.car import CarJudged, judge_car
from ready_corner.core.advise.pickups import Kept, Pickups, pickups
from ready_corner.core.advise.reckoned import NotReckonedError, failing_since, reckoned
from ready_corner.core.engines.linkage.worth import Lengths
from ready_corner.core.judge.frame import Frame
from ready_corner.core.judge.marks import Evaluation, evaluate
from ready_corner.core.model.study import Change, Over, Study, study
from ready_corner.core.plan.corners import End, Point
from ready_corner.core.plan.marks import MARKS
from ready_corner.core.quantities.errors import CalledError, SavedFirstError
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.record.happenings import Turned
from ready_corner.core.record.logbook import CarState, PlanRevised, ask_about_slips, fold_all
from ready_corner.core.record.readings import Reading
from ready_corner.exchange.files import slug_of
from ready_corner.storage.logbooks import AwayError, CarKey, CarLine, Logbooks, TakenError

LONGEST_SLUG = 75  # characters; with a number it still fits its column
HOLD_S = 4.0
AT_ONCE = 1024  # entries folded at once while a log is opened
LOG_SHARE = 0.4  # of opening a long log: reading it; the rest is working it out
STUDIES = 6  # of one car, kept to compare what-ifs with


class NoSuchCarError(CalledError):
    """There is no car with this short name."""

    code = "no_such_car"


@dataclass(frozen=True)
class Trouble:
    """Why a car cannot be reckoned: the entry since which it cannot, whether it may be struck out (a plan is revised instead), the kind of fault."""

    number: int
    id: str
    strikable: bool
    kind: str
    finding: Finding


@dataclass(frozen=True)
class Told:
    """A car at its latest entry: its state, judged, or what is in the way of that; ``notices`` of lines that are missing."""

    state: CarState
    judged: CarJudged | None
    trouble: Trouble | None
    notices: tuple[Finding, ...] = ()


@dataclass
class _Bench:
    """One car being worked on: its folded state and the entries by identity."""

    key: CarKey
    lock: threading.Lock
    jig_lock: threading.Lock  # a survey with wrong readings takes its time; nobody who records waits for it
    state: CarState | None
    kept: dict[str, EntryKept]
    told: Told | None = None
    missing: list[tuple[int, int]] = field(default_factory=list)
    studies: dict[tuple[object, ...], Study] = field(default_factory=dict)
    frame: Frame | None = None
    worths: Kept = field(default_factory=dict)
    pickups: tuple[Frame, Mapping[str, float], Pickups] | None = None
    opened: float = 1.0  # share of a long log that is read and worked out, while it is being opened


@dataclass(frozen=True)
class Recorded:
    """An entry as kept, whether it is new, and the car told with it and without it (None where it was there already)."""

    entry: EntryKept
    new: bool
    told: Told
    before: Told | None = None


class Workshop:
    """All cars of one database."""

    def __init__(self, logbooks: Logbooks) -> None:
        self.logbooks = logbooks
        self._benches: dict[str, _Bench] = {}
        self._lock = threading.Lock()

    def cars(self) -> list[CarLine]:
        """Return all cars."""
        return self.logbooks.cars()

    def state(self, slug: str) -> CarState:
        """Return the present state of a car."""
        bench = self._bench(slug)
        with _held(bench.lock):
            return self._fresh(bench)

    def numbers(self) -> dict[str, int]:
        """Return the number of the latest entry of every car, by its short name."""
        return {line.slug: line.entries for line in self.logbooks.cars()}

    def numbers_here(self) -> dict[str, int]:
        """Return the same of those cars that are known here, asking nobody."""
        return {slug: bench.state.number for slug, bench in list(self._benches.items()) if bench.state}

    def told(self, slug: str) -> Told:
        """Return a car at its latest entry, judged where it can be."""
        bench = self._bench(slug)
        with _held(bench.lock):
            if self.logbooks.count(bench.key.id) != len(bench.kept):  # rows came or went behind the running numbers
                self._let_go(bench)
            return self._told(bench, self._fresh(bench))

    def evaluation(self, slug: str) -> Evaluation:
        """Return the present state of a car, judged. Raises NotReckonedError where it cannot be."""
        bench = self._bench(slug)
        with _held(bench.lock):
            told = self._told(bench, self._fresh(bench))
        if told.judged is None:
            raise CalledError(told.trouble.finding if told.trouble else finding("car.untold"), path="car")
        return told.judged.evaluation

    def kept(self, slug: str) -> Sequence[EntryKept]:
        """Return all entries of a car as kept, in order."""
        bench = self._bench(slug)
        with _held(bench.lock):
            self._fresh(bench)
            return list(bench.kept.values())

    def by_id(self, slug: str) -> Mapping[str, EntryKept]:
        """Return all entries of a car as kept, by identity."""
        return self._bench(slug).kept

    def begin(self, entry: EntryIn) -> str:
        """Begin a car with its first plan; return its short name. Sent twice, it is begun once."""
        if not isinstance(entry.what, PlanRevisedModel):
            raise CalledError(finding("car.begins-with-plan"), path="what.kind")
        plan = entry.what.model_copy(update={"revises": 0})
        first = EntryKept(id=entry.id, number=1, at=entry.at.astimezone(UTC), who=entry.who, what=keep(plan, None))
        core_first = kept_to_core(first)
        if isinstance(core_first.what, PlanRevised):
            ask_about_slips(core_first.what)
        judged = self._reckonable(fold_all(None, [core_first]))
        car_id = str(uuid.uuid5(entry.id, "car"))
        if there := self.logbooks.find_id(car_id):
            self._again(next(iter(self.kept(there.slug))), entry)
            return there.slug
        slug = self.begin_with(car_id, slug_of([first]), [first])
        bench = self._bench(slug)
        with _held(bench.lock):
            if self._fresh(bench) == judged.evaluation.given:
                bench.state = judged.evaluation.given
                bench.told = Told(bench.state, judged, None)
        return slug

    def begin_with(self, car_id: str, base: str, entries: Sequence[EntryKept]) -> str:
        """Begin a car with its first entries under a short name, or that name with a number where it is taken; return the name.

        Begun twice, it is there once. Raises TakenError where an entry is in another car already.
        """
        for n in range(1, 1000):
            slug = base if n == 1 else f"{base[:LONGEST_SLUG]}-{n}"
            found = self.logbooks.find(slug)
            if found is None:
                try:
                    self.logbooks.begin(CarKey(car_id, slug), entries)
                except TakenError as taken:
                    if there := self.logbooks.find_id(car_id):  # begun by another at this moment
                        return there.slug
                    if "uq_cars_slug" in taken.constraint:
                        continue
                    raise
                return slug
            if found.id == car_id:
                return slug
        raise SavedFirstError(finding("car.name-taken", name=base), path="what.plan.name")

    @contextlib.contextmanager
    def held(self, slug: str) -> Iterator[tuple[CarState, list[EntryKept]]]:
        """Hold a car so that nobody records in it meanwhile, and yield its state and its entries in order."""
        bench = self._bench(slug)
        with _held(bench.lock), self.logbooks.one_writer(bench.key.id) as mine:
            yield self._fresh(bench, mine), sorted(bench.kept.values(), key=lambda e: e.number)

    def record(self, slug: str, sent: EntryIn) -> Recorded:
        """Take one entry, durably; sent twice, it is kept once.

        Raises what the core refuses it for, SavedFirstError where its identity is used for something else or its plan was made
        from an outdated one.
        """
        bench = self._bench(slug)
        try:
            with _held(bench.lock), self.logbooks.one_writer(bench.key.id) as mine:
                state = self._fresh(bench, mine)
                now = self._told(bench, state)
                if already := bench.kept.get(str(sent.id)):
                    return Recorded(self._again(already, sent), False, now)
                kept, found = self._accepted(now, sent)
                told = self._tell(bench, found.given, found)
                if told.trouble and not now.trouble:  # a car that cannot be reckoned takes anything that may bring it back
                    raise NotReckonedError(told.trouble.kind)
                mine.append(bench.key.id, [kept])
                bench.state, bench.told = found.given, told
                bench.kept[str(kept.id)] = kept
                return Recorded(kept, True, told, now)
        except TakenError as taken:
            if "uq_entries_id" in taken.constraint:
                raise SavedFirstError(finding("entry.of-another-car"), path="id") from taken
            raise AwayError("Others are recording in this car just now.") from taken

    def tried(self, slug: str, sent: EntryIn) -> tuple[Evaluation, Evaluation]:
        """Return a car judged without and with an entry, keeping nothing; raises what would keep the entry out."""
        bench = self._bench(slug)
        with _held(bench.lock):
            now = self._told(bench, self._fresh(bench))
            if now.judged is None:
                raise CalledError(now.trouble.finding if now.trouble else finding("car.untold"), path="car")
            return now.judged.evaluation, self._accepted(now, sent)[1]

    def preview(self, slug: str, what: WhatIn) -> Preview:
        """Return what a reading or a turn would mean, keeping nothing."""
        now = self.evaluation(slug)
        found = keep(what, now.state.plan).to_core()
        if not isinstance(found, Reading | Turned):
            raise CalledError(finding("entry.no-meaning"), path="kind")
        return preview(now, found)

    def study(
        self,
        slug: str,
        end: End,
        over: Over,
        span: tuple[float, float, int],
        changes: Sequence[Change],
        lengths: Lengths,
        built: bool = False,
    ) -> Study:
        """Return the curves of an end, as planned or with the points measured last, with something moved or not.

        Those with nothing moved are kept for the next what-if.
        """
        bench, state = self._bench(slug), self.state(slug)
        places = self.built(slug) if built else {}
        key = (state.plan_number, end, over, span, lengths if built else "", tuple(places.items()))
        before = bench.studies.get(key)
        if before is None:
            before = study(state.plan, end, over, *span, lengths=lengths, built=places)
            with _held(bench.lock):
                bench.studies = dict([*list(bench.studies.items())[1 - STUDIES :], (key, before)])
        return study(state.plan, end, over, *span, changes, lengths, before) if changes else before

    def built(self, slug: str) -> dict[str, Point]:
        """Return where points of a car are as built: measured as such, and by the survey at the jig, which goes before."""
        places = {n: p for n, (p, _) in self.state(slug).surveyed.items()}
        frame = self.frame(slug)
        laid, network = frame.laid[0], frame.network
        if laid is not None and network is not None:
            for n in network.determined:
                x, y, z = (float(v) for v in laid.place(n))
                places[n] = (x, y, z)
        return places

    def frame(self, slug: str) -> Frame:
        """Return the frame of a car as surveyed; what was reckoned of it is kept until something is written down at the jig."""
        bench, state = self._bench(slug), self.state(slug)
        with bench.jig_lock:
            if bench.frame is None or bench.frame.plan is not state.plan or bench.frame.log != state.jig:
                if bench.frame is None or bench.frame.plan is not state.plan:
                    bench.worths = {}
                bench.frame = Frame(state.plan, state.jig, state.gone)
            return bench.frame

    def pickups(self, slug: str) -> Pickups:
        """Return the pickup points of a car against its plan."""
        frame, moved, bench = self.frame(slug), self.state(slug).moved, self._bench(slug)
        with bench.jig_lock:
            if bench.pickups is None or bench.pickups[0] is not frame or bench.pickups[1] != moved:
                bench.pickups = frame, moved, pickups(frame, moved, bench.worths)
            return bench.pickups[2]

    def ids(self, slug: str) -> dict[int, str]:
        """Return the identity of every entry by its number."""
        return {e.number: e.id for e in self.state(slug).entries}

    def load(self, slug: str, entries: Sequence[EntryKept]) -> None:
        """Keep a logbook as told in a file, if the car is not there yet."""
        if self.logbooks.find(slug) is None:
            key = CarKey(str(uuid.uuid5(entries[0].id, "car")), slug)
            self.logbooks.begin(key, entries)

    def _bench(self, slug: str) -> _Bench:
        with self._lock:
            if slug not in self._benches:
                key = self.logbooks.find(slug)
                if key is None:
                    raise NoSuchCarError(finding("car.unknown", name=slug))
                self._benches[slug] = _Bench(key, threading.Lock(), threading.Lock(), None, {})
            return self._benches[slug]

    def _fresh(self, bench: _Bench, logbooks: Logbooks | None = None) -> CarState:
        """Return the state with whatever was kept since it was last looked at, here or by another process."""
        number = bench.state.number if bench.state else 0
        if more := (logbooks or self.logbooks).after(bench.key.id, number):
            for kept in more:
                if kept.number > number + 1:
                    bench.missing.append((number + 1, kept.number - 1))
                number = kept.number
            for at in range(0, len(more), AT_ONCE):
                bench.opened = LOG_SHARE * at / len(more) if len(more) > AT_ONCE else 1.0
                bench.state = fold_all(bench.state, [kept_to_core(e) for e in more[at : at + AT_ONCE]])
            bench.kept.update({str(e.id): e for e in more})
        assert bench.state is not None
        return bench.state

    @staticmethod
    def _let_go(bench: _Bench) -> None:
        """Forget what was folded, so that it is read and folded anew."""
        bench.state, bench.told, bench.frame, bench.pickups = None, None, None, None
        bench.kept, bench.missing = {}, []

    def _told(self, bench: _Bench, state: CarState) -> Told:
        """Return the car told at its latest state; kept until there is a later one."""
        if bench.told is None or bench.told.state is not state:
            earlier = bench.told.judged.evaluation if bench.told and bench.told.judged else None
            if bench.opened < 1.0:
                earlier = self._worked_out(bench, state, earlier)
            bench.told = self._tell(bench, state, earlier)
            bench.opened = 1.0
        return bench.told

    @staticmethod
    def _worked_out(bench: _Bench, state: CarState, earlier: Evaluation | None) -> Evaluation | None:
        """Return a state evaluated mark by mark, so that somebody who waits sees how far it has come; what cannot be told is told by whoever asks."""
        with contextlib.suppress(Exception):
            earlier = evaluate(state, earlier)
            for n, mark in enumerate(MARKS):
                bench.opened = LOG_SHARE + (1 - LOG_SHARE) * n / (len(MARKS) + 1)
                earlier.mark(mark)
        return earlier

    def opened(self, slug: str) -> float:
        """Return the share of the log of a car that is read and worked out, asking nobody; 1 where nothing is being opened."""
        bench = self._benches.get(slug)
        return bench.opened if bench else 1.0

    def _tell(self, bench: _Bench, state: CarState, earlier: Evaluation | None) -> Told:
        """Return a state judged, or since which entry it cannot be."""
        notices = tuple(finding("logbook.missing", low=low, high=high, one=low == high) for low, high in bench.missing)
        try:
            return Told(state, judge_car(evaluate(state, earlier)), None, notices)
        except Exception as wrong:  # the second wall: whatever it is, the car still opens with its log and its plan
            logging.getLogger(__name__).exception("a car could not be reckoned")
            return Told(state, None, _trouble(state, wrong), notices)

    @staticmethod
    def _reckonable(state: CarState, earlier: Evaluation | None = None) -> CarJudged:
        """Return a car judged, every stage of it; raises NotReckonedError."""
        try:
            return reckoned(state, earlier)
        except NotReckonedError:
            logging.getLogger(__name__).exception("a plan could not be reckoned")
            raise

    @staticmethod
    def _again(already: EntryKept, sent: EntryIn) -> EntryKept:
        if not same_as_sent(already.what, sent.what):
            raise SavedFirstError(
                finding("entry.says-else", entry=already.number),
                path="id",
                numbers={"entry": already.number},
            )
        return already

    def _accepted(self, now: Told, sent: EntryIn) -> tuple[EntryKept, Evaluation]:
        """Return an entry as it will be kept, and the car with it; raises what the core refuses it for."""
        state = now.state
        if isinstance(sent.what, PlanRevisedModel) and sent.what.revises != state.plan_number:
            raise SavedFirstError(
                finding("plan.revised-since", revises=sent.what.revises, latest=state.plan_number),
                path="what.revises",
                numbers={"revises": sent.what.revises, "latest": state.plan_number},
            )
        what = keep(sent.what, state.plan)
        kept = EntryKept(id=sent.id, number=state.number + 1, at=sent.at.astimezone(UTC), who=sent.who, what=what)
        found = judged_with(state, kept_to_core(kept), now.judged.evaluation if now.judged else None)
        if isinstance(sent.what, PlanRevisedModel) and found.given.plan != state.plan:
            self._reckonable(found.given, found)
        return kept, found


@contextlib.contextmanager
def _held(lock: threading.Lock) -> Iterator[None]:
    """Hold a lock, but wait for it only so long: whoever holds it may be waiting for a database that does not answer."""
    if not lock.acquire(timeout=HOLD_S):
        raise AwayError("Others are busy with this car just now.")
    try:
        yield
    finally:
        lock.release()


def _trouble(state: CarState, wrong: Exception) -> Trouble:
    """Return the earliest entry since which a car cannot be reckoned."""
    entry = failing_since(state.entries, lambda earlier: judge_car(evaluate(earlier)))
    plan = isinstance(entry.what, PlanRevised)
    return Trouble(
        entry.number,
        entry.id,
        not plan,
        type(wrong).__name__,
        finding("car.trouble", entry=entry.number, plan=plan, fault=type(wrong).__name__),
    )
