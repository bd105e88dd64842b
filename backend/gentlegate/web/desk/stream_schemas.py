"""What goes over the wire about running the stream."""

from __future__ import annotations

from typing import Any

from pydantic import Field

from gentlegate.web.schemas import Wire


class SetCategory(Wire):
    category: str = Field(min_length=1, max_length=200)
    platforms: list[str] | None = None


class NameOnPlatform(Wire):
    name: str = Field(min_length=1, max_length=100)
    platform: str | None = Field(None, description="The first live one if left out.")


class WriteMarker(Wire):
    note: str = Field("", max_length=500)


class StartAd(Wire):
    platform: str
    seconds: int


class ForgetArrivals(Wire):
    person: str | None = Field(None, description="`platform:id`; everybody if left out.")


class Happened(Wire):
    effects: list[dict[str, Any]]
    says: list[str] = Field([], description="What was not done, and why, in sentences.")
    link: str | None = Field(None, description="The link of a clip.")


class CategoryFound(Wire):
    platform: str
    any: bool = Field(description="Whether the platform takes any name.")
    exact: str | None = Field(description="The entry that the name means there.")
    nearest: list[str]


class Found(Wire):
    pinned: list[str] = Field([], description="The channel's own names with these letters.")
    platforms: list[CategoryFound]


class MarkerView(Wire):
    at: int
    stream: int
    offset: int = Field(description="Seconds since the stream began.")
    by: str
    note: str
