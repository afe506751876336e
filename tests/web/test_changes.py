"""What an entry changed, laid on what was known, is the car as it is; and what is kept of a state is what would be worked out anew."""

import random

from ready_corner.core.advise.car import judge_car
from ready_corner.core.judge.marks import evaluate
from ready_corner.core.record.happenings import Happened
from ready_corner.core.record.logbook import Entry, fold, fold_on
from tests.amounts import drawn
from tests.conftest import entry_json, plan_json, reading_json
from tests.fuzzing import client_in_memory
from tests.kept.said import state_of
from tests.kept.test_kept import KEPT


def _drawn(rng):
    typed = {
        "height": "110",
        "camber": "-1.4",
        "gap_front": "52",
        "gap_back": "51.5",
        "gap_hub": "52",
        "pad": "1",
        "pad_step": "1",
        "load": "160",
    }
    for _ in range(60):
        corner, quantity = rng.choice(("LF", "RF", "LR", "RR")), rng.choice(list(typed))
        tool = {"height": "tape", "camber": "digital", "load": "scales"}.get(quantity, "rule")
        turn = {"kind": "turned", "adjuster": rng.choice(("LR.toe", "LR.upper")), "typed": rng.choice(("1/2", "-1/2"))}
        happened = {"kind": "happened", "what": rng.choice(("settled", "string", "tyre", "bar_off"))}
        yield rng.choices((reading_json(corner, quantity, typed[quantity], tool=tool), turn, happened), (6, 1, 1))[0]


def test_a_change_laid_on_what_was_known_is_the_car():
    client = client_in_memory()
    slug = client.post("/api/cars", json=entry_json({"kind": "plan", "plan": plan_json()})).json()["slug"]
    known = client.get(f"/api/cars/{slug}").json()
    for what in _drawn(random.Random(12)):
        said = client.post(f"/api/cars/{slug}/entries", json=entry_json(what), headers={"x-since-entry": str(known["number"])})
        if said.status_code == 422:  # past its thread
            continue
        answer = said.json()
        assert answer["since"] == known["number"]
        assert "plan" not in answer["car"]
        rows = answer["car"].pop("rows")
        assert not rows.keys() & answer["car"].keys()
        known |= answer["car"]
        for part, changed in rows.items():
            was = known[part]
            known[part] = was | changed if isinstance(was, dict) else [changed.get(str(i), row) for i, row in enumerate(was)]
        assert known == client.get(f"/api/cars/{slug}").json()
    late = client.post(
        f"/api/cars/{slug}/entries", json=entry_json({"kind": "note", "words": "x"}), headers={"x-since-entry": "1"}
    )
    assert late.json()["since"] is None
    assert late.json()["car"] == client.get(f"/api/cars/{slug}").json()


def test_what_is_remembered_is_what_would_be_worked_out_anew():
    for path in [p for p in KEPT if "every-kind" in p.name or "tern-20261126" in p.name]:
        state = state_of(path.read_bytes())
        first = fold(None, state.entries[:1])
        judged = evaluate(first)
        for n in range(5, len(state.entries) + 1, drawn(9, 41)):
            judged = evaluate(fold(None, state.entries[:n]) if n % 2 else _on(judged, state.entries[:n]), judged)
            judge_car(
                evaluate(fold_on(judged.given, [Entry("tried", n + 1, Happened("knock"))]), judged)
            )  # tried, and not kept
            kept, fresh = judge_car(judged), judge_car(evaluate(judged.given))
            assert kept.marks == fresh.marks
            assert kept.next == fresh.next
            assert kept.corners == fresh.corners
            assert (kept.round, kept.floor_round, kept.stand_round) == (fresh.round, fresh.floor_round, fresh.stand_round)


def _on(judged, entries):
    return fold_on(judged.given, entries[len(judged.given.entries) :])
