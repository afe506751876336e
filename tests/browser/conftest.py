"""A browser that never downloads one, and servers to point it at."""

import pytest

from tests.serving import Server


@pytest.fixture
def demo_server(tmp_path, front_end):
    server = Server(tmp_path / "var")
    server.start()
    yield server
    server.stop()


@pytest.fixture(scope="module")
def served(tmp_path_factory, front_end):
    """One server for all tests of a module, each with a car of its own."""
    server = Server(tmp_path_factory.mktemp("served") / "var", "--no-demo")
    server.start()
    yield server
    if server.process.poll() is None:
        server.stop()


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    args = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
    return {**browser_type_launch_args, "executable_path": "/usr/bin/chromium", "args": args}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}}
