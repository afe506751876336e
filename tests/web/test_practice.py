"""Practice cars over the API, and the tool at the end of a line: a figure, a refusal, silence, nonsense."""

import json
import socket
import threading
import uuid

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ready_corner.core.simulation.practice import FAULTS, hidden_car
from ready_corner.instruments.line import ToolAwayError, Wanted, answered, asked, take, wanted_of
from ready_corner.instruments.standin import standing_in
from ready_corner.launch.__main__ import CannotStartError, given_tool
from tests.conftest import entry_json
from tests.practised import worked_on
from tests.words import said

AT = "2026-11-26T10:00:00Z"


def begin(client, layout="five-link", fault="all-round", seed=5, id_=None):
    body = {"id": str(id_ or uuid.uuid4()), "at": AT, "layout": layout, "fault": fault, "seed": seed}
    answer = client.post("/api/practice", json=body)
    assert answer.status_code == 201, answer.json()
    return answer.json()["slug"]


@pytest.fixture
def line(client):
    with standing_in(client.app.state.practising.shown) as address:
        client.app.state.tool = address
        yield address


def tell(client, slug, what, at=AT):
    answer = client.post(f"/api/cars/{slug}/entries", json={**entry_json(what), "at": at})
    assert answer.status_code == 201, answer.json()
    return answer.json()["car"]


def figure(client, slug, corner, quantity, tool):
    answer = client.post(f"/api/cars/{slug}/take", json={"corner": corner, "quantity": quantity, "tool": tool})
    assert answer.status_code == 200, answer.json()
    return answer.json()["typed"]


def test_a_practice_car_is_begun_once_and_worked_on_to_its_truth_by_what_its_tool_shows(client, line):
    id_ = uuid.uuid4()
    slug = begin(client, id_=id_)
    assert begin(client, id_=id_) == slug
    view = client.get(f"/api/cars/{slug}").json()
    assert (view["number"], view["practice"]) == (2, "everything was taken apart and put back by eye; number 5")

    def ask(path, body=None):
        answer = client.post(path, json=body) if body else client.get(path)
        assert answer.status_code < 300, answer.json()
        return answer.json()

    step = worked_on(ask, slug)
    assert step["kind"] == "done", step
    truth = client.get(f"/api/cars/{slug}/practice").json()
    assert truth["sentence"].startswith("Truly ready: all 14 marks are within tolerance.")
    assert truth["lifts"] in (1, 2, 3)
    assert truth["off"]
    assert {s["what"] for s in truth["spent"]} >= {"reading", "turning"}
    assert all(m["holds"] for m in truth["marks"])


def test_what_a_tool_shows_stands_until_something_is_written_down_and_follows_the_logbook(client, line, workshop):
    slug = begin(client, "tern", "steering", 11)
    first = figure(client, slug, "LF", "camber", "digital")
    assert figure(client, slug, "LF", "camber", "digital") == first
    tell(client, slug, {"kind": "reading", "corner": "LF", "quantity": "camber", "typed": first, "tool": "digital"})
    again = {figure(client, slug, "LF", "height", "tape") for _ in range(2)}
    assert len(again) == 1
    before = float(again.pop())
    tell(client, slug, {"kind": "turned", "adjuster": "LF.perch", "typed": "6 up"})
    assert abs(float(figure(client, slug, "LF", "height", "tape")) - before) > 0.05  # inches
    one, two = (hidden_car(workshop.state(slug)) for _ in range(2))
    assert [one.truth(f"{c}.toe") for c in ("LF", "RR")] == [two.truth(f"{c}.toe") for c in ("LF", "RR")]


def test_a_sweep_is_read_at_the_angle_that_was_written_down(client, line):
    slug = begin(client, "heather", "floor", 3)
    shown = {}
    for plate in ("18", "25"):
        tell(client, slug, {"kind": "reading", "corner": "LF", "quantity": "plate_out", "typed": plate, "tool": "plate"})
        shown[plate] = float(figure(client, slug, "LF", "sweep_out", "digital"))
    assert shown["25"] > shown["18"] + 0.4


