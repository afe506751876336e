"""What can go wrong, split by who can act on it.

ReadyCornerError
├── MeasuredError   whoever measured or typed: read again, type again, measure one more
│   └── UnusualError    no car has such a value; it may be confirmed once and is then kept, marked
├── PlannedError    whoever made the plan: an aim, a width or a thread in it cannot be right
├── CalledError     whoever wrote the calling code: a wrong shape, an unknown name
└── SavedFirstError somebody else saved first, or the same identity was used for something else

An error carries a stable ``code``, the ``path`` of the field it belongs to and its ``numbers``; the sentence is built
from them and says what to do next.
"""

import re
from collections.abc import Callable, Mapping

_LENGTH = re.compile("\x02([^\x02\x03|]*)\\|(\\d)\x03")


def length(mm: float, decimals: int = 1) -> str:
    """Return a length for a sentence of code that does not know the car's units: it is said in them by whoever does, else in mm."""
    return f"\x02{float(mm)!r}|{decimals}\x03"


def said_in_mm(mm: float, decimals: int) -> str:
    """Return a length in millimetres."""
    return f"{mm:.{decimals}f} mm"


def spelt(words: str, say: Callable[[float, int], str] = said_in_mm) -> str:
    """Return words with every :func:`length` in them said: in mm, or as ``say`` says so many mm to so many decimals of one."""
    return _LENGTH.sub(lambda found: say(float(found[1]), int(found[2])), words)


class ReadyCornerError(ValueError):
    """Base of every refusal; ``code`` is stable, ``numbers`` are the figures in the sentence."""

    code = "refused"

    def __init__(self, sentence: str, *, path: str = "", numbers: Mapping[str, float] | None = None) -> None:
        super().__init__(spelt(sentence))
        self.words, self.path, self.numbers = sentence, path, dict(numbers or {})

    @property
    def sentence(self) -> str:
        """What is wrong and what to do, lengths in mm."""
        return spelt(self.words)

    def say(self, say: Callable[[float, int], str]) -> str:
        """Return the sentence with its lengths as a car says them."""
        return spelt(self.words, say)


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
