"""What Pydantic found wrong with a request or a file, as sentences with their paths."""

from collections.abc import Iterable, Mapping
from typing import Any

# Pydantic's words for the commonest slips, said as the builder needs them; {} takes the limit.
_SENTENCES = {
    "missing": "This is missing. Give it a value.",
    "extra_forbidden": "This is no field here. Take it out, or look at its spelling.",
    "finite_number": "This is not a finite number.",
    "float_parsing": "This is not a number.",
    "int_parsing": "This is not a whole number.",
    "string_too_long": "This is too long: at most {max_length} characters.",
    "string_too_short": "Nothing is typed here yet.",
    "greater_than": "{input} cannot be here. Type a figure greater than {gt:g}, or leave it empty where it is not known.",
    "greater_than_equal": "{input} cannot be here. Type {ge:g} or more.",
    "less_than": "{input} cannot be here. Type a figure less than {lt:g}.",
    "less_than_equal": "{input} cannot be here. Type {le:g} or less.",
    "too_long": "That are too many: at most {max_length}.",
    "json_invalid": "This is not JSON: {error}.",
    "uuid_parsing": "This is no UUID.",
    "timezone_aware": "This time has no zone. Send it with one.",
}


def slips(errors: Iterable[Mapping[str, Any]]) -> list[tuple[str, str]]:
    """Return every finding as its dotted path and a sentence."""
    found = []
    for error in errors:
        sentence = _SENTENCES.get(error["type"])
        said = (
            sentence.format(input=error.get("input", ""), **error.get("ctx", {}))
            if sentence
            else str(error["msg"]).removeprefix("Value error, ")
        )
        found.append((".".join(str(p) for p in error["loc"] if p != "body"), said))
    return found
