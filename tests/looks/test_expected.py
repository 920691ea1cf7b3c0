"""What anybody in the trade knows a finish comes to. Each was written down before anything was worked out.

Brackets are CIELAB, from afar unless said. They are starting values, to be narrowed by test boards.
"""

import pytest

from tests.core.look.making import C, laid, sanded
from tests.looks.seen import (
    Seen,
    apart,
    hue,
    lab_hex,
    mixed,
    paint,
    sealed,
    see,
    see_finish,
    strength,
    watered,
    waxed,
)  # fmt: skip

WHITE, CREAM, GREY, BLUE, BROWN = "#f4f1ea", "#ece0c4", "#8d9290", "#6f8fae", "#4a3426"
RED, OCHRE, GREEN, ULTRA, BOTTLE, PALE_GREEN = "#b03a2e", "#c4933f", "#5f8f5a", "#1f2f7a", "#12382c", "#b9cbb0"
DARK_WAX = "#3d3228"
SEALED_CREAM = sealed(paint(CREAM))


FINE_PX = 480
"""Fine enough to tell a pore from what is beside it."""


def within(value: float, low: float, high: float) -> None:
    assert low <= value <= high, f"{value:.1f} is not from {low} to {high}"


# Wax.


def test_dark_wax_buffed_off_sealed_cream_is_cream() -> None:
    seen, cream = see(*SEALED_CREAM, waxed(DARK_WAX)), see(*SEALED_CREAM).afar
    within(seen.afar[0], 74, 88)
    within(seen.afar[2] - cream[2], 0, 12)
    assert apart(seen.afar, cream) < apart(seen.afar, lab_hex(DARK_WAX))


def test_dark_wax_stains_chalky_cream() -> None:
    within(see(paint(CREAM), waxed(DARK_WAX)).afar[0], 58, 80)


@pytest.mark.parametrize("beneath", [CREAM, BLUE, RED, WHITE])
def test_a_quarter_of_dark_wax_in_clear_hardly_tints(beneath: str) -> None:
    bare = sealed(paint(beneath))
    assert apart(see(*bare, laid("dark-wax")).afar, see(*bare, laid("clear-wax-plain")).afar) <= 6


def test_dark_wax_in_carving_leaves_the_flats_and_fills_the_hollows() -> None:
    seen = see(*SEALED_CREAM, waxed(DARK_WAX, "wax-recesses", touched=0.25), relief="carved")
    cream = see(*SEALED_CREAM, relief="carved").afar
    assert apart(seen.pale, cream) <= 5
    within(seen.dark[0], 30, 60)
    assert seen.dark[0] < seen.afar[0] < seen.pale[0]


def test_dark_wax_all_over_a_carved_ground_keeps_in_its_hollows() -> None:
    flat, carved = (see(*SEALED_CREAM, waxed(DARK_WAX), relief=r) for r in ("flat", "carved"))
    assert carved.spread > flat.spread + 15
    assert carved.afar[0] < flat.afar[0]


@pytest.mark.parametrize("beneath", [WHITE, PALE_GREEN, BLUE, RED])
def test_clear_wax_over_matt_paint_deepens_a_little(beneath: str) -> None:
    bare, waxen = see(paint(beneath)).afar, see(paint(beneath), laid("clear-wax-plain")).afar
    within(waxen[0] - bare[0], -8, 0)
    assert apart(bare, waxen) < 9


# What covers a part.


@pytest.mark.parametrize("share", [0.15, 0.35, 0.65])
@pytest.mark.parametrize("dark", [BROWN, ULTRA])
def test_daubs_are_as_many_as_were_daubed(share: float, dark: str) -> None:
    seen = see(paint(WHITE), laid("paint-plain", dark, "daubed", touched=share))
    assert apart(seen.afar, mixed((share, dark), (1 - share, WHITE))) <= 5 + 10 * share
    if share < 0.6:
        assert seen.pale[0] > 80


@pytest.mark.parametrize(("pale", "dark"), [(WHITE, BROWN), (CREAM, BOTTLE)])
@pytest.mark.parametrize("share", [0.08, 0.15])
def test_a_dry_brush_of_pale_over_dark_catches_the_crests(pale: str, dark: str, share: float) -> None:
    seen = see(paint(dark), laid("paint-plain", pale, "dry-brushed-flat", touched=share))
    within(seen.afar[0] - lab_hex(dark)[0], 4, 24)
    assert seen.pale[0] > lab_hex(dark)[0] + 25
    assert apart(seen.dark, lab_hex(dark)) < 6


@pytest.mark.parametrize("dark", [BROWN, BOTTLE])
def test_more_touched_is_nearer_to_its_colour(dark: str) -> None:
    seen = [see(paint(WHITE), laid("paint-plain", dark, "patchy", touched=t)).afar for t in (0.1, 0.3, 0.5, 0.7)]
    assert [s[0] for s in seen] == sorted((s[0] for s in seen), reverse=True)
    off = [apart(s, lab_hex(dark)) for s in seen]
    assert off == sorted(off, reverse=True)


