"""Names as they come from outside: without characters that nobody sees, or that turn what follows round."""

import json
import unicodedata
from collections.abc import Iterator, Mapping
from typing import Any

from .reading import Fault, UnfitDocument

TURNING = {chr(c) for c in (*range(0x202A, 0x202F), *range(0x2066, 0x206A))}
"""Marks that turn the direction of what follows: a name with them may read as another."""


def _is_hidden(character: str) -> bool:
    return character in TURNING or unicodedata.category(character) == "Cc"


def cleaned(name: str) -> str:
    """A name without them; what breaks a line becomes a space."""
    return "".join(" " if c in "\t\n\r" else "" if _is_hidden(c) else c for c in name).strip()


def _hidden(document: object, at: str = "") -> Iterator[Fault]:
    if isinstance(document, Mapping):
        for key, value in document.items():
            here = f"{at}/{str(key).replace('~', '~0').replace('/', '~1')}"
            if key == "name" and isinstance(value, str):
                found = [c for c in value if _is_hidden(c)]
                if found:
                    codes = ", ".join(dict.fromkeys(f"U+{ord(c):04X}" for c in found))
                    says = f"The name holds what cannot be seen ({codes})."
                    yield Fault(here, says, cleaned(value), f"the same without it: {cleaned(value) or 'a name'}")
            elif isinstance(value, Mapping | list):
                yield from _hidden(value, here)
    elif isinstance(document, list):
        for n, value in enumerate(document):
            if isinstance(value, Mapping | list):
                yield from _hidden(value, f"{at}/{n}")


def _clean(document: Any) -> Any:
    if isinstance(document, dict):
        return {
            key: (cleaned(value) or "?") if key == "name" and isinstance(value, str) and any(map(_is_hidden, value))
            else _clean(value)
            for key, value in document.items()
        }  # fmt: skip
    return [_clean(value) for value in document] if isinstance(document, list) else document


def with_names_cleaned(text: str) -> str:
    """A file's text with its names cleaned; one that holds none of it, or is no JSON, as it is."""
    try:
        document = json.loads(text)
        return json.dumps(_clean(document), ensure_ascii=False) if next(_hidden(document), None) else text
    except (ValueError, RecursionError):
        return text


def refuse_hidden(document: object) -> None:
    """Raises UnfitDocument where a name in a document holds what cannot be seen, with the name cleaned."""
    if faults := tuple(_hidden(document)):
        raise UnfitDocument("What was sent", faults)
