"""Print what the interface and the documentation are made from: the API's description and the JSON Schemas."""

import json
import sys
import tempfile
from pathlib import Path

from lumso.core.value import Value

Value.__pydantic_config__["use_attribute_docstrings"] = True  # before any type is built: what stands under a field

from lumso.api.app import create_app  # noqa: E402
from lumso.catalogue import shipped  # noqa: E402
from lumso.formats.schemas import DOCUMENTS, schema  # noqa: E402
from lumso.store.database import Database  # noqa: E402


def api() -> str:
    """The OpenAPI description as JSON text."""
    with tempfile.TemporaryDirectory() as folder:
        db = Database(Path(folder) / "none.sqlite3")
        description = create_app(db, shipped()).openapi()
        db.close()
    return json.dumps(description, indent=1, ensure_ascii=False, sort_keys=True) + "\n"


def write_schemas(folder: Path) -> None:
    """Write one file per document."""
    folder.mkdir(parents=True, exist_ok=True)
    for name in DOCUMENTS:
        text = json.dumps(schema(name), indent=2, ensure_ascii=False) + "\n"
        (folder / f"{name}.schema.json").write_text(text, encoding="utf-8")


if __name__ == "__main__":
    match sys.argv[1:]:
        case ["api"]:
            sys.stdout.write(api())
        case ["schemas", folder]:
            write_schemas(Path(folder))
        case _:
            sys.exit("usage: describe.py api | schemas FOLDER")
