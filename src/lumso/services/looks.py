"""What it will look like: pictures and strips of zones, finishes and mixes, and mixes for a colour that is wanted."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial
from itertools import count

from lumso.core.advice import Trial, with_finish
from lumso.core.book.catalogue import Catalogue, pick
from lumso.core.book.finishes import Finish
from lumso.core.colour.difference import lab_of
from lumso.core.colour.spectra import reflectance
from lumso.core.edits.variants import as_variant
from lumso.core.errors import InvalidValue
from lumso.core.job.job import Job, Use, Zone
from lumso.core.job.start import ground_for, start_layer
from lumso.core.layers.conditions import steady
from lumso.core.layers.stack import Stack
from lumso.core.look.laid_out import as_tile
from lumso.core.look.look import TILES_MM, Look
from lumso.core.look.match import FAR, MOST_PAINTS, Match, Onto, Palette, ShelfPaint, closer, matches, paints_on_shelf
from lumso.core.look.seen import Seen, seen
from lumso.core.look.spoons import InSpoons, in_spoons
from lumso.core.look.stages import Stage, at_stage, swing_of
from lumso.core.look.words import colour_in_words

from .context import Context
from .jobs import at_head
from .zones import layer_at, zone_of

SAYS = "An estimate. Make a test board."
MEASURED = 3
"""How many of the mixes found are measured out."""


@dataclass(frozen=True)
class ZoneLook:
    """A zone of a job, or one of its looks that are kept beside it."""

    job: Job
    zone: str
    variant: str = ""


@dataclass(frozen=True)
class Chip:
    """A picture of a look, `px` wide and high.

    With `upto` only its layers up to that one, with `stage` as it stands at a step, with `tile_mm` a stretch so wide
    that can be laid side by side with itself (0 for none): without the layers that have a layout, but for `pattern`,
    which is on it all over.
    """

    of: ZoneLook
    px: int
    upto: str = ""
    stage: Stage | None = None
    tile_mm: float = 0.0
    pattern: str = ""


def _drawn(stack: Callable[[], Stack], px: int, tile_mm: float, stage: Stage | None = None) -> bytes:
    from lumso.formats.png import png  # takes a while to load

    look = Look(stack())
    if stage:
        look = Look(look.stack, swing_of(look.judged, stage), stage.wet)
    return png(look.picture(px, tile_mm), 0.0 if tile_mm else look.side_mm, SAYS)


def _zone(asked: ZoneLook, here: Context) -> tuple[Zone, Trial]:
    zone, bench = zone_of(asked.job, asked.zone, here)
    return as_variant(zone, asked.variant), bench


def strip(asked: ZoneLook, here: Context) -> Seen:
    """From the bare ground to the last layer, wet and dry, each with the range of the estimate. Raises InvalidValue."""
    zone, bench = _zone(asked, here)
    return here.pictures.recall(
        ("seen", zone.id, asked.variant), (zone, bench.catalogue), lambda: seen(Look(bench.stack(zone)))
    )


def chip(asked: Chip, here: Context) -> bytes:
    """A picture of a zone's finish, lit from the upper left, with a bar of 50 mm, as PNG. Raises InvalidValue."""
    zone, bench = _zone(asked.of, here)
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
    place = ("chip", zone.id, asked.of.variant, upto, asked.px, asked.tile_mm, asked.pattern, asked.stage)
    args = (zone, bench.catalogue, bench.use)
    made = partial(_drawn, partial(bench.stack, zone), asked.px, asked.tile_mm, asked.stage)
    return here.pictures.recall(place, args, made)


def kept_chip(job_id: str, zone: str, stage: Stage, px: int, here: Context) -> bytes:
    """A picture of a zone of a kept job as it stands at a step, as PNG. Raises NotFound, InvalidValue."""
    return chip(Chip(ZoneLook(at_head(job_id, here), zone), px, stage=stage), here)


