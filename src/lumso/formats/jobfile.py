"""The job file: one job as JSON, with the catalogue entries it uses."""

import json
from typing import Any

from lumso.catalogue.load import faults_in
from lumso.core.book.catalogue import Catalogue
from lumso.core.errors import LumsoError
from lumso.core.job.job import MOST_LAYERS, MOST_POTS, MOST_ZONES, Job
from lumso.core.measure.lengths import parse_length
from lumso.formats.validators import adapter

from .reading import MOST_SHOWN, Fault, UnfitDocument, parse_json, read, refuse_crowds, widened
from .versions import Upgrades, upgraded

ADAPTER = adapter(Job)
FORMAT = "lumso-job"


def _to_2(job: dict[str, Any]) -> dict[str, Any]:
    """Version 2 adds counts, roughness, bands, relief and use; what was there stays as it was."""
    return {**job, "version": 2}


def _to_3(job: dict[str, Any]) -> dict[str, Any]:
    """Version 3 adds stacks: waits, sanding, preparation and accepted findings; what was there stays as it was."""
    return {**job, "version": 3}


def _to_4(job: dict[str, Any]) -> dict[str, Any]:
    """Version 4 carries entries pure, and of every kind. Those of before may hold a workshop's values: the job keeps
    them as it had them until the book's are taken."""
    return {**job, "version": 4}


LED: dict[str, tuple[str, ...]] = dict.fromkeys(
    ("painted-unsealed", "painted-sealed", "old-matt", "old-gloss", "waxed"), ("may hide lead",)
)
"""Grounds that ask the lead question since version 5."""

GAINED: dict[str, dict[str, dict[str, Any]]] = {
    "grounds": {slug: {"traits": traits} for slug, traits in LED.items()},
    "techniques": {
        "limed": {"acts": ("fills pores",)}, "pickled": {"acts": ("fills pores",)},
        "wash-stacked": {"acts": ("stacks",)}, "clear-on-texture": {"acts": ("follows texture",)},
    },
    "films": {
        **{slug: {"gentle_days": days} for slug, days in {
            "mineral-paint": 3, "milk-paint-bonded": 3, "wash": 3, "glaze": 4, "thin-glaze": 4, "texture": 5,
            "trowelled-plaster": 5, "clear-coat": 5, "matt-clear-coat": 5, "hard-clear-coat": 5,
            "exterior-clear-coat": 7, "paste-wax": 2, "oil-wax": 5, "patina": 3, "metallic": 3, "shellac": 1,
        }.items()},
        "milk-paint": {"chips": True, "gentle_days": 3}, "dark-wax": {"colours": True, "gentle_days": 2},
        "stain-blocker": {"tells_overnight": True}, "self-sealing": {"sands_soft_min": 30, "gentle_days": 5},
        "brushed-texture": {"thick": "texture", "gentle_days": 4},
        "salt-texture": {"thick": "texture", "gentle_days": 4},
    },
    "materials": {
        "milk-paint-powder": {"traits": ("caustic", "binds itself")}, "plaster": {"traits": ("sets hard",)},
        "sawdust": {"traits": ("can mould",)}, "coffee-grounds": {"traits": ("can mould",)},
        "retarder": {"traits": ("retards",)},
        "texture-powder": {"traits": ("silica",)}, "play-sand": {"traits": ("silica",)},
        "clear-wax": {"solvent_by_weight": 0.6}, "dark-wax": {"solvent_by_weight": 0.6},
        "dewaxed-shellac": {"solvent_by_weight": 0.75}, "metal-primer": {"solvent_by_weight": 0.4},
        "oil-wax": {"solvent_by_weight": 0.3}, "gilding-size": {"solvent_by_weight": 0.3},
    },
    "preparations": {
        "lead-tested": {"does": ("tests for lead",)}, "loose-scraped": {"does": ("scrapes",)},
        "holes-drilled": {"does": ("drills",)}, "holes-filled": {"does": ("fills",)},
        "soot-washed": {"does": ("washes soot off",)}, "degreased": {"does": ("degreases",)},
        "wax-stripped": {"does": ("takes wax off",)}, "rust-removed": {"does": ("takes rust off",)},
        "glue-faces-masked": {"does": ("masks",)}, "surrounds-masked": {"does": ("masks",)},
        "sanded-150": {"does": ("sands",)}, "sanded-180": {"does": ("sands",)}, "sanded-240": {"does": ("sands",)},
        "scuffed": {"does": ("scuffs",)}, "grain-raised": {"does": ("raises grain",)},
        "dusted": {"does": ("dusts off",)}, "patch-tested": {"does": ("tests a patch",)},
    },
}  # fmt: skip
"""What version 5 says of entries that rules knew by their names before."""


