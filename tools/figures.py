"""What the benches share: figures by name, printed as a table beside those kept in docs/figures.json.

Kept figures were taken on an idle machine. So that machines compare, a loop of plain arithmetic is timed with them: the
table also says what a kept figure would be on a machine as fast as this one is now.
"""

import argparse
import json
import statistics
import time
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).parent.parent
KEPT = ROOT / "docs" / "figures.json"
LOOP = "a loop of plain arithmetic"

_asked = argparse.ArgumentParser(description="Print how long things take on this machine, beside the kept figures.")
_asked.add_argument("--once", action="store_true", help="one round of everything, small: does each figure appear?")
_asked.add_argument("--keep", action="store_true", help="keep the figures in docs/figures.json")
SAID, _ = _asked.parse_known_args()
ONCE: bool = SAID.once

taken: dict[str, tuple[float, str]] = {}


def calibrate() -> float:
    """How long a loop of plain arithmetic takes, ms: the least of several."""

    def loop() -> float:
        start = time.perf_counter()
        total = 0
        for n in range(200_000):
            total += n * n % 7
        return (time.perf_counter() - start) * 1000

    return min(loop() for _ in range(1 if ONCE else 15))


def row(name: str, value: float, unit: str = "ms") -> None:
    """A figure: printed at once, and kept for the table."""
    taken[name] = (value, unit)
    kept = json.loads(KEPT.read_text())["figures"] if KEPT.exists() else {}
    before = kept.get(name)
    beside = ""
    if before and unit == "ms" and LOOP in kept and LOOP in taken:
        beside = f"  kept {before['value']:>9.1f}, here {before['value'] * taken[LOOP][0] / kept[LOOP]['value']:>9.1f}"
    elif before:
        beside = f"  kept {before['value']:>9.1f}"
    print(f"{name:<62}{value:>10.1f} {unit:<4}{beside}", flush=True)


def median_ms(work: Callable[[], object], runs: int = 50, warm: int = 3) -> float:
    """Median wall time of `work` in ms after some warm-up runs."""
    runs, warm = (1, 0) if ONCE else (runs, warm)
    return statistics.median([once_ms(work) for _ in range(runs + warm)][warm:])


def once_ms(work: Callable[[], object]) -> float:
    """Wall time of `work` done once, in ms."""
    start = time.perf_counter()
    work()
    return (time.perf_counter() - start) * 1000


def keep() -> None:
    """Keep what was taken, where that is asked for."""
    if SAID.keep and not ONCE:
        figures = {name: {"value": round(value, 1), "unit": unit} for name, (value, unit) in taken.items()}
        KEPT.write_text(json.dumps({"about": __doc__.splitlines()[0], "figures": figures}, indent=1) + "\n")
