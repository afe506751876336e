"""What every kind of entry says of itself, once."""

from collections.abc import Mapping
from typing import Any, ClassVar, TypeVar

from ready_corner.core.plan.plan import Plan


class Act:
    """A kind of entry: its fields are those of the class, each described where it is declared (see ``quantities.fields``).

    ``kind`` names it in files, for ever. ``sentence``: how the log says it, a template of its fields (see ``say.template``); empty where
    ``say.entries`` has a function for it. ``title`` and ``form``: the title of its form and the place where that stands, if it has one of
    its own. ``model``: how its open form is called.
    """

    kind: ClassVar[str]
    title: ClassVar[str] = ""
    form: ClassVar[str] = ""
    sentence: ClassVar[str] = ""
    model: ClassVar[str] = ""

    @classmethod
    def worked_out(cls, sent: Mapping[str, Any], figures: Mapping[str, Any]) -> Mapping[str, Any]:
        """Return what is kept with it beside its figures, or in their place; raises MeasuredError for figures that cannot be together."""
        return {}

    def check(self, plan: Plan) -> None:
        """Refuse what cannot be. Raises MeasuredError, CalledError, UnusualError where it may be confirmed."""


A = TypeVar("A", bound=Act)
KINDS: dict[str, type[Act]] = {}


def entry_kind(made: type[A]) -> type[A]:
    """Register a kind of entry."""
    KINDS[made.kind] = made
    return made
