"""What is kept, behind a request."""

from typing import Annotated

from fastapi import Depends, Request

from kelbrast.app.board import Boards
from kelbrast.app.house import HouseWays
from kelbrast.app.jobs import Jobs
from kelbrast.app.learnt import Learning
from kelbrast.app.light import Light
from kelbrast.app.log import Log
from kelbrast.app.photos import PartPhotos, Photos
from kelbrast.app.practice import Lessons
from kelbrast.app.quotes import Quotes
from kelbrast.app.rack import Rack
from kelbrast.app.runs import Runs
from kelbrast.app.sizing import Sizings
from kelbrast.app.templates import Templates
from kelbrast.app.upkeep import Upkeep


def _jobs(request: Request) -> Jobs:
    jobs: Jobs = request.app.state.jobs
    return jobs


def _rack(request: Request) -> Rack:
    return _jobs(request).rack


def _runs(request: Request) -> Runs:
    return Runs(_jobs(request))


def _log(request: Request) -> Log:
    return Log(_runs(request))


def _photos(request: Request) -> Photos:
    return Photos(_jobs(request).engine)


def _part_photos(request: Request) -> PartPhotos:
    return PartPhotos(_jobs(request).engine)


def _learning(request: Request) -> Learning:
    return _rack(request).learning


def _house(request: Request) -> HouseWays:
    return HouseWays(_jobs(request).engine)


def _upkeep(request: Request) -> Upkeep:
    return Upkeep(_jobs(request))


def _practice(request: Request) -> Lessons:
    return Lessons(_jobs(request).engine)


def _sizings(request: Request) -> Sizings:
    return Sizings(_jobs(request).engine)


def _boards(request: Request) -> Boards:
    boards: Boards = request.app.state.boards
    return boards


def _quotes(request: Request) -> Quotes:
    return Quotes(_jobs(request))


def _templates(request: Request) -> Templates:
    return Templates(_jobs(request).engine)


def _light(request: Request) -> Light:
    light: Light = request.app.state.light
    return light


AllJobs = Annotated[Jobs, Depends(_jobs)]
OwnRack = Annotated[Rack, Depends(_rack)]
AllRuns = Annotated[Runs, Depends(_runs)]
ShopLog = Annotated[Log, Depends(_log)]
ShopPhotos = Annotated[Photos, Depends(_photos)]
PartPictures = Annotated[PartPhotos, Depends(_part_photos)]
WhatWasLearnt = Annotated[Learning, Depends(_learning)]
ShopWays = Annotated[HouseWays, Depends(_house)]
ShopUpkeep = Annotated[Upkeep, Depends(_upkeep)]
ShopPractice = Annotated[Lessons, Depends(_practice)]
AllSizings = Annotated[Sizings, Depends(_sizings)]
OwnTemplates = Annotated[Templates, Depends(_templates)]
ShopBoards = Annotated[Boards, Depends(_boards)]
ShopQuotes = Annotated[Quotes, Depends(_quotes)]
Pictures = Annotated[Light, Depends(_light)]
