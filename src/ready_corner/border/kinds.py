"""The open form of every kind of entry, made from its description in the core: what is sent, what is kept, and the way between.

What was typed is kept whole, as it was sent; its figures stand beside it.
"""

import types
from collections.abc import Mapping
from dataclasses import MISSING, fields
from functools import partial
from typing import Annotated, Any, Literal, Union, cast, get_args, get_origin, get_type_hints
from uuid import UUID

from pydantic import Field, create_model

from ready_corner.border.base import Model
from ready_corner.core.plan.plan import Plan
from ready_corner.core.quantities.fields import Above, Figure, Identity, Many, Otherwise, Text, Typed, WorkedOut
from ready_corner.core.quantities.notation import read
from ready_corner.core.record.act import Act
from ready_corner.core.record.kinds import KINDS

MOST_TYPED = 200  # characters


def _described(hint: Any) -> tuple[Any, list[Any]]:
    """Return a type without what describes it, and that."""
    return (get_args(hint)[0], list(get_args(hint)[1:])) if get_origin(hint) is Annotated else (hint, [])


def _open(hint: Any) -> Any:
    """Return the type of a field in the open form."""
    plain, said = _described(hint)
    if Identity in said:
        return UUID
    if get_origin(plain) in (Union, types.UnionType):
        return Union[tuple(_open(a) for a in get_args(plain))]  # noqa: UP007 - built, not written
    if get_origin(plain) is tuple:
        plain = tuple[tuple(a if a is Ellipsis else _open(a) for a in get_args(plain))]  # type: ignore[misc]
    elif get_origin(plain) is not None and get_origin(plain) is not Literal:
        plain = dict[tuple(_open(a) for a in get_args(plain))]  # type: ignore[misc]
    for one in said:
        if isinstance(one, Text):
            return Annotated[plain, Field(min_length=one.least or None, max_length=one.most, pattern=one.pattern or None)]
        if isinstance(one, Many):
            return Annotated[plain, Field(min_length=one.least or None, max_length=one.most)]
        if isinstance(one, Above):
            return Annotated[plain, Field(ge=one.least) if one.too else Field(gt=one.least)]
    return plain


def _as_typed(plain: Any, measure: object) -> Any:
    """Return the type of the text that a figure, or each of several, is typed as."""
    more = {"x-measure": measure} if isinstance(measure, str) else None
    one = Annotated[str, Field(max_length=MOST_TYPED, json_schema_extra=more)]
    return tuple[tuple(one for _ in get_args(plain))] if get_origin(plain) is tuple else one  # type: ignore[misc]


class Sent(Model):
    """An entry of some kind, as a browser sends it."""

    kind: str
    version: int

    def keep(self, plan: Plan) -> "Kept":
        """Return it as it will be kept, with its figures; raises ShopNotationError, MeasuredError."""
        return _keep(self, plan)


class Kept(Sent):
    """An entry of some kind, as it is kept."""

    def to_core(self) -> Any:
        """Return the core's form."""
        return _to_core(self)


class _Kind:
    """A kind of entry with both its open forms."""

    def __init__(self, act: type[Act]) -> None:
        self.act, hints = act, get_type_hints(act, include_extras=True)
        sent: dict[str, Any] = {"kind": (Literal[act.kind], act.kind), "version": (Literal[1], 1)}
        kept: dict[str, Any] = {}
        self.typed: dict[str, Typed] = {}
        for field in fields(act):  # type: ignore[arg-type]
            plain, said = _described(hints[field.name])
            otherwise = next((s.value for s in said if isinstance(s, Otherwise)), ...)
            default = otherwise if field.default is MISSING else field.default
            typed = next((s for s in said if isinstance(s, Typed)), None)
            if typed is not None:
                one = Typed(typed.measure, typed.sent or f"{field.name}_typed", typed.kept or field.name)
                self.typed[field.name] = one
                blank = "" if get_origin(plain) is not tuple else ("",) * len(get_args(plain))
                sent[one.sent] = (_as_typed(plain, one.measure), ... if default is ... else blank)
                if one.kept != one.sent:
                    kept[one.kept] = (_open(plain), default)
            elif WorkedOut not in said:
                sent[field.name] = (_open(hints[field.name]), default)
            elif field.name not in {t.sent for t in self.typed.values()}:
                kept[field.name] = (_open(plain), default)
        words = act.model or "".join(part.capitalize() for part in act.kind.split("_"))
        doc = (act.__doc__ or "").split("\n", maxsplit=1)[0]
        if not self.typed and not kept:
            self.sent = self.kept = create_model(f"{words}Model", __base__=Kept, __doc__=doc, **sent)
        else:
            self.sent = create_model(f"{words}In", __base__=cast(type[Kept], Sent), __doc__=f"{doc} As typed.", **sent)
            self.kept = create_model(f"{words}Kept", __base__=(self.sent, Kept), __doc__=f"{doc} As kept.", **kept)


_KINDS = {name: _Kind(act) for name, act in KINDS.items()}
SENT: Mapping[str, Any] = {name: k.sent for name, k in _KINDS.items()}
KEPT: Mapping[str, Any] = {name: k.kept for name, k in _KINDS.items()}


def _keep(sent: Sent, plan: Plan) -> Kept:
    kind = _KINDS[sent.kind]
    if kind.sent is kind.kept:
        return sent  # type: ignore[return-value]
    as_sent = {name: getattr(sent, name) for name in type(sent).model_fields}
    figures: dict[str, Any] = {}
    for name, typed in kind.typed.items():
        measure = typed.measure if isinstance(typed.measure, str) else typed.measure(as_sent)
        text, field = as_sent[typed.sent], type(sent).model_fields[typed.sent]
        one = partial(_read, measure, plan, blank=not field.is_required())
        figures[name] = tuple(map(one, text)) if isinstance(text, tuple) else one(text)
    figures |= kind.act.worked_out(as_sent, figures)
    at = {name: typed.kept for name, typed in kind.typed.items()}
    more = {at.get(name, name): value for name, value in figures.items() if at.get(name, name) not in as_sent}
    made: Kept = kind.kept(**as_sent, **{name: _bare(value) for name, value in more.items()})
    return made


def _bare(value: Any) -> Any:
    if isinstance(value, tuple):
        return tuple(_bare(v) for v in value)
    return float(value) if isinstance(value, Figure) else value


def _read(measure: str, plan: Plan, text: str, *, blank: bool) -> Figure:
    """Return a figure as typed; nothing where nothing is typed and nothing has to be (``blank``)."""
    if blank and not text.strip():
        return Figure(0.0)
    found = read(text, measure, plan.units)  # type: ignore[arg-type]
    return Figure(found.value, text, found.denominator)


def _to_core(kept: Kept) -> Act:
    kind = _KINDS[kept.kind]
    made: dict[str, Any] = {}
    for field in fields(kind.act):  # type: ignore[arg-type]
        typed = kind.typed.get(field.name)
        if typed is None:
            value = getattr(kept, field.name)
            made[field.name] = str(value) if isinstance(value, UUID) else value
        else:
            value, text = getattr(kept, typed.kept), getattr(kept, typed.sent)
            made[field.name] = value if isinstance(value, tuple) else Figure(value, text, getattr(kept, "denominator", 0))
    return kind.act(**made)
