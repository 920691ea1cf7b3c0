"""The piece that is painted, and the kinds of piece."""