def test_a_resist_shows_the_ground_from_afar_too() -> None:
    resist = laid("clear-wax-plain", "", "wax-resist", touched=0.3)
    seen = see(paint(WHITE), resist, paint(BROWN))
    assert seen.strip[0] - lab_hex(BROWN)[0] >= 0.25 * (lab_hex(WHITE)[0] - lab_hex(BROWN)[0])
    assert seen.pale[0] > 80


def test_figures_count_by_their_share() -> None:
    seen = see(paint(CREAM), laid("paint-plain", BROWN, "stencilled", touched=0.2))
    assert apart(seen.afar, mixed((0.2, BROWN), (0.8, CREAM))) < 6


# Washes.


def test_a_dark_wash_lifted_from_grey_stays_in_the_hollows() -> None:
    seen = see(paint(GREY), watered("colour-wash", BROWN, 0.5, "wash-wiped"), relief="carved")
    grey = lab_hex(GREY)
    assert abs(seen.pale[0] - grey[0]) < 8
    assert seen.dark[0] < grey[0] - 10


@pytest.mark.parametrize("ground", [BLUE, RED, GREEN])
def test_more_water_makes_a_whitewash_thinner(ground: str) -> None:
    bare = see(paint(ground)).afar[0]
    seen = [see(paint(ground), watered("whitewash-dry-wiped", WHITE, w)) for w in (0.5, 0.7, 0.8)]
    rises = [s.afar[0] - bare for s in seen]
    assert rises[0] > rises[1] > rises[2] > 0.5
    assert seen[0].spread >= 6


def test_a_dark_wash_on_pale_wood_is_paler_with_water() -> None:
    seen = [see(watered("paint-wash-raw-wood", BROWN, w), ground="raw-pine") for w in (0.0, 0.5, 0.75, 0.85)]
    rises = [s.afar[0] for s in seen]
    assert rises == sorted(rises)
    assert rises[-1] - rises[0] >= 20
    assert all(s.spread >= 8 for s in seen[1:])


@pytest.mark.parametrize("ground", ["raw-pine", "raw-ash", "raw-oak"])
@pytest.mark.parametrize("hex_", ["#c9ccca", BLUE])
def test_a_wash_rubbed_into_wood_keeps_the_grain(ground: str, hex_: str) -> None:
    seen = see(watered("paint-wash-raw-wood", hex_, 0.75), ground=ground)
    wood, paint_ = lab_hex(C.grounds[ground].hex), lab_hex(hex_)
    assert min(wood[2], paint_[2]) - 2 <= seen.afar[2] <= max(wood[2], paint_[2]) + 2
    assert apart(seen.dark, seen.pale) >= 5
    assert apart(seen.afar, wood) > 3


def test_a_wash_wiped_later_keeps_more() -> None:
    seen = [see(paint(CREAM), laid("colour-wash", BROWN, kept=k)).afar[0] for k in (0.1, 0.3, 0.6, 0.9)]
    assert seen == sorted(seen, reverse=True)


# Glazes.


@pytest.mark.parametrize("hex_", [RED, OCHRE, GREEN])
def test_a_dragged_glaze_is_a_veil(hex_: str) -> None:
    ground, own = see(paint(CREAM)).afar, lab_hex(hex_)
    seen = see(paint(CREAM), laid("glaze-dragged", hex_))
    within(seen.afar[0], own[0] - 1, ground[0])
    assert strength(seen.afar) <= max(strength(ground), strength(own)) + 4
    assert seen.spread >= 6
    twice = see(paint(CREAM), laid("glaze-dragged", hex_), laid("glaze-dragged", hex_)).afar
    assert apart(twice, own) < apart(seen.afar, own)
    assert twice[0] > own[0] - 6


@pytest.mark.parametrize("hex_", [ULTRA, BOTTLE])
def test_a_dark_transparent_glaze_glows(hex_: str) -> None:
    ground, own = see(paint(CREAM)).afar, lab_hex(hex_)
    seen = see(paint(CREAM), laid("glaze-dragged", hex_))
    within(seen.afar[0], 40, 78)
    assert strength(seen.afar) <= max(strength(ground), strength(own)) + 25
    assert min(abs(hue(seen.afar) - hue(own)), 360 - abs(hue(seen.afar) - hue(own))) < 50


@pytest.mark.parametrize("hex_", [WHITE, PALE_GREEN])
def test_a_pale_glaze_over_dark_is_a_veil_too(hex_: str) -> None:
    seen = see(paint(BROWN), laid("glaze-dragged", hex_))
    within(seen.afar[0], lab_hex(BROWN)[0] + 5, lab_hex(hex_)[0] - 5)


# Oil, clear coats, wet and dry.


