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


def routers() -> dict[str, ast.Module]:
    """The modules of the API that answer calls, by name."""
    found = {p.stem: ast.parse(p.read_text(encoding="utf-8")) for p in (ROOT / "api").glob("*.py")}
    return {n: t for n, t in found.items() if any("APIRouter(" in ast.unparse(x) for x in t.body) and n != "rest"}


def test_no_router_knows_another_and_what_they_do_is_a_service_s() -> None:
    known = routers()
    assert len(known) >= 20
    for name, tree in known.items():
        for node in ast.walk(tree):
            if not isinstance(node, ast.ImportFrom):
                continue
            names = [a.name for a in node.names]
            if node.level:
                assert node.module not in known, f"the router {name} imports the router {node.module}"
                continue
            room = ".".join((node.module or "").split(".")[:2])
            if room in {"lumso.store", "lumso.formats"}:  # what is kept and written is a service's to say
                assert all(n[0].isupper() for n in names), f"{name} imports {', '.join(names)} of {node.module}"
            elif room.startswith("lumso"):
                assert room in {"lumso.core", "lumso.services", "lumso.tls"}, f"{name} imports {node.module}"


def named(path: Path) -> str:
    return ".".join(path.relative_to(ROOT).with_suffix("").parts).removesuffix(".__init__")


def needs(path: Path, known: set[str]) -> set[str]:
    """The modules of Lumso that one imports, wherever in it."""
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if not isinstance(node, ast.ImportFrom):
            continue
        inside = path.parent.relative_to(ROOT).parts
        at = inside[: len(inside) - node.level + 1] if node.level else ()
        place = ".".join([*at, *([(node.module or "").removeprefix("lumso.")] if node.module else [])])
        for alias in node.names:
            found.add(f"{place}.{alias.name}" if f"{place}.{alias.name}" in known else place)
    return (found & known) - {named(path)}


def test_no_module_is_in_a_circle_with_another() -> None:
    paths = list(ROOT.rglob("*.py"))
    known = {named(p) for p in paths}
    uses = {named(p): needs(p, known) for p in paths}
    assert sum(map(len, uses.values())) > 1000
    while uses:
        free = {name for name, of in uses.items() if not of & uses.keys()}
        assert free, f"a circle among {', '.join(sorted(uses))}"
        uses = {name: of for name, of in uses.items() if name not in free}
