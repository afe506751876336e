"""The command: answers on standard output, refusals on standard error with status 2."""

import json
from importlib.resources import files
from pathlib import Path

import pytest

from ready_corner.cli import main
from tests.conftest import plan_json
from tests.kept.said import said_of

DEMO = files("ready_corner.demo")
LOGBOOK = str(DEMO / "tern.logbook.json")
EVERY_KIND = Path(__file__).parent / "kept" / "every-kind-mm.logbook.json"


def test_fold_tells_every_mark_the_same_in_lines_and_in_json(capsys):
    assert main(["fold", LOGBOOK]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert main(["fold", LOGBOOK, "--json"]) == 0
    marks = json.loads(capsys.readouterr().out)["marks"]
    assert [line.split()[0] for line in lines[:-1]] == [m["mark"] for m in marks]
    assert all(m["say"] in line and (m["state"] or "") in line for m, line in zip(marks, lines[:-1], strict=True))
    assert lines[-1].startswith("Next: ")


def test_set_tells_the_turns_of_a_corner_that_was_tried(capsys):
    assert main(["set", LOGBOOK, "--corner", "RF", "--json"]) == 0
    answer = json.loads(capsys.readouterr().out)
    turned = {t["adjuster"]: t["amount"] for t in answer["turns"]}
    # The truth behind the demo car: camber −0.24 and toe 0.84 after the trials; 0.02, 0.86 and 0.61, −0.44 degrees a turn.
    camber = -0.24 + 0.02 * turned["RF.tie-rod"] + 0.61 * turned["RF.lower-arm"]
    toe = 0.84 + 0.86 * turned["RF.tie-rod"] - 0.44 * turned["RF.lower-arm"]
    assert camber == pytest.approx(-1.5, abs=0.3)  # deg; the tolerance of the plan
    assert toe == pytest.approx(-0.1, abs=0.45)  # deg; the U it says itself
    assert main(["set", LOGBOOK, "--corner", "RF"]) == 0
    assert "lower arm rod end: 2 turns in" in capsys.readouterr().out
    assert main(["set", LOGBOOK]) == 0
    assert "Nothing to turn just now. Read left front rim, front edge to the string" in capsys.readouterr().out


def test_check_says_what_is_wrong_on_standard_error(tmp_path, capsys):
    bad = tmp_path / "bad.plan.json"
    bad.write_text(json.dumps(plan_json("Bad", wheelbase=0)))
    assert main(["check", str(bad)]) == 2
    out, err = capsys.readouterr()
    assert not out
    assert err.startswith("wheelbase: ")
    assert main(["check", str(tmp_path / "none")]) == 2
    assert "No such file" in capsys.readouterr().err
    assert main(["check", str(DEMO / "tern.plan.json")]) == 0
    with pytest.raises(SystemExit) as usage:
        main(["set", LOGBOOK, "--corner", "XX"])
    assert usage.value.code == 2


@pytest.mark.parametrize("kind", ["plan", "logbook"])
def test_the_published_schema_is_the_one_printed(kind, capsys):
    assert main(["schema", kind]) == 0
    printed = json.loads(capsys.readouterr().out)
    with open(f"docs/schema/{kind}.schema.json", encoding="utf-8") as published:
        assert json.load(published) == printed
    assert not printed.get("additionalProperties", True)


def test_struts_tells_the_rods_in_lines_and_in_json(capsys):
    asked = ["struts", str(DEMO / "heather.plan.json"), "--corner", "LF"]
    assert main([*asked, "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    rod = found["struts"][0]
    assert rod["at_bump"] < rod["at_ride"] < rod["at_droop"]
    assert main(asked) == 0
    lines = capsys.readouterr().out.splitlines()
    assert f"at ride height {rod['at_ride']:.1f} mm" in lines[0]
    assert f"{found['rates'][0]['wheel_rate']:.1f} N/mm at the wheel" in lines[1]


def test_survey_tells_the_frame_in_lines_and_in_json(capsys):
    logbook = str(DEMO / "heather.logbook.json")
    assert main(["survey", logbook, "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    out = {p["point"] for p in found["pickups"] if p["verdict"] == "out"}
    assert out == {"LR.upper.front", "RR.upper.front", "RR.upper.rear"}  # one left to be decided on, two pulled by the weld
    assert found["wrong"] == []
    assert all(0 <= u < 1.0 for p in found["points"] for u in p["expanded"])
    assert main(["survey", logbook]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert "The old axes are held by" in lines[0]
    assert any(line.startswith("LR.upper.front") and "out" in line for line in lines)
    assert main(["survey", LOGBOOK]) == 0  # nothing surveyed yet
    assert "measure: not measured yet" in capsys.readouterr().out


def test_stance_tells_what_to_turn_and_where_the_hubs_must_sit(capsys):
    assert main(["stance", str(DEMO / "heather.logbook.json"), "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert {h["corner"]: h["ride"] is None for h in found["hubs"]} == {"LF": False, "RF": False, "LR": False, "RR": True}
    assert found["travel"]["LF"]["bump"][0]["name"] == "bump stop"
    assert main(["stance", str(DEMO / "heather.logbook.json")]) == 0
    assert any(line.startswith("LR hub") and "higher" in line for line in capsys.readouterr().out.splitlines())
    assert main(["stance", LOGBOOK]) == 0
    assert "Wind the" in capsys.readouterr().out  # its tie rod was turned since, which lifts nothing


def test_stand_tells_where_the_car_of_a_plan_stands(capsys):
    asked = ["stand", str(DEMO / "tern.plan.json")]
    assert main([*asked, "--turn", "RR=2t", "--pad", "LF=1/4", "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert sum(c["load_kg"] for c in found["corners"].values()) == pytest.approx(690.0)
    assert main([*asked, "--turn", "RR=2t"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert lines[3].startswith("RR:")
    assert " up, " in lines[3]
    assert main([*asked, "--turn", "RR=2t", "--cross", "50"]) == 0
    told = capsys.readouterr().out
    assert "Wind the" in told
    assert float(told.split("cross ")[1].split(" %")[0]) == pytest.approx(50.0, abs=0.5)
    assert main([*asked, "--turn", "XX=1t"]) == 2
    assert "names no corner" in capsys.readouterr().err


def test_a_path_no_file_can_have_gets_a_sentence(capsys):
    assert main(["check", "a\0b"]) == 2
    assert "There is no file of that name" in capsys.readouterr().err


def test_stand_says_its_turns_inside_its_json(capsys):
    assert main(["stand", "src/ready_corner/demo/heather.plan.json", "--cross", "51", "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["say"]
    assert set(told["corners"]) == {"LF", "RF", "LR", "RR"}


def test_what_a_page_says_in_whole_sentences_its_command_says_too(capsys):
    commands = {"jig": "survey", "stance": "stance", "car.marks": "fold", "car.next": "fold", "car.lift": "set"}
    said = {}
    for command in ("survey", "stance", "fold", "set"):
        assert main([command, str(EVERY_KIND)]) == 0
        said[command] = capsys.readouterr().out
        assert main([command, str(EVERY_KIND), "--json"]) == 0
        page = json.loads(capsys.readouterr().out)
        assert command in ("fold", "set") or all(s in said[command] for s in page["sentences"])
    told = [line.split(": ", 1) for line in said_of(EVERY_KIND.read_bytes())]
    left_out = {"how", "title", "findings", "entry"}
    whole = [(path, s) for path, s in told if s.endswith(".") and not left_out & set(path.split("."))]
    missing = [(p, s) for p, s in whole for of, c in commands.items() if p.startswith(of) and s not in said[c]]
    assert len(whole) > 50
    assert not missing


def test_check_says_what_the_page_doubts_in_a_plan_and_what_it_leaves_open(tmp_path, capsys):
    plan = json.loads((DEMO / "heather.plan.json").read_text())
    plan["front_linkage"]["loaded_radius"] = 3 * plan["front_linkage"]["loaded_radius"]
    wrong = tmp_path / "wrong.plan.json"
    wrong.write_text(json.dumps(plan))
    assert main(["check", str(wrong)]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert lines[0].endswith("to look at:")
    assert any("front_linkage.loaded_radius" in line for line in lines[1:])


def test_a_sweep_tells_what_comes_nearest_to_its_limit_as_the_page_does(capsys):
    asked = ["sweep", str(DEMO / "heather.plan.json"), "--corner", "LF", "--travel=-40:40:3"]
    assert main([*asked, "--json"]) == 0
    told = capsys.readouterr()
    limits = json.loads(told.out)["limits"]
    assert limits[0]["unit"] in ("mm", "°")
    assert told.err.splitlines()[-1].startswith(limits[2]["what"])  # the three that come first
    assert " left at " in told.err or " past it at " in told.err
