"""Edits of a job that decide something, as one closed union."""
