"""What a mix needs of each of its components, to be measured."""

from dataclasses import dataclass

from .mix import Mix


@dataclass(frozen=True)
class Need:
    """What a mix needs of one component: ml as poured and g, both more than zero. `dry`: measured level.

    `component` is its id in the recipe, `name` what it is called where something must be said of it.
    """

    component: str
    ml: float
    g: float
    dry: bool = False
    name: str = ""

    @property
    def called(self) -> str:
        """What it is called."""
        return self.name or self.component


Needs = tuple[Need, ...]


def needs_of(mix: Mix) -> Needs:
    """What a planned mix needs of each of its components."""
    return tuple(Need(p.component, p.poured.value, p.mass.value, p.solid, p.name) for p in mix.parts)
