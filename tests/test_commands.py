"""Every command under scripts/ and bench/ runs, in its least size, so that none rots."""

import subprocess
import sys
from pathlib import Path

import pytest

HERE = Path(__file__).resolve().parent.parent
RUNS = {
    "scripts/kills": (["2"], "0 lost, 0 twice, 0 strange"),
    "scripts/fuzz": (["4"], '"plans": '),
    "scripts/look": (["walk-round", "--to", "TMP"], ""),
    "scripts/tell_demo": (["--to", "TMP"], ""),
    "bench/answers.py": (["--entries", "70", "--times", "10", "--starts", "1"], "entries"),
    "bench/coverage.py": (["--cars", "2", "--way", "camber"], ""),
    "bench/doors.py": ([], ""),
    "bench/lifts.py": (["--cars", "1", "--layouts", "tern", "--alone"], "tern"),
    "bench/linkage.py": (["--rows", "20"], "times"),
    "bench/solve.py": (["--times", "1"], "ms"),
    "bench/stance.py": (["--times", "1"], "equilibrium"),
    "bench/survey.py": (["--times", "1"], "points"),
    "bench/what_if.py": (["--times", "1"], "median"),
}
ELSEWHERE = {
    "scripts/setup.sh",
    "scripts/contracts",
    "scripts/share",
    "scripts/house",
    "scripts/demo_plans.py",
}  # ./test and tell_demo run them


@pytest.mark.parametrize("command", RUNS)
def test_a_command_runs_in_its_least_size(command, tmp_path):
    options, words = RUNS[command]
    called = [sys.executable, command, *(str(tmp_path) if o == "TMP" else o for o in options)]
    done = subprocess.run(called, cwd=HERE, capture_output=True, text=True, timeout=300, check=False)
    assert done.returncode == 0, done.stdout[-2000:] + done.stderr[-2000:]
    assert words in done.stdout
    if "--to" in options:
        assert any(tmp_path.iterdir())
    if command == "scripts/tell_demo":
        demo = HERE / "src/ready_corner/demo"
        for told in tmp_path.iterdir():
            assert told.read_bytes() == (demo / told.name).read_bytes(), told.name


def test_no_command_is_left_out():
    there = {str(f.relative_to(HERE)) for at in ("scripts", "bench") for f in (HERE / at).iterdir() if f.is_file()}
    assert there == RUNS.keys() | ELSEWHERE
    run = (HERE / "test").read_text() + (HERE / "scripts/tell_demo").read_text()
    assert all(Path(name).stem in run for name in ELSEWHERE)
