"""Reading JSON from outside: what does not fit is refused with its place, its value and what is allowed."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeVar, cast

from pydantic import TypeAdapter, ValidationError

from lumso.core.errors import LumsoError

T = TypeVar("T")


@dataclass(frozen=True)
class Fault:
    """One thing wrong in a document: `at` is a JSON pointer into it."""

    at: str
    says: str
    value: str
    allowed: str


class UnfitDocument(LumsoError):
    """A document that does not have the shape it should. `faults` says where and what is allowed."""

    def __init__(self, source: str, faults: Sequence[Fault]) -> None:
        self.source, self.faults = source, tuple(faults)
        lines = (f"{f.at or 'the whole'}: {f.says} Allowed: {f.allowed}." for f in self.faults)
        super().__init__(f"{source} cannot be used.\n  " + "\n  ".join(lines))


MOST_SHOWN = 20


def _shown(value: object) -> str:
    text = repr(value)
    return text if len(text) <= 80 else text[:77] + "…"


TESTED = {
    "_is_hex": "a colour written as #rrggbb",
    "_is_step": "0 for none, or 0.01 to 20000 ml",
    "_is_resolution": "0 for none, or 0.001 to 1000 g",
}
"""What passes the tests that values of their own have, by the test's name."""


def _allowed(error: Mapping[str, Any]) -> str:
    ctx = error.get("ctx", {})
    kind = error["type"]
    bounds: dict[str, str] = {
        "greater_than": "more than {gt}",
        "greater_than_equal": "{ge} or more",
        "less_than": "less than {lt}",
    }
    bounds |= {"less_than_equal": "{le} or less", "literal_error": "{expected}"}
    bounds |= {"too_short": "at least {min_length}", "too_long": "at most {max_length}"}
    bounds |= {"string_too_short": "at least {min_length} characters"}
    bounds |= {"string_too_long": "at most {max_length} characters"}
    if kind in bounds:
        return str(bounds[kind]).format(**ctx)
    plain = {
        "unexpected_keyword_argument": "only the fields docs/formats.md describes",
        "missing": "this field is needed",
        "finite_number": "a finite number",
        "float_type": "a number",
        "float_parsing": "a number",
        "int_from_float": "a whole number",
        "int_parsing": "a whole number",
        "int_type": "a whole number",
        "string_type": "text",
    }
    message = str(error["msg"])
    if kind == "predicate_failed":
        return next((says for name, says in TESTED.items() if name in message), "another value")
    return plain.get(kind, message[:1].lower() + message[1:])


def _says(error: Mapping[str, Any]) -> str:
    if error["type"] == "unexpected_keyword_argument":
        return f"There is no field {error['loc'][-1]!r} here."
    if error["type"] == "missing":
        return f"{error['loc'][-1]!r} is missing."
    if error["type"] == "value_error" and "error" in error.get("ctx", {}):
        return str(error["ctx"]["error"])
    return f"{_shown(error['input'])} cannot be used."


def _pointer(location: Iterable[str | int], document: object) -> str:
    """The location as a JSON pointer, without the names of union members that pydantic puts into it."""
    steps: list[str] = []
    here: Any = document
    for step in location:
        if (isinstance(here, Mapping) and step in here) or (
            isinstance(here, list | tuple) and isinstance(step, int) and step < len(here)
        ):
            here = cast(Any, here)[step]
        elif not (isinstance(step, str) and step[:1].isupper()):
            here = None
        else:
            continue
        steps.append(str(step).replace("~", "~0").replace("/", "~1"))
    return "".join(f"/{s}" for s in steps)


TAGS = {"by", "do", "edit"}
"""Fields that say which member of a union a value is."""


def _of_the_right_member(errors: Sequence[Mapping[str, Any]]) -> list[Mapping[str, Any]]:
    """Of a union, keep the faults of the member whose tag matches: the others only say that they are others."""

    def member(error: Mapping[str, Any]) -> tuple[str | int, ...] | None:
        for i, step in enumerate(error["loc"]):
            if isinstance(step, str) and step[:1].isupper():
                return tuple(error["loc"][: i + 1])
        return None

    tagged = [e for e in errors if e["loc"][-1:] and e["loc"][-1] in TAGS and e["type"] in {"literal_error", "missing"}]
    others = {member(e) for e in tagged} - {None}
    unions = {m[:-1] for m in (member(e) for e in errors) if m}
    members = {m for e in errors if (m := member(e))}
    all_wrong = {u for u in unions if {m for m in members if m[:-1] == u} <= others}
    kept = []
    for error in errors:
        found = member(error)
        if found in others and not (found and found[:-1] in all_wrong and error["loc"][-1] in TAGS):
            continue
        kept.append(error)
    return kept