@pytest.mark.parametrize("hex_", [WHITE, PALE_GREEN, BLUE])
def test_oil_wax_ambers_and_deepens(hex_: str) -> None:
    milk = paint(hex_, 2, "milk-paint")
    bare, oiled = see(milk).afar, see(milk, laid("oil-wax-plain", coats=2)).afar
    within(oiled[0] - bare[0], -6, -0.5)
    within(oiled[2] - bare[2], 2, 10)


@pytest.mark.parametrize("hex_", [WHITE, CREAM, BLUE, RED])
@pytest.mark.parametrize(("recipe", "most"), [("matt-clear-coat-plain", 3), ("clear-coat-plain", 8)])
def test_a_clear_coat_deepens_matt_paint(hex_: str, recipe: str, most: float) -> None:
    bare, coated = see(paint(hex_)).afar, see(paint(hex_), laid(recipe)).afar
    within(bare[0] - coated[0], -0.3, most)


@pytest.mark.parametrize("recipe", ["paint-plain", "milk-paint", "salt-wash"])
def test_mineral_and_milk_paints_are_darker_wet(recipe: str) -> None:
    film = see(laid(recipe, GREEN)).look.column.films[0]
    assert film.wet.lightness < film.dry.lightness


def test_shellac_ambers_white() -> None:
    bare, coated = see(paint(WHITE)).afar, see(paint(WHITE), laid("dewaxed-shellac-plain")).afar
    within(coated[2] - bare[2], 2, 15)
    within(coated[0] - bare[0], -8, 0)


# Liming.


def test_limed_pale_oak_is_wood_with_white_pores() -> None:
    seen, wood = Seen(see_finish("limed-wax").look, FINE_PX), see(ground="raw-oak").middle
    assert apart(seen.middle, wood) <= 6
    assert seen.pale[0] >= seen.middle[0] + 15


def test_limed_red_hardwood_keeps_its_colour() -> None:
    seen = Seen(see(laid("liming-wax-plain"), ground="raw-red-hardwood").look, FINE_PX)
    assert apart(seen.middle, see(ground="raw-red-hardwood").middle) <= 8
    assert seen.pale[0] >= 70


# Sanding.


def _revealed(by: str) -> Seen:
    first = laid("milk-paint", CREAM, coats=2)
    second = laid("milk-paint", BLUE, sandings=sanded(180, "reveal", by=by))
    return see(first, second, ground="raw-beech")


def test_two_milk_paints_sanded_by_hand_show_three_colours() -> None:
    upper, lower, wood = _revealed("hand").nearest(BLUE, CREAM, C.grounds["raw-beech"].hex)
    within(upper, 0.5, 0.88)
    within(lower, 0.1, 0.42)
    within(wood, 0.0, 0.15)


def test_a_machine_takes_more_and_leaves_the_grooves() -> None:
    by_hand, by_machine = _revealed("hand").nearest(BLUE, CREAM), _revealed("machine").nearest(BLUE, CREAM)
    assert by_machine[0] <= by_hand[0] + 0.02
    assert by_machine[0] > 0.1


def test_chippy_milk_paint_chips() -> None:
    seen = see(laid("milk-paint", BLUE), ground="slick")
    paint_, ground = seen.nearest(BLUE, C.grounds["slick"].hex)
    within(ground, 0.1, 0.35)
    assert paint_ > 0.6


# Relief, patina, the library.


def test_a_dark_texture_dry_brushed_pale_is_pale_on_its_peaks() -> None:
    seen = see(laid("salt-wash", BROWN, "stippled"), laid("paint-plain", CREAM, "dry-brushed"))
    assert seen.pale[0] > lab_hex(BROWN)[0] + 25
    assert apart(seen.dark, lab_hex(BROWN)) < 8


def test_patina_wiped_leaves_most_of_a_metal() -> None:
    plain = see(paint(WHITE), laid("metallic-plain", "", "brushed-paint")).afar
    aged = see(paint(WHITE), laid("metallic-plain", "", "brushed-paint"), laid("patina-plain", "", "wiped-on-off")).afar
    within(aged[0] - plain[0], -22, -0.3)


@pytest.mark.parametrize("slug", sorted(C.finishes))
def test_the_strip_says_what_the_picture_shows(slug: str) -> None:
    seen = see_finish(slug)
    worn = any(f.chips or any(not s.rubs for s in f.laid.layer.sandings) for f in seen.look.films)
    assert worn or apart(seen.strip, seen.afar) <= 1.5


@pytest.mark.parametrize(("slug", "low", "high"), [
    ("dragged-linen", 55, 92), ("brushed-glaze-doors", 45, 92), ("whitewash-over-colour", 45, 85),
    ("rubbed-wash", 45, 85), ("waxed-carving", 55, 88), ("limed-glaze", 60, 85), ("self-sealed", 20, 95),
    ("milk-paint-oil-wax", 30, 95), ("relief-wash-resist", 40, 85),
])  # fmt: skip
def test_finishes_of_the_library_are_as_light_as_they_are(slug: str, low: float, high: float) -> None:
    within(see_finish(slug).afar[0], low, high)