def _gained(entries: dict[str, Any]) -> dict[str, Any]:
    """The entries a job of version 4 carries, with what rules ask of them since."""
    made = dict(entries)
    for kind, known in GAINED.items():
        if not isinstance(entries.get(kind), list):
            continue
        made[kind] = []
        for entry in entries[kind]:
            more = known.get(entry.get("slug", ""), {}) if isinstance(entry, dict) else {}
            for key, value in more.items():
                had = entry.get(key, ())
                lists = isinstance(value, tuple)
                entry = {**entry, key: [*had, *(v for v in value if v not in had)] if lists else value}
            made[kind].append(entry)
    return made


def _zone_to_5(zone: Any) -> Any:
    if not isinstance(zone, dict) or not isinstance(zone.get("layers"), list):
        return zone
    layers = []
    for layer in zone["layers"]:
        if isinstance(layer, dict):
            sand = layer.get("sand_after")
            layer = {k: v for k, v in layer.items() if k != "sand_after"}
            if sand is not None:
                layer["sandings"] = [sand]
        layers.append(layer)
    return {**zone, "layers": layers}


def _to_5(job: dict[str, Any]) -> dict[str, Any]:
    """Version 5 asks the lead question with five answers, and lets a layer be sanded several times.

    A test among the preparations was a plan for one. "None" was what nobody had said: it closes the question only
    where no ground asks it.
    """
    made = {**job, "version": 5}
    zones = job.get("zones")
    if isinstance(zones, list):
        made["zones"] = [_zone_to_5(zone) for zone in zones]
    real = [zone for zone in zones if isinstance(zone, dict)] if isinstance(zones, list) else []
    use = job.get("use", {})
    if isinstance(use, dict):
        old = use.get("old_finish", "none")
        asks = any(zone.get("ground") in LED for zone in real)
        planned = any("lead-tested" in (zone.get("prep") or ()) for zone in real)
        answer = "test planned" if planned else "never coated" if old == "none" and not asks else "not tested"
        rest = {k: v for k, v in use.items() if k != "old_finish"}
        made["use"] = {**rest, "lead": {"answer": answer}}
    if isinstance(job.get("entries"), dict):
        made["entries"] = _gained(job["entries"])
    return made


def _to_6(job: dict[str, Any]) -> dict[str, Any]:
    """Version 6 adds looks kept beside the one that is planned, test boards, and what wiping leaves; what was there
    stays as it was."""
    return {**job, "version": 6}


THICKEN = {"milk-paint-powder": 3.0, "texture-powder": 10.0, "gelling-powder": 180.0}
"""Powders that thicken a mix for so many minutes, which version 7 says."""


def _to_7(job: dict[str, Any]) -> dict[str, Any]:
    """Version 7 adds margins by risk, and how long a powder thickens."""
    made = {**job, "version": 7}
    entries = job.get("entries")
    if isinstance(entries, dict) and isinstance(entries.get("materials"), list):
        known = [
            {**m, "thickens_min": THICKEN[m["slug"]]}
            if isinstance(m, dict) and m.get("slug") in THICKEN and "thickens_min" not in m
            else m
            for m in entries["materials"]
        ]
        made["entries"] = {**entries, "materials": known}
    return made


def _to_8(job: dict[str, Any]) -> dict[str, Any]:
    """Version 8 adds what people call the piece, and sizes that are usual and not measured; what was there stays."""
    return {**job, "version": 8}


def _to_9(job: dict[str, Any]) -> dict[str, Any]:
    """Version 9 adds layouts: where on its surfaces a layer goes; what was there stays."""
    return {**job, "version": 9}


DAY = ("mineral-paint", "milk-paint-bonded", "wash", "glaze", "thin-glaze", "texture", "brushed-texture", "patina",
       "salt-texture", "trowelled-plaster", "metallic", "self-sealing", "sealing-patina")  # fmt: skip
CLEAR = ("sanding-sealer", "clear-coat", "matt-clear-coat", "hard-clear-coat", "exterior-clear-coat")
PRIMERS = ("bonding-primer", "metal-primer", "stain-blocker")
HOLDS_TAPE_MIN = {
    **dict.fromkeys(DAY, 1440), **dict.fromkeys(PRIMERS, 720), **dict.fromkeys(CLEAR, 480), "shellac": 120
}  # fmt: skip
"""Minutes after which films hold low-tack tape, which version 10 says."""


