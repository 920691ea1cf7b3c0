"""The strip of days as an SVG file."""

from xml.sax.saxutils import escape

from lumso.core.days.strip import Bar, Strip

LEFT = 190.0
INK, LINE = "#14191b", "#9aa4a6"


def _bar(bar: Bar, lane: float) -> str:
    x, y = LEFT + bar.x, bar.y
    title = f"<title>{escape(bar.says)}</title>"
    if bar.kind == "hands":
        fill = {"planned": INK, "begun": "url(#begun)", "done": "none"}[bar.state]
        weight = 3 if bar.critical else 1
        under = f'<path d="M{x} {y + lane - 3}h{bar.width}" stroke-width="{weight}"/>' if bar.critical else ""
        return f'<rect x="{x}" y="{y + 7}" width="{bar.width}" height="{lane - 16}" fill="{fill}">{title}</rect>{under}'
    if bar.kind == "wet":
        return f'<rect x="{x}" y="{y + 12}" width="{bar.width}" height="{lane - 26}" fill="url(#wet)">{title}</rect>'
    if bar.kind == "dry":
        return f'<path d="M{x} {y + lane / 2 - 1}h{bar.width}v-4v8" fill="none">{title}</path>'
    return f'<path d="M{x} {y + 4}h{bar.width}v6" fill="none" stroke-dasharray="3 2">{title}</path>'


def to_svg(strip: Strip) -> str:
    """The strip as a drawing: hands on in black, wet films hatched, until they may be gone on with a line."""
    width, height = LEFT + strip.width + 10, strip.height + 10
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:.1f} {height:.1f}" stroke="{INK}" '
        'font-family="sans-serif" font-size="11">',
        '<defs><pattern id="wet" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">'
        f'<path d="M0 0V5" stroke="{INK}"/></pattern><pattern id="begun" width="3" height="3" '
        f'patternUnits="userSpaceOnUse"><path d="M0 0H3" stroke="{INK}" stroke-width="2"/></pattern></defs>',
        f'<rect width="{width:.1f}" height="{height:.1f}" fill="#fbfcfb" stroke="none"/>',
    ]
    for one in strip.stretches:
        fill = {"visit": "#ffffff", "open": "#f0f2f2", "closed": "#dfe3e3"}[one.kind]
        parts.append(
            f'<rect x="{LEFT + one.x}" y="30" width="{one.width}" height="{strip.height - 30}" fill="{fill}" '
            f'stroke="{LINE}" stroke-width="0.5"/>'
        )
    text = '<text stroke="none" fill="{ink}" x="{x}" y="{y}">{says}</text>'
    parts += [text.format(ink=INK, x=LEFT + m.x, y=14, says=escape(m.says)) for m in strip.days]
    parts += [text.format(ink=INK, x=LEFT + m.x, y=27, says=escape(m.says)) for m in strip.hours]
    for lane in strip.lanes:
        parts.append(
            text.format(
                ink=INK, x=4, y=lane.y + 20, says=escape(f"{lane.of}: {lane.says.lower()}" if lane.of else lane.says)
            )
        )
        parts.append(f'<path d="M0 {lane.y}H{width:.1f}" stroke="{LINE}" stroke-width="0.5"/>')
    air = " ".join(f"{LEFT + p.x},{p.y}" for p in strip.air)
    parts.append(f'<polyline fill="none" points="{air}"/>')
    parts.append(f'<path d="M{LEFT} {strip.coldest_y}h{strip.width}" stroke="{LINE}" stroke-dasharray="2 3"/>')
    parts += [_bar(bar, strip.lane_height) for bar in strip.bars]
    parts.append(f'<path d="M{LEFT + strip.now_x} 30V{strip.height}" stroke-width="2"/>')
    return "\n".join([*parts, "</svg>", ""])
