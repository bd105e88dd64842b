"""What the ledger keeps of what happened: changes and acts, with who and where."""

from __future__ import annotations

from collections.abc import Iterator

from gentlegate.core.effects import (
    Ad,
    Ban,
    Category,
    Clip,
    CounterMoved,
    Drawbridge,
    Effect,
    Marked,
    Marker,
    Overlap,
    PassGiven,
    Raid,
    Remove,
    SettingChanged,
    Shoutout,
    Timeout,
    Title,
    Unban,
    Undone,
    Warned,
)
from gentlegate.core.events import DeskAct, Event
from gentlegate.core.journal import LedgerEntry
from gentlegate.core.records import RaidRecord
from gentlegate.core.state import State


def of_raid(was: RaidRecord | None, now_is: RaidRecord | None, at: int, who: str, place: str) -> list[LedgerEntry]:
    """That a raid was armed, or that one was called off or went."""
    if was == now_is:
        return []
    record = now_is or was
    assert record is not None
    before, after = (one.name if one else None for one in (was, now_is))
    return [LedgerEntry(at, who, place, "raid_armed", record.platform, before, after)]


def of_act(event: Event | None, who: str) -> list[LedgerEntry]:
    """An act at the Desk that shows in no effect."""
    if isinstance(event, DeskAct) and event.do == "arrivals":
        return [LedgerEntry(event.at, who, "desk", "arrivals", event.values.get("person"))]
    return []


Shown = dict[str, tuple[str | None, str | None]]


def shown_on(state: State) -> Shown:
    """Title and category of each platform."""
    return {name: (record.title, record.category) for name, record in state.platforms.items()}


def ledger_lines(effects: list[Effect], who: str, place: str, shown: Shown) -> Iterator[LedgerEntry]:
    """The entries of these effects; `who` did it at `place` (`desk`, `chat`, `gate`), `shown` is what stood before."""
    nothing = (None, None)
    for effect in effects:
        match effect:
            case CounterMoved():
                yield LedgerEntry(effect.at, who, place, "count", effect.name, effect.before, effect.after)
            case Title():
                yield LedgerEntry(
                    effect.at,
                    who,
                    place,
                    "title",
                    effect.platform,
                    shown.get(effect.platform, nothing)[0],
                    effect.title,
                )
            case Category():
                yield LedgerEntry(
                    effect.at,
                    who,
                    place,
                    "category",
                    effect.platform,
                    shown.get(effect.platform, nothing)[1],
                    effect.category,
                )
            case Marker():
                yield LedgerEntry(effect.at, who, place, "marker", effect.platform, None, effect.note)
            case Clip():
                yield LedgerEntry(effect.at, who, place, "clip", effect.platform)
            case Ad():
                yield LedgerEntry(effect.at, who, place, "ad", effect.platform, None, effect.seconds)
            case Raid() | Shoutout():
                yield LedgerEntry(effect.at, who, place, effect.effect, effect.platform, None, effect.target)
            case PassGiven():
                yield LedgerEntry(effect.at, who, place, "pass", effect.person, list(effect.filters), effect.until)
            case Marked():
                about = f"{effect.platform} {effect.message}"
                yield LedgerEntry(effect.at, who, place, "mark", about, None, effect.mark)
            case Drawbridge():
                by, where = (who, place) if effect.by else ("gate", "gate")
                yield LedgerEntry(effect.at, by, where, "drawbridge", effect.why, None, effect.state)
            case Unban() if effect.by is not None:
                yield LedgerEntry(effect.at, who, place, "lift", f"{effect.platform} {effect.person}")
            case Remove() | Timeout() | Ban() if effect.by is not None:
                about = effect.message if isinstance(effect, Remove) else effect.person
                seconds = effect.seconds if isinstance(effect, Timeout) else None
                yield LedgerEntry(effect.at, who, place, effect.effect, f"{effect.platform} {about}", None, seconds)
            case Undone():
                yield LedgerEntry(effect.at, who, place, "undo", f"{effect.platform} {effect.message}")
            case SettingChanged():
                what = {None: "setting", True: "tonight", False: "put_back"}[effect.tonight]
                yield LedgerEntry(effect.at, who, place, what, effect.path, effect.before, effect.after)
            case Overlap():
                yield LedgerEntry(effect.at, "gate", "gate", "overlap", effect.command, None, effect.person)
            case Warned():
                yield LedgerEntry(effect.at, "gate", "gate", "warning", effect.about, None, effect.problem)
