"""What was worked out of one state of a car, kept for the next where nothing that it was worked out from has changed.

Whoever works something out looks at parts of the state; every look is noted, and what came of it stands for as long as those parts do.
One rule for all that is kept, so nothing has to be told when it falls.
"""

from collections.abc import Callable, Hashable, Iterator, Mapping
from contextvars import ContextVar
from dataclasses import dataclass, fields
from functools import wraps
from typing import Any, Concatenate, Generic, ParamSpec, Protocol, TypeVar, cast

from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.record.logbook import CarState
from ready_corner.core.record.readings import Place, Taken

Need = tuple[Hashable, ...]  # a part of the state by name; readings by their place, or by place and spell
T = TypeVar("T")
P = ParamSpec("P")
LAYERS = 24  # generations of what is kept before they are laid together

_PARTS = frozenset(f.name for f in fields(CarState))
_LOOKED: ContextVar[set[Need] | None] = ContextVar("looked", default=None)


def note(*need: Hashable) -> None:
    """Note that what is being worked out just now rests on a part of the state."""
    looked = _LOOKED.get()
    if looked is not None:
        looked.add(need)


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
    needs: frozenset[Need]


def changed(before: CarState, now: CarState) -> frozenset[Need] | None:
    """Return the parts in which a later state differs; None where it is no later state of the same log."""
    count = len(before.entries)
    if len(now.entries) < count or before.struck != now.struck or (count and now.entries[count - 1] is not before.entries[-1]):
        return None
    found: set[Need] = {(n,) for n in _PARTS if getattr(before, n) is not getattr(now, n)}
    if ("taken",) in found:
        for place, rows in now.taken.items():
            old = before.taken.get(place, ())
            if rows is not old:
                found |= {("taken", place), *(("taken", place, t.spell) for t in rows[len(old) :])}
    return frozenset(found)


class Memory:
    """What was worked out of one state, by key, and through ``before`` what still stands of earlier ones."""

    def __init__(self, state: CarState, before: "Memory | None" = None) -> None:
        self.given, self.state = state, watched(state)
        self._kept: dict[Hashable, _Kept[Any]] = {}
        self._older: list[tuple[Mapping[Hashable, _Kept[Any]], frozenset[Need]]] = []
        if before is None or (fell := changed(before.given, state)) is None:
            return
        self._older = [(before._kept, fell), *((kept, fell | since) for kept, since in before._older)]
        if len(self._older) > LAYERS:
            for kept, since in reversed(self._older):
                self._kept.update({key: k for key, k in list(kept.items()) if k.needs.isdisjoint(since)})
            self._older = []

    def recall(self, key: Hashable, make: Callable[[], T]) -> T:
        """Return what is kept under a key, else what ``make`` makes of the state now; raises the refusal it raised."""
        kept: _Kept[T] | None = self._kept.get(key) or self._still(key)
        if kept is None:
            kept = self._kept[key] = self._made(make)
        if (looked := _LOOKED.get()) is not None:
            looked |= kept.needs
        if kept.refusal is not None:
            raise kept.refusal.with_traceback(None)
        return kept.value

    def _still(self, key: Hashable) -> _Kept[Any] | None:
        for kept, since in self._older:
            if (found := kept.get(key)) is not None:
                if not found.needs.isdisjoint(since):
                    return None
                self._kept[key] = found
                return found
        return None

    @staticmethod
    def _made(make: Callable[[], T]) -> _Kept[T]:
        looked: set[Need] = set()
        token = _LOOKED.set(looked)
        try:
            return _Kept(make(), None, frozenset(looked))
        except ReadyCornerError as refusal:
            return _Kept(cast(T, None), refusal, frozenset(looked))
        finally:
            _LOOKED.reset(token)


class HasMemory(Protocol):
    """Whatever things are worked out of."""

    @property
    def memory(self) -> Memory:
        """Where they are kept."""


H = TypeVar("H", bound=HasMemory)


def remembered(make: Callable[Concatenate[H, P], T]) -> Callable[Concatenate[H, P], T]:
    """Keep what a function makes of a judged state, by its further arguments (hashable, by place), for as long as it stands."""

    @wraps(make)
    def recalled(of: H, *args: P.args, **kwargs: P.kwargs) -> T:
        return of.memory.recall((make, args), lambda: make(of, *args, **kwargs))

    return cast(Callable[Concatenate[H, P], T], recalled)
