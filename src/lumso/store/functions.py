"""What our SQL asks of Python: functions that every connection knows."""

import re
import sqlite3
import unicodedata

HEX = re.compile(r'("hex"\s*:\s*")((?:[^"\\]|\\.)*)(")')
GREY = "#808080"


def with_colours(document: str) -> str:
    """A JSON document whose colours are colours: #rgb widened to #rrggbb, what is none made grey."""

    def mended(found: re.Match[str]) -> str:
        colour = found[2]
        if re.fullmatch(r"#[0-9a-fA-F]{3}", colour):
            colour = "#" + "".join(2 * c for c in colour[1:])
        elif not re.fullmatch(r"#[0-9a-fA-F]{6}", colour):
            colour = GREY
        return f"{found[1]}{colour}{found[3]}"

    return HEX.sub(mended, document)


def folded(text: str) -> str:
    """A text as it is searched and sorted: whatever its case and its accents."""
    apart = unicodedata.normalize("NFKD", text)
    return "".join(c for c in apart if not unicodedata.combining(c)).casefold()


def teach(connection: sqlite3.Connection) -> None:
    """Make the functions known to a connection."""
    connection.create_function("with_colours", 1, with_colours, deterministic=True)
    connection.create_function("folded", 1, folded, deterministic=True)
