"""The service layer: takes what a browser sends, asks the core, keeps what was taken, and never changes what is kept.

Entries never change, so the folded state of a car is a cache that only ever needs what came after it.
"""

import re
import threading
import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from ready_corner.border.entries import (
    EntryIn,
    EntryKept,
    PlanRevisedModel,
    WhatIn,
    kept_to_core,
    same_as_sent,
    what_from_core,
    what_to_core,
)
from ready_corner.core.errors import CalledError, SavedFirstError
from ready_corner.core.jig.frame import Frame
from ready_corner.core.jig.pickups import Kept, Pickups, pickups
from ready_corner.core.linkage.study import Change, Over, Study, study
from ready_corner.core.linkage.worth import Lengths
from ready_corner.core.logbook import CarState, Entry, PlanRevised, Reading, Turned, fold, fold_on
from ready_corner.core.plan import End, Point
from ready_corner.core.readiness.accept import Preview, accept, preview
from ready_corner.core.readiness.marks import Evaluation, evaluate
from ready_corner.storage.logbooks import CarKey, CarLine, Logbooks, TakenError

STUDIES = 6  # of one car, kept to compare what-ifs with


class NoSuchCarError(CalledError):
    """There is no car with this short name."""

    code = "no_such_car"


@dataclass
class _Bench:
    """One car being worked on: its folded state and the entries by identity."""

    key: CarKey
    lock: threading.Lock
    state: CarState | None
    kept: dict[str, EntryKept]
    evaluation: Evaluation | None = None
    studies: dict[tuple[object, ...], Study] = field(default_factory=dict)
    frame: Frame | None = None
    worths: Kept = field(default_factory=dict)
    pickups: tuple[Frame, Mapping[str, float], Pickups] | None = None


@dataclass(frozen=True)
class Recorded:
    """An entry as kept, whether it is new, and the car judged with it."""

    entry: EntryKept
    new: bool
    evaluation: Evaluation


