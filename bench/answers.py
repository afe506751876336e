#!/usr/bin/env python3
"""How fast the server answers on loopback with 2,000 entries in the car, how large the first load is, how long a start takes.

bench/answers.py [--entries N] [--times N] [--starts N]   prints a table; each figure with the spread over five equal parts of the run.
"""

import argparse
import gzip
import http.client
import json
import os
import re
import statistics
import sys
import tempfile
import time
import uuid
from collections.abc import Callable, Iterator
from datetime import UTC, datetime, timedelta
from pathlib import Path

from ready_corner.border.entries import EntryKept, keep
from ready_corner.border.kinds import SENT
from ready_corner.core.plan.corners import CORNERS
from ready_corner.demo import demo_logbooks
from ready_corner.launch.database import LocalDatabase
from ready_corner.storage.logbooks import Logbooks, engine_for
from ready_corner.storage.migrate import upgrade
from ready_corner.workshop import Workshop

HERE = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(HERE))
from tests.serving import Server  # noqa: E402

HappenedModel, ReadingIn, TurnedIn = (SENT[k] for k in ("happened", "reading", "turned"))

TYPED = {"height": "5 1/4", "camber": "-1.45", "gap_front": "1 3/8", "gap_back": "1 5/16", "gap_hub": "1 1/2"}
TOOL = {"height": "tape", "camber": "digital"}


def reading(corner: str, quantity: str) -> ReadingIn:
    return ReadingIn(corner=corner, quantity=quantity, typed=TYPED[quantity], tool=TOOL.get(quantity, "rule"))  # type: ignore[arg-type]


def long_logbook(entries: int) -> list[EntryKept]:
    """The demo car gone round again and again, with a turn back and forth at a corner between."""
    kept = list(demo_logbooks()["tern"].entries)
    plan = kept[0].what.plan.to_core()  # type: ignore[union-attr]

    def more() -> Iterator[object]:
        way = 1
        while True:
            for corner in CORNERS:
                yield from (reading(corner, q) for q in TYPED)
            for corner in ("LF", "RF"):
                yield TurnedIn(adjuster=f"{corner}.tie-rod", typed="1t longer" if way > 0 else "1t shorter")
            yield HappenedModel(what="settled")
            way = -way

    at = datetime(2026, 11, 21, 12, tzinfo=UTC)
    for what, number in zip(more(), range(len(kept) + 1, entries + 1), strict=False):
        kept.append(
            EntryKept(id=uuid.uuid4(), number=number, at=at + timedelta(seconds=number), who="Wren", what=keep(what, plan))  # type: ignore[arg-type]
        )
    return kept


def p95_ms(times: list[float]) -> tuple[float, float, float]:
    """The 95th percentile of all, and the least and greatest of five equal parts, in ms."""
    parts = [times[i::5] for i in range(5)]
    found = [statistics.quantiles(part, n=20)[18] * 1e3 for part in (times, *parts)]
    return found[0], min(found[1:]), max(found[1:])


def timed(act: Callable[[int], None], times: int) -> list[float]:
    act(0)
    found = []
    for i in range(times):
        start = time.perf_counter()
        act(i)
        found.append(time.perf_counter() - start)
    return found


def fsync_s(folder: Path) -> float:
    """What the disk takes to keep 4 kB, the floor under anything durable."""
    with (folder / "probe").open("wb") as out:

        def write(_: int) -> None:
            out.write(b"x" * 4096)
            out.flush()
            os.fsync(out.fileno())

        return statistics.median(timed(write, 50))


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__.split("\n", maxsplit=1)[0])
    parser.add_argument("--entries", type=int, default=2000)
    parser.add_argument("--times", type=int, default=200)
    parser.add_argument("--starts", type=int, default=3)
    asked = parser.parse_args()
    with tempfile.TemporaryDirectory() as temporary:
        folder = Path(temporary)
        with LocalDatabase(folder / "db") as urls:
            upgrade(urls.owner)
            engine = engine_for(urls.app)
            Workshop(Logbooks(engine)).load("long", long_logbook(asked.entries))
            engine.dispose()
        server = Server(folder, "--no-demo")
        starts = []
        for _ in range(asked.starts):
            began = time.perf_counter()
            server.start()
            connection = http.client.HTTPConnection("127.0.0.1", server.port)
            connection.request("GET", "/api/cars")
            connection.getresponse().read()
            starts.append(time.perf_counter() - began)
            if len(starts) < asked.starts:
                connection.close()
                server.stop()

        def post(path: str, body: object, **headers: str) -> bytes:
            connection.request(
                "POST", path, json.dumps(body), {"content-type": "application/json", "accept-encoding": "gzip", **headers}
            )
            answer = connection.getresponse()
            said = answer.read()
            assert answer.status in {200, 201}, said
            return gzip.decompress(said) if answer.headers["content-encoding"] == "gzip" else said

        places = [(c, q) for c in CORNERS for q in TYPED]

        known = asked.entries  # the entry at which the browser saw the car last
        sizes = []

        def record(i: int) -> None:
            nonlocal known
            what = reading(*places[i % len(places)]).model_dump()
            entry = {"id": str(uuid.uuid4()), "at": "2026-11-25T12:00:00Z", "who": "Wren", "what": what}
            said = post("/api/cars/long/entries", entry, **{"x-since-entry": str(known)})
            sizes.append(len(said))
            known = json.loads(said)["number"]

        def preview(i: int) -> None:
            post("/api/cars/long/preview", reading(*places[i % len(places)]).model_dump())

        rows = {"a reading acknowledged": timed(record, asked.times), "a preview": timed(preview, asked.times)}
        connection.close()
        server.stop()
        floor = fsync_s(folder)
    _print(asked, rows, sizes, floor, starts)


def _print(
    asked: argparse.Namespace, rows: dict[str, list[float]], sizes: list[int], floor: float, starts: list[float]
) -> None:
    print(f"{asked.entries} entries in the car, {asked.times} of each; p95 in ms (least to greatest of five parts)")
    for name, times in rows.items():
        p95, low, high = p95_ms(times)
        print(f"  {name:24} {p95:6.1f} ({low:.1f} to {high:.1f}), median {statistics.median(times) * 1e3:.1f}")
    print(f"  of which is sent         {statistics.median(sizes) / 1000:6.1f} kB, median")
    print(
        f"  4 kB kept by this disk   {floor * 1e3:6.1f}, median; a reading is {statistics.median(rows['a reading acknowledged']) / floor:.0f} of them"
    )
    print(
        f"warm start to first answer {statistics.median(starts):.2f} s ({min(starts):.2f} to {max(starts):.2f} of {len(starts)})"
    )
    dist = HERE / "frontend/dist"
    page = (dist / "index.html").read_text("utf-8")
    kinds = {
        "first load, scripts and styles": [
            dist / "index.html",
            *(dist / name for name in re.findall(r'(?:src|href)="/(assets/[^"]+)"', page)),
        ],
        "every page, scripts and styles": [f for f in dist.rglob("*") if f.suffix in {".js", ".css", ".html"}],
        "fonts": list(dist.rglob("*.woff2")),
    }
    for kind, found in kinds.items():
        print(f"{kind}: {sum(len(gzip.compress(f.read_bytes(), 6)) for f in found) / 1000:.0f} kB gzip")


if __name__ == "__main__":
    main()
