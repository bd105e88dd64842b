"""The kit's `filters` and `ladder`. What a channel leaves out (null) comes from its mood."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field, field_validator

from gentlegate.core.kit.fields import (
    LevelName,
    Name,
    PersonString,
    Seconds,
    Section,
    Span,
    StepName,
    Text,
    When,
    Window,
    refuse,
)
from gentlegate.core.moments import DAY, HOUR, SECOND

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


Share = Annotated[float, Field(gt=0, le=1)] | None
Count = Annotated[int, Field(ge=1, le=100_000)] | None


class Capitals(FilterSection):
    share: Share = None
    letters: Count = None


class Symbols(FilterSection):
    share: Share = None
    least: Count = None
    marks: Annotated[int, Field(ge=0, le=1000)] | None = None


class Most(FilterSection):
    """A filter with one limit: what is passed is stopped."""

    most: Annotated[int, Field(ge=0, le=100_000)] | None = None


class Repeats(FilterSection):
    run: Annotated[int, Field(ge=2, le=100_000)] | None = None
    words: Annotated[int, Field(ge=2, le=100_000)] | None = None


class Resends(FilterSection):
    copies: Annotated[int, Field(ge=2, le=1000)] | None = None
    window: Window | None = None


class Pace(FilterSection):
    messages: Annotated[int, Field(ge=1, le=1000)] | None = None
    window: Window = 10 * SECOND


class LinkEntry(Section):
    text: Annotated[str, Field(min_length=1, max_length=500)]
    step: StepName | None = None
    seconds: Seconds = 600


class Phrase(Section):
    """A blocked word, phrase or pattern."""

    text: Annotated[str, Field(min_length=1, max_length=1000)]
    mode: Literal["word", "anywhere", "pattern"] = "word"
    disguised: bool = True
    step: StepName | None = None
    seconds: Seconds = 600
    note: Text = ""
    lang: Annotated[str, Field(max_length=20)] | None = None


def _entry(value: Any) -> Any:
    return {"text": value} if isinstance(value, str) else value


MOST_ENTRIES = 200_000
LinkEntries = Annotated[list[Annotated[LinkEntry, BeforeValidator(_entry)]], Field(max_length=MOST_ENTRIES)]
PhraseEntries = Annotated[list[Annotated[Phrase, BeforeValidator(_entry)]], Field(max_length=MOST_ENTRIES)]
PlainPhrases = Annotated[list[Annotated[str, Field(min_length=1, max_length=1000)]], Field(max_length=MOST_ENTRIES)]


class Feed(Section):
    """An imported list of forbidden hosts; `address` is where a press fetches it again."""

    name: Name
    address: Annotated[str, Field(max_length=500, pattern=r"^https?://")] | None = None
    on: bool = True
    hosts: Annotated[list[str], Field(max_length=MOST_ENTRIES)] = []


class Links(FilterSection):
    allowed: LinkEntries = []
    forbidden: LinkEntries = []
    feeds: Annotated[list[Feed], Field(max_length=20)] = []
    disguised: bool = True


class Phrases(FilterSection):
    entries: PhraseEntries = []
    allowed: PlainPhrases = []


class Copycats(FilterSection):
    people: Annotated[int, Field(ge=2, le=1000)] | None = None
    window: Window | None = None
    alike: Share = None
    least: Count = None


class Newcomers(FilterSection):
    """`phrases` null means the list that ships with the gate; `account` an age."""

    phrases: PlainPhrases | None = None
    account: Span | None = None


class Filters(Section):
    """In the order of the judge's table: equal steps are decided by the earlier filter."""

    capitals: Capitals = Capitals()
    symbols: Symbols = Symbols()
    emotes: Most = Most()
    length: Most = Most()
    repeats: Repeats = Repeats()
    resends: Resends = Resends()
    pace: Pace = Pace()
    links: Links = Links()
    phrases: Phrases = Phrases()
    names: FilterSection = FilterSection()
    mentions: Most = Most()
    actions: FilterSection = FilterSection()
    false_notice: FilterSection = FilterSection()
    copycats: Copycats = Copycats()
    newcomers: Newcomers = Newcomers()


LISTS = {
    "links": ("allowed", "forbidden", "feeds"),
    "phrases": ("entries", "allowed"),
    "newcomers": ("phrases",),
}
"""The lists of each filter that may grow long."""


def _by_mood(**settings: tuple[Any, Any, Any]) -> dict[str, dict[str, Any]]:
    return {
        mood: {name: values[place] for name, values in settings.items()}
        for place, mood in enumerate(("party", "parlour", "library"))
    }


_ALWAYS, _NOT_AT_PARTIES, _IN_LIBRARIES = (True, True, True), (False, True, True), (False, False, True)
_TABLE = {
    "capitals": _by_mood(on=_ALWAYS, share=(0.95, 0.8, 0.7), letters=(60, 40, 20)),
    "symbols": _by_mood(on=_ALWAYS, share=(0.9, 0.6, 0.4), least=(20, 12, 8), marks=(4, 3, 2)),
    "emotes": _by_mood(on=_ALWAYS, most=(40, 18, 6)),
    "length": _by_mood(on=_ALWAYS, most=(500, 400, 200)),
    "repeats": _by_mood(on=_ALWAYS, run=(40, 25, 15), words=(12, 7, 5)),
    "resends": _by_mood(on=_ALWAYS, copies=(6, 4, 3), window=(30 * SECOND, 60 * SECOND, 120 * SECOND)),
    "pace": _by_mood(on=_ALWAYS, messages=(20, 15, 8)),
    "links": _by_mood(on=_NOT_AT_PARTIES),
    "phrases": _by_mood(on=_ALWAYS),
    "names": _by_mood(on=_ALWAYS),
    "mentions": _by_mood(on=_ALWAYS, most=(10, 6, 4)),
    "actions": _by_mood(on=_IN_LIBRARIES),
    "false_notice": _by_mood(on=_NOT_AT_PARTIES),
    "copycats": _by_mood(
        on=_NOT_AT_PARTIES,
        people=(6, 5, 4),
        window=(15 * SECOND, 20 * SECOND, 30 * SECOND),
        alike=(0.9, 0.9, 0.9),
        least=(16, 16, 12),
    ),
    "newcomers": _by_mood(on=_NOT_AT_PARTIES, account=(0, 0, DAY)),
}
MOODS: dict[str, dict[str, dict[str, Any]]] = {
    mood: {key: values[mood] for key, values in _TABLE.items()} for mood in ("party", "parlour", "library")
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
