"""Documents of earlier versions brought up to this one: one chain for files and for the database."""

from collections.abc import Callable, Mapping
from typing import Any

from .reading import Fault, UnfitDocument

Upgrades = Mapping[int, Callable[[dict[str, Any]], dict[str, Any]]]
"""From version n to n + 1."""


def upgraded(document: object, source: str, form: str, noun: str, upgrades: Upgrades) -> object:
    """A document of format `form` as its latest version has it. Raises UnfitDocument for another format, or a version
    that is none or newer."""
    if not isinstance(document, dict) or document.get("format") != form:
        given = repr(document.get("format")) if isinstance(document, dict) else type(document).__name__
        raise UnfitDocument(source, [Fault("/format", f"{given} is not a {noun}.", given, repr(form))])
    latest = max(upgrades) + 1
    version = document.get("version")
    if not isinstance(version, int) or not 1 <= version <= latest:
        newer = isinstance(version, int) and version > latest
        says = f"Version {version!r} was written by a newer Lumso." if newer else f"{version!r} is no version."
        raise UnfitDocument(source, [Fault("/version", says, repr(version), f"1 to {latest}")])
    while version < latest:
        document = upgrades[version](document)
        version += 1
    return document
