"""For each rule, stacks that it speaks of."""

from .stacks import CLEAN, DARK, PALE, RED, Case, layer, stack

FIRES: dict[str, tuple[Case, ...]] = {
    "slick-unprimed": (stack("slick", "paint-plain", prep=CLEAN), stack("old-gloss", "colour-wash")),
    "milk-paint-on-gloss": (stack("old-gloss", "milk-paint"), stack("painted-sealed", "milk-paint")),
    "slick-not-scuffed": (stack("slick", "bonding-primer-plain", "paint-plain"),),
    "glossy-not-scuffed": (
        stack("painted-sealed", "paint-plain", sheen="gloss"),
        stack("old-matt", "paint-plain", sheen="satin"),
    ),
    "not-cleaned": (stack("painted-sealed", "paint-plain"), stack("old-matt", "paint-plain")),
    "craters": (stack("waxed", "bonding-primer-plain", "paint-plain", prep=CLEAN),),
    "water-over-old-oil": (stack("old-gloss", "bonding-primer-plain", "paint-plain", prep="degreased"),),
    "knots-bleed": (stack("raw-pine", "paint-plain"), stack("raw-pine", "paint-wash-raw-wood")),
    "pine-blotches": (stack("raw-pine", "paint-wash-raw-wood"),),
    "grain-rises": (stack("raw-beech", "paint-plain"),),
    "raw-wood-unsanded": (stack("raw-oak", "liming-wax"),),
    "sanded-too-fine": (stack("raw-ash", "paint-wash-raw-wood", prep="sanded-240"),),
    "needs-open-grain": (
        stack("raw-beech", layer("liming-wax", "limed")),
        stack("raw-pine", layer("glaze-brushed-out", "pickled")),
    ),
    "tannins-bleed": (stack("raw-oak", layer("paint-plain", hex=PALE)),),
    "alkali-darkens": (stack("raw-oak", "milk-paint"),),
    "metal-rusts": (stack("bare-metal", "paint-plain"), stack("bare-metal", "bonding-primer-plain", "paint-plain")),
    "soot-beneath": (stack("bare-brick", "thinned-paint"),),
    "lead-untested": (
        stack("old-gloss", "milk-paint", prep="scuffed", old="not tested"),
        stack("old-matt", layer("paint-plain", sand=(180, "soften")), old="test planned"),
    ),
    "flaking-beneath": (stack("old-matt", "paint-plain", condition="flaking"),),
    "thirsty-plaster": (stack("bare-plaster", layer("trowelled-plaster")),),
    "blocker-no-night": (stack("raw-oak", layer("stain-blocker-plain", wait=2), "paint-plain"),),
    "primer-no-night": (stack("slick", layer("bonding-primer-plain", wait=4), "paint-plain"),),
    "water-over-wax": (
        stack("painted-unsealed", "clear-wax-plain", "colour-wash"),
        stack("painted-unsealed", "clear-wax-plain", layer("clear-wax-plain", "wax-resist"), "colour-wash"),
        stack("painted-unsealed", "clear-wax-plain", layer("paint-plain", "dry-brushed"), "paint-plain"),
    ),
    "hard-coat-over-wax": (
        stack("painted-unsealed", "clear-wax-plain", "clear-coat-plain"),
        stack("raw-oak", "oil-wax-plain", "clear-coat-plain"),
    ),
    "clear-over-patina": (
        stack("painted-unsealed", "patina-plain", "clear-coat-plain"),
        stack("painted-unsealed", "gilding", "clear-coat-plain"),
    ),
    "water-over-oil": (stack("raw-oak", "oil-wax-plain", "paint-plain"),),
    "dark-wax-stays": (stack("painted-unsealed", "paint-plain", "dark-wax"), stack("raw-oak", "dark-wax")),
    "wax-breaks-crests": (stack("painted-unsealed", layer("salt-wash", wait=36), "clear-wax-plain"),),
    "oil-over-coat": (stack("painted-unsealed", "clear-coat-plain", "oil-wax-plain"), stack("slick", "oil-wax-plain")),
    "thick-wax": (stack("painted-unsealed", layer("clear-wax-plain", coats=3)),),
    "no-night-before-water": (
        stack("painted-unsealed", layer("paint-plain", wait=2), "colour-wash"),
        stack("painted-unsealed", layer("milk-paint", wait=None), "glaze-dragged"),
        stack("painted-unsealed", layer("paint-plain", wait=12), "glaze-dragged", room=(12, 0.75)),
    ),
    "strong-water": (
        stack("painted-unsealed", layer("colour-wash", share=("water", 0.7))),
        stack("painted-sealed", "paint-plain", layer("colour-wash", share=("water", 0.65)), prep="degreased"),
    ),
    "sealer-wakes-paint": (stack("painted-unsealed", "paint-plain", "clear-coat-plain"),),
    "sealer-under-pickling": (stack("raw-oak", "sanding-sealer-plain", layer("liming-wax", "limed")),),
    "wash-settles": (stack("painted-sealed", layer("stacked-wash", share=("water", 0.8))),),
    "binder-thinned": (stack("raw-beech", "paint-wash-raw-wood"),),
    "open-too-short": (
        stack("painted-unsealed", layer("glaze-brushed-out", "glaze-dragged")),
        stack("painted-unsealed", layer("colour-wash", "glaze-dragged")),
    ),
    "runs-on-sealed": (stack("painted-sealed", "stacked-wash"),),
    "too-much-retarder": (stack("painted-sealed", layer("glaze-retarded", share=("retarder", 0.12))),),
    "recoat-too-soon": (
        stack("painted-unsealed", layer("paint-plain", wait=0.5), "paint-plain"),
        stack("painted-unsealed", layer("paint-plain", wait=3), "paint-plain", room=(12, 0.75)),
    ),
    "recoat-too-late": (stack("slick", layer("bonding-primer-plain", wait=240), "paint-plain"),),
    "seal-too-soon": (
        stack("painted-unsealed", layer("paint-plain", wait=3), "clear-coat-plain"),
        stack("painted-unsealed", layer("glaze-dragged", wait=12), "clear-coat-plain"),
    ),
    "too-cold-or-damp": (
        stack("raw-beech", "paint-plain", room=(8, 0.5)),
        stack("raw-beech", "paint-plain", room=(20, 0.9)),
    ),
    "time-unknown": (stack("raw-beech", layer("paint-plain", wait=None), "colour-wash", nobody_knows="mineral-paint"),),
    "weather": (
        stack("painted-unsealed", "paint-plain", use="weather"),
        stack("painted-unsealed", "clear-coat-plain", use="weather"),
    ),
    "feet": (stack("raw-beech", "paint-plain", "clear-coat-plain", use="feet"),),
    "wet-cups": (
        stack("raw-beech", "paint-plain", use="water"),
        stack("raw-beech", "paint-plain", "clear-coat-plain", use="water"),
    ),
    "heat": (stack("bare-brick", "thinned-paint", use="heat"),),
    "food": (stack("raw-beech", "hard-clear-coat-plain", use="food"),),
    "children": (
        stack("raw-beech", "paint-plain", use="children"),
        stack("raw-beech", "clear-coat-plain", use="children"),
    ),
    "unsealed-hands": (
        stack("raw-beech", "paint-plain", use="hands"),
        stack("raw-beech", "salt-and-pepper-paint", use="hands"),
    ),
    "unknown-buyer": (stack("raw-beech", "milk-paint", use="buyer"),),
    "gilding-bare-outdoors": (
        stack("painted-unsealed", "paint-plain", "exterior-clear-coat-plain", "gilding", use="weather"),
    ),
    "salt-outdoors": (
        stack("painted-unsealed", "baking-soda-paint", use="weather"),
        stack("bare-metal", "salt-and-pepper-paint"),
    ),
    "salt-unsealed": (stack("raw-beech", "baking-soda-paint"),),
    "grit-moulds": (
        stack("raw-beech", "coffee-paint", use="water"),
        stack("raw-beech", "sawdust-paint", use="weather"),
    ),
    "sags": (
        stack("painted-unsealed", layer("salt-wash", thickness_mm=6)),
        stack("painted-unsealed", layer("thinned-paint", "stippled")),
    ),
    "cracks-thick": (stack("painted-unsealed", layer("salt-wash", thickness_mm=6), upright=False),),
    "top-not-level": (stack("painted-unsealed", layer("salt-wash", thickness_mm=1.5), use="water", upright=False),),
    "moving-parts": (stack("painted-unsealed", "salt-wash", part="door-edges"),),
    "texture-no-night": (stack("painted-unsealed", layer("salt-wash", wait=3), "paint-plain"),),
    "texture-bare": (stack("painted-unsealed", "salt-wash"),),
    "too-coarse-for-wash": (stack("painted-unsealed", layer("stacked-wash", sand=(180, "soften"))),),
    "wrong-grit": (
        stack("raw-beech", layer("paint-plain", sand=(80, "soften"))),
        stack("raw-beech", layer("paint-plain", sand=(320, "bite"))),
    ),
    "sanded-wet": (stack("raw-beech", layer("paint-plain", wait=0.2, sand=(180, "soften"))),),
    "steel-wool": (
        stack("raw-oak", layer("paint-plain", sand=(180, "soften"), abrasive="steel wool"), "clear-coat-plain"),
    ),
    "nothing-to-reveal": (
        stack("raw-beech", layer("paint-plain", hex=RED), layer("paint-plain", hex=RED, sand=(120, "bite"))),
    ),
    "sanding-wax": (stack("raw-beech", "paint-plain", layer("clear-wax-plain", sand=(180, "soften"))),),
    "clear-not-keyed": (stack("raw-beech", layer("clear-coat-plain", coats=3)),),
    "amber-over-pale": (
        stack("raw-beech", layer("paint-plain", hex=PALE), "oil-wax-plain"),
        stack("raw-beech", layer("milk-paint", hex=PALE), "dewaxed-shellac-plain"),
    ),
    "matt-over-dark": (stack("raw-beech", layer("paint-plain", hex=DARK), layer("matt-clear-coat-plain", coats=2)),),
    "sealer-deepens": (
        stack("raw-beech", layer("paint-plain", hex=RED), layer("paint-plain", sand=(120, "bite")), "clear-coat-plain"),
    ),
    "too-few-coats": (stack("raw-beech", layer("paint-plain", hex=DARK), layer("paint-plain", hex="#d8402c")),),
    "prep-out-of-order": (stack("old-gloss", "milk-paint", prep="scuffed degreased"),),
    "not-dusted": (stack("raw-beech", "paint-plain", prep="sanded-180"),),
    "tape-lifts": (stack("painted-unsealed", layer("glaze-dragged", wait=12), layer("paint-plain", "striped")),),
    "closing-parts-stick": (stack("raw-beech", "paint-plain", part="drawers"),),
    "primer-last": (stack("slick", "bonding-primer-plain"),),
    "sealer-in-the-middle": (stack("raw-beech", "clear-coat-plain", "paint-plain"),),
}
