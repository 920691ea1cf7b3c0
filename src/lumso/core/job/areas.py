"""The piece as areas: sizes checked, surfaces measured, zones summed, and what was left out and why."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from math import hypot

from ..book.catalogue import Catalogue, pick
from ..errors import Problem, UnknownEntry
from ..figure import Figure, Step, tidy
from ..measure.drawing import Drawing, lay_out
from ..measure.lengths import say_length
from ..measure.shapes import rectangle
from ..piece.kinds import FaceGroup, PieceKind, SizeSpec, free, kind_of
from ..piece.piece import Band, Piece
from ..value import Value
from .job import Job, Zone

CLASSES = {"measured": 1.0, "small": 0.75, "medium": 1.0, "large": 1.3}
ROUGH_WITHOUT, ROUGH_WITH = 0.4, 0.25
"""How far an area may be off when no size was given, and when some were: untested starting points."""
USUAL_OFF = 0.25
"""How far a size may be off that is as such pieces usually have it: an untested starting point."""


@dataclass(frozen=True)
class SurfaceArea(Value):
    """A surface of the piece: its area in m² (all like pieces together), and the zone that coats it.

    `zone` is "" where it is left bare, and `why` then says why.
    """

    slug: str
    name: str
    area_m2: float
    vertical: bool
    zone: str
    why: str


@dataclass(frozen=True)
class MeasuredPiece:
    """A piece with its sizes made use of; nothing of it where there is none, or where it has a problem."""

    surfaces: Mapping[str, FaceGroup] = field(default_factory=dict)
    drawing: Drawing | None = None
    rough: float = 0.0
    """How far areas may be off: 0 when everything was measured."""
    problems: tuple[Problem, ...] = ()
    bands: tuple[float, ...] = ()
    """m² of each band that stays bare."""
    presumed: tuple[str, ...] = ()
    """Names of the sizes that are usual and were not measured."""


def sizes_of(piece: Piece, kind: PieceKind) -> tuple[dict[str, float], float]:
    """The sizes to count with, and how rough they are. What is missing in a rough piece follows the usual
    proportions: the mean of what was given over what is usual, or the size class when nothing was."""
    given = {slug: length.mm for slug, length in piece.sizes.items()}
    usual = {spec.slug: spec.usual_mm for spec in kind.sizes}
    counts = {spec.slug: float(piece.counts.get(spec.slug, spec.usual)) for spec in kind.counts}
    if piece.rough == "measured":
        absent = {spec.slug: spec.usual_mm for spec in kind.sizes if _absent(spec, piece, kind)}
        return {**absent, **given, **counts}, 0.0
    known = [given[slug] / mm for slug, mm in usual.items() if slug in given and mm]
    scale = sum(known) / len(known) if known else CLASSES[piece.rough]
    missing = {slug: mm * scale for slug, mm in usual.items() if slug not in given}
    rough = 0.0 if not missing else ROUGH_WITH if known else ROUGH_WITHOUT
    return {**missing, **given, **counts}, rough


def presumed(piece: Piece, kind: PieceKind) -> tuple[SizeSpec, ...]:
    """The sizes nobody measured: usual ones, and in a rough piece those not given."""
    given = {slug for slug, length in piece.sizes.items() if length.source != "usual"}
    left = [spec for spec in kind.sizes if spec.slug not in given and not _absent(spec, piece, kind)]
    return tuple(s for s in left if s.slug in piece.sizes or piece.rough != "measured")


def usual_off(kind: PieceKind, sizes: Mapping[str, float], usual: Sequence[SizeSpec]) -> float:
    """How far the whole area may be off, as a share of it, where these sizes are usual ones: what it moves by when
    each of them is a quarter more, independent of each other."""
    area = sum(s.area_m2 for s in kind.surfaces(sizes))
    if not area:
        return 0.0
    moved = (sum(s.area_m2 for s in kind.surfaces({**sizes, u.slug: sizes[u.slug] * (1 + USUAL_OFF)})) for u in usual)
    return hypot(*(m / area - 1 for m in moved))


def not_measured(names: Sequence[str]) -> str:
    """What stands at the head of all that follows from sizes nobody measured; "" for none.

    >>> not_measured(("Width", "Height"))
    'Sizes not measured: width, height. Usual ones are taken.'
    """
    return f"Sizes not measured: {', '.join(n.lower() for n in names)}. Usual ones are taken." if names else ""


def _absent(spec: SizeSpec, piece: Piece, kind: PieceKind) -> bool:
    """Whether a size is of something the piece has none of."""
    count = next((c for c in kind.counts if c.slug == spec.of), None)
    return count is not None and piece.counts.get(count.slug, count.usual) == 0


def check_sizes(piece: Piece, kind: PieceKind) -> list[Problem]:
    """Sizes and counts that are missing, unknown, out of bounds, or made impossible by the others."""
    problems = []
    for spec in kind.sizes:
        at, given = f"/piece/sizes/{spec.slug}", piece.sizes.get(spec.slug)
        allowed = f"{say_length(spec.least_mm)} to {say_length(spec.most_mm)}"
        if given is None:
            if piece.rough == "measured" and not _absent(spec, piece, kind):
                problems.append(Problem(at, f"{spec.name} is missing.", allowed))
        elif not spec.least_mm <= given.mm <= spec.most_mm:
            problems.append(Problem(at, f"{spec.name} {given.typed!r} is {say_length(given.mm)}.", allowed))
    for number in kind.counts:
        n = piece.counts.get(number.slug, number.usual)
        if not number.least <= n <= number.most:
            says = f"{n} is too few or too many for {number.name.lower()}."
            problems.append(Problem(f"/piece/counts/{number.slug}", says, f"{number.least} to {number.most}"))
    for noun, given_slugs, known in (
        ("sizes", piece.sizes.keys(), {spec.slug for spec in kind.sizes}),
        ("counts", piece.counts.keys(), {spec.slug for spec in kind.counts}),
    ):
        for slug in sorted(given_slugs - known):
            says = f"A {kind.name.lower()} has no {noun} called {slug!r}."
            problems.append(Problem(f"/piece/{noun}/{slug}", says, ", ".join(sorted(known)) or "none"))
    if problems:
        return problems
    sizes, _ = sizes_of(piece, kind)
    return [Problem(_place(kind, m.slug), m.says, m.allowed) for m in kind.check(sizes)]


def _place(kind: PieceKind, slug: str) -> str:
    return f"/piece/{'counts' if slug in {c.slug for c in kind.counts} else 'sizes'}/{slug}"


def band_area(band: Band) -> float:
    """m² of a band, all like ones together."""
    return rectangle(band.length.mm, band.width.mm) * band.count


def measure(job: Job) -> MeasuredPiece:
    """The surfaces and the drawing of the job's piece, less its bands, with what is wrong with its sizes."""
    if job.piece is None:
        return MeasuredPiece()
    try:
        kind = kind_of(job.piece.kind)
    except UnknownEntry as error:
        says = f"There is no piece called {error.slug!r}."
        return MeasuredPiece(problems=(Problem("/piece/kind", says, ", ".join(error.known)),))
    if found := check_sizes(job.piece, kind):
        return MeasuredPiece(problems=tuple(found))
    sizes, rough = sizes_of(job.piece, kind)
    unmeasured = presumed(job.piece, kind)
    rough = max(rough, usual_off(kind, sizes, [u for u in unmeasured if u.slug in job.piece.sizes]))
    surfaces = {s.slug: s for s in kind.surfaces(sizes) if s.area_m2 > 1e-9}
    views = [kind.draw(sizes)] if surfaces else []
    problems: list[Problem] = []
    for i, part in enumerate(job.piece.parts):
        if wrong := free.faults(part):
            problems += [Problem(f"/piece/parts/{i}/sizes/{slug}", says, allowed) for slug, says, allowed in wrong]
            continue
        surfaces[free.slug_of(part)] = free.surface(part)
        views.append(free.picture(part))
    if not surfaces:
        problems.append(Problem("/piece/parts", "There is nothing to coat yet.", "at least one part with its sizes"))
        return MeasuredPiece(problems=tuple(problems))
    for i, band in enumerate(job.piece.bands):
        surface = surfaces.get(band.surface)
        at = f"/piece/bands/{i}"
        if surface is None:
            says = f"The piece has no surface {band.surface!r}."
            problems.append(Problem(f"{at}/surface", says, ", ".join(surfaces)))
            continue
        area = band_area(band)
        if area >= surface.area_m2:
            says = f"{band.name} is larger than {surface.name.lower()}: {tidy(area)} of {tidy(surface.area_m2)} m²."
            problems.append(Problem(f"{at}/length", says, f"less than {tidy(surface.area_m2)} m² altogether"))
            continue
        how = f"{surface.how}, less {tidy(area)} m² of {band.name.lower()}"
        surfaces[band.surface] = replace(surface, area_m2=surface.area_m2 - area, how=how)
    owner = {slug: zone.id for zone in job.zones for slug in zone.surfaces}
    drawing = views[0] if len(views) == 1 else lay_out(*views)
    faces = tuple(replace(f, zone=owner.get(f.surface, "")) for f in drawing.faces)
    bands = tuple(band_area(band) for band in job.piece.bands)
    names = tuple(u.name for u in unmeasured)
    return MeasuredPiece(surfaces, replace(drawing, faces=faces), rough, tuple(problems), bands, names)


