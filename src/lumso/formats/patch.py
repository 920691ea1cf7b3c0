"""What makes one document of another: values set, and lists of things with ids added to, taken from or put in order.

A step names its place by keys and by the ids of things in lists, so that what was made of one version can be made to
another. What is worked out has lists without ids too: there a number says which, and only the same version is meant.
`ui/src/job/patch.ts` reads and writes the same; both are held to `tests/patches.json`.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import fields, is_dataclass
from functools import cache
from typing import Annotated, Any

from annotated_types import Interval, MaxLen
from pydantic import BaseModel, ConfigDict
from pydantic_core import to_json, to_jsonable_python

from lumso.core.errors import InvalidValue

Json = Any
"""What JSON holds: texts, numbers, lists, and dicts of them."""

MOST_STEPS = 400
MANY = range(3, 16)
"""For so many steps within one thing is asked whether it is shorter said whole."""
ORDER = "in order"
"""What an arranged list touches besides what came and went."""


class ById(BaseModel):
    """The thing of a list that has this id."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    id: Annotated[str, MaxLen(200)]


Key = ById | Annotated[str, MaxLen(200)] | Annotated[int, Interval(ge=0, le=10_000)]
Place = Annotated[list[Key], MaxLen(24)]


class Put(BaseModel):
    """A value set at a place; without `value` what is there goes."""

    model_config = ConfigDict(extra="forbid")
    at: Place
    value: Json = None


class Arrange(BaseModel):
    """A list of things with ids: which there are and in which order, those new in it whole."""

    model_config = ConfigDict(extra="forbid")
    at: Place
    order: Annotated[list[Annotated[str, MaxLen(200)]], MaxLen(500)]
    added: dict[str, Json] = {}
    removed: Annotated[list[Annotated[str, MaxLen(200)]], MaxLen(500)] = []


Step = Arrange | Put
Patch = Annotated[list[Step], MaxLen(MOST_STEPS)]


@cache
def _fields(kind: type) -> tuple[str, ...] | None:
    """The fields of a type of the core; None for what is none."""
    return tuple(f.name for f in fields(kind)) if is_dataclass(kind) else None


NAMES = ("id", "slug", "layer", "zone")
"""What things of a list are told by: the first of these that they have."""


def _id(value: object, names: Sequence[str] = NAMES) -> str | None:
    for name in names:
        found = value.get(name) if isinstance(value, Mapping) else getattr(value, name, None)
        if isinstance(found, str):
            return found
    return None


def _by_id(value: object, names: Sequence[str] = NAMES) -> dict[str, object] | None:
    """The things of a list by their ids, in order; None where one has none, or two have one."""
    if not isinstance(value, (list, tuple)):
        return None
    found: dict[str, object] = {}
    for one in value:
        mine = _id(one, names)
        if mine is None or mine in found:
            return None
        found[mine] = one
    return found


def diff(before: object, after: object, numbered: bool = False) -> list[Step]:
    """What makes `after` of `before`: JSON, or values of the core, whose parts that are the same object are not looked
    into. `numbered` goes into lists without ids too; without it they are set whole."""
    found: list[Step] = []
    _differ(before, after, (), numbered, found)
    return found


Way = tuple[Key, ...]


def _differ(before: object, after: object, at: Way, numbered: bool, found: list[Step]) -> None:
    if before is after:
        return
    names = _fields(type(before)) if type(before) is type(after) else None  # type: ignore[arg-type]
    if names is not None:
        begun = len(found)
        for name in names:
            x, y = getattr(before, name), getattr(after, name)
            if x is not y:
                _differ(x, y, (*at, name), numbered, found)
        if numbered and at and len(found) - begun in MANY:
            _shorter(after, at, begun, found)
    elif isinstance(before, Mapping) and isinstance(after, Mapping):
        _differ_by_key(before, after, at, numbered, found)
    elif isinstance(before, (list, tuple)) and isinstance(after, (list, tuple)):
        _differ_in_list(before, after, at, numbered, found)
    elif type(before) is not type(after) or before != after:
        _set(before, after, at, found)


def _shorter(after: object, at: Way, begun: int, found: list[Step]) -> None:
    """Set a thing whole where that is shorter to say than what changed in it."""
    whole = Put(at=list(at), value=to_jsonable_python(after))
    if len(to_json(whole)) < len(to_json(found[begun:])):
        found[begun:] = [whole]


