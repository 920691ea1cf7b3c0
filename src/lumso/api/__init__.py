"""The web API: thin routers, one per noun; errors in one place."""
