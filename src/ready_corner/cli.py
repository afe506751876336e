"""The core without the application: ``ready-corner check|fold|set|schema``, on the same open files.

Answers go to standard output, as lines or with --json; what is wrong goes to standard error, with exit status 2.
"""

import argparse
import json
import sys
from dataclasses import asdict
from pathlib import Path

from ready_corner.core.errors import ReadyCornerError
from ready_corner.core.plan import CORNERS
from ready_corner.core.readiness.marks import evaluate
from ready_corner.core.readiness.rounds import next_step
from ready_corner.core.setting.corner import set_corner
from ready_corner.exchange.files import read_logbook, read_plan, schemas


def main(arguments: list[str] | None = None) -> int:
    """Run one command; return the exit status."""
    asked = _parser().parse_args(arguments)
    try:
        return int(asked.run(asked) or 0)
    except OSError as wrong:
        print(f"{wrong.filename}: {wrong.strerror}.", file=sys.stderr)
    except ReadyCornerError as wrong:
        print(wrong.sentence, file=sys.stderr)
    return 2


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="ready-corner", description="The arithmetic of Ready Corner on its open files.")
    commands = parser.add_subparsers(required=True)

    def command(name: str, run: object, says: str) -> argparse.ArgumentParser:
        found = commands.add_parser(name, help=says, description=says)
        found.set_defaults(run=run)
        return found

    check = command("check", _check, "Say whether a plan file can be used, and everything that is wrong with it.")
    check.add_argument("plan", type=Path)
    folded = command("fold", _fold, "Say the state of every mark after a logbook, and what to do next.")
    folded.add_argument("logbook", type=Path)
    folded.add_argument("--json", action="store_true")
    turns = command("set", _set, "Say what to turn at a corner, how far, and what it would then read.")
    turns.add_argument("logbook", type=Path)
    turns.add_argument("--corner", choices=CORNERS, required=True)
    turns.add_argument("--json", action="store_true")
    schema = command("schema", _schema, "Print the JSON Schema of a kind of file.")
    schema.add_argument("kind", choices=sorted(schemas()))
    return parser


def _check(asked: argparse.Namespace) -> None:
    plan = read_plan(asked.plan.read_bytes())
    print(f"{plan.name}: {len(plan.aims)} aims, {len(plan.adjusters)} adjusters; nothing wrong.")


def _fold(asked: argparse.Namespace) -> None:
    _, state = read_logbook(asked.logbook.read_bytes())
    found = evaluate(state)
    step = next_step(found)
    if asked.json:
        said = {"number": state.number, "marks": [asdict(m) for m in found.marks], "next": step.sentence}
        print(json.dumps(said, ensure_ascii=False, indent=1))
        return
    for mark in found.marks:
        print(f"{mark.mark:16} {mark.state or '':18} {mark.say:14} {mark.reason}".rstrip())
    print(f"Next: {step.sentence} {step.reason}".rstrip())


def _set(asked: argparse.Namespace) -> None:
    _, state = read_logbook(asked.logbook.read_bytes())
    answer = set_corner(evaluate(state), asked.corner)
    if asked.json:
        print(json.dumps(asdict(answer), ensure_ascii=False, indent=1))
        return
    for said in (answer.sentence or answer.why_not, answer.reason):
        if said:
            print(said)
    for turn in answer.turns:
        print(f"{turn.name}: {turn.say}")
    for mark in answer.expected:
        print(f"{mark.mark}: would read {mark.say} {mark.say_u}, {mark.say_aim}: {mark.verdict}")


def _schema(asked: argparse.Namespace) -> None:
    print(json.dumps(schemas()[asked.kind], ensure_ascii=False, indent=1))
