"""Rehearsal: a finish gone through by hand on a board, with the clock as fast as one likes, and what comes of it."""
