"""Two hundred texts, each read as it is meant, asked about or refused: never as something else.

What is expected was written down before anything was read: a blank or an apostrophe before three digits groups
thousands, a comma or a dot is asked about where both could be meant, a smaller unit fits into the larger one before it.
"""

import json
import re

import pytest

from lumso.catalogue import shipped
from lumso.core.errors import AmbiguousValue, InvalidValue
from lumso.core.measure.amounts import read_amount
from lumso.core.measure.lengths import Bare, parse_length
from lumso.core.measure.numbers import NUMBER, plain, read_number, readings
from tests.conftest import ROOT

C = shipped()

WITH_UNIT: dict[str, float] = {
    "1 250 mm": 1250, "1'250 mm": 1250, "1’250 mm": 1250, "1\u00a0250 mm": 1250, "1\u202f250 mm": 1250,
    "1.234,5 mm": 1234.5, "1,234.5 mm": 1234.5, "1 234,5 mm": 1234.5, "1'234.5 mm": 1234.5, "12 500 mm": 12500,
    "2 m 500": 2500, "2m500": 2500, "2 m 500 mm": 2500, "2m50": 2500, "2 m 5": 2050, "1m20": 1200, "1 m 20 cm": 1200,
    "1 m 5 mm": 1005, "1 m 005": 1005, "0,75 m": 750, ",75 m": 750, ".75 m": 750, "0.750 m": 750, "1.250 m": 1250,
    "1,2 m": 1200, "120 cm": 1200, "120,5 cm": 1205, "0,5 cm": 5, "2,54 cm": 25.4, "63.5 mm": 63.5, "6 cm": 60,
    "6 cm 3 mm": 63, "29 1/2\"": 749.3, "29 1⁄2 in": 749.3, "29½\"": 749.3, "29-1/2 in": 749.3, "1/2 in": 12.7,
    "⅜ in": 9.525, "12.125 in": 307.975, "1.250 in": 31.75, "2' 5 1/2\"": 749.3, "2'5\"": 736.6, "2' 6": 762,
    "5' 11 15/16\"": 1827.2125, "2ft 5.5in": 749.3, "2 feet": 609.6, "3 ft 11 in": 1193.8, "1 yd": 914.4,
    "1 yd 2 ft": 1524, "1 yd 2 ft 6 in": 1676.4, "1 yd 2": 1524, "3.5 ft": 1066.8, "0 mm": 0, "1 000 mm": 1000,
    "1 m": 1000, "5''": 127, "1.5 yd": 1371.6, "1 m 2,5 cm": 1025, "10'": 3048, "10' 0\"": 3048, "1 250,5 mm": 1250.5,
}  # fmt: skip
BARE: dict[str, float] = {
    "750": 750, "1 250": 1250, "1'250": 1250, "1.234,5": 1234.5, "1,234.5": 1234.5, "29 1/2": 29.5, "29½": 29.5,
    "1250,5": 1250.5, ",5": 0.5, "0,125": 0.125, "12 500": 12500, "7": 7, "1/4": 0.25, "3-3/4": 3.75,
}  # fmt: skip
"""What a number alone is, in the workshop's own unit."""
ASKED: dict[str, tuple[float, float]] = {
    "1,250 mm": (1250, 1.25), "1.250 mm": (1250, 1.25), "12,500 mm": (12500, 12.5), "1,250 cm": (12500, 12.5),
    "1.250 cm": (12500, 12.5), "5'006 mm": (5006, -1), "2,750 m": (2_750_000, 2750), "9.999 mm": (9999, 9.999),
    "1,000 mm": (1000, 1), "3.500 mm": (3500, 3.5),
}  # fmt: skip
"""Both readings, mm; -1 where one of them is no length at all once its unit is said."""
REFUSED = (
    "", " ", "wide", "5' 14\"", "5' 12\"", "1 m 120 cm", "1 m 1000 mm", "2 ft 30 in", "1 yd 3 ft", "1 yd 40 in",
    "6 cm 12 mm", "5 in 2 ft", "20 cm 1 m", "2.5 ft 6 in", "1.5 m 20", "1/0 in", "7 7 7", "1.2.3 mm", "1,2,3 mm",
    "1..5 mm", "12 apples", "120 400 18", "200 400 mm", "1250 250 mm", "3 4 in", "-5 mm", "−3 in", "1e3 mm", "nan mm",
    "5' 250", "2' 6 cm 3", "1 2/3/4 in", "½½ in", "mm 5",
)  # fmt: skip
BARES: tuple[tuple[Bare, float], ...] = (("mm", 1.0), ("in", 25.4))


@pytest.mark.parametrize("typed", WITH_UNIT)
def test_a_length_with_its_unit_is_the_same_in_every_workshop(typed: str) -> None:
    for bare, _ in BARES:
        assert parse_length(typed, bare).mm == pytest.approx(WITH_UNIT[typed]), bare


@pytest.mark.parametrize("typed", BARE)
def test_a_number_alone_is_in_the_unit_of_the_workshop(typed: str) -> None:
    for bare, each in BARES:
        assert parse_length(typed, bare).mm == pytest.approx(BARE[typed] * each)


