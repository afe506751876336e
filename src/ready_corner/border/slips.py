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
    "float_type": "This is no figure. Type a number, such as 12.5.",
    "int_type": "This is no whole number. Type one, such as 2.",
    "int_from_float": "This is no whole number. Type one, such as 2.",
    "string_type": "Words belong here, and these are none.",
    "bool_type": "Only yes or no belong here.",
    "bool_parsing": "Only yes or no belong here.",
    "literal_error": "“{input}” is none of what may stand here: {expected}.",
    "enum": "“{input}” is none of what may stand here: {expected}.",
    "list_type": "A list belongs here, and this is none.",
    "tuple_type": "A list belongs here, and this is none.",
    "dict_type": "Named figures belong here, and these are none.",
    "model_type": "Named figures belong here, and these are none.",
    "model_attributes_type": "Named figures belong here, and these are none.",
    "string_pattern_mismatch": "“{input}” cannot stand here: letters, figures, dots and dashes only.",
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


def _plainly(message: str) -> str:
    """Return a sentence for what has none of its own: never the words of a program about its input."""
    own = message.removeprefix("Value error, ")
    return own if own != message else "This is not what belongs here. Look at it again, or leave it empty where that may be."


def slips(errors: Iterable[Mapping[str, Any]]) -> list[tuple[str, str]]:
    """Return every finding as its dotted path and a sentence."""
    found = []
    for error in errors:
        sentence = _SENTENCES.get(error["type"])
        said = (
            sentence.format(input=error.get("input", ""), **error.get("ctx", {})) if sentence else _plainly(str(error["msg"]))
        )
        found.append((".".join(str(p) for p in error["loc"] if p != "body"), said))
    return found
