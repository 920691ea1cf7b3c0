"""Loading catalogue files. A bad file is reported and left out; it does not hide the others."""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, fields, replace
from functools import cache
from pathlib import Path
from typing import Any, TypeVar

from lumso.core.book.catalogue import ORDERED, Catalogue
from lumso.core.book.films import UNKNOWN, Film
from lumso.core.book.finishes import Finish
from lumso.core.book.forms import Form
from lumso.core.book.offers import Need, Offer
from lumso.core.book.recipes import Recipe
from lumso.core.checks import RULES
from lumso.core.errors import LumsoError
from lumso.core.mixing.compose import compose, with_school
from lumso.core.piece.kinds import KINDS
from lumso.formats.reading import Fault, UnfitDocument, read_json
from lumso.formats.validators import adapter

from .file import CatalogueFile

DATA = Path(__file__).parent / "data"
ALONE = ("habits", "optics")
"""Kinds of which there is one: what a folder does not say is as shipped."""
ADAPTER = adapter(CatalogueFile)

E = TypeVar("E")


@dataclass(frozen=True)
class Loaded:
    """A catalogue, and what had to be left out of it."""

    catalogue: Catalogue
    refused: tuple[UnfitDocument, ...]


def _clashes(files: Mapping[str, CatalogueFile]) -> list[UnfitDocument]:
    """Two entries of one kind with the same slug: which one counts must not depend on the file's name."""
    seen: dict[tuple[str, str], str] = {}
    clashes = []
    for source, file in files.items():
        for kind in (f.name for f in fields(CatalogueFile) if f.name not in {"format", "version", *ALONE}):
            for i, entry in enumerate(getattr(file, kind)):
                if (first := seen.setdefault((kind, entry.slug), source)) != source:
                    says = f"{entry.slug!r} is already in {first}."
                    clashes.append(UnfitDocument(source, [Fault(f"/{kind}/{i}/slug", says, entry.slug, "a new slug")]))
    return clashes


def _named_by(recipe: Recipe, catalogue: Catalogue) -> Iterator[tuple[str, list[str], list[tuple[str, str]]]]:
    """All that a recipe names: what it is, what there is of it, and the names with their fields."""
    limits = list(enumerate(recipe.limits))
    yield (
        "material",
        sorted(catalogue.materials),
        [(f"components/{i}/material", c.material) for i, c in enumerate(recipe.components)],
    )
    used = [(f"techniques/{i}", t) for i, t in enumerate(recipe.techniques)]
    used += [(f"limits/{i}/techniques/{j}", t) for i, x in limits for j, t in enumerate(x.techniques)]
    yield "technique", sorted(catalogue.techniques), used
    meant = [(f"surfaces/{i}", s) for i, s in enumerate(recipe.surfaces)]
    meant += [(f"limits/{i}/surfaces/{j}", s) for i, x in limits for j, s in enumerate(x.surfaces)]
    yield "kind of surface", sorted({g.surface for g in catalogue.grounds.values()}), meant
    yield "consistency", [c.slug for c in catalogue.consistencies], [("target", recipe.target)]
    named = [("dial", recipe.dial)] if recipe.dial else []
    named += [(f"limits/{i}/component", limit.component) for i, limit in limits]
    yield "component", sorted(c.id for c in recipe.components), named
    yield "film", sorted(catalogue.films), [("film", recipe.film)] if recipe.film else []


def faults_in(recipe: Recipe, catalogue: Catalogue) -> list[tuple[str, str, str]]:
    """What a recipe refers to that is not there, and amounts that contradict each other: (field, says, allowed)."""
    found = [
        (at, f"There is no {what} {named!r}.", ", ".join(known))
        for what, known, every in _named_by(recipe, catalogue)
        for at, named in every
        if named not in known
    ]
    if not found:
        for school in ("", *(s.slug for s in recipe.schools)):
            try:
                compose(with_school(recipe, school), catalogue.materials)
            except LumsoError as error:
                found.append((f"schools/{school}" if school else "components", str(error), "amounts that agree"))
    return found


