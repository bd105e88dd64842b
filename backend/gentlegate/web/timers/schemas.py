"""What goes over the wire about rotas, their notices and the forecast."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from gentlegate.web.commands.schemas import PreviewOnPlatform
from gentlegate.web.schemas import Wire


class RotaView(Wire):
    name: str
    rota: dict[str, Any] = Field(description="As in a kit.")
    revision: str
    paused: bool


class GoodCommand(Wire):
    name: str
    reply: str
    uses: int


class StreamView(Wire):
    number: int
    began: int
    minutes: int


class Rotas(Wire):
    rotas: list[RotaView]
    spacing: str = Field(description="`channel.spacing`.")
    commands: list[str] = Field(description="Every command that a notice may post.")
    unposted: list[GoodCommand] = Field(description="Commands that would read well as a notice and are on no rota.")
    platforms: list[str]
    streams: list[StreamView] = Field(description="Recorded streams, newest first.")


class SaveRota(Wire):
    rota: dict[str, Any] = Field(description="As in a kit.")
    revision: str | None = Field(description="The revision that was read; null for a new one.")


class AskForecast(Wire):
    rota: dict[str, Any] | None = Field(
        None, description="A rota as it is being changed, in place of the saved one."
    )
    was: str | None = Field(None, description="The name of the saved one; null for a new rota.")
    pace: float | None = Field(
        None, ge=0, le=10_000, description="Lines a minute; the channel's usual if left out."
    )
    stream: int | None = Field(None, description="The number of a recorded stream to go over instead.")
    hours: float = Field(3, gt=0, le=24)


class PostView(Wire):
    at: int
    notice: int = Field(description="Its place in the rota, from 0.")
    platforms: list[str]


class RowView(Wire):
    rota: str
    posts: list[PostView]


class RemarkView(Wire):
    what: Literal["no lines", "few lines", "nothing to say", "shorter than spacing", "many"]
    rota: str | None
    values: dict[str, Any]


class ForecastView(Wire):
    begin: int
    until: int
    live: bool = Field(description="Whether it goes on from the stream that is on; else it is of an imagined one.")
    pace: float = Field(description="The mean of the lines a minute that it reckons with.")
    usual_of: int = Field(description="Of how many recorded streams the pace is; 0 where it was chosen or made up.")
    rows: list[RowView]
    remarks: list[RemarkView]


class PauseRota(Wire):
    paused: bool


class TryNotice(Wire):
    rota: str = Field(max_length=200)
    notice: dict[str, Any] = Field(description="As in a kit; it need not be saved.")
    real: bool = Field(False, description="Whether to say it in chat; else only how it would read is answered.")


class NoticeTried(Wire):
    said: bool
    shown: list[PreviewOnPlatform]
    problem: str | None = None
