"""How work goes at the bench beside the painting itself: what it takes to mix, to lay out, to clean."""

from dataclasses import dataclass

from ..value import Fraction, Positive, Value


@dataclass(frozen=True)
class Habits(Value):
    """Minutes, paces and smallest amounts of bench work. Untested starting points, all of them."""

    provenance: str
    least_min: Positive
    """Nothing takes less: taking it up, putting it down."""
    mix_min: Positive
    pour_min: Positive
    """Opening, stirring and pouring off what is used as bought."""
    stir_min: Positive
    clean_min: Positive
    """Cleaning a tool and a pot before the mix stiffens."""
    lay_out_min: Positive
    """Laying out, once a session."""
    clear_away_min: Positive
    """Clearing away, once a session."""
    refit_min: Positive
    sanding_m2_per_h: Positive
    dusting_m2_per_h: Positive
    buffing_m2_per_h: Positive
    taping_m2_per_h: Positive
    sealing_m_per_min: Positive
    """Brushing along the edges of tape."""
    part_dry_pace: Positive
    """Part-dry work goes so many times as fast as laying on."""
    window_used: Fraction
    """The share of a window that is planned with: the rest is for the phone."""
    session_gap_min: Positive
    """A longer gap than this ends a session at the bench."""
    pause_min: Positive
    """With less than this to wait the painter keeps the tool in hand."""
    short_rest_min: Positive
    """A mix that rests no longer than this is mixed in the same session."""
    smallest_batch_ml: Positive
    """Less than this cannot be mixed and brushed."""
    shortest_life_min: Positive
    """A mix that can be worked for less than this cannot be taken up at all."""
    trial_share: Fraction
    """The share of a batch that is mixed first, so that it can still be corrected with what is left."""
    trial_least_ml: Positive
    rinse_ml: Positive
    """Water that rinses a pot into the next."""
    first_things: tuple[str, ...]
    """What is laid out before every session."""
