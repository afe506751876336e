"""How soon a request ends while the database is frozen, and how soon a killed one answers again; seconds, and as a share of what is promised."""

import json
import os
import signal
import sys
import tempfile
import time
import urllib.error
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))
from tests.conftest import entry_json, plan_json, reading_json
from tests.serving import Server

PROMISED_S = 5.0  # every request ends within


def ask(server: Server, path: str, body: object = None) -> tuple[int, float]:
    data = json.dumps(body).encode() if body else None
    request = urllib.request.Request(server.url + path, data, {"content-type": "application/json"})
    begun = time.monotonic()
    try:
        with urllib.request.urlopen(request, timeout=30) as answer:
            answer.read()
            status = answer.status
    except urllib.error.HTTPError as refused:
        with refused:
            status = refused.code
    return status, time.monotonic() - begun


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        server = Server(Path(folder) / "var", "--no-demo")
        server.start()
        ask(server, "/api/cars", entry_json({"kind": "plan", "plan": plan_json("Doors")}))
        database = int((server.folder / "db/mariadbd.pid").read_text())
        os.kill(database, signal.SIGSTOP)
        with ThreadPoolExecutor(16) as many:
            asked = [
                many.submit(ask, server, "/api/cars/doors/entries", entry_json(reading_json("LF", "height", f"{110 + n}"))) if n % 2 else many.submit(ask, server, "/api/cars/doors")
                for n in range(64)
            ]  # fmt: skip
            pages = [ask(server, path) for path in ("/", "/icon.svg", "/cars/doors") * 10]
            answers = [a.result() for a in asked]
        os.kill(database, signal.SIGCONT)
        slowest = max(t for _, t in answers)
        print(
            f"frozen: 64 requests, {sorted({s for s, _ in answers})}, slowest {slowest:.2f} s, {slowest / PROMISED_S:.2f} of what is promised"
        )
        print(f"frozen: 30 pages meanwhile, {sorted({s for s, _ in pages})}, slowest {max(t for _, t in pages):.3f} s")
        time.sleep(2)
        os.kill(database, signal.SIGKILL)
        begun = time.monotonic()
        while ask(server, "/api/cars/doors")[0] != 200:
            time.sleep(0.05)
        print(f"killed: answers again after {time.monotonic() - begun:.2f} s")
        server.stop()


if __name__ == "__main__":
    main()
