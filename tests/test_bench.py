"""The bench cannot rot: one small round of all of it, and every figure that is kept appears. No figure is judged."""

import json
import re
import subprocess
import sys

from tests.conftest import ROOT

FIGURE = re.compile(r"^(\S.*?|  .*?)\s+\d+\.\d [\wµ×/]*\s*(?:kept.*)?$", re.MULTILINE)
LARGER = re.compile("shed|three jobs|evenings|visits")
"""Puzzles that are too long for a small round."""


def _plain(name: str) -> str:
    """A figure's name without how many there were: a small round has fewer."""
    return re.sub(r"\d[\d,.]*", "n", name).strip()


def test_one_round_of_everything_shows_every_figure_that_is_kept() -> None:
    kept = json.loads((ROOT / "docs" / "figures.json").read_text())["figures"]
    command = [sys.executable, "tools/bench.py", "--once"]
    said = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)
    assert said.returncode == 0, said.stderr[-2000:]
    shown = {_plain(m[1]) for m in FIGURE.finditer(said.stdout)}
    assert {_plain(name) for name in kept if not LARGER.search(name)} - shown == set()
