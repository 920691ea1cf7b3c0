"""Names without what cannot be seen: refused at the field, offered cleaned."""

import json

import pytest

from lumso.formats.names import cleaned, refuse_hidden, with_names_cleaned
from lumso.formats.reading import UnfitDocument


@pytest.mark.parametrize(("name", "code", "clean"), [
    ("Rack\u202egnp.exe", "U+202E", "Rackgnp.exe"), ("Ra\x00ck", "U+0000", "Rack"),
    ("Two\nlines", "U+000A", "Two lines"),
    ("\u2066Door\u2069", "U+2066, U+2069", "Door")])  # fmt: skip
def test_a_name_with_what_cannot_be_seen_is_refused_where_it_stands_and_offered_cleaned(
    name: str, code: str, clean: str
) -> None:
    with pytest.raises(UnfitDocument) as caught:
        refuse_hidden({"zones": [{"layers": [{"name": name}]}]})
    (fault,) = caught.value.faults
    assert fault.at == "/zones/0/layers/0/name"
    assert code in fault.says
    assert fault.allowed == f"the same without it: {clean}"
    assert cleaned(name) == clean


@pytest.mark.parametrize("name", ["Größe 3½", "Кресло", "椅子", "שולחן", "É\u0301", "👩\u200d🎨"])
def test_every_script_is_a_name(name: str) -> None:
    refuse_hidden({"name": name, "notes": "two\nlines"})
    assert with_names_cleaned(json.dumps({"name": name})) == json.dumps({"name": name})
