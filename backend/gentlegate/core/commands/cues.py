"""Hearing a cue: a phrase in the message, or a name, with no prefix (spec page 4, *Cues*).

What it costs does not grow with the cues: words are looked for by one automaton, whole messages in one table,
patterns in one RE2 set, for each place in which cues listen.
"""

from __future__ import annotations

from ahocorasick_rs import AhoCorasick

from gentlegate.core.events import Message
from gentlegate.core.kit.commands import Cue
from gentlegate.core.text.patterns import Patterns, read_pattern
from gentlegate.core.text.spelling import fold


class CueEar:
    """Every cue of a kit, ready to be heard."""

    def __init__(self, cues: list[Cue]) -> None:
        self._platforms = [cue.platforms for cue in cues]
        self._places = {
            where: _Place([(index, cue) for index, cue in enumerate(cues) if cue.where == where])
            for where in ("text", "login", "name")
            if any(cue.where == where for cue in cues)
        }

    def hear(self, message: Message) -> int | None:
        """The number of the first cue in the list that is heard here, or None."""
        if not self._places:
            return None
        found: set[int] = set()
        for where, place in self._places.items():
            text = message.text if where == "text" else getattr(message.person, where)
            found |= place.find(text)
        for index in sorted(found):
            platforms = self._platforms[index]
            if platforms is None or message.platform in platforms:
                return index
        return None


class _Place:
    """The cues that listen in one place."""

    def __init__(self, cues: list[tuple[int, Cue]]) -> None:
        words: dict[str, list[int]] = {}
        self._exact: dict[str, list[int]] = {}
        patterns = []
        for index, cue in cues:
            for heard in cue.hears:
                if cue.match == "pattern":
                    patterns.append(read_pattern(index, heard))
                else:
                    table = words if cue.match == "words" else self._exact
                    table.setdefault(_folded(heard), []).append(index)
        self._words = list(words.values())
        self._automaton = AhoCorasick(list(words), store_patterns=False)
        self._patterns = Patterns(patterns) if patterns else None

    def find(self, text: str) -> set[int]:
        plain = " ".join(fold(text).split())
        found = set(self._exact.get(plain, ()))
        if self._words:
            for number, start, end in self._automaton.find_matches_as_indexes(plain, overlapping=True):
                before = start > 0 and plain[start - 1].isalnum() and plain[start].isalnum()
                after = end < len(plain) and plain[end].isalnum() and plain[end - 1].isalnum()
                if not before and not after:
                    found.update(self._words[number])
        if self._patterns is not None:
            found.update(hit.phrase for hit in self._patterns.find(text))
        return found


def _folded(text: str) -> str:
    return " ".join(fold(text).split())
