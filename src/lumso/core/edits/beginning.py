"""A new job from three answers: what the piece is, what it is made of now, and what it should become.

Each can be left open. Only sizes are presumed, and say so; a ground that was not said is not known, and a question
about lead that was not answered is open.
"""

from dataclasses import dataclass, field, replace
from typing import Annotated

from annotated_types import MaxLen

from ..book.catalogue import Catalogue, pick
from ..errors import InvalidValue
from ..job.job import Answered, Use, Zone, new_job
from ..job.naming import name_of
from ..job.start import start_on, usual_sizes
from ..layers.conditions import Room
from ..measure.lengths import Bare, Length, read_sizes, say_length
from ..piece.kinds import kind_of, suggested_zones
from ..piece.piece import Piece
from ..value import Slug, Value
from .edit import Edited, PutFinish, edited, ids_of

NOT_KNOWN = "not-known"
"""The ground of a piece nobody has said anything of."""


@dataclass(frozen=True)
class Beginning(Value):
    """What is known of a new job. `sizes` are in the order the piece asks for them; those left out are usual ones."""

    seed: Slug
    form: Slug
    sizes: Annotated[tuple[Length, ...], MaxLen(20)] = ()
    ground: str = ""
    """"" for not known."""
    lead: Answered = field(default_factory=Answered)
    finish: str = ""
    recipe: str = ""
    """A mix and nothing else, where there is no finish."""


def sizes_said(form: str, typed: str, bare: Bare, catalogue: Catalogue) -> tuple[Length, ...]:
    """The sizes of a piece as they were typed in one go, in the order it asks for them; none for "".

    Raises UnknownEntry for the form, what `read_sizes` raises, InvalidValue for more than it has and for what it cannot
    have, with the size's place among them as the field.
    """
    if not typed.strip():
        return ()
    kind = kind_of(pick("form", catalogue.forms, form).kind)
    within = [(s.least_mm, s.most_mm) for s in kind.sizes]
    order = ", ".join(s.name.lower() for s in kind.sizes)
    try:
        sizes = read_sizes(typed, bare, within)
    except InvalidValue as error:
        error.field = "sizes"
        raise
    if len(sizes) > len(kind.sizes):
        says = f"{len(sizes)} sizes for a {kind.name.lower()}."
        raise InvalidValue(says, value=typed, allowed=f"at most {len(kind.sizes)}: {order}", field="sizes")
    for spec, length in zip(kind.sizes, sizes, strict=False):
        if not spec.least_mm <= length.mm <= spec.most_mm:
            raise InvalidValue(
                f"{spec.name} {length.typed!r} is {say_length(length.mm)}.", value=length.typed,
                allowed=f"{say_length(spec.least_mm)} to {say_length(spec.most_mm)}", field="sizes",
            )  # fmt: skip
    return sizes


def begun(beginning: Beginning, catalogue: Catalogue, room: Room, bare: Bare = "mm") -> Edited:
    """The job begun so, and what its ground and its use added to the finish. Raises UnknownEntry."""
    form = pick("form", catalogue.forms, beginning.form)
    kind = kind_of(form.kind)
    ids = ids_of(beginning.seed)
    given = dict(zip((s.slug for s in kind.sizes), beginning.sizes, strict=False))
    sizes = {**usual_sizes(kind, form, bare), **given}
    counted = {**{slug: length.mm for slug, length in sizes.items()}, **form.counts}
    ground = pick("ground", catalogue.grounds, beginning.ground or NOT_KNOWN).slug
    zones = tuple(
        Zone(next(ids), name, ground, surfaces, ())
        for name, surfaces in suggested_zones(kind, counted) or [(form.name, ())]
    )
    piece = Piece(kind.slug, sizes, dict(form.counts), form=form.slug)
    job = new_job(form.name, zones, piece, Use(lead=beginning.lead))
    done = Edited(job)
    if beginning.finish:
        for zone in zones:
            put = edited(done.job, PutFinish("finish", next(ids), zone.id, beginning.finish), catalogue, room)
            done = Edited(put.job, (*done.taken, *put.taken))
    elif beginning.recipe:
        surface = catalogue.grounds[ground].surface
        laid = tuple(replace(z, layers=(start_on(next(ids), beginning.recipe, surface, catalogue),)) for z in zones)
        done = Edited(replace(job, zones=laid))
    return Edited(replace(done.job, name=name_of(done.job, catalogue)), done.taken)
