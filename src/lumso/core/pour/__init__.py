"""Pouring a batch: what is still to pour, what a pour too far makes of the rest, and whether a scale is believed."""
