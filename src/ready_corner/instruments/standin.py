"""A stand-in for a tool at the end of a line: it shows what a practice car would, and refuses for any other."""

import contextlib
import json
import socketserver
import threading
from collections.abc import Callable, Iterator

from ready_corner.core.quantities.errors import ReadyCornerError
from ready_corner.core.say.template import in_mm
from ready_corner.instruments.line import LONGEST, Address, Shown, Wanted, wanted_of

Reads = Callable[[Wanted], Shown]


class _Answering(socketserver.StreamRequestHandler):
    """One line at a time, for as long as the other end asks."""

    timeout = 30.0

    def handle(self) -> None:
        """Answer every line with a figure or a refusal."""
        reads: Reads = self.server.reads  # type: ignore[attr-defined]
        with contextlib.suppress(OSError):
            while said := self.rfile.readline(LONGEST):
                self.wfile.write(json.dumps(_answer(reads, said)).encode() + b"\n")


def _answer(reads: Reads, said: bytes) -> dict[str, object]:
    wanted = wanted_of(said)
    if wanted is None:
        return {"refused": "Ask with a car, a corner, a quantity and a tool; docs/instruments.md says how."}
    try:
        found = reads(wanted)
    except ReadyCornerError as refusal:
        return {"refused": in_mm(refusal.finding)}
    return {"figure": found.figure, "unit": found.unit}


class _Server(socketserver.ThreadingTCPServer):
    allow_reuse_address, daemon_threads = True, True

    def __init__(self, address: Address, reads: Reads) -> None:
        self.reads = reads
        super().__init__(address, _Answering)


@contextlib.contextmanager
def standing_in(reads: Reads, port: int = 0) -> Iterator[Address]:
    """Serve a stand-in on loopback while the context lasts; yield where it listens."""
    with _Server(("127.0.0.1", port), reads) as server:
        thread = threading.Thread(target=server.serve_forever, args=(0.1,), daemon=True)
        thread.start()
        try:
            yield "127.0.0.1", int(server.server_address[1])
        finally:
            server.shutdown()
