"""How Lumso is reached: the lines it holds, and the proxy it may stand behind."""
