"""Do the tests notice? Change the code in one small place at a time, drawn by a seed, and see which tests fail.

    tools/mutate.py --seed 7 --count 60

A change that no test notices is printed with its place: write the test that holds its law. One that changes nothing
anybody could see is named in EQUIVALENT, and drawn anew. The code is changed in a copy, never here.
"""

import argparse
import ast
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parent.parent
TESTS = {
    "src/lumso/core/work": "tests/core/work tests/core/test_batches.py tests/core/test_steps.py tests/core/layout "
    "tests/core/test_stack_plan.py tests/core/bench tests/test_practice.py tests/test_golden.py "
    "tests/core/test_edits.py tests/api/test_sheets.py tests/formats/test_print.py",
    "src/lumso/core/layout": "tests/core/layout tests/core/look/test_laid_out.py tests/formats/test_template.py "
    "tests/api/test_layouts.py",
    "src/lumso/core/days": "tests/core/days tests/api/test_days.py",
    "ui/src/keep": "src/keep src/job src/bench src/api",
}
"""What is changed, and the tests that hold it."""

EQUIVALENT = frozenset(
    {
        "src/lumso/core/work/coats.py: laid.wet_um > most → laid.wet_um >= most",  # as thick as usual is 1 either way
        "src/lumso/core/layout/fit.py: rank < best[0] - 1e-12 → rank <= best[0] - 1e-12",  # nothing is so near
    }
)
"""Changes that nobody could see, each with its reason."""

SWAPS: dict[type[ast.AST], type[ast.AST]] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult, ast.And: ast.Or, ast.Or: ast.And,
    ast.In: ast.NotIn, ast.NotIn: ast.In, ast.Is: ast.IsNot, ast.IsNot: ast.Is,
}  # fmt: skip
SIGNS: dict[type[ast.AST], str] = {
    ast.Lt: "<", ast.LtE: "<=", ast.Gt: ">", ast.GtE: ">=", ast.Eq: "==", ast.NotEq: "!=", ast.Add: "+", ast.Sub: "-",
    ast.Mult: "*", ast.Div: "/", ast.And: "and", ast.Or: "or", ast.In: "in", ast.NotIn: "not in", ast.Is: "is",
    ast.IsNot: "is not",
}  # fmt: skip
CALLS = {"min": "max", "max": "min", "any": "all", "all": "any", "floor": "ceil", "ceil": "floor"}
SCRIPT = (
    ("===", "!=="), ("!==", "==="), (" > ", " >= "), (" < ", " <= "), (" <= ", " < "), (" && ", " || "),
    (" || ", " && "), (" + 1", ""), ("true", "false"), ("false", "true"), (" ?? ", " && "),
)  # fmt: skip


@dataclass(frozen=True)
class Change:
    """One small change: the file, the line, what stood there and what stands there now, and the whole new text."""

    file: str
    line: int
    was: str
    now: str
    text: str

    def __str__(self) -> str:
        return f"{self.file}:{self.line}: {self.was} → {self.now}"


def _at(source: str, node: ast.expr, now: str) -> tuple[str, str]:
    """The text with an expression replaced, and what stood there."""
    was = ast.get_source_segment(source, node) or ""
    lines = source.splitlines(keepends=True)
    assert node.end_lineno is not None
    assert node.end_col_offset is not None
    head = "".join(lines[: node.lineno - 1]).encode() + lines[node.lineno - 1].encode()[: node.col_offset]
    tail = lines[node.end_lineno - 1].encode()[node.end_col_offset :] + "".join(lines[node.end_lineno :]).encode()
    return (head + now.encode() + tail).decode(), was


def _silent(tree: ast.AST) -> set[int]:
    """Expressions that say nothing to a machine: words with values in them, annotations."""
    found: set[int] = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.AnnAssign):
            found |= {id(n) for n in ast.walk(node.annotation)}
        elif isinstance(node, ast.JoinedStr):
            found |= {id(n) for n in ast.walk(node)}
    return found


def _instead(node: ast.expr) -> str | None:
    """What is put in the place of an expression; None where it is left."""
    say = ast.unparse
    if isinstance(node, ast.Compare) and len(node.ops) == 1 and type(node.ops[0]) in SWAPS:
        return f"{say(node.left)} {SIGNS[SWAPS[type(node.ops[0])]]} {say(node.comparators[0])}"
    if isinstance(node, ast.BinOp) and type(node.op) in SWAPS and not isinstance(node.left, ast.JoinedStr):
        return f"({say(node.left)} {SIGNS[SWAPS[type(node.op)]]} {say(node.right)})"
    if isinstance(node, ast.BoolOp):
        return "(" + f" {SIGNS[SWAPS[type(node.op)]]} ".join(map(say, node.values)) + ")"
    if isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
        return f"bool({say(node.operand)})"
    if isinstance(node, ast.Constant) and isinstance(node.value, int | float) and not isinstance(node.value, bool):
        return repr(node.value * 2 if node.value not in (0, 1) else 1 - node.value)
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id in CALLS:
        return re.sub(rf"^{node.func.id}", CALLS[node.func.id], say(node))
    if isinstance(node, ast.IfExp):
        return f"({say(node.orelse)} if {say(node.test)} else {say(node.body)})"
    return None


