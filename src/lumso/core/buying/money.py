"""Money: whole minor units of one currency. It is rounded once, half to even, and never mixed."""

import re
from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Annotated

from annotated_types import Interval, MaxLen, Predicate

Minor = Annotated[int, Interval(ge=0, le=10**12)]
"""An amount of money in minor units: cents, pence; whole units where a currency has none smaller."""


def _is_currency(code: str) -> bool:
    return bool(re.fullmatch(r"[A-Z]{3}|", code))


CurrencyCode = Annotated[str, MaxLen(3), Predicate(_is_currency)]
"""Three capital letters, or "" where nobody said: then it is written as a plain number with two decimals."""

EXPONENTS: Mapping[str, int] = {
    **dict.fromkeys(("BIF", "CLP", "DJF", "GNF", "ISK", "JPY", "KMF", "KRW", "PYG", "RWF", "UGX", "VND", "VUV", "XAF",
                     "XOF", "XPF"), 0),
    **dict.fromkeys(("BHD", "IQD", "JOD", "KWD", "LYD", "OMR", "TND"), 3),
}  # fmt: skip
"""How many decimals a currency has where that is not two: ISO 4217."""
USUAL_EXPONENT = 2


def exponent(currency: str) -> int:
    """How many decimals a currency has."""
    return EXPONENTS.get(currency, USUAL_EXPONENT)


def half_even(exact: Fraction) -> int:
    """The nearest whole number; of two that are as near, the even one."""
    return round(exact)


def apportioned(parts: Sequence[Fraction]) -> tuple[int, ...]:
    """Each part as a whole number, so that they add up to the sum rounded once.

    Every part is rounded down, and what is missing goes, a unit each, to those that lost the most; of two that lost as
    much, the first. Parts are zero or more.
    """
    whole = [part.numerator // part.denominator for part in parts]
    missing = half_even(sum(parts, Fraction())) - sum(whole)
    by_loss = sorted(range(len(parts)), key=lambda i: (whole[i] - parts[i], i))
    for i in by_loss[:missing]:
        whole[i] += 1
    return tuple(whole)


def said(minor: int | None, currency: str = "") -> str:
    """Money as it is written: 12.50 EUR; None is unpriced, never nothing."""
    if minor is None:
        return "unpriced"
    digits = exponent(currency)
    sign, whole = "-" if minor < 0 else "", abs(minor)
    text = f"{whole // 10**digits}.{whole % 10**digits:0{digits}d}" if digits else str(whole)
    return f"{sign}{text} {currency}".rstrip()