def faults_in_finish(finish: Finish, catalogue: Catalogue) -> list[tuple[str, str, str]]:
    """What a finish refers to that is not there, or says of itself that cannot be: (field, says, allowed)."""
    found = []
    for i, layer in enumerate(finish.layers):
        recipe = catalogue.recipes.get(layer.recipe)
        if recipe is None:
            known = ", ".join(sorted(catalogue.recipes))
            found.append((f"layers/{i}/recipe", f"There is no recipe {layer.recipe!r}.", known))
            continue
        if layer.technique and layer.technique not in catalogue.techniques:
            known = ", ".join(sorted(catalogue.techniques))
            found.append((f"layers/{i}/technique", f"There is no technique {layer.technique!r}.", known))
        ids = {c.id for c in recipe.components}
        coloured = {*layer.colours, *layer.amounts, *(k for pot in layer.pots for k in pot.colours)}
        for slug in sorted(coloured - ids):
            found.append((f"layers/{i}/colours", f"{recipe.name} has no component {slug!r}.", ", ".join(sorted(ids))))
    grounds = [(f"grounds/{i}", g) for i, g in enumerate(finish.grounds)]
    grounds += [(f"unfit/{i}/ground", u.ground) for i, u in enumerate(finish.unfit) if u.ground]
    for at, ground in grounds:
        if ground not in catalogue.grounds:
            found.append((at, f"There is no ground {ground!r}.", ", ".join(sorted(catalogue.grounds))))
    rules = [(f"unfit/{i}/rule", u.rule) for i, u in enumerate(finish.unfit)]
    rules += [(f"meant/{i}/rule", m.rule) for i, m in enumerate(finish.meant)]
    for at, rule in rules:
        if rule not in RULES:
            found.append((at, f"There is no rule {rule!r}.", ", ".join(RULES)))
    return found


def faults_in_form(form: Form) -> list[tuple[str, str, str]]:
    """What a form says that its kind of piece cannot be: (field, says, allowed)."""
    kind = KINDS.get(form.kind)
    if kind is None:
        return [("kind", f"There is no piece called {form.kind!r}.", ", ".join(KINDS))]
    sizes, counts = {s.slug: s for s in kind.sizes}, {c.slug: c for c in kind.counts}
    found = []
    for slug in form.sizes.keys() - sizes.keys():
        found.append((f"sizes/{slug}", f"A {kind.name.lower()} has no such size.", ", ".join(sizes)))
    for slug in form.counts.keys() - counts.keys():
        found.append((f"counts/{slug}", f"A {kind.name.lower()} has no such count.", ", ".join(counts)))
    for slug, mm in form.sizes.items():
        if slug in sizes and not sizes[slug].least_mm <= mm <= sizes[slug].most_mm:
            allowed = f"{sizes[slug].least_mm:g} to {sizes[slug].most_mm:g} mm"
            found.append((f"sizes/{slug}", f"{sizes[slug].name} is {mm:g} mm.", allowed))
    for slug, n in form.counts.items():
        if slug in counts and not counts[slug].least <= n <= counts[slug].most:
            allowed = f"{counts[slug].least} to {counts[slug].most}"
            found.append((f"counts/{slug}", f"{counts[slug].name} is {n}.", allowed))
    if not found:
        found = [
            (f"sizes/{m.slug}", m.says, m.allowed) for m in kind.check({**kind.usual(), **form.sizes, **form.counts})
        ]
    return found


PROMISES: Mapping[Need, tuple[str, Callable[[Film], bool]]] = {
    "bonding primer": ("a film that grips", lambda f: f.grips),
    "insulating coat": ("a film that closes, and stops tannins, knots and oil",
                        lambda f: f.closes and {"tannins", "knots", "oil"} <= set(f.stops)),
    "stain blocker": ("a film that stops tannins", lambda f: "tannins" in f.stops),
    "rust primer": ("a film that grips and stops rust", lambda f: f.grips and "rust" in f.stops),
    "milk paint that grips": ("an alkaline film that grips", lambda f: f.alkaline and f.grips),
    "rubbed-in wash": ("a wash", lambda f: f.kind == "wash"),
    "thinned first coat": ("a paint", lambda f: f.kind == "paint"),
    "plain paint": ("a paint", lambda f: f.kind == "paint"),
    "clear coat": ("a clear film that closes and does not yellow",
                   lambda f: f.kind == "clear" and f.closes and not f.ambers),
    "dead-matt clear coat": ("a clear film that closes, dead matt",
                             lambda f: f.kind == "clear" and f.closes and f.gloss == "dead matt"),
    "hard clear coat": ("a clear film that stands water and feet",
                        lambda f: f.kind == "clear" and f.stands.get("water") == f.stands.get("feet") == "yes"),
    "exterior clear coat": ("a clear film that stands weather",
                            lambda f: f.kind == "clear" and f.stands.get("weather") == "yes"),
    "clear wax": ("a wax that does not colour", lambda f: f.kind == "wax" and not f.colours),
    "oil wax": ("an oil that stands hands", lambda f: f.kind == "oil" and f.stands.get("hands") == "yes"),
    "dark hollows": ("a wax that colours", lambda f: f.kind == "wax" and f.colours),
    "slow glaze": ("a glaze that stays open a quarter of an hour",
                   lambda f: f.kind == "glaze" and (f.open_most_min or 0) >= 15),
    "lasting grit": ("a texture that water does not dissolve",
                     lambda f: f.kind == "texture" and not f.dissolves_in_water),
}  # fmt: skip
"""What is asked of the film of a recipe that is offered for a need."""


