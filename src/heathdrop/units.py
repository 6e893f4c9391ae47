"""Units at the edges: anglers' units outside, SI inside.

Every factor is exact by definition (international avoirdupois pound and foot,
standard gravity), so there is nothing here to calibrate.
"""

from fractions import Fraction

M_PER_FT = 0.3048
M_PER_IN = 0.0254
CM_PER_IN = 2.54
KG_PER_OZ = 0.028349523125
G_PER_OZ = 28.349523125
KG_PER_LB = 0.45359237
M_S_PER_MPH = 0.44704
#: A count shorter than this (s) cannot be counted; turns of the handle are told over so many seconds.
AT_ONCE_S, TURNS_IN_S = 1.0, 20.0
GRAVITY_M_S2 = 9.80665


def feet(depth_m: float) -> float:
    """Metres to feet."""
    return depth_m / M_PER_FT


def metres(depth_ft: float) -> float:
    """Feet to metres."""
    return depth_ft * M_PER_FT


def kilograms(mass_oz: float) -> float:
    """Avoirdupois ounces to kilograms."""
    return mass_oz * KG_PER_OZ


def celsius(temperature_f: float) -> float:
    """Degrees Fahrenheit to degrees Celsius."""
    return (temperature_f - 32.0) / 1.8


def square_metres(area_cm2: float) -> float:
    """Square centimetres to square metres."""
    return area_cm2 * 1e-4


def feet_said(depth_ft: float) -> str:
    """Feet to a tenth, without a tail of zeros.

    >>> feet_said(0.3333), feet_said(6.0)
    ('0.3', '6')
    """
    return f"{round(depth_ft, 1):g}"


def ounces_as_written(mass_oz: float) -> str:
    """An ounce as anglers write it: ``3/8``, ``1``, ``1 1/4``.

    A mass more than a thousandth of an ounce from the next 32nd stays a decimal.

    >>> ounces_as_written(0.375), ounces_as_written(1.25), ounces_as_written(0.41)
    ('3/8', '1 1/4', '0.41')
    """
    near = Fraction(round(mass_oz * 32), 32)
    if abs(float(near) - mass_oz) > 1e-3 or near <= 0:
        return f"{mass_oz:.3g}"
    whole, rest = divmod(near.numerator, near.denominator)
    if rest == 0:
        return str(whole)
    part = f"{rest}/{near.denominator}"
    return f"{whole} {part}" if whole else part


def inches_said(length_in: float) -> str:
    """A length in inches as it is said: as it is sold, else to a hundredth (10 cm: ``3.94``).

    >>> inches_said(2.75), inches_said(4.0), inches_said(3.937)
    ('2.75', '4', '3.94')
    """
    return f"{round(length_in, 2):g}"


def count_said(seconds: float) -> str:
    """A count as it is said: to a tenth of a second, a whole one without (``2.5``, ``7``); one that nobody
    can count is reeled ``at once``."""
    return "at once" if seconds < AT_ONCE_S else f"{round(seconds, 1):g}"


def many(n: int, word: str) -> str:
    """So many of a thing: ``1 cast``, ``3 casts``."""
    return f"{n} {word}" + ("" if n == 1 else "s")


def counted(seconds: float) -> str:
    """What to do after the splash: ``count 2.5``, or ``reel at once``."""
    return "reel at once" if seconds < AT_ONCE_S else f"count {count_said(seconds)}"


def turns_said(turns_per_s: float) -> str:
    """Handle turns in :data:`TURNS_IN_S` seconds as they are said: to the half turn, which moves a lure by
    less than a third of a foot.

    >>> turns_said(0.956), turns_said(1.0)
    ('19', '20')
    """
    return f"{round(2.0 * TURNS_IN_S * turns_per_s) / 2.0:g}"


def pounds_said(pounds: float) -> str:
    """A fish's weight as it was told: pounds and whole ounces, or decimals.

    >>> pounds_said(4.125), pounds_said(3.2), pounds_said(5.0)
    ('4 lb 2 oz', '3.2 lb', '5 lb')
    """
    whole, ounces = divmod(16.0 * pounds, 16.0)
    told_in_ounces = abs(ounces - round(ounces)) < 0.02 and ounces % 8.0
    return f"{whole:.0f} lb {ounces:.0f} oz" if told_in_ounces else f"{pounds:g} lb"
