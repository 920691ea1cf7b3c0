"""`python -m lumso` is the `lumso` command."""

from .cli import app

app()