def _python(file: str, source: str) -> Iterator[Change]:
    """Every small change of a module."""
    tree = ast.parse(source)
    silent = _silent(tree)
    for node in ast.walk(tree):
        if isinstance(node, ast.expr) and id(node) not in silent and (now := _instead(node)) is not None:
            text, was = _at(source, node, now)
            yield Change(file, node.lineno, was, now, text)


def _script(file: str, source: str) -> Iterator[Change]:
    """Every small change of a TypeScript module, outside of comments and imports."""
    at = 0
    for number, line in enumerate(source.splitlines(keepends=True), 1):
        if not re.match(r"\s*(//|\*|/\*|import|type |interface |export type|export interface)", line):
            for was, now in SCRIPT:
                for found in re.finditer(re.escape(was), line):
                    text = source[: at + found.start()] + now + source[at + found.end() :]
                    yield Change(file, number, line.strip(), line.replace(was, now, 1).strip(), text)
        at += len(line)


def changes(folder: str) -> list[Change]:
    """Every small change of a folder's modules."""
    found: list[Change] = []
    for file in sorted((ROOT / folder).rglob("*.*")):
        if file.suffix not in {".py", ".ts"} or file.name.endswith((".test.ts", "__init__.py")):
            continue
        name = str(file.relative_to(ROOT))
        source = file.read_text("utf-8")
        found += _python(name, source) if file.suffix == ".py" else _script(name, source)
    return [c for c in found if f"{c.file}: {c.was} → {c.now}" not in EQUIVALENT]


def noticed(change: Change, copy: Path) -> bool:
    """Whether any test fails with a change made in a copy."""
    folder = next(f for f in TESTS if change.file.startswith(f"{f}/"))
    path = copy / change.file
    before = path.read_text("utf-8")
    path.write_text(change.text, "utf-8")
    if folder.startswith("ui/"):
        line, at = ["npx", "vitest", "run", "--reporter=dot", *TESTS[folder].split()], copy / "ui"
    else:
        line, at = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *TESTS[folder].split()], copy
    environment = {**os.environ, "PYTHONPATH": str(copy / "src"), "PYTHONDONTWRITEBYTECODE": "1"}
    try:
        run = subprocess.run(line, cwd=at, env=environment, capture_output=True, timeout=420, check=False)
        return run.returncode != 0
    except subprocess.TimeoutExpired:
        return True
    finally:
        path.write_text(before, "utf-8")


def copied(to: Path) -> Path:
    """A copy of what is changed and tested."""
    for name in ("src", "tests", "examples", "docs", "tools"):
        shutil.copytree(ROOT / name, to / name, ignore=shutil.ignore_patterns("__pycache__", "*.egg-info"))
    shutil.copy(ROOT / "pyproject.toml", to)
    (to / "ui").mkdir()
    for name in ("src", "public"):
        shutil.copytree(ROOT / "ui" / name, to / "ui" / name)
    for file in (ROOT / "ui").glob("*.*"):
        if file.is_file():
            shutil.copy(file, to / "ui")
    (to / "ui" / "node_modules").symlink_to(ROOT / "ui" / "node_modules")
    return to


def main() -> None:
    """Draw changes, try each, and print those that live."""
    asked = argparse.ArgumentParser(description=__doc__.splitlines()[0])
    asked.add_argument("--seed", type=int, default=int(time.time()))
    asked.add_argument("--count", type=int, default=60)
    asked.add_argument("--workers", type=int, default=2)
    said = asked.parse_args()
    luck = random.Random(said.seed)
    print(f"Seed {said.seed}.", flush=True)
    pools = {folder: changes(folder) for folder in TESTS}
    drawn = [luck.choice(pools[folder]) for _, folder in zip(range(said.count), _turns(), strict=False)]
    with tempfile.TemporaryDirectory() as folder:
        copies = [copied(Path(folder) / str(n)) for n in range(said.workers)]

        def tried(n: int) -> list[Change]:
            lived = []
            for change in drawn[n :: said.workers]:
                seen = noticed(change, copies[n])
                print(f"{'killed' if seen else 'LIVES '}  {change}", flush=True)
                lived += [] if seen else [change]
            return lived

        with ThreadPoolExecutor(said.workers) as pool:
            lived = [c for found in pool.map(tried, range(said.workers)) for c in found]
    print(f"{len(drawn) - len(lived)} of {len(drawn)} were noticed; {len(lived)} live.")


def _turns() -> Iterator[str]:
    while True:
        yield from TESTS


if __name__ == "__main__":
    main()
