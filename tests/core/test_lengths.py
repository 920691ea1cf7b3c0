"""Lengths the way people say them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumso.core.errors import AmbiguousValue, InvalidValue, UnreadableLength
from lumso.core.measure.lengths import MOST_TYPED, parse_length


@pytest.mark.parametrize(
    ("typed", "mm"),
    [
        ("750", 750),
        ("750mm", 750),
        ("75 cm", 750),
        ("0,75 m", 750),
        ("0.75m", 750),
        (".5 m", 500),
        ('29 1/2"', 749.3),
        ("29½ in", 749.3),
        ("29-1/2 inches", 749.3),
        ("2' 5 1/2\"", 749.3),
        ("2′ 5½″", 749.3),
        ("2ft 5.5in", 749.3),
        ("2 feet", 609.6),
        ("2' 6", 762),
        ("1 m 20", 1200),
        ("1m 20 cm", 1200),
        ("1 yd", 914.4),
        ("3/4 in", 19.05),
        ("5''", 127),
        ("1250,5", 1250.5),
        ("0,750 m", 750),
        ("1.250 m", 1250),
        ("2,5 cm", 25),
    ],
)
def test_lengths_that_can_be_read(typed: str, mm: float) -> None:
    length = parse_length(typed)
    assert length.mm == pytest.approx(mm)
    assert length.typed == typed


@pytest.mark.parametrize(
    ("typed", "readings"),
    [("1,250", ("1250", "1.25")), ("1.250", ("1250", "1.25")), ("1,250 m", ("1250 m", "1.25 m"))],
)
def test_an_ambiguous_length_asks_with_two_readings_that_differ(typed: str, readings: tuple[str, str]) -> None:
    with pytest.raises(AmbiguousValue) as caught:
        parse_length(typed)
    assert caught.value.readings == readings
    first, second = (parse_length(reading).mm for reading in readings)
    assert first == pytest.approx(1000 * second)


@pytest.mark.parametrize(
    "typed", ["", "  ", "wide", "12 apples", "5 in 2 ft", "1/0", "7 7 7", "nan", "inf", "--", "1e3"]
)
def test_a_length_that_cannot_be_read_shows_what_was_typed_and_what_works(typed: str) -> None:
    with pytest.raises(UnreadableLength) as caught:
        parse_length(typed)
    assert "75 cm" in caught.value.allowed
    assert typed.strip() in caught.value.says


@pytest.mark.parametrize("typed", ["-5", "-2 cm", "−3"])
def test_below_zero_is_refused(typed: str) -> None:
    with pytest.raises(InvalidValue, match="zero"):
        parse_length(typed)


@pytest.mark.parametrize("typed", ["0", "0 mm", "0,0 m"])
def test_zero_is_a_part_that_is_not_there(typed: str) -> None:
    assert parse_length(typed).mm == 0


@given(st.floats(0.01, 90_000), st.sampled_from(["mm", "cm", "m", "in", "ft"]))
def test_any_plain_number_with_a_unit_is_read_back(number: float, unit: str) -> None:
    per = {"mm": 1, "cm": 10, "m": 1000, "in": 25.4, "ft": 304.8}[unit]
    assert parse_length(f"{number:.4f} {unit}").mm == pytest.approx(round(number, 4) * per, rel=1e-6, abs=1e-5)


@given(st.text(max_size=30))
def test_no_text_breaks_it(typed: str) -> None:
    try:
        length = parse_length(typed)
    except InvalidValue:
        return  # refused in the one way there is
    assert length.mm > 0


@pytest.mark.parametrize("typed", ["1.123" + 20_000 * " " + "x", f"{400 * '9'}/{400 * '9'}", (MOST_TYPED + 1) * "9"])
def test_what_is_too_long_for_a_length_is_not_read_at_all(typed: str) -> None:
    with pytest.raises(UnreadableLength) as refused:
        parse_length(typed)
    assert refused.value.allowed.startswith(f"at most {MOST_TYPED} characters")
    assert len(refused.value.says) < 2 * MOST_TYPED


def test_the_longest_text_is_read() -> None:
    assert parse_length("750".rjust(MOST_TYPED, "0")).mm == 750
    assert parse_length(100 * " " + "750" + 100 * " ").mm == 750