def _to_10(job: dict[str, Any]) -> dict[str, Any]:
    """Version 10 adds from when a film holds tape, and more that a layout can be; what was there stays."""
    made = {**job, "version": 10}
    entries = job.get("entries")
    if isinstance(entries, dict) and isinstance(entries.get("films"), list):
        known = [
            {**f, "times": {"tape_safe": HOLDS_TAPE_MIN[f["slug"]], **f["times"]}}
            if isinstance(f, dict) and f.get("slug") in HOLDS_TAPE_MIN and isinstance(f.get("times"), dict)
            else f
            for f in entries["films"]
        ]
        made["entries"] = {**entries, "films": known}
    return made


def _to_11(job: dict[str, Any]) -> dict[str, Any]:
    """Version 11 reads lengths otherwise: `1 250 mm` is one number. The millimetres stay as they were; words that no
    longer say them become words that do, to be looked at once."""
    made = {**job, "version": 11}
    piece = job.get("piece")
    if isinstance(piece, dict) and isinstance(piece.get("sizes"), dict):
        made["piece"] = {**piece, "sizes": {slug: _reread(size) for slug, size in piece["sizes"].items()}}
    return made


def _reread(size: Any) -> Any:
    """A size whose words say its millimetres."""
    if (
        not isinstance(size, dict)
        or not isinstance(size.get("typed"), str)
        or not isinstance(size.get("mm"), int | float)
    ):
        return size
    try:
        says = parse_length(size["typed"]).mm
    except LumsoError:
        says = -1.0
    if _agree(says, size["mm"]):
        return size
    return {**size, "typed": f"{size['mm']:.6f}".rstrip("0").rstrip(".") + " mm", "source": "reread"}


def _agree(says: float, mm: float) -> bool:
    return abs(says - mm) <= 1e-6 * max(says, 1)


UPGRADES: Upgrades = {1: _to_2, 2: _to_3, 3: _to_4, 4: _to_5, 5: _to_6, 6: _to_7, 7: _to_8, 8: _to_9, 9: _to_10,
                      10: _to_11}  # fmt: skip
"""From version n to n + 1: one chain for files and for the database."""


def lengths_disagree(job: Job) -> list[Fault]:
    """Sizes whose typed words do not say the millimetres beside them."""
    faults = []
    for slug, length in job.piece.sizes.items() if job.piece else ():
        at = f"/piece/sizes/{slug}"
        try:
            said = parse_length(length.typed).mm
        except LumsoError as error:
            faults.append(Fault(f"{at}/typed", str(error), repr(length.typed), getattr(error, "allowed", "a length")))
            continue
        if not _agree(said, length.mm):
            says = f"{length.typed!r} is {said:g} mm, but mm says {length.mm:g}."
            faults.append(Fault(at, says, repr(length.typed), "typed and mm that agree"))
    return faults


def entry_faults(job: Job, catalogue: Catalogue) -> list[Fault]:
    """What the entries a job brings refer to and is not there, or say of themselves that cannot be.

    They are held against the same rules as the book's own.
    """
    known = catalogue.with_entries(job.entries)
    faults = [
        Fault(f"/entries/recipes/{i}/{at}", says, recipe.slug, allowed)
        for i, recipe in enumerate(job.entries.recipes)
        for at, says, allowed in faults_in(recipe, known)
    ]
    named = [(f"materials/{i}/film", m.film) for i, m in enumerate(job.entries.materials) if m.film]
    named += [(f"films/{i}/thick", f.thick) for i, f in enumerate(job.entries.films) if f.thick]
    faults += [
        Fault(f"/entries/{at}", f"There is no film {film!r}.", film, ", ".join(sorted(known.films)))
        for at, film in named
        if film not in known.films
    ]
    return faults[:MOST_SHOWN]


MOST = {"zones": MOST_ZONES, "layers": MOST_LAYERS, "pots": MOST_POTS}
"""How long the lists of a job may be: looked at before what they hold."""


def current(document: object, source: str = "The job") -> object:
    """Parsed JSON of a job of this or an earlier version as this version has it. Raises UnfitDocument."""
    refuse_crowds(document, source, MOST)
    return upgraded(document, source, FORMAT, "job", UPGRADES)


def from_document(document: object, source: str = "The job") -> Job:
    """A job from parsed JSON of this or an earlier version. Raises UnfitDocument."""
    job = read(ADAPTER, widened(current(document, source)), source)
    if faults := lengths_disagree(job):
        raise UnfitDocument(source, faults)
    return job


def from_json(text: str | bytes, source: str = "The job") -> Job:
    """A job from JSON text. Raises UnfitDocument."""
    return from_document(parse_json(text, source), source)


def to_json(job: Job, indent: int | None = None) -> str:
    """The job as JSON text."""
    return json.dumps(ADAPTER.dump_python(job, mode="json"), ensure_ascii=False, indent=indent)
