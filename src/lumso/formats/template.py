"""Templates at their true size: SVG in mm, DXF as every cutter reads it, PDF tiled over sheets."""

from xml.sax.saxutils import escape, quoteattr

from lumso.core.layout.template import Path, Template

STROKES = {"edge": 0.5, "painted": 0.25, "marks": 0.25, "words": 0.1}


def _d(path: Path) -> str:
    points = " L ".join(f"{p.x:.4f} {p.y:.4f}" for p in path.points)
    return f"M {points}{' Z' if path.closed else ''}"


def to_svg(template: Template) -> str:
    """The template as SVG, a user unit a mm."""
    paths = "\n".join(
        f'<path class="{p.layer}" d="{_d(p)}" fill="none" stroke="#000" stroke-width="{STROKES[p.layer]}"/>'
        for p in template.paths
    )
    words = "\n".join(
        f'<text x="{w.at.x:.3f}" y="{w.at.y:.3f}" font-size="{w.size_mm:g}" font-family="sans-serif">'
        f"{escape(w.text)}</text>"
        for w in template.words
    )
    size = f'width="{template.width:.4f}mm" height="{template.height:.4f}mm"'
    box = f'viewBox="0 0 {template.width:.4f} {template.height:.4f}"'
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" {size} {box} aria-label={quoteattr(template.title)}>\n'
        f"<title>{escape(template.title)}</title>\n{paths}\n{words}\n</svg>\n"
    )


def to_dxf(template: Template) -> str:
    """The template as DXF R12, in mm; its y runs up, as in every DXF."""
    high = template.height
    pairs: list[tuple[int, object]] = [
        (0, "SECTION"), (2, "HEADER"), (9, "$ACADVER"), (1, "AC1009"), (9, "$INSUNITS"), (70, 4), (0, "ENDSEC"),
        (0, "SECTION"), (2, "TABLES"), (0, "TABLE"), (2, "LAYER"), (70, 4),
    ]  # fmt: skip
    for number, layer in enumerate(STROKES, 1):
        pairs += [(0, "LAYER"), (2, layer.upper()), (70, 0), (62, number), (6, "CONTINUOUS")]
    pairs += [(0, "ENDTAB"), (0, "ENDSEC"), (0, "SECTION"), (2, "ENTITIES")]
    for path in template.paths:
        layer = path.layer.upper()
        pairs += [(0, "POLYLINE"), (8, layer), (66, 1), (10, "0.0"), (20, "0.0"), (30, "0.0"), (70, int(path.closed))]
        for p in path.points:
            pairs += [(0, "VERTEX"), (8, layer), (10, f"{p.x:.4f}"), (20, f"{high - p.y:.4f}"), (30, "0.0")]
        pairs += [(0, "SEQEND"), (8, layer)]
    for w in template.words:
        at = [(10, f"{w.at.x:.4f}"), (20, f"{high - w.at.y:.4f}"), (30, "0.0")]
        pairs += [(0, "TEXT"), (8, "WORDS"), *at, (40, f"{w.size_mm:g}"), (1, _plain(w.text))]
    pairs += [(0, "ENDSEC"), (0, "EOF")]
    return "".join(f"{code}\n{value}\n" for code, value in pairs)


def _plain(text: str) -> str:
    """Words in the letters R12 knows."""
    return text.replace("–", "-").encode("ascii", "replace").decode()
