"""`!mood NAME [tonight]`: set the mood, for good or until this stream ends."""

from __future__ import annotations

from gentlegate.core.builtins.base import Answer, Plan, refuse
from gentlegate.core.commands.use import Use
from gentlegate.core.kit.filters import MOODS
from gentlegate.core.parts import Parts


class MoodBuiltIn:
    key = "mood"

    def plan(self, use: Use, parts: Parts) -> Plan:
        words = use.args.lower().split()
        before = parts.kit.channel.mood
        if not words or words[0] not in MOODS or words[1:] not in ([], ["tonight"]):
            return refuse(
                f"The mood is {before.title()}. Write one of {', '.join(MOODS)}, and tonight if you like."
            )
        mood, tonight = words[0], len(words) > 1

        def run() -> Answer:
            changed = parts.changes.make("channel.mood", mood, use.person.key, use.now, use.cause, tonight)
            until = " until the stream ends" if tonight else ""
            return [changed], f"The mood is {mood.title()} now{until}. Before: {before.title()}."

        return Plan(run=run, cools=False)
