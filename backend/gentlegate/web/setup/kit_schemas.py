"""What goes over the wire about kits and tables."""

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
