"""Tinting by weight: from what is already in the tin, stepwise stronger."""

from dataclasses import dataclass

from ..errors import InvalidValue
from ..value import Value


@dataclass(frozen=True)
class TintStep(Value):
    """One addition: `add_g` of tint, the tin's weight and its share of tint afterwards."""

    add_g: float
    tin_g: float
    share: float


def strengthen(tin_g: float, share: float, target: float, steps: int = 3) -> tuple[TintStep, ...]:
    """Additions of pure tint that take a tin of `tin_g` grams from `share` to `target` (both by weight).

    Each step goes as far towards the target as the ones before, so that one can stop as soon as it is right:
    what is added cannot be taken out again. Grams to add from share s to s′ in M grams: M·(s′ − s)/(1 − s′).
    Raises InvalidValue for an empty tin, shares outside 0–1, or a target that is not stronger.
    """
    if tin_g <= 0:
        raise InvalidValue(f"{tin_g:g} g is no tin.", value=tin_g, allowed="more than 0 g", field="tin_g")
    if not 0 <= share < 1:
        raise InvalidValue(f"{share:.0%} is no share.", value=share, allowed="0 to under 100 %", field="share")
    if not share < target < 1:
        raise InvalidValue(
            f"{target:.1%} is not stronger than the {share:.1%} in the tin.",
            value=target,
            allowed=f"more than {share:.1%}, less than 100 %; to weaken it, add clear wax instead",
            field="target",
        )
    made: list[TintStep] = []
    for k in range(1, steps + 1):
        to = share + (target - share) * k / steps
        now = made[-1].share if made else share
        add = tin_g * (to - now) / (1 - to)
        tin_g += add
        made.append(TintStep(add, tin_g, to))
    return tuple(made)
