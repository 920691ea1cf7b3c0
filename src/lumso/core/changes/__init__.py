"""Every edit of a stack that decides something."""
