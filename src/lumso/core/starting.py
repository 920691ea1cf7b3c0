"""Where a new job, layer or pot starts from before anybody has said more."""

from dataclasses import replace

from .job import FromArea, FromTotal, Job, Layer, Piece, Zone
from .materials import Technique
from .pieces import kind_of
from .recipes import Recipe
from .workshop import Catalogue, pick


def technique_for(recipe: Recipe, surface: str, catalogue: Catalogue) -> Technique:
    """The recipe's first technique that is done on this kind of surface; failing that, its first."""
    own = [catalogue.techniques[slug] for slug in recipe.techniques]
    return next((t for t in own if not t.surfaces or surface in t.surfaces), own[0])


def start_layer(layer_id: str, recipe: str, ground: str, catalogue: Catalogue) -> Layer:
    """One coat of a recipe on a ground with its usual technique and tool. Raises UnknownEntry."""
    mixed = pick("recipe", catalogue.recipes, recipe)
    technique = technique_for(mixed, pick("ground", catalogue.grounds, ground).surface, catalogue)
    return Layer(layer_id, mixed.slug, technique.slug, technique.tools[0], FromArea("area"))


def start_job(name: str, zone_id: str, layer_id: str, recipe: str, ground: str, catalogue: Catalogue) -> Job:
    """A board with no sizes yet and one layer on what is usually coated of it. Raises UnknownEntry."""
    kind = kind_of("board")
    usual = {spec.slug: spec.usual_mm for spec in kind.sizes}
    coated = tuple(s.slug for s in kind.surfaces(usual) if not s.usually_bare)
    layer = start_layer(layer_id, recipe, ground, catalogue)
    return Job("lumso-job", 1, name, (Zone(zone_id, kind.name, ground, coated, (layer,)),), Piece(kind.slug, {}))


def start_pot(zone_id: str, layer_id: str, recipe: str, ml: float, catalogue: Catalogue) -> Job:
    """A quick pot: `ml` of a recipe with no piece, on the first ground the recipe is for. Raises UnknownEntry."""
    mixed = pick("recipe", catalogue.recipes, recipe)
    grounds = list(catalogue.grounds.values())
    ground = next((g for surface in mixed.surfaces for g in grounds if g.surface == surface), grounds[0])
    layer = start_layer(layer_id, recipe, ground.slug, catalogue)
    pot = replace(layer, want=FromTotal("total", ml))
    return Job("lumso-job", 1, f"Pot of {mixed.name.lower()}", (Zone(zone_id, "Pot", ground.slug, (), (pot,)),))


def put_on_piece(job: Job, kind: str = "board") -> Job:
    """A quick pot as a job: a piece of the kind with no sizes yet, the pot's mix now taken from its area."""
    piece = kind_of(kind)
    usual = {spec.slug: spec.usual_mm for spec in piece.sizes}
    coated = tuple(s.slug for s in piece.surfaces(usual) if not s.usually_bare)
    zones = tuple(
        Zone(z.id, piece.name, z.ground, coated, tuple(_by_area(layer) for layer in z.layers)) for z in job.zones
    )
    return Job(job.format, job.version, job.name, zones, Piece(piece.slug, {}), job.entries)


def _by_area(layer: Layer) -> Layer:
    return replace(layer, want=FromArea("area"))
