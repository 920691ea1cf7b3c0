"""What it will look like: pictures and strips of zones, finishes and mixes. Computes and keeps nothing."""

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from itertools import count
from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, ConfigDict, Field, RootModel

from lumso.core.advice import Trial, with_finish
from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.book.colours import Hex
from lumso.core.book.finishes import Finish
from lumso.core.colour.difference import lab_of
from lumso.core.colour.hiding import per_coat
from lumso.core.colour.measured import from_draw_down, from_tint_board
from lumso.core.colour.spectra import reflectance
from lumso.core.edits.variants import as_variant
from lumso.core.errors import InvalidValue
from lumso.core.job.job import Use, Zone
from lumso.core.job.start import ground_for, start_layer
from lumso.core.layers.conditions import steady
from lumso.core.layers.stack import Stack
from lumso.core.look.laid_out import as_tile
from lumso.core.look.look import TILES_MM, Look
from lumso.core.look.match import FAR, MOST_PAINTS, Match, Onto, Palette, ShelfPaint, closer, matches, paints_on_shelf
from lumso.core.look.seen import Seen, seen
from lumso.core.look.spoons import InSpoons, in_spoons
from lumso.core.look.stages import Hand, Stage, at_stage, swing_of
from lumso.core.look.words import colour_in_words
from lumso.core.value import Slug
from lumso.formats import jobfile
from lumso.services.context import Context
from lumso.store import jobs

from .bodies import JobBody
from .context import Here
from .finish import ZoneIn, layer_at, zone_of

router = APIRouter(prefix="/look", tags=["look"])

Px = Annotated[int, Query(ge=32, le=640, multiple_of=32, description="How many pixels wide and high.")]
Count = Annotated[int, Query(ge=0, le=20)]
SAYS = "An estimate. Make a test board."
PNG = {"image/png": {"schema": {"type": "string", "format": "binary"}}}


class SeenBody(RootModel[Seen]):
    """A zone's strip, what is seen from afar, and how sure that is."""


class LookIn(ZoneIn):
    """A zone, or one of its looks that are kept beside it."""

    variant: str = ""


class ChipIn(LookIn):
    """A look of a zone; with `upto` only its layers up to that one, with `stage` as it stands at a step, with `tile_mm`
    a stretch so wide that can be laid side by side with itself: without the layers that have a layout, but for
    `pattern`, which is on it all over."""

    upto: str = ""
    stage: Stage | None = None
    tile_mm: Annotated[float, Field(allow_inf_nan=False)] = 0.0
    """0 for none."""
    pattern: str = ""


class Picture(Response):
    """A picture that may be kept as long as nothing it shows has changed."""

    media_type = "image/png"


def _sent(picture: bytes, kept_s: int = 0) -> Picture:
    keep = f"private, max-age={kept_s}" if kept_s else "no-store"
    return Picture(picture, headers={"Cache-Control": keep, "Content-Encoding": "identity"})


def _drawn(stack: Callable[[], Stack], px: int, tile_mm: float, stage: Stage | None = None) -> bytes:
    from lumso.formats.png import png  # takes a while to load

    look = Look(stack())
    if stage:
        look = Look(look.stack, swing_of(look.judged, stage), stage.wet)
    return png(look.picture(px, tile_mm), 0.0 if tile_mm else look.side_mm, SAYS)


def _zone(asked: LookIn, here: Context) -> tuple[Zone, Trial]:
    zone, bench = zone_of(asked, here)
    return as_variant(zone, asked.variant), bench


@router.post("")
def strip(asked: LookIn, here: Here) -> SeenBody:
    """From the bare ground to the last layer, wet and dry, each with the range of the estimate."""
    zone, bench = _zone(asked, here)
    made = here.pictures.recall(
        ("seen", zone.id, asked.variant), (zone, bench.catalogue), lambda: seen(Look(bench.stack(zone)))
    )
    return SeenBody(made)


