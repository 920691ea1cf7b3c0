"""Colours of the screen as light: sRGB, luminance and lightness."""


def _linear(channel: int) -> float:
    c = channel / 255
    return c / 12.92 if c <= 0.04045 else float(((c + 0.055) / 1.055) ** 2.4)


def channels(colour: str) -> tuple[int, int, int]:
    """The three channels of #rrggbb, 0–255."""
    return int(colour[1:3], 16), int(colour[3:5], 16), int(colour[5:7], 16)


def bands(colour: str) -> tuple[float, float, float]:
    """What a colour gives back of the three primaries, 0–1 each."""
    r, g, b = (_linear(c) for c in channels(colour))
    return r, g, b


def luminance(colour: str) -> float:
    """Y of an sRGB colour (IEC 61966-2-1), 0–1."""
    r, g, b = (_linear(c) for c in channels(colour))
    return 0.2126 * r + 0.7152 * g + 0.0722 * b


def lightness_of(y: float) -> float:
    """CIE L* of a luminance, 0–100."""
    return 116 * y ** (1 / 3) - 16 if y > 0.008856 else 903.3 * y


def lightness(colour: str) -> float:
    """CIE L* of #rrggbb, 0–100.

    >>> round(lightness("#777777"))
    50
    """
    return lightness_of(luminance(colour))
