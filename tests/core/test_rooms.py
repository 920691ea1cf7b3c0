"""The rooms of the core import one way: each only from those before it, and no two modules in a circle."""

import ast
from graphlib import TopologicalSorter
from pathlib import Path

import lumso.core

CORE = Path(lumso.core.__file__).parent
ROOMS = (
    "value", "memory", "errors", "figure", "measure", "learn", "book", "layout", "piece", "workshop", "job", "colour",
    "mixing", "layers", "look", "changes", "checks", "advice", "edits", "work", "log", "pour", "rescue", "plan",
    "boards", "days", "buying", "solver", "bench", "rehearse",
)  # fmt: skip
"""From the ground up. A new room takes its place here."""


def module_of(path: Path) -> str:
    parts = path.relative_to(CORE).with_suffix("").parts
    return ".".join(p for p in parts if p != "__init__")


def imported(path: Path) -> set[str]:
    """The modules of the core that a module imports, by their dotted names."""
    package = list(path.relative_to(CORE).parent.parts)
    found = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if not isinstance(node, ast.ImportFrom) or not node.level:
            continue
        base = package[: len(package) - node.level + 1] + (node.module.split(".") if node.module else [])
        for alias in node.names:
            inner = CORE.joinpath(*base, alias.name)
            is_module = inner.with_suffix(".py").is_file() or inner.is_dir()
            found.add(".".join([*base, alias.name] if is_module else base))
    return found - {""}


MODULES = {module_of(p): imported(p) for p in CORE.rglob("*.py") if p != CORE / "__init__.py"}


def test_every_room_has_its_place() -> None:
    assert {m.split(".")[0] for m in MODULES} == set(ROOMS)


def test_rooms_import_only_from_rooms_before_them() -> None:
    place = {room: i for i, room in enumerate(ROOMS)}
    back = {
        (module, to)
        for module, needs in MODULES.items()
        for to in needs
        if place[to.split(".")[0]] > place[module.split(".")[0]]
    }
    assert back == set()


def test_no_modules_import_each_other_in_a_circle() -> None:
    TopologicalSorter(MODULES).prepare()  # raises CycleError, naming the circle
