"""Prints the API's description, from which the front end's types are made (`make types`)."""

import json

from sqlalchemy import create_engine

from kelbrast.api.application import create_app
from kelbrast.app.jobs import Jobs


def description() -> str:
    """OpenAPI as JSON text. No database is opened for it."""
    app = create_app(Jobs(create_engine("sqlite://")), web=None)
    return json.dumps(app.openapi(), indent=2, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    print(description(), end="")
