"""The API: thin routers over the core and the store."""
