"""Every sentence that is told of a logbook, as lines ``path: sentence``: what the API answers, without its figures."""

from ready_corner.border.entries import LogbookModel, kept_to_core
from ready_corner.core.record.logbook import fold
from ready_corner.storage.logbooks import CarKey
from tests.fuzzing import ListedLogbooks, client_in_memory

LEFT_OUT = {"plan", "last", "tools", "datum", "supports", "entry", "id"}  # what was given, not what is told of it


def entries_of(data):
    """The lines of a logbook as a database has them: nobody asks of them any more whether they may be there."""
    return LogbookModel.model_validate_json(data).entries


def state_of(data):
    """The state of a car after them."""
    return fold(None, [kept_to_core(e) for e in entries_of(data)])


def said_of(data):
    """Return the lines of a logbook file."""
    logbooks = ListedLogbooks()
    logbooks.begin(CarKey("kept", "kept"), entries_of(data))
    client = client_in_memory(logbooks)
    parts = {"car": "", "log": "/log?limit=500", "jig": "/jig", "stance": "/stance", "wanting": "/wanting"}
    return [line for name, path in parts.items() for line in _strings(name, client.get(f"/api/cars/kept{path}").json())]


def _strings(path, value):
    if isinstance(value, str) and " " in value.strip():
        yield f"{path}: {value}"
    elif isinstance(value, dict):
        for key, part in value.items():
            if key not in LEFT_OUT:
                yield from _strings(f"{path}.{key}", part)
    elif isinstance(value, list | tuple):
        for i, part in enumerate(value):
            name = part.get("mark", i) if isinstance(part, dict) else i  # by name, so that a mark may come between
            yield from _strings(f"{path}.{name}", part)
