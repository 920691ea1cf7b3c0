"""A pot in a few lines, for lists and searches: what it was, what was poured, how it came out, what is left of it."""

from collections.abc import Sequence
from dataclasses import dataclass

from ..value import Value
from .acts import Closed, Went
from .event import Event, standing
from .pot import PotState, State

MOSTLY_LOSS = 0.5
"""Where pot and tool keep more than this share of what was used, nothing is learnt of the surface."""


@dataclass(frozen=True)
class InPot(Value):
    """One thing in a pot: g, ml as it is poured, its share of the whole as poured, how far off g may be."""

    component: str
    name: str
    role: str
    colour: str
    hex: str
    g: float
    ml: float
    share: float
    off_g: float


@dataclass(frozen=True)
class PotSummary(Value):
    """A pot as it is listed. Instants are minutes since 1970 UTC; `rate` is what the surface took, as a multiple of
    what is planned without the log, 0 where nothing can be said of it."""

    pot: str
    job: str
    job_name: str
    code: str
    batch: str
    name: str
    recipe: str
    technique: str
    target: str
    colour: str
    hex: str
    zones: tuple[str, ...]
    begun_min: float
    state: State
    parts: tuple[InPot, ...]
    """As it was mixed, water that left it later aside."""
    mixed_g: float
    mixed_ml: float
    left_g: float
    left_ml: float
    left_min: float | None
    closed: Closed
    place: str
    word: str
    """The last word it was judged by."""
    rescued: int
    """How often something was added to set it right."""
    carried_from: tuple[str, ...]
    went: tuple[Went, ...]
    done_share: float
    """How much of what it was planned for was laid; 0 where none was noted."""
    rate: float


def _parts(pot: PotState) -> tuple[InPot, ...]:
    """What went in altogether, by what it is."""
    held: dict[str, InPot] = {}
    lots = [(p.stuff, p.g - p.out_g) for p in pot.pours] + [(h.stuff, h.g) for c in pot.carried for h in c.held]
    offs = {h.stuff.key: (h.off_g / h.g if h.g else 0.0) for h in pot.held}
    for stuff, g in lots:
        had = held.get(stuff.key)
        whole = g + (had.g if had else 0.0)
        held[stuff.key] = InPot(
            stuff.component, stuff.name, stuff.role, stuff.colour, stuff.hex, whole, whole / stuff.bulk_density, 0.0,
            whole * offs.get(stuff.key, 0.0),
        )  # fmt: skip
    ml = sum(p.ml for p in held.values())
    return tuple(
        InPot(p.component, p.name, p.role, p.colour, p.hex, p.g, p.ml, p.ml / ml if ml else 0.0, p.off_g)
        for p in held.values()
        if p.g > 0
    )


def summed_up(pot: PotState, job: str, job_name: str, of_job: Sequence[Event]) -> PotSummary:
    """A pot in a few lines; `of_job` are the events of its job."""
    begun = pot.begun
    mine = [e for e in standing(of_job) if e.planned is not None and begun and e.planned.batch == begun.batch]
    laid = {e.operation: 1.0 for e in mine if e.did == "done" and e.planned and e.planned.kind == "lay"}
    went = []
    for e in mine:
        if isinstance(e.act, Went):
            went.append(e.act)
            if e.operation in laid:
                laid[e.operation] = e.act.share
    weights = {e.operation: e.planned.film_ml for e in mine if e.planned}
    whole = sum(weights.get(o, 0.0) for o in laid)
    planned = begun.laid_ml if begun else 0.0
    share = sum(s * weights.get(o, 0.0) for o, s in laid.items()) / planned if planned and whole else 0.0
    return PotSummary(
        pot.pot, job, job_name, begun.code if begun else "", begun.batch if begun else "", begun.name if begun else "",
        begun.recipe if begun else "", begun.technique if begun else "", begun.target if begun else "",
        begun.colour if begun else "", begun.hex if begun else "", begun.zones if begun else (), pot.begun_min,
        pot.state, _parts(pot), pot.mixed_g, pot.mixed_ml, pot.g, pot.ml, pot.left_min, pot.closed, pot.place,
        pot.looks[-1].word if pot.looks else "", sum(p.rescue for p in pot.pours),
        tuple(dict.fromkeys(c.jar for c in pot.carried)), tuple(went), share, _rate(pot, share),
    )  # fmt: skip


def _rate(pot: PotState, share: float) -> float:
    """What the surface took, as a multiple of what was planned for what was done of it; 0 where that says nothing."""
    begun = pot.begun
    if begun is None or begun.laid_ml <= 0 or share <= 0 or pot.left_min is None or pot.state == "discarded":
        return 0.0
    used_ml = pot.used_g / pot.density_mixed
    if used_ml <= 0 or begun.lost_ml > MOSTLY_LOSS * used_ml:
        return 0.0
    return max(used_ml - begun.lost_ml, 0.0) / (begun.laid_ml * share) * begun.rate_factor


def words_of(summary: PotSummary, when: str) -> str:
    """What a pot is found by: colour, mix, piece, place, date, what was said of it. `when` is its day in words."""
    said = [w.text for w in summary.went] + [w.verdict for w in summary.went]
    parts = [f"{p.name} {p.colour}" for p in summary.parts]
    own = [summary.code, summary.name, summary.colour, summary.job_name, *summary.zones, summary.place, when]
    return " ".join([*own, *parts, *said])
