# ruff: noqa: E501  a table, one rule a line
"""Every rule of the checker: a stack that it speaks of, and a near one that it does not."""

from itertools import count

import pytest

from lumso.core.changes import apply
from lumso.core.checks import RULES

from .stacks import C, Case, layer, stack

PALE, DARK, RED = "#f1ead8", "#26282c", "#b02a24"
CLEAN = "degreased scuffed"
READY = "sanded-180 grain-raised dusted"
S = stack
L = layer
FIRES: dict[str, tuple[Case, ...]] = {
    "slick-unprimed": (S("slick", "paint-plain", prep=CLEAN), S("old-gloss", "colour-wash")),
    "milk-paint-on-gloss": (S("old-gloss", "milk-paint"), S("painted-sealed", "milk-paint")),
    "slick-not-scuffed": (S("slick", "bonding-primer-plain", "paint-plain"),),
    "not-cleaned": (S("painted-sealed", "paint-plain"), S("old-matt", "paint-plain")),
    "craters": (S("waxed", "bonding-primer-plain", "paint-plain", prep=CLEAN),),
    "water-over-old-oil": (S("old-gloss", "bonding-primer-plain", "paint-plain", prep="degreased"),),
    "knots-bleed": (S("raw-pine", "paint-plain"), S("raw-pine", "paint-wash-raw-wood")),
    "pine-blotches": (S("raw-pine", "paint-wash-raw-wood"),),
    "grain-rises": (S("raw-beech", "paint-plain"),),
    "raw-wood-unsanded": (S("raw-oak", "liming-wax"),),
    "sanded-too-fine": (S("raw-ash", "paint-wash-raw-wood", prep="sanded-240"),),
    "needs-open-grain": (S("raw-beech", L("liming-wax", "limed")), S("raw-pine", L("glaze-brushed-out", "pickled"))),
    "tannins-bleed": (S("raw-oak", L("paint-plain", hex=PALE)),),
    "alkali-darkens": (S("raw-oak", "milk-paint"),),
    "metal-rusts": (S("bare-metal", "paint-plain"), S("bare-metal", "bonding-primer-plain", "paint-plain")),
    "soot-beneath": (S("bare-brick", "thinned-paint"),),
    "lead-untested": (
        S("old-gloss", "milk-paint", prep="scuffed", old="of unknown age"),
        S("old-matt", L("paint-plain", sand=(180, "soften")), old="of known age"),
    ),
    "flaking-beneath": (S("old-matt", "paint-plain", condition="flaking"),),
    "thirsty-plaster": (S("bare-plaster", L("trowelled-plaster")),),
    "blocker-no-night": (S("raw-oak", L("stain-blocker-plain", wait=2), "paint-plain"),),
    "primer-no-night": (S("slick", L("bonding-primer-plain", wait=4), "paint-plain"),),
    "water-over-wax": (
        S("painted-unsealed", "clear-wax-plain", "colour-wash"),
        S("painted-unsealed", "clear-wax-plain", L("clear-wax-plain", "wax-resist"), "colour-wash"),
        S("painted-unsealed", "clear-wax-plain", L("paint-plain", "dry-brushed"), "paint-plain"),
    ),
    "hard-coat-over-wax": (S("painted-unsealed", "clear-wax-plain", "clear-coat-plain"), S("raw-oak", "oil-wax-plain", "clear-coat-plain")),
    "clear-over-patina": (S("painted-unsealed", "patina-plain", "clear-coat-plain"), S("painted-unsealed", "gilding", "clear-coat-plain")),
    "water-over-oil": (S("raw-oak", "oil-wax-plain", "paint-plain"),),
    "dark-wax-stays": (S("painted-unsealed", "paint-plain", "dark-wax"), S("raw-oak", "dark-wax")),
    "wax-breaks-crests": (S("painted-unsealed", L("salt-wash", wait=36), "clear-wax-plain"),),
    "oil-over-coat": (S("painted-unsealed", "clear-coat-plain", "oil-wax-plain"), S("slick", "oil-wax-plain")),
    "thick-wax": (S("painted-unsealed", L("clear-wax-plain", coats=3)),),
    "no-night-before-water": (
        S("painted-unsealed", L("paint-plain", wait=2), "colour-wash"),
        S("painted-unsealed", L("milk-paint", wait=None), "glaze-dragged"),
        S("painted-unsealed", L("paint-plain", wait=12), "glaze-dragged", room=(12, 0.75)),
    ),
    "strong-water": (
        S("painted-unsealed", L("colour-wash", share=("water", 0.7))),
        S("painted-sealed", "paint-plain", L("colour-wash", share=("water", 0.65)), prep="degreased"),
    ),
    "sealer-wakes-paint": (S("painted-unsealed", "paint-plain", "clear-coat-plain"),),
    "sealer-under-pickling": (S("raw-oak", "sanding-sealer-plain", L("liming-wax", "limed")),),
    "wash-settles": (S("painted-sealed", L("stacked-wash", share=("water", 0.8))),),
    "binder-thinned": (S("raw-beech", "paint-wash-raw-wood"),),
    "open-too-short": (S("painted-unsealed", L("glaze-brushed-out", "glaze-dragged")), S("painted-unsealed", L("colour-wash", "glaze-dragged"))),
    "runs-on-sealed": (S("painted-sealed", "stacked-wash"),),
    "too-much-retarder": (S("painted-sealed", L("glaze-retarded", share=("retarder", 0.12))),),
    "recoat-too-soon": (
        S("painted-unsealed", L("paint-plain", wait=0.5), "paint-plain"),
        S("painted-unsealed", L("paint-plain", wait=3), "paint-plain", room=(12, 0.75)),
    ),
    "recoat-too-late": (S("slick", L("bonding-primer-plain", wait=240), "paint-plain"),),
    "seal-too-soon": (
        S("painted-unsealed", L("paint-plain", wait=3), "clear-coat-plain"),
        S("painted-unsealed", L("glaze-dragged", wait=12), "clear-coat-plain"),
    ),
    "too-cold-or-damp": (S("raw-beech", "paint-plain", room=(8, 0.5)), S("raw-beech", "paint-plain", room=(20, 0.9))),
    "time-unknown": (S("raw-beech", L("paint-plain", wait=None), "colour-wash", nobody_knows="mineral-paint"),),
    "weather": (S("painted-unsealed", "paint-plain", use="weather"), S("painted-unsealed", "clear-coat-plain", use="weather")),
    "feet": (S("raw-beech", "paint-plain", "clear-coat-plain", use="feet"),),
    "wet-cups": (S("raw-beech", "paint-plain", use="water"), S("raw-beech", "paint-plain", "clear-coat-plain", use="water")),
    "heat": (S("bare-brick", "thinned-paint", use="heat"),),
    "food": (S("raw-beech", "hard-clear-coat-plain", use="food"),),
    "children": (S("raw-beech", "paint-plain", use="children"), S("raw-beech", "clear-coat-plain", use="children")),
    "unsealed-hands": (S("raw-beech", "paint-plain", use="hands"), S("raw-beech", "salt-and-pepper-paint", use="hands")),
    "unknown-buyer": (S("raw-beech", "milk-paint", use="buyer"),),
    "gilding-bare-outdoors": (S("painted-unsealed", "paint-plain", "exterior-clear-coat-plain", "gilding", use="weather"),),
    "salt-outdoors": (S("painted-unsealed", "baking-soda-paint", use="weather"), S("bare-metal", "salt-and-pepper-paint")),
    "salt-unsealed": (S("raw-beech", "baking-soda-paint"),),
    "grit-moulds": (S("raw-beech", "coffee-paint", use="water"), S("raw-beech", "sawdust-paint", use="weather")),
    "sags": (S("painted-unsealed", L("salt-wash", thickness_mm=6)), S("painted-unsealed", L("thinned-paint", "stippled"))),
    "cracks-thick": (S("painted-unsealed", L("salt-wash", thickness_mm=6), upright=False),),
    "top-not-level": (S("painted-unsealed", L("salt-wash", thickness_mm=1.5), use="water", upright=False),),
    "moving-parts": (S("painted-unsealed", "salt-wash", part="door-edges"),),
    "texture-no-night": (S("painted-unsealed", L("salt-wash", wait=3), "paint-plain"),),
    "texture-bare": (S("painted-unsealed", "salt-wash"),),
    "too-coarse-for-wash": (S("painted-unsealed", L("stacked-wash", sand=(180, "soften"))),),
    "wrong-grit": (S("raw-beech", L("paint-plain", sand=(80, "soften"))), S("raw-beech", L("paint-plain", sand=(320, "bite")))),
    "sanded-wet": (S("raw-beech", L("paint-plain", wait=0.2, sand=(180, "soften"))),),
    "steel-wool": (S("raw-oak", L("paint-plain", sand=(180, "soften"), abrasive="steel wool"), "clear-coat-plain"),),
    "nothing-to-reveal": (S("raw-beech", L("paint-plain", hex=RED), L("paint-plain", hex=RED, sand=(120, "bite"))),),
    "sanding-wax": (S("raw-beech", "paint-plain", L("clear-wax-plain", sand=(180, "soften"))),),
    "clear-not-keyed": (S("raw-beech", L("clear-coat-plain", coats=3)),),
    "amber-over-pale": (S("raw-beech", L("paint-plain", hex=PALE), "oil-wax-plain"), S("raw-beech", L("milk-paint", hex=PALE), "dewaxed-shellac-plain")),
    "matt-over-dark": (S("raw-beech", L("paint-plain", hex=DARK), L("matt-clear-coat-plain", coats=2)),),
    "sealer-deepens": (S("raw-beech", L("paint-plain", hex=RED), L("paint-plain", sand=(120, "bite")), "clear-coat-plain"),),
    "too-few-coats": (S("raw-beech", L("paint-plain", hex=DARK), L("paint-plain", hex="#d8402c")),),
    "prep-out-of-order": (S("old-gloss", "milk-paint", prep="scuffed degreased"),),
    "not-dusted": (S("raw-beech", "paint-plain", prep="sanded-180"),),
    "tape-lifts": (S("painted-unsealed", L("glaze-dragged", wait=12), L("paint-plain", "striped")),),
    "closing-parts-stick": (S("raw-beech", "paint-plain", part="drawers"),),
    "primer-last": (S("slick", "bonding-primer-plain"),),
    "sealer-in-the-middle": (S("raw-beech", "clear-coat-plain", "paint-plain"),),
}  # fmt: skip
QUIET: dict[str, tuple[Case, ...]] = {
    "slick-unprimed": (S("slick", "bonding-primer-plain", "paint-plain"), S("slick", "milk-paint-bonding"), S("painted-sealed", "paint-plain")),
    "milk-paint-on-gloss": (S("old-gloss", "milk-paint-bonding"), S("raw-beech", "milk-paint"), S("slick", "bonding-primer-plain", "milk-paint")),
    "slick-not-scuffed": (S("slick", "bonding-primer-plain", prep="scuffed"),),
    "not-cleaned": (S("painted-sealed", "paint-plain", prep="degreased"), S("raw-beech", "paint-plain")),
    "craters": (S("waxed", "bonding-primer-plain", prep="wax-stripped"), S("old-gloss", "bonding-primer-plain")),
    "water-over-old-oil": (S("old-gloss", "bonding-primer-plain", prep=CLEAN), S("old-gloss", "dewaxed-shellac-plain", "paint-plain")),
    "knots-bleed": (S("raw-pine", "dewaxed-shellac-plain", "paint-plain"), S("raw-beech", "paint-plain")),
    "pine-blotches": (S("raw-beech", "paint-wash-raw-wood"), S("raw-pine", "paint-plain")),
    "grain-rises": (S("raw-beech", "paint-plain", prep=READY), S("raw-beech", "dewaxed-shellac-plain")),
    "raw-wood-unsanded": (S("raw-oak", "liming-wax", prep="sanded-150"), S("painted-unsealed", "paint-plain")),
    "sanded-too-fine": (S("raw-ash", "paint-wash-raw-wood", prep="sanded-180"), S("raw-ash", "paint-plain", prep="sanded-240")),
    "needs-open-grain": (S("raw-ash", L("liming-wax", "limed")),),
    "tannins-bleed": (S("raw-oak", L("paint-plain", hex=DARK)), S("raw-oak", "stain-blocker-plain", L("paint-plain", hex=PALE)), S("raw-beech", L("paint-plain", hex=PALE))),
    "alkali-darkens": (S("raw-beech", "milk-paint"), S("raw-oak", "dewaxed-shellac-plain", "milk-paint")),
    "metal-rusts": (S("bare-metal", "metal-primer-plain", "paint-plain"),),
    "soot-beneath": (S("bare-brick", "thinned-paint", prep="soot-washed"),),
    "lead-untested": (S("old-gloss", "milk-paint", prep="lead-tested scuffed", old="of unknown age"), S("old-matt", "paint-plain", old="of unknown age"), S("raw-beech", "paint-plain", prep="sanded-180")),
    "flaking-beneath": (S("old-matt", "paint-plain", condition="flaking", prep="lead-tested loose-scraped"), S("old-matt", "paint-plain", condition="worn")),
    "thirsty-plaster": (S("bare-plaster", "paint-plain"), S("painted-unsealed", "trowelled-plaster")),
    "blocker-no-night": (S("raw-oak", "stain-blocker-plain", "paint-plain"),),
    "primer-no-night": (S("slick", "bonding-primer-plain", "paint-plain"), S("raw-beech", L("bonding-primer-plain", wait=4), "paint-plain")),
    "water-over-wax": (S("painted-unsealed", L("clear-wax-plain", "wax-resist"), "colour-wash"), S("painted-unsealed", "colour-wash", "clear-wax-plain")),
    "hard-coat-over-wax": (S("painted-unsealed", "clear-coat-plain", "clear-wax-plain"),),
    "clear-over-patina": (S("painted-unsealed", "clear-coat-plain", "patina-plain"), S("painted-unsealed", "patina-plain", "dewaxed-shellac-plain", "clear-coat-plain")),
    "water-over-oil": (S("raw-oak", "oil-wax-plain", "dewaxed-shellac-plain", "paint-plain"), S("raw-oak", "oil-wax-plain")),
    "dark-wax-stays": (S("painted-unsealed", "clear-coat-plain", L("patina-plain", "shaded-edges"), "dark-wax"), S("painted-unsealed", "clear-wax-plain", "dark-wax"), S("painted-unsealed", "clear-coat-plain", "dark-wax"), S("painted-sealed", "dark-wax")),
    "wax-breaks-crests": (S("painted-unsealed", L("salt-wash", wait=36), "clear-coat-plain", "clear-wax-plain"), S("painted-unsealed", "paint-plain", "clear-wax-plain")),
    "oil-over-coat": (S("raw-oak", "oil-wax-plain"), S("painted-unsealed", "milk-paint", "oil-wax-plain")),
    "thick-wax": (S("painted-unsealed", L("clear-wax-plain", coats=2)),),
    "no-night-before-water": (S("painted-unsealed", L("paint-plain", wait=12), "colour-wash"), S("painted-unsealed", L("paint-plain", wait=2), "paint-plain"), S("painted-unsealed", L("paint-plain", wait=12), "clear-coat-plain", "glaze-dragged")),
    "strong-water": (S("painted-unsealed", L("colour-wash", share=("water", 0.6))), S("painted-sealed", L("colour-wash", share=("water", 0.75))), S("painted-unsealed", L("whitewash-dry-wiped", share=("water", 0.75)))),
    "sealer-wakes-paint": (S("painted-unsealed", "self-sealing-paint", "clear-coat-plain"), S("painted-unsealed", "paint-plain", "clear-wax-plain")),
    "sealer-under-pickling": (S("raw-oak", L("liming-wax", "limed"), "clear-wax-plain"),),
    "wash-settles": (S("painted-sealed", L("stacked-wash", share=("water", 0.75))),),
    "binder-thinned": (S("raw-beech", "paint-wash-raw-wood", "clear-coat-plain"), S("raw-beech", "paint-plain"), S("raw-beech", "milk-paint")),
    "open-too-short": (S("painted-unsealed", "glaze-dragged"), S("painted-unsealed", "glaze-brushed-out")),
    "runs-on-sealed": (S("painted-sealed", "stacked-wash", upright=False), S("painted-unsealed", "stacked-wash"), S("painted-sealed", "paint-plain")),
    "too-much-retarder": (S("painted-sealed", "glaze-retarded"),),
    "recoat-too-soon": (S("painted-unsealed", L("paint-plain", wait=2), "paint-plain"), S("painted-unsealed", L("paint-plain", wait=None), "paint-plain", room=(12, 0.75))),
    "recoat-too-late": (S("slick", L("bonding-primer-plain", wait=240, sand=(220, "scuff")), "paint-plain"), S("slick", L("bonding-primer-plain", wait=100), "paint-plain")),
    "seal-too-soon": (S("painted-unsealed", L("paint-plain", wait=12), "clear-coat-plain"), S("painted-unsealed", L("paint-plain", wait=3), "paint-plain")),
    "too-cold-or-damp": (S("raw-beech", "paint-plain", room=(15, 0.6)), S("raw-beech", "clear-wax-plain", room=(8, 0.5))),
    "time-unknown": (S("raw-beech", "paint-plain", "paint-plain"),),
    "weather": (S("painted-unsealed", "paint-plain", "exterior-clear-coat-plain", use="weather"), S("painted-unsealed", "paint-plain", use="hands")),
    "feet": (S("raw-beech", "paint-plain", "hard-clear-coat-plain", use="feet"),),
    "wet-cups": (S("raw-beech", "paint-plain", "hard-clear-coat-plain", use="water"), S("raw-beech", "paint-plain")),
    "heat": (S("bare-brick", "thinned-paint"),),
    "food": (S("raw-beech", "hard-clear-coat-plain", use="hands"),),
    "children": (S("raw-beech", "paint-plain", use="hands"),),
    "unsealed-hands": (S("raw-beech", "paint-plain", "clear-coat-plain", use="hands"), S("raw-beech", "self-sealing-paint", use="hands"), S("raw-beech", "clear-coat-plain", L("patina-plain", "shaded-edges"), use="hands")),
    "unknown-buyer": (S("raw-beech", "milk-paint", "clear-wax-plain", use="buyer"),),
    "gilding-bare-outdoors": (S("painted-unsealed", "gilding", "exterior-clear-coat-plain", use="weather"), S("painted-unsealed", "gilding", use="hands")),
    "salt-outdoors": (S("painted-unsealed", "baking-soda-paint"), S("painted-unsealed", "sand-paint", use="weather")),
    "salt-unsealed": (S("raw-beech", "baking-soda-paint", "clear-coat-plain"),),
    "grit-moulds": (S("raw-beech", "coffee-paint", use="hands"), S("raw-beech", "sand-paint", use="water")),
    "sags": (S("painted-unsealed", L("salt-wash", thickness_mm=1)), S("painted-unsealed", L("salt-wash", thickness_mm=6), upright=False), S("painted-unsealed", "paint-plain")),
    "cracks-thick": (S("painted-unsealed", L("salt-wash", thickness_mm=5), upright=False),),
    "top-not-level": (S("painted-unsealed", L("salt-wash", thickness_mm=0.5), use="water", upright=False), S("painted-unsealed", L("salt-wash", thickness_mm=1.5), use="water")),
    "moving-parts": (S("painted-unsealed", "paint-plain", part="door-edges"), S("painted-unsealed", "salt-wash")),
    "texture-no-night": (S("painted-unsealed", L("salt-wash", wait=36), "paint-plain"), S("painted-unsealed", L("salt-wash", wait=None), "paint-plain")),
    "texture-bare": (S("painted-unsealed", "salt-wash", "clear-coat-plain"), S("painted-unsealed", "paint-plain")),
    "too-coarse-for-wash": (S("painted-unsealed", L("stacked-wash", sand=(320, "soften"))), S("painted-unsealed", L("paint-plain", sand=(180, "soften")))),
    "wrong-grit": (S("raw-beech", L("paint-plain", sand=(180, "soften"))), S("painted-unsealed", L("stacked-wash", sand=(320, "soften")))),
    "sanded-wet": (S("raw-beech", L("paint-plain", wait=0.5, sand=(180, "soften"))),),
    "steel-wool": (S("raw-oak", L("paint-plain", sand=(180, "soften"), abrasive="bronze wool"), "clear-coat-plain"), S("raw-oak", L("paint-plain", sand=(180, "soften"), abrasive="steel wool"), "clear-wax-plain")),
    "nothing-to-reveal": (S("raw-beech", L("paint-plain", hex=RED), L("paint-plain", hex=PALE, sand=(120, "bite"))), S("raw-beech", L("paint-plain", hex=RED), L("paint-plain", hex=RED, sand=(180, "soften")))),
    "sanding-wax": (S("raw-beech", L("paint-plain", sand=(180, "soften")), "clear-wax-plain"),),
    "clear-not-keyed": (S("raw-beech", L("clear-coat-plain", coats=2)), S("raw-beech", L("clear-coat-plain", coats=3, sand=(320, "between clear coats")))),
    "amber-over-pale": (S("raw-beech", L("paint-plain", hex=DARK), "oil-wax-plain"), S("raw-beech", L("paint-plain", hex=PALE), "clear-coat-plain")),
    "matt-over-dark": (S("raw-beech", L("paint-plain", hex=DARK), "matt-clear-coat-plain"), S("raw-beech", L("paint-plain", hex=PALE), L("matt-clear-coat-plain", coats=2))),
    "sealer-deepens": (S("raw-beech", L("paint-plain", sand=(180, "soften")), "clear-coat-plain"),),
    "too-few-coats": (S("raw-beech", L("paint-plain", hex=DARK), L("paint-plain", hex=RED, coats=4)), S("raw-beech", "colour-wash")),
    "prep-out-of-order": (S("old-gloss", "milk-paint", prep="degreased scuffed"),),
    "not-dusted": (S("raw-beech", "paint-plain", prep="sanded-180 dusted"), S("raw-beech", "paint-plain")),
    "tape-lifts": (S("painted-unsealed", L("glaze-dragged", wait=24), L("paint-plain", "striped")), S("painted-unsealed", L("glaze-dragged", wait=12), "paint-plain")),
    "closing-parts-stick": (S("raw-beech", "paint-plain", part="front"),),
    "primer-last": (S("slick", "bonding-primer-plain", "paint-plain"), S("raw-pine", "dewaxed-shellac-plain")),
    "sealer-in-the-middle": (S("raw-beech", L("clear-coat-plain", sand=(320, "between clear coats")), "paint-plain"), S("raw-beech", "paint-plain", "clear-coat-plain")),
}  # fmt: skip
FIRING = [(rule, case) for rule, cases in FIRES.items() for case in cases]
RESTING = [(rule, case) for rule, cases in QUIET.items() for case in cases]


