"""What goes over the wire between the screens and the server."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

DeskLevel = Literal["viewer", "moderator", "lead", "broadcaster"]


class Wire(BaseModel):
    model_config = ConfigDict(extra="forbid")


class LogIn(Wire):
    code: str = Field("", max_length=12, description="The second factor's, where the account asks for one.")
    login: str = Field(min_length=1, max_length=60)
    password: str = Field(min_length=1, max_length=200)


class Welcome(Wire):
    key: str = Field(description="The one-time key that the first start printed.")
    login: str = Field(min_length=2, max_length=60, pattern=r"^[\w.-]+$")
    name: str = Field(min_length=1, max_length=60)
    password: str = Field(min_length=10, max_length=200)


class Me(Wire):
    login: str
    name: str
    level: DeskLevel
    may: list[str] = Field(description="The acts that this account may do.")


class CommandView(Wire):
    name: str
    revision: str = Field(description="Changes whenever the command does; give it back when saving.")
    uses: int
    command: dict[str, Any] = Field(description="The command as it stands in the kit.")
    rotas: list[str] = Field([], description="The rotas that have it as a notice.")
    batch: int = Field(0, description="Takes the last save back, where it changed more than this.")


class BuiltInView(Wire):
    key: str
    names: list[str]
    level: str = Field(description="Who may use it now.")
    sets_level: str | None = Field(description="Who may change something with it; null where it changes nothing.")
    usual_names: list[str]
    usual_level: str = Field(description="The level that its needs mean unless the channel says otherwise.")
    on: bool
    uses: int
    revision: str
    setting: dict[str, Any] = Field(description="What the channel has set, as in a kit.")


class SaveBuiltIn(Wire):
    setting: dict[str, Any]
    revision: str


class Commands(Wire):
    prefix: str
    cooldown: Any = Field(description="The channel's default cooldown, as the kit has it.")
    commands: list[CommandView]
    built_ins: list[BuiltInView]
    cues: list[CommandView]
    rotas: list[str] = Field(description="Every rota's name.")
    counters: list[str] = Field(description="Every counter's name.")
    platforms: list[str]


class SaveCommand(Wire):
    command: dict[str, Any] = Field(description="The whole command, as in a kit.")
    revision: str | None = Field(None, description="The revision that was read; null for a new command.")
    rotas: list[str] | None = Field(None, description="The rotas that it is to be on; left out: as it is.")


class PreviewReply(Wire):
    reply: str = Field(max_length=2000)
    name: str = Field("", max_length=200, description="The name that it would have.")
    was: str | None = Field(None, description="The name that it has, where it has one.")
    aliases: list[str] = []
    used: Literal["command", "arrival", "shoutout", "plain", "happening", "quote", "notice"] = Field(
        "command", description="Where the template is used, which is what it may ask for."
    )


class PreviewOnPlatform(Wire):
    platform: str
    parts: list[str] = Field(description="The messages as this platform would show them.")


class Preview(Wire):
    problem: str | None = None
    line: int | None = None
    column: int | None = None
    shown: list[PreviewOnPlatform] = []
    clash: str | None = Field(None, description="What is wrong with the name.")


class SectionView(Wire):
    values: dict[str, Any] = Field(description="As in a kit, with what is usual filled in.")
    usual: dict[str, Any] = Field(description="What holds where the channel says nothing.")
    revision: str


class SaveSection(Wire):
    values: dict[str, Any]
    revision: str


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


class UnsavedChange(Wire):
    path: str
    value: Any = None


class TryOut(Wire):
    text: str = Field(min_length=1, max_length=2000)
    login: str = Field("thimblewick", min_length=1, max_length=60, pattern=r"^\S+$")
    level: str | None = Field("everyone", description="Null: the level that this person has.")
    platform: str = Field("brook", min_length=1, max_length=60)
    live: bool = True
    action: bool = False
    new: bool = Field(False, description="Whether the writer was never here before.")
    at: str | None = Field(None, description="The moment, RFC 3339; now if left out.")
    changes: list[UnsavedChange] = Field([], description="Unsaved settings to try with.")


class Tried(Wire):
    verdict: dict[str, Any]
    effects: list[dict[str, Any]] = Field([], description="Everything that would come of it, the verdict included.")


class TriedOut(Tried):
    level: str = Field(description="The level that the person has.")
    known: bool = Field(description="Whether this person was seen in chat.")


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


class CueHeard(Wire):
    all: int = Field(description="How many lines were looked at.")
    count: int
    lines: list[CaughtLine] = Field(description="The newest of those heard.")


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


class Act(Wire):
    """`over` goes on although another moderator has just done something about the same line or person."""

    over: bool = False


class OnMessage(Act):
    platform: str
    message: str


class OnPerson(Act):
    """On a line, or on a person alone: give `message`, or `person` written platform:id."""

    platform: str | None = None
    message: str | None = None
    person: str | None = None


class GivePass(OnPerson):
    length: str | int | None = Field(None, description="Such as 2m, or stream; two minutes if left out.")
    filters: list[str] | None = None
    end: bool = Field(False, description="End the pass instead.")


class Settle(OnMessage):
    mark: Literal["right", "wrong"]


class MoveBridge(Wire):
    up: bool


class PutBack(Wire):
    number: int


class TimeOutPerson(OnPerson):
    seconds: int = Field(ge=1, le=31_622_400)


class TimeOut(OnMessage):
    seconds: int = Field(ge=1, le=31_622_400, description="How long; the platform's nearest longer length is used.")


class CountStep(Wire):
    name: str
    step: str = Field(description="`+n`, `-n`, `=n` or `undo`.")


class SetTitle(Wire):
    title: str = Field(min_length=1, max_length=500)
    platforms: list[str] | None = None


class SaySomething(Wire):
    text: str = Field(min_length=1, max_length=1000)
    platforms: list[str] | None = None


class ClearCooldown(Wire):
    command: str
    identity: str | None = None


class SettleOverlap(Wire):
    key: str = Field(description="The command's key, as the screen was given it.")
    person: str


class Done(Wire):
    effects: list[dict[str, Any]] = Field(description="What came of it.")


class Health(Wire):
    version: str
    live: bool
    screens: int
    platforms: dict[str, str] = Field(description="How each connection stands.")
