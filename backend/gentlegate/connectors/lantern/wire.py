"""Lantern's wire format ↔ the core's events and effects; pure."""

from __future__ import annotations

from typing import Any

from gentlegate.core.events import Happening, Message, Person, Removal, StreamChange

PLATFORM = "lantern"
_BADGES = frozenset({"broadcaster", "moderator", "vip", "subscriber", "bot"})


def entry(entry: dict[str, Any], now: int) -> Message | Removal | Happening:
    """An entry of the page: a line, a line that a person hid, or something that happened."""
    if "gone" in entry:
        return Removal(now, PLATFORM, str(entry["gone"]))
    if "told" in entry:
        nick = str(entry["by"]["nick"])
        who = Person(PLATFORM, str(entry["by"]["number"]), nick, str(entry["by"].get("display") or nick))
        return Happening(now, PLATFORM, str(entry["told"]), who, entry.get("sum"), entry.get("words"))
    return message(entry)


def message(entry: dict[str, Any]) -> Message:
    """An entry of the page of chat. KeyError or TypeError where it is none."""
    by = entry["by"]
    login = str(by["nick"])
    badges = frozenset(by.get("roles") or ()) & _BADGES
    person = Person(PLATFORM, str(by["number"]), login, str(by.get("display") or login), badges)
    text = str(entry["words"])
    spans = ((int(i["from"]), int(i["to"])) for i in entry.get("images") or ())
    emotes = tuple((start, end) for start, end in spans if 0 <= start < end <= len(text))
    return Message(
        round(entry["when"] * 1_000_000),
        PLATFORM,
        str(entry["ref"]),
        person,
        text,
        emotes,
        bool(entry.get("me")),
    )


def channel(status: dict[str, Any], now: int) -> StreamChange:
    return StreamChange(
        now, PLATFORM, bool(status["lit"]), status.get("headline"), status.get("shelf"), status.get("watchers")
    )


def request(effect: dict[str, Any]) -> tuple[str, dict[str, Any]] | None:
    """The path and body that carry an effect out; None where Lantern has nothing of the kind."""
    person = str(effect.get("person", "")).partition(":")[2]
    match effect["effect"]:
        case "say":
            return "/lantern/post", {"words": effect["text"]}
        case "remove":
            return "/lantern/hide", {"entry": effect["message"]}
        case "restore":
            return "/lantern/show", {"entry": effect["message"]}
        case "timeout":
            return "/lantern/hush", {"who": person, "seconds": effect["seconds"]}
        case "ban":
            return "/lantern/hush", {"who": person}
        case "unban":
            return "/lantern/unhush", {"who": person}
        case "title":
            return "/lantern/headline", {"words": effect["title"]}
        case "category":
            return "/lantern/shelf", {"words": effect["category"]}
        case "marker":
            return "/lantern/bookmark", {"words": effect["note"]}
        case _:
            return None
