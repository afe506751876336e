"""A server of its own for a test, as ./start runs it, whose plug can be pulled."""

import json
import os
import random
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

HERE = Path(__file__).parents[1]


def free_port():
    """A port that is free now, out of those the system hands out to whoever asks meanwhile."""
    while True:
        port = random.SystemRandom().randrange(20000, 30000)
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) != 0:
                return port


def asking(url):
    """What asks a server at an address: sends JSON, returns JSON, raises HTTPError for a refusal."""

    def ask(path, body=None):
        data = json.dumps(body).encode() if body else None
        request = urllib.request.Request(url + path, data, {"content-type": "application/json"})
        with urllib.request.urlopen(request) as answer:
            return json.load(answer)

    return ask


class Server:
    """``python -m ready_corner.launch`` on a folder of its own."""

    def __init__(self, folder, *options):
        self.port = free_port()
        self.folder, self.options = folder, options
        self.process = None

    @property
    def url(self):
        return f"http://127.0.0.1:{self.port}"

    def start(self):
        command = [
            sys.executable,
            "-m",
            "ready_corner.launch",
            "--port",
            str(self.port),
            "--folder",
            str(self.folder),
            *self.options,
        ]
        # Into a file: a pipe that nobody empties stops a server that has much to say.
        self._said = Path(tempfile.mkstemp(prefix="ready-corner-said-")[1])
        with self._said.open("w") as out:
            self.process = subprocess.Popen(command, cwd=HERE, stdout=out, stderr=subprocess.STDOUT, text=True)
        while self.url not in self.said():
            if self.process.poll() is not None:
                raise AssertionError(self.said())
            time.sleep(0.02)

    def said(self):
        """What the server has printed so far."""
        return self._said.read_text()

    def ask(self, path, body=None):
        """Return what the server answers, as JSON; raises HTTPError for a refusal."""
        return asking(self.url)(path, body)

    def pull_the_plug(self):
        """Kill server and database as a power cut would."""
        database = int((self.folder / "db/mariadbd.pid").read_text())
        os.kill(self.process.pid, signal.SIGKILL)
        os.kill(database, signal.SIGKILL)
        self.process.wait()
        while Path(f"/proc/{database}/fd").exists():
            try:
                os.listdir(f"/proc/{database}/fd")
            except OSError:
                break
            time.sleep(0.02)

    def stop(self):
        self.process.send_signal(signal.SIGINT)
        self.process.wait(30)
        rest = self.said().split("(Ctrl-C ends it)\n", 1)[1]  # what it says after it has said where it is
        self._said.unlink()
        return self.process.returncode, rest
