"""What can go wrong, split by who can act on it.

ReadyCornerError
├── MeasuredError   whoever measured or typed: read again, type again, measure one more
│   └── UnusualError    no car has such a value; it may be confirmed once and is then kept, marked
├── PlannedError    whoever made the plan: an aim, a width or a thread in it cannot be right
├── CalledError     whoever wrote the calling code: a wrong shape, an unknown name
└── SavedFirstError somebody else saved first, or the same identity was used for something else

An error carries a stable ``code``, the ``path`` of the field it belongs to, its ``numbers`` and the ``finding`` it is: what is wrong and what to
do, as a value. The sentence is made of that in ``say``, in the units of the car it is about.
"""

from collections.abc import Mapping

from ready_corner.core.quantities.finding import Finding


class ReadyCornerError(ValueError):
    """Base of every refusal; ``code`` is stable, ``numbers`` are the figures in the sentence."""

    code = "refused"

    def __init__(self, finding: Finding, *, path: str = "", numbers: Mapping[str, float] | None = None) -> None:
        super().__init__(finding)
        self.finding, self.path, self.numbers = finding, path, dict(finding.numbers if numbers is None else numbers)

    @property
    def sentence(self) -> str:
        """What is wrong and what to do, lengths in mm."""
        return str(self.finding)


class MeasuredError(ReadyCornerError):
    """The reading or what was typed cannot be right."""

    code = "reading_refused"


class UnusualError(MeasuredError):
    """The value is one no car can have; ``confirmed`` keeps it, marked."""

    code = "unusual_value"


class PlannedError(ReadyCornerError):
    """Something in the plan cannot be right."""

    code = "plan_refused"


class CalledError(ReadyCornerError):
    """The caller named something that does not exist, or asked for something this place has no sense of."""

    code = "not_understood"


class SavedFirstError(ReadyCornerError):
    """The ground has shifted since the caller looked."""

    code = "saved_first"