def test_every_rule_has_a_stack_it_speaks_of_and_one_it_does_not() -> None:
    assert len(RULES) >= 35
    without = [rule for rule in RULES if not FIRES.get(rule) or not QUIET.get(rule)]
    assert without == []
    assert set(FIRES) | set(QUIET) <= set(RULES)


@pytest.mark.parametrize(("rule", "case"), FIRING, ids=[f"{r}-{i}" for i, (r, _) in enumerate(FIRING)])
def test_it_speaks(rule: str, case: Case) -> None:
    assert rule in case.rules()


@pytest.mark.parametrize(("rule", "case"), RESTING, ids=[f"{r}-{i}" for i, (r, _) in enumerate(RESTING)])
def test_it_keeps_quiet(rule: str, case: Case) -> None:
    assert rule not in case.rules()


WAYS = [(rule, case) for rule, case in FIRING if any(f.rule == rule and f.ways for f in case.findings())]


@pytest.mark.parametrize(("rule", "case"), WAYS, ids=[f"{r}-{i}" for i, (r, _) in enumerate(WAYS)])
def test_each_way_out_ends_the_finding_and_brings_no_new_failure(rule: str, case: Case) -> None:
    before = case.findings()
    failing = {f.rule for f in before if f.grade == "will fail"}
    for finding in (f for f in before if f.rule == rule):
        for way in finding.ways:
            zone = apply(case.zone, way.changes, C, (f"new{n}" for n in count()))
            after = case.bench.findings(zone)
            still = [f for f in after if f.rule == rule and (f.above, f.says) == (finding.above, finding.says)]
            assert still == [], way.says
            fresh = {f.rule for f in after if f.grade == "will fail"} - failing
            assert fresh == set(), way.says


def test_what_will_fail_has_a_way_out_unless_only_the_room_can_help() -> None:
    without = {
        f.rule for _, case in FIRING for f in case.findings() if f.grade == "will fail" and not f.ways
    }  # fmt: skip
    assert without <= {"too-cold-or-damp", "sags"}


def test_findings_name_their_boundary_their_reason_and_their_source() -> None:
    for _, case in FIRING:
        ids = {"", *(x.id for x in case.zone.layers)}
        for f in case.findings():
            assert {f.below, f.above} <= ids
            assert f.reason
            assert f.provenance
            assert f.says.endswith((".", "!"))
            assert f.accepted is None
