"""Plaza's wire format ↔ the core's events and effects, and the proof that a webhook is Plaza's own; pure."""

from __future__ import annotations

import hashlib
import hmac
from typing import Any

from gentlegate.core.events import Event, Happening, Message, Person, Removal, StreamChange

PLATFORM = "plaza"
_BADGES = frozenset({"broadcaster", "moderator", "vip", "subscriber", "bot"})
_HAPPENINGS = frozenset({"follow", "subscribe", "gift", "tip", "raid"})


def is_signed(secret: str, when: str, body: bytes, given: str) -> bool:
    """Whether the signature is the HMAC-SHA256 of `TIME.BODY` (RFC 2104), compared in constant time."""
    made = "v1=" + hmac.new(secret.encode(), when.encode() + b"." + body, hashlib.sha256).hexdigest()
    return hmac.compare_digest(made, given)


def event(told: dict[str, Any], now: int) -> Event | None:
    """What a webhook tells; None for what is nothing to us. KeyError or TypeError where it is broken."""
    match told["kind"]:
        case "post":
            return message(told["post"])
        case "withdrawn":
            return Removal(now, PLATFORM, str(told["post"]))
        case "state":
            return channel(told, now)
        case kind if kind in _HAPPENINGS:
            member = told["member"]
            handle = str(member["handle"])
            who = Person(PLATFORM, str(member["uid"]), handle, str(member.get("name") or handle))
            return Happening(now, PLATFORM, kind, who, told.get("count"), told.get("words"))
    return None


def message(post: dict[str, Any]) -> Message:
    by = post["from"]
    handle = str(by["handle"])
    badges = frozenset(by.get("roles") or ()) & _BADGES
    person = Person(PLATFORM, str(by["uid"]), handle, str(by.get("name") or handle), badges)
    text = str(post["text"])
    spans = ((int(glyph["start"]), int(glyph["end"])) for glyph in post.get("glyphs") or ())
    emotes = tuple((start, end) for start, end in spans if 0 <= start < end <= len(text))
    at = round(post["time"] * 1_000_000)
    return Message(
        at, PLATFORM, str(post["id"]), person, text, emotes, bool(post.get("doing")), post.get("answers")
    )


def channel(state: dict[str, Any], now: int) -> StreamChange:
    return StreamChange(
        now, PLATFORM, bool(state["open"]), state.get("name"), state.get("topic"), state.get("audience")
    )


def request(effect: dict[str, Any]) -> tuple[str, dict[str, Any]] | None:
    """The path and body that carry an effect out; None where Plaza has nothing of the kind."""
    person = str(effect.get("person", "")).partition(":")[2]
    match effect["effect"]:
        case "say":
            only_for = str(effect["private_to"]).partition(":")[2] if effect.get("private_to") else None
            return "/plaza/posts", {"text": effect["text"], "answers": effect.get("reply_to"), "only_for": only_for}
        case "remove":
            return f"/plaza/posts/{effect['message']}/withdraw", {}
        case "timeout":
            return f"/plaza/members/{person}/pause", {"seconds": effect["seconds"]}
        case "ban":
            return f"/plaza/members/{person}/pause", {}
        case "unban":
            return f"/plaza/members/{person}/welcome", {}
        case "title":
            return "/plaza/settings", {"name": effect["title"]}
        case "category":
            return "/plaza/settings", {"topic": effect["category"]}
        case "followers_only":
            return "/plaza/settings", {"followers_only": effect["on"]}
        case "clip":
            return "/plaza/clips", {}
        case "ad":
            return "/plaza/ads", {"seconds": effect["seconds"]}
        case "raid":
            return "/plaza/raids", {"channel": effect["target"]}
        case "shoutout":
            return "/plaza/shoutouts", {"channel": effect["target"]}
        case _:
            return None
