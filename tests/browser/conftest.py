"""A server of its own for a test, as ./start runs it, whose plug can be pulled; and a browser that never downloads one."""

import os
import signal
import socket
import subprocess
import sys
import time
from pathlib import Path

import pytest

HERE = Path(__file__).parents[2]


class Server:
    """``python -m ready_corner.launch`` on a folder of its own."""

    def __init__(self, folder, *options):
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
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
        self.process = subprocess.Popen(command, cwd=HERE, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)
        said = self.process.stdout.readline()
        assert self.url in said, said + self.process.stdout.read()

    def pull_the_plug(self):
        """Kill server and database as a power cut would."""
        database = int((self.folder / "db/mariadbd.pid").read_text())
        os.kill(self.process.pid, signal.SIGKILL)
        os.kill(database, signal.SIGKILL)
        self.process.wait()
        self.process.stdout.close()
        while Path(f"/proc/{database}/fd").exists():
            try:
                os.listdir(f"/proc/{database}/fd")
            except OSError:
                break
            time.sleep(0.02)

    def stop(self):
        self.process.send_signal(signal.SIGINT)
        self.process.wait(30)
        rest = self.process.stdout.read()
        self.process.stdout.close()
        return self.process.returncode, rest


@pytest.fixture
def empty_server(tmp_path, front_end):
    server = Server(tmp_path / "var", "--no-demo")
    server.start()
    yield server
    if server.process.poll() is None:
        server.stop()


@pytest.fixture
def demo_server(tmp_path, front_end):
    server = Server(tmp_path / "var")
    server.start()
    yield server
    server.stop()


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    args = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium", "args": args}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}}
