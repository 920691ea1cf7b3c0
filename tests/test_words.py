"""The words: retired ones are nowhere in the interface or in the texts of the core; ways are said as sentences."""

import ast
import json
import re
from collections.abc import Iterator
from pathlib import Path

import pytest

from lumso.catalogue import shipped
from lumso.core.book.words import MIX

ROOT = Path(__file__).parents[1]
C = shipped()
WORDS = sorted(C.retired.values(), key=lambda r: r.slug)


def interface() -> Iterator[tuple[str, str]]:
    """Every source of the interface, without its comments."""
    for path in sorted((ROOT / "ui" / "src").rglob("*.ts*")):
        if path.name.endswith((".d.ts", ".test.ts")):
            continue
        text = path.read_text(encoding="utf-8")
        text = re.sub(r"(?ms:^\s*/\*.*?\*/)|(?m:^\s*//.*$)", "", text)
        yield path.name, re.sub(r"\s+", " ", text)


def core() -> Iterator[tuple[str, str]]:
    """Every text in the core and at its edge, without docstrings."""
    for path in sorted((ROOT / "src" / "lumso").rglob("*.py")):
        tree = ast.parse(path.read_text(encoding="utf-8"))
        docs = {
            id(node.value)
            for node in ast.walk(tree)
            if isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant)
        }
        for node in ast.walk(tree):
            if isinstance(node, ast.Constant) and isinstance(node.value, str) and id(node) not in docs:
                yield path.name, node.value


def catalogue() -> Iterator[tuple[str, str]]:
    """Every text of the shipped data, the list of words itself aside."""

    def texts(value: object) -> Iterator[str]:
        if isinstance(value, str):
            yield value
        elif isinstance(value, list | dict):
            for part in value.values() if isinstance(value, dict) else value:
                yield from texts(part)

    for path in sorted((ROOT / "src" / "lumso" / "catalogue" / "data").rglob("*.json")):
        if path.name != "words.json":
            for text in texts(json.loads(path.read_text(encoding="utf-8"))):
                yield path.name, text


EVERYTHING = [*interface(), *core(), *catalogue()]


@pytest.mark.parametrize("word", WORDS, ids=lambda w: w.was)
def test_a_retired_word_is_nowhere(word: object) -> None:
    was = word.was  # type: ignore[attr-defined]
    pattern = re.compile(rf"(?<![\w’'-]){re.escape(was)}(?![\w’'-])")
    found = [f"{name}: …{text[max(m.start() - 30, 0) : m.end() + 20]}…" for name, text in EVERYTHING
             if (m := pattern.search(text))]  # fmt: skip
    assert found == []


def test_the_search_would_find_a_retired_word() -> None:
    assert any("Accept this" in text for _, text in interface())
    assert any("Sizes not measured" in text for _, text in core())
    assert any("Brush on {mix}" in text for _, text in catalogue())


@pytest.mark.parametrize("slug", sorted(C.techniques))
def test_every_way_of_putting_a_mix_on_is_said_as_what_one_does(slug: str) -> None:
    phrase = C.phrases[slug]
    assert phrase.says.count(MIX) == 1
    assert phrase.says[0].isupper()
    assert "the milk paint" in phrase.of("Milk paint")


def test_every_term_has_its_forms_and_no_form_means_two_things() -> None:
    forms = [form for term in C.terms.values() for form in term.forms]
    assert len(forms) == len(set(forms))
    assert all(term.says.endswith(".") for term in C.terms.values())
