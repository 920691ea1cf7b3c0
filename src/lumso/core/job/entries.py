"""Which entries of the book a job carries, so that it stays itself; and where the book has changed since."""

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from typing import get_args

from ..book.catalogue import Catalogue, Entries, EntryKind, pick
from ..figure import tidy
from ..value import Slug, Value
from .job import Job

NOT_VALUES = {"slug", "sources", "provenance", "techniques"}
"""Fields that tell where a value is from, or what is offered: when only they differ, nothing comes out otherwise."""


@dataclass(frozen=True)
class Kept(Value):
    """An entry that the job has otherwise than the book: kept as this job had it until the book's is taken."""

    kind: EntryKind
    slug: Slug
    name: str
    differs: tuple[str, ...]
    """What differs, the job's value first."""


def embed(job: Job, book: Catalogue) -> Job:
    """The job carrying every entry it refers to: the ones it already has as they are, new ones as they are now.

    `book` is the book pure, without what the workshop knows better: that goes on last, and can be put back. Entries no
    longer referred to are dropped; names unknown to both are left for the plan to report.
    """
    known = book.with_entries(job.entries)
    stacks = [(z.layers, z.prep) for z in job.zones]
    stacks += [(v.layers, v.prep) for z in job.zones for v in z.variants]
    layers = [layer for stack, _ in stacks for layer in stack]
    recipes = [known.recipes[s] for s in sorted({x.recipe for x in layers}) if s in known.recipes]
    materials = {c.material for recipe in recipes for c in recipe.components}
    materials |= {slug for layer in layers for slug in layer.materials.values()}
    films = {r.film for r in recipes if r.film}
    prep = {p for _, done in stacks for p in done}
    tools = {x.tool for x in layers} | {x.second_tool for x in layers}
    films |= {known.materials[m].film for m in materials if m in known.materials} - {""}
    reliefs = {zone.relief for zone in job.zones}
    return replace(
        job,
        entries=Entries(
            recipes=tuple(recipes),
            materials=tuple(known.materials[s] for s in sorted(materials) if s in known.materials),
            grounds=tuple(known.grounds[s] for s in sorted({z.ground for z in job.zones}) if s in known.grounds),
            techniques=tuple(
                known.techniques[s] for s in sorted({x.technique for x in layers}) if s in known.techniques
            ),
            films=tuple(known.films[s] for s in sorted(films) if s in known.films),
            preparations=tuple(known.preparations[s] for s in sorted(prep) if s in known.preparations),
            tools=tuple(known.tools[s] for s in sorted(tools) if s in known.tools),
            reliefs=tuple(known.reliefs[s] for s in sorted(reliefs) if s in known.reliefs),
            consistencies=known.consistencies if layers else (),
            pot_losses=tuple(known.pot_losses.values()) if layers else (),
        ),
    )


def _by_slug(kind: EntryKind, book: Catalogue) -> Mapping[str, object]:
    held = getattr(book, kind)
    return held if isinstance(held, Mapping) else {entry.slug: entry for entry in held}


def _said(value: object) -> str | None:
    """A value short enough to say; None for what is not."""
    if value is None:
        return "not given"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, (int, float)):
        return tidy(value)
    return value if isinstance(value, str) and 0 < len(value) <= 40 else None


def _differs(mine: object, its: object) -> tuple[str, ...]:
    lines = []
    for f in fields(mine):  # type: ignore[arg-type]
        here, there = getattr(mine, f.name), getattr(its, f.name)
        if f.name in NOT_VALUES or here == there:
            continue
        name, a, b = f.name.replace("_", " "), _said(here), _said(there)
        lines.append(f"{name}: {a} here, {b} in the book" if a and b else f"{name}: not as in the book")
    return tuple(lines)


def kept_apart(job: Job, book: Catalogue) -> tuple[Kept, ...]:
    """The entries a job carries that `book`, pure, has otherwise, in the order they are carried."""
    found = []
    for kind in get_args(EntryKind):
        held = _by_slug(kind, book)
        for entry in getattr(job.entries, kind):
            its = held.get(entry.slug)
            if its is None or its == entry:
                continue
            if lines := _differs(entry, its):
                found.append(Kept(kind, entry.slug, entry.name, lines))
    return tuple(found)


def without_entry(job: Job, kind: EntryKind, slug: str) -> Job:
    """The job no longer carrying an entry, so that the book's is taken up. Raises UnknownEntry for one it has not."""
    held = {entry.slug: entry for entry in getattr(job.entries, kind)}
    gone = pick("entry carried by the job", held, slug)
    rest = tuple(entry for entry in held.values() if entry is not gone)
    return replace(job, entries=replace(job.entries, **{kind: rest}))
