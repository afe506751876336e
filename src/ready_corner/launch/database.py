"""A MariaDB server with a data folder of its own, on loopback only, with generated passwords nobody else can read.

``READY_CORNER_DATABASE_URL`` points at another server instead; then nothing is started here.
"""

import ctypes
import os
import secrets
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Mapping
from dataclasses import dataclass
from getpass import getuser
from pathlib import Path

import pymysql

from ready_corner.launch.files import write_whole

DATABASE, OWNER, APP = "ready_corner", "ready_corner_owner", "ready_corner_app"
MAKING_TRIES = 3
LEAST_FREE_BYTES = 200_000_000  # what a database takes to begin, and some to go on
PATIENCE_S = 60.0  # a cold start that has to recover its log took a few seconds here; ten times that is not coming
ENDING_S = 10.0  # a database that does not end by then is frozen; killed it loses nothing, since what was kept is on the disk
PR_SET_PDEATHSIG = 1  # linux/prctl.h


class DatabaseStartError(RuntimeError):
    """The database did not come up; the sentence says where its own words are."""


@dataclass(frozen=True)
class Urls:
    """Addresses of the database: ``app`` may read and add rows, ``owner`` may change tables."""

    app: str
    owner: str


def given_urls(environment: Mapping[str, str]) -> Urls | None:
    """Return the database the environment points at, if it does. The owner is the same unless it is given too."""
    app = environment.get("READY_CORNER_DATABASE_URL")
    return Urls(app, environment.get("READY_CORNER_OWNER_URL", app)) if app else None


