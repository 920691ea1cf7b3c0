"""The kinds of piece: each turns a handful of sizes into surfaces and a drawing."""

from collections.abc import Mapping

from ...errors import UnknownEntry
from . import board, case, chest, frames, free, plain, seat, spindle, table
from .kind import CountSpec, FaceGroup, Misfit, PieceKind, SizeSpec

KINDS: Mapping[str, PieceKind] = {
    kind.slug: kind
    for kind in (
        board.KIND,
        chest.KIND,
        case.CUPBOARD,
        table.RECTANGULAR,
        table.ROUND,
        table.OVAL,
        seat.BENCH,
        table.STOOL,
        seat.CHAIR,
        case.BOOKCASE,
        case.RACK,
        case.TRUNK,
        case.TRAY,
        frames.FRAME,
        frames.DOOR,
        frames.COLUMN,
        spindle.KIND,
        plain.WALL,
        plain.HEARTH,
        plain.FLOOR,
        plain.CLOTH,
        free.KIND,
    )
}

__all__ = ["KINDS", "CountSpec", "FaceGroup", "Misfit", "PieceKind", "SizeSpec", "kind_of"]


def kind_of(slug: str) -> PieceKind:
    """The kind of piece called `slug`. Raises UnknownEntry."""
    if slug not in KINDS:
        raise UnknownEntry("kind of piece", slug, KINDS)
    return KINDS[slug]


def suggested_zones(kind: PieceKind, sizes: Mapping[str, float] | None = None) -> list[tuple[str, tuple[str, ...]]]:
    """The zones a piece of a kind usually has: name, and the surfaces that are usually coated. `sizes` are its sizes
    and counts where they are not the usual ones."""
    groups: dict[str, list[str]] = {}
    for surface in kind.surfaces({**kind.usual(), **(sizes or {})}):
        if not surface.usually_bare:
            groups.setdefault(surface.group, []).append(surface.slug)
    return [(name, tuple(slugs)) for name, slugs in groups.items()]
