"""The finish library: right on the grounds it is for, told off on those it is not."""

from dataclasses import replace
from itertools import chain, combinations, count

import pytest

from lumso.catalogue import shipped
from lumso.core.advice import Trial, advise, remedied, with_finish
from lumso.core.book.films import UseWord
from lumso.core.book.finishes import Finish
from lumso.core.changes.change import apply
from lumso.core.changes.finish import acceptances, layers_of
from lumso.core.checks import worst
from lumso.core.job.job import Answered, Use, Zone
from lumso.core.layers.conditions import steady
from lumso.core.piece.kinds import FaceGroup
from lumso.core.work.effort import effort
from tests.core.checks.stacks import layer, stack

C = shipped()
FRONT = FaceGroup("front", "Front", 1.0, "given", vertical=True)
FINISHES = list(C.finishes.values())


def bench(uses: tuple[UseWord, ...] = (), lead: str = "none found") -> Trial:
    use = Use(uses, Answered(lead), Answered("none found"))  # type: ignore[arg-type]
    return Trial(use, (FRONT,), C, steady())


def bare(ground: str) -> Zone:
    return Zone("z", "Front", ground, ("front",), ())


RECOMMENDED = [
    (finish, ground, uses)
    for finish in FINISHES
    for ground in finish.grounds
    for uses in chain.from_iterable(combinations(finish.uses, n) for n in range(len(finish.uses) + 1))
]
FORBIDDEN = [(finish, unfit) for finish in FINISHES for unfit in finish.unfit]


def test_the_library_spans_the_trade() -> None:
    assert len(FINISHES) >= 16
    assert {f.hard for f in FINISHES} == {"a first piece", "some practice", "practised hands"}
    reached = {surface for f in FINISHES for surface in (C.grounds[g].surface for g in f.grounds)}
    assert reached == {"raw wood", "unsealed paint", "sealed", "plaster", "brick", "slick"}


@pytest.mark.parametrize(("finish", "ground", "uses"), RECOMMENDED, ids=lambda x: getattr(x, "slug", str(x)))
def test_it_raises_no_more_than_a_note_where_it_is_recommended(
    finish: Finish, ground: str, uses: tuple[UseWord, ...]
) -> None:
    here = bench(uses)
    zone, _ = with_finish(bare(ground), finish, here, (f"n{i}" for i in count()))
    assert worst(here.findings(zone)) in {"", "good to know"}
    assert not [f.rule for f in here.findings(zone) if f.grade == "can hurt"]
    assert zone.finish == finish.slug
    asked = {
        f.rule for f in bench(uses, "not tested").findings(zone) if f.grade != "good to know" and f.accepted is None
    }
    assert asked == ({"lead-untested"} if "may hide lead" in C.grounds[ground].traits else set())
    if "scuffs" in {d for p in zone.prep for d in C.preparations[p].does}:
        assert not zone.layers or not C.film_of(C.recipes[zone.layers[0].recipe], {}).chips


@pytest.mark.parametrize(("finish", "unfit"), FORBIDDEN, ids=lambda x: getattr(x, "slug", getattr(x, "rule", "?")))
def test_it_raises_what_it_should_where_it_is_not_for(finish: Finish, unfit: object) -> None:
    ground, use, rule = unfit.ground or finish.grounds[0], unfit.use, unfit.rule  # type: ignore[attr-defined]
    here = bench((use,) if use else ())
    layers = layers_of(finish, C.grounds[ground].surface, C, (f"n{i}" for i in count()))
    zone = replace(bare(ground), layers=layers, accepted=acceptances(finish, layers))
    found = {f.rule: f for f in here.findings(zone) if f.accepted is None or ground not in finish.grounds}
    assert rule in found
    assert found[rule].grade != "good to know"


def test_each_is_forbidden_somewhere_and_every_name_in_it_is_known() -> None:
    for finish in FINISHES:
        assert finish.unfit
        assert not {u.ground for u in finish.unfit if u.rule != "soot-beneath"} & set(finish.grounds)
        assert {u.ground for u in finish.unfit if u.ground} <= set(C.grounds)
        assert set(finish.grounds) <= set(C.grounds)


def test_what_a_finish_means_on_purpose_is_accepted_with_its_reason() -> None:
    here = bench()
    zone, _ = with_finish(bare("old-gloss"), C.finishes["chippy-milk-paint"], here, (f"n{i}" for i in count()))
    (meant,) = [f for f in here.findings(zone) if f.rule == "milk-paint-on-gloss"]
    assert meant.accepted == "The chips are what is wanted."
    assert worst(here.findings(zone)) in {"", "good to know"}
    assert worst((replace(meant, accepted=None),)) == "risky"


def test_putting_a_finish_on_prepares_primes_and_seals_as_ground_and_use_ask() -> None:
    here = bench(("hands", "water"))
    zone, taken = with_finish(bare("slick"), C.finishes["dragged-linen"], here, (f"n{i}" for i in count()))
    recipes = [x.recipe for x in zone.layers]
    assert recipes[0] == "bonding-primer-plain"
    assert recipes[-1] == "hard-clear-coat-plain"
    assert zone.prep == ("degreased", "scuffed", "dusted")
    assert {m.rule for m in taken} >= {"slick-unprimed", "not-cleaned", "wet-cups"}
    assert all(m.reason and m.did for m in taken)


def test_mending_leaves_alone_what_has_no_way_out() -> None:
    case = stack("painted-unsealed", "paint-plain", room=(5, 0.5))
    zone, taken = remedied(case.zone, case.bench, (f"n{i}" for i in count()))
    assert "too-cold-or-damp" in {f.rule for f in case.bench.findings(zone)}
    assert "too-cold-or-damp" not in {m.rule for m in taken}


