"""The commands of the last seconds, in memory only: what another bot's message may be an answer to."""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass

from gentlegate.core.events import Message
from gentlegate.core.moments import SECOND

WITHIN = 3 * SECOND


@dataclass(slots=True)
class _Heard:
    """A command just used: where, when, in which message, and the bots that have answered since."""

    command: str
    platform: str
    message: str
    at: int
    answered: set[str]


class Listening:
    """The commands of the last three seconds."""

    def __init__(self) -> None:
        self._heard: deque[_Heard] = deque(maxlen=100)

    def command(self, command: str, message: Message) -> None:
        self._heard.append(_Heard(command, message.platform, message.id, message.at, set()))

    def answers(self, bot: Message) -> str | None:
        """The command that a bot's message answers, if any: the one it replies to, or else the latest it has not answered."""
        fresh = [
            heard
            for heard in self._heard
            if heard.platform == bot.platform
            and 0 <= bot.at - heard.at <= WITHIN
            and bot.person.key not in heard.answered
        ]
        named = [heard for heard in fresh if bot.reply_to == heard.message]
        for heard in reversed(named or ([] if bot.reply_to else fresh)):
            heard.answered.add(bot.person.key)
            return heard.command
        return None
