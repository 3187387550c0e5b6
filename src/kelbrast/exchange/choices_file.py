"""The ways to do a job side by side, in the units of the screens."""

from pydantic import BaseModel

from kelbrast.core.job import AIMS, BENCH_SPEEDS, HABITS, HANDOVERS, Aim, BenchSpeed, HabitKey, Handover
from kelbrast.core.planning.questions.choices import Choices, JobChoice
from kelbrast.core.reference.loader import record
from kelbrast.exchange.shop_units import shop


class ChoiceFile(BaseModel):
    """One way, for one piece. `kept`: every face could keep the habits. `metal_um` is the most that comes off any face."""

    aim: Aim
    habit: HabitKey
    handover: Handover
    bench_speed: BenchSpeed
    label: str
    possible: bool
    kept: bool
    minutes: float
    metal_um: float
    cost: float
    changes: int
    steps: int


class ChoicesFile(BaseModel):
    """By aim within the job's habits, by each habit for its aim, and in a line why the schools differ."""

    by_aim: list[ChoiceFile]
    by_habit: list[ChoiceFile]
    by_handover: list[ChoiceFile]
    by_bench_speed: list[ChoiceFile]
    schools: str


def to_choices_file(ways: Choices) -> ChoicesFile:
    return ChoicesFile(
        by_aim=[_choice(one, AIMS[one.aim]) for one in ways.by_aim],
        by_habit=[_choice(one, HABITS[one.habit]) for one in ways.by_habit],
        by_handover=[_choice(one, HANDOVERS[one.handover]) for one in ways.by_handover],
        by_bench_speed=[_choice(one, BENCH_SPEEDS[one.bench_speed]) for one in ways.by_bench_speed],
        schools=record("advice")["general"]["schools"],
    )


def _choice(one: JobChoice, label: str) -> ChoiceFile:
    return ChoiceFile(
        aim=one.aim,
        habit=one.habit,
        handover=one.handover,
        bench_speed=one.bench_speed,
        label=label,
        possible=one.possible,
        kept=one.kept,
        minutes=shop(one.seconds, "min"),
        metal_um=shop(one.metal, "um"),
        cost=shop(one.cost, "money"),
        changes=one.changes,
        steps=one.steps,
    )
