"""The list for the shop: what is short, what stands there, what is kept, and what it comes to."""

from lumso.core.book.catalogue import Catalogue
from lumso.core.buying.lots import Lot, LotUse
from lumso.core.buying.promises import LotNeed, reserve
from lumso.core.buying.purse import Deal, Purse, Sold, Stocked
from lumso.core.buying.shopping import ListLine, ShoppingList, grouped, in_unit, listed, packs_said, shop_of
from lumso.core.solver.packs import best_basket
from lumso.formats import pdf
from lumso.formats.shopping import to_csv, to_text

PAINT = Stocked("matt-paint", (Sold(500, "ml", 1450), Sold(1000, "ml", 2400)))


def need(colour: str, ml: float, item: str = "matt-paint", at: float = 0.0) -> LotNeed:
    hex_ = "#b98a3e" if colour else ""
    return LotNeed(f"rack|{colour}{item}", LotUse(at, item, colour, hex_, ml, ml * 1.3, 0.0, "rack"), "Rack", "wash",
                "material", bool(colour))  # fmt: skip


def made(needs: list[LotNeed], purse: Purse, catalogue: Catalogue, *lots: Lot) -> ShoppingList:
    reserved = reserve(needs, lots, {x.slug: x.left for x in lots}, lambda minute: "2026-12-01", purse.may_split)
    asked = shop_of(grouped(needs, reserved, purse, catalogue), purse, reserved.free, lots)
    return listed(asked, best_basket(asked.shop), reserved, purse, ["50 mm flat brush"])


def lot(slug: str, colour: str, left: float, item: str = "matt-paint") -> Lot:
    return Lot(slug, item, item, "ml", 1000, left, 0.0, colour=colour, hex="#b98a3e" if colour else "")


def line(found: ShoppingList, colour: str) -> ListLine:
    (one,) = [x for x in found.lines if x.colour == colour]
    return one


def test_a_bundle_over_two_colours_is_shared_between_their_lines(catalogue: Catalogue) -> None:
    purse = Purse(currency="EUR", stocked=(PAINT,), deals=(Deal("Two tins", 2, 2601, ("matt-paint",), 500),))
    found = made([need("ochre", 400), need("soot", 300)], purse, catalogue)
    assert [x.minor for x in found.lines] == [1301, 1300]
    assert (found.minor, found.total) == (2601, "26.01 EUR")
    assert found.bundles == ("Two tins: 1 × 2 for 26.01 EUR",)


def test_what_stands_there_is_used_first_and_the_least_is_kept(catalogue: Catalogue) -> None:
    purse = Purse(stocked=(Stocked("glaze-medium", (Sold(250, "ml", 980),), least=100),))
    glaze = need("", 300, "glaze-medium")
    found = made([glaze], purse, catalogue, lot("tin", "", 350, "glaze-medium"))
    (one,) = found.lines
    assert (one.promised, one.least, one.buys) == (300, 50, 50)  # 50 of the tin are left; 100 are to be
    assert made([glaze], purse, catalogue, lot("tin", "", 400, "glaze-medium")).lines == ()


def test_a_tin_too_small_for_a_colour_that_must_match_is_named_and_left_out(catalogue: Catalogue) -> None:
    needs, purse = [need("ochre", 400)], Purse(stocked=(PAINT,))
    apart = line(made(needs, purse, catalogue, lot("tin", "ochre", 60)), "ochre")
    assert (apart.buys, apart.kept_out) == (400, 60)
    shared = Purse(stocked=(PAINT,), may_split=("matt-paint",))
    together = line(made(needs, shared, catalogue, lot("tin", "ochre", 60)), "ochre")
    assert (together.buys, together.kept_out) == (340, 0)
    assert any("stir the new one into it" in note for note in together.notes)


def test_the_pack_one_prefers_is_bought_whatever_others_cost(catalogue: Catalogue) -> None:
    large = Stocked("matt-paint", PAINT.packs, prefers=2)
    found = line(made([need("ochre", 400)], Purse(stocked=(large,)), catalogue), "ochre")
    assert [p.says for p in found.packs] == ["1 × 1000 ml"]
    assert found.over == 600


def test_powder_by_weight_against_a_tub_by_volume(catalogue: Catalogue) -> None:
    dense = catalogue.materials["plaster"].bulk_density
    assert in_unit(1000, "ml", "g", catalogue.materials["plaster"]) == 1000 * dense
    assert in_unit(1000, "g", "ml", catalogue.materials["plaster"]) == 1000 / dense
    assert in_unit(1, "piece", "g", None) is None
    purse = Purse(stocked=(Stocked("plaster", (Sold(1000, "g", 400), Sold(1000, "ml", 350))),))
    plaster = LotNeed("rack|p", LotUse(0, "plaster", ml=900, g=900 * dense, by="rack"), "Rack", "texture")
    (one,) = made([plaster], purse, catalogue).lines
    assert one.unit == "g"
    assert one.minor == 350  # 1000 ml of it hold 900


def test_nothing_without_a_price_is_in_the_total_and_it_says_so(catalogue: Catalogue) -> None:
    purse = Purse(stocked=(PAINT, Stocked("glaze-medium", (Sold(250, "ml", None),))))
    found = made([need("ochre", 400), need("", 100, "glaze-medium"), need("", 100, "clear-wax")], purse, catalogue)
    assert {(x.item, x.state, x.minor) for x in found.lines} == {
        ("matt-paint", "priced", 1450), ("glaze-medium", "unpriced", None), ("clear-wax", "no pack known", None)
    }  # fmt: skip
    assert found.minor == 1450
    assert len(found.unpriced) == 2


def test_packs_in_words() -> None:
    assert [packs_said(3, 170, "g"), packs_said(1, 1, "piece"), packs_said(3, 1, "piece"), packs_said(2, 10, "piece")] \
        == ["3 × 170 g", "1 piece", "3 pieces", "2 packets of 10"]  # fmt: skip


def test_the_list_to_take_along_has_every_line_and_no_formulas(catalogue: Catalogue) -> None:
    purse = Purse(currency="EUR", stocked=(PAINT,))
    found = made([need("=ochre", 400), need("", 100, "clear-wax")], purse, catalogue)
    text = to_text(found, ["Rack"])
    assert "[ ] matt paint, =ochre: 400 ml; 1 × 500 ml; 14.50 EUR" in text
    assert "Altogether 14.50 EUR, without clear paste wax" in text
    rows = to_csv(found).splitlines()
    assert len(rows) == 3
    assert "'=ochre" in rows[1]
    assert pdf.shopping_sheet(found, ["Rack"], "a4").startswith(b"%PDF")


def test_paint_on_the_shelf_that_says_no_colour_is_named_and_not_counted(catalogue: Catalogue) -> None:
    unsaid = Lot("shelf:matt-paint", "matt-paint", "matt paint", "ml", 500, 350, 0.0, hex="#f4f1e8")
    found = line(made([need("ochre", 400)], Purse(stocked=(PAINT,)), catalogue, unsaid), "ochre")
    assert (found.buys, found.promised) == (400, 0)
    assert "350 ml stand on the shelf, of a colour that is not said: look first." in found.notes
    other = line(made([need("ochre", 400)], Purse(stocked=(PAINT,)), catalogue, lot("tin", "soot", 350)), "ochre")
    assert not any("not said" in note for note in other.notes)  # it says another one
    medium = made([need("", 300, "glaze-medium")], Purse(), catalogue, lot("tin", "", 100, "glaze-medium"))
    assert not any("not said" in note for x in medium.lines for note in x.notes)
