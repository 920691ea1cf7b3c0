"""What validates and writes the core's types, each built once.

A type that holds others would build theirs again for every place it is used in; here every known type is built from
those built before it, and is found ready wherever it is used after.
"""

from collections.abc import Iterator
from typing import TypeVar

from pydantic import TypeAdapter

from lumso.core.value import Value

T = TypeVar("T")
READY = "__pydantic_core_schema__"
"""Where pydantic looks whether a type was built already."""


def _types(base: type[Value]) -> Iterator[type[Value]]:
    """Every type of the core that can be written to a file, in the order they were defined."""
    for kind in base.__subclasses__():
        yield kind
        yield from _types(kind)


def build_once() -> None:
    """Build every type that is known by now and was not built yet."""
    for kind in _types(Value):
        if READY not in kind.__dict__:
            setattr(kind, READY, TypeAdapter(kind).core_schema)


def adapter(kind: type[T]) -> TypeAdapter[T]:
    """What reads, writes and describes a type."""
    build_once()
    return TypeAdapter(kind)
