"""The batch file: a batch as it was printed. What was printed years ago opens by its code."""

from typing import Any

from lumso.core.work.batch_file import BatchFile

from .reading import parse_json, read
from .validators import adapter
from .versions import Upgrades, upgraded

ADAPTER = adapter(BatchFile)


def _to_2(file: dict[str, Any]) -> dict[str, Any]:
    """Version 2 says relative solids for what version 1 called crowding."""
    try:
        thickness = dict(file["batch"]["mix"]["thickness"])
    except (KeyError, TypeError, ValueError):
        return {**file, "version": 2}  # what is missing is said when it is read
    if "crowding" in thickness:
        thickness["relative_solids"] = thickness.pop("crowding")
    mix = {**file["batch"]["mix"], "thickness": thickness}
    return {**file, "version": 2, "batch": {**file["batch"], "mix": mix}}


def _to_3(file: dict[str, Any]) -> dict[str, Any]:
    """Version 3 says how far off an amount may be; of those before nobody knows."""
    return {**file, "version": 3}


def _to_4(file: dict[str, Any]) -> dict[str, Any]:
    """Version 4 says which sizes nobody had measured; before, none were counted with."""
    return {**file, "version": 4}


UPGRADES: Upgrades = {1: _to_2, 2: _to_3, 3: _to_4}


def from_json(text: str | bytes, source: str = "The batch") -> BatchFile:
    """A batch from JSON text of this or an earlier version. Raises UnfitDocument."""
    return read(ADAPTER, upgraded(parse_json(text, source), source, "lumso-batch", "batch", UPGRADES), source)


def to_json(file: BatchFile) -> str:
    """The batch as JSON text."""
    return ADAPTER.dump_json(file).decode()
