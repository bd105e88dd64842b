"""The kit's `filters` and `ladder`. What a channel leaves out (null) comes from its mood."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field, field_validator

from gentlegate.core.kit.fields import (
    LevelName,
    PersonString,
    Seconds,
    Section,
    Span,
    StepName,
    Text,
    When,
    refuse,
)
from gentlegate.core.moments import HOUR, SECOND

Mood = Literal["party", "parlour", "library"]


class FilterSection(Section):
    """What every filter has."""

    on: bool | None = None
    exempt_from: LevelName = "moderator"
    exempt_people: list[PersonString] = []
    platforms: list[str] | None = None
    when: When = "always"
    strikes: Annotated[int, Field(ge=0, le=100)] = 1
    step: StepName | None = None
    seconds: Seconds = 600
    reply: Text | None = None


class Capitals(FilterSection):
    share: Annotated[float, Field(gt=0, le=1)] | None = None
    letters: Annotated[int, Field(ge=1, le=1000)] | None = None


class LinkEntry(Section):
    text: Annotated[str, Field(min_length=1, max_length=500)]
    step: StepName | None = None
    seconds: Seconds = 600


def _entry(value: Any) -> Any:
    return {"text": value} if isinstance(value, str) else value


LinkEntries = list[Annotated[LinkEntry, BeforeValidator(_entry)]]


class Links(FilterSection):
    allowed: LinkEntries = []
    forbidden: LinkEntries = []
    disguised: bool = True


class Filters(Section):
    capitals: Capitals = Capitals()
    links: Links = Links()


MOODS: dict[str, dict[str, dict[str, Any]]] = {
    "party": {"capitals": {"on": True, "share": 0.95, "letters": 60}, "links": {"on": False}},
    "parlour": {"capitals": {"on": True, "share": 0.8, "letters": 40}, "links": {"on": True}},
    "library": {"capitals": {"on": True, "share": 0.7, "letters": 20}, "links": {"on": True}},
}


def with_mood(filters: Filters, mood: str) -> Filters:
    """The filters with every value that the channel left out taken from the mood."""
    sections = {}
    for key, values in MOODS[mood].items():
        section = getattr(filters, key)
        missing = {name: value for name, value in values.items() if getattr(section, name) is None}
        sections[key] = section.model_copy(update=missing)
    return filters.model_copy(update=sections)


class LadderStep(Section):
    strikes: Annotated[int, Field(ge=1, le=1000)]
    step: StepName
    seconds: Seconds | None = None


class Ladder(Section):
    memory: Span = 6 * HOUR
    grace: Span = 5 * SECOND
    steps: list[LadderStep] = [
        LadderStep(strikes=1, step="nudge"),
        LadderStep(strikes=2, step="timeout", seconds=60),
        LadderStep(strikes=3, step="timeout", seconds=600),
        LadderStep(strikes=5, step="timeout", seconds=86400),
    ]

    @field_validator("steps")
    @classmethod
    def _climbs(cls, steps: list[LadderStep]) -> list[LadderStep]:
        counts = [step.strikes for step in steps]
        if len(set(counts)) != len(counts):
            raise refuse("two steps stand at the same number of strikes")
        for step in steps:
            if step.step == "timeout" and step.seconds is None:
                raise refuse(f"the timeout at {step.strikes} strikes says no seconds")
        return sorted(steps, key=lambda step: step.strikes)
