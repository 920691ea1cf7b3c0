"""The look of a zone: its strip of colours, and its picture. Every colour is an estimate."""

from collections.abc import Mapping
from dataclasses import replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ..book.catalogue import pick
from ..book.hands import Judged, Swing, judged_laid, judged_sanded
from ..book.marks import mark_of
from ..colour.spectra import reflectance
from ..layers.stack import Stack
from .column import Column, colours_up, column
from .films import LayerFilm, layer_film
from .ground import PLAIN, Stand, side_mm, stand
from .match import Onto
from .noise import Sheet
from .picture import light_of, picture
from .stages import swung
from .surface import LookSurface, surface_of

SEED, TILES_MM = 20, (450.0, 900.0, 1800.0, 3600.0)
"""The seed of every picture, and how much of a surface tiles show, in mm."""
SHEENS = {"raw wood": "matt", "unsealed paint": "dead matt", "plaster": "matt", "brick": "matt", "sealed": "satin",
          "slick": "satin"}  # fmt: skip
"""How a ground shines where nobody has said."""


class Look:
    """A zone's stack, ready to be looked at."""

    def __init__(self, stack: Stack, swing: Swing | None = None, wet: bool = False,
                 hands: Mapping[str, Swing] | None = None) -> None:  # fmt: skip
        """`swing`: its last layer otherwise than right, `hands`: any of them, by id; `wet`: before the last is dry."""
        self.stack, self.swing, self.wet, self.hands = stack, swing, wet, hands or {}
        self.optics = stack.catalogue.optics

    @cached_property
    def films(self) -> tuple[LayerFilm, ...]:
        """Its layers as light sees them, from the ground up."""
        marks = self.stack.catalogue.marks
        made = [
            layer_film(one, self.stack.beneath(i), self.optics, mark_of(one.technique, marks))
            for i, one in self.stack.each()
        ]
        if made and self.swing:
            made[-1] = swung(made[-1], self.swing)
        if self.hands:
            made = [swung(f, hand) if (hand := self.hands.get(f.laid.layer.id)) else f for f in made]
        return tuple(made)

    @property
    def judged(self) -> Judged | None:
        """What a hand judges by eye of its last layer: its sanding, where it is sanded."""
        if not self.films:
            return None
        last = self.films[-1]
        sandings = [s for s in last.laid.layer.sandings if not s.rubs]
        hands = self.stack.catalogue.hands.values()
        return judged_sanded(sandings[-1], hands) if sandings else judged_laid(last.mark, last.laid.layer.kept, hands)

    @property
    def ground_surface(self) -> float:
        """The share its bare ground scatters of what its front surface gives back."""
        zone, ground = self.stack.zone, self.stack.ground
        return self.optics.surface_of(SHEENS[ground.surface] if zone.sheen == "unknown" else zone.sheen)

    @cached_property
    def column(self) -> Column:
        """From bare ground to the last layer, wet and dry, with how far off each may be."""
        ground = self.stack.ground
        return column(reflectance(ground.hex), self.ground_surface, ground.hex, self.films, self.optics, self.stand)

    @property
    def stand(self) -> Stand:
        """What its ground has of pores, late wood and hollows."""
        relief = self.stack.catalogue.reliefs.get(self.stack.zone.relief)
        if relief is None:
            return PLAIN
        return stand(self.stack.ground, relief, self.optics.kinds, self.optics.cloth_bridges_mm)

    @cached_property
    def colours(self) -> tuple[str, ...]:
        """What is seen from afar when each of its layers is dry, before any sanding."""
        light = reflectance(self.stack.ground.hex)
        return colours_up(light, self.ground_surface, self.films, self.optics, self.stand)

    def otherwise(self, index: int, hides: float, kept: float) -> str:
        """What is seen from afar when one layer hides so many times as strongly, and so much of it is left."""
        one = self.films[index]
        pots = tuple(replace(p, thickness=p.thickness * hides) for p in one.pots)
        films = (*self.films[:index], replace(one, pots=pots, kept=kept), *self.films[index + 1 :])
        light = reflectance(self.stack.ground.hex)
        return colours_up(light, self.ground_surface, films, self.optics, self.stand)[-1]

    def onto(self, index: int) -> Onto:
        """What the paint of one of its layers lies on, how thick as full coats of paint, and what seals it."""
        one = self.films[index]
        beneath = reflectance((self.stack.ground.hex, *self.colours)[index])
        pot = one.pots[0]
        held = sum(d.held for d in pot.dyes)
        above = [f.surface for f in self.films[index + 1 :] if f.clear and not f.pots[0].dyes]
        sealed = above[-1] if above else one.surface if one.clear else 1.0
        return Onto(beneath, max(pot.thickness * held * one.kept, 1e-3), sealed)

    @property
    def side_mm(self) -> float:
        """How much of the surface its picture shows, in mm."""
        relief = pick("relief", self.stack.catalogue.reliefs, self.stack.zone.relief)
        return side_mm(self.stack.ground, relief, self.optics.kinds)

    def surface(self, px: int, tile_mm: float = 0.0) -> LookSurface:
        """Its films where they lie, with the edges of a piece along its top and left; of a tile, a stretch so wide
        without."""
        return surface_of(self.stack, self.films, Sheet(px, tile_mm or self.side_mm, SEED, not tile_mm), self.optics)

    def light(self, px: int) -> NDArray[np.float32]:
        """Linear red, green and blue of each spot in even light."""
        return light_of(self.surface(px), self.ground_surface, self.optics, self.wet)

    def picture(self, px: int, tile_mm: float = 0.0) -> NDArray[np.uint8]:
        """Its picture, (px, px, 3) bytes of sRGB; a tile, so wide, can be laid side by side with itself."""
        return picture(self.surface(px, tile_mm), self.ground_surface, self.optics, self.wet)
