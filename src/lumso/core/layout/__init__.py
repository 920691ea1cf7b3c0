"""Layouts: where on a surface a layer goes, so that it comes out even; what is taped, and what is marked."""