@router.post("/chip", response_class=Picture, responses={200: {"content": PNG}})
def chip(asked: ChipIn, here: Here, px: Px = 320) -> Picture:
    """A picture of a zone's finish, lit from the upper left, with a bar of 50 mm."""
    zone, bench = _zone(asked, here)
    upto = 1 + layer_at(zone, asked.upto, "upto") if asked.upto else len(zone.layers)
    zone = replace(zone, layers=zone.layers[:upto])
    if asked.stage:
        zone = at_stage(zone, layer_at(zone, asked.stage.layer, "layer"), asked.stage)
    if asked.tile_mm:
        if asked.tile_mm not in TILES_MM:
            allowed = ", ".join(f"{mm:g}" for mm in (0, *TILES_MM))
            raise InvalidValue("There is no tile so wide.", value=asked.tile_mm, allowed=allowed, field="tile_mm")
        if asked.pattern:
            layer_at(zone, asked.pattern, "pattern")
        zone = as_tile(zone, asked.pattern)
    place = ("chip", zone.id, asked.variant, upto, px, asked.tile_mm, asked.pattern, asked.stage)
    args = (zone, bench.catalogue, bench.use)
    made = partial(_drawn, partial(bench.stack, zone), px, asked.tile_mm, asked.stage)
    return _sent(here.pictures.recall(place, args, made))


@router.get("/jobs/{job_id}/{zone}/{layer}", response_class=Picture, responses={200: {"content": PNG}})
def stage_chip(job_id: str, zone: str, layer: str, here: Here, *, coats: Count = 0, sandings: Count = 0,
               hand: Hand = "", wet: bool = False, px: Px = 160) -> Picture:  # fmt: skip
    """A picture of a zone of a kept job as it stands at a step."""
    job = jobfile.from_json(jobs.get(here.db, job_id).document, f"Job {job_id}")
    stage = Stage(layer, coats, sandings, hand, wet)
    return chip(ChipIn(job=JobBody(job), zone=zone, stage=stage), here, px)


@router.get("/finishes/{slug}", response_class=Picture, responses={200: {"content": PNG}})
def finish_chip(slug: str, here: Here, ground: str = "", relief: str = "", px: Px = 160,
                upto: Count = 20) -> Picture:  # fmt: skip
    """A picture of a finish of the library on a ground, prepared and sealed as usual; the first it is for without. With
    `upto` as it grows: so many of its layers."""
    known = here.known()
    finish, bare = _bare(known, slug, ground, relief)

    def stack() -> Stack:
        made = _finished(known, finish, bare)
        return _bench(known).stack(replace(made, layers=made.layers[:upto]))

    args = (finish, bare, known)
    return _sent(here.pictures.recall(("finish", slug, px, upto), args, partial(_drawn, stack, px, 0.0)), 300)


@router.get("/finishes/{slug}/layers")
def finish_layers(slug: str, here: Here, ground: str = "", relief: str = "") -> list[str]:
    """What a finish of the library is laid with on a ground, from the ground up, prepared and sealed as usual."""
    known = here.known()
    finish, bare = _bare(known, slug, ground, relief)
    layers = _finished(known, finish, bare).layers
    return [known.recipes[x.recipe].name for x in layers]


def _bare(known: Catalogue, slug: str, ground: str, relief: str) -> tuple[Finish, Zone]:
    """A finish, and the ground it is shown on with nothing on it. Raises UnknownEntry."""
    finish = pick("finish", known.finishes, slug)
    ground, relief = ground or finish.grounds[0], relief or finish.shown_on
    pick("ground", known.grounds, ground)
    pick("relief", known.reliefs, relief)
    return finish, Zone("chip", finish.name, ground, (), (), relief=relief)


def _finished(known: Catalogue, finish: Finish, bare: Zone) -> Zone:
    return with_finish(bare, finish, _bench(known), (f"chip-{n}" for n in count()))[0]


@router.get("/recipes/{slug}", response_class=Picture, responses={200: {"content": PNG}})
def recipe_chip(slug: str, here: Here, px: Px = 160) -> Picture:
    """A picture of a mix put on as usual, in its own colour, on a ground it is for."""
    known = here.known()
    recipe = pick("recipe", known.recipes, slug)
    ground = ground_for(recipe, known).slug
    zone = Zone("chip", recipe.name, ground, (), (start_layer("chip-1", slug, ground, known),))
    made = partial(_drawn, partial(_bench(known).stack, zone), px, 0.0)
    return _sent(here.pictures.recall(("recipe", slug, px), (zone, known), made), 300)


class OntoIn(ZoneIn):
    """The layer of a zone that a matched colour is for."""

    layer: str


