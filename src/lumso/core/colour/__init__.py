"""Colour as light."""
