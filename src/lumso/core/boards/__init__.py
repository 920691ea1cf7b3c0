"""Test boards: planned like a job, and what they teach."""