def _set(before: object, after: object, at: Way, found: list[Step]) -> None:
    value = to_jsonable_python(after)
    if to_jsonable_python(before) != value:
        found.append(Put(at=list(at), value=value))


def _differ_by_key(before: Mapping[str, object], after: Mapping[str, object], at: Way, numbered: bool,
                   found: list[Step]) -> None:  # fmt: skip
    for key in dict.fromkeys((*before, *after)):
        if key not in after:
            found.append(Put(at=[*at, key]))
        elif key not in before:
            found.append(Put(at=[*at, key], value=to_jsonable_python(after[key])))
        else:
            _differ(before[key], after[key], (*at, key), numbered, found)


def _differ_in_list(before: Sequence[object], after: Sequence[object], at: Way, numbered: bool,
                    found: list[Step]) -> None:  # fmt: skip
    names = NAMES if numbered else NAMES[:2]
    had, has = _by_id(before, names), _by_id(after, names)
    if had is not None and has is not None:
        if list(had) != list(has):
            added = {i: to_jsonable_python(x) for i, x in has.items() if i not in had}
            found.append(Arrange(at=list(at), order=list(has), added=added, removed=[i for i in had if i not in has]))
        for i, x in has.items():
            if i in had and had[i] is not x:
                _differ(had[i], x, (*at, ById(id=i)), numbered, found)
    elif numbered and len(before) == len(after):
        for n, (x, y) in enumerate(zip(before, after, strict=True)):
            _differ(x, y, (*at, n), numbered, found)
    else:
        _set(before, after, at, found)


def patched(document: Json, patch: Iterable[Step]) -> Json:
    """JSON with a patch made to it; what the patch speaks of and is not there is left out."""
    for step in patch:
        document = _put(document, step.at, step)
    return document


_GONE = object()


def _put(value: Json, way: Sequence[Key], step: Step) -> Json:
    if not way:
        if isinstance(step, Arrange):
            return _arranged(value, step)
        return step.value if "value" in step.model_fields_set else _GONE
    key, rest = way[0], way[1:]
    if isinstance(key, str):
        if not isinstance(value, dict):
            return value
        made = _put(value.get(key, _GONE), rest, step)
        return {k: v for k, v in {**value, key: made}.items() if v is not _GONE}
    if not isinstance(value, list):
        return value
    at = [i for i, x in enumerate(value) if (i == key if isinstance(key, int) else _id(x) == key.id)][:1]
    return [_put(x, rest, step) if i in at else x for i, x in enumerate(value)]


def _arranged(value: Json, step: Arrange) -> Json:
    """A list with things added, taken out and in another order; what the order does not know stays behind what it
    follows."""
    known = _by_id([x for x in value if _id(x) not in step.removed] if isinstance(value, list) else []) or {}
    followers: dict[str, list[Json]] = {"": []}
    last = ""
    for i, x in known.items():
        if i in step.order:
            last = i
        else:
            followers.setdefault(last, []).append(x)
    made = [*followers[""]]
    for i in step.order:
        if i in known or i in step.added:
            made += [known.get(i, step.added.get(i)), *followers.get(i, [])]
    return made


def touched(patch: Iterable[Step]) -> tuple[tuple[str | int, ...], ...]:
    """Where a patch changes something: keys and ids on the way. Of a list that is arranged anew it is what came and
    what went, and the order: not what stays in it."""
    found: list[tuple[str | int, ...]] = []
    for step in patch:
        at = tuple(k.id if isinstance(k, ById) else k for k in step.at)
        if isinstance(step, Arrange):
            found += [(*at, ORDER), *((*at, i) for i in (*step.added, *step.removed))]
        else:
            found.append(at)
    return tuple(found)


def meets(mine: Iterable[tuple[str | int, ...]], theirs: Iterable[tuple[str | int, ...]]) -> bool:
    """Whether one of the places lies in one of the others."""
    others = list(theirs)
    return any(a[: len(b)] == b[: len(a)] for a in mine for b in others)


def refuse_root(patch: Iterable[Step]) -> None:
    """Raises InvalidValue for a step that would set the whole document."""
    for i, step in enumerate(patch):
        if not step.at:
            raise InvalidValue(
                "A step sets a place in a job.", value="", allowed="a place that is not the whole", field=f"/{i}/at"
            )
