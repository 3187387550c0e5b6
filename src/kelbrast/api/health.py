"""How the running program is: which version and build, and what is wrong that every screen should say."""

import json
from datetime import datetime
from pathlib import Path

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict

from kelbrast import __version__
from kelbrast.api.problems import RESPONSES
from kelbrast.app.health import Concern, Health

router = APIRouter(prefix="/api", responses=RESPONSES)


class ProgramTroubleOut(BaseModel):
    """Something that is wrong: what it concerns, in words, and since when."""

    model_config = ConfigDict(from_attributes=True)

    concern: Concern
    said: str
    since: datetime


class HealthOut(BaseModel):
    """`build`: names the built screens that are served now; a screen with another one was loaded before an update."""

    version: str
    build: str
    troubles: list[ProgramTroubleOut]


@router.get("/health")
def health(request: Request) -> HealthOut:
    """How the program is; screens ask for it again and again."""
    health: Health = request.app.state.health
    troubles = [ProgramTroubleOut.model_validate(trouble) for trouble in health.troubles()]
    return HealthOut(version=__version__, build=built(request.app.state.web), troubles=troubles)


def built(web: Path | None) -> str:
    """The name of the built screens; empty where there are none."""
    if web is None:
        return ""
    try:
        return str(json.loads((web / "build.json").read_text(encoding="utf-8"))["build"])
    except (OSError, ValueError, KeyError, TypeError):
        return ""
