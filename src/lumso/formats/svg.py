"""A drawing as an SVG file, to print or to send."""

from collections.abc import Sequence
from xml.sax.saxutils import escape

from lumso.core.layout.mask import Region
from lumso.core.measure.drawing import Drawing
from lumso.core.plan.patterns import Patterned


def _outline(region: Region) -> str:
    closed = ("L".join(f"{p.x:.1f} {p.y:.1f}" for p in points) for points in (region.outline, *region.holes))
    return "".join(f"M{points}Z" for points in closed)


def to_svg(drawing: Drawing, fills: dict[str, str], words: dict[str, str], patterns: Sequence[Patterned] = ()) -> str:
    """The drawing as an SVG file: `fills` by zone id, `words` for the callouts by size, layers with a layout where they
    go. Bare faces are hatched."""
    pad = max(drawing.width, drawing.height) * 0.14
    stroke = max(drawing.width, drawing.height) / 400
    text = stroke * 14
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{-pad:.1f} {-pad:.1f} {drawing.width + 2 * pad:.1f} '
        f'{drawing.height + 2 * pad:.1f}" stroke="#14191b" stroke-width="{stroke:.2f}" font-family="sans-serif">',
        f'<defs><pattern id="bare" width="{8 * stroke:.2f}" height="{8 * stroke:.2f}" patternUnits="userSpaceOnUse" '
        f'patternTransform="rotate(45)"><path d="M0 0V{8 * stroke:.2f}"/></pattern></defs>',
    ]
    for face in drawing.faces:
        points = " ".join(f"{p.x:.1f},{p.y:.1f}" for p in face.outline)
        fill = fills.get(face.zone, "#ffffff") if face.zone else "url(#bare)"
        parts.append(f'<polygon points="{points}" fill="{escape(fill)}"><title>{escape(face.name)}</title></polygon>')
    for pattern in patterns:
        d = "".join(_outline(r) for r in pattern.regions)
        parts += [
            f'<path transform="translate({at.x:.1f} {at.y:.1f})" fill="{escape(pattern.hex)}" fill-rule="evenodd" '
            f'stroke="none" d="{d}"/>'
            for at in pattern.at
        ]
    for c in drawing.callouts:
        right, down = {"above": (0, -1), "below": (0, 1), "left": (-1, 0), "right": (1, 0)}[c.side]
        dx, dy = right * text, down * text
        x, y = (c.start.x + c.end.x) / 2 + dx * 1.2, (c.start.y + c.end.y) / 2 + dy * 1.2 + text * 0.35
        anchor = {"left": "end", "right": "start"}.get(c.side, "middle")
        parts.append(
            f'<path fill="none" d="M{c.start.x + dx / 2:.1f} {c.start.y + dy / 2:.1f}'
            f'L{c.end.x + dx / 2:.1f} {c.end.y + dy / 2:.1f}"/>'
            f'<text stroke="none" font-size="{text:.1f}" text-anchor="{anchor}" x="{x:.1f}" y="{y:.1f}">'
            f"{escape(words.get(c.size, c.size))}</text>"
        )
    return "\n".join([*parts, "</svg>", ""])
