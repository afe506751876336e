"""A browser that never downloads one, and servers to point it at."""

import json
import re
import uuid

import pytest
from playwright.sync_api import expect

from tests.fuzzing import told
from tests.serving import Server

expect.set_options(timeout=20_000)  # two workers share two cores; how long an answer takes is for bench/


class Demo:
    """The demo cars on a server of the whole run: whoever names one is given a copy of its own."""

    def __init__(self, server):
        self.server, self.url, self.slugs = server, server.url, {}

    def slug(self, name):
        if name not in self.slugs:
            entries = told("logbook")[name]["entries"]
            ids = {e["id"]: str(uuid.uuid4()) for e in entries}
            copied = json.loads(re.sub("|".join(ids), lambda found: ids[found[0]], json.dumps(entries)))
            file = {"format": "ready-corner workshop", "version": 1, "cars": [{"slug": name, "entries": copied}]}
            self.slugs[name] = self.server.ask("/api/workshop", file)[0]["slug"]
        return self.slugs[name]

    def car(self, name):
        """The address of a copy of a demo car."""
        return f"{self.url}/cars/{self.slug(name)}"

    def api(self, name):
        return f"{self.url}/api/cars/{self.slug(name)}"


def _running(folder, *options):
    server = Server(folder, *options)
    server.start()
    yield server
    server.stop()


@pytest.fixture(scope="session")
def served(tmp_path_factory, front_end):
    """One server for the whole run; each test has a car of its own."""
    yield from _running(tmp_path_factory.mktemp("served") / "var", "--no-demo")


@pytest.fixture
def demo_server(served):
    return Demo(served)


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    args = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium", "args": args}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    # Keeping every file for later is half the work of a first page; the test that a page opens without a server asks for it.
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}, "service_workers": "block"}
