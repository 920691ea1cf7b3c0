"""The base of every type that can be written to a file: immutable, closed to unknown fields, finite numbers."""

from typing import Annotated, ClassVar

from annotated_types import Ge, Gt, Interval, MaxLen, MinLen


class Value:
    """Marks a frozen dataclass whose validation and JSON Schema are built at the edge.

    The configuration is plain data, so the core needs no validation library to carry it. What describes the types adds
    the texts under their fields to it; to read those whenever the program starts would take longer than all the rest.
    """

    __pydantic_config__: ClassVar[dict[str, object]] = {
        "extra": "forbid",
        "allow_inf_nan": False,
        "json_schema_serialization_defaults_required": True,
    }


Positive = Annotated[float, Gt(0)]
"""A number above zero."""

NotNegative = Annotated[float, Ge(0)]
"""Zero or more."""

Fraction = Annotated[float, Interval(ge=0, le=1)]
"""A share of something: 0 to 1."""

Name = Annotated[str, MinLen(1), MaxLen(120)]
"""What a person calls it: 1 to 120 characters."""

Slug = Annotated[str, MinLen(1), MaxLen(80)]
"""The short name entries refer to each other by, in lower case with hyphens."""
