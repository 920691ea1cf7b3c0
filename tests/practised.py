"""Practised stacks as small files: what the checker says of them and what it does not, and of each with one fact
changed that makes it dangerous."""

import json
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from lumso.core.job.job import Job
from lumso.formats.jobfile import from_document

FOLDER = Path(__file__).parent / "practice"


@dataclass(frozen=True)
class Practice:
    """A practised job, and the same with one danger in it."""

    slug: str
    about: str
    sound: Job
    says: tuple[str, ...]
    does_not_say: tuple[str, ...]
    danger: Job
    warns: tuple[str, ...]
    at_step: tuple[str, str] | None
    """The kind of step that must name the danger, and a word it must say."""
    amount_ml: dict[str, tuple[float, float]]
    wait_h: dict[str, tuple[float, float]]


def _set(document: Any, at: str, value: Any) -> None:
    *path, last = at.strip("/").split("/")
    for key in path:
        document = document[int(key)] if isinstance(document, list) else document.setdefault(key, {})
    document[int(last) if isinstance(document, list) else last] = value


def _practice(path: Path) -> Practice:
    told = json.loads(path.read_text(encoding="utf-8"))
    changed = json.loads(json.dumps(told["job"]))
    for change in told["danger"]["change"]:
        _set(changed, change["at"], change["to"])
    return Practice(
        path.stem, told["about"], from_document(told["job"]), tuple(told["says"]), tuple(told["does_not_say"]),
        from_document(changed), tuple(told["danger"]["says"]), tuple(told["danger"].get("at_step", ())) or None,
        told.get("amount_ml", {}), told.get("wait_h", {}),
    )  # fmt: skip


PRACTICE = [_practice(path) for path in sorted(FOLDER.glob("*.json"))]
