"""How much of all code is tests: nonblank lines written by hand, data and generated files aside. Exits with 1 outside
26 to 33 %."""

import subprocess
import sys
from pathlib import Path

LEAST, MOST = 0.26, 0.33
KINDS = {".py", ".ts", ".tsx", ".sql", ".css"}


def share() -> tuple[int, int]:
    """Lines of tests, and lines of everything else."""
    listed = subprocess.run(["git", "ls-files"], capture_output=True, text=True, check=True).stdout.split("\n")
    tests = code = 0
    for path in (Path(name) for name in listed if name):
        if path.suffix not in KINDS or path.name == "generated.d.ts" or not path.is_file():
            continue
        lines = sum(1 for line in path.read_text(encoding="utf-8").splitlines() if line.strip())
        if path.parts[0] == "tests" or ".test." in path.name:
            tests += lines
        else:
            code += lines
    return tests, code


if __name__ == "__main__":
    tests, code = share()
    part = tests / (tests + code)
    print(f"{tests} of {tests + code} lines are tests: {part:.1%}")
    sys.exit(0 if LEAST <= part <= MOST else f"allowed: {LEAST:.0%} to {MOST:.0%}")
