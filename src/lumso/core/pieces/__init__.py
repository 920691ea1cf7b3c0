"""The kinds of piece: each turns a handful of sizes into surfaces and a drawing."""

from collections.abc import Mapping

from ..errors import UnknownEntry
from . import board
from .kind import PieceKind, SizeSpec, Surface

KINDS: Mapping[str, PieceKind] = {kind.slug: kind for kind in (board.KIND,)}

__all__ = ["KINDS", "PieceKind", "SizeSpec", "Surface", "kind_of"]


def kind_of(slug: str) -> PieceKind:
    """The kind of piece called `slug`. Raises UnknownEntry."""
    if slug not in KINDS:
        raise UnknownEntry("kind of piece", slug, KINDS)
    return KINDS[slug]
