"""A dozen more, written down with the others and measured only once the model stood: 9 of 12 held as they fell. Two of
the three that did not led to changes, so these are expectations like the others now."""

from collections.abc import Callable

import pytest

from tests.core.look.making import C, laid, sanded
from tests.looks.seen import apart, lab_hex, mixed, paint, sealed, see, strength, watered, waxed

WHITE, CREAM, BROWN, RED, BLACK, TEAL = "#efece2", "#e6d8b4", "#553a28", "#a5352c", "#26241f", "#3d7d7c"


def _between(value: float, low: float, high: float) -> tuple[bool, str]:
    return low <= value <= high, f"{value:.1f} (from {low} to {high})"


def _wax_on_white() -> tuple[bool, str]:
    return _between(see(*sealed(paint(WHITE)), waxed(BLACK)).afar[0], 72, 92)


def _wax_over_red() -> tuple[bool, str]:
    red = sealed(paint(RED))
    return _between(apart(see(*red, waxed(BLACK)).afar, see(*red).afar), 0.5, 12)


def _black_daubs() -> tuple[bool, str]:
    seen = see(paint(CREAM), laid("paint-plain", BLACK, "patchy", touched=0.25)).afar
    return _between(apart(seen, mixed((0.25, BLACK), (0.75, CREAM))), 0, 7)


def _dry_brush_white_on_black() -> tuple[bool, str]:
    seen = see(paint(BLACK), laid("paint-plain", WHITE, "dry-brushed-flat", touched=0.1))
    return _between(seen.afar[0] - lab_hex(BLACK)[0], 5, 25)


def _teal_glaze() -> tuple[bool, str]:
    seen, own = see(paint(CREAM), laid("glaze-dragged", TEAL)).afar, lab_hex(TEAL)
    most = max(strength(own), strength(lab_hex(CREAM))) + 6
    return own[0] <= seen[0] <= 90 and strength(seen) <= most, f"L* {seen[0]:.1f}, C* {strength(seen):.1f} ≤ {most:.1f}"


def _brushed_out_glaze() -> tuple[bool, str]:
    seen = see(paint(CREAM), laid("glaze-brushed-out", BROWN)).afar
    return _between(seen[0], 50, 85)


def _black_wash_on_ash() -> tuple[bool, str]:
    thin, thick = (see(watered("paint-wash-raw-wood", BLACK, w), ground="raw-ash") for w in (0.85, 0.4))
    return thin.afar[0] > thick.afar[0] + 8 and thin.spread > 8, f"{thick.afar[0]:.1f} → {thin.afar[0]:.1f}"


def _whitewash_on_wood() -> tuple[bool, str]:
    seen = see(watered("paint-wash-raw-wood", WHITE, 0.75), ground="raw-red-hardwood")
    return _between(seen.afar[0] - lab_hex(C.grounds["raw-red-hardwood"].hex)[0], 4, 35)


def _oil_over_black() -> tuple[bool, str]:
    bare = see(paint(BLACK, 2, "milk-paint")).afar
    return _between(see(paint(BLACK, 2, "milk-paint"), laid("oil-wax-plain", coats=2)).afar[0] - bare[0], -8, 0.5)


def _sanded_edges() -> tuple[bool, str]:
    worn = laid("paint-plain", WHITE, sandings=sanded(180, "reveal", "edges"))
    lower = see(paint(BROWN), worn).nearest(WHITE, BROWN)[1]
    return _between(lower, 0.01, 0.3)


def _stacked_washes() -> tuple[bool, str]:
    seen = see(paint(WHITE), laid("stacked-wash", BROWN), laid("stacked-wash", "#8a8f8c"))
    return seen.spread > 5 and seen.afar[0] < lab_hex(WHITE)[0] - 3, f"L* {seen.afar[0]:.1f}, spread {seen.spread:.1f}"


def _sponged() -> tuple[bool, str]:
    seen = see(paint(RED), laid("glaze-brushed-out", CREAM, "glaze-sponged"))
    return _between(seen.afar[0], lab_hex(RED)[0] + 3, lab_hex(CREAM)[0] - 8)


LATER: dict[str, Callable[[], tuple[bool, str]]] = {
    "black wax buffed off sealed white is off-white": _wax_on_white,
    "black wax buffed off sealed red shifts it a little": _wax_over_red,
    "black patches on a quarter of cream": _black_daubs,
    "white dry brushed on a tenth of black": _dry_brush_white_on_black,
    "teal dragged over cream is a veil": _teal_glaze,
    "brown brushed-out glaze over cream": _brushed_out_glaze,
    "black wash on ash is paler with water": _black_wash_on_ash,
    "whitewash rubbed into a red hardwood pales it": _whitewash_on_wood,
    "oil wax deepens black milk paint": _oil_over_black,
    "white over brown, sanded at the edges": _sanded_edges,
    "two stacked washes over white": _stacked_washes,
    "cream sponged over red": _sponged,
}


@pytest.mark.parametrize("name", LATER)
def test_what_was_only_measured_once_the_model_stood(name: str) -> None:
    holds, said = LATER[name]()
    assert holds, said
