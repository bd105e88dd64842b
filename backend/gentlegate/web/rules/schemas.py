"""What goes over the wire about moods, filters, their lists, and what they would have stopped."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from gentlegate.web.schemas import Wire


class FilterView(Wire):
    key: str
    values: dict[str, Any] = Field(description="What holds now; long lists are left out.")
    revision: str = Field(description="Of the values; give it back when saving.")
    own: list[str] = Field(description="The values that are the channel's own, not the mood's.")
    tonight: list[str] = Field(description="The values and lists that hold for this stream alone.")
    mood: dict[str, Any] = Field(description="What the mood says.")
    lists: dict[str, int] = Field(description="Its lists, with how many entries each has.")
    stopped: int = Field(
        description="How many lines it stopped in this stream, or in the last one while none is on."
    )
    exempt: int = Field(description="How many it let through by an exemption.")
    undone: int = Field(description="How many of its stops were undone.")


class FeedView(Wire):
    name: str
    address: str | None
    on: bool
    hosts: int
    at: int | None = Field(description="When it was imported; null where its hosts stand in the settings.")


class Rules(Wire):
    mood: str
    mood_tonight: bool
    own: int = Field(description="How many single values differ from the mood.")
    filters: list[FilterView]
    feeds: list[FeedView]


class SetMood(Wire):
    mood: Literal["party", "parlour", "library"]
    tonight: bool = False
    drop: bool = Field(False, description="Drop the single changes as well.")


class SaveFilter(Wire):
    values: dict[str, Any] = Field(description="Values to set; null puts one back to the mood's.")
    tonight: bool = Field(False, description="Let it hold until this stream ends.")
    revision: str | None = Field(
        None, description="Of what was read; left out by a switch that shows what it does."
    )


class ListPage(Wire):
    count: int = Field(description="How many entries match the search.")
    all: int
    entries: list[Any]
    tonight: list[Any] = Field(description="Entries that are there for this stream alone.")


class ChangeList(Wire):
    add: list[Any] = Field([], max_length=20_000)
    take: list[Any] = Field([], max_length=20_000)
    tonight: bool = False


class ImportFeed(Wire):
    name: str = Field(min_length=1, max_length=60)
    address: str | None = Field(None, max_length=500)
    text: str | None = Field(None, max_length=12_582_912, description="The list itself, where there is no address.")


class Imported(Wire):
    hosts: int
    odd: list[int] = Field(description="The numbers of the first lines that hold no host.")
    rules: Rules


class TryLine(Wire):
    text: str = Field(min_length=1, max_length=2000)
    level: str = "everyone"
    new: bool = Field(False, description="Whether the writer was never here before.")
    action: bool = False
    filters: dict[str, dict[str, Any]] = Field({}, description="Unsaved settings to try with.")


class Tried(Wire):
    verdict: dict[str, Any]
    effects: list[dict[str, Any]] = Field([], description="Everything that would come of it, the verdict included.")


class AskConsequence(Wire):
    filter: str
    values: dict[str, Any] = Field({}, description="Unsaved values to look with.")


class AskTuning(AskConsequence):
    field: str = Field(description="The limit to be looked at.")


class CaughtLine(Wire):
    platform: str
    id: str
    name: str
    text: str
    measured: float | None = None
    regular: bool = False


class Consequence(Wire):
    all: int = Field(description="How many lines were looked at.")
    stopped: int
    exempt: int = Field(description="How many more are let through by an exemption.")
    caught: list[CaughtLine] = Field(description="The newest of them.")


class Tuning(Wire):
    all: int = Field(description="How many lines were looked at.")
    reached: bool = Field(description="Whether a line is caught at the limit itself, or only past it.")
    values: list[float] = Field(description="The measures of lines by people below regular, largest first.")
    regular_values: list[float] = Field(description="The measures of lines by regulars and above, largest first.")
    top: list[CaughtLine] = Field(description="The lines with the largest measures, largest first.")
