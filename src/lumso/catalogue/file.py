"""A catalogue file: any of the kinds of entry, in one documented format."""

from dataclasses import dataclass
from typing import Literal

from lumso.core.book.catalogue import Entries
from lumso.core.book.finishes import Finish
from lumso.core.book.flaws import Flaw
from lumso.core.book.forms import Form, Synonym
from lumso.core.book.habits import Habits
from lumso.core.book.hands import Judged
from lumso.core.book.kit import Kit
from lumso.core.book.marks import Mark
from lumso.core.book.materials import Vessel
from lumso.core.book.offers import Offer
from lumso.core.book.optics import Optics
from lumso.core.book.preparation import Abrasive
from lumso.core.book.profiles import Profile
from lumso.core.book.techniques import Rescue, Thickness
from lumso.core.book.things import Thing
from lumso.core.book.words import Phrase, Retired, Term
from lumso.core.measure.measures import MeasureSystem


@dataclass(frozen=True, kw_only=True)
class CatalogueFile(Entries):
    """Entries of any kind: those a job carries, and those it does not.

    Shipped data, a user's exported recipes and an imported file all look like this.
    """

    format: Literal["lumso-catalogue"]
    version: Literal[1]
    systems: tuple[MeasureSystem, ...] = ()
    vessels: tuple[Vessel, ...] = ()
    kits: tuple[Kit, ...] = ()
    abrasives: tuple[Abrasive, ...] = ()
    finishes: tuple[Finish, ...] = ()
    forms: tuple[Form, ...] = ()
    synonyms: tuple[Synonym, ...] = ()
    phrases: tuple[Phrase, ...] = ()
    terms: tuple[Term, ...] = ()
    retired: tuple[Retired, ...] = ()
    habits: tuple[Habits, ...] = ()
    offers: tuple[Offer, ...] = ()
    thicknesses: tuple[Thickness, ...] = ()
    rescues: tuple[Rescue, ...] = ()
    flaws: tuple[Flaw, ...] = ()
    profiles: tuple[Profile, ...] = ()
    optics: tuple[Optics, ...] = ()
    marks: tuple[Mark, ...] = ()
    things: tuple[Thing, ...] = ()
    hands: tuple[Judged, ...] = ()