class MatchIn(BaseModel):
    """A wanted colour, and what it may be mixed from: the paints on the shelf, and those that are named here.

    With `onto` it is matched as that layer will lie: over what is beneath, as thick, sealed as it is sealed.
    """

    model_config = ConfigDict(extra="forbid")
    wanted: Hex
    paints: Annotated[tuple[ShelfPaint, ...], Field(max_length=MOST_PAINTS)] = ()
    without: Annotated[tuple[Slug, ...], Field(max_length=200)] = ()
    onto: OntoIn | None = None
    ml: Annotated[float, Field(gt=0, le=20_000, allow_inf_nan=False)] = 60.0


class MatchOut(BaseModel):
    """The nearest mixes, the best first, each measured with the kit in use; and what they were searched among."""

    wanted: str
    words: str
    paints: tuple[ShelfPaint, ...]
    matches: tuple[Match, ...]
    spoons: tuple[InSpoons, ...]
    near: bool
    """False where nothing near exists."""
    closer: str
    """What would bring the best one nearer; "" where nothing need."""


class DrawDown(BaseModel):
    """One coat over black and over white, as seen dry."""

    model_config = ConfigDict(extra="forbid")
    over_black: Hex
    over_white: Hex


class TintSeen(BaseModel):
    """A tint of a paint in a white: the paint's share of the mix by volume, and what it looks like dry."""

    model_config = ConfigDict(extra="forbid")
    white: Hex
    share: Annotated[float, Field(ge=0.01, le=0.6, allow_inf_nan=False)]
    seen: Hex


class HidesIn(BaseModel):
    """A paint, and one of two ways to see how it hides."""

    model_config = ConfigDict(extra="forbid")
    hex: Hex
    drawn: DrawDown | None = None
    tint: TintSeen | None = None


class HidesOut(BaseModel):
    """S·X of one coat, as measured."""

    scattering: float


@router.post("/hides")
def hides(asked: HidesIn, here: Here) -> HidesOut:
    """How strongly a paint hides, from a draw-down over black and white, or from a tint in a white."""
    if asked.drawn:
        return HidesOut(scattering=from_draw_down(asked.hex, asked.drawn.over_black, asked.drawn.over_white))
    if asked.tint is None:
        allowed = "a draw-down over black and white, or a tint"
        raise InvalidValue("Nothing was seen of it.", value="", allowed=allowed, field="drawn")
    strong = per_coat(asked.tint.white, here.known().optics)
    found = from_tint_board(asked.hex, asked.tint.white, strong, asked.tint.share, asked.tint.seen)
    return HidesOut(scattering=found)


MEASURED = 3
"""How many of the mixes found are measured out."""


@router.post("/match")
def match(asked: MatchIn, here: Here) -> MatchOut:
    """The mixes of at most three paints, and white or black, that come nearest to a wanted colour. Estimates."""
    known = here.known()
    every = (*paints_on_shelf(here.workshop(), known), *asked.paints)
    unlike = {p.slug: p for p in every if p.slug not in asked.without}
    wanted = reflectance(asked.wanted)
    if not unlike:
        return MatchOut(wanted=asked.wanted, words=colour_in_words(lab_of(wanted)), paints=(), matches=(), spoons=(),
                        near=False, closer="Put paints with their colours on your shelf first.")  # fmt: skip
    palette = Palette(tuple(unlike.values())[:MOST_PAINTS], known.optics, _onto(asked.onto, here))
    found = matches(wanted, palette)
    kit = known.kits[here.workshop().kit]
    return MatchOut(
        wanted=asked.wanted,
        words=colour_in_words(lab_of(wanted)),
        paints=palette.paints,
        matches=found,
        spoons=tuple(in_spoons(m, asked.ml, kit, palette) for m in found[:MEASURED]),
        near=found[0].off <= FAR,
        closer=closer(wanted, found[0]),
    )


def _onto(asked: OntoIn | None, here: Context) -> Onto | None:
    """Where the wanted layer lies; None for a thick film by itself. Raises InvalidValue for a layer that is not."""
    if asked is None:
        return None
    zone, bench = zone_of(asked, here)
    return Look(bench.stack(zone)).onto(layer_at(zone, asked.layer, "onto/layer"))


def _bench(known: Catalogue) -> Trial:
    return Trial(Use(), (), known, steady())
