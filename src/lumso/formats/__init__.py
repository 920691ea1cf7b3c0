"""Files people exchange, read and written at the edge."""