def zone_area(zone: Zone, piece: Piece, surfaces: Mapping[str, FaceGroup], catalogue: Catalogue, at: str,
              rough: float = 0.0) -> Figure | Problem:  # fmt: skip
    """The zone's area in m² with relief, all like pieces together; or why there is none. `at` is where the zone is,
    `rough` how far its sizes may be off."""
    kind = kind_of(piece.kind)
    known = {s.slug for s in kind.surfaces(kind.usual())} | surfaces.keys()
    known |= {free.slug_of(part) for part in piece.parts}
    unknown = [s for s in zone.surfaces if s not in known]
    if unknown:
        says = f"{zone.name} names a surface {unknown[0]!r} that the piece does not have."
        return Problem(f"{at}/surfaces", says, ", ".join(surfaces))
    mine = [surfaces[s] for s in zone.surfaces if s in surfaces]
    if not mine:
        says = f"{zone.name} has no surface to coat."
        return Problem(f"{at}/surfaces", says, f"at least one of {', '.join(surfaces)}")
    steps = [Step(s.name, s.how, s.area_m2, "m²", "geometry") for s in mine]
    total = sum(step.value for step in steps)
    if len(steps) > 1:
        steps.append(Step("Area", " + ".join(tidy(s.value) for s in steps), total, "m²", "geometry"))
    if piece.like > 1:
        how = f"{tidy(total)} m² × {piece.like} like pieces"
        total *= piece.like
        steps.append(Step("All of them", how, total, "m²", "geometry"))
    try:
        relief = pick("relief", catalogue.reliefs, zone.relief)
    except UnknownEntry as error:
        return Problem(f"{at}/relief", f"There is no relief {zone.relief!r}.", ", ".join(error.known))
    if relief.factor > 1:
        how = f"{tidy(total)} m² × {relief.factor:g}, {relief.name}"
        total *= relief.factor
        steps.append(Step("With relief", how, total, "m²", "starting value", relief.provenance))
    return Figure(total, "m²", tuple(steps), rough)


def in_two_zones(job: Job) -> tuple[Problem, ...]:
    """Surfaces that more than one zone names: a surface belongs to one zone at most."""
    seen: set[str] = set()
    found = []
    for i, zone in enumerate(job.zones):
        for slug in zone.surfaces:
            if slug in seen and job.piece is not None:
                says = f"{slug!r} is in two zones."
                found.append(Problem(f"/zones/{i}/surfaces", says, "each surface in one zone"))
            seen.add(slug)
    return tuple(found)


def partition(job: Job, surfaces: Mapping[str, FaceGroup]) -> tuple[SurfaceArea, ...]:
    """Every surface with the zone that coats it, or why it is left out."""
    if job.piece is None:
        return ()
    owner = {slug: zone.id for zone in job.zones for slug in zone.surfaces}
    return tuple(
        SurfaceArea(
            s.slug,
            s.name,
            s.area_m2 * job.piece.like,
            s.vertical,
            owner.get(s.slug, ""),
            "" if s.slug in owner else job.piece.reasons.get(s.slug) or s.usually_bare or "left bare by choice",
        )
        for s in surfaces.values()
    )
