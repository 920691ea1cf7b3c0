"""What a look comes to, as one who stands before it would measure it."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property, lru_cache
from math import atan2, degrees, hypot
from typing import Any

import numpy as np
from numpy.typing import NDArray

from lumso.core.book.colours import Colour
from lumso.core.book.recipes import VolumeShare
from lumso.core.colour.difference import delta_e, lab, lab_of
from lumso.core.colour.spectra import reflectance
from lumso.core.job.job import Layer
from lumso.core.look.look import Look
from tests.core.look.making import finished, laid, look

Grid = NDArray[np.float64]
PX = 160
Lab = tuple[float, float, float]


def lab_hex(hex_: str) -> Lab:
    """CIELAB of a colour of the screen."""
    light, a, b = (float(x) for x in lab_of(reflectance(hex_)))
    return light, a, b


def mixed(*parts: tuple[float, str]) -> Lab:
    """Colours side by side, as light."""
    return _lab(np.sum([share * np.array(_linear(hex_)) for share, hex_ in parts], axis=0))


def _linear(hex_: str) -> list[float]:
    made = []
    for i in (1, 3, 5):
        c = int(hex_[i : i + 2], 16) / 255
        made.append(c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4)
    return made


def _lab(light: Grid) -> Lab:
    low, a, b = (float(x) for x in lab(np.clip(np.asarray(light, float), 0, 1)))
    return low, a, b


def apart(one: Lab, other: Lab) -> float:
    """ΔE₀₀."""
    return float(delta_e(np.array(one), np.array(other)))


def strength(of: Lab) -> float:
    """C*."""
    return hypot(of[1], of[2])


def hue(of: Lab) -> float:
    """h in degrees."""
    return degrees(atan2(of[2], of[1])) % 360


@dataclass(frozen=True)
class Seen:
    """A look, measured on its picture in even light."""

    look: Look
    px: int = PX

    @cached_property
    def light(self) -> Grid:
        return np.asarray(np.clip(self.look.light(self.px).reshape(-1, 3).astype(float), 0, 1))

    @cached_property
    def afar(self) -> Lab:
        """The mean of its light."""
        return _lab(self.light.mean(0))

    def _end(self, part: slice) -> Lab:
        order = np.argsort(self.light @ [0.2126, 0.7152, 0.0722])
        return _lab(self.light[order[part]].mean(0))

    @cached_property
    def dark(self) -> Lab:
        """Its darkest twentieth."""
        return self._end(slice(0, self.px**2 // 20))

    @cached_property
    def pale(self) -> Lab:
        """Its palest twentieth."""
        return self._end(slice(-(self.px**2) // 20, None))

    @cached_property
    def middle(self) -> Lab:
        """Its middle fifth by lightness."""
        return self._end(slice(self.px**2 * 2 // 5, self.px**2 * 3 // 5))

    @cached_property
    def strip(self) -> Lab:
        """What the strip of colours says of it."""
        return lab_hex(self.look.column.top.hex)

    @property
    def spread(self) -> float:
        """L* from its darkest to its palest twentieth."""
        return self.pale[0] - self.dark[0]

    def share(self, where: Callable[[Grid], Grid]) -> float:
        """The share of its spots of which that holds, of their linear light."""
        return float(where(self.light).mean())

    def nearest(self, *hexes: str) -> tuple[float, ...]:
        """The share of its spots that is nearest to each of these colours."""
        spots = np.array([_lab(spot) for spot in self.light[::7]])
        off = np.stack([delta_e(spots, np.array(lab_hex(h))) for h in hexes])
        return tuple(float((off.argmin(0) == i).mean()) for i in range(len(hexes)))


def paint(hex_: str, coats: int = 2, recipe: str = "paint-plain", **more: Any) -> Layer:
    """Full coats of a paint."""
    return laid(recipe, hex_, coats=coats, **more)


def watered(recipe: str, hex_: str, water: float, technique: str = "", **more: Any) -> Layer:
    """A wash of such a share of water."""
    return laid(recipe, hex_, technique, amounts={"water": VolumeShare("volume-share", water)}, **more)


def waxed(hex_: str, technique: str = "waxed", recipe: str = "dark-wax-plain", **more: Any) -> Layer:
    """A tinted wax, its colour said."""
    from tests.core.look.making import C

    parts = [c.id for c in C.recipes[recipe].components if c.material == "dark-wax"]
    return laid(recipe, "", technique, colours={p: Colour("a colour", hex_) for p in parts}, **more)


def see(*layers: Layer, ground: str = "painted-unsealed", relief: str = "flat") -> Seen:
    """Layers on a ground, looked at."""
    return Seen(look(*layers, ground=ground, relief=relief))


@lru_cache(maxsize=64)
def see_finish(slug: str) -> Seen:
    """A finish of the library on the first ground it is for."""
    return Seen(finished(slug))


def sealed(*layers: Layer) -> tuple[Layer, ...]:
    """The same under a matt clear coat, dry."""
    return (*layers, laid("matt-clear-coat-plain"))