def faults_of(errors: Sequence[Mapping[str, Any]], document: object) -> list[Fault]:
    """Pydantic's list of errors about `document` as faults, the first twenty."""
    found = _of_the_right_member(errors)
    faults: dict[str, Fault] = {}
    for e in found:
        at = _pointer(e["loc"], document)
        allowed = _allowed(e)
        if at in faults and allowed not in faults[at].allowed:
            allowed = f"{faults[at].allowed}, {allowed}"
        faults[at] = Fault(at, _says(e), _shown(e["input"]), allowed)
    return list(faults.values())[:MOST_SHOWN]


def read(adapter: TypeAdapter[T], document: object, source: str) -> T:
    """`document` (parsed JSON) as the adapter's type. Raises UnfitDocument."""
    try:
        return adapter.validate_python(document)
    except ValidationError as error:
        found = cast(list[Mapping[str, Any]], error.errors(include_url=False))
        raise UnfitDocument(source, faults_of(found, document)) from None


MOST_OF_ANYTHING = 2_000
"""How long a list may be where nothing else is said of it."""


def refuse_crowds(document: object, source: str, most: Mapping[str, int]) -> None:
    """Refuse lists longer than may be, before any of what they hold is looked at: a fault in each of them takes long.

    `most` is how long the list of a name may be. Raises UnfitDocument.
    """
    waiting: list[tuple[str, object]] = [("", document)]
    while waiting:
        at, value = waiting.pop()
        if isinstance(value, dict):
            waiting += [(f"{at}/{key}", v) for key, v in value.items() if isinstance(v, dict | list)]
        elif isinstance(value, list):
            bound = most.get(at.rpartition("/")[2], MOST_OF_ANYTHING)
            if len(value) > bound:
                says = f"There are {len(value):,} in this list."
                raise UnfitDocument(source, [Fault(at, says, f"{len(value):,}", f"at most {bound:,}")])
            waiting += [(f"{at}/{i}", v) for i, v in enumerate(value) if isinstance(v, dict | list)]


def widened(document: object) -> object:
    """Parsed JSON with colours as people type them, #f0a, written out: #ff00aa."""
    if isinstance(document, list):
        return [widened(value) for value in document]
    if not isinstance(document, dict):
        return document
    made = {key: widened(value) for key, value in document.items()}
    colour = made.get("hex")
    if isinstance(colour, str) and len(colour) == 4 and colour.startswith("#"):
        made["hex"] = "#" + "".join(2 * c for c in colour[1:])
    return made


def read_json(adapter: TypeAdapter[T], text: str | bytes, source: str) -> T:
    """The same from JSON text; text that is no JSON, or holds NaN, is refused with its place."""
    return read(adapter, parse_json(text, source), source)


def parse_json(text: str | bytes, source: str) -> object:
    """JSON text as values. Raises UnfitDocument with line and column, also for NaN and Infinity."""
    import json

    def no_constant(name: str) -> float:
        raise UnfitDocument(source, [Fault("", f"{name} is not a number.", name, "finite numbers")])

    try:
        return json.loads(text, parse_constant=no_constant)
    except json.JSONDecodeError as error:
        says = f"Line {error.lineno}, column {error.colno}: {error.msg}."
        raise UnfitDocument(source, [Fault("", says, "", "JSON")]) from None
    except UnicodeDecodeError as error:
        raise UnfitDocument(source, [Fault("", f"Not UTF-8 text: {error.reason}.", "", "JSON in UTF-8")]) from None
    except ValueError:  # what is left of it: more digits than are read
        raise UnfitDocument(
            source, [Fault("", "A number has too many digits.", "", "numbers as people write them")]
        ) from None
    except RecursionError:
        raise UnfitDocument(source, [Fault("", "Nested too deeply.", "", "JSON as Lumso writes it")]) from None
