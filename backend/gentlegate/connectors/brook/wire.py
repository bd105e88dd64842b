"""Brook's wire format ↔ the core's events and effects; pure."""

from __future__ import annotations

from typing import Any

from gentlegate.core.events import Happening, Message, Person, Removal, StreamChange

PLATFORM = "brook"
_BADGES = frozenset({"broadcaster", "moderator", "vip", "subscriber", "bot"})


def message(line: dict[str, Any]) -> Message:
    """A line of chat. KeyError or TypeError where it is none."""
    author = line["author"]
    person = Person(
        PLATFORM,
        str(author["uid"]),
        str(author["handle"]),
        str(author.get("shown") or author["handle"]),
        frozenset(author.get("marks") or ()) & _BADGES,
    )
    text = str(line["body"])
    emotes = tuple((int(a), int(b)) for a, b in line.get("pictures") or () if 0 <= a < b <= len(text))
    return Message(
        int(line["ts"]) * 1000,
        PLATFORM,
        str(line["id"]),
        person,
        text,
        emotes,
        bool(line.get("deed")),
        line.get("thread"),
    )


def removal(frame: dict[str, Any], now: int) -> Removal:
    """A line that a person removed."""
    return Removal(now, PLATFORM, str(frame["id"]))


def happening(frame: dict[str, Any], now: int) -> Happening:
    """A follow, subscription, gift, tip or raid."""
    handle = str(frame["handle"])
    who = Person(PLATFORM, str(frame["uid"]), handle, str(frame.get("shown") or handle))
    return Happening(now, PLATFORM, str(frame["of"]), who, frame.get("amount"), frame.get("text"))


def channel(frame: dict[str, Any], now: int) -> StreamChange:
    return StreamChange(
        now, PLATFORM, bool(frame["on_air"]), frame.get("title"), frame.get("section"), frame.get("watching")
    )


def request(effect: dict[str, Any]) -> tuple[str, dict[str, Any]] | None:
    """The path and body that carry an effect out; None where Brook has nothing of the kind."""
    person = str(effect.get("person", "")).partition(":")[2]
    match effect["effect"]:
        case "say":
            whisper = str(effect["private_to"]).partition(":")[2] if effect.get("private_to") else None
            return "/brook/say", {
                "body": effect["text"],
                "thread": effect.get("reply_to"),
                "whisper_to": whisper,
            }
        case "remove":
            return f"/brook/lines/{effect['message']}/delete", {}
        case "timeout":
            return f"/brook/people/{person}/quiet", {"seconds": effect["seconds"]}
        case "ban":
            return f"/brook/people/{person}/ban", {}
        case "unban":
            return f"/brook/people/{person}/free", {}
        case "followers_only":
            return "/brook/followers", {"only": effect["on"]}
        case "title":
            return "/brook/channel", {"title": effect["title"]}
        case "category":
            return "/brook/channel", {"section": effect["category"]}
        case "marker":
            return "/brook/markers", {"note": effect["note"]}
        case "clip":
            return "/brook/clips", {}
        case "ad":
            return "/brook/breaks", {"seconds": effect["seconds"]}
        case "raid":
            return "/brook/raids", {"to": effect["target"]}
        case "shoutout":
            return "/brook/shoutouts", {"to": effect["target"]}
        case _:
            return None
