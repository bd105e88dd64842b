"""What goes over the wire about kits, tables, and changes of many places at once."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from gentlegate.web.schemas import Wire


class BatchView(Wire):
    """A change of many places at once, which one press takes back."""

    number: int
    about: str
    by: str
    at: int
    count: int
    back_by: str | None = Field(description="Who took it back.")


class KitView(Wire):
    places: list[str] = Field(description="Every item that a kit of this channel would hold.")
    taken: list[BatchView] = Field(description="What was changed in one go, newest first.")


class ExportKit(Wire):
    places: list[str] | None = Field(None, description="The items wanted; all if left out.")


class IncomingKit(Wire):
    text: str = Field(max_length=12_582_912)
    kind: Literal["json", "csv"] = "json"


class ClashView(Wire):
    name: str
    owner: str = Field(description="What has this name here.")


class KitItem(Wire):
    place: str
    state: Literal["new", "same", "differs"]
    ours: Any
    theirs: Any
    needs: list[str] = Field(description="Places of the kit that it mentions and that are not here yet.")
    clashes: list[ClashView]


class KitPreview(Wire):
    items: list[KitItem]
    warnings: list[str]


class PickItem(Wire):
    place: str
    names: dict[str, str] = Field({}, description="New names by old ones; an empty one leaves an alias out.")


class TakeKit(IncomingKit):
    name: str = Field(min_length=1, max_length=120, description="What to call it when it is to be taken back.")
    picks: list[PickItem] = Field(min_length=1, max_length=50_000)


class TakeBack(Wire):
    number: int


class BatchDone(Wire):
    number: int = Field(description="Takes it back again; 0 where nothing was changed.")
    changed: int
    left: int = Field(0, description="How many places were changed again meanwhile and stay as they are.")


class MoveCommands(Wire):
    """What to do with several commands at once: exactly one of these."""

    names: list[str] = Field(min_length=1, max_length=10_000)
    folder: str | None = None
    on: bool | None = None
    cooldown: Any = None
    remove: bool = False


class Version(Wire):
    """One change of an entry: when, by whom, and what it was before and after."""

    at: int
    by: str
    place: Literal["chat", "desk", "gate"]
    before: dict[str, Any] | None
    after: dict[str, Any] | None


class History(Wire):
    versions: list[Version] = Field(description="Newest first.")
