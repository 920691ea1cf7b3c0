"""What the log says of a painter: rates, drying, pace; and how much to mix so as to run short only so often."""