@pytest.mark.parametrize("typed", ASKED)
def test_a_length_that_can_be_two_is_asked_about_and_what_is_offered_is_read_back(typed: str) -> None:
    for bare, _ in BARES:
        with pytest.raises(AmbiguousValue) as asked:
            parse_length(typed, bare)
        for reading, mm in zip(asked.value.readings, ASKED[typed], strict=True):
            if mm < 0:
                with pytest.raises(InvalidValue):
                    parse_length(reading, bare)
            else:
                assert parse_length(reading, bare).mm == pytest.approx(mm)


@pytest.mark.parametrize("typed", REFUSED)
def test_what_is_no_length_is_refused_in_every_workshop(typed: str) -> None:
    for bare, _ in BARES:
        with pytest.raises(InvalidValue) as refused:
            parse_length(typed, bare)
        assert not isinstance(refused.value, AmbiguousValue)
        assert refused.value.allowed


SYSTEMS = sorted(C.systems)
ML: dict[str, float] = {
    "120": 120, "120 ml": 120, "1 250 ml": 1250, "1'250 ml": 1250, "1.234,5 ml": 1234.5, "1,234.5 ml": 1234.5,
    "1,5 l": 1500, "1.5 l": 1500, ",75 l": 750, ".75 l": 750, "0,750 l": 750, "0.125 l": 125, "1.250 l": 1250,
    "1,250 l": 1250, "5 cl": 50, "2 dl": 200, "2,5 dl": 250, "3 cc": 3, "12 000 ml": 12000, "1 litre": 1000,
    "1/2 l": 500, "½ l": 500, "1½ l": 1500, "1 1/2 l": 1500, "1⁄2 l": 500, "0,5": 0.5, "4.7 ml": 4.7, "4,7 ml": 4.7,
    "1,25 ml": 1.25, "200 l": 200_000, "2 liters": 2000, "10 CC": 10, " 30 ML ": 30, "1\u00a0250 ml": 1250,
}  # fmt: skip
ML_ASKED = ("1,250 ml", "1.250 ml", "1,250", "1.250", "12,500 ml", "2.500 cc", "1,000 ml")
ML_REFUSED = ("", "soup", "-3", "0", "201 l", "120 ml of it", "5 ml 3", "1/0 l", "3 pots", "1e3", "1.2.3 ml", "2 m",
              "1,250,000 l", "1 2 3 ml", "ml 5", "least 200", "200 at least")  # fmt: skip
OWN: dict[tuple[str, str], float | None] = {
    ("1 gal", "us"): 3785.412, ("1 gallon", "imperial"): 4546.09, ("1 gal", "metric"): None, ("½ cup", "us"): 118.294,
    ("½ cup", "metric"): 125, ("½ cup", "australian"): 125, ("1 pint", "imperial"): 568.261, ("1 pint", "us"): 473.176,
    ("1 qt", "us"): 946.353, ("2 fl oz", "us"): 59.147, ("2 fl oz", "imperial"): 56.826, ("2 fl oz", "metric"): None,
    ("1 tbsp", "australian"): 20, ("1 tbsp", "metric"): 15, ("1/4 gal", "us"): 946.353, ("1.5 gal", "us"): 5678.118,
}  # fmt: skip


@pytest.mark.parametrize("typed", ML)
def test_an_amount_in_litres_or_parts_of_them_is_the_same_everywhere(typed: str) -> None:
    for system in SYSTEMS:
        assert read_amount(typed, C.system(system)) == pytest.approx(ML[typed])


@pytest.mark.parametrize("typed", ML_ASKED)
def test_an_amount_that_can_be_two_is_asked_about(typed: str) -> None:
    for system in SYSTEMS:
        with pytest.raises(AmbiguousValue) as asked:
            read_amount(typed, C.system(system))
        whole, part = (read_amount(r, C.system(system)) for r in asked.value.readings)
        assert whole == pytest.approx(1000 * part)


@pytest.mark.parametrize("typed", ML_REFUSED)
def test_what_is_no_amount_is_refused_everywhere(typed: str) -> None:
    for system in SYSTEMS:
        with pytest.raises(InvalidValue) as refused:
            read_amount(typed, C.system(system))
        assert not isinstance(refused.value, AmbiguousValue)


@pytest.mark.parametrize(("typed", "system"), OWN)
def test_a_measure_is_the_workshop_s_own_or_refused(typed: str, system: str) -> None:
    ml = OWN[typed, system]
    if ml is None:
        with pytest.raises(InvalidValue):
            read_amount(typed, C.system(system))
    else:
        assert read_amount(typed, C.system(system)) == pytest.approx(ml, abs=0.01)


@pytest.mark.parametrize(("typed", "meant"), json.loads((ROOT / "ui" / "src" / "parts" / "typed.json").read_text()))
def test_a_number_alone_is_read_as_the_page_foresees(typed: str, meant: list[float]) -> None:
    both = readings(plain(typed))
    assert [read_number(text) for text in both if re.fullmatch(NUMBER, text)] == meant
