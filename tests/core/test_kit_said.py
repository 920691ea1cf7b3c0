"""A drawer of measures as it is said, read once."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.catalogue import shipped
from lumso.core.book.kit import measures_said
from lumso.core.errors import InvalidValue

C = shipped()


@pytest.mark.parametrize(
    ("typed", "system", "ml"),
    [
        ("5 ml, 15 ml", "metric", (5, 15)),
        ("5, 15", "metric", (5, 15)),
        ("2,5 ml and 15 ml", "metric", (2.5, 15)),
        ("1/4 tsp; 1 tsp", "metric", (1.25, 5)),
        ("½ cup", "us", (118.294118,)),
        ("½ cup", "metric", (125,)),
        ("1½ tbsp", "australian", (30,)),
        ("1 1/2 tbsp", "metric", (22.5,)),
        ("2 fl oz", "imperial", (56.826125,)),
        ("blue cup 183", "metric", (183,)),
        ("jug,500 ml", "metric", (500,)),
        ("jug 0.5 l + syringe 20 ml", "metric", (500, 20)),
    ],
)
def test_measures_as_people_say_them(typed: str, system: str, ml: tuple[float, ...]) -> None:
    assert tuple(m.ml for m in measures_said(typed, C.system(system))) == pytest.approx(ml)


def test_what_it_is_called_says_what_kind_it_is() -> None:
    kinds = [m.kind for m in measures_said("5 ml, cup 200 ml, jug 1 l, syringe 10 ml", C.system("metric"))]
    assert kinds == ["spoon", "cup", "jug", "syringe"]


@given(st.lists(st.integers(1, 2000), min_size=1, max_size=8))
def test_any_list_of_millilitres_is_read_as_it_is(sizes: list[int]) -> None:
    read = measures_said(", ".join(f"{s} ml" for s in sizes), C.system("us"))
    assert [m.ml for m in read] == sizes
    assert [m.name for m in read] == [f"{s} ml" for s in sizes]


@pytest.mark.parametrize(
    ("typed", "says"),
    [("wide", "'wide'"), ("3 pots", "unit"), ("", "No measure"), ("0 ml", "holds 0 ml"), ("50 l", "holds 50000 ml"),
     ("5 ml, spoon", "'spoon'"), ("2 fl oz", "unit"),
     ("1/0 cup", "divides by zero")],
)  # fmt: skip
def test_what_cannot_be_read_is_named_with_an_example(typed: str, says: str) -> None:
    with pytest.raises(InvalidValue, match=says) as refused:
        measures_said(typed, C.system("metric"))
    assert "5 ml" in refused.value.allowed or "20 l" in refused.value.allowed
    assert refused.value.field == "typed"
