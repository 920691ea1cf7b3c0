"""The rooms between the core and the web: services know no web, and answer what routers ask."""

import ast
from pathlib import Path

import lumso

ROOT = Path(lumso.__file__).parent
WEB = {"fastapi", "starlette", "uvicorn"}
INNER = {"lumso.core", "lumso.store", "lumso.formats", "lumso.services", "lumso.catalogue"}


def imports(path: Path) -> set[str]:
    """What a module imports from outside its own folder, by dotted names."""
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            found |= {a.name for a in node.names}
        elif isinstance(node, ast.ImportFrom) and not node.level:
            found.add(node.module or "")
    return found


def test_services_know_no_web_and_nothing_beyond_core_store_and_formats() -> None:
    modules = sorted((ROOT / "services").glob("*.py"))
    assert len(modules) >= 5
    for path in modules:
        for name in imports(path):
            assert name.split(".")[0] not in WEB, f"{path.name} imports {name}"
            if name.split(".")[0] == "lumso":
                assert ".".join(name.split(".")[:2]) in INNER, f"{path.name} imports {name}"


def test_core_store_and_formats_know_no_services() -> None:
    for room in ("core", "store", "formats"):
        for path in (ROOT / room).rglob("*.py"):
            assert not any(n.startswith(("lumso.services", "lumso.api")) for n in imports(path)), path
