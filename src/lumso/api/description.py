"""The API's own description: what FastAPI writes of it, with errors as they are answered."""

from typing import Any

from fastapi import FastAPI
from fastapi.openapi.utils import get_openapi

PROBLEM = "application/problem+json"


def describe(app: FastAPI) -> dict[str, Any]:
    """The description, made once: every refusal is problem details, and there is no other form of one."""
    if app.openapi_schema is None:
        made = get_openapi(title=app.title, version=app.version, routes=app.routes)
        for operations in made["paths"].values():
            for operation in operations.values():
                replies = operation["responses"]
                replies.pop("422", None)
                if "default" in replies:
                    replies["default"]["content"] = {PROBLEM: next(iter(replies["default"]["content"].values()))}
        for unused in ("HTTPValidationError", "ValidationError"):
            made["components"]["schemas"].pop(unused, None)
        app.openapi_schema = made
    return app.openapi_schema
