"""Plan and logbook files: there and back, and everything wrong at once with its path."""

import copy
import json
from importlib.resources import files

import pytest
from pydantic import TypeAdapter

from ready_corner.border.entries import WhatIn, keep, same_as_sent
from ready_corner.border.plan import PlanModel
from ready_corner.exchange.files import FileRefusedError, read_logbook, read_plan
from tests.fuzzing import as_sent

DEMO = files("ready_corner.demo")
PLAN = json.loads(DEMO.joinpath("tern.plan.json").read_bytes())
LOGBOOK = json.loads(DEMO.joinpath("tern.logbook.json").read_bytes())


def refused(read, what):
    with pytest.raises(FileRefusedError) as wrong:
        read(what if isinstance(what, bytes) else json.dumps(what).encode())
    return dict(wrong.value.problems)


SCALES = (
    {},
    {"slide": {"mark": 1.0, "at": 4.0, "most": 20.0}},
    {"cam": {"throw": 3.0, "mark_deg": 10.0, "most_deg": 80.0, "at_deg": -10.0}},
    {"screw": {"pitch_mm_per_turn": 1.5, "lever": 90.0, "room_up": 20.0, "room_down": 10.0, "degrees_per_wheel": 0.2}},
    {"splines": {"teeth": 36, "up": 2, "down": 3, "degrees_per_wheel": 0.2}},
)


@pytest.mark.parametrize("by", SCALES, ids=["as it is", "slide", "eccentric", "screw", "splines"])
def test_a_plan_file_is_the_same_after_the_core_and_back(by):
    sent = copy.deepcopy(PLAN)
    if by:
        sent["adjusters"][0] |= {"ends": None, "half_turns_only": False} | by
    again = PlanModel.from_core(read_plan(json.dumps(sent).encode()).to_core())
    assert json.loads(again.model_dump_json()) == sent
    sent["adjusters"][0] |= SCALES[1] | SCALES[2]
    assert any("only one of them" in words for words in refused(read_plan, sent).values())


@pytest.mark.parametrize("car", ["tern", "heather"])
def test_what_was_sent_gives_the_logbook_again_and_the_core_the_same_entries(car):
    told = json.loads(DEMO.joinpath(f"{car}.logbook.json").read_bytes())
    model, state = read_logbook(json.dumps(told).encode())
    send, plan = TypeAdapter(WhatIn), state.plan
    for entry, kept, core in zip(told["entries"], model.entries, state.entries, strict=True):
        again = keep(send.validate_python(as_sent(entry["what"])), plan)
        assert json.loads(again.model_dump_json()) == entry["what"]
        assert same_as_sent(kept.what, send.validate_python(as_sent(entry["what"])))
        assert again.to_core() == core.what


def test_three_wrong_things_give_three_paths():
    bad = copy.deepcopy(PLAN)
    bad["front"]["track"] = -1
    bad["aims"][3]["tolerance"] = 0
    bad["adjusters"][0]["ends"][0]["pitch_mm_per_turn"] = 0
    aim = f"aims.{bad['aims'][3]['mark']}.tolerance"
    assert set(refused(read_plan, bad)) == {"front.track", aim, "adjusters.LF.tie-rod.ends.0.pitch_mm_per_turn"}
    bad = {**PLAN, "wheelbase": "long", "colour": "red", "front": {**PLAN["front"], "track": None}}
    assert set(refused(read_plan, bad)) == {"wheelbase", "colour", "front.track"}


@pytest.mark.parametrize(
    ("data", "path", "words"),
    [
        (b"\xff\x00 rubbish", "", "not a JSON file"),
        (b"[" * 100_000, "", "not a JSON file"),
        (b"7", "", "not a plan file"),
        (b'{"name": "a", "name": "b"}', "", "stands twice"),
        (json.dumps({**PLAN, "version": 9}).encode(), "version", "reads version 1"),
        (json.dumps({**PLAN, "wheelbase": float("nan")}).encode(), "wheelbase", ""),
        (json.dumps(LOGBOOK).encode(), "format", ""),
        (b"1" * 10_000_001, "", "10 MB"),
    ],
)
def test_rubbish_is_refused_where_it_stands(data, path, words):
    assert words in refused(read_plan, data)[path]


def test_a_logbook_with_a_gap_a_double_or_no_plan_is_refused():
    entries = LOGBOOK["entries"]
    assert "entries.4.number" in refused(read_logbook, {**LOGBOOK, "entries": entries[:4] + entries[5:]})
    twice = [*entries[:4], {**entries[3], "number": 5}]
    assert set(refused(read_logbook, {**LOGBOOK, "entries": twice})) == {"entries.4.id"}
    for none in ([], entries[1:]):
        assert "begins with a plan" in refused(read_logbook, {**LOGBOOK, "entries": none})["entries.0"]
