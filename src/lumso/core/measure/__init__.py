"""Lengths, measures, shapes and drawings."""
