"""A mix that is not as it should be: what it really is by what was seen of it, and what to add, carefully."""
