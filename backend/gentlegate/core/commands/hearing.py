"""Hearing a command in a message: prefix, known name, and what follows (spec page 4, *Hearing*)."""

from __future__ import annotations

import re
from dataclasses import dataclass

from gentlegate.core.text.folding import IGNORABLE, fold_name

_MENTION = re.compile(r"@\S+\s+")


@dataclass(frozen=True, slots=True)
class Heard:
    """A command heard: its own name, the text after it, and where that begins in the message."""

    name: str
    args: str
    body: int


class Ear:
    """Knows the prefix and every name; `names` maps folded names and aliases to commands."""

    def __init__(self, prefix: str, names: dict[str, str]) -> None:
        self._prefix = fold_name(prefix)
        self.names = names

    def key_of(self, name: str) -> str | None:
        """What a name or alias means, written with or without the prefix."""
        folded = fold_name(name)
        return self.names.get(folded, self.names.get(folded.removeprefix(self._prefix)))

    def hear(self, text: str, is_reply: bool) -> Heard | None:
        start = 0
        if text.isascii():
            if is_reply and text[:1] == "@" and (mention := _MENTION.match(text)):
                start = mention.end()
            if not text.startswith(self._prefix, start) and not text[start : start + 1].isalpha():
                return None
        else:
            start = self._skip_unseen(text, 0)
            if is_reply and (mention := _MENTION.match(text, start)):
                start = self._skip_unseen(text, mention.end())
        word = text[start:].split(None, 1)[:1]
        if not word or text[start : start + 1].isspace():
            return None
        folded = fold_name(word[0])
        if not folded.startswith(self._prefix):
            return None
        name = self.names.get(folded[len(self._prefix) :])
        if name is None:
            return None
        end = start + len(word[0])
        args = text[end:].strip()
        body = len(text) if not args else text.index(args, end)
        return Heard(name, args, body)

    @staticmethod
    def _skip_unseen(text: str, start: int) -> int:
        while start < len(text) and IGNORABLE.match(text[start]):
            start += 1
        return start
