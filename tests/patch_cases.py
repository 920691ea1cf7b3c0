"""Cases that hold both readers of patches to each other: `python -m tests.patch_cases` writes `tests/patches.json`."""

import json
from pathlib import Path
from random import Random
from typing import Any

from lumso.formats.patch import Step, diff

FILE = Path(__file__).parent / "patches.json"
SEED, CASES = 20261202, 240
WORDS = ("wash", "wax", "primer", "glaze")


def value(dice: Random, depth: int = 0) -> Any:
    """A piece of JSON like those that are sent: things with ids and without, lists, numbers, nothing."""
    kind = dice.randrange(9 if depth < 3 else 5)
    if kind < 5:
        return (dice.randrange(4), dice.choice(WORDS), None, dice.random() < 0.5, 1.5)[kind]
    if kind == 5:
        return {k: value(dice, depth + 1) for k in dice.sample(("a", "b", "c", "value", "order"), dice.randrange(4))}
    if kind == 6:
        name = dice.choice(("id", "slug", "layer", "zone"))
        ids = dice.sample(WORDS, dice.randrange(4))
        return [{name: i, "n": value(dice, depth + 1)} for i in ids]
    return [value(dice, depth + 1) for _ in range(dice.randrange(3))]


def changed(dice: Random, before: Any) -> Any:
    """The same with something in it otherwise: set, added, taken out, moved."""
    if dice.random() < 0.15:
        return value(dice, 1)
    if isinstance(before, dict):
        made = {k: changed(dice, v) if dice.random() < 0.4 else v for k, v in before.items() if dice.random() < 0.9}
        return made | ({"new": value(dice, 2)} if dice.random() < 0.2 else {})
    if isinstance(before, list):
        named = all(isinstance(x, dict) for x in before)
        kept = [changed(dice, x) if dice.random() < 0.3 and not named else x for x in before if dice.random() < 0.8]
        kept = [{**x, "n": value(dice, 2)} if named and dice.random() < 0.4 else x for x in kept]
        if dice.random() < 0.4:
            dice.shuffle(kept)
        return kept
    return before


def cases() -> list[dict[str, Any]]:
    """What was, what is, and the patch between them: as one step names lists by ids, or numbers too."""
    dice = Random(SEED)
    made: list[dict[str, Any]] = []
    while len(made) < CASES:
        before = {"a": value(dice), "b": value(dice), "zones": [{"id": i, "layers": value(dice)} for i in WORDS[:2]]}
        after = changed(dice, before)
        if not isinstance(after, dict):
            continue
        numbered = dice.random() < 0.5
        steps: list[Step] = diff(before, after, numbered)
        patch = [s.model_dump(exclude_unset=True) for s in steps]
        made.append({"before": before, "after": after, "numbered": numbered, "patch": patch})
    return made


def text() -> str:
    """The file: one case a line."""
    return "[\n" + ",\n".join(json.dumps(c, separators=(",", ":")) for c in cases()) + "\n]\n"


if __name__ == "__main__":
    FILE.write_text(text(), encoding="utf-8")
