"""What is still to pour, foreseen by the page as the core says it: `python -m tests.pour_cases` writes `pours.json`."""

import json
from pathlib import Path
from random import Random
from typing import Any

from lumso.core.book.materials import Vessel
from lumso.core.log.acts import Begun, Noted, PotAct, Poured, Settled, Stuff
from lumso.core.log.pot import replay
from lumso.core.pour.pouring import Bounds, LineNow, PourLine, PourPlan, pour_plan

FILE = Path(__file__).parent / "pours.json"
SEED, CASES = 4, 200
BARREL = Vessel("barrel", "barrel", 1_000_000)
KINDS = ("paint", "water", "powder", "glaze")


def _plan(lines: list[PourLine], acts: list[PotAct], step_g: float) -> PourPlan:
    begun = Begun("begun", "a", "b", vessel="barrel")
    pots, _ = replay([Noted(f"e{i}", act, float(i)) for i, act in enumerate((begun, *acts))])
    return pour_plan(lines, pots["a"], Bounds((BARREL,), BARREL, {}, step_g=step_g))


def _line(line: LineNow, *more: str) -> dict[str, Any]:
    """What the page reads of a line."""
    stuff = {"component": line.stuff.component, "bulk_density": line.stuff.bulk_density}
    return {"stuff": stuff, **{k: getattr(line, k) for k in ("poured_g", "mark_g", "state", *more)}}


def cases() -> list[dict[str, Any]]:
    """A plan as the server said it, what was poured since, and the plan as the server will say it."""
    dice, made = Random(SEED), list[dict[str, Any]]()
    while len(made) < CASES:
        kinds = dice.sample(KINDS, dice.randrange(2, 5))
        stuffs = [Stuff(k, k, k, "part", False, dice.choice((0.6, 1.0, 1.35)), 1.0) for k in kinds]  # type: ignore[arg-type]
        lines = [PourLine(s, float(dice.choice((5, 12.5, 20, 60)))) for s in stuffs]

        def pour(lines: list[PourLine] = lines) -> Poured:
            line = dice.choice(lines)
            far = dice.choice((0.3, 0.5, 0.985, 1.0, 1.005, 1.3, 3.25))
            return Poured("poured", "a", line.stuff, line.planned_g * far, "scale")

        step_g = dice.choice((0.0, 0.1, 1.0))
        acts: list[PotAct] = [pour() for _ in range(dice.randrange(3))]
        if acts and dice.random() < 0.15:
            acts.append(Settled("settled", "a", 1.0))
        since = [pour() for _ in range(dice.randrange(1, 3))]
        before, after = _plan(lines, acts, step_g), _plan(lines, [*acts, *since], step_g)
        told = [{"component": p.stuff.component, "g": p.g} for p in since]
        settled = any(isinstance(a, Settled) for a in acts)
        held = {
            "times": before.times,
            "lines": [_line(x, "planned_g", "near_g", "left_g", "left_ml") for x in before.lines],
        }
        then = {"times": after.times, "next": after.next, "lines": [_line(x, "left_g", "left_ml") for x in after.lines]}
        made.append({"plan": held, "since": told, "settled": settled, "after": then})
    return made


def text() -> str:
    """The file: one case a line."""
    return "[\n" + ",\n".join(json.dumps(c, separators=(",", ":")) for c in cases()) + "\n]\n"


if __name__ == "__main__":
    FILE.write_text(text(), encoding="utf-8")