class LocalDatabase:
    """One data folder and the server on it; a context manager that stops what it started."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder.absolute()
        self._process: subprocess.Popen[bytes] | None = None
        self._run = Path()
        self.port = 0
        self._leaving = threading.Event()
        self._watcher: threading.Thread | None = None
        self._ready = False

    def __enter__(self) -> Urls:
        """Start the server and return its addresses."""
        self._folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        passwords = self._passwords()
        self._stop_left_over()
        data = self._folder / "data"
        if not (data / "mysql").is_dir():
            self._make(data)
        self._run = Path(tempfile.mkdtemp(prefix="ready-corner-"))
        self.port = _free_port()
        self._leaving.clear()
        # One thread starts the server and starts it again; PR_SET_PDEATHSIG goes by the thread, so it lives as long as the server may.
        self._watcher = threading.Thread(target=self._watch, args=(data, passwords), daemon=True, name="database")
        self._watcher.start()
        try:
            self._wait(passwords)
        except BaseException:
            self.__exit__()
            raise
        at = f"127.0.0.1:{self.port}/{DATABASE}?charset=utf8mb4"
        return Urls(f"mysql+pymysql://{APP}:{passwords[APP]}@{at}", f"mysql+pymysql://{OWNER}:{passwords[OWNER]}@{at}")

    def _watch(self, data: Path, passwords: dict[str, str]) -> None:
        """Start the server, and start it again wherever it ends without being told to."""
        starts = 0
        while not self._leaving.is_set():
            starts += 1
            self._process = self._start(data, passwords)
            self._process.wait()
            if starts > 1 or self._ready:
                self._leaving.wait(min(0.2 * starts, 2.0))  # one that cannot come up is not started a thousand times
            elif not self._leaving.is_set():
                return  # the first start has failed: that is said, not tried again

    def __exit__(self, *_: object) -> None:
        """Stop the server cleanly and wait until its files are closed."""
        self._leaving.set()
        until = time.monotonic() + ENDING_S
        while self._watcher and self._watcher.is_alive():  # it may be about to start one more: that is stopped too
            if self._process and self._process.poll() is None:
                self._process.terminate() if time.monotonic() < until else self._process.kill()
            self._watcher.join(0.2)
        shutil.rmtree(self._run, ignore_errors=True)

    @property
    def process_id(self) -> int:
        """Process of the running server; tests pull its plug."""
        assert self._process
        return self._process.pid

    def _passwords(self) -> dict[str, str]:
        """Return the passwords of both users; made anew where there are none, or a start cut short left none: every start sets them."""
        path = self._folder / "passwords"
        try:
            known = dict(line.split() for line in path.read_text().splitlines())
        except (OSError, ValueError):
            known = {}
        if not (known.get(OWNER) and known.get(APP)):
            known = {user: secrets.token_urlsafe(24) for user in (OWNER, APP)}
            write_whole(path, "".join(f"{user} {password}\n" for user, password in known.items()))
        return known

    def _stop_left_over(self) -> None:
        """Stop a server left on this data folder by a start that was killed."""
        path = self._folder / "mariadbd.pid"
        try:
            pid = int(path.read_text())
            # The number may be another's by now, the database of another workshop too: this one is known by its folder.
            said = Path(f"/proc/{pid}/cmdline").read_bytes().split(b"\0")
            if b"mariadbd" not in said[0] or f"--datadir={self._folder / 'data'}".encode() not in said:
                return
            for how in (signal.SIGTERM, signal.SIGKILL):
                os.kill(pid, how)
                until = time.monotonic() + ENDING_S
                while Path(f"/proc/{pid}").exists() and time.monotonic() < until:
                    time.sleep(0.05)
                if not Path(f"/proc/{pid}").exists():
                    return
        except (OSError, ValueError):
            return

    def _make(self, data: Path) -> None:
        making = data.with_name("data.making")  # a making cut short leaves no half-made folder in the place of the real one
        said = ""
        for attempt in range(MAKING_TRIES):  # on a machine under load the tool that makes it has once given up
            shutil.rmtree(making, ignore_errors=True)
            if attempt:
                print(
                    f"The database folder was not made at once; trying again ({attempt + 1} of {MAKING_TRIES}).",
                    file=sys.stderr,
                    flush=True,
                )
                time.sleep(attempt)
            made = subprocess.run(
                [
                    _find("mariadb-install-db"),
                    "--no-defaults",
                    f"--datadir={making}",
                    f"--user={getuser()}",
                    "--auth-root-authentication-method=socket",
                    "--skip-test-db",
                ],
                capture_output=True,
                text=True,
                check=False,
            )
            if made.returncode == 0:
                break
            said = (made.stderr or made.stdout).strip()[-400:]
        else:
            raise DatabaseStartError(
                f"The database folder could not be made in {data.parent}: {said} Look whether the disk is full, and start again."
            )
        making.rename(data)

    def _start(self, data: Path, passwords: dict[str, str]) -> subprocess.Popen[bytes]:
        first = self._folder / "users.sql"  # as secret as the passwords beside it, and needed again with every start
        first.touch(mode=0o600)
        first.write_text("".join(f"{line};\n" for line in _users(passwords)))
        libc = ctypes.CDLL("libc.so.6")

        def with_parent() -> None:  # a server whose starter was killed goes down cleanly by itself
            os.setsid()
            libc.prctl(PR_SET_PDEATHSIG, signal.SIGTERM)

        with (self._folder / "mariadbd.log").open("ab") as log:
            return subprocess.Popen(
                [
                    _find("mariadbd"),
                    "--no-defaults",
                    f"--datadir={data}",
                    f"--user={getuser()}",
                    "--bind-address=127.0.0.1",
                    f"--port={self.port}",
                    f"--socket={self._run / 's'}",
                    f"--pid-file={self._folder / 'mariadbd.pid'}",
                    f"--init-file={first}",
                    "--character-set-server=utf8mb4",
                    "--skip-name-resolve",
                    "--innodb-flush-log-at-trx-commit=1",
                    "--innodb-buffer-pool-size=128M",
                    "--skip-log-bin",
                ],
                stdin=subprocess.DEVNULL,
                stdout=log,
                stderr=log,
                preexec_fn=with_parent,  # noqa: PLW1509 - it calls nothing that another thread could hold
            )

    def _wait(self, passwords: dict[str, str]) -> None:
        until = time.monotonic() + PATIENCE_S
        said = ""
        while time.monotonic() < until:
            if self._process and self._process.poll() is not None:
                break
            try:
                pymysql.connect(
                    host="127.0.0.1", port=self.port, user=OWNER, password=passwords[OWNER], database=DATABASE
                ).close()
            except pymysql.MySQLError as not_yet:
                said = str(not_yet)
                time.sleep(0.05)
            else:
                self._ready = True
                return
        full = shutil.disk_usage(self._folder).free < LEAST_FREE_BYTES
        why = "the disk is full: free 200 MB and start again" if full else said
        raise DatabaseStartError(f"The database did not start ({why}). Its own words are in {self._folder / 'mariadbd.log'}.")


def _users(passwords: dict[str, str]) -> list[str]:
    """Return what makes the database and its two users; the application's may read and add, and nothing else."""
    lines = [f"CREATE DATABASE IF NOT EXISTS {DATABASE} CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin"]
    for user, rights in ((OWNER, "ALL PRIVILEGES"), (APP, "SELECT, INSERT")):
        name = f"'{user}'@'127.0.0.1'"
        lines += [
            f"CREATE USER IF NOT EXISTS {name} IDENTIFIED BY '{passwords[user]}'",
            f"ALTER USER {name} IDENTIFIED BY '{passwords[user]}'",
            f"GRANT {rights} ON {DATABASE}.* TO {name}",
        ]
    return lines


def _find(program: str) -> str:
    found = shutil.which(program) or shutil.which(program, path="/usr/sbin:/usr/bin:/usr/local/sbin:/usr/local/bin")
    if not found:
        raise DatabaseStartError(f"{program} is not installed. Run ./start, which installs it.")
    return found


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])
