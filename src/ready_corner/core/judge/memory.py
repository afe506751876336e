"""What was worked out of one state of a car, kept for the next where nothing that it was worked out from has changed.

Whoever works something out looks at parts of the state; every look is noted, and what came of it stands for as long as those parts do.
One rule for all that is kept, so nothing has to be told when it falls.

Source: docs/architecture.md, What is kept, and when it falls.
"""

import threading
from collections.abc import Callable, Hashable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, fields
from functools import reduce, wraps
from operator import or_
from typing import Any, Concatenate, Generic, ParamSpec, Protocol, TypeVar, cast

from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.record.logbook import CarState
from ready_corner.core.record.readings import Place, Taken

Need = tuple[Hashable, ...]  # a part of the state by name; readings by their place, or by place and spell
Needs = int  # a set of them: a bit for each, by ``_bit``
T = TypeVar("T")
P = ParamSpec("P")

_PARTS = frozenset(f.name for f in fields(CarState))


_BITS: dict[Need, Needs] = {}
_MORE = threading.Lock()


def _bit(need: Need) -> Needs:
    """Return the set of one need alone; as many are there as places have spells, whatever the number of cars."""
    found = _BITS.get(need)
    if found is None:
        with _MORE:
            found = _BITS.setdefault(need, 1 << len(_BITS))
    return found


class _Looked:
    """What was looked at while something is worked out: parts of the state, and whatever else was worked out before, with all that rests on."""

    __slots__ = ("needs",)

    def __init__(self) -> None:
        self.needs: Needs = 0


_LOOKED: ContextVar[_Looked | None] = ContextVar("looked", default=None)


def note(*need: Hashable) -> None:
    """Note that what is being worked out just now rests on a part of the state."""
    looked = _LOOKED.get()
    if looked is not None:
        looked.needs |= _bit(need)


@contextmanager
def aside() -> Iterator[None]:
    """Work something out aside: of another state altogether, on which nothing here rests."""
    token = _LOOKED.set(None)
    try:
        yield
    finally:
        _LOOKED.reset(token)


class _Places(Mapping[Place, tuple[Taken, ...]]):
    """Readings by place; a look at one place is a look at no other."""

    def __init__(self, taken: Mapping[Place, tuple[Taken, ...]]) -> None:
        self._taken = taken

    def __getitem__(self, place: Place) -> tuple[Taken, ...]:
        note("taken", place)
        return self._taken[place]

    def __contains__(self, place: object) -> bool:
        note("taken", place)
        return place in self._taken

    def __iter__(self) -> Iterator[Place]:
        note("taken")
        return iter(self._taken)

    def __len__(self) -> int:
        note("taken")
        return len(self._taken)


class _Watched(CarState):
    """A state every look at which is noted."""

    def __getattribute__(self, name: str) -> Any:
        if name not in _PARTS:
            return super().__getattribute__(name)
        if name == "taken":
            return _Places(super().__getattribute__(name))
        note(name)
        return super().__getattribute__(name)


def watched(state: CarState) -> CarState:
    """Return the state so that every look at it is noted."""
    found = object.__new__(_Watched)
    found.__dict__.update(vars(state))
    return found


@dataclass(frozen=True)
class _Kept(Generic[T]):
    """What was worked out, or the refusal that came instead, and what it rests on."""

    value: T
    refusal: ReadyCornerError | None
    needs: Needs


def changed(before: CarState, now: CarState) -> Needs | None:
    """Return the parts in which a later state differs; None where it is no later state of the same log."""
    count = len(before.entries)
    if len(now.entries) < count or (count and now.entries[count - 1] is not before.entries[-1]):
        return None
    parts = [n for n in _PARTS if getattr(before, n) is not getattr(now, n)]
    found: list[Need] = [(n,) for n in parts]
    if "taken" in parts:
        for place in before.taken.keys() | now.taken.keys():
            old, rows = before.taken.get(place, ()), now.taken.get(place, ())
            if rows is not old:
                found += [("taken", place), *(("taken", place, spell) for spell in _spells_of_others(old, rows))]
    return reduce(or_, map(_bit, found), 0)


def _spells_of_others(old: Sequence[Taken], now: Sequence[Taken]) -> set[int]:
    """Return the spells of readings that are not in both: none where one is the other with some more at its end, beside those of the more."""
    least, head, tail = min(len(old), len(now)), 0, 0
    if least and now[least - 1] is old[least - 1]:  # what is folded anew from somewhere on is made anew from there on
        head = least
    while head < least and (old[head] is now[head] or old[head] == now[head]):
        head += 1
    while tail < least - head and old[-1 - tail] == now[-1 - tail]:
        tail += 1
    return {t.spell for rows in (old, now) for t in rows[head : len(rows) - tail]}