def finish_chip(slug: str, ground: str, relief: str, px: int, upto: int, here: Context) -> bytes:
    """A picture of a finish of the library on a ground, prepared and sealed as usual, as PNG; on the first it is for
    with "". With `upto` as it grows: so many of its layers. Raises UnknownEntry."""
    known = here.known()
    finish, bare = _bare(known, slug, ground, relief)

    def stack() -> Stack:
        made = _finished(known, finish, bare)
        return _bench(known).stack(replace(made, layers=made.layers[:upto]))

    args = (finish, bare, known)
    return here.pictures.recall(("finish", slug, px, upto), args, partial(_drawn, stack, px, 0.0))


def finish_layers(slug: str, ground: str, relief: str, here: Context) -> list[str]:
    """What a finish of the library is laid with on a ground, from the ground up, prepared and sealed as usual. Raises
    UnknownEntry."""
    known = here.known()
    finish, bare = _bare(known, slug, ground, relief)
    return [known.recipes[x.recipe].name for x in _finished(known, finish, bare).layers]


def _bare(known: Catalogue, slug: str, ground: str, relief: str) -> tuple[Finish, Zone]:
    """A finish, and the ground it is shown on with nothing on it. Raises UnknownEntry."""
    finish = pick("finish", known.finishes, slug)
    ground, relief = ground or finish.grounds[0], relief or finish.shown_on
    pick("ground", known.grounds, ground)
    pick("relief", known.reliefs, relief)
    return finish, Zone("chip", finish.name, ground, (), (), relief=relief)


def _finished(known: Catalogue, finish: Finish, bare: Zone) -> Zone:
    return with_finish(bare, finish, _bench(known), (f"chip-{n}" for n in count()))[0]


def recipe_chip(slug: str, px: int, here: Context) -> bytes:
    """A picture of a mix put on as usual, in its own colour, on a ground it is for, as PNG. Raises UnknownEntry."""
    known = here.known()
    recipe = pick("recipe", known.recipes, slug)
    ground = ground_for(recipe, known).slug
    zone = Zone("chip", recipe.name, ground, (), (start_layer("chip-1", slug, ground, known),))
    made = partial(_drawn, partial(_bench(known).stack, zone), px, 0.0)
    return here.pictures.recall(("recipe", slug, px), (zone, known), made)


def _bench(known: Catalogue) -> Trial:
    return Trial(Use(), (), known, steady())


@dataclass(frozen=True)
class Wanted:
    """A wanted colour (sRGB hex), what it may be mixed from beside the paints on the shelf, those of them it must not
    be, the layer of a zone it is for, and how much of it."""

    hex: str
    paints: tuple[ShelfPaint, ...]
    without: tuple[str, ...]
    onto: tuple[ZoneLook, str] | None
    ml: float


@dataclass(frozen=True)
class Matched:
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


def match(asked: Wanted, here: Context) -> Matched:
    """The mixes of at most three paints, and white or black, that come nearest to a wanted colour. Estimates. Raises
    InvalidValue."""
    known = here.known()
    every = (*paints_on_shelf(here.workshop(), known), *asked.paints)
    unlike = {p.slug: p for p in every if p.slug not in asked.without}
    wanted = reflectance(asked.hex)
    words = colour_in_words(lab_of(wanted))
    if not unlike:
        return Matched(asked.hex, words, (), (), (), False, "Put paints with their colours on your shelf first.")
    palette = Palette(tuple(unlike.values())[:MOST_PAINTS], known.optics, _onto(asked.onto, here))
    found = matches(wanted, palette)
    kit = known.kits[here.workshop().kit]
    spoons = tuple(in_spoons(m, asked.ml, kit, palette) for m in found[:MEASURED])
    return Matched(asked.hex, words, palette.paints, found, spoons, found[0].off <= FAR, closer(wanted, found[0]))


def _onto(asked: tuple[ZoneLook, str] | None, here: Context) -> Onto | None:
    """Where the wanted layer lies; None for a thick film by itself. Raises InvalidValue for a layer that is not."""
    if asked is None:
        return None
    of, layer = asked
    zone, bench = zone_of(of.job, of.zone, here)
    return Look(bench.stack(zone)).onto(layer_at(zone, layer, "onto/layer"))