def test_effort_is_worked_out_from_the_steps() -> None:
    wash, plaster = effort(C.finishes["rubbed-wash"], C), effort(C.finishes["trowelled-metal"], C)
    assert wash.hours < plaster.hours
    assert wash.days < plaster.days
    # By hand, on 1 m²: sand 15, raise 10, dust 3, mix 8, rub 12, clean 5, pour off 2, clear coat 7½, clean 5, refit 20
    # = 87½ min; waits of 2 h, a night of 12, 2 h make four sessions, each 5 to lay out and 5 to clear away.
    assert wash.hours == pytest.approx((87.5 + 4 * 10) / 60, abs=0.01)
    assert wash.days == 1


# The advisers -----------------------------------------------------------------------------------------------------


def test_the_sealer_adviser_says_which_and_why_not_the_others() -> None:
    case = stack("raw-beech", layer("paint-plain", hex="#f1ead8"), use="hands water")
    said = {s.recipe: s for s in advise(case.zone, case.bench, (f"n{i}" for i in count())).sealers}
    assert said["hard-clear-coat-plain"].verdict == "best"
    assert said["exterior-clear-coat-plain"].verdict == "will do"
    assert said[""].verdict == "not here"
    assert any("water" in a.says for a in said[""].against)
    assert said["oil-wax-plain"].verdict == "not here"
    assert any("yellows" in a.says for a in said["oil-wax-plain"].against)
    assert said["oil-wax-plain"].ambers


def test_the_sealer_adviser_looks_beneath_a_sealer_that_is_there() -> None:
    case = stack("raw-beech", "paint-plain", "clear-wax-plain", use="hands")
    said = {s.recipe: s for s in advise(case.zone, case.bench, (f"n{i}" for i in count())).sealers}
    assert said["clear-coat-plain"].verdict != "not here"
    way = said["clear-coat-plain"].remedy
    assert way is not None
    sealed = apply(case.zone, way.changes, C, (f"m{i}" for i in count()))
    assert [x.recipe for x in sealed.layers] == ["paint-plain", "clear-coat-plain"]


def test_what_seals_is_known_beneath_age_in_the_hollows_and_both_come_off_by_themselves() -> None:
    case = stack("raw-beech", "paint-plain", "clear-coat-plain", use="hands")
    ids = (f"m{i}" for i in count())
    age = advise(case.zone, case.bench, ids).age
    assert not age.on
    aged = apply(case.zone, age.remedy.changes, C, ids)
    assert [x.recipe for x in aged.layers] == ["paint-plain", "clear-coat-plain", "dark-wax"]
    assert "stays in recesses" in C.techniques[aged.layers[-1].technique].acts
    said = advise(aged, case.bench, ids)
    assert [s.recipe for s in said.sealers if s.on] == ["clear-coat-plain"]
    assert said.age.on
    assert apply(aged, said.age.remedy.changes, C, ids) == case.zone
    way = next(s for s in said.sealers if s.recipe == "").remedy
    assert way is not None
    bare_again = apply(aged, way.changes, C, ids)
    assert [x.recipe for x in bare_again.layers] == ["paint-plain", "dark-wax"]
    assert [s.recipe for s in advise(bare_again, case.bench, ids).sealers if s.on] == [""]


def test_on_texture_wax_is_advised_against_and_the_brush_on_coat_is_meant_for_it() -> None:
    case = stack("painted-unsealed", layer("salt-wash", wait=36), use="hands")
    said = {s.recipe: s for s in advise(case.zone, case.bench, (f"n{i}" for i in count())).sealers}
    assert said["clear-wax-plain"].verdict == "not here"
    way = said["clear-coat-plain"].remedy
    assert way is not None
    assert way.changes[0].technique == "clear-on-texture"  # type: ignore[union-attr]


def test_the_preparation_adviser_goes_by_the_ground() -> None:
    gloss = stack("old-gloss", "paint-plain", old="not tested")
    did = [m.rule for m in advise(gloss.zone, gloss.bench, (f"n{i}" for i in count())).prep]
    assert {"slick-unprimed", "not-cleaned"} <= set(did)
    wood = stack("raw-beech", "paint-plain")
    rules = {m.rule for m in advise(wood.zone, wood.bench, (f"n{i}" for i in count())).prep}
    assert rules == {"grain-rises", "raw-wood-unsanded", "not-dusted"}


def test_sag_advice_by_hand() -> None:
    # Salt wash 1 : ¾ is 28 100 mPa·s: between cake and brownie batter, τ = 30^(1−t)·80^t with
    # t = ln(28 100/15 000)/ln(35 000/15 000) = 0.741, so 62 Pa; 145 g in 119.6 ml … ρ = 1.505;
    # it holds 62/(1505·9.81) = 4.2 mm, and 1 mm mean stands 2 mm.
    case = stack("painted-unsealed", layer("salt-wash", thickness_mm=1.0))
    (sag,) = advise(case.zone, case.bench, (f"n{i}" for i in count())).sag
    assert sag.peak_mm == pytest.approx(2.0)
    assert sag.holds_mm == pytest.approx(4.2, abs=0.1)
    assert not sag.slides


def test_coats_advice_names_the_class_and_what_is_beneath() -> None:
    case = stack("raw-beech", layer("paint-plain", hex="#26282c"), layer("paint-plain", hex="#d8402c"))
    first, second = advise(case.zone, case.bench, (f"n{i}" for i in count())).coats
    assert (second.colour_class, second.over_hex) == ("red", "#26282c")
    assert second.coats is not None
    assert second.coats > second.planned == 1
    assert first.colour_class == "black"
