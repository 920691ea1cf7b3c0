"""The core is pure: it imports the standard library's arithmetic and its numeric packages, and does no I/O."""

import ast
from pathlib import Path

import lumso.core

ALLOWED = {"annotated_types", "numpy"}  # bounds as plain metadata; linear algebra
STANDARD = {
    "bisect",
    "contextlib",
    "collections",
    "dataclasses",
    "decimal",
    "fractions",
    "functools",
    "itertools",
    "math",
    "re",
    "typing",
    "heapq",
    "datetime",  # calendars, not clocks
    "zoneinfo",
}
SOLVER = {"ortools", "time"}
"""What the room of the exact search needs beyond that: its engine, and a clock that stops it."""
CORE = Path(lumso.core.__file__).parent


def imports(path: Path) -> set[str]:
    found = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            found |= {alias.name.split(".")[0] for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.level == 0:
            found.add((node.module or "").split(".")[0])
    return found


def test_core_imports_nothing_but_arithmetic() -> None:
    foreign = {
        p.name: bad
        for p in CORE.rglob("*.py")
        if (bad := imports(p) - ALLOWED - STANDARD - (SOLVER if p.parent.name == "solver" else set()))
    }
    assert foreign == {}


def test_core_opens_no_file_and_asks_no_clock() -> None:
    calls = {
        (p.name, node.func.id)
        for p in CORE.rglob("*.py")
        for node in ast.walk(ast.parse(p.read_text(encoding="utf-8")))
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in {"open", "print", "input"}
    }
    assert calls == set()


def test_modules_stay_short_enough_to_read() -> None:
    long = {
        p.name: n for p in CORE.parent.rglob("*.py") if (n := len(p.read_text(encoding="utf-8").splitlines())) > 400
    }
    assert long == {}
