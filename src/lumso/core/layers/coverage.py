"""How much a coat takes.

V_film = A · f · (n·q + extra), with A the area, f the share of it touched, q the wet rate of the material
and technique, n the coats and extra what a thirsty ground drinks of the first. What is mixed is
V_mix = V_film / (1 − clings to the pot) + stays in the tool · loadings, then · (1 + margin).
"""

from collections.abc import Mapping, Sequence

from ..book.materials import PotLoss
from ..book.surfaces import Ground
from ..book.techniques import Technique, Tool
from ..figure import Figure, SourceKind, Step, tidy
from ..mixing.compose import Pour

MOSTLY = 0.9
"""A mix is the paint on its label when this much of it, as poured, is."""


def label_rate(pours: Sequence[Pour], technique: Technique) -> tuple[float, str] | None:
    """The spreading rate on the label (ml/m²) and its source, where it may stand in for the technique's.

    That is so for an even coat of a mix that is nearly all one paint; a thinned or patchy one is no longer what
    the label speaks of.
    """
    if not technique.plain:
        return None
    for pour in pours:
        if pour.poured_ml >= MOSTLY and pour.material.label_rate_ml_per_m2:
            return pour.material.label_rate_ml_per_m2, pour.material.name
    return None


def film(
    area: Figure,
    technique: Technique,
    ground: Ground,
    coats: int,
    touched: float,
    thickness_mm: float = 1.0,
    label: tuple[float, str] | None = None,
) -> Figure:
    """What lies on the surface when all coats are on, in ml.

    `area` in m², `coats` at least 1, `touched` the share of the area that gets any (0–1). `thickness_mm` is the
    mean thickness of a coat, for techniques whose rate is per mm. `label` is a label's rate that counts instead.
    """
    q = technique.wet_rate_ml_per_m2
    rate = technique.name
    if technique.per_mm:
        rate = f"{tidy(thickness_mm)} mm × {tidy(q)} ml/m² for each mm, {technique.name}"
        q *= thickness_mm
    source: SourceKind = "starting value"
    note = technique.provenance
    if label is not None:
        q, source, rate = label[0], "label", f"{label[1]}, by its label"
        note = f"the label's spreading rate, instead of {technique.wet_rate_ml_per_m2:g} for {technique.name}"
    figure = area.then(Step("Wet rate", rate, q, "ml/m² a coat", source, note))
    per_m2 = coats * q
    how = f"{tidy(area.value)} m² × {tidy(q)} ml/m²"
    if coats > 1:
        how += f" × {coats} coats"
    extra = 0.0 if technique.rate_includes_ground else ground.first_coat_extra_ml_per_m2
    if extra:
        figure = figure.then(
            Step("First coat drinks", ground.name, extra, "ml/m²", "starting value", ground.provenance)
        )
        per_m2 += extra
        how = f"{tidy(area.value)} m² × ({coats} × {tidy(q)} + {tidy(extra)}) ml/m²"
    if touched < 1:
        how += f" × {touched:.0%} touched"
    value = area.value * touched * per_m2
    return figure.then(Step("On the surface", how, value, "ml", "geometry"))


def mix_needed(
    on_surface: Figure, cling: str, losses: Mapping[str, PotLoss], tool: Tool, loadings: int, margin: float
) -> Figure:
    """What to mix so that `on_surface` ml reach the surface, in ml.

    `cling` is the class of the mix, `loadings` the times a dry tool is taken up (normally one a coat), not
    dips; `margin` the share added once, after losses. The tool never keeps more than the film itself.
    """
    pot = losses[cling]
    net = on_surface.value
    with_pot = max(net / (1 - pot.share), net + pot.least_ml)
    by_share = with_pot == net / (1 - pot.share)
    figure = on_surface.then(
        Step(
            "Clings to the pot",
            f"{tidy(net)} ml ÷ (1 − {pot.share:.0%})" if by_share else f"at least {pot.least_ml:g} ml a batch",
            with_pot,
            "ml",
            "starting value",
            f"{cling} mixes leave about {pot.share:.0%} on the wall",
        )
    )
    kept = min(tool.holds_ml * loadings, net)
    with_tool = with_pot + kept
    count = "" if loadings == 1 else f", taken up dry {loadings} times"
    figure = figure.then(
        Step(
            "Stays in the tool",
            f"+ {tidy(kept)} ml in the {tool.name}{count}",
            with_tool,
            "ml",
            "starting value",
            tool.provenance,
        )
    )
    return figure.then(
        Step("Margin", f"{tidy(with_tool)} ml × {1 + margin:g}", with_tool * (1 + margin), "ml", "your choice")
    )
