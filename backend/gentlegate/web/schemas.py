"""What every room sends over the wire: its own is in its `schemas.py`."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

DeskLevel = Literal["viewer", "moderator", "lead", "broadcaster"]


class Wire(BaseModel):
    model_config = ConfigDict(extra="forbid")


class Health(Wire):
    version: str
    live: bool
    screens: int
    platforms: dict[str, str] = Field(description="How each connection stands.")


class BatchDone(Wire):
    number: int = Field(description="Takes it back again; 0 where nothing was changed.")
    changed: int
    left: int = Field(0, description="How many places were changed again meanwhile and stay as they are.")


class Version(Wire):
    """One change of an entry: when, by whom, and what it was before and after."""

    at: int
    by: str
    place: Literal["chat", "desk", "gate"]
    before: dict[str, Any] | None
    after: dict[str, Any] | None


class History(Wire):
    versions: list[Version] = Field(description="Newest first.")
