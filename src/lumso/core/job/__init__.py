"""The job, its areas, and where a new one starts."""
