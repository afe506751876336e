"""``python -m ready_corner.launch``: database, migrations, demo cars, server; Ctrl-C ends them cleanly."""

import argparse
import contextlib
import fcntl
import gc
import os
import socket
import sys
from collections.abc import Iterator, Mapping, Sequence
from pathlib import Path
from typing import NamedTuple

import uvicorn

from ready_corner.demo import load_demo
from ready_corner.instruments.line import Address
from ready_corner.instruments.standin import standing_in
from ready_corner.launch.database import DatabaseStartError, LocalDatabase, Urls, given_urls
from ready_corner.launch.shop import NoShopError, announce, door_at, gate_for, shop_address
from ready_corner.storage.logbooks import Logbooks, engine_for
from ready_corner.storage.migrate import NoDatabaseError, upgrade
from ready_corner.web.app import make_app
from ready_corner.web.gate import Gate
from ready_corner.web.guard import LOOPBACK
from ready_corner.workshop import Workshop

DEFAULT_PORT, LAST_PORT = 8642, 65535


class Shop(NamedTuple):
    """The door to the shop's network: its address and socket, who is let in, and the passphrase where it was made just now."""

    address: str
    door: socket.socket
    gate: Gate
    passphrase: str


class AlreadyRunningError(RuntimeError):
    """Another start holds this folder."""


class CannotStartError(RuntimeError):
    """The folder or the port cannot be used."""


@contextlib.contextmanager
def only_one(folder: Path, address: str) -> Iterator[None]:
    """Hold the folder while running; raises AlreadyRunningError with the other's address."""
    try:
        folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        lock_file = (folder / "running").open("a+")
    except (OSError, ValueError) as wrong:
        why = wrong.strerror if isinstance(wrong, OSError) else str(wrong)
        raise CannotStartError(
            f"Nothing can be kept in {folder}: {why}. Name a folder that may be written to: ./start --folder FOLDER"
        ) from wrong
    with lock_file as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            lock.seek(0)
            raise AlreadyRunningError(
                f"Ready Corner is running already, at {lock.read().strip()}. Open that, or end it there with Ctrl-C."
            ) from None
        lock.truncate(0)
        lock.write(address)
        lock.flush()
        yield


def port_is_free(port: int) -> bool:
    """Whether nothing listens on a port of this machine yet."""
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except PermissionError:
            raise CannotStartError(
                f"Port {port} is the system's own. Choose one from 1024 on: ./start --port {DEFAULT_PORT}"
            ) from None
        except OSError:
            return False
    return True


def main(arguments: Sequence[str] | None = None) -> int:
    """Start everything and serve until told to stop."""
    parser = argparse.ArgumentParser(prog="./start", description="Start Ready Corner on this machine.")
    parser.add_argument("--port", type=int, default=DEFAULT_PORT, help=f"port to serve on (default {DEFAULT_PORT})")
    parser.add_argument("--no-demo", action="store_true", help="do not load the demo cars")
    parser.add_argument("--folder", type=Path, default=Path("var"), help="where the database keeps its files (default var)")
    parser.add_argument(
        "--shop",
        nargs="?",
        const="",
        metavar="ADDRESS",
        help="open a door on the shop's own network too, with a passphrase; ADDRESS: which of this machine's",
    )
    parser.add_argument("--new-passphrase", action="store_true", help="with --shop: another passphrase, every device let go")
    parser.add_argument("--front-end", type=Path, default=Path("frontend/dist"), help="the built front end")
    asked = parser.parse_args(arguments)
    if not 1 <= asked.port <= LAST_PORT:
        print(f"{asked.port} is no port. Choose one from 1024 to {LAST_PORT}: ./start --port {DEFAULT_PORT}", file=sys.stderr)
        return 1
    if asked.new_passphrase and asked.shop is None:
        print(
            "--new-passphrase changes the passphrase of the shop's door, which is not opened. Say: ./start --shop --new-passphrase",
            file=sys.stderr,
        )
        return 1
    address = f"http://127.0.0.1:{asked.port}"
    try:
        with only_one(asked.folder, address), contextlib.ExitStack() as stack:
            if not port_is_free(asked.port):
                print(
                    f"Something else listens on port {asked.port}. Choose another: ./start --port {asked.port + 1}",
                    file=sys.stderr,
                )
                return 1
            urls = given_urls(os.environ) or stack.enter_context(LocalDatabase(asked.folder / "db"))
            shop = None
            if asked.shop is not None:
                at = shop_address(asked.shop)
                url = f"http://{at}:{asked.port}"
                gate, passphrase = gate_for(asked.folder, url, anew=asked.new_passphrase)
                shop = Shop(at, stack.enter_context(door_at(at, asked.port)), gate, passphrase)
            serve(urls, asked.port, asked.front_end, demo=not asked.no_demo, shop=shop)
    except (AlreadyRunningError, CannotStartError, DatabaseStartError, NoDatabaseError, NoShopError) as refusal:
        print(refusal, file=sys.stderr)
        return 1
    except OSError as wrong:
        print(
            f"Nothing can be kept in {asked.folder}: {wrong.strerror or wrong}. Look whether the disk is full, and start again.",
            file=sys.stderr,
        )
        return 1
    return 0


class _Announced(uvicorn.Server):
    """A server that says where it is once it answers there."""

    shop: Shop | None = None

    async def shutdown(self, sockets: list[socket.socket] | None = None) -> None:
        self.config.app.state.ending = True  # type: ignore[union-attr]
        await super().shutdown(sockets)

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets)
        if self.shop:
            announce(self.shop.gate.address, self.shop.passphrase)
        print(f"Ready Corner is at http://127.0.0.1:{self.config.port}  (Ctrl-C ends it)", flush=True)


def serve(urls: Urls, port: int, front_end: Path, *, demo: bool, shop: Shop | None = None) -> None:
    """Migrate, load the demo cars and serve until SIGINT or SIGTERM."""
    upgrade(urls.owner)
    workshop = Workshop(Logbooks(engine_for(urls.app)))
    if demo:
        load_demo(workshop)
    app = make_app(workshop, front_end, (*LOOPBACK, *([shop.address] if shop else [])), shop.gate if shop else None)
    # Nobody stands between: an address that a request names for itself is not believed.
    config = uvicorn.Config(app, host="127.0.0.1", port=port, log_level="warning", access_log=False, proxy_headers=False)
    server = _Announced(config)
    server.shop = shop
    doors = [door_at("127.0.0.1", port), shop.door] if shop else None
    # What is loaded by now stays: without this every full collection walks all of it, 50 ms that some reading has to wait for.
    gc.collect()
    gc.freeze()
    gc.set_threshold(10_000, 20, 50)
    with contextlib.suppress(KeyboardInterrupt), standing_in(app.state.practising.shown) as here:
        app.state.tool = given_tool(os.environ) or here
        server.run(doors)


def given_tool(given: Mapping[str, str]) -> Address | None:
    """Return where READY_CORNER_TOOL says that a tool answers, as HOST:PORT; None where it says nothing.

    Raises CannotStartError where it says something else.
    """
    named = given.get("READY_CORNER_TOOL", "").strip()
    host, _, port = named.rpartition(":")
    if not named:
        return None
    if not host or not port.isdecimal() or not 1 <= int(port) <= LAST_PORT:
        raise CannotStartError(f"READY_CORNER_TOOL is “{named}”. Say where the tool answers: 127.0.0.1:9000")
    return host, int(port)


if __name__ == "__main__":
    sys.exit(main())
