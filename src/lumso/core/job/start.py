"""Where a new job, layer or pot starts from before anybody has said more."""

from collections.abc import Iterator
from dataclasses import replace

from ..book.catalogue import Catalogue, pick
from ..book.forms import Form
from ..book.recipes import Recipe
from ..book.surfaces import Ground
from ..book.techniques import Technique
from ..measure.lengths import Bare, Length, usual_length
from ..piece.kinds import PieceKind, kind_of, suggested_zones
from ..piece.piece import Piece
from .job import FromArea, FromTotal, Job, Layer, Zone, new_job


def technique_for(recipe: Recipe, surface: str, catalogue: Catalogue) -> Technique:
    """The recipe's first technique that is done on this kind of surface; failing that, its first."""
    own = [catalogue.techniques[slug] for slug in recipe.techniques]
    return next((t for t in own if not t.surfaces or surface in t.surfaces), own[0])


def start_layer(layer_id: str, recipe: str, ground: str, catalogue: Catalogue) -> Layer:
    """One coat of a recipe on a bare ground with its usual technique and tool. Raises UnknownEntry."""
    return start_on(layer_id, recipe, pick("ground", catalogue.grounds, ground).surface, catalogue)


def start_on(layer_id: str, recipe: str, surface: str, catalogue: Catalogue) -> Layer:
    """One coat of a recipe on a kind of surface with its usual technique and tool. Raises UnknownEntry."""
    mixed = pick("recipe", catalogue.recipes, recipe)
    technique = technique_for(mixed, surface, catalogue)
    start = Layer(layer_id, mixed.slug, technique.slug, technique.tools[0], FromArea("area"))
    return replace(start, touched=technique.touched, thickness_mm=technique.usual_mm)


def ground_for(recipe: Recipe, catalogue: Catalogue) -> Ground:
    """The first ground that a recipe is for; where it says nothing, unsealed paint, which most mixes go over."""
    grounds = list(catalogue.grounds.values())
    wanted = (*recipe.surfaces, "unsealed paint")
    return next((g for surface in wanted for g in grounds if g.surface == surface), grounds[0])


def start_pot(zone_id: str, layer_id: str, recipe: str, ml: float, catalogue: Catalogue) -> Job:
    """A quick pot: `ml` of a recipe with no piece, on the first ground the recipe is for. Raises UnknownEntry."""
    mixed = pick("recipe", catalogue.recipes, recipe)
    ground = ground_for(mixed, catalogue)
    layer = start_layer(layer_id, recipe, ground.slug, catalogue)
    pot = replace(layer, want=FromTotal("total", ml))
    return new_job(f"Pot of {mixed.name.lower()}", (Zone(zone_id, "Pot", ground.slug, (), (pot,)),))


def usual_sizes(kind: PieceKind, form: Form | None, bare: Bare = "mm") -> dict[str, Length]:
    """The sizes a piece of this kind usually has, as a form of it or of itself, in the words of a workshop."""
    said = form.sizes if form else {}
    return {s.slug: usual_length(said.get(s.slug, s.usual_mm), bare) for s in kind.sizes}


def on_piece(job: Job, kind: str, ids: Iterator[str]) -> Job:
    """The job on another kind of piece: no sizes yet, its usual zones, each with the layers the first zone has.

    `ids` gives ids for zones and layers that were never used before. Amounts are taken from the area from then
    on. Raises UnknownEntry for a kind that is not there.
    """
    piece = kind_of(kind)
    first = job.zones[0]
    zones = tuple(
        replace(
            first,
            id=next(ids),
            name=name,
            surfaces=surfaces,
            layers=tuple(replace(layer, id=next(ids), want=FromArea("area")) for layer in first.layers),
        )
        for name, surfaces in suggested_zones(piece) or [("Parts", ())]
    )
    before = job.piece or Piece(piece.slug, {})
    return replace(job, zones=zones, piece=Piece(piece.slug, {}, rough=before.rough, like=before.like))
