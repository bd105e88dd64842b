"""What goes over the wire about whole sections of the settings."""

from __future__ import annotations

from typing import Any

from pydantic import Field

from gentlegate.web.schemas import Wire


class SectionView(Wire):
    values: dict[str, Any] = Field(description="As in a kit, with what is usual filled in.")
    usual: dict[str, Any] = Field(description="What holds where the channel says nothing.")
    revision: str


class SaveSection(Wire):
    values: dict[str, Any]
    revision: str
