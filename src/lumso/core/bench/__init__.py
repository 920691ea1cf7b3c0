"""The bench: a job's operations one at a time, with what runs meanwhile, as a view of its work and of what was done."""
