"""From a reply's text to what a platform takes: parts that fit, no slash commands, no pings for everyone."""

from __future__ import annotations

import re

from gentlegate.core.effects import Cause, Say
from gentlegate.core.events import Message
from gentlegate.core.platforms import Abilities

MOST_PARTS = 3
_EVERYONE = re.compile(r"@(?=(?:everyone|here|all)\b)", re.IGNORECASE)
SLASHES = "/.\\"


def harmless(text: str) -> str:
    """The text so that no platform reads a slash command or a ping for everyone in it."""
    text = _EVERYONE.sub("@\u200b", text.strip())
    return f"· {text}" if text and text[0] in SLASHES and not text.startswith("..") else text


def parts(text: str, length: int | None) -> list[str]:
    """At most three parts of at most `length` characters, split at word ends, the rest cut with `…`."""
    text = harmless(text)
    found: list[str] = []
    while text and length is not None and len(text) > length:
        if len(found) == MOST_PARTS - 1:
            return [*found, text[: length - 1].rstrip() + "…"]
        end = text.rfind(" ", 1, length + 1)
        end = end if end > 0 else length
        found.append(text[:end].rstrip())
        text = harmless(text[end:])
    return [*found, text] if text else found


def aloud(text: str, platform: str, abilities: Abilities, cause: Cause, at: int) -> list[Say]:
    """The says that say it to everybody on a platform."""
    return [Say(at=at, platform=platform, text=part, cause=cause) for part in parts(text, abilities.length)]


def answer(
    text: str, mode: str, message: Message, platform: str, abilities: Abilities, cause: Cause, at: int
) -> list[Say]:
    """The says that answer a message on a platform: private falls back to a thread, a thread to a mention."""
    same = platform == message.platform
    private_to = reply_to = None
    if mode == "private" and same and abilities.private:
        private_to = message.person.key
    elif mode in ("private", "reply") and same:
        if abilities.threads:
            reply_to = message.id
        else:
            text = f"@{message.person.login} {text}"
    return [
        Say(at=at, platform=platform, text=part, reply_to=reply_to, private_to=private_to, cause=cause)
        for part in parts(text, abilities.length)
    ]
