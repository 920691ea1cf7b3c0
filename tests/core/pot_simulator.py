"""A hidden pot for trying the rescue on: it is not as the records say, and answers only in words, sometimes wrongly.

Written for itself: it shares no code with what gives the advice.
"""

import math
import random
from dataclasses import dataclass, field

WORDS = [("water", 1), ("milk", 4), ("single-cream", 15), ("double-cream", 60), ("buttermilk", 150), ("paint", 2000),
         ("pancake-batter", 6000), ("cake-batter", 15000), ("brownie-batter", 35000), ("frosting", 120000)]  # fmt: skip
NAMES = [w for w, _ in WORDS]


@dataclass
class HiddenPot:
    """Grams of paint, water and powder, and what nobody knows of them."""

    paint_g: float
    water_g: float
    powder_g: float
    swelling: float
    liquid: float
    slow: float
    powder: str
    random: random.Random
    minutes: float = 0.0
    additions: int = field(default=0)

    def viscosity(self, more: tuple[float, float, float] = (0.0, 0.0, 0.0), at_last: bool = False) -> float:
        paint, water = (self.paint_g + more[0]) / 1.35, self.water_g + more[1]
        grams = self.powder_g + more[2]
        true, packing, tau = {"texture-powder": (2.3, 0.55, 10.0), "milk-paint-powder": (2.4, 0.55, 3.0),
                              "": (1.0, 1.0, 0.0)}[self.powder]  # fmt: skip
        grains = grams / true
        if paint + water <= 0:
            return math.inf
        if self.powder == "milk-paint-powder":
            ratio = min(max(water / (grams / 0.75), 1.0), 2.0)
            liquid = {True: 12 * (ratio / 1.0) ** (math.log(6 / 12) / math.log(1.5)),
                      False: 6 * (ratio / 1.5) ** (math.log(4 / 6) / math.log(2 / 1.5))}[ratio <= 1.5]  # fmt: skip
        else:
            liquid = math.exp((paint * math.log(3000) + water * math.log(1)) / (paint + water))
        liquid *= self.liquid
        whole = paint + water + grains

        def thick(swelling: float) -> float:
            jam = swelling * grains / packing / whole
            return math.inf if jam >= 1 else liquid * (1 - jam) ** (-2.5 * packing)

        last = thick(self.swelling)
        if not tau or at_last or math.isinf(last):
            return last
        first = thick(1.0)
        return float(first * (last / first) ** (1 - math.exp(-self.minutes / (tau * self.slow))))

    def place(self, eta: float) -> int:
        if math.isinf(eta):
            return len(WORDS) - 1
        return min(range(len(WORDS)), key=lambda i: abs(math.log(eta / WORDS[i][1])))

    def word(self) -> str:
        """What the painter says: one word wrong one time in ten."""
        place = self.place(self.viscosity())
        if self.random.random() < 0.1:
            place += self.random.choice((-1, 1))
        return NAMES[min(max(place, 0), len(NAMES) - 1)]

    def is_at_last(self, word: str) -> bool:
        return NAMES[self.place(self.viscosity(at_last=True))] == word
