"""The trade's knowledge as data: what there is, and nothing of what it comes to."""
