"""What goes over the wire about stage cards, quotes and the steps of a counter."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from gentlegate.web.schemas import Wire


class StepView(Wire):
    at: int
    by: str
    place: str = Field(description="`chat`, `desk` or `gate`.")
    before: int
    after: int


class QuoteView(Wire):
    number: int
    text: str
    said_by: str
    by: str
    category: str
    date: str
    removed: bool = False


class AddQuote(Wire):
    text: str = Field(min_length=1, max_length=500)
    said_by: str | None = Field(None, max_length=60)
    category: str | None = Field(None, max_length=100)


class ImportTable(Wire):
    text: str = Field(max_length=4_000_000)


class CardStyle(Wire):
    size: int = Field(64, ge=12, le=300, description="Of the number, in pixels.")
    colour: str = Field("#FFFDF8", pattern=r"^#[0-9A-Fa-f]{6}$")
    typeface: Literal["text", "title"] = "text"
    label: bool = True
    align: Literal["left", "centre", "right"] = "left"
    ground: Literal["none", "sheet"] = "none"


class CardView(Wire):
    card: str = Field(description="`counter:NAME` or `shoutout`.")
    label: str
    value: str
    address: str = Field(description="For the broadcaster's video software; with its key, which only reads.")
    style: CardStyle
    revision: str = Field(description="Of the style; give it back when saving.")


class SaveStyle(Wire):
    style: CardStyle
    revision: str


class Cards(Wire):
    cards: list[CardView]


class CardState(Wire):
    label: str
    value: str
    style: CardStyle