def faults_in_offer(offer: Offer, catalogue: Catalogue) -> list[tuple[str, str, str]]:
    """Why a recipe cannot answer a need: (field, says, allowed)."""
    recipe = catalogue.recipes.get(offer.recipe)
    if recipe is None:
        return [("recipe", f"There is no recipe {offer.recipe!r}.", ", ".join(sorted(catalogue.recipes)))]
    asked, keeps = PROMISES[offer.need]
    film = catalogue.films.get(recipe.film, UNKNOWN)
    if keeps(film):
        return []
    return [("recipe", f"{recipe.name} dries to {film.name}, which is no answer to {offer.need!r}.", asked)]


def _dangling(files: Mapping[str, CatalogueFile], catalogue: Catalogue) -> list[UnfitDocument]:
    """Names of tools and films, in techniques, films and materials, that are not there."""
    found = []
    for source, file in files.items():
        named: list[tuple[str, str, Mapping[str, object]]]
        named = [(f"techniques/{t.slug}/tools", x, catalogue.tools) for t in file.techniques for x in t.tools]
        named += [(f"films/{f.slug}/thick", f.thick, catalogue.films) for f in file.films if f.thick]
        named += [(f"marks/{m.slug}", m.slug, catalogue.techniques) for m in file.marks]
        named += [(f"phrases/{p.slug}", p.slug, catalogue.techniques) for p in file.phrases]
        named += [(f"materials/{m.slug}/film", m.film, catalogue.films) for m in file.materials if m.film]
        for at, slug, known in named:
            if slug not in known:
                says = f"There is no {slug!r}."
                found.append(UnfitDocument(source, [Fault(f"/{at}", says, slug, ", ".join(sorted(known)))]))
    return found


def _alone(kind: str, files: Sequence[CatalogueFile]) -> Any:
    """The one entry of a kind there is only one of."""
    said = (e for file in files for e in getattr(file, kind))
    if (found := next(said, None)) is None:
        (found,) = getattr(read_json(ADAPTER, (DATA / f"{kind}.json").read_bytes(), f"{kind}.json"), kind)
    return found


def _together(files: Sequence[CatalogueFile]) -> Catalogue:
    """The entries of all files, kind by kind."""
    kinds: dict[str, Any] = {}
    for kind in (f.name for f in fields(Catalogue) if f.name not in {*ALONE, "learned", "waits"}):
        entries = [e for file in files for e in getattr(file, kind)]
        kinds[kind] = tuple(entries) if kind in ORDERED else {e.slug: e for e in entries}
    return Catalogue(**kinds, **{kind: _alone(kind, files) for kind in ALONE})


def load(folder: Path) -> Loaded:
    """Every *.json below `folder` as one catalogue. Files that do not fit are in `refused`, with their faults."""
    files: dict[str, CatalogueFile] = {}
    refused: list[UnfitDocument] = []
    for path in sorted(folder.rglob("*.json")):
        source = path.relative_to(folder).as_posix()
        try:
            files[source] = read_json(ADAPTER, path.read_bytes(), source)
        except UnfitDocument as error:
            refused.append(error)
    refused += _clashes(files)
    catalogue = _together(list(files.values()))
    refused += _dangling(files, catalogue)

    def sound(kind: str, every: Iterable[tuple[str, str, E]],
              faults_of: Callable[[E], Iterable[tuple[str, str, str]]]) -> dict[str, E]:  # fmt: skip
        """The entries that refer to nothing that is not there, by slug; the others are refused."""
        fit = {}
        for source, slug, entry in every:
            faults = [Fault(f"/{kind}/{slug}/{at}", says, "", allowed) for at, says, allowed in faults_of(entry)]
            if faults:
                refused.append(UnfitDocument(source, faults))
            else:
                fit[slug] = entry
        return fit

    def held(kind: str, by: str = "slug") -> list[tuple[str, str, Any]]:
        return [(source, getattr(e, by), e) for source, file in files.items() for e in getattr(file, kind)]

    recipes = {slug: (source, slug, recipe) for source, slug, recipe in held("recipes")}
    base = replace(catalogue, recipes=sound("recipes", recipes.values(), lambda r: faults_in(r, catalogue)))
    finishes = sound("finishes", held("finishes"), lambda f: faults_in_finish(f, base))
    offers = sound("offers", held("offers", "need"), lambda o: faults_in_offer(o, base))
    forms = sound("forms", held("forms"), faults_in_form)
    return Loaded(replace(base, finishes=finishes, offers=offers, forms=forms), tuple(refused))


@cache
def shipped() -> Catalogue:
    """The catalogue that comes with Lumso. Raises the first fault: shipped data must be sound."""
    loaded = load(DATA)
    if loaded.refused:
        raise loaded.refused[0]
    return loaded.catalogue
