"""What is waited for before a layer: the one truth about it.

Whatever the next layer reaches beneath must be ready for what it does: dry to be gone over, through enough to be sealed
in, fast enough to be rubbed wet, firm enough for tape. A wait that nobody typed becomes the longest of these; a typed
one is compared with them; a remedy sets them; the order of work and the days keep them. Nothing else judges a wait.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal, Protocol

from ..book.surfaces import Ground
from .drying import NIGHT, Moment, Wait
from .laid import Laid

Asked = Literal["recoat", "seal", "rub wet", "solvent", "tape", "night to tell", "night to hold", "texture"]

RULES: dict[Asked, str] = {
    "rub wet": "no-night-before-water",
    "solvent": "solvent-over-green",
    "seal": "seal-too-soon",
    "texture": "texture-no-night",
    "night to hold": "primer-no-night",
    "night to tell": "blocker-no-night",
    "tape": "tape-lifts",
    "recoat": "recoat-too-soon",
}
"""The rule that speaks where it is not kept; of several that miss as much the first here, as more is hurt by it."""

WORDS = (12.0, 24.0, 48.0, 72.0, 168.0, 672.0)
"""Waits that are chosen as words, in hours: overnight, a day, two, three, a week, four weeks. They come to what the air
asks, never under their own length; any other number is so many hours by the clock, and is believed."""


@dataclass(frozen=True)
class Awaited:
    """One thing a layer waits for: that the layer of index `of`, or all over it, is ready for what is asked of it.

    `judged` is False where one school waits and another does not: it is proposed, and no shorter wait is wrong.
    """

    of: int
    asked: Asked
    wait: Wait
    why: str
    judged: bool = True


def is_word(wait_h: float | None) -> bool:
    """Whether a wait was chosen as a word."""
    return wait_h in WORDS


class Layers(Protocol):
    """What is asked of a stack here."""

    @property
    def laid(self) -> tuple[Laid, ...]: ...
    @property
    def ground(self) -> Ground: ...
    def wait(self, index: int, moment: Moment) -> Wait:
        """What one of a layer's times waits for."""
        ...

    def reach(self, index: int) -> "Reach":
        """What the layer of an index meets beneath."""
        ...


@dataclass(frozen=True)
class Reach:
    """What a layer meets beneath: the nearest that covers all, and the nearest that water brings back; by index."""

    floor: int | None
    open: int | None


def works_wet(one: Laid) -> bool:
    """Whether a layer is worked with water on what is beneath it: brushed out, lifted or dragged."""
    return one.watery and one.film.kind in {"wash", "glaze"} and not one.acts("stacks")


def awaited(stack: Layers, index: int) -> tuple[Awaited, ...]:
    """All that the layer of an index waits for; nothing where it is laid into what is still damp, or on the ground."""
    if index < 1 or index >= len(stack.laid) or stack.laid[index].layer.wet_into_wet:
        return ()
    return tuple(_awaited(stack, index))


def _awaited(stack: Layers, index: int) -> Iterator[Awaited]:
    yield from _dry_enough(stack, index)
    yield from _sealed_in(stack, index)
    yield from _not_hurt(stack, index)


def _dry_enough(stack: Layers, index: int) -> Iterator[Awaited]:
    """What the layer right beneath is to be before anything goes over it."""
    upper, lower = stack.laid[index], stack.laid[index - 1]
    if not lower.acts("resists"):
        steered = lower.film.kind == upper.film.kind == "wax"  # while it is fresh: that is the control
        recoat = stack.wait(index - 1, "recoat_from")
        asked: Asked = "recoat"
        if lower.film.tells_overnight:
            asked = "night to tell"
            recoat = recoat if (recoat.reference_min or 0.0) >= NIGHT else Wait(NIGHT, "clock")
        elif lower.technique.per_mm and (recoat.reference_min or 0.0) >= NIGHT:
            asked = "texture"
        yield Awaited(index - 1, asked, recoat, lower.film.waits, not steered)
    if index == 1 and stack.ground.surface == "slick" and lower.film.kind == "primer":
        yield Awaited(0, "night to hold", Wait(NIGHT, "clock"), f"on {stack.ground.name} it holds overnight")


def _sealed_in(stack: Layers, index: int) -> Iterator[Awaited]:
    """What a clear coat seals in: all down to the first film that closes."""
    upper = stack.laid[index]
    if upper.film.kind != "clear":
        return
    for k in range(index - 1, -1, -1):
        yield Awaited(k, "seal", stack.wait(k, "seal"), f"{upper.name.lower()} seals {stack.laid[k].name.lower()} in")
        if stack.laid[k].closes:
            return


def _not_hurt(stack: Layers, index: int) -> Iterator[Awaited]:
    """What is hurt further down by water that is rubbed on, by solvent, or by tape."""
    upper, reach = stack.laid[index], stack.reach(index)
    name = upper.name.lower()
    if works_wet(upper) and reach.open is not None:
        under = stack.laid[reach.open].name.lower()
        yield Awaited(reach.open, "rub wet", stack.wait(reach.open, "wet_rub"), f"{name} rubs {under} wet")
    if upper.film.carrier in {"solvent", "oil"} and not upper.acts("resists"):
        green = next((k for k in range(index - 1, -1, -1) if stack.laid[k].watery), None)
        if green is not None:
            under = stack.laid[green].name.lower()
            yield Awaited(green, "solvent", stack.wait(green, "seal"), f"{name} softens {under} that is green")
    if upper.tapes and reach.floor is not None:
        under = stack.laid[reach.floor].name.lower()
        yield Awaited(reach.floor, "tape", stack.wait(reach.floor, "tape_safe"), f"tape holds on {under}")
