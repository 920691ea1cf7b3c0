"""The exact search for the best days. Loaded when it is asked for: its engine takes a while to load."""
