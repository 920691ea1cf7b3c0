"""An independent checker of an order of work.

It takes the job, the catalogue's data and the operations as a document, and works everything out for itself, from the
formulas of the trade: nothing here imports what it checks.
"""

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from itertools import product
from math import exp
from typing import Any

Document = Mapping[str, Any]
CLOSE = 1e-6


def close(a: float, b: float) -> bool:
    return abs(a - b) <= CLOSE * max(1.0, abs(a), abs(b))


def evaporation(t: float, rh: float) -> float:
    """How many times as long as at 20 °C and 50 %."""

    def takes_up(c: float, h: float) -> float:
        return 6.112 * exp(17.62 * c / (243.12 + c)) * (1 - h)

    return min(max(takes_up(20, 0.5) / takes_up(t, rh), 0.35), 6.0)


def minutes(wait: Document, t: float, rh: float) -> float | None:
    """How long a wait takes in a steady room where films form."""
    said = wait["reference_min"]
    if said is None:
        return None
    match wait["by"]:
        case "clock":
            return float(said)
        case "oil":
            return float(said * 2 ** (max(0.0, 18 - t) / 10))
        case "night":
            return max(float(said * evaporation(t, rh)), 480.0)
        case _:
            return float(said * evaporation(t, rh))


class Checker:
    """An order of work beside the job it is for. `areas` are the zones' areas in m², relief and deductions counted."""

    def __init__(self, job: Document, data: Mapping[str, Mapping[str, Document]], order: Document,
                 room: tuple[float, float]) -> None:  # fmt: skip
        self.job, self.data, self.order, self.room = job, data, order, room
        self.operations = {o["id"]: o for o in order["operations"]}
        self.areas = {z["zone"]: z["area"]["value"] for z in order["zones"] if z["area"]}

    def faults(self) -> list[str]:
        """What is wrong with it, in words."""
        found = [*self.names(), *self.laid(), *self.pots(), *self.held(), *self.left(), *self.alone(), *self.rested()]
        return found

    def names(self) -> Iterator[str]:
        if len(self.operations) != len(self.order["operations"]):
            yield "two operations have the same id"
        times = [o["at_min"] for o in self.order["operations"]]
        if times != sorted(times):
            yield "operations are not in order of time"

    def begins(self, o: Document) -> float:
        return float(o["at_min"])

    def ends(self, o: Document) -> float:
        return float(o["at_min"] + o["hands_on_min"] + o["lasts_min"])

    def lays(self) -> Mapping[tuple[str, str, int, str], list[Document]]:
        found: dict[tuple[str, str, int, str], list[Document]] = defaultdict(list)
        for o in self.order["operations"]:
            if o["kind"] == "lay":
                found[o["zone"], o["layer"], o["coat"], o["pot"]].append(o)
        return found

    def wet(self, layer: Document) -> float:
        """ml on a m² where it touches: a mix that is brushed on evenly may have a rate of its own."""
        technique, recipe = self.data["techniques"][layer["technique"]], self.data["recipes"][layer["recipe"]]
        if technique["plain"] and recipe["wet_rate_ml_per_m2"]:
            return float(recipe["wet_rate_ml_per_m2"])
        mm = layer["thickness_mm"] if technique["per_mm"] else 1.0
        return float(technique["wet_rate_ml_per_m2"] * mm)

    def surface(self, below: list[Document]) -> tuple[float, float]:
        """The share of the ground still bare over these layers, and how many times its area their texture makes it."""
        bare, relief = 1.0, 1.0
        for layer in below:
            technique = self.data["techniques"][layer["technique"]]
            bare = 0.0 if layer["touched"] >= 0.9 else bare * (1 - layer["touched"])
            if technique["per_mm"] and "stands in peaks" in technique["acts"]:
                levelled = any(s["purpose"] == "level" for s in layer["sandings"])
                high = min(layer["thickness_mm"], 1.0) * (0.25 if levelled else 1.0)
                relief = max(relief, 1 + 0.6 * high * layer["touched"])
        return bare, relief

    def rates(self, layer: Document, below: Document | None) -> tuple[float, float]:
        """ml on a m²: of the first coat, of the next."""
        technique = self.data["techniques"][layer["technique"]]
        mm = layer["thickness_mm"] if technique["per_mm"] else 1.0
        first = self.wet(layer)
        following = technique["next_wet_rate_ml_per_m2"] * mm or first
        if below is not None and self.film(below) == self.film(layer):
            first = following
        return first, following

    def film(self, layer: Document) -> str:
        return str(self.data["recipes"][layer["recipe"]]["film"])

    def laid(self) -> Iterator[str]:
        """Each touched area is laid exactly as often as there are coats, with A·f·(q + extra) on it."""
        lays = self.lays()
        for zone in self.job["zones"]:
            area = self.areas.get(zone["id"])
            if area is None:
                continue
            ground = self.data["grounds"][zone["ground"]]
            for k, layer in enumerate(zone["layers"]):
                technique = self.data["techniques"][layer["technique"]]
                first, following = self.rates(layer, zone["layers"][k - 1] if k else None)
                bare, relief = self.surface(zone["layers"][:k])
                thirst = 0.0 if technique["rate_includes_ground"] else ground["first_coat_extra_ml_per_m2"] * bare
                for pot, coat in product(layer["pots"] or [{"id": "", "share": 1.0}], range(1, layer["coats"] + 1)):
                    touched = area * layer["touched"] * pot["share"]
                    ml = touched * relief * (first + thirst if coat == 1 else following)
                    mine = lays.get((zone["id"], layer["id"], coat, pot["id"]), [])
                    name = f"{zone['id']} {layer['id']} coat {coat} {pot['id']}"
                    yield from self.laid_as(name, mine, touched, ml / (1 - technique["lost_to_cloth"]))
        known = {(z["id"], x["id"]) for z in self.job["zones"] for x in z["layers"]}
        for zone_id, layer_id, _, _ in lays:
            if (zone_id, layer_id) not in known:
                yield f"{zone_id} {layer_id} is not in the job"

    def laid_as(self, name: str, mine: Sequence[Document], touched: float, ml: float) -> Iterator[str]:
        """A coat is laid on what it touches, with what that takes, its patches numbered."""
        if not close(sum(o["area_m2"] for o in mine), touched):
            yield f"{name}: {sum(o['area_m2'] for o in mine)} m² laid of {touched}"
        if not close(sum(o["film_ml"] for o in mine), ml):
            yield f"{name}: {sum(o['film_ml'] for o in mine)} ml laid of {ml}"
        if sorted(o["patch"] for o in mine) != list(range(1, len(mine) + 1)):
            yield f"{name}: patches {[o['patch'] for o in mine]}"

    def pots(self) -> Iterator[str]:
        """Poured = laid + losses + margin + left; the pot and the tool lose what they lose; parts make the mix."""
        poured_by: dict[str, float] = defaultdict(float)
        sittings: dict[str, int] = defaultdict(int)
        for o in self.order["operations"]:
            if o["kind"] == "lay":
                poured_by[o["batch"]] += o["film_ml"]
            if o["kind"] == "clean":
                sittings[o["batch"]] += 1
        for o in self.order["operations"]:
            if o["kind"] == "mix":
                yield from self.mixed(o, poured_by[o["batch"]])
                yield from self.lost(o, sittings[o["batch"]])
            elif o["amounts"] is not None:
                yield f"{o['id']} has amounts"

    def mixed(self, o: Document, poured: float) -> Iterator[str]:
        """Poured = laid + losses + margin + left, and the parts make the mix."""
        amounts = o["amounts"]
        whole = amounts["laid_ml"] + amounts["lost_ml"] + amounts["margin_ml"] + amounts["left_ml"]
        if not close(amounts["mixed_ml"], whole):
            yield f"{o['id']}: mixed {amounts['mixed_ml']}, accounted for {whole}"
        if not close(poured, amounts["laid_ml"] + amounts["short_ml"]):
            yield f"{o['id']}: lays {poured}, says {amounts['laid_ml']}"
        adds = amounts["from_last_ml"] + amounts["rinse_ml"]
        for part in amounts["parts"]:
            material = self.data["materials"][self.material(o, part)]
            if not close(part["g"], part["ml"] * material["bulk_density"]):
                yield f"{o['id']} {part['name']}: {part['g']} g of {part['ml']} ml"
            adds += part["g"] / material["true_density"]
            if part["tints"] and not close(sum(t["ml"] for t in part["tints"]), part["ml"]):
                yield f"{o['id']} {part['name']}: its paints are not all of it"
        if not close(adds, amounts["mixed_ml"]):
            yield f"{o['id']}: parts make {adds} of {amounts['mixed_ml']}"
        batch = self.batch(o)
        if not close(batch["mix"]["volume"]["value"], amounts["mixed_ml"] - amounts["from_last_ml"]
                     - amounts["rinse_ml"]):  # fmt: skip
            yield f"{o['id']}: the batch says {batch['mix']['volume']['value']}"

    def batch(self, o: Document) -> Document:
        batch: Document = next(b for b in self.order["batches"] if b["id"] == o["batch"])
        return batch

    def lost(self, o: Document, sittings: int) -> Iterator[str]:
        """The pot and the tool lose what they lose."""
        amounts, batch, layer = o["amounts"], self.batch(o), self.layer(o)
        if layer["want"]["by"] == "area":
            loss = self.data["pot_losses"][batch["mix"]["thickness"]["cling"]]
            pot = max(amounts["laid_ml"] * loss["share"] / (1 - loss["share"]), loss["least_ml"])
            holds = self.data["tools"][layer["tool"]]["holds_ml"]
            of = batch["of"]
            tool = min(holds * max(sittings, 1), amounts["laid_ml"] * of) / of
            if not close(amounts["lost_ml"], pot + tool):
                yield f"{o['id']}: lost {amounts['lost_ml']}, by hand {pot + tool}"

    def layer(self, o: Document) -> Document:
        zone = next(z for z in self.job["zones"] if z["id"] == o["zone"])
        layer: Document = next(x for x in zone["layers"] if x["id"] == o["layer"])
        return layer

    def material(self, o: Document, part: Document) -> str:
        recipe = self.data["recipes"][self.layer(o)["recipe"]]
        return next(str(c["material"]) for c in recipe["components"] if c["id"] == part["component"])

    def held(self) -> Iterator[str]:
        """Every constraint and every life is kept."""
        missed = [
            (c["first"], c["then"])
            for c in self.order["missed"]
            if c["kind"] == "at most" or self.layer(self.operations[c["then"]])["want"]["by"] != "area"
        ]
        for c in self.order["constraints"]:
            if c["first"] not in self.operations or c["then"] not in self.operations:
                yield f"{c['kind']} names {c['first']} and {c['then']}"
                continue
            first, then = self.operations[c["first"]], self.operations[c["then"]]
            since = self.begins(first) if c["since"] == "start" else self.ends(first)
            until = self.begins(then) if c["until"] == "start" else self.ends(then)
            waits = minutes(c["wait"], *self.room)
            kept = True
            match c["kind"]:
                case "after":
                    kept = until >= since - CLOSE
                case "at least":
                    kept = waits is None or until >= since + waits - CLOSE
                case "at most":
                    kept = waits is None or until <= since + waits + CLOSE
                case "within life" | "keeps":
                    said = c["wait"]["reference_min"]
                    kept = waits is None or until <= since + min(waits, said) + CLOSE
                case "not beside":
                    over = self.ends(then) <= self.begins(first) + CLOSE
                    kept = over or waits is None or self.begins(then) >= since + waits - CLOSE
            if not kept and (c["first"], c["then"]) not in missed:
                yield f"{c['kind']} between {c['first']} and {c['then']}: {until - since} min, asked {waits}"

    def needs(self, layer: Document) -> float | None:
        """Minutes until a layer may be coated, in this room, at its thickness; None where nobody knows."""
        technique, film = self.data["techniques"][layer["technique"]], self.data["films"][self.film(layer)]
        wet = self.wet(layer)
        if technique["rate_includes_ground"]:
            wet = min(wet, film["usual_um"])
        said = film["times"]["recoat_from"]
        if said is None:
            return None
        if film["carrier"] != "water":
            return float(said * 2 ** (max(0.0, 18 - self.room[0]) / 10))

        def slow(um: float) -> float:
            return um if um <= 500 else um * um / 500

        usual: float = said
        if film["kind"] not in {"wax", "oil"}:
            said = said * max(slow(wet) / slow(film["usual_um"]), 1 / 3)
            thick = self.data["films"].get(film["thick"])
            if thick and said > usual:
                deep = thick["times"]["recoat_from"] * max(slow(wet) / slow(thick["usual_um"]), 1 / 3)
                said = min(said, max(deep, usual))
        dries: float = said * evaporation(*self.room)
        return max(dries, 480.0) if usual >= 480 and said >= 480 else dries

    def left(self) -> Iterator[str]:
        """Every coat is left alone as long as the painter said, or as its film asks."""
        lays = self.lays()
        for zone in self.job["zones"]:
            before: tuple[float, float | None] | None = None
            for layer in zone["layers"]:
                for coat in range(1, layer["coats"] + 1):
                    mine = [o for (z, x, c, _), found in lays.items() for o in found
                            if (z, x, c) == (zone["id"], layer["id"], coat)]  # fmt: skip
                    if not mine:
                        continue
                    begins = min(self.begins(o) for o in mine)
                    if before and before[1] is not None and begins < before[0] + before[1] - CLOSE:
                        yield f"{layer['id']} coat {coat}: {begins - before[0]} min after the last, of {before[1]}"
                    said = layer["wait_h"] if coat == layer["coats"] else None
                    wait = said * 60 if said is not None else self.needs(layer)
                    before = (max(self.ends(o) for o in mine), wait)

    def alone(self) -> Iterator[str]:
        """One painter does one thing at a time."""
        busy = sorted(
            (self.begins(o), self.begins(o) + o["hands_on_min"], o["id"])
            for o in self.order["operations"]
            if o["hands_on_min"] and o["kind"] not in {"lay out", "clear away"}
        )
        for (_, ends, one), (begins, _, other) in zip(busy, busy[1:], strict=False):
            if begins < ends - CLOSE:
                yield f"{one} and {other} at once"

    def rested(self) -> Iterator[str]:
        """A mix rests once, is stirred after, and nothing is laid from a pot before it is ready."""
        ready: dict[str, float] = {}
        for o in self.order["operations"]:
            if o["kind"] in {"mix", "stir"} and (o["kind"] == "mix" or o["batch"] not in ready):
                ready[o["batch"]] = self.ends(o)
        rests: dict[str, list[Document]] = defaultdict(list)
        for o in self.order["operations"]:
            if o["kind"] == "rest":
                rests[o["batch"]].append(o)
            if o["kind"] == "lay" and o["batch"] and self.begins(o) < ready[o["batch"]] - CLOSE:
                yield f"{o['id']} before its pot is ready"
        for batch, found in rests.items():
            if len(found) > 1:
                yield f"{batch} rests {len(found)} times"
            rest = self.data["recipes"][self.layer(found[0])["recipe"]]["rest_min"]
            if found[0]["lasts_min"] != rest:
                yield f"{batch} rests {found[0]['lasts_min']} of {rest} min"
            stirs = [o for o in self.order["operations"] if o["kind"] == "stir" and o["batch"] == batch]
            if not stirs or self.begins(stirs[0]) < self.ends(found[0]) - CLOSE:
                yield f"{batch} is not stirred after its rest"