def test_no_other_car_is_read_and_nothing_hidden_is_told(client, line, car):
    asked_ = {"corner": "LF", "quantity": "camber", "tool": "digital"}
    refused = client.post(f"/api/cars/{car}/take", json=asked_)
    assert (refused.status_code, refused.json()["code"]) == (422, "tool_away")
    assert "no car to practise on" in refused.json()["sentence"]
    assert client.get(f"/api/cars/{car}/practice").status_code == 422
    assert client.get(f"/api/cars/{car}").json()["practice"] == ""
    client.app.state.tool = None
    assert client.post(f"/api/cars/{car}/take", json=asked_).json()["sentence"] == "No tool is on the line. Type the figure."
    for layout, fault in (("ladder", "floor"), ("heather", "ghosts")):
        body = {"id": str(uuid.uuid4()), "at": AT, "layout": layout, "fault": fault}
        assert client.post("/api/practice", json=body).status_code == 422
    assert {f["name"] for f in client.get("/api/practice").json()["faults"]} == set(FAULTS)


WANTED = Wanted("tern", "LF", "camber", "digital")


@pytest.mark.parametrize(
    ("answer", "sentence"),
    [
        (b"", "did not answer with a figure"),
        (b'{"figure": "1.5", "unit": "deg"}\n', "did not answer with a figure"),
        (b'{"figure": NaN, "unit": "deg"}\n', "did not answer with a figure"),
        (b'{"figure": 1.5, "unit": "furlong"}\n', "did not answer with a figure"),
        (b'{"figure": true, "unit": "mm"}\n', "did not answer with a figure"),
        (b"[1, 2]\n", "did not answer with a figure"),
        (b'{"refused": "Battery low"}\n', "The tool gives no figure: Battery low"),
    ],
)
def test_a_tool_that_gives_no_figure_is_refused_in_a_sentence(answer, sentence):
    with socket.create_server(("127.0.0.1", 0)) as server:

        def serve():
            other, _ = server.accept()
            with other, other.makefile("rb") as lines:
                assert wanted_of(lines.readline()) == WANTED
                other.sendall(answer)

        thread = threading.Thread(target=serve)
        thread.start()
        with pytest.raises(ToolAwayError) as refusal:
            take(server.getsockname(), WANTED)
        thread.join()
    assert sentence in said(refusal.value.finding)
    with pytest.raises(ToolAwayError) as away:
        take(("127.0.0.1", 1), WANTED)
    assert "Switch it on, or type the figure" in said(away.value.finding)


@given(st.binary(max_size=80))
def test_no_line_brings_either_end_down(line_):
    found = wanted_of(line_)
    assert found is None or wanted_of(asked(found)) == found
    try:
        shown = answered(line_)
    except ToolAwayError:
        return
    assert abs(shown.figure) <= 1e6


def test_the_stand_in_answers_line_after_line_and_says_what_it_cannot_read():
    def reads(wanted):
        from ready_corner.instruments.line import Shown

        return Shown(1.25, "mm") if wanted.corner == "LF" else Shown(-0.5, "deg")

    with standing_in(reads) as address, socket.create_connection(address) as line_, line_.makefile("rb") as answers:
        for sent, back in (
            (asked(WANTED), {"figure": 1.25, "unit": "mm"}),
            (b"hello\n", {"refused": "Ask with a car, a corner, a quantity and a tool; docs/instruments.md says how."}),
            (asked(Wanted("tern", "RR", "camber", "x")), {"figure": -0.5, "unit": "deg"}),
        ):
            line_.sendall(sent)
            assert json.loads(answers.readline()) == back


def test_where_a_tool_answers_is_said_as_host_and_port():
    assert given_tool({}) is None
    assert given_tool({"READY_CORNER_TOOL": " 127.0.0.1:9000 "}) == ("127.0.0.1", 9000)
    for wrong in ("9000", "127.0.0.1:", "127.0.0.1:99999", "a:b"):
        with pytest.raises(CannotStartError, match="Say where the tool answers"):
            given_tool({"READY_CORNER_TOOL": wrong})