class Workshop:
    """All cars of one database."""

    def __init__(self, logbooks: Logbooks) -> None:
        self._logbooks = logbooks
        self._benches: dict[str, _Bench] = {}
        self._lock = threading.Lock()

    def cars(self) -> list[CarLine]:
        """Return all cars."""
        return self._logbooks.cars()

    def state(self, slug: str) -> CarState:
        """Return the present state of a car."""
        bench = self._bench(slug)
        with bench.lock:
            return self._fresh(bench)

    def evaluation(self, slug: str) -> Evaluation:
        """Return the present state of a car, judged."""
        bench = self._bench(slug)
        with bench.lock:
            return self._evaluated(bench, self._fresh(bench))

    def kept(self, slug: str) -> Sequence[EntryKept]:
        """Return all entries of a car as kept, in order."""
        bench = self._bench(slug)
        with bench.lock:
            self._fresh(bench)
            return list(bench.kept.values())

    def begin(self, entry: EntryIn) -> str:
        """Begin a car with its first plan; return its short name. Sent twice, it is begun once."""
        if not isinstance(entry.what, PlanRevisedModel):
            raise CalledError("A car begins with a plan.", path="what.kind")
        what = what_to_core(entry.what, None)
        assert isinstance(what, PlanRevised)
        car_id = str(uuid.uuid5(entry.id, "car"))
        first = EntryKept(id=entry.id, number=1, at=entry.at, who=entry.who, what=what_from_core(PlanRevised(what.plan)))
        base = re.sub(r"[^a-z0-9]+", "-", what.plan.name.lower()).strip("-")[:60] or "car"
        for n in range(1, 1000):
            slug = base if n == 1 else f"{base}-{n}"
            found = self._logbooks.find(slug)
            if found is None:
                try:
                    self._logbooks.begin(CarKey(car_id, slug), first)
                except TakenError:
                    continue
                return slug
            if found.id == car_id:
                return slug
        raise SavedFirstError(f"There are a thousand cars called {what.plan.name}. Choose another name.", path="what.plan.name")

    def record(self, slug: str, sent: EntryIn) -> Recorded:
        """Take one entry, durably; sent twice, it is kept once.

        Raises what the core refuses it for, SavedFirstError where its identity is used for something else or its plan was made
        from an outdated one.
        """
        bench = self._bench(slug)
        try:
            with bench.lock, self._logbooks.one_writer(bench.key.id) as mine:
                state = self._fresh(bench, mine)
                if already := bench.kept.get(str(sent.id)):
                    return Recorded(self._again(already, sent), False, self._evaluated(bench, state))
                kept = self._judged(state, sent, bench.evaluation)
                mine.append(bench.key.id, [kept])
                return Recorded(kept, True, self._evaluated(bench, self._fresh(bench, mine)))
        except TakenError as taken:
            if "uq_entries_id" in taken.constraint:
                raise SavedFirstError("This entry was recorded in another car. Record it anew here.", path="id") from taken
            raise SavedFirstError("Others are recording in this car just now. Send it again.") from taken

    def preview(self, slug: str, what: WhatIn) -> Preview:
        """Return what a reading or a turn would mean, keeping nothing."""
        now = self.evaluation(slug)
        found = what_to_core(what, now.state.plan)
        if not isinstance(found, Reading | Turned):
            raise CalledError("Only a reading or a turn has a meaning before it is recorded.", path="kind")
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
            with bench.lock:
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
        with bench.lock:
            if bench.frame is None or bench.frame.plan is not state.plan or bench.frame.log != state.jig:
                if bench.frame is None or bench.frame.plan is not state.plan:
                    bench.worths = {}
                bench.frame = Frame(state.plan, state.jig)
            return bench.frame

    def pickups(self, slug: str) -> Pickups:
        """Return the pickup points of a car against its plan."""
        frame, moved, bench = self.frame(slug), self.state(slug).moved, self._bench(slug)
        with bench.lock:
            if bench.pickups is None or bench.pickups[0] is not frame or bench.pickups[1] != moved:
                bench.pickups = frame, moved, pickups(frame, moved, bench.worths)
            return bench.pickups[2]

    def ids(self, slug: str) -> dict[int, str]:
        """Return the identity of every entry by its number."""
        return {e.number: e.id for e in self.state(slug).entries}

    def load(self, slug: str, entries: Sequence[EntryKept]) -> None:
        """Keep a logbook as told in a file, if the car is not there yet."""
        if self._logbooks.find(slug) is None:
            fold(None, [kept_to_core(e) for e in entries])
            key = CarKey(str(uuid.uuid5(entries[0].id, "car")), slug)
            self._logbooks.begin(key, entries[0])
            self._logbooks.append(key.id, entries[1:])

    def _bench(self, slug: str) -> _Bench:
        with self._lock:
            if slug not in self._benches:
                key = self._logbooks.find(slug)
                if key is None:
                    raise NoSuchCarError(f"There is no car “{slug}” in this workshop. Choose one from the list, or begin it.")
                self._benches[slug] = _Bench(key, threading.Lock(), None, {})
            return self._benches[slug]

    def _fresh(self, bench: _Bench, logbooks: Logbooks | None = None) -> CarState:
        """Return the state with whatever was kept since it was last looked at, here or by another process."""
        number = bench.state.number if bench.state else 0
        if more := (logbooks or self._logbooks).after(bench.key.id, number):
            entries = [kept_to_core(e) for e in more]
            bench.state = fold_on(bench.state, entries) if bench.state else fold(None, entries)
            bench.kept.update({str(e.id): e for e in more})
        assert bench.state is not None
        return bench.state

    @staticmethod
    def _evaluated(bench: _Bench, state: CarState) -> Evaluation:
        if bench.evaluation is None or bench.evaluation.state is not state:
            bench.evaluation = evaluate(state, bench.evaluation)
        return bench.evaluation

    @staticmethod
    def _again(already: EntryKept, sent: EntryIn) -> EntryKept:
        if not same_as_sent(already.what, sent.what):
            raise SavedFirstError(
                f"Entry {already.number} has this identity already and says something else. Record it anew.",
                path="id",
                numbers={"entry": already.number},
            )
        return already

    @staticmethod
    def _judged(state: CarState, sent: EntryIn, before: Evaluation | None) -> EntryKept:
        what = what_to_core(sent.what, state.plan)
        if isinstance(what, PlanRevised) and what.revises != state.plan_number:
            raise SavedFirstError(
                f"This plan was made from that of entry {what.revises}, but entry {state.plan_number} has revised it since. Look at it and make the change again.",
                path="what.revises",
                numbers={"revises": what.revises, "latest": state.plan_number},
            )
        number = state.number + 1
        accept(state, Entry(str(sent.id), number, what, sent.at.isoformat(), sent.who), before)
        return EntryKept(id=sent.id, number=number, at=sent.at, who=sent.who, what=what_from_core(what, sent.what))
