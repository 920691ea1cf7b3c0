"""For each rule, near stacks that it does not speak of."""

from .stacks import CLEAN, DARK, PALE, READY, RED, Case, layer, stack

QUIET: dict[str, tuple[Case, ...]] = {
    "slick-unprimed": (
        stack("slick", "bonding-primer-plain", "paint-plain"),
        stack("slick", "milk-paint-bonding"),
        stack("painted-sealed", "paint-plain"),
    ),
    "milk-paint-on-gloss": (
        stack("old-gloss", "milk-paint-bonding"),
        stack("raw-beech", "milk-paint"),
        stack("slick", "bonding-primer-plain", "milk-paint"),
        stack("slick", "clear-coat-plain", "paint-plain", "milk-paint"),
    ),
    "slick-not-scuffed": (
        stack("slick", "bonding-primer-plain", prep="scuffed"),
        stack("slick", "milk-paint"),
        stack("glass", "bonding-primer-plain"),
    ),
    "glossy-not-scuffed": (
        stack("painted-sealed", "paint-plain", sheen="gloss", prep=CLEAN),
        stack("painted-sealed", "paint-plain", sheen="matt"),
        stack("raw-beech", "paint-plain", sheen="gloss"),
    ),
    "not-cleaned": (stack("painted-sealed", "paint-plain", prep="degreased"), stack("raw-beech", "paint-plain")),
    "craters": (
        stack("waxed", "bonding-primer-plain", prep="wax-stripped"),
        stack("old-gloss", "bonding-primer-plain"),
    ),
    "water-over-old-oil": (
        stack("old-gloss", "bonding-primer-plain", prep=CLEAN),
        stack("old-gloss", "dewaxed-shellac-plain", "paint-plain"),
    ),
    "knots-bleed": (stack("raw-pine", "dewaxed-shellac-plain", "paint-plain"), stack("raw-beech", "paint-plain")),
    "pine-blotches": (stack("raw-beech", "paint-wash-raw-wood"), stack("raw-pine", "paint-plain")),
    "grain-rises": (stack("raw-beech", "paint-plain", prep=READY), stack("raw-beech", "dewaxed-shellac-plain")),
    "raw-wood-unsanded": (stack("raw-oak", "liming-wax", prep="sanded-150"), stack("painted-unsealed", "paint-plain")),
    "sanded-too-fine": (
        stack("raw-ash", "paint-wash-raw-wood", prep="sanded-180"),
        stack("raw-ash", "paint-plain", prep="sanded-240"),
    ),
    "needs-open-grain": (stack("raw-ash", layer("liming-wax", "limed")),),
    "tannins-bleed": (
        stack("raw-oak", layer("paint-plain", hex=DARK)),
        stack("raw-oak", "stain-blocker-plain", layer("paint-plain", hex=PALE)),
        stack("raw-beech", layer("paint-plain", hex=PALE)),
    ),
    "alkali-darkens": (stack("raw-beech", "milk-paint"), stack("raw-oak", "dewaxed-shellac-plain", "milk-paint")),
    "metal-rusts": (
        stack("bare-metal", "metal-primer-plain", "paint-plain"),
        stack("bare-metal", "clear-wax-plain"),
    ),
    "soot-beneath": (stack("bare-brick", "thinned-paint", prep="soot-washed"),),
    "lead-untested": (
        stack("old-gloss", "milk-paint", prep="scuffed", old="none found"),
        stack("old-matt", layer("paint-plain", sand=(100, "reveal")), old="never coated"),
        stack("raw-beech", "paint-plain", prep="sanded-180", old="not tested"),
        stack("old-matt", "paint-plain", old="found"),
    ),
    "lead-found": (stack("old-matt", "paint-plain", old="none found"), stack("raw-oak", "paint-plain", old="found")),
    "asbestos-untested": (
        stack("old-painted-plaster", "paint-plain", asbestos="none found", old="not tested"),
        stack("raw-beech", "paint-plain", facts=("raised old pattern",), asbestos="not tested"),
        stack("old-matt", "paint-plain", asbestos="not tested"),
    ),
    "heat-on-old-coat": (
        stack("old-matt", layer("paint-plain", dries_by="heat gun"), old="none found"),
        stack("raw-beech", layer("paint-plain", dries_by="heat gun"), old="not tested"),
        stack("old-matt", layer("paint-plain", dries_by="warm room"), old="not tested"),
    ),
    "rotating-work": (stack("raw-beech", "paint-plain"),),
    "kitchen-tools": (stack("raw-beech", "paint-plain"),),
    "flame-near": (
        stack("raw-beech", "clear-wax-plain"),
        stack("raw-beech", "paint-plain", place=("public room",)),
    ),
    "ladder": (stack("raw-beech", "paint-plain"),),
    "household": (
        stack("raw-beech", "paint-plain", place=("children in the house",)),
        stack("raw-beech", "clear-wax-plain"),
    ),
    "public-room": (stack("raw-beech", "paint-plain"),),
    "frost": (stack("raw-beech", "clear-wax-plain", place=("may freeze",)), stack("raw-beech", "paint-plain")),
    "unknown-ground": (stack("not-known", "paint-plain", prep="patch-tested"), stack("old-matt", "paint-plain")),
    "filler-takes-no-wash": (
        stack("raw-beech", "paint-plain", facts=("filler or glue spots",)),
        stack("raw-beech", "paint-wash-raw-wood"),
    ),
    "raised-pattern-shows": (
        stack("old-matt", "paint-plain", facts=("raised old pattern",), prep="sanded-150"),
        stack("old-matt", "paint-plain"),
    ),
    "wallpaper-beneath": (
        stack("old-painted-plaster", "paint-plain", facts=("wallpaper or its paste",), prep="degreased"),
        stack("old-painted-plaster", "paint-plain"),
    ),
    "holes-open": (
        stack("raw-beech", "paint-plain", facts=("holes to fill", "holes to drill"), prep="holes-filled holes-drilled"),
        stack("raw-beech", "paint-plain"),
    ),
    "ground-moves": (stack("raw-beech", "paint-plain"),),
    "resist-left": (
        stack(
            "raw-beech",
            "paint-plain",
            layer("clear-wax-plain", "wax-resist"),
            layer("paint-plain", sand=(180, "reveal")),
            "clear-coat-plain",
        ),
        stack("raw-beech", "paint-plain", layer("clear-wax-plain", "wax-resist"), "paint-plain", "clear-wax-plain"),
    ),
    "solvent-over-green": (
        stack("raw-beech", "paint-plain", "clear-wax-plain"),
        stack("raw-beech", layer("paint-plain", wait=2), layer("clear-wax-plain", "wax-resist")),
        stack("raw-beech", layer("clear-wax-plain", wait=1), "clear-wax-plain"),
    ),
    "wet-into-wet": (
        stack("painted-sealed", "colour-wash", layer("colour-wash", wet_into_wet=True)),
        stack("painted-sealed", "colour-wash", "clear-coat-plain"),
    ),
    "forced-drying": (
        stack("painted-unsealed", layer("salt-wash", thickness_mm=0.3, dries_by="hair dryer")),
        stack("painted-unsealed", layer("salt-wash", thickness_mm=0.5, dries_by="warm room")),
        stack("raw-beech", layer("paint-plain", dries_by="heat gun")),
    ),
    "glaze-drunk": (
        stack("raw-beech", "paint-plain", "clear-coat-plain", "glaze-dragged"),
        stack("raw-beech", "paint-plain", "glaze-brushed-out"),
    ),
    "one-thin-sealer": (
        stack("raw-beech", "paint-plain", layer("hard-clear-coat-plain", coats=3), use="feet"),
        stack("raw-beech", "paint-plain", "clear-coat-plain", "hard-clear-coat-plain", use="water", upright=False),
        stack("raw-beech", "paint-plain", "clear-coat-plain", use="hands", upright=False),
        stack("raw-beech", "paint-plain", "hard-clear-coat-plain", use="water"),
    ),
    "sands-last-clear": (
        stack("raw-beech", "paint-plain", layer("clear-coat-plain", coats=2, sand=(320, "between clear coats"))),
        stack("raw-beech", "paint-plain", layer("clear-coat-plain", sand=(800, "polish"), abrasive="synthetic pad")),
    ),
    "flaking-beneath": (
        stack("old-matt", "paint-plain", condition="flaking", prep="lead-tested loose-scraped"),
        stack("old-matt", "paint-plain", condition="worn"),
    ),
    "thirsty-plaster": (stack("bare-plaster", "thinned-paint"), stack("painted-unsealed", "trowelled-plaster")),
    "blocker-no-night": (stack("raw-oak", "stain-blocker-plain", "paint-plain"),),
    "primer-no-night": (
        stack("slick", "bonding-primer-plain", "paint-plain"),
        stack("raw-beech", layer("bonding-primer-plain", wait=4), "paint-plain"),
    ),
    "water-over-wax": (
        stack("painted-unsealed", layer("clear-wax-plain", "wax-resist"), "colour-wash"),
        stack("painted-unsealed", "colour-wash", "clear-wax-plain"),
    ),
    "hard-coat-over-wax": (
        stack("painted-unsealed", "clear-coat-plain", "clear-wax-plain"),
        stack("raw-oak", layer("oil-wax-plain", wait=700, sand=(240, "scuff")), "clear-coat-plain"),
    ),
    "clear-over-patina": (
        stack("painted-unsealed", "clear-coat-plain", "patina-plain"),
        stack("painted-unsealed", "patina-plain", "dewaxed-shellac-plain", "clear-coat-plain"),
    ),
    "water-over-oil": (
        stack("raw-oak", "oil-wax-plain", "dewaxed-shellac-plain", "paint-plain"),
        stack("raw-oak", "oil-wax-plain"),
        stack("raw-oak", layer("oil-wax-plain", wait=700, sand=(240, "scuff")), "paint-plain"),
    ),
    "dark-wax-stays": (
        stack("painted-unsealed", "clear-coat-plain", layer("patina-plain", "shaded-edges"), "dark-wax"),
        stack("painted-unsealed", "clear-wax-plain", "dark-wax"),
        stack("painted-unsealed", "glaze-brushed-out", "dark-wax"),
        stack("painted-unsealed", "clear-coat-plain", "dark-wax"),
        stack("painted-sealed", "dark-wax"),
    ),
    "wax-breaks-crests": (
        stack("painted-unsealed", layer("salt-wash", wait=36), "clear-coat-plain", "clear-wax-plain"),
        stack("painted-unsealed", "paint-plain", "clear-wax-plain"),
    ),
    "oil-over-coat": (stack("raw-oak", "oil-wax-plain"), stack("painted-unsealed", "milk-paint", "oil-wax-plain")),
    "thick-wax": (stack("painted-unsealed", layer("clear-wax-plain", coats=2)),),
    "no-night-before-water": (
        stack("painted-unsealed", layer("paint-plain", wait=12), "colour-wash"),
        stack("painted-unsealed", layer("paint-plain", wait=2), "paint-plain"),
        stack("painted-unsealed", layer("paint-plain", wait=12), "clear-coat-plain", "glaze-dragged"),
    ),
    "strong-water": (
        stack("painted-unsealed", layer("colour-wash", share=("water", 0.6))),
        stack("painted-sealed", layer("colour-wash", share=("water", 0.75))),
        stack("painted-unsealed", layer("whitewash-dry-wiped", share=("water", 0.75))),
    ),
    "sealer-wakes-paint": (
        stack("painted-unsealed", "self-sealing-paint", "clear-coat-plain"),
        stack("painted-unsealed", "paint-plain", "clear-wax-plain"),
    ),
    "sealer-under-pickling": (stack("raw-oak", layer("liming-wax", "limed"), "clear-wax-plain"),),
    "wash-settles": (stack("painted-sealed", layer("stacked-wash", share=("water", 0.75))),),
    "binder-thinned": (
        stack("raw-beech", "paint-wash-raw-wood", "clear-coat-plain"),
        stack("raw-beech", "paint-plain"),
        stack("raw-beech", "milk-paint"),
    ),
    "open-too-short": (stack("painted-unsealed", "glaze-dragged"), stack("painted-unsealed", "glaze-brushed-out")),
    "runs-on-sealed": (
        stack("painted-sealed", "stacked-wash", upright=False),
        stack("painted-unsealed", "stacked-wash"),
        stack("painted-sealed", "paint-plain"),
        stack("painted-sealed", "paint-plain", "stacked-wash"),
    ),
    "too-much-retarder": (stack("painted-sealed", "glaze-retarded"),),
    "recoat-too-soon": (
        stack("painted-unsealed", layer("paint-plain", wait=2), "paint-plain"),
        stack("painted-unsealed", layer("paint-plain", wait=None), "paint-plain", room=(12, 0.75)),
        stack("painted-unsealed", layer("clear-wax-plain", wait=0.5), "dark-wax"),
        stack("painted-unsealed", layer("clear-wax-plain", "wax-resist", wait=0), "paint-plain"),
        stack("painted-sealed", layer("colour-wash", wait=0), layer("colour-wash", wet_into_wet=True)),
    ),
    "recoat-too-late": (
        stack("slick", layer("bonding-primer-plain", wait=240, sand=(220, "scuff")), "paint-plain"),
        stack("slick", layer("bonding-primer-plain", wait=100), "paint-plain"),
    ),
    "seal-too-soon": (
        stack("painted-unsealed", layer("paint-plain", wait=12), "clear-coat-plain"),
        stack("painted-unsealed", layer("paint-plain", wait=3), "paint-plain"),
    ),
    "too-cold-or-damp": (
        stack("raw-beech", "paint-plain", room=(15, 0.6)),
        stack("raw-beech", "clear-wax-plain", room=(8, 0.5)),
    ),
    "time-unknown": (stack("raw-beech", "paint-plain", "paint-plain"),),
    "weather": (
        stack("painted-unsealed", "paint-plain", "exterior-clear-coat-plain", use="weather"),
        stack("painted-unsealed", "paint-plain", use="hands"),
    ),
    "feet": (stack("raw-beech", "paint-plain", "hard-clear-coat-plain", use="feet"),),
    "wet-cups": (
        stack("raw-beech", "paint-plain", "hard-clear-coat-plain", use="water"),
        stack("raw-beech", "paint-plain"),
    ),
    "heat": (stack("bare-brick", "thinned-paint"),),
    "food": (stack("raw-beech", "hard-clear-coat-plain", use="hands"),),
    "children": (stack("raw-beech", "paint-plain", use="hands"),),
    "unsealed-hands": (
        stack("raw-beech", "paint-plain", "clear-coat-plain", use="hands"),
        stack("raw-beech", "self-sealing-paint", use="hands"),
        stack("raw-beech", "clear-coat-plain", layer("patina-plain", "shaded-edges"), use="hands"),
    ),
    "unknown-buyer": (stack("raw-beech", "milk-paint", "clear-wax-plain", use="buyer"),),
    "gilding-bare-outdoors": (
        stack("painted-unsealed", "gilding", "exterior-clear-coat-plain", use="weather"),
        stack("painted-unsealed", "gilding", use="hands"),
    ),
    "salt-outdoors": (
        stack("painted-unsealed", "baking-soda-paint"),
        stack("painted-unsealed", "sand-paint", use="weather"),
    ),
    "salt-unsealed": (stack("raw-beech", "baking-soda-paint", "clear-coat-plain"),),
    "grit-moulds": (stack("raw-beech", "coffee-paint", use="hands"), stack("raw-beech", "sand-paint", use="water")),
    "sags": (
        stack("painted-unsealed", layer("salt-wash", thickness_mm=1)),
        stack("painted-unsealed", layer("salt-wash", thickness_mm=6), upright=False),
        stack("painted-unsealed", layer("salt-wash", thickness_mm=6), narrow=True),
        stack("painted-unsealed", "paint-plain"),
    ),
    "cracks-thick": (stack("painted-unsealed", layer("salt-wash", thickness_mm=5), upright=False),),
    "top-not-level": (
        stack("painted-unsealed", layer("salt-wash", thickness_mm=0.5), use="water", upright=False),
        stack("painted-unsealed", layer("salt-wash", thickness_mm=1.5), use="water"),
        stack(
            "painted-unsealed", layer("salt-wash", thickness_mm=1.5, sand=(100, "level")), use="water", upright=False
        ),
    ),
    "moving-parts": (
        stack("painted-unsealed", "paint-plain", part="door-edges", does=("closes",)),
        stack("painted-unsealed", "salt-wash", part="lid", does=("lifts",)),
        stack("painted-unsealed", "salt-wash"),
    ),
    "texture-no-night": (
        stack("painted-unsealed", layer("salt-wash", wait=36), "paint-plain"),
        stack("painted-unsealed", layer("salt-wash", wait=None), "paint-plain"),
        stack("painted-unsealed", layer("salt-wash", thickness_mm=0.2, touched=0.5, wait=5), "paint-plain"),
    ),
    "texture-bare": (
        stack("painted-unsealed", "salt-wash", "clear-coat-plain"),
        stack("painted-unsealed", "paint-plain"),
    ),
    "too-coarse-for-wash": (
        stack("painted-unsealed", layer("stacked-wash", sand=(320, "soften"))),
        stack("painted-unsealed", layer("paint-plain", sand=(180, "soften"))),
        stack("painted-unsealed", layer("whitewash-dry-wiped", sand=(220, "blend"))),
    ),
    "wrong-grit": (
        stack("raw-beech", layer("paint-plain", sand=(180, "soften"))),
        stack("raw-beech", layer("paint-plain", sand=(320, "soften"))),
        stack("raw-beech", layer("paint-plain", sand=(150, "bite"))),
        stack("painted-unsealed", layer("stacked-wash", sand=(320, "soften"))),
    ),
    "sanded-wet": (
        stack("raw-beech", layer("paint-plain", wait=0.5, sand=(180, "soften"))),
        stack("raw-beech", layer("self-sealing-paint", wait=0.5, sand=(320, "soften"))),
    ),
    "steel-wool": (
        stack("raw-oak", layer("paint-plain", sand=(180, "soften"), abrasive="bronze wool"), "clear-coat-plain"),
        stack("raw-beech", layer("paint-plain", sand=(180, "soften"), abrasive="steel wool"), "clear-wax-plain"),
    ),
    "nothing-to-reveal": (
        stack("raw-beech", layer("paint-plain", hex=RED), layer("paint-plain", hex=PALE, sand=(120, "bite"))),
        stack("raw-beech", layer("paint-plain", hex=RED), layer("paint-plain", hex=RED, sand=(180, "soften"))),
    ),
    "sanding-wax": (
        stack("raw-beech", layer("paint-plain", sand=(180, "soften")), "clear-wax-plain"),
        stack("raw-beech", layer("clear-wax-plain", sand=(800, "burnish"), abrasive="bronze wool")),
    ),
    "clear-not-keyed": (
        stack("raw-beech", layer("clear-coat-plain", coats=2)),
        stack("raw-beech", layer("clear-coat-plain", coats=3, sand=(320, "between clear coats"))),
    ),
    "amber-over-pale": (
        stack("raw-beech", layer("paint-plain", hex=DARK), "oil-wax-plain"),
        stack("raw-beech", layer("paint-plain", hex=PALE), "clear-coat-plain"),
    ),
    "matt-over-dark": (
        stack("raw-beech", layer("paint-plain", hex=DARK), "matt-clear-coat-plain"),
        stack("raw-beech", layer("paint-plain", hex=PALE), layer("matt-clear-coat-plain", coats=2)),
    ),
    "sealer-deepens": (stack("raw-beech", layer("paint-plain", sand=(180, "soften")), "clear-coat-plain"),),
    "too-few-coats": (
        stack("raw-beech", layer("paint-plain", hex=DARK), layer("paint-plain", hex=RED, coats=4)),
        stack("raw-beech", "colour-wash"),
    ),
    "prep-out-of-order": (
        stack("old-gloss", "milk-paint", prep="degreased scuffed"),
        stack("old-matt", "paint-plain", prep="degreased holes-filled sanded-180"),
    ),
    "not-dusted": (stack("raw-beech", "paint-plain", prep="sanded-180 dusted"), stack("raw-beech", "paint-plain")),
    "tape-lifts": (
        stack("painted-unsealed", layer("glaze-dragged", wait=24), layer("paint-plain", "striped")),
        stack("painted-unsealed", layer("glaze-dragged", wait=12), "paint-plain"),
        stack(
            "raw-beech",
            layer("paint-plain", wait=26),
            layer("paint-plain", "striped", wait=2),
            layer("paint-plain", "striped"),
        ),
    ),
    "tape-has-no-hold": (
        stack("painted-sealed", layer("milk-paint", wait=48), "paint-plain"),
        stack("raw-beech", layer("paint-plain", wait=48), layer("paint-plain", "striped")),
        stack(
            "painted-sealed",
            layer("milk-paint", wait=48),
            layer("clear-coat-plain", wait=48),
            layer("paint-plain", "striped"),
        ),
    ),
    "closing-parts-stick": (stack("raw-beech", "paint-plain", part="front"),),
    "primer-last": (stack("slick", "bonding-primer-plain", "paint-plain"), stack("raw-pine", "dewaxed-shellac-plain")),
    "sealer-in-the-middle": (
        stack("raw-beech", layer("clear-coat-plain", sand=(320, "between clear coats")), "paint-plain"),
        stack("raw-beech", "paint-plain", "clear-coat-plain"),
    ),
}
