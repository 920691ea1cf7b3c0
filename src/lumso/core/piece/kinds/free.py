"""Parts of plain shape, for what no kind of piece knows, and the piece that is made of nothing else."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from ...measure.drawing import Drawing, Face, box, ellipse, outline, view
from ...measure.shapes import cylinder_wall, disc, frustum_wall, oval, rectangle, sphere
from ..piece import FreePart, Shape
from .kind import FaceGroup, PieceKind, Sizes
from .parts import metres

LEAST_MM, MOST_MM = 1.0, 30_000.0


@dataclass(frozen=True)
class FreeShape:
    """A plain shape: the sizes it asks for, its area in m² and its outline on a drawing, both from mm."""

    sizes: tuple[str, ...]
    area: Callable[..., float]
    draw: Callable[..., Drawing]


def _sheet(width: float, height: float, rounded: bool) -> Drawing:
    face = ellipse(0, 0, width, height) if rounded else box(0, 0, width, height)
    return Drawing(width, height, (Face("", "", face, shape="oval" if rounded else "polygon"),), ())


def _taper(top: float, bottom: float, height: float) -> Drawing:
    wide = max(top, bottom)
    return Drawing(
        wide, height, (Face("", "", outline(wide / 2, ((0, bottom), (height, top)), height), shape="round"),), ()
    )


def _ball(diameter: float) -> Drawing:
    face = Face("", "", ellipse(0, 0, diameter, diameter), shape="solid")
    return Drawing(diameter, diameter, (face,), ())


SHAPES: Mapping[Shape, FreeShape] = {
    "rectangle": FreeShape(("length", "width"), rectangle, lambda a, b: _sheet(a, b, False)),
    "round": FreeShape(("diameter",), disc, lambda d: _sheet(d, d, True)),
    "oval": FreeShape(("length", "width"), oval, lambda a, b: _sheet(a, b, True)),
    "round wall": FreeShape(("diameter", "height"), cylinder_wall, lambda d, h: _taper(d, d, h)),
    "tapering wall": FreeShape(("top", "bottom", "height"), frustum_wall, _taper),
    "ball": FreeShape(("diameter",), sphere, _ball),
}


def slug_of(part: FreePart) -> str:
    """What the part's surface is called in zones."""
    return f"part-{part.id}"


def faults(part: FreePart) -> list[tuple[str, str, str]]:
    """Sizes that are missing or beyond belief: (size, says, allowed)."""
    found = []
    for slug in SHAPES[part.shape].sizes:
        given = part.sizes.get(slug)
        if given is None:
            found.append((slug, f"The {slug} of {part.name} is missing.", "1 mm to 30 m"))
        elif not LEAST_MM <= given.mm <= MOST_MM:
            found.append((slug, f"The {slug} of {part.name}, {given.typed!r}, cannot be used.", "1 mm to 30 m"))
    return found


def surface(part: FreePart) -> FaceGroup:
    """The part as a surface; its sizes must have been found sound."""
    shape = SHAPES[part.shape]
    sizes = [part.sizes[slug].mm for slug in shape.sizes]
    how = f"{part.shape}, {' × '.join(metres(mm) for mm in sizes)} m"
    if part.count > 1:
        how = f"{part.count} × {how}"
    return FaceGroup(slug_of(part), part.name, shape.area(*sizes) * part.count, how, "Parts", part.vertical)


def picture(part: FreePart) -> Drawing:
    """The part as a view of its own, named."""
    shape = SHAPES[part.shape]
    drawn = shape.draw(*(part.sizes[slug].mm for slug in shape.sizes))
    faces = [replace(face, surface=slug_of(part), name=part.name) for face in drawn.faces]
    name = part.name if part.count == 1 else f"{part.count} × {part.name}"
    return view(name, drawn.width, drawn.height, faces)


def _nothing(sizes: Sizes) -> tuple[FaceGroup, ...]:
    return ()


KIND = PieceKind("parts", "Built from parts", (), _nothing, lambda sizes: Drawing(0, 0, (), ()))