class _Line:
    """What was worked out along one line of states, each following on the one before: with the generation it was worked out in, and what
    has changed with each since."""

    def __init__(self) -> None:
        self.kept: dict[Hashable, tuple[_Kept[Any], int]] = {}
        self.falls: list[Needs] = [0]  # what has changed with every generation
        self.head: Memory | None = None

    def find(self, key: Hashable, generation: int) -> _Kept[Any] | None:
        """Return what is kept under a key and still stands in a generation."""
        if (found := self.kept.get(key)) is None or found[1] > generation:
            return None
        kept, made = found
        for fell in self.falls[made + 1 : generation + 1]:
            if kept.needs & fell:
                return None
        return kept


_LAYING = threading.Lock()  # one state at a time is laid on its line


def _apart(line: _Line, generation: int) -> _Line:
    """Return a line of what stands of another in a generation."""
    own = _Line()
    own.falls = line.falls[: generation + 1]
    kept = dict(line.kept)
    own.kept = {key: (found, made) for key, (_, made) in kept.items() if (found := line.find(key, generation))}
    return own


class Memory:
    """What was worked out of one state, by key, and what still stands of those on whose line it follows.

    What is worked out here stays here until a later state follows on this one; so states that are only tried leave nothing behind.
    """

    def __init__(self, state: CarState, before: "Memory | None" = None) -> None:
        self.given, self.state = state, watched(state)
        self._kept: dict[Hashable, _Kept[Any]] = {}
        # Where this state stands on its line: line, generation, what fell since, and the state before it. One value, set whole: several threads
        # work on one car, and one that looked at a new generation with what fell by the old would take what no longer stands.
        self._at: tuple[_Line, int, Needs, Memory | None] = (_Line(), 0, 0, None)
        if before is not None and (fell := changed(before.given, state)) is not None:
            self._at = (*before._laid_down(), fell, before)

    def _laid_down(self) -> tuple[_Line, int]:
        """Lay what was worked out here on its line, for whoever follows; return the line, and this state's generation on it."""
        with _LAYING:
            line, generation, fell, before = self._at
            worked_out = dict(self._kept)  # as it is now: other threads work on
            if line.head is not self:
                if (
                    before is not None and line.head is not before
                ):  # another state followed there: this one begins a line of its own
                    line = _apart(line, generation)
                generation = generation + 1 if before is not None else 0
                if generation:
                    line.falls[generation:] = [fell]
                line.head, self._at = self, (line, generation, 0, None)
            line.kept.update({key: (kept, generation) for key, kept in worked_out.items()})
            return line, generation

    def recall(self, key: Hashable, make: Callable[[], T]) -> T:
        """Return what is kept under a key, else what ``make`` makes of the state now; raises the refusal it raised."""
        kept: _Kept[T] | None = self._kept.get(key) or self._still(key)
        if kept is None:
            kept = self._kept[key] = self._made(make)
        if (looked := _LOOKED.get()) is not None:
            looked.needs |= kept.needs
        if kept.refusal is not None:
            raise kept.refusal.with_traceback(None)
        return kept.value

    def _still(self, key: Hashable) -> _Kept[Any] | None:
        line, generation, fell, _ = self._at
        found = line.find(key, generation)
        if found is None or found.needs & fell:
            return None
        self._kept[key] = found
        return found

    @staticmethod
    def _made(make: Callable[[], T]) -> _Kept[T]:
        looked = _Looked()
        token = _LOOKED.set(looked)
        try:
            return _Kept(make(), None, looked.needs)
        except ReadyCornerError as refusal:
            return _Kept(cast(T, None), refusal, looked.needs)
        finally:
            _LOOKED.reset(token)


class HasMemory(Protocol):
    """Whatever things are worked out of."""

    @property
    def memory(self) -> Memory:
        """Where they are kept."""


H = TypeVar("H", bound=HasMemory)


def remembered(make: Callable[Concatenate[H, P], T]) -> Callable[Concatenate[H, P], T]:
    """Keep what a function makes of a judged state, by its further arguments (hashable, by place) and the ``aspect`` of who makes it, for as long as it stands."""

    @wraps(make)
    def recalled(of: H, *args: P.args, **kwargs: P.kwargs) -> T:
        return of.memory.recall((make, args, getattr(of, "aspect", "")), lambda: make(of, *args, **kwargs))

    return cast(Callable[Concatenate[H, P], T], recalled)
