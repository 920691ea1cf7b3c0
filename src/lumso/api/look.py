"""What it will look like: pictures and strips of zones, finishes and mixes. Computes and keeps nothing."""

from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, ConfigDict, Field, RootModel

from lumso.core.book.colours import Hex
from lumso.core.colour.hiding import per_coat
from lumso.core.colour.measured import from_draw_down, from_tint_board
from lumso.core.errors import InvalidValue
from lumso.core.look.match import MOST_PAINTS, ShelfPaint
from lumso.core.look.seen import Seen
from lumso.core.look.stages import Hand, Stage
from lumso.core.value import Slug
from lumso.services import looks
from lumso.services.looks import Chip, Matched, Wanted, ZoneLook

from .context import Here
from .zones import OffersIn, ZoneIn

router = APIRouter(prefix="/look", tags=["look"])

Px = Annotated[int, Query(ge=32, le=640, multiple_of=32, description="How many pixels wide and high.")]
Count = Annotated[int, Query(ge=0, le=20)]
PNG = {"image/png": {"schema": {"type": "string", "format": "binary"}}}


class SeenBody(RootModel[Seen]):
    """A zone's strip, what is seen from afar, and how sure that is."""


class LookIn(ZoneIn):
    """A zone, or one of its looks that are kept beside it."""

    variant: str = ""

    def of(self) -> ZoneLook:
        """What is asked of the service."""
        return ZoneLook(self.job.root, self.zone, self.variant)


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


@router.post("")
def strip(asked: LookIn, here: Here) -> SeenBody:
    """From the bare ground to the last layer, wet and dry, each with the range of the estimate."""
    return SeenBody(looks.strip(asked.of(), here))


@router.post("/chip", response_class=Picture, responses={200: {"content": PNG}})
def chip(asked: ChipIn, here: Here, px: Px = 320) -> Picture:
    """A picture of a zone's finish, lit from the upper left, with a bar of 50 mm."""
    return _sent(looks.chip(Chip(asked.of(), px, asked.upto, asked.stage, asked.tile_mm, asked.pattern), here))


@router.get("/jobs/{job_id}/{zone}/{layer}", response_class=Picture, responses={200: {"content": PNG}})
def stage_chip(job_id: str, zone: str, layer: str, here: Here, *, coats: Count = 0, sandings: Count = 0,
               hand: Hand = "", wet: bool = False, px: Px = 160) -> Picture:  # fmt: skip
    """A picture of a zone of a kept job as it stands at a step."""
    return _sent(looks.kept_chip(job_id, zone, Stage(layer, coats, sandings, hand, wet), px, here))


@router.get("/finishes/{slug}", response_class=Picture, responses={200: {"content": PNG}})
def finish_chip(slug: str, here: Here, ground: str = "", relief: str = "", px: Px = 160,
                upto: Count = 20) -> Picture:  # fmt: skip
    """A picture of a finish of the library on a ground, prepared and sealed as usual; the first it is for without. With
    `upto` as it grows: so many of its layers."""
    return _sent(looks.finish_chip(slug, ground, relief, px, upto, here), 300)


@router.get("/finishes/{slug}/layers")
def finish_layers(slug: str, here: Here, ground: str = "", relief: str = "") -> list[str]:
    """What a finish of the library is laid with on a ground, from the ground up, prepared and sealed as usual."""
    return looks.finish_layers(slug, ground, relief, here)


@router.get("/recipes/{slug}", response_class=Picture, responses={200: {"content": PNG}})
def recipe_chip(slug: str, here: Here, px: Px = 160) -> Picture:
    """A picture of a mix put on as usual, in its own colour, on a ground it is for."""
    return _sent(looks.recipe_chip(slug, px, here), 300)


class MatchIn(BaseModel):
    """A wanted colour, and what it may be mixed from: the paints on the shelf, and those that are named here.

    With `onto` it is matched as that layer will lie: over what is beneath, as thick, sealed as it is sealed.
    """

    model_config = ConfigDict(extra="forbid")
    wanted: Hex
    paints: Annotated[tuple[ShelfPaint, ...], Field(max_length=MOST_PAINTS)] = ()
    without: Annotated[tuple[Slug, ...], Field(max_length=200)] = ()
    onto: OffersIn | None = None
    ml: Annotated[float, Field(gt=0, le=20_000, allow_inf_nan=False)] = 60.0


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


@router.post("/match")
def match(asked: MatchIn, here: Here) -> Matched:
    """The mixes of at most three paints, and white or black, that come nearest to a wanted colour. Estimates."""
    onto = None if asked.onto is None else (ZoneLook(asked.onto.job.root, asked.onto.zone), asked.onto.layer)
    return looks.match(Wanted(asked.wanted, asked.paints, asked.without, onto, asked.ml), here)
