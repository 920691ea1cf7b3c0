"""What may not be in a test: see docs/how-it-works.md, "How tests are built"."""

import doctest
import importlib
import re
from pathlib import Path

import pytest

import lumso

TESTS = Path(__file__).parent
PAUSES = re.compile(r"\bsleep\(|wait_for_timeout\(|localtime\(\)|datetime\.now\(\)")
FILES = sorted(f for f in TESTS.rglob("*.py") if f.name not in {"waiting.py", Path(__file__).name})
SOURCE = Path(lumso.__path__[0])
EXAMPLES = [
    ".".join(("lumso", *file.relative_to(SOURCE).with_suffix("").parts)).removesuffix(".__init__")
    for file in sorted(SOURCE.rglob("*.py"))
    if ">>>" in file.read_text("utf-8")
]


def test_no_test_waits_for_a_while_or_asks_what_day_it_is() -> None:
    found = {
        f"{file.relative_to(TESTS)}: {line.strip()}"
        for file in FILES
        for line in file.read_text("utf-8").splitlines()
        if PAUSES.search(line)
    }
    assert found == set()


@pytest.mark.parametrize("name", EXAMPLES)
def test_examples_in_docstrings_are_true(name: str) -> None:
    tried = doctest.testmod(importlib.import_module(name), optionflags=doctest.ELLIPSIS)
    assert tried.attempted > 0
    assert tried.failed == 0
