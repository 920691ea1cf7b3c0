"""Which finishes of the library suit a zone, and why the others do not."""

from dataclasses import dataclass

from ..book.catalogue import Catalogue
from ..book.finishes import Finish
from ..job.job import Use, Zone
from ..value import Value


@dataclass(frozen=True)
class Shelved(Value):
    """A finish of the library for a zone: whether it suits ground and use, and if not, why."""

    finish: str
    suits: bool
    why: str


def _against(finish: Finish, zone: Zone, uses: tuple[str, ...], catalogue: Catalogue) -> str:
    said = next((u.why for u in finish.unfit if u.ground == zone.ground or (u.use and u.use in uses)), "")
    if said:
        return said
    if left := [u for u in uses if u not in finish.uses]:
        return f"Not made to stand {', '.join(left)}."
    if zone.ground in finish.grounds:
        return ""
    names = [catalogue.grounds[g].name if g in catalogue.grounds else g for g in finish.grounds]
    return f"Usual on {', '.join(names)}."


def shelved(zone: Zone, use: Use, catalogue: Catalogue) -> tuple[Shelved, ...]:
    """Every finish for this ground and this use, those that suit first."""
    uses = tuple(u for u in use.touched_by if u != "an unknown buyer")
    found = []
    for finish in catalogue.finishes.values():
        suits = zone.ground in finish.grounds and all(u in finish.uses for u in uses)
        found.append(Shelved(finish.slug, suits, _against(finish, zone, uses, catalogue)))
    return tuple(sorted(found, key=lambda s: not s.suits))
