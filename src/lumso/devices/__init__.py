"""Stand-ins for what stands on a bench, each a small process of its own behind a line protocol, and who listens."""
