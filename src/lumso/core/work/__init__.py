"""The job worked out: operations, constraints, batches, and their views."""
