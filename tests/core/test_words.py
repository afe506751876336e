"""Words come last: code decides by kinds and figures, and no word that is changed changes what is done."""

import ast
import re
from pathlib import Path
from typing import get_args

import pytest

from ready_corner.core.advise.next import next_step
from ready_corner.core.plan.plan import AdjusterKind
from ready_corner.core.quantities.finding import Finding, finding
from ready_corner.core.quantities.notation import Units
from ready_corner.core.say import template
from ready_corner.core.say.words import LINES, WORDS
from tests.amounts import drawn
from tests.core.test_jobs import Job
from tests.words import said

SRC = Path(__file__).parents[2] / "src/ready_corner"
MADE = {"caution": get_args(AdjusterKind)}  # kinds that are put together from a kind of part


def _constants(node):
    if isinstance(node, ast.Constant):
        return [node.value]
    return [*_constants(node.body), *_constants(node.orelse)] if isinstance(node, ast.IfExp) else []


def _used():
    """Every kind that the product makes, with the figures it is given and where."""
    for path in sorted(SRC.rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text("utf-8"))):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "finding" and node.args:
                for kind in _constants(node.args[0]):
                    yield kind, {k.arg for k in node.keywords}, f"{path.name}:{node.lineno}"


def _named(words):
    return {m[1] for m in re.finditer(r"\{(\w+)(?=[:}?=])", words)}


def test_every_kind_has_its_words_and_they_name_no_figure_that_it_does_not_have():
    for kind, figures, where in _used():
        words = WORDS.get(kind) or " ".join(LINES.get(kind, ()))
        assert words, f"{kind} at {where} has no words"
        assert None in figures or _named(words) <= figures, f"{kind} at {where}"


def test_no_words_are_left_of_kinds_that_nothing_makes():
    text = "".join(p.read_text("utf-8") for p in SRC.rglob("*.py") if "words" not in p.parts)
    made = {f"{head}.{tail}" for head, tails in MADE.items() for tail in tails}
    pairs = {f"{w}.{k}" for w in ("wanting", "wanted") for k in re.findall(r'_open\(\s*"([\w-]+)"', text)}
    assert [k for k in {**WORDS, **LINES} if f'"{k}"' not in text and k not in made | pairs] == []


def _walked(name, seed):
    """The steps of a practice car by their kinds and places, and its marks at the end."""
    job, steps = Job(name, seed), []
    do = job.do

    def noted(step, found):
        steps.append((step.kind, step.corner, step.quantity, step.sentence.kind))
        return do(step, found) and len(steps) < drawn(1000, 55)  # the round, a lift, and what is read after it

    job.do = noted
    _, found = job.run()
    return steps, [(m.mark, m.state, m.value, m.way, m.reason and m.reason.kind) for m in found.marks], job.turns


@pytest.mark.parametrize(("name", "seed"), [("heather", 1), ("tern", 2), ("three-link-axle", 3), ("five-link", 0)])
def test_with_every_word_changed_a_car_is_set_in_the_same_steps(name, seed, monkeypatch):
    plain = _walked(name, seed)
    before = said(next_step(Job(name, seed).judged).sentence)
    changed = {
        kind: f"xyzzy {n} " + " ".join(f"{{{f}}}" for f in sorted(_named(w))) for n, (kind, w) in enumerate(WORDS.items())
    }
    monkeypatch.setattr(template, "WORDS", changed)
    assert said(next_step(Job(name, seed).judged).sentence) != before
    assert _walked(name, seed) == plain


def test_a_finding_says_lengths_in_the_units_of_the_car_and_what_is_within_it():
    inner = finding("string.gap-below-zero")
    outer = finding("mark.part", part="LF.toe", reason=inner, entries=(4,))
    assert said(outer).startswith("left front toe: A gap is under zero")
    apart = finding("string.gaps-too-far-apart", difference=254.0, span=25.4)
    assert "differ by 254.0 mm" in said(apart)
    assert 'differ by 10"' in said(apart, Units("inch_fraction"))
    assert str(apart) == said(apart)
    assert apart.numbers == {"difference": 254.0, "span": 25.4}
    assert isinstance(outer.figure("reason"), Finding)
