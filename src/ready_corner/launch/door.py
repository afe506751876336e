"""The way into a workshop for a command: through the server that runs on its folder, or straight to its database while none runs."""

import contextlib
import fcntl
import json
import os
import urllib.error
import urllib.request
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from ready_corner import keeping
from ready_corner.keeping import Brought
from ready_corner.launch.database import LocalDatabase, Urls, given_urls
from ready_corner.storage.logbooks import Logbooks, engine_for
from ready_corner.storage.migrate import upgrade
from ready_corner.workshop import Workshop

PATIENCE_S = 120.0


class DoorError(RuntimeError):
    """There is no way in; the sentence says why."""


class Door(Protocol):
    """A workshop to save from and to put back into."""

    def save(self) -> bytes:
        """Return the whole workshop as one file."""

    def put_back(self, data: bytes) -> list[Brought]:
        """Bring a file in."""


@dataclass(frozen=True)
class _Served:
    address: str

    def save(self) -> bytes:
        return self._ask("GET", "/api/workshop.json")

    def put_back(self, data: bytes) -> list[Brought]:
        rows = json.loads(self._ask("POST", "/api/workshop", data))
        return [Brought(r["slug"], r["name"], r["new"], r["had"], tuple(r["refused"])) for r in rows]

    def _ask(self, method: str, path: str, data: bytes | None = None) -> bytes:
        asked = urllib.request.Request(self.address + path, data, {"content-type": "application/json"}, method=method)
        try:
            with urllib.request.urlopen(asked, timeout=PATIENCE_S) as answer:
                return bytes(answer.read())
        except urllib.error.HTTPError as refusal:
            said = json.loads(refusal.read() or b"{}").get("sentence", refusal.reason)
            raise DoorError(f"{self.address} did not take it: {said}") from refusal
        except OSError as away:
            raise DoorError(
                f"The server at {self.address} does not answer. Look at it, or end it with Ctrl-C and call again."
            ) from away


@dataclass(frozen=True)
class _Straight:
    workshop: Workshop

    def save(self) -> bytes:
        return keeping.save(self.workshop.logbooks)

    def put_back(self, data: bytes) -> list[Brought]:
        return keeping.put_back(self.workshop, data)


@contextlib.contextmanager
def door(folder: Path) -> Iterator[Door]:
    """Yield the way into the workshop of a folder, or of the database that the environment names."""
    if given := given_urls(os.environ):
        yield _straight(given)
        return
    running = folder / "running"
    if not (folder / "db").is_dir():
        raise DoorError(f"There is no workshop in {folder}. Name the folder that ./start was given: --folder.")
    with running.open("a+") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            lock.seek(0)
            yield _Served(lock.read().strip())
            return
        with LocalDatabase(folder / "db") as local:
            yield _straight(local)


def _straight(urls: Urls) -> _Straight:
    upgrade(urls.owner)
    return _Straight(Workshop(Logbooks(engine_for(urls.app))))
