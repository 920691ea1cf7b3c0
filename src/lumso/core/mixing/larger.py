"""What speaks against mixing more than is needed because that can be measured.

The surface stays the same, and so does how long the pot is worked: only what holds it and what there is can be too
little. Shares are kept within the kit's tolerance like in every other way of measuring.
"""

from dataclasses import replace

from ..book.catalogue import Catalogue
from ..figure import millilitres
from ..workshop.workshop import Workshop
from .fillings import KitAnswer
from .jar import HEADROOM
from .mix import Mix


def with_what_speaks_against(answer: KitAnswer, mix: Mix, workshop: Workshop, book: Catalogue) -> KitAnswer:
    """The answer, its larger batch held against the largest vessel and against what is on the shelf."""
    if answer.larger is None:
        return answer
    times = 1 + answer.larger.surplus
    says = []
    largest = next((v for v in book.vessels if v.slug == workshop.vessel), None)
    if largest and mix.volume.value * times > largest.capacity_ml * (1 - HEADROOM):
        says.append(f"It is more than a {largest.name} holds with room to stir.")
    held = {item.slug: item for item in workshop.shelf if item.on_hand > 0}
    for part in mix.parts:
        item = held.get(part.material)
        if item is None:
            continue
        needs = (part.poured.value if item.unit == "ml" else part.mass.value) * times
        if needs > item.on_hand:
            said = millilitres if item.unit == "ml" else "{:.0f} g".format
            says.append(f"It takes {said(needs)} of {part.name.lower()}; {said(item.on_hand)} is on the shelf.")
    return replace(answer, larger_says=tuple(says))
