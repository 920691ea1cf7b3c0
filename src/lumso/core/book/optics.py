"""How films look: how strongly colours hide, what their sheen adds, and how they change as they dry."""

from dataclasses import dataclass
from typing import Annotated, Literal, NamedTuple

from annotated_types import Interval, MinLen

from ..value import Fraction, Name, NotNegative, Positive, Slug, Value
from .colours import Hex
from .films import Film, Kind
from .materials import Material

Gloss = Literal["dead matt", "matt", "eggshell", "satin", "semi-gloss", "gloss"]


@dataclass(frozen=True)
class HidingClass(Value):
    """A class of colours that hide alike."""

    slug: Slug
    name: Name
    scattering: Positive
    """S·X of one full coat."""
    told_from: Fraction
    """A band of an entered colour darker than this tells nothing more of how strongly its pigment absorbs."""


@dataclass(frozen=True)
class DryingLook(Value):
    """How films of some kinds change between wet and dry."""

    kinds: tuple[Kind, ...]
    wet_scatters: Annotated[float, Interval(gt=0, le=1)]
    """The share of its scattering a film has while it is wet: what dries paler has less."""
    milky: NotNegative
    """S·X of one coat of its binder while it is wet; it clears as it dries."""
    clear: bool
    """Whether it dries to a clear film around its pigment, and so deepens what lies beneath."""


@dataclass(frozen=True)
class Haze(Value):
    """What a clear film of a sheen scatters by itself: S·X of one full coat."""

    gloss: Gloss
    scattering: NotNegative


@dataclass(frozen=True)
class Pigmented(Value):
    """How much pigment a ml of what a material adds to a mix holds, where a full paint holds 1."""

    role: str
    solid: bool
    pigment: NotNegative


@dataclass(frozen=True)
class Spread(Value):
    """How far off an estimate may be: standard deviations of natural logarithms."""

    by_class: Positive
    """Scattering taken from the class of a colour."""
    by_label: Positive
    measured: Positive
    absorbing: Positive
    """Absorption, which follows from the colour that was entered."""
    rate: Positive
    """How thick a coat lies."""
    kept: Positive
    """What is left after wiping."""


class Kinds(NamedTuple):
    """Reliefs that are drawn otherwise than by their section."""

    turning: tuple[str, ...]
    coursed: tuple[str, ...]


@dataclass(frozen=True)
class Optics(Value):
    """Constants of how films look, with where they come from."""

    provenance: str
    full_film_um: Positive
    """The wet film of unthinned paint that hiding power is said for."""
    covered: Positive
    """ΔE₀₀ from the paint alone at which a ground counts as covered."""
    thin_spots: Fraction
    """A brushed film is as thin as this share of its mean in spots, and there the ground shows longest."""
    classes: Annotated[tuple[HidingClass, ...], MinLen(1)]
    surface: dict[Gloss, Fraction]
    """The share of the front surface's reflection that is scattered to the eye, by sheen."""
    first_surface: Fraction
    """k₁: what a front surface gives back before light enters."""
    inner_surface: Fraction
    """k₂: what it throws back of the light that would leave."""
    wet_gloss: Gloss
    entered_sealed: Gloss
    """The sheen of the sealer a colour is taken to have been seen under, where it was entered sealed."""
    haze: tuple[Haze, ...]
    amber: Hex
    """What a full dry film of an ambering material lets through of white, as a colour of the screen."""
    amber_um: Positive
    """How thick that film is, dry."""
    drying: tuple[DryingLook, ...]
    held: tuple[Pigmented, ...]
    pigments: dict[str, NotNegative]
    """Pigment held by materials that are otherwise than their role, by slug."""
    leaf: Hex
    """What metal leaf gives back until its colour is entered."""
    covers: Positive
    """p₀: pigment that is rubbed into wood, or that wiping leaves in what is rough, covers 1 − e^(−p/p₀) of it. As full
    coats of paint."""
    late_wood: Fraction
    """How much less of that late wood takes."""
    cloth_bridges_mm: Positive
    """How deep a hollow is in which wiping leaves all that it leaves in hollows."""
    spread: Spread
    turning: tuple[Slug, ...]
    """Reliefs that turn both ways, as carving does; others run on."""
    coursed: tuple[Slug, ...]
    """Reliefs that are courses of brick."""

    @property
    def kinds(self) -> Kinds:
        """Which reliefs are of which kind."""
        return Kinds(self.turning, self.coursed)

    def scattering_of(self, hiding_class: str) -> float:
        """S·X of one coat of a class. Raises KeyError for one that is not there."""
        return {c.slug: c.scattering for c in self.classes}[hiding_class]

    def told_from(self, hiding_class: str) -> float:
        """The darkest band of a colour of this class that tells how strongly it absorbs."""
        return {c.slug: c.told_from for c in self.classes}[hiding_class]

    def surface_of(self, gloss: str) -> float:
        """The share scattered at a surface of this sheen; of one that is not known, as matt."""
        return {str(k): v for k, v in self.surface.items()}.get(gloss, self.surface["matt"])

    def pigment_in(self, material: Material) -> float:
        """How much pigment a ml of what it adds to a mix holds, where a full paint holds 1."""
        if material.slug in self.pigments:
            return self.pigments[material.slug]
        fits = (h.pigment for h in self.held if h.role == material.role and h.solid == material.is_solid)
        return next(fits, 0.0)

    def drying_of(self, film: Film) -> DryingLook:
        """How a film changes between wet and dry; one of no known kind does not."""
        return next((d for d in self.drying if film.kind in d.kinds), DryingLook((), 1.0, 0.0, False))

    def haze_of(self, gloss: str) -> float:
        """What a clear film of this sheen scatters, as S·X of one full coat."""
        return next((h.scattering for h in self.haze if h.gloss == gloss), 0.0)
