"""What the front end is told of kinds of entries and of marks: forms and tables, made from their descriptions in the core."""

import types
from typing import Any, Literal, Union, get_args, get_origin, get_type_hints

from ready_corner.border.kinds import SENT
from ready_corner.core.plan.corners import CORNERS
from ready_corner.core.plan.marks import AIMED_KINDS, MARK_KINDS, WHOLE_MARKS
from ready_corner.core.quantities.fields import Label, Typed
from ready_corner.core.record.kinds import KINDS
from ready_corner.core.record.readings import OF_LINKS, QUANTITIES, USUAL_MISTAKES, read_by


def forms() -> dict[str, Any]:
    """Return the form of every kind of entry that has one: its title, where it stands, and its fields in order."""
    return {name: {"title": act.title, "at": act.form, "fields": _fields(name)} for name, act in KINDS.items() if act.form}


def _fields(name: str) -> list[dict[str, Any]]:
    sent, rows = SENT[name].model_fields, []
    for field, hint in get_type_hints(KINDS[name], include_extras=True).items():
        said = getattr(hint, "__metadata__", ())
        label = next((s for s in said if isinstance(s, Label)), None)
        if label is None:
            continue
        typed = next((s for s in said if isinstance(s, Typed)), None)
        plain = hint.__origin__
        of = (typed.sent or f"{field}_typed") if typed else field
        options = [str(a) for a in get_args(_without_none(plain))] if get_origin(_without_none(plain)) is Literal else []
        kind = "figure" if typed else "check" if plain is bool else "choice" if options else label.of or "text"
        default = sent[of].default if not sent[of].is_required() else None
        rows.append(
            {
                "name": of,
                "label": label.words,
                "as": kind,
                "options": options,
                "needed": sent[of].is_required(),
                "preset": default,
            }
        )
    return rows


def _without_none(hint: Any) -> Any:
    if get_origin(hint) in (Union, types.UnionType):
        return next(a for a in get_args(hint) if a is not type(None))
    return hint


def quantities() -> dict[str, Any]:
    """Return the words of every quantity that is read of a corner: on a key, and for where it is read; by what, for which marks, and whether a turn
    of a link may move it."""
    return {
        q: {
            "short": facts.short,
            "words": facts.words,
            "spot": facts.spot,
            "scene": facts.scene,
            "mistake": USUAL_MISTAKES[facts.scene],
            "kind": facts.kind,
            "measures": facts.measures,
            "marks": list(read_by(q)),
            "turned": q in OF_LINKS and not facts.outlives,
            "by_eye": facts.by_eye,
        }
        for q, facts in QUANTITIES.items()
    }


def marks() -> dict[str, Any]:
    """Return the kinds of marks, what each is called, how its figure is typed, and the order of those of the car as a whole."""
    kinds = {
        kind: {
            "label": row.label,
            "short": row.short or row.label,
            "unit": row.unit,
            "read": row.read[0] if row.read else None,
            "plus": row.plus,
            "ways": {way.name: way.words for way in row.ways},
            "only_aimed": row.only_aimed,
            "aimed": kind in AIMED_KINDS or row.sums is not None,
            "at": list(row.corners) if row.sums is None else list(row.sums),
        }
        for kind, row in MARK_KINDS.items()
    }
    return {"kinds": kinds, "corner": list(AIMED_KINDS), "whole": list(WHOLE_MARKS), "corners": list(CORNERS)}
