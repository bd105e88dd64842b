"""Filters about what a message pretends or is: `actions`, `false_notice`."""

from __future__ import annotations

import re

from ahocorasick_rs import AhoCorasick

from gentlegate.core.filters.base import Finding
from gentlegate.core.kit.filters import FilterSection
from gentlegate.core.text.reading import Reading
from gentlegate.core.text.spelling import fold
from gentlegate.core.text.words import lines

LONGEST_NOTICE = 120
_ENGLISH = re.compile(
    r"(?:(?:this|that|the|your|his|her|their|a|an|1|one)? ?(?:chat )?(?:message|comment|post|msg|text)s? "
    r"(?:(?:was|were|is|are|has been|have been|got|been) )?(?:auto ?)?(?:deleted|removed|hidden|retracted|withheld|censored|purged)"
    r"|(?:auto ?)?(?:deleted|removed|hidden|retracted|withheld|censored|purged) (?:chat )?(?:message|comment|post|msg)"
    r"|(?:auto ?)?(?:deleted|removed|hidden|retracted|withheld|censored|purged))"
    r"(?P<by> (?:by|from) (?:(?:a|an|the|our|your) )?(?:chat |channel |site )?"
    r"(?:moderators?|mods?|broadcaster|streamer|admins?|administrators?|staff|owner|system|platform|bot|moderation|host|gatekeeper)(?: team)?)?"
)


class ActionsFilter:
    key = "actions"
    on_plain = False

    def __init__(self, settings: FilterSection) -> None:
        self.settings = settings

    def look(self, reading: Reading) -> list[Finding]:
        return [Finding(self.key, (0, len(reading.message.text)))] if reading.message.action else []


class FalseNoticeFilter:
    """The whole message reads as a platform's removal notice, in brackets or any other dressing."""

    key = "false_notice"
    on_plain = True

    def __init__(self, settings: FilterSection) -> None:
        self.settings = settings
        self._others = frozenset(fold(line) for line in lines("removal-notices"))
        hints = {line.split()[-1][:4] for line in self._others} | {
            "delet",
            "remov",
            "hid",
            "retrac",
            "withh",
            "censor",
            "purg",
        }
        self._hints = AhoCorasick(sorted(hints), store_patterns=False)

    def look(self, reading: Reading) -> list[Finding]:
        text = reading.text
        if len(text) > LONGEST_NOTICE or not self._hints.find_matches_as_indexes(
            reading.lower if reading.ascii else fold(text)
        ):
            return []
        folded = fold(text)
        words = " ".join(re.findall(r"\w+", folded.replace("_", " ")))
        if words in self._others:
            return [self._finding(text)]
        match = _ENGLISH.fullmatch(words)
        if match is None:
            return []
        bare = " " not in words and not match["by"]
        if bare and not self._dressed(text):
            return []
        return [self._finding(text)]

    @staticmethod
    def _dressed(text: str) -> bool:
        """Whether a single word stands in brackets or the like, as no harmless word does."""
        inner = text.strip()
        return len(inner) > 2 and not inner[0].isalnum() and not inner[-1].isalnum() and inner[-1] not in "!?.…"

    def _finding(self, text: str) -> Finding:
        start = len(text) - len(text.lstrip())
        return Finding(self.key, (start, len(text.rstrip())))
